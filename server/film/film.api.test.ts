import { noted } from '../platform/log.ts'
import { type ChildProcess, fork } from 'node:child_process'
import fs from 'node:fs'
import { eq } from 'drizzle-orm'
import { afterAll, describe, expect, test } from 'vitest'
import type { CutList } from '@awlbox/core/contracts/cut'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { filmFrames } from '@awlbox/core/cut/propose'
import { plainCard } from '@awlbox/core/cut/cards'
import { countFrames } from '../cut/render.ts'
import { probe } from '../platform/media/ffmpeg.ts'
import { until } from '../testing.ts'
import { program } from '../testing-programs.ts'
import { prepareTake } from './prepare.ts'
import { dropStretch, insertAfter } from '@awlbox/core/cut/edit'
import { heardPieces, jobs, renders, segmentFiles, takes as takeTable } from '../platform/schema.ts'
import { hook, idOf, linesOf, show, takesWorld } from './test-takes.ts'

const { at, L, film, upload, takes, workThrough, prepare } = takesWorld()

describe('a job that is broken off', () => {
  test('while hearing does not make the film again, and listens only to what is missing', async () => {
    const id = idOf(await upload(film('broken', Array.from({ length: 2 }, () => linesOf(show)).flat(), 2.5)))
    const stop = new AbortController()
    const [job] = await at.app.db.select().from(jobs).where(eq(jobs.subject, id))
    const before = (await at.app.db.select().from(heardPieces)).length
    let pieces = before
    await expect(
      prepareTake(at.app, {
        job: job!,
        signal: stop.signal,
        progress: async (step, share) => {
          if (step !== 'hearing it' || share <= 0.6) return
          pieces = (await at.app.db.select().from(heardPieces)).length
          stop.abort()
        },
      }),
    ).rejects.toThrow()
    expect(pieces).toBeGreaterThan(before)
    const film1 = (await at.app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!.film
    const steps = await prepare(id)
    expect(steps).not.toContain('making it playable')
    expect((await at.app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!.film).toBe(film1)
    const after = (await at.app.db.select().from(heardPieces)).length
    expect(after).toBeGreaterThan(pieces)
    await prepare(id)
    expect((await at.app.db.select().from(heardPieces)).length).toBe(after)
  })
})

describe('rendering', () => {
  test('gives a film as long as its cut list to the frame, with captions, and renders again only what changed', async () => {
    await upload(film('hello', linesOf(hook)), hook.id)
    await workThrough('take')
    const cut = (await at.world.teacher.call('GET', `${L()}/cut`)).body as { revision: number; doc: CutList }
    let n = 0
    // A take that says its lines twice: its very beginning and the first lines of the second time are enough to be rendered twice.
    const stretches = (frames: number) =>
      [
        [0, 12],
        [60, Math.round(0.49 * frames)],
        [Math.round(0.64 * frames), frames],
      ] as const
    const list: CutList = {
      ...cut.doc,
      segments: cut.doc.segments.map((s) =>
        s.segmentId === show.id
          ? insertAfter(
              stretches(Math.max(...s.items.map((i) => (i.kind === 'clip' ? i.to : 0)))).reduce(
                (row, [from, to]) => dropStretch(row, s.takeId!, from, to, () => `n${n++}`),
                s,
              ),
              null,
              { ...plainCard('stop', 'stop', 'Stop the film.'), frames: 60 },
            )
          : s,
      ),
    }
    await at.world.teacher.call('PUT', `${L()}/cut`, { revision: cut.revision, doc: list })
    await at.world.teacher.call('POST', `${L()}/render`)
    await workThrough('render')
    const frames = filmFrames(list)
    const [render] = await at.app.db.select().from(renders)
    expect(await countFrames(at.app.blobs.path(render!.film))).toBe(frames)
    const made = (await probe(at.app.blobs.path(render!.film)))!
    expect(made.video).toEqual({ width: 1280, height: 720 })
    expect(Math.abs(made.seconds - frames / framesPerSecond)).toBeLessThan(0.1)
    const captions = fs.readFileSync(at.app.blobs.path(render!.captions), 'utf8')
    expect(captions).toMatch(/^WEBVTT/)
    expect(captions).toContain('Stop the film.')
    // Two short lines are one caption.
    expect(captions.replace(/\n/g, ' ')).toContain('Bobbin has seven parcels to sort into')
    const before = (await at.app.db.select().from(segmentFiles)).length
    await at.world.teacher.call('PUT', `${L()}/cut`, {
      revision: 1,
      doc: {
        ...list,
        segments: list.segments.map((s) =>
          s.segmentId === hook.id ? dropStretch(s, s.takeId!, 0, 15, () => `n${n++}`) : s,
        ),
      },
    })
    await at.world.teacher.call('POST', `${L()}/render`)
    await workThrough('render')
    expect((await at.app.db.select().from(segmentFiles)).length).toBe(before + 1)
  })
})

describe('the worker', () => {
  /** Milliseconds: longer than any of it takes beside other programs on two slow cores. */
  const longest = 220_000
  /** A worker process of its own; `ready` once it takes jobs, `ended` once it is gone. One that is left is ended after the tests. */
  const left = new Set<ChildProcess>()
  afterAll(() => left.forEach((child) => child.kill('SIGKILL')))
  const worker = () => {
    const { file, execArgv } = program('worker')
    const child = fork(file, [], {
      execArgv,
      env: { ...process.env, DATABASE_URL: at.app.url, AWLBOX_BLOBS: at.app.config.blobs },
      stdio: 'ignore',
    })
    left.add(child)
    const ended = new Promise<void>((resolve) =>
      child.once('exit', () => {
        left.delete(child)
        resolve()
      }),
    )
    const ready = new Promise<void>((resolve, reject) => {
      child.once('message', () => resolve())
      child.once('exit', (code) => reject(new Error(`The worker ended with ${code}`)))
    })
    // Whoever waits for it sees it fail; one that is ended before it was ready is no failure.
    ready.catch(noted('a worker ended before it was ready'))
    return { child, ready, ended }
  }
  test('killed in the middle of a take, it is picked up again by the next and finished', async () => {
    await upload(
      film(
        'killed',
        Array.from({ length: 4 }, () => 'Bobbin has seven parcels to sort and a long way to go'),
      ),
      show.id,
    )
    const last = (await takes()).at(-1)!
    const job = async () => (await at.app.db.select().from(jobs).where(eq(jobs.subject, last.id)))[0]!
    const first = worker()
    await first.ready
    // As soon as the job has begun, however slow the machine: what it does first takes longer than asking.
    await until('the first worker has begun', async () => (await job()).status === 'running', longest)
    first.child.kill('SIGKILL')
    await first.ended
    expect((await job()).status).toBe('running')
    const second = worker()
    const done = await until(
      'the second worker has finished',
      async () => {
        const j = await job()
        return j.status === 'done' ? j : null
      },
      longest,
    )
    expect(done.attempts).toBe(2)
    expect((await takes()).find((t) => t.id === last.id)).toMatchObject({ status: 'ready' })
    second.child.kill('SIGTERM')
    await second.ended
  }, 480_000)
  test('a job that cannot be done is marked failed with its reason, and one cancelled while waiting never starts', async () => {
    const waiting = await at.app.queue.add({
      kind: 'render',
      settingId: at.world.here.setting.id,
      lessonId: at.world.here.lessonId,
      subject: 'x',
    })
    await at.world.teacher.call('POST', `/api/jobs/${waiting.id}/cancel`)
    const film = await at.app.queue.add({
      kind: 'film',
      settingId: at.world.here.setting.id,
      lessonId: at.world.here.lessonId,
      subject: show.id,
      data: { slips: [], voice: 'slt' },
    })
    const w = worker()
    const failed = await until(
      'it has failed',
      async () => {
        const [j] = await at.app.db.select().from(jobs).where(eq(jobs.id, film.id))
        return j!.status === 'failed' ? j : null
      },
      longest,
    )
    expect(failed.problem).toMatch(/No stand-in camera/)
    expect((await at.app.db.select().from(jobs).where(eq(jobs.id, waiting.id)))[0]).toMatchObject({
      status: 'cancelled',
      attempts: 0,
    })
    w.child.kill('SIGTERM')
    await w.ended
  })
})
