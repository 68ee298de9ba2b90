import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Lesson, Step } from '../../contracts/lesson.ts'
import { numbersIn, tokens } from '../../plan/numbers/names.ts'
import type { Moment } from '../simulate.ts'
import type { Needed } from '../stock.ts'
import type { LessonTime } from '../time.ts'

export const severities = ['wrong', 'risky', 'tidy'] as const
export type Severity = (typeof severities)[number]

/** A one-click repair: applied to the document it gives a document without the finding. */
export type Fix =
  | { label: string; kind: 'replace'; stepId: string; text: string }
  | { label: string; kind: 'insert-after'; stepId: string; verb: Step['verb']; text: string }
  | { label: string; kind: 'insert-before'; stepId: string; verb: Step['verb']; text: string }
  | { label: string; kind: 'remove'; stepId: string }
  | { label: string; kind: 'list-thing'; thing: string; count: number }
  | { label: string; kind: 'unlist-thing'; thing: string }

export interface Finding {
  code: string
  severity: Severity
  /** The step it concerns; null for the lesson as a whole. */
  stepId: string | null
  segmentId: string | null
  what: string
  why: string
  fix?: Fix
}

interface ProofContext {
  lesson: Lesson
  style: HouseStyle
  moments: readonly Moment[]
  time: LessonTime
  needs: readonly Needed[]
}
export type Rule = (context: ProofContext) => Finding[]

/** What a rule about single lines may look at besides the line. */
interface LineContext {
  style: HouseStyle
  age: number
}
/** A rule about one line at a time. */
export type LineRule = (m: Moment, c: LineContext) => Finding[]

/**
 * Rules about single lines as one. Lines that did not change since the last proof-reading, nor the table under them,
 * keep their findings: of 600 lines only those of the segment being written are judged again.
 */
export function eachLine(rules: readonly LineRule[]): Rule {
  const kept = new WeakMap<Moment, LineContext & { findings: Finding[] }>()
  return ({ moments, style, lesson }) => {
    const out: Finding[] = []
    for (const m of moments) {
      let known = kept.get(m)
      if (!known || known.style !== style || known.age !== lesson.age) {
        const context = { style, age: lesson.age }
        known = { ...context, findings: rules.flatMap((judge) => judge(m, context)) }
        kept.set(m, known)
      }
      if (known.findings.length) out.push(...known.findings)
    }
    return out
  }
}

export const at = (
  m: Moment,
  code: string,
  severity: Severity,
  what: string,
  why: string,
  fix?: Fix,
): Finding => ({
  code,
  severity,
  stepId: m.step.id,
  segmentId: m.segment.id,
  what,
  why,
  ...(fix ? { fix } : {}),
})
/** A finding about the lesson as a whole, unless the rest says where it stands. */
export const ofLesson = (
  code: string,
  severity: Severity,
  what: string,
  why: string,
  rest: Partial<Finding> = {},
): Finding => ({ code, severity, stepId: null, segmentId: null, what, why, ...rest })

/** Whether a text says a number, in figures or in words. */
export const saysNumber = (text: string, n: number): boolean =>
  numbersIn(tokens(text)).some((x) => x.value === n)
