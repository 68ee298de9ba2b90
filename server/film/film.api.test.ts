import { execFileSync, spawn } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Hearing } from '@awlbox/core/contracts/heard'
import type { CutList } from '@awlbox/core/contracts/cut'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { filmFrames } from '@awlbox/core/cut/propose'
import { plainCard } from '@awlbox/core/cut/cards'
import { dropStretch, insertAfter } from '@awlbox/core/cut/edit'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import type { Sorting, TakeSound } from '@awlbox/core/contracts/take'
import { renderFilm } from '../cut/jobs.ts'
import { countFrames } from '../cut/render.ts'
import { probe } from '../platform/media/ffmpeg.ts'
import { heardPieces, jobs, renders, segmentFiles, takes as takeTable } from '../platform/schema.ts'
import { openTestApp, populate, sampleLesson, until, type TestApp } from '../testing.ts'
import { prepareTake } from './prepare.ts'
import type { Correction } from '@awlbox/core/contracts/correction'

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
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'testsrc=s=640x360:r=25',
    ...parts.flatMap((p) => ['-i', p]),
    '-filter_complex',
    graph,
    '-map',
    '0:v',
    '-map',
    '[a]',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    '-shortest',
    out,
  ])
  return out
}
const b64 = (s: string) => Buffer.from(s).toString('base64')
async function upload(file: string | Uint8Array, segmentId: string | null = show.id, as = world.teacher) {
  const bytes = typeof file === 'string' ? fs.readFileSync(file) : file
  const made = await as.call('POST', '/api/uploads', undefined, {
    'tus-resumable': '1.0.0',
    'upload-length': String(bytes.length),
    'upload-metadata': `lessonId ${b64(world.here.lessonId)},${segmentId === null ? 'segmentId' : `segmentId ${b64(segmentId)}`},filename ${b64('a.mp4')}`,
  })
  if (made.status !== 201) return made
  return as.call(
    'PATCH',
    new URL(made.headers.get('location')!, app.address).pathname,
    new Uint8Array(bytes),
    { 'tus-resumable': '1.0.0', 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
  )
}
const takes = async () =>
  (await world.teacher.call('GET', `${L()}/takes`)).body.items as {
    id: string
    segmentId: string | null
    name: string | null
    problem: string | null
    part: { from: number; to: number } | null
    sorting: Sorting | null
    sound: TakeSound | null
    corrections: Correction[]
    captioned: boolean
    number: number
    status: string
    seconds: number
    hasSound: boolean
    hearing: Hearing | null
  }[]
/** Does the waiting work of one kind here and now. */
async function workThrough(kind: 'take' | 'render'): Promise<void> {
  for (const job of await app.db.select().from(jobs).where(eq(jobs.status, 'queued'))) {
    if (job.kind !== kind) continue
    await (kind === 'take' ? prepareTake : renderFilm)(app, {
      job,
      signal: new AbortController().signal,
      progress: () => Promise.resolve(),
    })
    await app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.id, job.id))
  }
}

