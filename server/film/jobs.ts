import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { hear } from '@awlbox/core/film/heard'
import { spokenLines } from '@awlbox/core/film/spoken'
import { config } from '../platform/config.ts'
import { probe, toSpeechWav, toTakeFilm } from '../platform/media/ffmpeg.ts'
import { recognise } from '../platform/media/recogniser.ts'
import { JobProblem, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { lessonById } from '../plan/store.ts'
import { houseStyleOf } from '../people/setting.ts'
import { peaksOf, readWav } from './peaks.ts'
import { addTake, saveHearing, setTake, takeById } from './store.ts'

export async function inFolder<T>(name: string, work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), `awlbox-${name}-`))
  try {
    return await work(folder)
  } finally {
    await fs.rm(folder, { recursive: true, force: true })
  }
}

/** Makes a take playable, measures it, and hears it against its segment. */
export async function prepareTake(s: Services, { job, signal, progress }: Work): Promise<void> {
  const take = await takeById(s.db, job.subject)
  if (!take) return
  await inFolder('take', async (folder) => {
    const source = s.blobs.path(take.original)
    if (!take.film) {
      const p = await probe(source)
      if (!p) {
        await setTake(s.db, take.id, { status: 'refused', problem: 'This file holds no picture or sound.' })
        throw new JobProblem('This file holds no picture or sound. Nothing else was changed.')
      }
      // Browser recordings say no length: it is known once they are written out.
      await progress('making it playable', 0.05)
      const film = path.join(folder, 'film.mp4')
      const length = p.seconds || 60
      await toTakeFilm(source, film, p, { signal, onShare: (x) => void progress('making it playable', 0.05 + x * 0.5).catch(() => undefined) })
      const made = await probe(film)
      // The length that counts is the picture's, in whole frames: sound may run a moment longer.
      const seconds = made?.frames ? made.frames / framesPerSecond : (made?.seconds ?? length)
      const sha = await s.blobs.put(s.db, { file: film }, 'video/mp4')
      const wav = path.join(folder, 'sound.wav')
      await toSpeechWav(film, wav, { signal })
      await setTake(s.db, take.id, { film: sha, seconds, hasSound: p.audio, peaks: peaksOf(readWav(await fs.readFile(wav))), status: 'ready' })
    }
    const ready = (await takeById(s.db, take.id))!
    if (!ready.hasSound) {
      await progress('no sound to hear', 1)
      return
    }
    await progress('hearing it', 0.6)
    const wav = path.join(folder, 'hear.wav')
    await toSpeechWav(s.blobs.path(ready.film!), wav, { signal })
    const lesson = await lessonById(s.db, take.lessonId)
    const segment = lesson?.doc.segments.find((x) => x.id === take.segmentId)
    if (!lesson || !segment) throw new JobProblem('Its segment is no longer in the lesson. The take is kept.')
    const style = await houseStyleOf(s.db, lesson.settingId)
    const seconds = ready.seconds ?? 1
    const heard = await recognise(wav, spokenLines(segment, style), { signal, onSecond: (x) => void progress('hearing it', 0.6 + 0.38 * (x / seconds)).catch(() => undefined) })
    await saveHearing(s.db, take.id, hear(segment, heard.words, seconds, { style, age: lesson.doc.age, unpronounced: heard.unpronounced }), lesson.revision)
  })
}

/** Has the camera at AWLBOX_CAMERA film a segment by itself; what it sends is a take like any other. */
export async function filmSegment(s: Services, { job, signal, progress }: Work): Promise<void> {
  if (!config.camera) throw new JobProblem('No stand-in camera is connected.')
  const lesson = await lessonById(s.db, job.lessonId)
  if (!lesson?.doc.segments.some((x) => x.id === job.subject)) throw new JobProblem('This segment is no longer in the lesson.')
  await progress('the stand-in is filming', 0.1)
  const style = await houseStyleOf(s.db, lesson.settingId)
  const response = await fetch(`${config.camera}/film`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ lesson: lesson.doc, segmentId: job.subject, style, ...job.data }), signal }).catch((error: unknown) => {
    if (signal.aborted) throw error
    throw new JobProblem('The stand-in camera does not answer. Film with your own camera, or start Awlbox again.')
  })
  if (!response.ok) throw new JobProblem(`The stand-in camera could not film this: ${(await response.text()).slice(0, 200)}`)
  await progress('keeping the film', 0.9)
  const original = await s.blobs.put(s.db, Buffer.from(await response.arrayBuffer()), 'video/mp4')
  const takeId = await addTake(s.db, { lessonId: job.lessonId, segmentId: job.subject, source: 'stand-in', original })
  await s.queue.add({ kind: 'take', settingId: job.settingId, lessonId: job.lessonId, subject: takeId, data: { segmentId: job.subject } })
}
