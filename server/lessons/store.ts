import { and, asc, desc, eq, inArray, isNull, lt, max, sql } from 'drizzle-orm'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { apart } from '../platform/apart/apart.ts'
import { tasks } from '../platform/apart/tasks.ts'
import { type Db, moment } from '../platform/db.ts'
import {
  children,
  classes,
  lessonRevisions,
  lessons,
  people,
  publications,
  replies,
  revisionNames,
} from '../platform/schema.ts'

/** The open classes of a setting. */
export const classesOf = (db: Db, settingId: string) =>
  db
    .select({
      id: classes.id,
      name: classes.name,
      age: classes.age,
      teacherId: classes.teacherId,
      teacher: people.name,
    })
    .from(classes)
    .innerJoin(people, eq(people.id, classes.teacherId))
    .where(and(eq(classes.settingId, settingId), isNull(classes.closedAt)))
    .orderBy(desc(classes.age), asc(classes.name))

export const lessonsOf = (db: Db, classIds: readonly string[], limit: number) =>
  db
    .select({ id: lessons.id, classId: lessons.classId, day: lessons.day, title: lessons.doc })
    .from(lessons)
    .where(inArray(lessons.classId, [...classIds]))
    .orderBy(desc(lessons.day), desc(lessons.createdAt))
    .limit(limit)

/** When each child of these classes was last heard from, and whether anything was sent them at all. */
export async function lastReplies(db: Db, classIds: readonly string[]) {
  const ids = [...classIds]
  // Each by itself: joined, every reply would meet every sending of the class.
  const [kids, sent] = await Promise.all([
    db
      .select({
        childId: children.id,
        name: children.name,
        classId: children.classId,
        last: sql<Date | null>`(select max(r.received_at) from ${replies} r where r.child_id = "children"."id")`.mapWith(
          moment,
        ),
      })
      .from(children)
      .where(inArray(children.classId, ids))
      .orderBy(asc(children.name)),
    db
      .select({ classId: lessons.classId, at: max(publications.sentAt) })
      .from(publications)
      .innerJoin(lessons, eq(lessons.id, publications.lessonId))
      .where(inArray(lessons.classId, ids))
      .groupBy(lessons.classId),
  ])
  return kids.map((k) => ({ ...k, firstSent: sent.find((x) => x.classId === k.classId)?.at ?? null }))
}

/** Lines up to which a lesson is proof-read where it is saved, in a fraction of a second; longer ones are read in a thread. */
const short = 150
/** What is kept beside a document so that lists need not compute it again. */
const derived = (doc: Lesson, style: HouseStyle): Promise<{ findings: number; filmSeconds: number }> =>
  doc.segments.reduce((n, s) => n + s.steps.length, 0) <= short
    ? Promise.resolve(tasks.derived({ doc, style }))
    : apart('derived', { doc, style }, 'Proof-reading this lesson')

export async function createLesson(
  db: Db,
  input: {
    classId: string
    day: string
    doc: Lesson
    byId: string | null
    style: HouseStyle
    createdAt?: Date
  },
): Promise<string> {
  const beside = await derived(input.doc, input.style)
  return db.transaction(async (tx) => {
    const [row] = await tx
      .insert(lessons)
      .values({
        classId: input.classId,
        day: input.day,
        revision: 1,
        doc: input.doc,
        ...beside,
        ...(input.createdAt ? { createdAt: input.createdAt } : {}),
      })
      .returning({ id: lessons.id })
    await tx
      .insert(lessonRevisions)
      .values({ lessonId: row!.id, revision: 1, doc: input.doc, byId: input.byId })
    return row!.id
  })
}

export async function lessonById(db: Db, id: string) {
  const [row] = await db
    .select({
      id: lessons.id,
      classId: lessons.classId,
      className: classes.name,
      settingId: classes.settingId,
      day: lessons.day,
      filmBy: lessons.filmBy,
      sendBy: lessons.sendBy,
      revision: lessons.revision,
      doc: lessons.doc,
      updatedAt: lessons.updatedAt,
    })
    .from(lessons)
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(eq(lessons.id, id))
    .limit(1)
  // Documents saved before a field came in are read with its usual value.
  return row && { ...row, doc: Lesson.parse(row.doc) }
}

/** Saves a document over the revision it was made from; undefined when that is no longer the newest. */
export async function saveLesson(
  db: Db,
  input: { id: string; revision: number; doc: Lesson; byId: string; style: HouseStyle },
): Promise<number | undefined> {
  const beside = await derived(input.doc, input.style)
  return db.transaction(async (tx) => {
    const [row] = await tx
      .update(lessons)
      .set({
        doc: input.doc,
        revision: input.revision + 1,
        updatedAt: new Date(),
        ...beside,
      })
      .where(and(eq(lessons.id, input.id), eq(lessons.revision, input.revision)))
      .returning({ revision: lessons.revision })
    if (!row) return undefined
    await tx
      .insert(lessonRevisions)
      .values({ lessonId: input.id, revision: row.revision, doc: input.doc, byId: input.byId })
    return row.revision
  })
}

export const revisionsOf = (db: Db, lessonId: string, before: number | null, limit: number) =>
  db
    .select({
      revision: lessonRevisions.revision,
      at: lessonRevisions.at,
      by: people.name,
      name: sql<
        string | null
      >`(select n.name from ${revisionNames} n where n.lesson_id = ${lessonRevisions.lessonId} and n.revision = ${lessonRevisions.revision} order by n.at desc limit 1)`,
    })
    .from(lessonRevisions)
    .leftJoin(people, eq(people.id, lessonRevisions.byId))
    .where(
      and(
        eq(lessonRevisions.lessonId, lessonId),
        ...(before === null ? [] : [lt(lessonRevisions.revision, before)]),
      ),
    )
    .orderBy(desc(lessonRevisions.revision))
    .limit(limit)

export async function revisionDoc(db: Db, lessonId: string, revision: number): Promise<Lesson | undefined> {
  const [row] = await db
    .select({ doc: lessonRevisions.doc })
    .from(lessonRevisions)
    .where(and(eq(lessonRevisions.lessonId, lessonId), eq(lessonRevisions.revision, revision)))
    .limit(1)
  return row && Lesson.parse(row.doc)
}

export async function nameRevision(
  db: Db,
  input: { lessonId: string; revision: number; name: string; byId: string },
): Promise<boolean> {
  const [there] = await db
    .select({ revision: lessonRevisions.revision })
    .from(lessonRevisions)
    .where(and(eq(lessonRevisions.lessonId, input.lessonId), eq(lessonRevisions.revision, input.revision)))
    .limit(1)
  if (there) await db.insert(revisionNames).values(input)
  return there !== undefined
}
