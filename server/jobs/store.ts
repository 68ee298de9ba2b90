import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import { jobs, lessons } from '../platform/schema.ts'

/** Whether work for a subject is waiting or under way. */
export async function isAtWork(db: Db, subject: string): Promise<boolean> {
  const [row] = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.subject, subject), sql`${jobs.status} in ('queued', 'running')`))
    .limit(1)
  return row !== undefined
}
export const jobsOf = (db: Db, lessonId: string) =>
  db
    .select({
      id: jobs.id,
      kind: jobs.kind,
      subject: jobs.subject,
      data: jobs.data,
      status: jobs.status,
      step: jobs.step,
      share: jobs.share,
      problem: jobs.problem,
      startedAt: jobs.startedAt,
      createdAt: jobs.createdAt,
    })
    .from(jobs)
    .where(
      and(
        eq(jobs.lessonId, lessonId),
        sql`(${jobs.status} in ('queued', 'running') or ${jobs.createdAt} > now() - interval '1 day')`,
      ),
    )
    .orderBy(sql`${jobs.createdAt} desc`)
    .limit(60)

/** Jobs of the last hours of every lesson of a setting that has work under way, with when each ended. */
export async function workOf(db: Db, settingId: string) {
  const open = db
    .select({ lessonId: jobs.lessonId })
    .from(jobs)
    .where(and(eq(jobs.settingId, settingId), sql`${jobs.status} in ('queued', 'running')`))
  const rows = await db
    .select({
      lessonId: jobs.lessonId,
      title: sql<string>`${lessons.doc}->>'title'`,
      kind: jobs.kind,
      status: jobs.status,
      step: jobs.step,
      share: jobs.share,
      startedAt: jobs.startedAt,
      endedAt: jobs.heartbeatAt,
    })
    .from(jobs)
    .innerJoin(lessons, eq(lessons.id, jobs.lessonId))
    .where(and(inArray(jobs.lessonId, open), sql`${jobs.createdAt} > now() - interval '6 hours'`))
    .orderBy(asc(jobs.createdAt))
    .limit(500)
  return rows
}
