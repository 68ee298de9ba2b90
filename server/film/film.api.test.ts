import { execFileSync, spawn } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Hearing } from '@awlbox/core/contracts/heard'
import type { CutList } from '@awlbox/core/contracts/cut'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { segmentFrames } from '@awlbox/core/cut/spans'
import { spokenLines } from '@awlbox/core/film/spoken'
import { renderFilm } from '../cut/jobs.ts'
import { countFrames } from '../cut/render.ts'
import { probe } from '../platform/media/ffmpeg.ts'
import { jobs, renders, segmentFiles } from '../platform/schema.ts'
import { openTestApp, populate, sampleLesson, until, type TestApp } from '../testing.ts'
import { prepareTake } from './prepare.ts'

let app: TestApp
let world: Awaited<ReturnType<typeof populate>>
const dir = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-film-test-'))
const L = () => `/api/lessons/${world.here.lessonId}`
const doc = sampleLesson()
const show = doc.segments.find((s) => s.kind === 'show')!
const hook = doc.segments[0]!

beforeAll(async () => {
  app = await openTestApp()
  world = await populate(app)
})
afterAll(async () => {
  await app.close()
  fs.rmSync(dir, { recursive: true, force: true })
})

/** A film of a segment: a still picture and a Debian voice saying its lines. */
function film(name: string, lines: string[], gap = 1): string {
  const parts = lines.map((text, i) => {
    const wav = path.join(dir, `${name}${i}.wav`)
    execFileSync('flite', ['-voice', 'rms', '--setf', 'duration_stretch=1.2', '-t', text, '-o', wav])
    return wav
  })
  const out = path.join(dir, `${name}.mp4`)
  const graph = `${parts.map((_, i) => `[${i + 1}:a]aresample=16000,apad=pad_dur=${gap}[a${i}]`).join(';')};${parts.map((_, i) => `[a${i}]`).join('')}concat=n=${parts.length}:v=0:a=1[a]`
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=s=640x360:r=25', ...parts.flatMap((p) => ['-i', p]), '-filter_complex', graph, '-map', '0:v', '-map', '[a]', '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-shortest', out])
  return out
}
const b64 = (s: string) => Buffer.from(s).toString('base64')
async function upload(file: string | Uint8Array, segmentId = show.id, as = world.teacher) {
  const bytes = typeof file === 'string' ? fs.readFileSync(file) : file
  const made = await as.call('POST', '/api/uploads', undefined, { 'tus-resumable': '1.0.0', 'upload-length': String(bytes.length), 'upload-metadata': `lessonId ${b64(world.here.lessonId)},segmentId ${b64(segmentId)},filename ${b64('a.mp4')}` })
  if (made.status !== 201) return made
  return as.call('PATCH', new URL(made.headers.get('location')!, app.address).pathname, new Uint8Array(bytes), { 'tus-resumable': '1.0.0', 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' })
}
const takes = async () => (await world.teacher.call('GET', `${L()}/takes`)).body.items as { id: string; segmentId: string; number: number; status: string; seconds: number; hasSound: boolean; hearing: Hearing | null }[]
/** Does the waiting work of one kind here and now. */
async function workThrough(kind: 'take' | 'render'): Promise<void> {
  for (const job of await app.db.select().from(jobs).where(eq(jobs.status, 'queued'))) {
    if (job.kind !== kind) continue
    await (kind === 'take' ? prepareTake : renderFilm)(app, { job, signal: new AbortController().signal, progress: () => Promise.resolve() })
    await app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.id, job.id))
  }
}

