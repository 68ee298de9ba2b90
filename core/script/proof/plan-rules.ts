import { cannotCome, givenBy, unreachable } from '../../plan/chance/plan.ts'
import { candidates } from '../../plan/candidates.ts'
import { holds } from '../../plan/examples.ts'
import { exampleSentence, factKey, largestIn } from '../../plan/numbers/facts.ts'
import { numberName } from '../../plan/numbers/names.ts'
import { at, type Finding, ofLesson, type Rule } from './finding.ts'

/** The example set against the aim and the house. */
export const exampleSet: Rule = ({ lesson, style }) => {
  const out: Finding[] = []
  const { aim, examples } = lesson
  const seen = new Set<string>()
  for (const e of examples) {
    if (seen.has(factKey(e)))
      out.push(
        ofLesson(
          'example-repeat',
          'tidy',
          `${exampleSentence(e)} stands twice in the example set.`,
          'The second teaches nothing new.',
        ),
      )
    seen.add(factKey(e))
    if (largestIn(e) > aim.upTo)
      out.push(
        ofLesson(
          'example-range',
          'wrong',
          `${numberName(largestIn(e))} is beyond the aim’s ${aim.upTo}.`,
          'The aim says how far numbers go.',
        ),
      )
    if (!style.zeroIsPart && e.op === '+' && (e.a === 0 || e.b === 0))
      out.push(
        ofLesson(
          'zero-later',
          'tidy',
          `Zero is a part in ${exampleSentence(e)}; this setting leaves it for later.`,
          'House style.',
        ),
      )
  }
  if (!style.turnRoundsCount && aim.structure === 'parts') {
    const turned = examples.find((e, i) =>
      examples.slice(0, i).some((f) => f.a === e.b && f.b === e.a && e.a !== e.b),
    )
    if (turned)
      out.push(
        ofLesson(
          'turn-round-twice',
          'tidy',
          `${exampleSentence(turned)} is a turn-round of one before it; this setting counts the two as one way.`,
          'House style.',
        ),
      )
  }
  const words = {
    'crosses ten': 'crosses ten',
    double: 'is a double',
    zero: 'has a zero',
    leftover: 'leaves something over',
    'turn-round': 'is a turn-round of another',
  }
  if (examples.length)
    for (const wish of aim.mustHave)
      if (!holds[wish](examples))
        out.push(
          ofLesson(
            'example-aim',
            'risky',
            `No example ${words[wish]}, and the aim says one should.`,
            'The hard case is the point of the lesson.',
          ),
        )
  if (examples.length > 8)
    out.push(
      ofLesson(
        'too-many-alike',
        'tidy',
        `${examples.length} examples of one kind.`,
        'After eight of the same, nobody is thinking any more.',
      ),
    )
  return out
}

/** The aim held against what the device can produce. */
export const device: Rule = ({ lesson, style }) => {
  const { aim, examples } = lesson
  if (aim.device.kind === 'none') return []
  const out: Finding[] = []
  const never = unreachable(aim.device, examples, givenBy(aim.structure))
  if (never.length)
    out.push(
      ofLesson(
        'device-example',
        'wrong',
        `${never.map(exampleSentence).join(' and ')}: the device can never start ${never.length === 1 ? 'it' : 'them'}.`,
        'What is filmed would have to be arranged. Change the device or the example.',
      ),
    )
  const facts = candidates(aim, style.zeroIsPart)
  const missed = unreachable(aim.device, facts, givenBy(aim.structure))
  if (missed.length > 0 && missed.length < facts.length && aim.structure === 'parts')
    out.push(
      ofLesson(
        'device-limits',
        'risky',
        `${missed.length} of the ${facts.length} ways can never come with this device.`,
        cannotCome(aim.device).why[0] ?? 'Children playing it will not find them all.',
      ),
    )
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
    const zero = /\b(zero|nothing|none|empty)\b/i.test(near)
    if (order && zero) return []
    const missing = [!order && 'whether turned round is a new way', !zero && 'whether a part may be nothing']
      .filter(Boolean)
      .join(' and ')
    return [
      at(
        m,
        'ways-unsaid',
        'risky',
        `“How many ways” is asked without saying ${missing}.`,
        'Without it there is no right answer.',
        {
          label: 'Say it',
          kind: 'insert-before',
          stepId: m.step.id,
          verb: 'say',
          text: `${style.turnRoundsCount ? 'Turned round is a new way.' : 'Turned round is the same way.'} ${style.zeroIsPart ? 'A part may be nothing.' : 'Each part has something, so no zero.'}`,
        },
      ),
    ]
  })
