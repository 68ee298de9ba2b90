import { startTransition, useEffect, useMemo, useState } from 'react'
import type { CutList, CutSegment } from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Hearing } from '@awlbox/core/contracts/heard'
import type { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import type { LessonTime } from '@awlbox/core/script/time'
import { type FilmCue, segmentCaptions } from '@awlbox/core/cut/captions'
import {
  type Check,
  checkCaptions,
  checkCards,
  checkLength,
  unfilmed,
  checkOverlays,
  checkPeople,
  checkSegment,
  checkSound,
  keptWords,
} from '@awlbox/core/cut/checks'
import { checkCaptionPlaces, placedCaptions } from '@awlbox/core/cut/caption-place'
import { repairOf } from '@awlbox/core/cut/repairs'
import { type AsFilmed, lessonAsFilmed, tableAfter } from '@awlbox/core/cut/propose'
import { segmentFrames, toSeconds } from '@awlbox/core/cut/timeline'
import { limitsOf } from '@awlbox/core/script/clock-advice'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { peaksPerSecond } from './waveform.tsx'

/** The lesson as it came out in the takes that are cut: worked out anew only when another take is chosen. */
export function useFilmed(lesson: Lesson, list: CutList | null, takes: readonly TakeRecord[]): AsFilmed {
  const chosen = JSON.stringify(list?.segments.map(({ segmentId, takeId }) => ({ segmentId, takeId })) ?? [])
  return useMemo(
    () => lessonAsFilmed(lesson, JSON.parse(chosen) as Pick<CutSegment, 'segmentId' | 'takeId'>[], takes),
    [lesson, takes, chosen],
  )
}

/** What a row was found to be, kept as long as everything it rests on is the same. */
interface Known {
  on: readonly unknown[]
  cues: FilmCue[]
  checks: Check[]
}
const known = new WeakMap<CutSegment, Known>()
interface Rests {
  list: CutList
  filmed: AsFilmed
  hearings: ReadonlyMap<string, Hearing>
  style: HouseStyle
  age: number
  peaks: ReadonlyMap<string, Uint8Array> | undefined
}
function looked(
  segment: Segment,
  row: CutSegment,
  { list, filmed, hearings, style, age, peaks }: Rests,
): Known {
  const on = [segment, filmed, hearings, style, age, peaks, list.captions.edits, list.repairs]
  const before = known.get(row)
  if (before?.on.every((x, i) => x === on[i])) return before
  const cues = placedCaptions(
    segmentCaptions({ segment, cut: row, hearings }, { style, age, edits: list.captions.edits }),
    {
      tableAfter: (stepId) => tableAfter(filmed, stepId),
      repairOf: (takeId) => repairOf(list, takeId),
      fill: style.frameFill,
    },
  )
  const words = keptWords(row, hearings)
  const now = {
    on,
    cues,
    checks: [
      ...checkSegment(segment, row, words, { style, age }),
      ...checkCaptions(cues, segment, words),
      ...checkCaptionPlaces(cues),
      ...checkOverlays(segment, row, list, filmed.moments, style.frameFill),
      ...checkCards(row, filmed.moments),
      ...(peaks ? checkSound(row, peaks, peaksPerSecond) : []),
    ],
  }
  known.set(row, now)
  return now
}

/** Milliseconds after the last change at which the cut is held against its script again. */
const rests = 150

export interface Checked {
  cues: FilmCue[]
  checks: Check[]
  /** What is shown is of the cut as it was a moment ago. */
  behind: boolean
}
/** Captions of the cut and what is to be seen to, worked out beside the editing so that it never waits. `rows`: those of the film. */
export function useChecks({
  list,
  rows,
  filmed,
  hearings,
  style,
  lesson,
  time,
  peaks,
}: {
  list: CutList
  rows: readonly CutSegment[]
  filmed: AsFilmed
  hearings: ReadonlyMap<string, Hearing>
  style: HouseStyle
  lesson: Lesson
  time: LessonTime
  peaks: ReadonlyMap<string, Uint8Array> | undefined
}): Checked {
  const now = useMemo(() => ({ list, rows }), [list, rows])
  // Not at every change but once the hand rests: what one does must be on screen first.
  const [late, setLate] = useState(now)
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setLate(now)), rests)
    return () => clearTimeout(timer)
  }, [now])
  const result = useMemo(() => {
    let at = 0
    const [cues, checks]: [FilmCue[], Check[]] = [[], checkPeople(late.list)]
    for (const row of late.rows) {
      const segment = filmed.segments.find((s) => s.id === row.segmentId)
      const mine =
        segment && looked(segment, row, { list: late.list, filmed, hearings, style, age: lesson.age, peaks })
      for (const c of mine?.cues ?? []) cues.push({ ...c, start: c.start + at, end: c.end + at })
      checks.push(...(mine?.checks ?? []))
      at += toSeconds(segmentFrames(row))
    }
    checks.push(
      ...checkLength(
        late.rows,
        limitsOf(lesson.age),
        (id) => filmed.segments.find((s) => s.id === id)?.title ?? '',
        unfilmed(late.rows, time),
      ),
    )
    return {
      cues,
      checks: checks.sort((a, b) => (a.severity === b.severity ? 0 : a.severity === 'wrong' ? -1 : 1)),
    }
  }, [late, filmed, hearings, style, lesson.age, time, peaks])
  return { ...result, behind: late !== now }
}