describe('uploading', () => {
  test('a text file named .mp4 is refused, and nothing is changed', async () => {
    const r = await upload(
      new TextEncoder().encode('this is a shopping list, whatever its name says\n'.repeat(20)),
    )
    expect(r.status).toBe(415)
    expect(r.body.detail).toMatch(/Nothing was changed/)
    expect(await takes()).toEqual([])
  })
  test('a photo is no film', async () => {
    const sharp = (await import('sharp')).default
    expect(
      (
        await upload(
          await sharp({ create: { width: 30, height: 30, channels: 3, background: 'red' } })
            .png()
            .toBuffer(),
        )
      ).status,
    ).toBe(415)
  })
  test('a half-sent film goes on where it stopped, and only for whoever began it', async () => {
    const bytes = fs.readFileSync(film('half', ['hello']))
    const made = await world.teacher.call('POST', '/api/uploads', undefined, {
      'tus-resumable': '1.0.0',
      'upload-length': String(bytes.length),
      'upload-metadata': `lessonId ${b64(world.here.lessonId)},segmentId ${b64(show.id)}`,
    })
    const at = new URL(made.headers.get('location')!, app.address).pathname
    const part = { 'tus-resumable': '1.0.0', 'content-type': 'application/offset+octet-stream' }
    const half = Math.floor(bytes.length / 2)
    await world.teacher.call('PATCH', at, new Uint8Array(bytes.subarray(0, half)), {
      ...part,
      'upload-offset': '0',
    })
    expect((await world.stranger.call('HEAD', at, undefined, { 'tus-resumable': '1.0.0' })).status).toBe(404)
    const head = await world.teacher.call('HEAD', at, undefined, { 'tus-resumable': '1.0.0' })
    expect(head.headers.get('upload-offset')).toBe(String(half))
    expect((await takes()).length).toBe(0)
    expect(
      (
        await world.teacher.call('PATCH', at, new Uint8Array(bytes.subarray(half)), {
          ...part,
          'upload-offset': String(half),
        })
      ).status,
    ).toBe(204)
    expect((await takes()).length).toBe(1)
  })
  test('on a disk with no room left it is refused at its start', async () => {
    const { config } = app
    const before = config.diskReserve
    Object.assign(config, { diskReserve: Number.MAX_SAFE_INTEGER })
    const r = await upload(film('full', ['hello']))
    Object.assign(config, { diskReserve: before })
    expect(r.status).toBe(507)
    expect(r.body.detail).toMatch(/kept/)
  })
  test('to a segment that is gone is refused', async () =>
    expect((await upload(film('gone', ['hello']), 'nowhere')).status).toBe(404))
})

describe('a take', () => {
  test('read as written gives no slip; with a number left out it is found at its time', async () => {
    const said = linesOf(show)
    await upload(film('whole', said))
    await upload(
      film(
        'short',
        said.map((l) => (l.startsWith('one, two') ? l.replace('four, ', '') : l)),
      ),
    )
    await workThrough('take')
    const [, whole, short] = (await takes()).filter((t) => t.segmentId === show.id)
    expect(
      whole!.hearing!.findings.filter((f) => f.code !== 'wait-short' && f.code !== 'answer-early'),
    ).toEqual([])
    const skip = short!.hearing!.findings.filter((f) => f.code.startsWith('count') && f.certain)
    expect(skip.map((f) => [f.code, f.expected])).toEqual([['count-skip', '4']])
    const three = short!.hearing!.words.find((w) => w.word === 'three')!
    expect(Math.abs(skip[0]!.start - three.end)).toBeLessThan(0.5)
    expect(
      (await probe(
        app.blobs.path(
          (await app.pool.query<{ film: string }>('select film from takes where id = $1', [whole!.id]))
            .rows[0]!.film,
        ),
      ))!.video,
    ).toEqual({ width: 1280, height: 720 })
  })
  test('without sound is ready, plays, and says there is nothing to hear', async () => {
    const mute = path.join(dir, 'mute.mp4')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=30:d=2',
      '-pix_fmt',
      'yuv420p',
      mute,
    ])
    await upload(mute, hook.id)
    await workThrough('take')
    expect((await takes()).find((t) => t.segmentId === hook.id)).toMatchObject({
      status: 'ready',
      hasSound: false,
      hearing: null,
    })
  })
  test('of silence says that nothing was heard', async () => {
    const silent = path.join(dir, 'silent.mp4')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=30:d=3',
      '-f',
      'lavfi',
      '-i',
      'anullsrc=r=48000',
      '-shortest',
      '-pix_fmt',
      'yuv420p',
      silent,
    ])
    await upload(silent, hook.id)
    await workThrough('take')
    const t = (await takes()).filter((x) => x.segmentId === hook.id)[1]!
    expect(t.hearing!.findings.map((f) => f.message)).toEqual(['Nothing was heard in this take.'])
  })
})

