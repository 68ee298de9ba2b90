import { type CutItem, type CutSegment, framesPerSecond } from '@awlbox/core/contracts/cut'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { captionText } from '@awlbox/core/cut/captions'
import { stretchesOf, toFrame } from '@awlbox/core/cut/timeline'
import type { TakeRecord } from '../../frame/types.ts'

interface Shown {
  segmentId: string
  itemId: string
  frame: number
}
/** The script's words for what is being said in the picture; null where nothing is, or where a word is no line's. */
export function captionAt(lesson: Lesson, shown: Shown | null, item: CutItem | null, takes: readonly TakeRecord[]): string | null {
  if (!shown || item?.kind !== 'clip') return null
  const t = shown.frame / framesPerSecond
  const line = takes.find((x) => x.id === item.takeId)?.hearing?.lines.find((l) => l.start !== null && l.end !== null && t >= l.start - 0.2 && t <= l.end + 0.3)
  const step = line && lesson.segments.flatMap((s) => s.steps).find((s) => s.id === line.stepId)
  return step ? captionText(step.verb, step.text) : null
}

/** The frame of the segment's film at which the word before or after the picture begins; null where there is none. */
export function wordBeside(shown: Shown | null, row: CutSegment | null, takes: readonly TakeRecord[], step: -1 | 1): number | null {
  const item = row?.items.find((i) => i.id === shown?.itemId)
  if (!shown || !row) return null
  const here = item?.kind === 'clip' ? stretchesOf(row, item.takeId, shown.frame / framesPerSecond, (shown.frame + 1) / framesPerSecond)[0]?.start ?? 0 : 0
  const ids = new Set(row.items.flatMap((i) => (i.kind === 'clip' ? [i.takeId] : [])))
  const starts = takes.filter((t) => ids.has(t.id)).flatMap((t) => (t.hearing?.words ?? []).flatMap((w) => stretchesOf(row, t.id, w.start, w.end).map((s) => s.start))).sort((a, b) => a - b)
  const to = step > 0 ? starts.find((s) => s > here + 0.05) : starts.findLast((s) => s < here - 0.05)
  return to === undefined ? null : toFrame(to)
}
