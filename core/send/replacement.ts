import type { CutList } from '../contracts/cut.ts'
import type { Lesson } from '../contracts/lesson.ts'
import { changesBetween } from '../cut/changed.ts'

/** What changes for homes when a film cut anew takes the place of the one they see, a line each; never none. */
export function replacementChanges(lesson: Lesson, before: CutList | null, after: CutList | null): string[] {
  const titleOf = (id: string): string =>
    lesson.segments.find((x) => x.id === id)?.title ?? 'a part that is gone'
  const changes = before && after ? changesBetween(before, after, titleOf) : []
  return changes.length ? changes : ['Captions and words.']
}