const linesOf = (s: typeof show) =>
  spokenLines(s).map((l) => (l.numbers ? l.words.join(', ') : l.words.join(' ')))
/** What was said of the show segment, as captions: a line a cue. */
const captionsOf = (lines: readonly string[]): string =>
  `WEBVTT\n\n${lines.map((l, i) => `00:${String(i * 4).padStart(2, '0')}.000 --> 00:${String(i * 4 + 3).padStart(2, '0')}.000\n${l}\n`).join('\n')}`
/** The same film with its sound changed. */
function withSound(name: string, from: string, filter: string, more: string[] = []): string {
  const out = path.join(dir, `${name}.mp4`)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', from, '-af', filter, '-c:v', 'copy', ...more, out])
  return out
}
/** Prepares one take here and now; gives the steps it went through. */
async function prepare(takeId: string, signal = new AbortController().signal): Promise<string[]> {
  const steps: string[] = []
  const [job] = await app.db.select().from(jobs).where(eq(jobs.subject, takeId))
  await prepareTake(app, {
    job: job!,
    signal,
    progress: (step) => {
      if (steps.at(-1) !== step) steps.push(step)
      return Promise.resolve()
    },
  })
  await app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.subject, takeId))
  return steps
}
const idOf = (r: { headers: Headers }): string => r.headers.get('awlbox-take')!
const take = async (id: string) => (await takes()).find((t) => t.id === id)

