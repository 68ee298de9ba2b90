import { useDeferredValue, useMemo } from 'react'
import type { CutList, CutSegment } from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Hearing } from '@awlbox/core/contracts/heard'
import type { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import { captionsOf, type FilmCue } from '@awlbox/core/cut/captions'
import { type Check, checkCaptions, checkLength, checkOverlays, checkPeople, checkSegment } from '@awlbox/core/cut/checks'
import { asFilmed } from '@awlbox/core/cut/propose'
import { limitsOf } from '@awlbox/core/script/clock-advice'
import { type Moment, simulate } from '@awlbox/core/script/simulate'
import type { TakeRecord } from '../../frame/types.ts'

/** The lesson as it came out in the takes that are cut: what was really rolled, and the table after every step. */
export interface Filmed {
  segments: readonly Segment[]
  moments: readonly Moment[]
}
export function useFilmed(lesson: Lesson, list: CutList | null, takes: readonly TakeRecord[]): Filmed {
  const chosen = list?.segments.map((r) => r.takeId).join() ?? ''
  return useMemo(() => {
    const rows = chosen.split(',')
    const segments = lesson.segments.map((s) => asFilmed(lesson, s, takes.find((t) => t.segmentId === s.id && rows.includes(t.id))?.marks))
    return { segments, moments: simulate({ segments }) }
  }, [lesson, takes, chosen])
}

/** What a row was found to be, kept as long as the row is the same. */
const known = new WeakMap<CutSegment['items'], { segment: Segment; hearings: ReadonlyMap<string, Hearing>; checks: Check[] }>()
function checked(segment: Segment, row: CutSegment, hearings: ReadonlyMap<string, Hearing>, style: HouseStyle): Check[] {
  const before = known.get(row.items)
  if (before?.segment === segment && before.hearings === hearings) return before.checks
  const checks = checkSegment(segment, row, hearings, style)
  known.set(row.items, { segment, hearings, checks })
  return checks
}

export interface Checked {
  cues: FilmCue[]
  checks: Check[]
  /** What is shown is of the cut as it was a moment ago. */
  behind: boolean
}
/** Captions of the cut and what is to be seen to, worked out beside the editing so that it never waits. `rows`: those of the film. */
export function useChecks({ list, rows, filmed, hearings, style, lesson }: { list: CutList; rows: readonly CutSegment[]; filmed: Filmed; hearings: ReadonlyMap<string, Hearing>; style: HouseStyle; lesson: Lesson }): Checked {
  const now = useMemo(() => ({ list, rows }), [list, rows])
  const late = useDeferredValue(now)
  const result = useMemo(() => {
    const parts = late.rows.flatMap((cut) => {
      const segment = filmed.segments.find((s) => s.id === cut.segmentId)
      return segment ? [{ segment, cut, hearings }] : []
    })
    const cues = captionsOf(parts, { style, age: lesson.age, edits: late.list.captions.edits })
    const title = (id: string): string => filmed.segments.find((s) => s.id === id)?.title ?? ''
    const checks = [
      ...checkPeople(late.list), ...parts.flatMap(({ segment, cut }) => [...checked(segment, cut, hearings, style), ...checkOverlays(segment, cut, late.list, filmed.moments)]),
      ...checkCaptions(cues, parts, hearings), ...checkLength(late.rows, limitsOf(lesson.age), title),
    ]
    return { cues, checks: checks.sort((a, b) => (a.severity === b.severity ? 0 : a.severity === 'wrong' ? -1 : 1)) }
  }, [late, filmed, hearings, style, lesson.age])
  return { ...result, behind: late !== now }
}
