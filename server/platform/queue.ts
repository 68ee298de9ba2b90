import { and, eq, inArray, isNull, lt, sql } from 'drizzle-orm'
import PgBoss from 'pg-boss'
import type { Db } from './db.ts'
import { forLog, log, noted } from './log.ts'
import { type Locks, oneAtATime, openLocks } from './locks.ts'
import { jobKinds } from '@awlbox/core/contracts/api/jobs'
import { isDbAway } from './problem.ts'
import { jobs } from './schema.ts'

type JobKind = typeof jobs.$inferSelect.kind
export type JobRow = typeof jobs.$inferSelect

/** A reason trying again would not help; its words are shown. */
export class JobProblem extends Error {}
export class Cancelled extends Error {}
/** The record store was away for long: somebody else may have begun this job meanwhile. */
class Lost extends Error {}

export interface Work {
  job: JobRow
  signal: AbortSignal
  /** Says what is being done and how much of it is (0–1). Throws Cancelled once the teacher has cancelled. */
  progress: (step: string, share: number) => Promise<void>
}
/** Tells a step's share (0–1 of it) as one of the whole job, from `from` on and `of` wide, without anybody waiting for it. */
export const shareOf =
  (progress: Work['progress'], step: string, from: number, of: number) =>
  (x: number): void =>
    void progress(step, from + of * x).catch((error: unknown) => {
      // A job that was cancelled meanwhile ends at its own next step, by its signal.
      if (!(error instanceof Cancelled)) noted('a job’s share could not be told')(error)
    })
export interface Queue {
  add: (input: {
    kind: JobKind
    settingId: string
    lessonId: string
    subject: string
    data?: Record<string, unknown>
  }) => Promise<JobRow>
  cancel: (jobId: string) => Promise<void>
  /** Starts working; handlers get jobs one at a time. */
  work: (handlers: Record<JobKind, (w: Work) => Promise<void>>) => Promise<void>
  close: () => Promise<void>
}

/** A job whose worker has not been heard of for this long (seconds) is looked after: where nobody holds it any more, it is picked up again. */
const deadAfter = 12
const attemptsAllowed = 3

export async function openQueue(db: Db, url: string): Promise<Queue> {
  const boss = new PgBoss({ connectionString: url, max: 4, supervise: true, schedule: false })
  boss.on('error', (error) => log.warn({ error: error.message }, 'queue'))
  // The web and the worker begin together: made by both at once, queues lock each other out.
  await oneAtATime(url, 'queues', async () => {
    await boss.start()
    for (const kind of jobKinds)
      await boss.createQueue(kind, {
        name: kind,
        retryLimit: attemptsAllowed,
        retryDelay: 1,
        expireInSeconds: 4 * 3600,
      })
  })
  const timers: NodeJS.Timeout[] = []
  const locks = openLocks(url)

  const post = async (job: JobRow) => {
    const bossId = await boss.send(
      job.kind,
      { jobId: job.id },
      { retryLimit: attemptsAllowed, retryDelay: 1 },
    )
    await db.update(jobs).set({ bossId }).where(eq(jobs.id, job.id))
  }
  const sweep = async () => {
    const stale = await db
      .select()
      .from(jobs)
      .where(
        and(
          eq(jobs.status, 'running'),
          lt(jobs.heartbeatAt, sql`now() - make_interval(secs => ${deadAfter})`),
        ),
      )
    for (const job of stale) {
      // Slow is not dead: who holds it is still at it.
      if (!(await locks.take(job.id))) continue
      await locks.release(job.id)
      if (job.attempts >= attemptsAllowed) {
        await db
          .update(jobs)
          .set({
            status: 'failed',
            problem: `The worker stopped ${job.attempts} times while doing this. What it works from is kept: try again, or with a shorter take.`,
          })
          .where(eq(jobs.id, job.id))
        if (job.bossId) await boss.cancel(job.kind, job.bossId)
      } else {
        const [mine] = await db
          .update(jobs)
          .set({ status: 'queued', step: 'picked up again', bossId: null, heartbeatAt: null })
          .where(
            and(
              eq(jobs.id, job.id),
              eq(jobs.status, 'running'),
              lt(jobs.heartbeatAt, sql`now() - make_interval(secs => ${deadAfter})`),
            ),
          )
          .returning()
        if (!mine) continue
        if (job.bossId)
          await boss.cancel(job.kind, job.bossId).catch(noted('a lost job could not be taken off the queue'))
        await post(mine)
      }
    }
    // A job written down but never posted, because the process died between the two.
    const unposted = await db
      .select()
      .from(jobs)
      .where(
        and(
          eq(jobs.status, 'queued'),
          isNull(jobs.bossId),
          lt(jobs.createdAt, sql`now() - interval '20 seconds'`),
        ),
      )
    for (const job of unposted) await post(job)
  }

  return {
    async add(input) {
      const [job] = await db
        .insert(jobs)
        .values({ ...input, data: input.data ?? {} })
        .returning()
      await post(job!)
      return job!
    },
    async cancel(jobId) {
      const [queued] = await db
        .update(jobs)
        .set({ status: 'cancelled', cancelAsked: true, step: 'cancelled' })
        .where(and(eq(jobs.id, jobId), eq(jobs.status, 'queued')))
        .returning()
      if (queued?.bossId)
        await boss.cancel(queued.kind, queued.bossId).catch(noted('a job could not be taken off the queue'))
      if (!queued)
        await db
          .update(jobs)
          .set({ cancelAsked: true })
          .where(and(eq(jobs.id, jobId), eq(jobs.status, 'running')))
    },
    async work(handlers) {
      await sweep().catch((e: unknown) => log.warn({ error: forLog(e).split('\n')[0] }, 'sweep'))
      timers.push(
        setInterval(
          () => void sweep().catch((e: unknown) => log.warn({ error: forLog(e).split('\n')[0] }, 'sweep')),
          4000,
        ),
      )
      for (const kind of jobKinds)
        await boss.work<{ jobId: string }>(
          kind,
          { batchSize: 1, pollingIntervalSeconds: 0.5 },
          async ([message]) => {
            if (message) await runJob(db, locks, message.data.jobId, handlers[kind])
          },
        )
    },
    async close() {
      timers.forEach(clearInterval)
      await locks.close()
      await boss
        .stop({ graceful: false, wait: true, timeout: 3000 })
        .catch(noted('the queue did not stop in time'))
    },
  }
}

