import type { Device } from '../../contracts/chance.ts'
import type { Found, Params, Severity } from '../../contracts/finding.ts'
import { type ScriptCode, scriptCodes } from '../../findings/codes.ts'
import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Lesson, Step } from '../../contracts/lesson.ts'
import { numbersIn, tokens } from '../../plan/numbers/names.ts'
import type { Moment } from '../simulate.ts'
import type { Needed } from '../stock.ts'
import type { LessonTime } from '../time.ts'

/** A one-click repair: applied to the document it gives a document without the finding. What its button says is the catalogue's. */
export type Fix =
  | { kind: 'replace'; stepId: string; text: string }
  | { kind: 'insert-after'; stepId: string; verb: Step['verb']; text: string }
  | { kind: 'insert-before'; stepId: string; verb: Step['verb']; text: string }
  | { kind: 'remove'; stepId: string }
  | { kind: 'answer'; stepId: string; answer: number }
  /** The choices that are right, by their places. */
  | { kind: 'mark'; stepId: string; right: readonly number[] }
  | { kind: 'list-thing'; thing: string; count: number }
  | { kind: 'unlist-thing'; thing: string }

/** Something found in a script; null for a step or segment where it concerns the lesson as a whole. */
export interface Finding extends Found<ScriptCode> {
  severity: Severity
  stepId: string | null
  segmentId: string | null
  /** false where the words may mean something else: told, but as a question. */
  certain?: boolean
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
  /** What the lesson's numbers come from. */
  device: Device
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
      if (!known || known.style !== style || known.age !== lesson.age || known.device !== lesson.aim.device) {
        const context = { style, age: lesson.age, device: lesson.aim.device }
        known = { ...context, findings: rules.flatMap((judge) => judge(m, context)) }
        kept.set(m, known)
      }
      if (known.findings.length) out.push(...known.findings)
    }
    return out
  }
}

/** A rule about a line and those just before and after it in its lesson. */
export type NearRule = (m: Moment, i: number, moments: readonly Moment[]) => Finding[]
/** How far such rules look: a question, its wait and what hands do before a line, and two lines after it. */
const [back, ahead] = [4, 2]

/** Rules about lines and their neighbours as one: where none of these changed, the findings are kept. */
export function nearLines(rules: readonly NearRule[]): Rule {
  const kept = new WeakMap<Moment, { around: readonly Moment[]; findings: Finding[] }>()
  return ({ moments }) => {
    const out: Finding[] = []
    moments.forEach((m, i) => {
      const from = Math.max(0, i - back)
      const known = kept.get(m)
      const same =
        known?.around.length === Math.min(moments.length, i + ahead + 1) - from &&
        known.around.every((x, k) => x === moments[from + k])
      const findings = same ? known.findings : rules.flatMap((judge) => judge(m, i, moments))
      if (!same) kept.set(m, { around: moments.slice(from, i + ahead + 1), findings })
      if (findings.length) out.push(...findings)
    })
    return out
  }
}

/** A finding at a moment's line, as grave as its code is at most. */
export const at = (m: Moment, code: ScriptCode, params: Params, fix?: Fix): Finding => ({
  ...ofLesson(code, params, { stepId: m.step.id, segmentId: m.segment.id }),
  ...(fix ? { fix } : {}),
})
/** A finding about the lesson as a whole, unless the rest says where it stands. */
export const ofLesson = (code: ScriptCode, params: Params, rest: Partial<Finding> = {}): Finding => ({
  code,
  severity: scriptCodes[code][0],
  params,
  stepId: null,
  segmentId: null,
  ...rest,
})

/** Whether a text says a number, in figures or in words. */
export const saysNumber = (text: string, n: number): boolean =>
  numbersIn(tokens(text)).some((x) => x.value === n)
