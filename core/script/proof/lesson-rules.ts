import { numberName } from '../../plan/numbers/names.ts'
import { crossesTen } from '../../plan/numbers/facts.ts'
import { compareStock } from '../stock.ts'
import { clock } from '../time.ts'
import type { Finding, Rule } from './finding.ts'

const whole = (code: string, severity: Finding['severity'], what: string, why: string, rest: Partial<Finding> = {}): Finding =>
  ({ code, severity, stepId: null, segmentId: null, what, why, ...rest })
const minutes = (s: number): string => `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, '0')}`

export const stock: Rule = ({ lesson, needs }) => {
  if (lesson.segments.every((s) => s.steps.length === 0)) return []
  const { missing, short, unused } = compareStock(lesson.kit, needs)
  return [
    ...missing.map((n) => whole('not-listed', 'wrong', `${cap(n.thing)}: used here, but not among the things needed.`, 'A home that has not got it out cannot join in.',
      { stepId: n.stepId, fix: { label: `List ${n.count} ${n.thing}`, kind: 'list-thing', thing: n.thing, count: n.count } })),
    ...short.map(({ need, listed }) => whole('too-few-listed', 'wrong', `${need.count} ${need.thing} are out at once here; ${listed} are listed.`, 'Most at once, over the whole lesson.',
      { stepId: need.stepId, fix: { label: `List ${need.count}`, kind: 'list-thing', thing: need.thing, count: need.count } })),
    ...unused.map((k) => whole('listed-unused', 'tidy', `${cap(k.thing)}: listed, but never used.`, 'Every thing asked for costs a home a minute.', { fix: { label: `Take ${k.thing} off the list`, kind: 'unlist-thing', thing: k.thing } })),
  ]
}
const cap = (s: string): string => s[0]!.toUpperCase() + s.slice(1)

export const limits: Rule = ({ lesson, time, style: _style }) => {
  const out: Finding[] = []
  if (time.film > time.filmLimit) out.push(whole('film-long', 'risky', `The film runs ${minutes(time.film)}; the limit at age ${lesson.age} is ${minutes(time.filmLimit)}.`, 'Past it, most children of this age have left.'))
  time.segments.forEach((t, i) => {
    if (t.film > clock.segmentLimit) out.push(whole('segment-long', 'tidy', `“${lesson.segments[i]!.title}” runs ${minutes(t.film)}; four minutes is the limit.`, 'Part it in two.', { segmentId: t.id, stepId: lesson.segments[i]!.steps[0]?.id ?? null }))
  })
  const talk = clock.talkLimit(lesson.age)
  if (time.longestTalk.seconds > talk) out.push(whole('talk-long', 'risky', `You talk for ${Math.round(time.longestTalk.seconds)} s without a question or anything to do; ${talk} s is the limit.`, 'Ask something, or give hands something to do.', { stepId: time.longestTalk.stepId }))
  return out
}

export const exampleSet: Rule = ({ lesson, style }) => {
  const out: Finding[] = []
  const seen = new Set<string>()
  for (const e of lesson.examples) {
    const key = `${e.a}${e.op}${e.b}`
    if (seen.has(key)) out.push(whole('example-repeat', 'tidy', `${e.a} ${e.op === '+' ? '+' : '−'} ${e.b} stands twice in the example set.`, 'The second teaches nothing new.'))
    seen.add(key)
    const high = e.op === '+' ? e.total : e.a
    if (high > lesson.aim.upTo) out.push(whole('example-range', 'wrong', `${numberName(high)} is beyond the aim’s ${lesson.aim.upTo}.`, 'The aim says how far numbers go.'))
    if (!style.zeroIsPart && (e.a === 0 || e.b === 0)) out.push(whole('zero-later', 'tidy', 'Zero is a part here; this setting leaves it for later.', 'House style.'))
  }
  if (lesson.aim.mustHave.includes('crosses ten') && lesson.examples.length && !lesson.examples.some(crossesTen))
    out.push(whole('example-aim', 'risky', 'No example crosses ten, and the aim says it should.', 'The hard case is the point of the lesson.'))
  return out
}

export const homeTask: Rule = ({ lesson }) =>
  lesson.segments.filter((s) => s.kind === 'home task' && s.steps.length > 0 && !s.steps.some((x) => x.task)).map((s) => ({
    code: 'task-no-answer', severity: 'risky' as const, stepId: s.steps.at(-1)!.id, segmentId: s.id,
    what: 'A home task with nothing to send back.', why: 'Without a number, a choice or a photo you will learn nothing from it.',
  }))

export const handOver: Rule = ({ lesson }) =>
  lesson.segments.flatMap((s, i) => {
    const before = lesson.segments[i - 1]
    if (s.audience !== 'adults' || !before || before.audience !== 'children' || s.steps.length === 0) return []
    const first = s.steps[0]!
    if (/\b(grown-?ups?|adults?|whoever|the one who helps)\b/i.test(first.text)) return []
    return [{
      code: 'no-hand-over', severity: 'tidy' as const, stepId: first.id, segmentId: s.id,
      what: 'The film turns to grown-ups without saying so.', why: 'Children keep listening unless told it is not for them.',
      fix: { label: 'Add a hand-over line', kind: 'insert-before' as const, stepId: first.id, verb: 'say' as const, text: 'This part is for the grown-up with you.' },
    }]
  })
