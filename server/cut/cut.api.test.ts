import type { SegmentKind, Verb } from '@awlbox/core/contracts/lesson'
import { told } from '@awlbox/core/findings/say'
import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import fs from 'node:fs'
import net from 'node:net'
import os from 'node:os'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Card, Clip, CutItem, CutList, Hold } from '@awlbox/core/contracts/cut'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { plainCodes } from '@awlbox/core/contracts/heard'
import type { Slip } from '@awlbox/core/contracts/stand-in'
import { ringPlace } from '@awlbox/core/cut/card'
import { decideAll } from '@awlbox/core/cut/edit'
import { filmFrames, proposalsOf } from '@awlbox/core/cut/propose'
import { framesOf, layOut, segmentFrames } from '@awlbox/core/cut/timeline'
import { hearTake } from '../film/hear-take.ts'
import { prepareTake } from '../film/prepare.ts'
import { toSpeechWav } from '../platform/media/ffmpeg.ts'
import { jobs, renders } from '../platform/schema.ts'
import { sampleLesson, testWorld } from '../testing.ts'
import { program } from '../testing-programs.ts'
import { renderFilm } from './jobs.ts'
import { countFrames, renderSegment } from './render.ts'

const dir = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-cut-test-'))
afterAll(() => fs.rmSync(dir, { recursive: true, force: true }))

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as net.AddressInfo
      server.close(() => resolve(port))
    })
  })

describe('a segment rendered', () => {
  const film = path.join(dir, 'take.mp4')
  const clip = (from: number, to: number): Clip => ({
    kind: 'clip',
    id: `c${from}`,
    takeId: 't',
    from,
    to,
    why: null,
  })
  const hold = (frames: number): Hold => ({ kind: 'hold', id: `h${frames}`, frames, stepId: null, why: null })
  const stop: Card = {
    kind: 'card',
    id: 'k',
    look: 'stop',
    title: 'Stop',
    lines: [],
    frames: 45,
    stepId: null,
    why: null,
  }
  const files: string[] = []
  const rendered = async (items: CutItem[]): Promise<string> => {
    const out = path.join(dir, `out${files.push('')}.mov`)
    await renderSegment(
      {
        fill: 'across' as const,
        cut: { items },
        films: new Map([['t', { sha: 't', file: film, seconds: 4 }]]),
      },
      out,
      dir,
      {},
    )
    return out
  }
  /** Mean colour, 0–255 each, of a square of the picture at a frame. */
  const colourAt = (file: string, frame: number, x: number, y: number, size = 12): number[] => [
    ...execFileSync('ffmpeg', [
      '-v',
      'error',
      '-i',
      file,
      '-vf',
      `select=eq(n\\,${frame}),crop=${size}:${size}:${x}:${y},scale=1:1:flags=area,format=rgb24`,
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-',
    ]),
  ]
  // Every frame of the take has a grey of its own.
  beforeAll(() =>
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      "color=c=black:s=1280x720:r=30:d=4,format=gray,geq=lum='40+N',format=yuv420p",
      '-f',
      'lavfi',
      '-i',
      'sine=f=400:d=4',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-qp',
      '0',
      '-c:a',
      'aac',
      film,
    ]),
  )

  test('is as long as its items to the frame, shows their frames in order, and its sound is as long', async () => {
    const out = await rendered([clip(60, 75), clip(10, 25), hold(30), stop, clip(0, 1)])
    const length = 15 + 15 + 30 + 45 + 1
    expect(
      execFileSync(
        'ffprobe',
        [
          '-v',
          'error',
          '-count_frames',
          '-select_streams',
          'v',
          '-show_entries',
          'stream=nb_read_frames',
          '-of',
          'csv=p=0',
          out,
        ],
        { encoding: 'utf8' },
      ).trim(),
    ).toBe(String(length))
    expect(
      Number(
        execFileSync(
          'ffprobe',
          ['-v', 'error', '-select_streams', 'a', '-show_entries', 'stream=duration', '-of', 'csv=p=0', out],
          { encoding: 'utf8' },
        ),
      ),
    ).toBeCloseTo(length / framesPerSecond, 2)
    const greys = [0, 14, 15, 29].map((f) => colourAt(out, f, 900, 500)[0]!)
    expect(greys[1]! - greys[0]!).toBeGreaterThan(10)
    expect(greys[2]!).toBeLessThan(greys[0]! - 40)
    expect(Math.abs(colourAt(out, 45, 900, 500)[0]! - greys[3]!)).toBeLessThan(4)
  })
  test('over a held picture a ring fills from empty to full; the picture around it stands still', async () => {
    const out = await rendered([clip(0, 30), hold(60), clip(30, 40)])
    // The top of the ring fills first, its left side last.
    const [top, left] = [
      [ringPlace.hold.x + 84, ringPlace.hold.y + 18],
      [ringPlace.hold.x + 18, ringPlace.hold.y + 76],
    ] as const
    const saffron = ([r, , b]: number[]): boolean => r! - b! > 80
    const at = (frame: number, [x, y]: readonly [number, number]) => saffron(colourAt(out, frame, x, y, 6))
    expect([at(10, top), at(60, top), at(60, left), at(88, left), at(95, top)]).toEqual([
      false,
      true,
      false,
      true,
      false,
    ])
  })
  test('made twice from the same it is the same film, byte for byte', async () => {
    const [a, b] = [
      await rendered([clip(0, 20), hold(10), stop]),
      await rendered([clip(0, 20), hold(10), stop]),
    ]
    const picture = (f: string) =>
      execFileSync('ffmpeg', ['-v', 'error', '-i', f, '-map', '0:v', '-c', 'copy', '-f', 'md5', '-'], {
        encoding: 'utf8',
      })
    expect(picture(a)).toBe(picture(b))
  })
})

