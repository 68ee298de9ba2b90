import { kitByHand } from './kit-follows.ts'
import { withKey } from './worked-out.ts'
import { assertNever } from '../contracts/assert-never.ts'
import type { Lesson, Segment, Step, TaskSpec } from '../contracts/lesson.ts'
import type { Fix } from './proof/finding.ts'

/** Edits of the document as pure functions: undo is keeping the document before. `newId` gives unused ids. */
const mapSteps = (lesson: Lesson, f: (steps: Step[], s: Segment) => Step[]): Lesson => ({
  ...lesson,
  segments: lesson.segments.map((s) => {
    const steps = f(s.steps, s)
    return steps === s.steps ? s : { ...s, steps }
  }),
})

export const changeStep = (lesson: Lesson, stepId: string, change: Partial<Omit<Step, 'id'>>): Lesson =>
  mapSteps(lesson, (steps) =>
    steps.some((x) => x.id === stepId)
      ? steps.map((x) => (x.id === stepId ? { ...x, ...change } : x))
      : steps,
  )
export const removeStep = (lesson: Lesson, stepId: string): Lesson =>
  mapSteps(lesson, (steps) =>
    steps.some((x) => x.id === stepId) ? steps.filter((x) => x.id !== stepId) : steps,
  )
export const insertStep = (lesson: Lesson, segmentId: string, at: number, step: Step): Lesson =>
  mapSteps(lesson, (steps, s) =>
    s.id === segmentId ? [...steps.slice(0, at), step, ...steps.slice(at)] : steps,
  )

/** Moves a step up (−1) or down (+1), across into the neighbouring segment at either end. */
export function moveStep(lesson: Lesson, stepId: string, by: 1 | -1): Lesson {
  const si = lesson.segments.findIndex((s) => s.steps.some((x) => x.id === stepId))
  const segment = lesson.segments[si]
  if (!segment) return lesson
  const i = segment.steps.findIndex((x) => x.id === stepId)
  const step = segment.steps[i]!
  const j = i + by
  if (j >= 0 && j < segment.steps.length) {
    const steps = segment.steps.filter((x) => x.id !== stepId)
    steps.splice(j, 0, step)
    return { ...lesson, segments: lesson.segments.map((s) => (s === segment ? { ...s, steps } : s)) }
  }
  const neighbour = lesson.segments[si + by]
  if (!neighbour) return lesson
  const without = removeStep(lesson, stepId)
  return insertStep(without, neighbour.id, by < 0 ? neighbour.steps.length : 0, step)
}

/** Places a step before another one (drag and drop); a null `beforeId` puts it at the end of the segment. */
export function placeStep(
  lesson: Lesson,
  stepId: string,
  segmentId: string,
  beforeId: string | null,
): Lesson {
  const step = lesson.segments.flatMap((s) => s.steps).find((x) => x.id === stepId)
  if (!step || stepId === beforeId) return lesson
  const without = removeStep(lesson, stepId)
  const target = without.segments.find((s) => s.id === segmentId)
  if (!target) return lesson
  const at = beforeId === null ? target.steps.length : target.steps.findIndex((x) => x.id === beforeId)
  return insertStep(without, segmentId, at < 0 ? target.steps.length : at, step)
}

/** Changes what comes back from a line; undefined: nothing does. */
export function changeTask(
  lesson: Lesson,
  stepId: string,
  change: (task: TaskSpec | undefined) => TaskSpec | undefined,
): Lesson {
  const changed = (x: Step): Step => {
    const { task, ...line } = x
    const next = change(task)
    return next ? { ...line, task: next } : line
  }
  return {
    ...lesson,
    segments: lesson.segments.map((s) =>
      s.steps.some((x) => x.id === stepId)
        ? { ...s, steps: s.steps.map((x) => (x.id === stepId ? changed(x) : x)) }
        : s,
    ),
  }
}

export function applyFix(lesson: Lesson, fix: Fix, newId: () => string): Lesson {
  switch (fix.kind) {
    case 'replace':
      return changeStep(lesson, fix.stepId, { text: fix.text })
    case 'answer':
      return changeTask(lesson, fix.stepId, (t) => t && { ...withKey(t, fix.answer), mine: undefined })
    case 'mark':
      return changeTask(lesson, fix.stepId, (t) => {
        const [answer, ...also] = fix.right
        return t?.kind === 'choice' && answer !== undefined
          ? { ...t, answer, also: also.length ? also : undefined }
          : t
      })
    case 'remove':
      return removeStep(lesson, fix.stepId)
    case 'insert-after':
    case 'insert-before': {
      const segment = lesson.segments.find((s) => s.steps.some((x) => x.id === fix.stepId))
      if (!segment) return lesson
      const i = segment.steps.findIndex((x) => x.id === fix.stepId) + (fix.kind === 'insert-after' ? 1 : 0)
      return insertStep(lesson, segment.id, i, { id: newId(), verb: fix.verb, text: fix.text })
    }
    case 'list-thing':
      return kitByHand(lesson, [
        ...lesson.kit.filter((k) => k.thing !== fix.thing),
        { thing: fix.thing, count: fix.count },
      ])
    case 'unlist-thing':
      return { ...lesson, kit: lesson.kit.filter((k) => k.thing !== fix.thing) }
    default:
      return assertNever(fix)
  }
}
