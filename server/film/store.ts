import { and, asc, eq, sql } from 'drizzle-orm'
import type { Hearing } from '@awlbox/core/contracts/heard'
import { factsOf, type TakeFacts } from '@awlbox/core/cut/propose'
import type { Db } from '../platform/db.ts'
import {
  children,
  classes,
  finishedUploads,
  hearings,
  households,
  jobs,
  lessons,
  pronunciations,
  settings,
  takes,
} from '../platform/schema.ts'

export type TakeRow = typeof takes.$inferSelect
type TakeSource = TakeRow['source']
/** A take to add; `segmentId` null puts it in the tray. */
export type NewTake = {
  lessonId: string
  segmentId: string | null
  source: TakeSource
  original: string
} & Partial<Pick<TakeRow, 'name' | 'part' | 'sorting' | 'marks' | 'sound'>>

const nextNumber = (lessonId: string, segmentId: string | null) =>
  sql<number>`(select coalesce(max(number), 0) + 1 from takes where lesson_id = ${lessonId} and segment_id is not distinct from ${segmentId})`
/** Two may want the next number at once: the unique key decides, and the loser tries again. */
async function numbered<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 0; ; attempt++) {
    try {
      return await work()
    } catch (error) {
      const code =
        (error as { code?: string; cause?: { code?: string } }).cause?.code ??
        (error as { code?: string }).code
      if (code !== '23505' || attempt > 8) throw error
    }
  }
}
export const addTake = (db: Db, input: NewTake): Promise<string> =>
  numbered(
    async () =>
      (
        await db
          .insert(takes)
          .values({ ...input, number: nextNumber(input.lessonId, input.segmentId) })
          .returning({ id: takes.id })
      )[0]!.id,
  )

/** Gives a take to a segment, as its latest; what was heard for another segment is forgotten. */
export const moveTake = (
  db: Db,
  take: TakeRow,
  segmentId: string | null,
  sorting: TakeRow['sorting'],
): Promise<void> =>
  numbered(() =>
    db.transaction(async (tx) => {
      await tx
        .update(takes)
        .set({ segmentId, sorting, number: nextNumber(take.lessonId, segmentId) })
        .where(eq(takes.id, take.id))
      if (segmentId !== take.segmentId) await tx.delete(hearings).where(eq(hearings.takeId, take.id))
    }),
  )

export const takesOf = (db: Db, lessonId: string) =>
  db
    .select({
      id: takes.id,
      segmentId: takes.segmentId,
      number: takes.number,
      source: takes.source,
      name: takes.name,
      seconds: takes.seconds,
      hasSound: takes.hasSound,
      status: takes.status,
      problem: takes.problem,
      createdAt: takes.createdAt,
      part: takes.part,
      sorting: takes.sorting,
      firstFrame: takes.firstFrame,
      marks: takes.marks,
      corrections: takes.corrections,
      sound: takes.sound,
      looked: takes.looked,
      captioned: sql<boolean>`${takes.captions} is not null`,
      hearing: hearings.hearing,
      heardAtRevision: hearings.lessonRevision,
    })
    .from(takes)
    .leftJoin(hearings, eq(hearings.takeId, takes.id))
    .where(eq(takes.lessonId, lessonId))
    .orderBy(asc(takes.number), asc(takes.createdAt))

export async function takeFacts(db: Db, lessonId: string): Promise<TakeFacts[]> {
  return factsOf(await takesOf(db, lessonId))
}
export async function takeById(db: Db, id: string): Promise<TakeRow | undefined> {
  const [row] = await db.select().from(takes).where(eq(takes.id, id)).limit(1)
  return row
}
/** An upload that became a take, as it is remembered. */
export interface FinishedUpload {
  takeId: string
  known: boolean
  size: number
  personId: string
}
export async function finishedUpload(db: Db, id: string): Promise<FinishedUpload | undefined> {
  const [row] = await db
    .select({
      takeId: finishedUploads.takeId,
      known: finishedUploads.known,
      size: finishedUploads.size,
      personId: finishedUploads.personId,
    })
    .from(finishedUploads)
    .where(eq(finishedUploads.id, id))
    .limit(1)
  return row
}
/** Takes that nothing was ever begun for, because the process ended right after they were written down. */
export const takesLeftAlone = (db: Db) =>
  db
    .select({
      id: takes.id,
      lessonId: takes.lessonId,
      segmentId: takes.segmentId,
      settingId: classes.settingId,
    })
    .from(takes)
    .innerJoin(lessons, eq(lessons.id, takes.lessonId))
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(
      and(
        eq(takes.status, 'preparing'),
        sql`not exists (select 1 from ${jobs} where ${jobs.subject} = ${takes.id}::text)`,
      ),
    )
    .limit(50)

/**
 * Adds a take unless the lesson has one from the very same file: then that one is `known`. Two that come at once wait
 * for each other. `upload` is remembered with it, so that an upload finished twice becomes one take.
 */