describe('uploading', () => {
  test('a text file named .mp4 is refused, and nothing is changed', async () => {
    const r = await upload(new TextEncoder().encode('this is a shopping list, whatever its name says\n'.repeat(20)))
    expect(r.status).toBe(415)
    expect(r.body.detail).toMatch(/Nothing was changed/)
    expect(await takes()).toEqual([])
  })
  test('a photo is no film', async () => {
    const sharp = (await import('sharp')).default
    expect((await upload(await sharp({ create: { width: 30, height: 30, channels: 3, background: 'red' } }).png().toBuffer())).status).toBe(415)
  })
  test('a half-sent film goes on where it stopped, and only for whoever began it', async () => {
    const bytes = fs.readFileSync(film('half', ['hello']))
    const made = await world.teacher.call('POST', '/api/uploads', undefined, { 'tus-resumable': '1.0.0', 'upload-length': String(bytes.length), 'upload-metadata': `lessonId ${b64(world.here.lessonId)},segmentId ${b64(show.id)}` })
    const at = new URL(made.headers.get('location')!, app.address).pathname
    const part = { 'tus-resumable': '1.0.0', 'content-type': 'application/offset+octet-stream' }
    const half = Math.floor(bytes.length / 2)
    await world.teacher.call('PATCH', at, new Uint8Array(bytes.subarray(0, half)), { ...part, 'upload-offset': '0' })
    expect((await world.stranger.call('HEAD', at, undefined, { 'tus-resumable': '1.0.0' })).status).toBe(404)
    const head = await world.teacher.call('HEAD', at, undefined, { 'tus-resumable': '1.0.0' })
    expect(head.headers.get('upload-offset')).toBe(String(half))
    expect((await takes()).length).toBe(0)
    expect((await world.teacher.call('PATCH', at, new Uint8Array(bytes.subarray(half)), { ...part, 'upload-offset': String(half) })).status).toBe(204)
    expect((await takes()).length).toBe(1)
  })
  test('on a disk with no room left it is refused at its start', async () => {
    const { config } = await import('../platform/config.ts')
    const before = config.diskReserve
    Object.assign(config, { diskReserve: Number.MAX_SAFE_INTEGER })
    const r = await upload(film('full', ['hello']))
    Object.assign(config, { diskReserve: before })
    expect(r.status).toBe(507)
    expect(r.body.detail).toMatch(/kept/)
  })
  test('to a segment that is gone is refused', async () => expect((await upload(film('gone', ['hello']), 'nowhere')).status).toBe(404))
})

describe('a take', () => {
  const linesOf = (s: typeof show) => spokenLines(s).map((l) => (l.numbers ? l.words.join(', ') : l.words.join(' ')))
  test('read as written gives no slip; with a number left out it is found at its time', async () => {
    const said = linesOf(show)
    await upload(film('whole', said))
    await upload(film('short', said.map((l) => (l.startsWith('one, two') ? l.replace('four, ', '') : l))))
    await workThrough('take')
    const [, whole, short] = (await takes()).filter((t) => t.segmentId === show.id)
    expect(whole!.hearing!.findings.filter((f) => f.code !== 'wait-short' && f.code !== 'answer-early')).toEqual([])
    const skip = short!.hearing!.findings.filter((f) => f.code.startsWith('count'))
    expect(skip.map((f) => [f.code, f.expected])).toEqual([['count-skip', '4']])
    const three = short!.hearing!.words.find((w) => w.word === 'three')!
    expect(Math.abs(skip[0]!.start - three.end)).toBeLessThan(0.5)
    expect((await probe(app.blobs.path((await app.pool.query('select film from takes where id = $1', [whole!.id])).rows[0].film as string)))!.video).toEqual({ width: 1280, height: 720 })
  })
  test('without sound is ready, plays, and says there is nothing to hear', async () => {
    const mute = path.join(dir, 'mute.mp4')
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=s=320x240:r=30:d=2', '-pix_fmt', 'yuv420p', mute])
    await upload(mute, hook.id)
    await workThrough('take')
    expect((await takes()).find((t) => t.segmentId === hook.id)).toMatchObject({ status: 'ready', hasSound: false, hearing: null })
  })
  test('of silence says that nothing was heard', async () => {
    const silent = path.join(dir, 'silent.mp4')
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=s=320x240:r=30:d=3', '-f', 'lavfi', '-i', 'anullsrc=r=48000', '-shortest', '-pix_fmt', 'yuv420p', silent])
    await upload(silent, hook.id)
    await workThrough('take')
    const t = (await takes()).filter((x) => x.segmentId === hook.id)[1]!
    expect(t.hearing!.findings.map((f) => f.message)).toEqual(['Nothing was heard in this take.'])
  })
})

