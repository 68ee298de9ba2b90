import { sql } from 'drizzle-orm'
import type { Nightly } from '@awlbox/core/keep/nightly'
import type { Db } from '../platform/db.ts'
import { nightlyBackup, settings } from '../platform/schema.ts'

export type NightlyRow = Nightly & { folder: string; lastBytes: number | null; problem: string | null }
const none: NightlyRow = {
  on: false,
  folder: '',
  since: null,
  lastGood: null,
  lastTried: null,
  lastBytes: null,
  problem: null,
  asked: false,
}
/** The nightly backup as it stands; off where nobody chose. */
export async function nightlyOf(db: Db): Promise<NightlyRow> {
  const [row] = await db.select().from(nightlyBackup).limit(1)
  return row
    ? {
        ...row,
        since: row.since?.toISOString() ?? null,
        lastGood: row.lastGood?.toISOString() ?? null,
        lastTried: row.lastTried?.toISOString() ?? null,
      }
    : none
}
/** The clock the setting keeps: a name such as Europe/London. */
export async function clockOf(db: Db): Promise<string> {
  const [row] = await db.select({ zone: settings.timeZone }).from(settings).limit(1)
  return row?.zone ?? 'UTC'
}
type Change = Partial<Omit<typeof nightlyBackup.$inferInsert, 'one'>>
export async function setNightly(db: Db, change: Change): Promise<void> {
  const { on: _on, folder: _folder, ...usual } = { ...none, since: null, lastGood: null, lastTried: null }
  await db
    .insert(nightlyBackup)
    .values({ ...usual, on: false, folder: '', ...change })
    .onConflictDoUpdate({ target: nightlyBackup.one, set: change })
}
/** Files that are kept, and their bytes, by what they are. */
export async function keptBy(
  db: Db,
): Promise<{ what: 'films' | 'photos' | 'files'; count: number; bytes: number }[]> {
  const { rows } = await db.execute<{ what: 'films' | 'photos' | 'files'; count: string; bytes: string }>(sql`
    select case when mime like 'video/%' or mime like 'audio/%' then 'films' when mime like 'image/%' then 'photos' else 'files' end as what,
      count(*) as count, coalesce(sum(size), 0) as bytes
    from blobs group by 1 order by 3 desc`)
  return rows.map((r) => ({ what: r.what, count: Number(r.count), bytes: Number(r.bytes) }))
}