describe('clips from a phone', () => {
  test('the same file twice is one take, and the second sender is told which', async () => {
    const file = film('twice', ['Hello there, this is said only here'])
    const first = await upload(file)
    const before = (await takes()).length
    const again = await upload(file, null)
    expect([idOf(again), again.headers.get('awlbox-known')]).toEqual([idOf(first), '1'])
    expect((await takes()).length).toBe(before)
  })
  test('a clip is given to its segment by what is said in it, with the words that told', async () => {
    const id = idOf(await upload(film('sorted', linesOf(show), 1.3), null))
    expect((await take(id))!.segmentId).toBeNull()
    await prepare(id)
    const t = (await take(id))!
    expect(t.segmentId).toBe(show.id)
    expect(t.name).toBe('a.mp4')
    expect(t.sorting!.reason).toContain(show.title)
    expect(
      t.hearing!.findings.filter((f) => f.code.startsWith('count') || f.code === 'line-skipped'),
    ).toEqual([])
  })
  test('one that says something else waits in the tray with the reason, until a person gives it to a segment', async () => {
    const id = idOf(
      await upload(
        film('other', [
          'The recipe needs two eggs and a little butter',
          'Stir it well and bake it for half an hour',
        ]),
        null,
      ),
    )
    await prepare(id)
    expect(await take(id)).toMatchObject({
      segmentId: null,
      status: 'ready',
      hearing: null,
      sorting: { byHand: false, reason: expect.stringMatching(/Hardly|Only/) as string },
    })
    expect(
      (await world.teacher.call('PUT', `/api/takes/${id}/segment`, { segmentId: 'nowhere' })).status,
    ).toBe(409)
    expect((await world.teacher.call('PUT', `/api/takes/${id}/segment`, { segmentId: show.id })).status).toBe(
      200,
    )
    expect(await take(id)).toMatchObject({ segmentId: show.id, sorting: { byHand: true } })
    await prepare(id)
    expect((await take(id))!.hearing!.note).toMatch(/another segment/)
  })
  test('a recording of two segments becomes a take of each, and nothing twice when it is begun again', async () => {
    const together = doc.segments.find((s) => s.kind === 'together')!
    const id = idOf(await upload(film('both', [...linesOf(show), ...linesOf(together)]), null))
    await prepare(id)
    const parts = (await takes()).filter((t) => t.part).sort((a, b) => a.part!.from - b.part!.from)
    expect(parts.map((t) => t.segmentId)).toEqual([show.id, together.id])
    expect(await take(id)).toBeUndefined()
    expect(parts[1]!.part!.from).toBeCloseTo(parts[0]!.part!.to)
    for (const p of parts) await prepare(p.id)
    for (const p of parts) {
      const done = (await take(p.id))!
      expect(done.seconds).toBeCloseTo(p.part!.to - p.part!.from, 0)
      expect(done.hearing!.findings.filter((f) => f.code === 'line-skipped')).toEqual([])
    }
  })
  test('HEVC, lying on its side, at a changing rate: upright, whole, at thirty frames a second', async () => {
    const [lying, clip] = [path.join(dir, 'lying.mov'), path.join(dir, 'phone.mp4')]
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=640x360:r=30:d=4',
      '-f',
      'lavfi',
      '-i',
      'sine=220:d=4',
      '-vf',
      "select='not(mod(n,3))+lt(n,40)'",
      '-vsync',
      'vfr',
      '-c:v',
      'libx265',
      '-preset',
      'ultrafast',
      '-x265-params',
      'log-level=error',
      '-tag:v',
      'hvc1',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      lying,
    ])
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      lying,
      '-c',
      'copy',
      '-metadata:s:v',
      'rotate=90',
      clip,
    ])
    const id = idOf(await upload(clip, hook.id))
    await prepare(id)
    const film = app.blobs.path((await app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!.film!)
    expect(await probe(film)).toMatchObject({ video: { width: 1280, height: 720 }, frames: 120 })
    // Upright it is a narrow picture in the middle: at the sides lies the plain ground.
    const [r, g, b] = execFileSync('ffmpeg', [
      '-v',
      'error',
      '-ss',
      '1',
      '-i',
      film,
      '-frames:v',
      '1',
      '-vf',
      'crop=2:2:40:360',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb24',
      'pipe:1',
    ])
    expect([r, g, b].map((x) => Math.abs(x! - 233) < 8)).toEqual([true, true, true])
  })
  test('a recording straight through is parted where the prompter went on', async () => {
    const id = idOf(
      await upload(film('straight', ['Hello from here for a while', 'And now something else again']), null),
    )
    await world.teacher.call('PUT', `/api/takes/${id}/marks`, {
      marks: [
        { kind: 'segment', at: 0, segmentId: hook.id },
        { kind: 'slip', at: 1 },
        { kind: 'segment', at: 2.5, segmentId: show.id },
      ],
    })
    await prepare(id)
    const parts = (await app.db.select().from(takeTable)).filter(
      (t) => t.part && t.part.to < 20 && t.sorting?.reason.includes('prompter'),
    )
    expect(parts.map((t) => [t.segmentId, t.part!.from])).toEqual([
      [hook.id, 0],
      [show.id, 2.5],
    ])
    expect(parts[0]!.marks).toEqual([{ kind: 'slip', at: 1, by: 'key' }])
  })
})

describe('sound as it comes', () => {
  const spoken = () => film('sound', linesOf(show), 1.2)
  const slipsAfter = async (file: string) => {
    const id = idOf(await upload(file))
    await prepare(id)
    const t = (await take(id))!
    return {
      t,
      codes: t.hearing!.findings.filter(
        (f) => f.code.startsWith('count') || f.code === 'line-skipped' || f.code === 'false-sentence',
      ),
    }
  }
  test('in one ear only it is heard in full, and said so', async () => {
    const { t, codes } = await slipsAfter(
      withSound('oneear', spoken(), 'aformat=channel_layouts=mono,pan=stereo|c0=0*c0|c1=c0'),
    )
    expect(t.sound).toMatchObject({ channels: 2, used: 'right' })
    expect(codes).toEqual([])
  })
  test('with its two channels against each other it is not lost', async () => {
    const { t, codes } = await slipsAfter(
      withSound('against', spoken(), 'aformat=channel_layouts=mono,pan=stereo|c0=c0|c1=-1*c0'),
    )
    expect(t.sound!.notes[0]).toMatch(/cancel/)
    expect(codes).toEqual([])
  })
  test('at 96 kHz it is heard, at 8 kHz every finding is uncertain', async () => {
    expect((await slipsAfter(withSound('high', spoken(), 'anull', ['-ar', '96000']))).codes).toEqual([])
    const { t } = await slipsAfter(withSound('phone', spoken(), 'anull', ['-ar', '8000']))
    expect(t.sound!.notes[0]).toMatch(/telephone/)
    expect(t.hearing!.findings.every((f) => !f.certain)).toBe(true)
  })
  test('with a corrupt tail it plays and is heard as far as it goes', async () => {
    const whole = path.join(dir, 'tail.mkv')
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', spoken(), '-c', 'copy', whole])
    const bytes = fs.readFileSync(whole)
    bytes.fill(0x55, Math.floor(bytes.length * 0.8))
    const { t } = await slipsAfter((fs.writeFileSync(whole, bytes), whole))
    expect(t).toMatchObject({ status: 'ready', hasSound: true })
    expect(t.hearing!.words.length).toBeGreaterThan(8)
  })
})

