import type { Hearing, HeardFinding } from '@awlbox/core/contracts/heard'
import type { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { isTelephone } from '@awlbox/core/film/ear/channels'
import { captionWords, readCaptions } from '@awlbox/core/film/desk/captions'
import { corrected } from '@awlbox/core/film/desk/corrections'
import { hear } from '@awlbox/core/film/judge/heard'
import { NoRecogniser } from '../platform/media/recogniser.ts'
import { JobProblem, shareOf, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { houseStyleOf } from '../settings/store.ts'
import { heardBefore } from './heard-pieces-store.ts'
import { hearTake } from './hear-take.ts'
import { hearingOf, pronunciationsOf, saveHearing, setTake, type TakeRow } from './store.ts'

interface OfLesson {
  settingId: string
  revision: number
  doc: Lesson
}
const segmentOf = (lesson: OfLesson, take: TakeRow): Segment => {
  const segment = lesson.doc.segments.find((x) => x.id === take.segmentId)
  if (!segment) throw new JobProblem('Its segment is no longer in the lesson. The take is kept.')
  return segment
}

/** Hears a take's sound against its segment and keeps what was found. */
export async function hearAgain(
  s: Services,
  take: TakeRow,
  lesson: OfLesson,
  wav: string,
  { signal, progress }: Work,
): Promise<void> {
  if (take.captions) {
    await hearCaptions(s, take, lesson)
    return
  }
  const segment = segmentOf(lesson, take)
  const style = await houseStyleOf(s.db, lesson.settingId)
  await progress('hearing it', 0.6)
  try {
    const heard = await hearTake(wav, segment, {
      style,
      age: lesson.doc.age,
      unsure: isTelephone(take.sound),
      corrections: take.corrections,
      signal,
      memory: heardBefore(s.db),
      pronunciations: await pronunciationsOf(s.db, take.lessonId, segment.id),
      onShare: shareOf(progress, 'hearing it', 0.6, 0.38),
    })
    await saveHearing(s.db, take.id, heard, lesson.revision)
    if (take.problem) await setTake(s.db, take.id, { problem: null })
  } catch (error) {
    if (!(error instanceof NoRecogniser)) throw error
    await setTake(s.db, take.id, { problem: error.message })
    throw new JobProblem(error.message)
  }
}

/** Hears a take from its imported captions in place of its sound. @throws SyntaxError when they are none. */
export async function hearCaptions(s: Services, take: TakeRow, lesson: OfLesson): Promise<Hearing> {
  const segment = segmentOf(lesson, take)
  const words = corrected(captionWords(readCaptions(take.captions!)), take.corrections)
  const heard = hear(segment, words, take.seconds ?? words.at(-1)?.end ?? 0, {
    style: await houseStyleOf(s.db, lesson.settingId),
    age: lesson.doc.age,
  })
  await saveHearing(s.db, take.id, heard, lesson.revision)
  return heard
}

/** Judges a take once more from the words it was heard with, after a correction: nothing is listened to again. Null where it was never heard. */
export async function judgeAgain(s: Services, take: TakeRow, lesson: OfLesson): Promise<Hearing | null> {
  if (take.captions) return hearCaptions(s, take, lesson)
  const before = await hearingOf(s.db, take.id)
  if (!before) return null
  const style: HouseStyle = await houseStyleOf(s.db, lesson.settingId)
  const after = hear(segmentOf(lesson, take), corrected(before.words, take.corrections), take.seconds ?? 0, {
    style,
    age: lesson.doc.age,
    unpronounced: before.unpronounced,
    claps: before.claps ?? null,
    voiced: before.voiced ?? [],
    unsure: isTelephone(take.sound),
    advice: before.understood?.advice ?? [],
    others: before.understood?.others ?? [],
  })
  // What two hearings did not agree on stays a doubt.
  const doubted = (f: HeardFinding): boolean =>
    before.findings.some((b) => b.code === f.code && !b.certain && Math.abs(b.start - f.start) < 0.5)
  const kept = { ...after, findings: after.findings.map((f) => (doubted(f) ? { ...f, certain: false } : f)) }
  await saveHearing(s.db, take.id, kept, lesson.revision)
  return kept
}
