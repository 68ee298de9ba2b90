import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { and, eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { b64 } from '../film/test-takes.ts'
import {
  judgements,
  jobs,
  lessonRevisions,
  publications,
  renders,
  replies,
  takes,
} from '../platform/schema.ts'
import { caller, type Caller, sampleLesson, until } from '../testing.ts'
import { openSystem, randomName, type System, type Victim } from './system.ts'

/**
 * Processes are killed, and the database goes away, at seeded moments of what people do. What was acknowledged is kept,
 * nothing is there twice, and every job ends. A short sample here; `./awlbox test trials` makes forty.
 */
const count = Number(process.env.AWLBOX_TRIALS ?? 4)
const first = Number(process.env.AWLBOX_SEED ?? 6)
const doing = ['save', 'upload', 'reply', 'hear', 'judge', 'render'] as const
type Doing = (typeof doing)[number]

let s: System
let teacher: Caller
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'trials-'))
beforeAll(async () => {
  s = await openSystem()
  teacher = caller(s.address, s.world.teacher.cookie)
  await teacher.call('POST', `/api/lessons/${s.world.here.lessonId}/publish`, { withFilm: false })
}, 120_000)
afterAll(async () => {
  await s.close()
  fs.rmSync(folder, { recursive: true, force: true })
})

/** Seeded numbers, 0 ≤ x < 1 (Park and Miller’s minimal standard). */
function numbers(seed: number): () => number {
  let x = (seed * 48_271 + 11) % 2_147_483_647
  return () => (x = (x * 48_271) % 2_147_483_647) / 2_147_483_647
}
/** What a page does with a request that did not get through: it is asked again until it does. Null while it does not. */
const asked = async (
  work: () => Promise<{ status: number; body: Record<string, unknown>; headers: Headers }>,
) =>
  work().then(
    (r) => (r.status >= 500 ? null : r),
    () => null,
  )
/** Does something again and again while the victim falls and is put up again; gives what was acknowledged. */
async function through<T>(
  victim: Victim,
  after: number,
  step: (i: number) => Promise<T | null>,
  enough: number,
): Promise<T[]> {
  const done: T[] = []
  let fallen = false
  const end = Date.now() + 90_000
  const falls = new Promise<void>((resolve) => setTimeout(resolve, after))
    .then(() => s.kill(victim))
    .then(() => s.mend())
    .then(() => (fallen = true))
  for (let i = 0; !fallen || done.length < enough; i++) {
    const made = await step(i)
    if (made !== null) done.push(made)
    // As a page does: not at once again where nobody answered.
    else await new Promise((resolve) => setTimeout(resolve, 30))
    if (Date.now() > end) throw new Error('it never came back')
  }
  await falls
  return done
}

const tries: Record<Doing, (victim: Victim, after: number, next: () => number) => Promise<void>> = {
  async save(victim, after) {
    const at = `/api/lessons/${s.world.here.lessonId}`
    const current = async () =>
      (await asked(() => teacher.call('GET', at)))?.body.revision as number | undefined
    const saved = await through(
      victim,
      after,
      async () => {
        const revision = await current()
        if (revision === undefined) return null
        const title = `Draft ${randomName()}`
        const r = await asked(() => teacher.call('PUT', `${at}/doc`, { revision, doc: sampleLesson(title) }))
        return r?.status === 200 ? { revision: r.body.revision as number, title } : null
      },
      3,
    )
    for (const { revision, title } of saved) {
      const [row] = await s.app.db
        .select({ title: sql<string>`${lessonRevisions.doc}->>'title'` })
        .from(lessonRevisions)
        .where(
          and(eq(lessonRevisions.lessonId, s.world.here.lessonId), eq(lessonRevisions.revision, revision)),
        )
      expect(row?.title).toBe(title)
    }
    const newest = await s.app.db
      .select({ revision: lessonRevisions.revision })
      .from(lessonRevisions)
      .where(eq(lessonRevisions.lessonId, s.world.here.lessonId))
    // None is skipped, none is there twice, and the lesson shows the last.
    expect(newest.map((r) => r.revision).sort((a, b) => a - b)).toEqual(newest.map((_, i) => i + 1))
    expect(await current()).toBe(newest.length)
  },
  async reply(victim, after) {
    const { tokens, kids } = s.world.here
    const home = caller(s.address)
    const [pack] = await s.app.db
      .select()
      .from(publications)
      .where(eq(publications.lessonId, s.world.here.lessonId))
    const key = randomUUID()
    let said = ''
    const received = await through(
      victim,
      after,
      async (i) => {
        const words = `We did it, try ${i} ${randomName()}`
        const r = await asked(() =>
          home.call('PUT', `/api/home/${tokens[0]}/packs/${pack!.id}/reply`, {
            key,
            childId: kids[0]!.id,
            answers: [],
            help: 'alone',
            words,
          }),
        )
        if (r?.status === 200) said = words
        return r?.status === 200 ? words : null
      },
      2,
    )
    expect(received.length).toBeGreaterThan(1)
    const kept = await s.app.db.select().from(replies).where(eq(replies.childId, kids[0]!.id))
    expect([kept.length, kept[0]?.words]).toEqual([1, said])
  },
  async judge(victim, after) {
    await tries.reply('web', 0, () => 0)
    const [reply] = await s.app.db.select().from(replies).limit(1)
    const made = await through(
      victim,
      after,
      async () => {
        const r = await asked(() =>
          teacher.call('POST', `/api/replies/${reply!.id}/judgements`, {
            level: 'nearly',
            help: 'nudged',
            rung: 'things',
          }),
        )
        return r?.status === 200 ? (r.body.id as string) : null
      },
      2,
    )
    const kept = new Set((await s.app.db.select({ id: judgements.id }).from(judgements)).map((j) => j.id))
    expect(made.filter((id) => !kept.has(id))).toEqual([])
    // As a reply that was looked at takes no other, the next trial has a fresh one.
    await s.app.pool.query('alter table judgements disable trigger user')
    await s.app.pool.query('delete from judgements')
    await s.app.pool.query('alter table judgements enable trigger user')
    await s.app.pool.query('delete from replies')
  },
  upload: (victim, after, next) => uploadThrough(victim, after, next).then(() => undefined),
  async hear(_, after, next) {
    const takeId = await uploadThrough('web', 0, next)
    await new Promise((resolve) => setTimeout(resolve, after))
    await s.kill('worker')
    await s.mend()
    await endOf(takeId)
    const [take] = await s.app.db.select().from(takes).where(eq(takes.id, takeId))
    expect(take).toMatchObject({ status: 'ready', problem: null })
  },
  async render(_, after, next) {
    const takeId = await uploadThrough('web', 0, next)
    await endOf(takeId)
    const at = s.world.here.lessonId
    const r = await teacher.call('POST', `/api/lessons/${at}/render`)
    expect(r.status).toBe(200)
    await new Promise((resolve) => setTimeout(resolve, after))
    await s.kill('worker')
    await s.mend()
    const ended = await until(
      'the render ends',
      async () => {
        const [j] = await s.app.db
          .select()
          .from(jobs)
          .where(eq(jobs.id, r.body.job as string))
        return j && ['done', 'failed'].includes(j.status) ? j : null
      },
      180_000,
    )
    expect([ended.status, ended.problem]).toEqual(['done', null])
    // Rendered again it is the film that is there: one, and whole.
    const [made, more] = await s.app.db.select().from(renders).where(eq(renders.lessonId, at))
    expect([fs.existsSync(s.app.blobs.path(made!.film)), more]).toEqual([true, undefined])
  },
}