describe('what was heard wrong', () => {
  test('is corrected by typing, holds when it is heard again, and teaches how a name sounds', async () => {
    const id = idOf(
      await upload(
        film(
          'named',
          linesOf(show).map((l) => l.replace('bobbin', 'robin')),
        ),
      ),
    )
    await prepare(id)
    const heard = (await take(id))!.hearing!
    const line = heard.lines[0]!
    const correction = {
      from: line.start!,
      to: line.end!,
      heard: line.words.map((w) => (w.word === 'bobbin' ? 'robin' : w.word)).join(' '),
      said: line.words.map((w) => w.word).join(' '),
    }
    const r = await world.teacher.call('POST', `/api/takes/${id}/corrections`, correction)
    expect((r.body.hearing as Hearing).lines[0]!.words.every((w) => w.status === 'said')).toBe(true)
    expect((await world.teacher.call('GET', `${L()}/pronunciations`)).body.items).toEqual([
      expect.objectContaining({ segmentId: show.id, word: 'bobbin', heard: 'robin' }),
    ])
    await prepare(id)
    const again = (await take(id))!
    expect(again.corrections).toEqual([correction])
    expect(again.hearing!.lines[0]!.words.every((w) => w.status === 'said')).toBe(true)
    await world.teacher.call('POST', `/api/takes/${id}/corrections`, { takeBack: correction.from })
    expect((await take(id))!.corrections).toEqual([])
    expect((await world.teacher.call('DELETE', `${L()}/pronunciations/${show.id}/bobbin`)).status).toBe(200)
    expect((await world.teacher.call('GET', `${L()}/pronunciations`)).body.items).toEqual([])
  })
  test('captions judge a take in place of its sound; what are none change nothing', async () => {
    const id = idOf(await upload(film('captioned', ['nothing of the script is said here'])))
    await prepare(id)
    const said = linesOf(show).map((l) => (l.startsWith('one, two') ? l.replace('four, ', '') : l))
    expect(
      (await world.teacher.call('POST', `/api/takes/${id}/captions`, { text: 'a shopping list' })).status,
    ).toBe(422)
    expect((await take(id))!.captioned).toBe(false)
    const r = await world.teacher.call('POST', `/api/takes/${id}/captions`, { text: captionsOf(said) })
    expect(
      (r.body.hearing as Hearing).findings
        .filter((f) => f.code.startsWith('count'))
        .map((f) => [f.code, f.expected]),
    ).toEqual([['count-skip', '4']])
    expect((await take(id))!.captioned).toBe(true)
    await world.teacher.call('DELETE', `/api/takes/${id}/captions`)
    expect((await take(id))!.captioned).toBe(false)
  })
})