describe('rendering', () => {
  test('gives a film as long as its cut list to the frame, with captions, and renders again only what changed', async () => {
    const cut = (await world.teacher.call('GET', `${L()}/cut`)).body as { revision: number; doc: CutList }
    const list: CutList = { ...cut.doc, segments: cut.doc.segments.map((s) => (s.segmentId === show.id ? { ...s, start: 0.4, drops: [{ id: 'h', from: 2, to: 2.7, reason: 'by hand', note: '', state: 'accepted' }], card: { text: 'Stop the film.', seconds: 2 } } : s)) }
    await world.teacher.call('PUT', `${L()}/cut`, { revision: cut.revision, doc: list })
    await world.teacher.call('POST', `${L()}/render`)
    await workThrough('render')
    const all = await takes()
    const frames = list.segments.reduce((n, s) => n + segmentFrames(s, all.find((t) => t.id === s.takeId)?.seconds ?? null), 0)
    const [render] = await app.db.select().from(renders)
    expect(await countFrames(app.blobs.path(render!.film))).toBe(frames)
    const made = (await probe(app.blobs.path(render!.film)))!
    expect(made.video).toEqual({ width: 1280, height: 720 })
    expect(Math.abs(made.seconds - frames / framesPerSecond)).toBeLessThan(0.1)
    const captions = fs.readFileSync(app.blobs.path(render!.captions), 'utf8')
    expect(captions).toMatch(/^WEBVTT/)
    expect(captions).toContain('Stop the film.')
    expect(captions).toContain('Bobbin has seven parcels to sort into')
    const before = (await app.db.select().from(segmentFiles)).length
    await world.teacher.call('PUT', `${L()}/cut`, { revision: 1, doc: { ...list, segments: list.segments.map((s) => (s.segmentId === hook.id ? { ...s, start: 0.5 } : s)) } })
    await world.teacher.call('POST', `${L()}/render`)
    await workThrough('render')
    expect((await app.db.select().from(segmentFiles)).length).toBe(before + 1)
  })
})

describe('the worker', () => {
  const worker = () => {
    const child = spawn(process.execPath, ['--import', 'tsx', 'server/worker.ts'], { env: { ...process.env, DATABASE_URL: app.url }, stdio: 'ignore' })
    return { child, ended: new Promise((resolve) => child.once('exit', resolve)) }
  }
  test('killed in the middle of a take, it is picked up again by the next and finished', async () => {
    await upload(film('killed', Array.from({ length: 14 }, () => 'Bobbin has seven parcels to sort and a long way to go')), show.id)
    const last = (await takes()).at(-1)!
    const job = async () => (await app.db.select().from(jobs).where(eq(jobs.subject, last.id)))[0]!
    const first = worker()
    await until('the first worker has begun', async () => (await job()).status === 'running' && (await job()).share > 0.05)
    first.child.kill('SIGKILL')
    await first.ended
    expect((await job()).status).toBe('running')
    const second = worker()
    const done = await until('the second worker has finished', async () => {
      const j = await job()
      return j.status === 'done' ? j : null
    }, 100_000)
    expect(done.attempts).toBe(2)
    expect((await takes()).find((t) => t.id === last.id)).toMatchObject({ status: 'ready' })
    second.child.kill('SIGTERM')
    await second.ended
  })
  test('a job that cannot be done is marked failed with its reason, and one cancelled while waiting never starts', async () => {
    const waiting = await app.queue.add({ kind: 'render', settingId: world.here.setting.id, lessonId: world.here.lessonId, subject: 'x' })
    await world.teacher.call('POST', `/api/jobs/${waiting.id}/cancel`)
    const film = await app.queue.add({ kind: 'film', settingId: world.here.setting.id, lessonId: world.here.lessonId, subject: show.id, data: { slip: 'none', voice: 'slt' } })
    const w = worker()
    const failed = await until('it has failed', async () => {
      const [j] = await app.db.select().from(jobs).where(eq(jobs.id, film.id))
      return j!.status === 'failed' ? j : null
    })
    expect(failed!.problem).toMatch(/No stand-in camera/)
    expect((await app.db.select().from(jobs).where(eq(jobs.id, waiting.id)))[0]).toMatchObject({ status: 'cancelled', attempts: 0 })
    w.child.kill('SIGTERM')
    await w.ended
  })
})
