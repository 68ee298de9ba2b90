import { desc, eq, sql } from 'drizzle-orm'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import type { Left } from '@awlbox/core/next/carried'
import type { Db } from '../platform/db.ts'
import { lessons, publications, replies } from '../platform/schema.ts'

/** The newest lessons of a class that were sent, with how many replied and how many answered each task. */
export async function lastLessons(
  db: Db,
  classId: string,
  many: number,
): Promise<(Left & { doc: Lesson })[]> {
  const rows = await db
    .select({ id: lessons.id, doc: lessons.doc })
    .from(lessons)
    .where(
      sql`${lessons.classId} = ${classId} and exists (select 1 from ${publications} p where p.lesson_id = ${lessons.id})`,
    )
    .orderBy(desc(lessons.day), desc(lessons.createdAt))
    .limit(many)
  return Promise.all(
    rows.map(async ({ id, doc }) => {
      const sent = await db
        .select({ answers: replies.answers })
        .from(replies)
        .innerJoin(publications, eq(publications.id, replies.publicationId))
        .where(eq(publications.lessonId, id))
      const answered = new Map<string, number>()
      for (const r of sent)
        for (const a of r.answers) answered.set(a.taskId, (answered.get(a.taskId) ?? 0) + 1)
      return { title: doc.title, doc, replies: sent.length, answered }
    }),
  )
}