describe('a job that is broken off', () => {
  test('while hearing does not make the film again, and listens only to what is missing', async () => {
    const id = idOf(await upload(film('broken', Array.from({ length: 3 }, () => linesOf(show)).flat(), 2.5)))
    const stop = new AbortController()
    const [job] = await app.db.select().from(jobs).where(eq(jobs.subject, id))
    const before = (await app.db.select().from(heardPieces)).length
    let pieces = before
    await expect(
      prepareTake(app, {
        job: job!,
        signal: stop.signal,
        progress: async (step, share) => {
          if (step !== 'hearing it' || share <= 0.6) return
          pieces = (await app.db.select().from(heardPieces)).length
          stop.abort()
        },
      }),
    ).rejects.toThrow()
    expect(pieces).toBeGreaterThan(before)
    const film1 = (await app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!.film
    const steps = await prepare(id)
    expect(steps).not.toContain('making it playable')
    expect((await app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!.film).toBe(film1)
    const after = (await app.db.select().from(heardPieces)).length
    expect(after).toBeGreaterThan(pieces)
    await prepare(id)
    expect((await app.db.select().from(heardPieces)).length).toBe(after)
  })
  test('the paces heard so far are the teacher’s own, and drive the clock', async () => {
    const { pace } = (await world.teacher.call('GET', '/api/me')).body as { pace: number | null }
    expect(pace).toBeGreaterThan(60)
    expect(pace).toBeLessThan(260)
  })
})

describe('before and while filming', () => {
  test('the microphone test gives back words and a judgement, and keeps nothing', async () => {
    const wav = path.join(dir, 'mic.wav')
    execFileSync('flite', [
      '-voice',
      'rms',
      '-t',
      'Bobbin has seven parcels to sort into two places',
      '-o',
      wav,
    ])
    const before = (await takes()).length
    const r = await world.teacher.call('POST', `${L()}/mic-test`, new Uint8Array(fs.readFileSync(wav)), {
      'content-type': 'application/octet-stream',
    })
    expect((r.body.words as { word: string }[]).map((w) => w.word)).toEqual(
      expect.arrayContaining(['bobbin', 'seven', 'parcels']),
    )
    expect(r.body.good).toBe(true)
    expect((await takes()).length).toBe(before)
    expect(
      (
        await world.teacher.call('POST', `${L()}/mic-test`, new Uint8Array(5000), {
          'content-type': 'application/octet-stream',
        })
      ).status,
    ).toBe(422)
  })
  test('a remote reaches its own person’s prompter, and nobody else’s', async () => {
    const listening = async (who: typeof world.teacher) => {
      const stop = new AbortController()
      const response = await fetch(`${app.address}/api/events`, {
        headers: { cookie: who.cookie },
        signal: stop.signal,
      })
      const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
      let text = ''
      const done = (async () => {
        for (;;) {
          const { value, done: end } = await reader.read()
          if (end) return
          text += value
        }
      })().catch(() => undefined)
      await until('it is connected', () => Promise.resolve(text.includes('hello')))
      return {
        text: () => text,
        close: () => {
          stop.abort()
          return done
        },
      }
    }
    const [mine, other] = [await listening(world.teacher), await listening(world.colleague)]
    await world.teacher.call('POST', `${L()}/prompter`, { to: 'prompter', act: 'next' })
    await until('it has arrived', () => Promise.resolve(mine.text().includes('"act":"next"')))
    // A change that both are told of comes after it: had the message been for both, it would be there.
    await upload(film('remote', ['a film of its own']))
    await until('both heard of the change', () => Promise.resolve(other.text().includes('"kind":"takes"')))
    expect(other.text()).not.toContain('prompter')
    expect(
      (await world.stranger.call('POST', `${L()}/prompter`, { to: 'prompter', act: 'next' })).status,
    ).toBe(404)
    await Promise.all([mine.close(), other.close()])
  })
})

describe('rendering', () => {
  test('gives a film as long as its cut list to the frame, with captions, and renders again only what changed', async () => {
    const cut = (await world.teacher.call('GET', `${L()}/cut`)).body as { revision: number; doc: CutList }
    let n = 0
    const list: CutList = {
      ...cut.doc,
      segments: cut.doc.segments.map((s) =>
        s.segmentId === show.id
          ? insertAfter(
              dropStretch(
                dropStretch(s, s.takeId!, 0, 12, () => `n${n++}`),
                s.takeId!,
                60,
                81,
                () => `n${n++}`,
              ),
              null,
              { ...plainCard('stop', 'stop', 'Stop the film.'), frames: 60 },
            )
          : s,
      ),
    }
    await world.teacher.call('PUT', `${L()}/cut`, { revision: cut.revision, doc: list })
    await world.teacher.call('POST', `${L()}/render`)
    await workThrough('render')
    const frames = filmFrames(list)
    const [render] = await app.db.select().from(renders)
    expect(await countFrames(app.blobs.path(render!.film))).toBe(frames)
    const made = (await probe(app.blobs.path(render!.film)))!
    expect(made.video).toEqual({ width: 1280, height: 720 })
    expect(Math.abs(made.seconds - frames / framesPerSecond)).toBeLessThan(0.1)
    const captions = fs.readFileSync(app.blobs.path(render!.captions), 'utf8')
    expect(captions).toMatch(/^WEBVTT/)
    expect(captions).toContain('Stop the film.')
    // Two short lines are one caption.
    expect(captions.replace(/\n/g, ' ')).toContain('Bobbin has seven parcels to sort into')
    const before = (await app.db.select().from(segmentFiles)).length
    await world.teacher.call('PUT', `${L()}/cut`, {
      revision: 1,
      doc: {
        ...list,
        segments: list.segments.map((s) =>
          s.segmentId === hook.id ? dropStretch(s, s.takeId!, 0, 15, () => `n${n++}`) : s,
        ),
      },
    })
    await world.teacher.call('POST', `${L()}/render`)
    await workThrough('render')
    expect((await app.db.select().from(segmentFiles)).length).toBe(before + 1)
  })
})

describe('the worker', () => {
  const worker = () => {
    const child = spawn(process.execPath, ['--import', 'tsx', 'server/worker.ts'], {
      env: { ...process.env, DATABASE_URL: app.url },
      stdio: 'ignore',
    })
    return { child, ended: new Promise((resolve) => child.once('exit', resolve)) }
  }
  test('killed in the middle of a take, it is picked up again by the next and finished', async () => {
    await upload(
      film(
        'killed',
        Array.from({ length: 14 }, () => 'Bobbin has seven parcels to sort and a long way to go'),
      ),
      show.id,
    )
    const last = (await takes()).at(-1)!
    const job = async () => (await app.db.select().from(jobs).where(eq(jobs.subject, last.id)))[0]!
    const first = worker()
    await until(
      'the first worker has begun',
      async () => (await job()).status === 'running' && (await job()).share > 0.05,
    )
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
      170_000,
    )
    expect(done.attempts).toBe(2)
    expect((await takes()).find((t) => t.id === last.id)).toMatchObject({ status: 'ready' })
    second.child.kill('SIGTERM')
    await second.ended
  })
  test('a job that cannot be done is marked failed with its reason, and one cancelled while waiting never starts', async () => {
    const waiting = await app.queue.add({
      kind: 'render',
      settingId: world.here.setting.id,
      lessonId: world.here.lessonId,
      subject: 'x',
    })
    await world.teacher.call('POST', `/api/jobs/${waiting.id}/cancel`)
    const film = await app.queue.add({
      kind: 'film',
      settingId: world.here.setting.id,
      lessonId: world.here.lessonId,
      subject: show.id,
      data: { slips: [], voice: 'slt' },
    })
    const w = worker()
    const failed = await until('it has failed', async () => {
      const [j] = await app.db.select().from(jobs).where(eq(jobs.id, film.id))
      return j!.status === 'failed' ? j : null
    })
    expect(failed.problem).toMatch(/No stand-in camera/)
    expect((await app.db.select().from(jobs).where(eq(jobs.id, waiting.id)))[0]).toMatchObject({
      status: 'cancelled',
      attempts: 0,
    })
    w.child.kill('SIGTERM')
    await w.ended
  })
})
