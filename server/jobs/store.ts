import { and, eq, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import { jobs } from '../platform/schema.ts'

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
