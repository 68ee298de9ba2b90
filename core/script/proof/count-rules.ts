import { numbersIn, run, tokens } from '../../plan/numbers/names.ts'
import type { Moment } from '../simulate.ts'
import { type TableError, thingsOn, visibleThings } from '../table/state.ts'
import type { ScriptCode } from '../../findings/codes.ts'
import { countedThings } from '../language/meant.ts'
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
    kind: 'replace' as const,
    stepId: m.step.id,
    text: should.join(', ') + (m.count!.touching ? ', touching each' : ''),
  }
  const out = []
  const repeated = numbers.find((n, i) => i > 0 && n === numbers[i - 1])
  const skipped = should.filter((n) => !numbers.includes(n))
  if (repeated !== undefined) out.push(at(m, 'count-repeat', { number: repeated }, fix))
  if (skipped.length) out.push(at(m, 'count-skip', { skipped }, fix))
  if (!repeated && !skipped.length && gaps.some((g) => g !== by)) out.push(at(m, 'count-order', {}, fix))
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
  const visible = new Set(visibleThings(m.before).map((t) => t.key))
  const on = countedThings(c.of, m.before).filter((t) => visible.has(t.key)).length
  const first = c.numbers[0]!
  const last = c.numbers.at(-1)!
  const by = Math.abs((c.numbers[1] ?? first + 1) - first) || 1
  if (last < first) return []
  if (on === 0) return [at(m, 'count-nothing', {})]
  // Counting on: the held ones are covered or known, and the last number is everything.
  if (c.onFrom !== null || first > by) {
    const all = thingsOn(m.before).length
    return [on + first, all, on].includes(last) ? [] : [at(m, 'count-end', { last, there: all })]
  }
  if (first !== by)
    return [at(m, 'count-start', { first, should: by }, replace(m, `${by} to ${on}, touching each`))]
  if (last !== on)
    return [
      at(
        m,
        'count-end',
        { last, there: on },
        by === 1 && !c.listed ? replace(m, `1 to ${on}, touching each`) : undefined,
      ),
    ]
  return []
}
const replace = (m: Moment, text: string) => ({
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
  return [at(m, 'claim-table', { said, there: left })]
}

/** The code under which the catalogue says why the table refuses an action. */
export const refusalCode = (error: TableError): ScriptCode =>
  error.code === 'covered' ? 'count-covered' : `table-${error.code}`
/** Steps the table refuses, and lines it cannot read. */
export const refused: LineRule = (m) => {
  if (m.error) return [at(m, refusalCode(m.error), m.error.params)]
  if (m.unread && m.step.text.trim()) {
    const words = m.reading?.unread ?? []
    const inPart = words.length > 0 && words.join(' ').length < m.step.text.trim().length - 3
    return [
      at(m, 'unread-line', inPart ? { case: 'part', words: words.map((w) => `“${w}”`) } : { case: 'none' }),
    ]
  }
  return []
}