/** A film's bytes, sent in three pieces while the victim falls; gives the take it became. */
async function uploadThrough(victim: Victim, after: number, next: () => number): Promise<string> {
  const file = path.join(folder, `${randomName()}.mp4`)
  const [tone, size] = [200 + Math.floor(next() * 800), 64 + Math.floor(next() * 400) * 2]
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `testsrc2=s=${size}x90:r=10:d=1`],
    ...[
      '-f',
      'lavfi',
      '-i',
      `sine=f=${tone}:d=1`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-shortest',
      file,
    ],
  ])
  const bytes = fs.readFileSync(file)
  const tus = { 'tus-resumable': '1.0.0' }
  const lesson = s.world.here.lessonId
  const segment = sampleLesson().segments.find((x) => x.kind === 'show')!.id
  let url: string | null = null
  const told = await through(
    victim,
    after,
    async () => {
      if (url === null) {
        const made = await asked(() =>
          teacher.call('POST', '/api/uploads', undefined, {
            ...tus,
            'upload-length': String(bytes.length),
            'upload-metadata': `lessonId ${b64(lesson)},segmentId ${b64(segment)},filename ${b64('a.mp4')}`,
          }),
        )
        if (made?.status === 201) url = new URL(made.headers.get('location')!, s.address).pathname
        return null
      }
      const head = await asked(() => teacher.call('HEAD', url!, undefined, tus))
      if (!head) return null
      const known = head.headers.get('awlbox-take')
      if (known) return known
      const offset = Number(head.headers.get('upload-offset'))
      const piece = bytes.subarray(offset, Math.min(bytes.length, offset + Math.ceil(bytes.length / 3)))
      const r = await asked(() =>
        teacher.call('PATCH', url!, new Uint8Array(piece), {
          ...tus,
          'content-type': 'application/offset+octet-stream',
          'upload-offset': String(offset),
        }),
      )
      return r?.headers.get('awlbox-take') ?? null
    },
    1,
  )
  expect(new Set(told).size).toBe(1)
  const all = await s.app.db
    .select({ id: takes.id, name: takes.name })
    .from(takes)
    .where(eq(takes.id, told[0]!))
  expect(all).toHaveLength(1)
  const work = await s.app.db.select().from(jobs).where(eq(jobs.subject, told[0]!))
  expect(work.length).toBeGreaterThan(0)
  return told[0]!
}
const endOf = (takeId: string): Promise<unknown> =>
  until(
    'the take is prepared',
    async () => {
      const all = await s.app.db.select().from(jobs).where(eq(jobs.subject, takeId))
      return all.length > 0 && all.every((j) => ['done', 'failed'].includes(j.status))
    },
    180_000,
  )

test.each(
  Array.from({ length: count }, (_, i) => {
    const next = numbers(first + i)
    const what = doing[(first + i) % doing.length]!
    const victim: Victim = what === 'hear' || what === 'render' ? 'worker' : next() < 0.6 ? 'web' : 'database'
    return { seed: first + i, what, victim, after: Math.round(20 + next() * 330), next }
  }),
)(
  'seed $seed: $what, and $after ms into it the $victim falls',
  async ({ what, victim, after, next }) => {
    await tries[what](victim, after, next)
  },
  300_000,
)
