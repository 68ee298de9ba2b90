import { type CutItem, framesPerSecond } from '@awlbox/core/contracts/cut'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { captionText } from '@awlbox/core/cut/captions'
import type { TakeRecord } from '../../frame/types.ts'

/** The script's words for what is being said in the picture; null where nothing is, or where a word is no line's. */
export function captionAt(lesson: Lesson, shown: { item: CutItem; frame: number } | null, takes: readonly TakeRecord[]): string | null {
  if (shown?.item.kind !== 'clip') return null
  const [t, { takeId }] = [shown.frame / framesPerSecond, shown.item]
  const line = takes.find((x) => x.id === takeId)?.hearing?.lines.find((l) => l.start !== null && l.end !== null && t >= l.start - 0.2 && t <= l.end + 0.3)
  const step = line && lesson.segments.flatMap((s) => s.steps).find((s) => s.id === line.stepId)
  return step ? captionText(step.verb, step.text) : null
}