describe('a lesson filmed with slips, cut by accepting everything', () => {
  const { world, lesson, app } = (() => {
    const w = testWorld()
    return { world: () => w.world, lesson: () => w.lesson, app: () => w.app }
  })()
  const planned: Partial<Record<SegmentKind, readonly Slip[]>> = {
    show: ['false start', 'dead air'],
    together: ['say oops', 'cut a wait short'],
  }
  const whole = sampleLesson()
  // Every slip is there once, and what is filmed, heard and rendered is no longer than it must be: what is said, and the wait.
  // What is shown is said here, so that there is a line in the middle for the dead air.
  const kept = new Map<Verb, Verb>([
    ['say', 'say'],
    ['ask', 'ask'],
    ['wait', 'wait'],
    ['reveal', 'say'],
  ])
  const seen = whole.segments
    .filter((s, i) => planned[s.kind] && whole.segments.findIndex((x) => x.kind === s.kind) === i)
    .map((s) => ({
      ...s,
      steps: s.steps.flatMap((step) =>
        kept.has(step.verb) ? [{ ...step, verb: kept.get(step.verb)! }] : [],
      ),
    }))
  const doc = { ...whole, segments: seen }
  let camera: ChildProcess | null = null
  afterAll(() => camera?.kill())
  const b64 = (s: string) => Buffer.from(s).toString('base64')
  async function workThrough(kind: 'take' | 'render'): Promise<void> {
    for (const job of await app().db.select().from(jobs).where(eq(jobs.status, 'queued'))) {
      if (job.kind !== kind) continue
      await (kind === 'take' ? prepareTake : renderFilm)(app(), {
        job,
        signal: new AbortController().signal,
        progress: () => Promise.resolve(),
      })
      await app().db.update(jobs).set({ status: 'done' }).where(eq(jobs.id, job.id))
    }
  }
  test('has no slip left in it when the rendered film is heard again', async () => {
    await world().teacher.call('PUT', `${lesson()}/doc`, { revision: 1, doc })
    const port = await freePort()
    const { file, execArgv } = program('camera')
    camera = spawn(process.execPath, [...execArgv, file], {
      env: { ...process.env, AWLBOX_CAMERA_PORT: String(port) },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    await new Promise((resolve) => camera!.once('message', resolve))
    for (const s of seen) {
      const slips = planned[s.kind]
      const filmed = await fetch(`http://127.0.0.1:${port}/film`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          lesson: doc,
          segmentId: s.id,
          style: defaultHouseStyle,
          slips,
          voice: 'rms',
          room: 'studio',
          seed: 3,
        }),
      })
      expect(filmed.status).toBe(200)
      const bytes = new Uint8Array(await filmed.arrayBuffer())
      const made = await world().teacher.call('POST', '/api/uploads', undefined, {
        'tus-resumable': '1.0.0',
        'upload-length': String(bytes.length),
        'upload-metadata': `lessonId ${b64(world().here.lessonId)},segmentId ${b64(s.id)},filename ${b64('a.mp4')}`,
      })
      await world().teacher.call(
        'PATCH',
        new URL(made.headers.get('location')!, app().address).pathname,
        bytes,
        { 'tus-resumable': '1.0.0', 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
      )
    }
    await workThrough('take')
    const cut = (await world().teacher.call('GET', `${lesson()}/cut`)).body as {
      revision: number
      doc: CutList
    }
    const kinds = new Set(proposalsOf(cut.doc).map((w) => w.kind))
    for (const kind of ['false start', 'silence', 'wait'] as const) expect(kinds).toContain(kind)
    const accepted = decideAll(cut.doc, () => true, 'accepted')
    expect(proposalsOf(accepted).filter((w) => w.state === 'open').length).toBe(0)
    await world().teacher.call('PUT', `${lesson()}/cut`, { revision: cut.revision, doc: accepted })
    await world().teacher.call('POST', `${lesson()}/render`)
    await workThrough('render')
    const [render] = await app().db.select().from(renders)
    const film = app().blobs.path(render!.film)
    expect(await countFrames(film)).toBe(filmFrames(accepted))
    let at = 0
    const left: string[] = []
    for (const row of accepted.segments) {
      const seconds = segmentFrames(row) / framesPerSecond
      const segment = seen.find((s) => s.id === row.segmentId)!
      const wav = path.join(dir, 'again.wav')
      await toSpeechWav(film, wav, { part: { from: at, to: at + seconds } })
      const hearing = await hearTake(wav, segment, { style: defaultHouseStyle, age: doc.age })
      // Nothing is said under a card: that silence is meant.
      const cards = layOut(row)
        .filter((p) => p.item.kind === 'card')
        .map((p) => ({ from: p.at / framesPerSecond, to: (p.at + framesOf(p.item)) / framesPerSecond }))
      for (const f of hearing.findings)
        if (
          !plainCodes.has(f.code) &&
          f.certain &&
          !(f.code === 'dead-air' && cards.some((c) => c.from < f.end && c.to > f.start))
        )
          left.push(`${segment.title}: ${told('take', f)}`)
      at += seconds
    }
    expect(left).toEqual([])
  }, 600_000)
})