export const addOnce = (
  db: Db,
  input: NewTake,
  upload: { id: string; size: number; personId: string } | null = null,
): Promise<{ takeId: string; known: boolean }> =>
  numbered(() =>
    db.transaction(async (tx) => {
      const remember = async (made: { takeId: string; known: boolean }) => {
        if (upload)
          await tx
            .insert(finishedUploads)
            .values({ ...upload, ...made })
            .onConflictDoNothing()
        return made
      }
      await tx.execute(
        sql`select pg_advisory_xact_lock(hashtextextended(${input.lessonId} || ${input.original}, 0))`,
      )
      const before = upload && (await finishedUpload(tx, upload.id))
      if (before) return { takeId: before.takeId, known: before.known }
      const [there] = await tx
        .select({ id: takes.id })
        .from(takes)
        .where(and(eq(takes.lessonId, input.lessonId), eq(takes.original, input.original)))
        .orderBy(asc(takes.createdAt))
        .limit(1)
      if (there) return remember({ takeId: there.id, known: true })
      const [row] = await tx
        .insert(takes)
        .values({ ...input, number: nextNumber(input.lessonId, input.segmentId) })
        .returning({ id: takes.id })
      return remember({ takeId: row!.id, known: false })
    }),
  )
export const partsOf = (db: Db, take: TakeRow): Promise<TakeRow[]> =>
  db
    .select()
    .from(takes)
    .where(
      and(
        eq(takes.lessonId, take.lessonId),
        eq(takes.original, take.original),
        sql`${takes.part} is not null`,
      ),
    )
export const setTake = (db: Db, id: string, change: Partial<typeof takes.$inferInsert>) =>
  db.update(takes).set(change).where(eq(takes.id, id))
export const removeTake = (db: Db, id: string) => db.delete(takes).where(eq(takes.id, id))
export const saveHearing = (db: Db, takeId: string, hearing: Hearing, lessonRevision: number) =>
  db
    .insert(hearings)
    .values({ takeId, hearing, lessonRevision })
    .onConflictDoUpdate({ target: hearings.takeId, set: { hearing, lessonRevision, at: new Date() } })
export async function hearingOf(db: Db, takeId: string): Promise<Hearing | null> {
  const [row] = await db
    .select({ hearing: hearings.hearing })
    .from(hearings)
    .where(eq(hearings.takeId, takeId))
    .limit(1)
  return row?.hearing ?? null
}

/** Learnt ways of saying the words of a lesson's segment, or of all its segments. */
export async function pronunciationsOf(
  db: Db,
  lessonId: string,
  segmentId: string | null,
): Promise<Map<string, string[]>> {
  const rows = await db
    .select()
    .from(pronunciations)
    .where(
      and(
        eq(pronunciations.lessonId, lessonId),
        segmentId === null ? undefined : eq(pronunciations.segmentId, segmentId),
      ),
    )
  const out = new Map<string, string[]>()
  for (const r of rows) out.set(r.word, [...(out.get(r.word) ?? []), r.phones])
  return out
}
export const learn = (db: Db, rows: readonly (typeof pronunciations.$inferInsert)[]) =>
  rows.length
    ? db
        .insert(pronunciations)
        .values([...rows])
        .onConflictDoNothing()
    : Promise.resolve()
export const pronunciationRows = (db: Db, lessonId: string) =>
  db
    .select({
      segmentId: pronunciations.segmentId,
      word: pronunciations.word,
      phones: pronunciations.phones,
      heard: pronunciations.heard,
    })
    .from(pronunciations)
    .where(eq(pronunciations.lessonId, lessonId))
    .orderBy(asc(pronunciations.word))
export const unlearn = (db: Db, lessonId: string, segmentId: string, word: string) =>
  db
    .delete(pronunciations)
    .where(
      and(
        eq(pronunciations.lessonId, lessonId),
        eq(pronunciations.segmentId, segmentId),
        eq(pronunciations.word, word),
      ),
    )

export async function settingOf(db: Db, lessonId: string): Promise<string> {
  const [row] = await db
    .select({ id: classes.settingId })
    .from(lessons)
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(eq(lessons.id, lessonId))
    .limit(1)
  return row!.id
}
/** Names that must not be read in a film of this lesson: the children's of its class, where they live, the class's and the setting's. */
export async function whoIsNear(
  db: Db,
  lessonId: string,
): Promise<{ children: string[]; places: string[]; addresses: string[] }> {
  const rows = await db
    .select({ child: children.given, home: households.name, group: classes.name, setting: settings.name })
    .from(lessons)
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .innerJoin(settings, eq(settings.id, classes.settingId))
    .leftJoin(children, eq(children.classId, classes.id))
    .leftJoin(households, eq(households.id, children.householdId))
    .where(eq(lessons.id, lessonId))
  return {
    children: rows.flatMap((r) => r.child ?? []),
    places: rows[0] ? [rows[0].group, rows[0].setting] : [],
    addresses: rows.flatMap((r) => r.home ?? []),
  }
}
/** Tells the other devices of one person something about a lesson; nobody else's are told. */
export const tellPerson = (
  db: Db,
  told: { setting: string; lesson: string; person: string; message: unknown },
) => db.execute(sql`select pg_notify('awlbox', ${JSON.stringify({ kind: 'prompter', ...told })})`)
