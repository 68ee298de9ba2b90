import type { Segment } from '../contracts/lesson.ts'
import { inSigns, sentencesIn } from './sentence.ts'

/** The number sentence in signs that stands nearest before a step or at it, else the next after it; one to be filled in where there is none. */
export function sentenceNear(segment: Pick<Segment, 'steps'>, stepId: string | null): string {
  const here = Math.max(
    0,
    segment.steps.findIndex((s) => s.id === stepId),
  )
  const signs = segment.steps.map((s) => {
    const found = sentencesIn(s.text)[0]
    return found ? inSigns(found) : null
  })
  return (
    signs.slice(0, here + 1).findLast((t) => t !== null) ??
    signs.slice(here).find((t) => t !== null) ??
    '__ + __ = __'
  )
}
