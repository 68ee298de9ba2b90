import path from 'node:path'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { hearing } from '@awlbox/core/film/judge/limits'
import { probe, toSpeechWav } from '../platform/media/ffmpeg.ts'
import { soundCheck } from '../platform/media/sound-check.ts'
import { toTakeFilm } from '../platform/media/take-film.ts'
import { forLog, log } from '../platform/log.ts'
import { Cancelled, JobProblem, shareOf, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { lessonById } from '../lessons/store.ts'
import { firstFrameOf } from './first-frame.ts'
import { inFolder } from '../platform/temporary.ts'
import { forgetOldPieces } from './heard-pieces-store.ts'
import { hearAgain } from './hear-job.ts'
import { lookOver } from './look-over.ts'
import { peaksIn } from './peaks.ts'
import { sortTake } from './sort-job.ts'
import { setTake, takeById, type TakeRow } from './store.ts'

/**
 * Makes a take playable, gives it to its segment where it has none yet, and hears it. Every stage that was finished
 * before the worker died is kept: begun again, the job does only what is missing.
 */
export async function prepareTake(s: Services, work: Work): Promise<void> {
  const take = await takeById(s.db, work.job.subject)
  if (!take) return
  await inFolder('take', async (folder) => {
    const wav = path.join(folder, 'sound.wav')
    if (!take.film) await makePlayable(s, take, folder, wav, work)
    let ready = (await takeById(s.db, take.id))!
    // What is measured helps the cut; a take is as good without.
    const look = async (): Promise<void> => {
      if (ready.looked) return
      await lookOver(s, ready, wav, work).catch((error: unknown) => {
        work.signal.throwIfAborted()
        if (error instanceof Cancelled) throw error
        log.warn({ error: forLog(error) }, 'a take could not be looked over')
      })
    }
    if (!ready.hasSound) {
      await look()
      await work.progress(ready.segmentId ? 'no sound to hear' : 'no sound to sort it by', 1)
      if (!ready.segmentId)
        await setTake(s.db, take.id, {
          sorting: { reason: 'It has no sound to sort it by.', matches: [], byHand: false },
        })
      return
    }
    if ((ready.seconds ?? 0) > hearing.longestTake) {
      await setTake(s.db, take.id, {
        problem: `It is ${Math.round((ready.seconds ?? 0) / 60)} minutes long, longer than any lesson: it is kept and plays, but is not listened to. Cut it into clips of up to ${Math.round(hearing.longestTake / 60)} minutes to have it heard.`,
      })
      return
    }
    const lesson = await lessonById(s.db, ready.lessonId)
    if (!lesson) throw new JobProblem('Its lesson is gone. The take is kept.')
    await work.progress('listening', 0.5)
    // A job begun again finds the film made and its sound gone.
    if (take.film) await toSpeechWav(s.blobs.path(take.film), wav, { signal: work.signal })
    if (!ready.segmentId) {
      await sortTake(s, ready, lesson, wav, work)
      ready = (await takeById(s.db, take.id)) ?? ready
      if (!ready.segmentId) return
    }
    await setTake(s.db, ready.id, {
      firstFrame: await firstFrameOf(
        s.blobs.path(ready.film!),
        lesson.doc,
        ready.segmentId,
        folder,
        work.signal,
      ),
    })
    await hearAgain(s, ready, lesson, wav, work)
    await look()
    await forgetOldPieces(s.db)
  })
}

/** Browser recordings say no length, phone clips lie on their side and change their rate: written out, all takes are alike. */
async function makePlayable(
  s: Services,
  take: TakeRow,
  folder: string,
  wav: string,
  { signal, progress }: Work,
): Promise<void> {
  const source = s.blobs.path(take.original)
  const p = await probe(source)
  if (!p) {
    await setTake(s.db, take.id, { status: 'refused', problem: 'This file holds no picture or sound.' })
    throw new JobProblem('This file holds no picture or sound. Nothing else was changed.')
  }
  await progress('making it playable', 0.02)
  const sound = p.audio ? await soundCheck(source, p, signal) : null
  const film = path.join(folder, 'film.mp4')
  const part =
    take.part && p.seconds > 0 ? { from: take.part.from, to: Math.min(take.part.to, p.seconds) } : take.part
  await toTakeFilm(source, film, p, {
    signal,
    part,
    ears: sound?.used ?? 'both',
    onShare: shareOf(progress, 'making it playable', 0.02, 0.46),
  })
  const made = await probe(film)
  // The length that counts is the picture's, in whole frames: sound may run a moment longer.
  const seconds = made?.frames ? made.frames / framesPerSecond : (made?.seconds ?? p.seconds)
  const sha = await s.blobs.put(s.db, { file: film }, 'video/mp4')
  await toSpeechWav(film, wav, { signal })
  await setTake(s.db, take.id, {
    film: sha,
    seconds,
    hasSound: p.audio,
    sound,
    peaks: await peaksIn(wav),
    status: 'ready',
  })
}
