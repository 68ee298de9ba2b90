import type { Params } from '../../contracts/finding.ts'
import { cannotCome, unreachable } from '../../plan/chance/plan.ts'
import { candidates } from '../../plan/candidates.ts'
import { holds } from '../../plan/examples.ts'
import { exampleSentence, factKey, largestIn } from '../../plan/numbers/facts.ts'
import { at, type Finding, ofLesson, type Rule } from './finding.ts'

/** The example set against the aim and the house. */
export const exampleSet: Rule = ({ lesson, style }) => {
  const out: Finding[] = []
  const { aim, examples } = lesson
  const seen = new Set<string>()
  for (const e of examples) {
    if (seen.has(factKey(e))) out.push(ofLesson('example-repeat', { example: exampleSentence(e) }))
    seen.add(factKey(e))
    if (largestIn(e) > aim.upTo) out.push(ofLesson('example-range', { number: largestIn(e), upTo: aim.upTo }))
    if (!style.zeroIsPart && e.op === '+' && (e.a === 0 || e.b === 0))
      out.push(ofLesson('zero-later', { example: exampleSentence(e) }))
  }
  if (!style.turnRoundsCount && aim.structure === 'parts') {
    const turned = examples.find((e, i) =>
      examples.slice(0, i).some((f) => f.a === e.b && f.b === e.a && e.a !== e.b),
    )
    if (turned) out.push(ofLesson('turn-round-twice', { example: exampleSentence(turned) }))
  }
  if (examples.length)
    for (const wish of aim.mustHave) if (!holds[wish](examples)) out.push(ofLesson('example-aim', { wish }))
  if (examples.length > 8) out.push(ofLesson('too-many-alike', { count: examples.length }))
  return out
}

/** The aim held against what the device can produce. */
export const device: Rule = ({ lesson, style }) => {
  const { aim, examples } = lesson
  if (aim.device.kind === 'none') return []
  const out: Finding[] = []
  const never = unreachable(aim.device, examples, aim.structure)
  if (never.length)
    out.push(ofLesson('device-example', { examples: never.map(exampleSentence), count: never.length }))
  const facts = candidates(aim, style.zeroIsPart)
  const reason = cannotCome(aim.device).why[0]
  const because: Params = reason === undefined ? { case: 'unknown' } : { case: 'known', reason }
  const missed = unreachable(aim.device, facts, aim.structure)
  if (missed.length > 0 && missed.length < facts.length && aim.structure === 'parts')
    out.push(ofLesson('device-limits', { missed: missed.length, ways: facts.length, ...because }))
  return out
}

/** "How many ways" means nothing without saying whether order counts and zero is allowed. */
export const waysUnsaid: Rule = ({ moments, style }) =>
  moments.flatMap((m) => {
    if (
      m.segment.audience === 'adults' ||
      !['say', 'ask', 'pause'].includes(m.step.verb) ||
      !/\b(how many|find all( the)?|all the) (different )?ways\b/i.test(m.step.text)
    )
      return []
    const near = moments
      .filter((x) => x.segment === m.segment)
      .map((x) => x.step.text)
      .join(' ')
    const order = /\b(turn(ed)?[- ]?rounds?|turned round|order|swapped|the other way round)\b/i.test(near)
    const zero = /\b(zero|nought|nothing|none|empty)\b/i.test(near)
    if (order && zero) return []
    return [
      at(
        m,
        'ways-unsaid',
        { case: order ? 'zero' : zero ? 'order' : 'both' },
        {
          kind: 'insert-before',
          stepId: m.step.id,
          verb: 'say',
          text: `${style.turnRoundsCount ? 'Turned round is a new way.' : 'Turned round is the same way.'} ${style.zeroIsPart ? 'A part may be nothing.' : 'Each part has something, so no zero.'}`,
        },
      ),
    ]
  })
