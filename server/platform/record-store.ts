import { and, desc, eq, gt, gte, isNull, lt, sql } from 'drizzle-orm'
import type { Act, Records } from '@awlbox/core/contracts/api/route'
import type { Wanted } from '@awlbox/core/contracts/api/record'
import type { Db } from './db.ts'
import { forLog, log } from './log.ts'
import { households, people, record } from './schema.ts'

export interface NewLine {
  settingId: string
  personId?: string | null
  householdId?: string | null
  act: Act
  words: string
  subject?: string | null
}
/** Minutes in which looking at, or changing, the same thing again is the same line: a page that saves itself is no list of keystrokes. */
const same = 10

/** Writes a line of the record of use. */
export async function writeLine(db: Db, line: NewLine): Promise<void> {
  await db.insert(record).values(line)
}

/** Writes the line a call leaves. What cannot be written is told in the log and never spoils what was asked for. */
export async function recordCall(
  db: Db,
  who: { settingId: string; personId?: string; householdId?: string },
  records: Records,
  params: Readonly<Record<string, unknown>>,
): Promise<void> {
  const value = records.of === undefined ? null : params[records.of]
  const subject = typeof value === 'string' ? value : null
  const line: NewLine = { ...who, act: records.act, words: records.words, subject }
  try {
    if ((records.act === 'saw' || records.act === 'changed') && (await wasJust(db, line))) return
    await writeLine(db, line)
  } catch (error) {
    log.error({ error: forLog(error), words: records.words }, 'the record of use could not be written')
  }
}
async function wasJust(db: Db, line: NewLine): Promise<boolean> {
  const [there] = await db
    .select({ id: record.id })
    .from(record)
    .where(
      and(
        line.personId ? eq(record.personId, line.personId) : isNull(record.personId),
        gt(record.at, sql`now() - make_interval(mins => ${same})`),
        eq(record.settingId, line.settingId),
        eq(record.words, line.words),
        line.subject ? eq(record.subject, line.subject) : isNull(record.subject),
      ),
    )
    .limit(1)
  return there !== undefined
}

/** Lines of a setting, newest first. */
export const linesOf = (
  db: Db,
  settingId: string,
  wanted: Wanted & { after?: string | undefined },
  limit: number,
) =>
  db
    .select({
      id: record.id,
      at: record.at,
      who: sql<string | null>`coalesce(${people.name}, ${households.name})`,
      act: record.act,
      words: record.words,
      subject: record.subject,
    })
    .from(record)
    .leftJoin(people, eq(people.id, record.personId))
    .leftJoin(households, eq(households.id, record.householdId))
    .where(
      and(
        eq(record.settingId, settingId),
        wanted.person ? eq(record.personId, wanted.person) : undefined,
        wanted.act ? eq(record.act, wanted.act) : undefined,
        wanted.from ? gte(record.at, dayOf(settingId, wanted.from, 0)) : undefined,
        wanted.until ? lt(record.at, dayOf(settingId, wanted.until, 1)) : undefined,
        wanted.after ? lt(record.id, Number(wanted.after)) : undefined,
      ),
    )
    .orderBy(desc(record.id))
    .limit(limit)
/** The beginning of a day, or of one some days later, by the setting's own clock. */
const dayOf = (settingId: string, day: string, later: number) =>
  sql`((${day}::date + ${later}::int)::timestamp at time zone (select time_zone from settings where id = ${settingId}))`

/** Lines older than the record of a setting is kept. */
export const letLinesGo = (db: Db, settingId: string, days: number): Promise<number> =>
  db.transaction(async (tx) => {
    await tx.execute(sql`set local awlbox.letting_go = 'on'`)
    const gone = await tx
      .delete(record)
      .where(and(eq(record.settingId, settingId), lt(record.at, sql`now() - make_interval(days => ${days})`)))
    return gone.rowCount ?? 0
  })
