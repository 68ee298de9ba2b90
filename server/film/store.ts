import { and, asc, eq, sql } from 'drizzle-orm'
import type { Hearing } from '@awlbox/core/contracts/heard'
import type { TakeFacts } from '@awlbox/core/cut/propose'
import type { Db } from '../platform/db.ts'
import { hearings, jobs, lessons, classes, takes } from '../platform/schema.ts'

export type TakeSource = typeof takes.$inferSelect.source

export async function addTake(db: Db, input: { lessonId: string; segmentId: string; source: TakeSource; original: string }): Promise<string> {
  // Two uploads may finish at once: the unique key decides, and the loser takes the next number.
  for (let attempt = 0; ; attempt++) {
    try {
      const [row] = await db.insert(takes).values({ ...input, number: sql`(select coalesce(max(number), 0) + 1 from takes where lesson_id = ${input.lessonId} and segment_id = ${input.segmentId})` }).returning({ id: takes.id })
      return row!.id
    } catch (error) {
      const code = (error as { code?: string; cause?: { code?: string } }).cause?.code ?? (error as { code?: string }).code
      if (code !== '23505' || attempt > 8) throw error
    }
  }
}
export const takesOf = (db: Db, lessonId: string) =>
  db.select({ id: takes.id, segmentId: takes.segmentId, number: takes.number, source: takes.source, seconds: takes.seconds, hasSound: takes.hasSound, status: takes.status, problem: takes.problem, createdAt: takes.createdAt, hearing: hearings.hearing, heardAtRevision: hearings.lessonRevision })
    .from(takes).leftJoin(hearings, eq(hearings.takeId, takes.id)).where(eq(takes.lessonId, lessonId)).orderBy(asc(takes.number))

export async function takeFacts(db: Db, lessonId: string): Promise<TakeFacts[]> {
  const rows = await takesOf(db, lessonId)
  return rows.filter((r) => r.status === 'ready' && r.seconds).map((r) => ({ id: r.id, segmentId: r.segmentId, number: r.number, seconds: r.seconds!, hearing: r.hearing }))
}
export async function takeById(db: Db, id: string) {
  const [row] = await db.select().from(takes).where(eq(takes.id, id)).limit(1)
  return row
}
export const setTake = (db: Db, id: string, change: Partial<typeof takes.$inferInsert>) => db.update(takes).set(change).where(eq(takes.id, id))
export const removeTake = (db: Db, id: string) => db.delete(takes).where(eq(takes.id, id))
export const saveHearing = (db: Db, takeId: string, hearing: Hearing, lessonRevision: number) =>
  db.insert(hearings).values({ takeId, hearing, lessonRevision }).onConflictDoUpdate({ target: hearings.takeId, set: { hearing, lessonRevision, at: new Date() } })

export async function settingOf(db: Db, lessonId: string): Promise<string> {
  const [row] = await db.select({ id: classes.settingId }).from(lessons).innerJoin(classes, eq(classes.id, lessons.classId)).where(eq(lessons.id, lessonId)).limit(1)
  return row!.id
}
export const jobsOf = (db: Db, lessonId: string) =>
  db.select({ id: jobs.id, kind: jobs.kind, subject: jobs.subject, data: jobs.data, status: jobs.status, step: jobs.step, share: jobs.share, problem: jobs.problem, startedAt: jobs.startedAt, createdAt: jobs.createdAt })
    .from(jobs).where(and(eq(jobs.lessonId, lessonId), sql`(${jobs.status} in ('queued', 'running') or ${jobs.createdAt} > now() - interval '1 day')`)).orderBy(sql`${jobs.createdAt} desc`).limit(60)