async function runJob(
  db: Db,
  locks: Locks,
  jobId: string,
  handle: (w: Work) => Promise<void>,
): Promise<void> {
  // Somebody is at it: a message that came twice begins nothing, and counts for no attempt.
  if (!(await locks.take(jobId))) return
  try {
    await runLocked(db, locks, jobId, handle)
  } finally {
    await locks.release(jobId)
  }
}
async function runLocked(
  db: Db,
  locks: Locks,
  jobId: string,
  handle: (w: Work) => Promise<void>,
): Promise<void> {
  const [job] = await db
    .update(jobs)
    .set({
      status: 'running',
      step: 'starting',
      share: 0,
      attempts: sql`${jobs.attempts} + 1`,
      heartbeatAt: new Date(),
      startedAt: new Date(),
      problem: null,
    })
    .where(and(eq(jobs.id, jobId), inArray(jobs.status, ['queued', 'failed'])))
    .returning()
  if (!job) return
  const abort = new AbortController()
  const beat = setInterval(() => {
    db.update(jobs)
      .set({ heartbeatAt: new Date() })
      .where(eq(jobs.id, jobId))
      .returning({ cancel: jobs.cancelAsked })
      .then(([row]) => {
        if (row?.cancel) abort.abort(new Cancelled())
      })
      .catch(noted('a job’s heartbeat'))
  }, 1500)
  const lost = (ids: string[]): void => {
    if (ids.includes(jobId)) void heldAgain(locks, jobId).then((held) => held || abort.abort(new Lost()))
  }
  locks.onLost(lost)
  let told = 0
  const progress: Work['progress'] = async (step, share) => {
    abort.signal.throwIfAborted()
    const now = Date.now()
    if (now - told < 300 && share < 1) return
    told = now
    const [row] = await db
      .update(jobs)
      .set({ step, share: Math.min(1, Math.max(0, share)), heartbeatAt: new Date() })
      .where(eq(jobs.id, jobId))
      .returning({ cancel: jobs.cancelAsked })
      .catch((error: unknown) => {
        // Work goes on while nobody can be told of it.
        if (!isDbAway(error)) throw error
        return []
      })
    if (row?.cancel) {
      abort.abort(new Cancelled())
      throw new Cancelled()
    }
  }
  try {
    await handle({ job, signal: abort.signal, progress })
    await db
      .update(jobs)
      .set({ status: 'done', step: 'done', share: 1, heartbeatAt: new Date() })
      .where(eq(jobs.id, jobId))
  } catch (error) {
    // Somebody else has it now: nothing of it is ours to say.
    if (abort.signal.reason instanceof Lost) return
    if (error instanceof Cancelled || abort.signal.aborted) {
      await db.update(jobs).set({ status: 'cancelled', step: 'cancelled' }).where(eq(jobs.id, jobId))
      return
    }
    log.error({ job: jobId, kind: job.kind, error: forLog(error) }, 'job failed')
    if (error instanceof JobProblem || job.attempts >= attemptsAllowed) {
      await db
        .update(jobs)
        .set({
          status: 'failed',
          problem:
            error instanceof JobProblem
              ? error.message
              : 'This failed three times. What it works from is kept; the log says why.',
        })
        .where(eq(jobs.id, jobId))
      return
    }
    await db.update(jobs).set({ status: 'queued', step: 'trying again' }).where(eq(jobs.id, jobId))
    throw error
  } finally {
    clearInterval(beat)
    locks.offLost(lost)
  }
}
/** Half seconds in which the record store may come back before a job is given up to whoever picks it up. */
const patience = 60
async function heldAgain(locks: Locks, jobId: string): Promise<boolean> {
  for (let i = 0; i < patience; i++) {
    try {
      return await locks.take(jobId)
    } catch (error) {
      noted('a job’s lock could not be taken again yet')(error)
      await new Promise((resolve) => setTimeout(resolve, 500))
    }
  }
  return false
}
