import type { Example, Lesson, Segment, Structure } from '../../contracts/lesson.ts'
import { factOf, renumberText } from '../../script/renumber.ts'
import { readHands } from '../../script/language/read.ts'
import { emptyTable } from '../../script/table/state.ts'

export interface Carried {
  segment: Segment
  /** The fact as it was written and as it came up; null where the segment plays none, and only the roll itself was changed. */
  from: Example | null
  to: Example | null
  /** Steps whose words changed. */
  changed: string[]
}

/**
 * A segment as it came out: the die showed `faces` at a step, and every later line that rests on the number follows. A
 * lesson about the parts of one whole keeps the whole; elsewhere the total follows the parts. Null when the step is no
 * roll, or shows those faces already.
 */
export function withRoll(
  lesson: Pick<Lesson, 'examples' | 'aim'>,
  segment: Segment,
  stepId: string,
  faces: readonly number[],
): Carried | null {
  const step = segment.steps.find((s) => s.id === stepId)
  const written = step && facesOf(step.text)
  if (!step || !written || written.join() === faces.join()) return null
  const text = rolledText(step.text, written, faces)
  const fact = factOf(segment, lesson.examples)
  const to = fact && asRolled(fact, written, faces, lesson.aim.structure)
  const at = segment.steps.indexOf(step)
  const puts = { a: 0, b: 0, total: 0 }
  const steps = segment.steps.map((s, i) => {
    if (s.id === stepId) return { ...s, text }
    if (!fact || !to || s.verb === 'wait' || i < at) return s
    const task = s.task?.kind === 'number' ? s.task.answer : null
    const role = (['total', 'b', 'a'] as const).find((r) => fact[r] === task)
    return {
      ...s,
      text: renumberText(s.text, fact, to, s.verb === 'do' ? puts : undefined),
      ...(s.task?.kind === 'number' && role ? { task: { ...s.task, answer: to[role] } } : {}),
    }
  })
  return {
    segment: { ...segment, steps },
    from: fact,
    to,
    changed: steps
      .filter((s, i) => s !== segment.steps[i] && s.text !== segment.steps[i]!.text)
      .map((s) => s.id),
  }
}

/** Faces written in a roll, or null when the line rolls nothing. */
export function facesOf(text: string): number[] | null {
  const roll = readHands(text, emptyTable).actions.find((a) => a.type === 'roll')
  return roll?.type === 'roll' ? [...roll.faces] : null
}
function rolledText(text: string, written: readonly number[], faces: readonly number[]): string {
  let k = 0
  const out = text.replace(/\d+/g, (n) =>
    k < written.length && Number(n) === written[k] ? String(faces[k++] ?? n) : n,
  )
  return k === written.length ? out : `Roll ${faces.join(' and ')}`
}
function asRolled(
  e: Example,
  written: readonly number[],
  faces: readonly number[],
  structure: Structure,
): Example | null {
  const [was, is] = [written[0]!, faces[0]!]
  if (written.length === 2 && faces.length === 2 && e.op === '+')
    return { ...e, a: faces[0]!, b: faces[1]!, total: faces[0]! + faces[1]! }
  const part = e.a === was ? 'a' : e.b === was ? 'b' : null
  if (!part) return null
  const other = part === 'a' ? 'b' : 'a'
  if (e.op === '-')
    return part === 'a'
      ? is >= e.b
        ? { ...e, a: is, total: is - e.b }
        : null
      : is <= e.a
        ? { ...e, b: is, total: e.a - is }
        : null
  const keepsWhole = ['parts', 'missing', 'round-back'].includes(structure)
  if (keepsWhole) return is <= e.total ? { ...e, [part]: is, [other]: e.total - is } : null
  return { ...e, [part]: is, total: is + e[other] }
}
