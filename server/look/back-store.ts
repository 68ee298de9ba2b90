import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import type { JudgementInput } from '@awlbox/core/contracts/reply'
import type { Db } from '../platform/db.ts'
import {
  askings,
  children,
  classes,
  corrections,
  feedback,
  judgements,
  lessons,
  photos,
  publications,
  replies,
} from '../platform/schema.ts'

/** What goes back to homes and beside readings: corrections, questions sent back, words. */
export const addCorrection = (
  db: Db,
  c: {
    photoId: string
    reading: PhotoReading
    before: { count: number; low: number; high: number } | null
    traits: string[]
    readerVersion: number | null
    byId: string
  },
) => db.insert(corrections).values(c)

/** Photos of a setting by the kind of their reading, and how many of each a person put right. */
export async function correctionCounts(db: Db, settingId: string) {
  const rows = await db.execute<{ kind: string; photos: string; corrected: string }>(sql`
    with mine as (
      select ${photos.id} id, ${photos.reading} reading,
        exists (select 1 from ${corrections} c where c.photo_id = ${photos.id}) corrected
      from ${photos}
      join ${publications} on ${publications.id} = ${photos.publicationId}
      join ${lessons} on ${lessons.id} = ${publications.lessonId}
      join ${classes} on ${classes.id} = ${lessons.classId}
      where ${classes.settingId} = ${settingId} and ${photos.reading} is not null)
    select t.kind, count(*) photos, count(*) filter (where corrected) corrected
    from mine, lateral (
      select 'all' kind
      union all select jsonb_array_elements_text(reading->'warnings')
      union all select coalesce(reading->'structure'->>'kind', 'loose')) t
    group by t.kind order by t.kind`)
  return rows.rows.map((r) => ({ kind: r.kind, photos: Number(r.photos), corrected: Number(r.corrected) }))
}

export const askingsOn = (db: Db, replyIds: readonly string[]) =>
  replyIds.length
    ? db
        .select()
        .from(askings)
        .where(inArray(askings.replyId, [...replyIds]))
        .orderBy(asc(askings.at))
    : Promise.resolve([])
/** Asks a question once more; asked again it counts anew. */
export const addAsking = (db: Db, a: { replyId: string; taskId: string; words: string; byId: string }) =>
  db
    .insert(askings)
    .values(a)
    .onConflictDoUpdate({
      target: [askings.replyId, askings.taskId],
      set: { words: a.words, byId: a.byId, at: sql`now()`, answeredAt: null },
    })

export const feedbackOn = (db: Db, replyIds: readonly string[]) =>
  replyIds.length
    ? db
        .select()
        .from(feedback)
        .where(inArray(feedback.replyId, [...replyIds]))
    : Promise.resolve([])
export const putFeedback = (db: Db, f: { replyId: string; body: string; byId: string; sentAt?: Date }) =>
  db
    .insert(feedback)
    .values(f)
    .onConflictDoUpdate({
      target: feedback.replyId,
      set: { body: f.body, byId: f.byId, updatedAt: sql`now()`, ...(f.sentAt ? { sentAt: f.sentAt } : {}) },
    })

/** One reply with what a writer back to its home needs. */
export async function replyById(db: Db, id: string) {
  const [row] = await db
    .select({
      id: replies.id,
      childId: replies.childId,
      child: children.name,
      householdId: children.householdId,
      answers: replies.answers,
      help: replies.help,
      way: replies.way,
      couldNot: replies.couldNot,
      publicationId: replies.publicationId,
      pack: publications.pack,
      settingId: classes.settingId,
      lessonId: publications.lessonId,
    })
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .innerJoin(children, eq(children.id, replies.childId))
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(eq(replies.id, id))
    .limit(1)
  return row
}
/** Judges replies of one lesson that nobody has judged; those judged meanwhile are left. */
export async function judgeUnjudged(
  db: Db,
  lessonId: string,
  byId: string,
  wanted: readonly (JudgementInput & { replyId: string })[],
): Promise<string[]> {
  return db.transaction(async (tx) => {
    const open = await tx
      .select({
        id: replies.id,
        childId: replies.childId,
        ideaId: sql<string>`${publications.pack}->>'ideaId'`,
      })
      .from(replies)
      .innerJoin(publications, eq(publications.id, replies.publicationId))
      .leftJoin(judgements, eq(judgements.replyId, replies.id))
      .where(
        and(
          eq(publications.lessonId, lessonId),
          isNull(judgements.id),
          inArray(
            replies.id,
            wanted.map((w) => w.replyId),
          ),
        ),
      )
      .for('update', { of: replies })
    if (!open.length) return []
    await tx.insert(judgements).values(
      open.map((o) => {
        const { level, help, rung, note } = wanted.find((w) => w.replyId === o.id)!
        return { replyId: o.id, childId: o.childId, ideaId: o.ideaId, byId, level, help, rung, note }
      }),
    )
    return open.map((o) => o.id)
  })
}
