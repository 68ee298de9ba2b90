import { and, asc, between, desc, eq, gte, inArray, isNull, sql } from 'drizzle-orm'
import type { Worked } from '@awlbox/core/next/week'
import { teaches } from '../platform/access.ts'
import type { Db } from '../platform/db.ts'
import { children, classes, hearings, lessonRevisions, lessons, takes } from '../platform/schema.ts'

/** Lessons of the open classes somebody teaches or covers, with the days they are due, from one day to another. */
export const lessonsDue = (db: Db, teacherId: string, from: string, to: string) =>
  db
    .select({
      id: lessons.id,
      title: sql<string>`${lessons.doc}->>'title'`,
      day: lessons.day,
      filmBy: lessons.filmBy,
      sendBy: lessons.sendBy,
      classId: lessons.classId,
      className: classes.name,
      children: sql<number>`(select count(*)::int from ${children} c where c.class_id = ${classes.id})`,
    })
    .from(lessons)
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(and(teaches(teacherId), isNull(classes.closedAt), between(lessons.day, from, to)))
    .orderBy(asc(lessons.day))
    .limit(60)

export async function saveDates(
  db: Db,
  lessonId: string,
  dates: { day: string; filmBy: string | null; sendBy: string | null },
): Promise<void> {
  await db.update(lessons).set(dates).where(eq(lessons.id, lessonId))
}

/** Longest gap in seconds still counted as work on the same thing. */
const writingGap = 300
const filmingGap = 900

/** Minutes this person worked before, read from what the records themselves say: the times of saved changes and of takes. */
export async function workDone(db: Db, personId: string): Promise<Worked[]> {
  const gaps = (column: string, gap: number) =>
    sql.raw(
      `sum(case when extract(epoch from (at - before)) between 0 and ${gap} then extract(epoch from (at - before)) else 0 end) / 60 as ${column}`,
    )
  const writing = await db.execute<{ minutes: string; film: string }>(sql`
    select ${gaps('minutes', writingGap)}, max(film) / 60 as film from (
      select r.lesson_id, r.at, lag(r.at) over (partition by r.lesson_id order by r.revision) as before, l.film_seconds as film
      from ${lessonRevisions} r join ${lessons} l on l.id = r.lesson_id where r.by_id = ${personId}) x
    group by lesson_id having count(*) > 3 limit 200`)
  const filming = await db.execute<{ minutes: string; film: string }>(sql`
    select ${gaps('minutes', filmingGap)}, sum(seconds) / 60 as film from (
      select t.lesson_id, t.created_at as at, lag(t.created_at) over (partition by t.lesson_id order by t.created_at) as before, t.seconds
      from ${takes} t join ${lessons} l on l.id = t.lesson_id join ${classes} c on c.id = l.class_id where c.teacher_id = ${personId} and t.source = 'recorded') x
    group by lesson_id having count(*) > 2 limit 200`)
  const read = (kind: Worked['kind'], rows: { minutes: string; film: string }[]): Worked[] =>
    rows
      .map((r) => ({ kind, minutes: Number(r.minutes), filmMinutes: Number(r.film) }))
      .filter((w) => w.minutes > 1)
  return [...read('writing', writing.rows), ...read('filming', filming.rows)]
}

/** The pace of somebody's own takes, filmed here or on a phone, newest first, in words a minute. Takes of something else, or judged by captions, say nothing of it. */
export async function pacesOf(db: Db, teacherId: string): Promise<number[]> {
  const rows = await db
    .select({ pace: sql<number | null>`(${hearings.hearing}->>'pace')::float` })
    .from(hearings)
    .innerJoin(takes, eq(takes.id, hearings.takeId))
    .innerJoin(lessons, eq(lessons.id, takes.lessonId))
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(
      and(
        eq(classes.teacherId, teacherId),
        inArray(takes.source, ['recorded', 'uploaded']),
        isNull(takes.captions),
        sql`${hearings.hearing}->>'note' is null`,
        gte(takes.seconds, 10),
      ),
    )
    .orderBy(desc(takes.createdAt))
    .limit(12)
  return rows.flatMap((r) => (r.pace ? [Number(r.pace)] : []))
}
