import type { CutList, CutSegment } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import type { Lesson } from '../contracts/lesson.ts'
import { byMerit } from '../film/take-sheet.ts'
import { type LessonTime, timeLesson } from '../script/time.ts'
import { proposedDrops } from './spans.ts'

export interface TakeFacts {
  id: string
  segmentId: string
  number: number
  seconds: number
  hearing: Pick<Hearing, 'drops' | 'quality' | 'findings'> | null
}

/** The take to cut from: the one with fewest slips that cannot be cut away, then the best heard; of equals the one nearest to the `planned` seconds (0: unknown), then the latest. */
export const bestTake = (takes: readonly TakeFacts[], planned = 0): TakeFacts | null => [...takes].sort((a, b) => byMerit(a, b, planned))[0] ?? null

/**
 * Brings a cut list in line with the lesson and its takes: a row for each segment children watch, in the script's
 * order; a take chosen where none is; newly heard drops proposed. What the teacher decided stays.
 */
export function reconcile(cut: CutList | null, lesson: Pick<Lesson, 'segments' | 'age'>, takes: readonly TakeFacts[]): CutList {
  // The clock is asked only where several takes are to choose from.
  let times: LessonTime | null = null
  const planned = (id: string): number => (times ??= timeLesson(lesson)).segments.find((s) => s.id === id)?.film ?? 0
  return {
    format: 'awlbox-cut', version: 1,
    segments: lesson.segments.filter((s) => s.audience === 'children').map((s): CutSegment => {
      const mine = takes.filter((t) => t.segmentId === s.id)
      const before = cut?.segments.find((c) => c.segmentId === s.id)
      const chosen = mine.find((t) => t.id === before?.takeId) ?? bestTake(mine, mine.length > 1 ? planned(s.id) : 0)
      if (!chosen) return { segmentId: s.id, takeId: null, start: 0, end: null, drops: [], card: before?.card ?? null }
      if (before && before.takeId === chosen.id) return { ...before, drops: chosen.hearing ? proposedDrops(chosen.hearing, before.drops) : before.drops }
      return forTake(s.id, chosen, before?.card ?? null)
    }),
  }
}
/** A segment's row when another take is chosen: its trims and drops start afresh, the card stays. */
export const forTake = (segmentId: string, take: TakeFacts, card: CutSegment['card']): CutSegment => ({ segmentId, takeId: take.id, start: 0, end: null, drops: take.hearing ? proposedDrops(take.hearing) : [], card })
