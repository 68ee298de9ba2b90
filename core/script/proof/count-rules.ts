import { numbersIn, run, tokens } from '../../plan/numbers/names.ts'
import type { Moment } from '../simulate.ts'
import { thingsOn, visibleThings } from '../table/state.ts'
import { at, type LineRule } from './finding.ts'

const counting = (m: Moment): boolean => m.count !== null && !m.step.deliberate

/** Skips, repeats and turns inside a count whose numbers are written out one by one. */
export const countOrder: LineRule = (m) => {
  if (!counting(m)) return []
  const { numbers, listed } = m.count!
  if (!listed || numbers.length < 3) return []
  const gaps = numbers.slice(1).map((n, i) => n - numbers[i]!)
  const by = mostCommon(gaps)
  if (by === 0) return []
  const should = run(numbers[0]!, numbers[0]! + by * Math.round((numbers.at(-1)! - numbers[0]!) / by), by)
  const fix = {
    label: `Count ${should.join(', ')}`,
    kind: 'replace' as const,
    stepId: m.step.id,
    text: should.join(', ') + (m.count!.touching ? ', touching each' : ''),
  }
  const out = []
  const repeated = numbers.find((n, i) => i > 0 && n === numbers[i - 1])
  const skipped = should.filter((n) => !numbers.includes(n))
  if (repeated !== undefined)
    out.push(
      at(m, 'count-repeat', 'wrong', `The count says ${repeated} twice.`, 'One number for one thing.', fix),
    )
  if (skipped.length)
    out.push(
      at(
        m,
        'count-skip',
        'wrong',
        `The count leaves out ${skipped.join(' and ')}.`,
        'Children learn the run by heart from this.',
        fix,
      ),
    )
  if (!repeated && !skipped.length && gaps.some((g) => g !== by))
    out.push(
      at(
        m,
        'count-order',
        'wrong',
        'The count is out of order.',
        'Children learn the run by heart from this.',
        fix,
      ),
    )
  return out
}

const mostCommon = (xs: readonly number[]): number => {
  const tally = new Map<number, number>()
  for (const x of xs) tally.set(x, (tally.get(x) ?? 0) + 1)
  return [...tally].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
}

/** A count that touches things must end on how many there are, and start at one. */
export const countAgainstTable: LineRule = (m) => {
  if (!counting(m)) return []
  const c = m.count!
  if (!c.touching || m.error) return []
  const named =
    c.target.mat && m.before.mats.some((x) => x.kind === c.target.mat)
      ? { ...m.before, mats: m.before.mats.filter((x) => x.kind === c.target.mat) }
      : m.before
  const on = visibleThings(named).length
  const first = c.numbers[0]!
  const last = c.numbers.at(-1)!
  const by = Math.abs((c.numbers[1] ?? first + 1) - first) || 1
  if (last < first) return []
  if (on === 0)
    return [
      at(
        m,
        'count-nothing',
        'wrong',
        'The count touches things, but none are on the table.',
        'Put them out first.',
      ),
    ]
  // Counting on: the held ones are covered or known, and the last number is everything.
  if (c.onFrom !== null || first > by) {
    const all = thingsOn(m.before).length
    return [on + first, all, on].includes(last)
      ? []
      : [
          at(
            m,
            'count-end',
            'wrong',
            `The count ends on ${last}; ${all} are on the table.`,
            'The last number said is how many there are.',
          ),
        ]
  }
  if (first !== by)
    return [
      at(
        m,
        'count-start',
        'wrong',
        `The count starts at ${first}.`,
        `Touching things one by one starts at ${by}.`,
        replace(m, `${by} to ${on}, touching each`),
      ),
    ]
  if (last !== on)
    return [
      at(
        m,
        'count-end',
        'wrong',
        `The count ends on ${last}, but ${on} are on the table.`,
        'The last number said is how many there are.',
        by === 1 && !c.listed ? replace(m, `1 to ${on}, touching each`) : undefined,
      ),
    ]
  return []
}
const replace = (m: Moment, text: string) => ({
  label: `Count ${text}`,
  kind: 'replace' as const,
  stepId: m.step.id,
  text,
})

/** "There are eight parcels" said or revealed while another number lies on the table. */
export const claimedCount: LineRule = (m) => {
  if ((m.step.verb !== 'say' && m.step.verb !== 'reveal') || m.step.deliberate) return []
  const claim = m.step.text.match(
    /\b(?:there are|we have|that makes|that's|i can see|altogether)\s+(\w+(?:[- ]\w+)?)\s+(?:parcels|counters|things|altogether|in all|on the (?:frame|table|row|line))\b/i,
  )
  if (!claim) return []
  const said = numbersIn(tokens(claim[1]!))[0]?.value
  const all = thingsOn(m.before)
  if (said === undefined || all.length === 0) return []
  const left = all.filter((t) => !t.crossed).length
  const parts = m.before.mats.flatMap((x) => x.regions.map((r) => r.things.length))
  const faces = [all.filter((t) => t.face === 'blue').length, all.filter((t) => t.face === 'saffron').length]
  if ([all.length, left, ...parts, ...faces, m.before.start].includes(said)) return []
  return [
    at(
      m,
      'claim-table',
      'wrong',
      `${said} is said, but ${left} are on the table.`,
      'What is said should be what is seen.',
    ),
  ]
}

/** Steps the table refuses, and lines it cannot read. */
export const refused: LineRule = (m) => {
  if (m.error)
    return [
      at(
        m,
        m.error.code === 'covered' ? 'count-covered' : `table-${m.error.code}`,
        'wrong',
        m.error.message,
        'The table cannot do this, and neither can a child.',
      ),
    ]
  if (m.unread && m.step.text.trim())
    return [
      at(
        m,
        'unread-line',
        'tidy',
        'The table does not know this action, so it is only timed.',
        'Begin with put, take, move, turn over, split, cover, uncover, cross out, hop or clear, and a number.',
      ),
    ]
  return []
}
