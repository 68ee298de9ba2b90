import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll } from 'vitest'
import type { Hearing } from '@awlbox/core/contracts/heard'
import type { Correction } from '@awlbox/core/contracts/correction'
import type { TakeLooked } from '@awlbox/core/contracts/render'
import type { Sorting, TakeSound } from '@awlbox/core/contracts/take'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { renderFilm } from '../cut/jobs.ts'
import { jobs, takes as takeTable } from '../platform/schema.ts'
import { type Caller, sampleLesson, testWorld } from '../testing.ts'
import { prepareTake } from './prepare.ts'

const whole = sampleLesson()
export const show = whole.segments.find((s) => s.kind === 'show')!
export const hook = whole.segments[0]!
export const together = whole.segments.find((s) => s.kind === 'together')!
/** Of the sample lesson what takes are held against: each segment more is listened for in every clip that names none. */
const doc = { ...whole, segments: [hook, show, together, whole.segments.at(-1)!] }
export const linesOf = (s: typeof show) =>
  spokenLines(s, defaultHouseStyle).map((l) => (l.numbers ? l.words.join(', ') : l.words.join(' ')))
export const b64 = (s: string) => Buffer.from(s).toString('base64')
export const idOf = (r: { headers: Headers }): string => r.headers.get('awlbox-take')!
const nothingSeen: TakeLooked = {
  every: 60,
  faces: [],
  written: null,
  mean: null,
  sheet: null,
  tone: null,
  hum: 0,
  noise: null,
}
const coded = '-c:v libx264 -preset ultrafast -g 60 -pix_fmt yuv420p'.split(' ')
interface Seen {
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
}

/** A world with takes: films of a Debian voice, uploaded as a browser does, prepared here and now. */
export function takesWorld() {
  const at = testWorld()
  const dir = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-film-test-'))
  afterAll(() => fs.rmSync(dir, { recursive: true, force: true }))
  const L = () => `/api/lessons/${at.world.here.lessonId}`
  beforeAll(async () => {
    const saved = await at.world.teacher.call('PUT', `${L()}/doc`, { revision: 1, doc })
    if (saved.status !== 200) throw new Error(`The lesson was not saved: ${saved.status}`)
  })
  /** A film of a voice saying lines over a table nobody touches: quick to make, and made once for each name. */
  function film(name: string, lines: string[], gap = 1): string {
    const out = path.join(dir, `${name}.mp4`)
    if (fs.existsSync(out)) return out
    const parts = lines.map((text, i) => {
      const wav = path.join(dir, `${name}${i}.wav`)
      execFileSync('flite', ['-voice', 'rms', '--setf', 'duration_stretch=1.2', '-t', text, '-o', wav])
      return wav
    })
    const graph = `${parts.map((_, i) => `[${i}:a]aresample=16000,apad=pad_dur=${gap}[a${i}]`).join(';')};${parts.map((_, i) => `[a${i}]`).join('')}concat=n=${parts.length}:v=0:a=1[a]`
    const sound = path.join(dir, `${name}.m4a`)
    const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])
    ffmpeg(...parts.flatMap((p) => ['-i', p]), '-filter_complex', graph, '-map', '[a]', '-c:a', 'aac', sound)
    // The picture is made once, for two seconds, and stands as long as the sound goes on.
    const still = path.join(dir, 'still.mp4')
    if (!fs.existsSync(still))
      ffmpeg(...'-f lavfi -i color=c=0xa89a86:s=1280x720:r=30:d=2'.split(' '), ...coded, still)
    ffmpeg('-stream_loop', '-1', '-i', still, '-i', sound, '-c', 'copy', '-shortest', out)
    return out
  }
  async function upload(
    file: string | Uint8Array,
    segmentId: string | null = show.id,
    as: Caller = at.world.teacher,
  ) {
    const bytes = typeof file === 'string' ? fs.readFileSync(file) : file
    const made = await as.call('POST', '/api/uploads', undefined, {
      'tus-resumable': '1.0.0',
      'upload-length': String(bytes.length),
      'upload-metadata': `lessonId ${b64(at.world.here.lessonId)},${segmentId === null ? 'segmentId' : `segmentId ${b64(segmentId)}`},filename ${b64('a.mp4')}`,
    })
    if (made.status !== 201) return made
    const done = await as.call(
      'PATCH',
      new URL(made.headers.get('location')!, at.app.address).pathname,
      new Uint8Array(bytes),
      { 'tus-resumable': '1.0.0', 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
    )
    // Faces and names are looked for in tests of their own: here a picture nobody touches stands for the table.
    const id = done.headers.get('awlbox-take')
    if (id) await at.app.db.update(takeTable).set({ looked: nothingSeen }).where(eq(takeTable.id, id))
    return done
  }
  const takes = async () => (await at.world.teacher.call('GET', `${L()}/takes`)).body.items as Seen[]
  /** Does the waiting work of one kind here and now. */
  async function workThrough(kind: 'take' | 'render'): Promise<void> {
    for (const job of await at.app.db.select().from(jobs).where(eq(jobs.status, 'queued'))) {
      if (job.kind !== kind) continue
      await (kind === 'take' ? prepareTake : renderFilm)(at.app, {
        job,
        signal: new AbortController().signal,
        progress: () => Promise.resolve(),
      })
      await at.app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.id, job.id))
    }
  }
  /** Prepares one take here and now; gives the steps it went through. */
  async function prepare(takeId: string, signal = new AbortController().signal): Promise<string[]> {
    const steps: string[] = []
    const [job] = await at.app.db.select().from(jobs).where(eq(jobs.subject, takeId))
    await prepareTake(at.app, {
      job: job!,
      signal,
      progress: (step) => {
        if (steps.at(-1) !== step) steps.push(step)
        return Promise.resolve()
      },
    })
    await at.app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.subject, takeId))
    return steps
  }
  return {
    at,
    dir,
    L,
    film,
    upload,
    takes,
    take: async (id: string) => (await takes()).find((t) => t.id === id),
    workThrough,
    prepare,
  }
}
