import type { Db } from '../platform/db.ts'
import type { Blobs } from '../platform/blobs.ts'
import { sql } from 'drizzle-orm'
import { hashOf } from './hash.ts'
import { blobNames } from './store.ts'

export interface Checked {
  blobs: number
  missing: string[]
  changed: string[]
  /** Lessons whose newest revision is not the one they show. */
  revisions: { lessons: number; wrong: number }
  judgements: { all: number; homeless: number }
}
/** Proves what is kept: every file against its hash, every lesson against its revisions, every judgement against its reply. */
export async function check(db: Db, blobs: Blobs): Promise<Checked> {
  const [missing, changed]: [string[], string[]] = [[], []]
  const names = await blobNames(db)
  for (const { sha256 } of names) {
    const found = await hashOf(blobs.path(sha256))
    if (found === null) missing.push(sha256)
    else if (found !== sha256) changed.push(sha256)
  }
  const one = async (query: ReturnType<typeof sql>): Promise<number> =>
    Number((await db.execute<{ n: string }>(query)).rows[0]!.n)
  return {
    blobs: names.length,
    missing,
    changed,
    revisions: {
      lessons: await one(sql`select count(*) as n from lessons`),
      wrong: await one(sql`
        select count(*) as n from lessons l
        where not exists (select 1 from lesson_revisions r where r.lesson_id = l.id and r.revision = l.revision and r.doc = l.doc)
           or exists (select 1 from lesson_revisions r where r.lesson_id = l.id and r.revision > l.revision)`),
    },
    judgements: {
      all: await one(sql`select count(*) as n from judgements`),
      homeless: await one(
        sql`select count(*) as n from judgements j where not exists (select 1 from replies r where r.id = j.reply_id)`,
      ),
    },
  }
}
export const isWhole = (c: Checked): boolean =>
  !c.missing.length && !c.changed.length && !c.revisions.wrong && !c.judgements.homeless
