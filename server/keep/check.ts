import type { Db } from '../platform/db.ts'
import type { Blobs } from '../platform/blobs.ts'
import { hashOf } from './hash.ts'
import { blobNames, tallies } from './store.ts'

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
  return { blobs: names.length, missing, changed, ...(await tallies(db)) }
}
export const isWhole = (c: Checked): boolean =>
  !c.missing.length && !c.changed.length && !c.revisions.wrong && !c.judgements.homeless
