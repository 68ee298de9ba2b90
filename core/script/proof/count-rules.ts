import { Face } from '../../contracts/table.ts'
import { numbersIn, run, tokens } from '../../plan/numbers/names.ts'
import type { Moment } from '../simulate.ts'
import { holdsThings, type TableError, thingsIn, thingsOn, visibleThings, worthOn } from '../table/state.ts'
import type { ScriptCode } from '../../findings/codes.ts'
import { aspectOf, stateAsked } from '../language/truth/aspects.ts'
import { isNarrow, numbersFor } from '../language/truth/shown.ts'
import { at, type LineRule } from './finding.ts'

const counting = (m: Moment): boolean => m.count !== null && !m.step.deliberate

/** Skips, repeats and turns inside a count whose numbers are written out one by one. */
export const countOrder: LineRule = (m) => {
  if (!counting(m)) return []
  const { numbers, listed } = m.count!
  if (!listed || numbers.length < 3) return []
  const gaps = numbers.slice(1).map((n, i) => n - numbers[i]!)
  // Tens first and then the ones: "ten, twenty, thirty, thirty-one, thirty-two".
  const ones = gaps.findIndex((g) => g === 1)
  if (ones > 0 && gaps.every((g, i) => g === (i < ones ? 10 : 1))) return []
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

/** Things counted that were just put there: "touching the new ones". */
const justPut = /\b(new|just put|that came|came in|added)\b/i
/** How many the count's own words are about, where they name a group; null where they mean everything there. */
function groupCounted(m: Moment): number | null {
  const { text } = m.step
  if (justPut.test(text)) return m.before.last?.keys.length ?? null
  // "Touching each" is how it is counted, not what.
  const state = stateAsked(text.replace(/\beach\b|\bevery\b/gi, ' '))
  const aspect = aspectOf(
    text,
    m.before,
    state === 'left' || state === 'gone' || state === 'hidden' || state === 'seen' ? state : null,
  )
  if (!isNarrow(aspect)) return null
  const numbers = numbersFor(aspect, m.before)
  return numbers.length ? numbers[0]! : null
}
/** Ends a count of everything may have: what is seen, what is left of it, one mat of several, what it is all worth. */
function endsOf(m: Moment, by: number): number[] {
  const seen = visibleThings(m.before)
  const open = seen.filter((t) => !t.crossed).length
  const mats = m.before.mats
    .filter(holdsThings)
    .map((x) => (x.covered ? 0 : thingsIn(x).filter((t) => !t.hidden).length))
  const ends = [seen.length, open, ...mats.filter((n) => n > 0)]
  // In tens a finger or a rod is ten; in twos a pair is counted at a time.
  return [...new Set([...ends, ...ends.map((n) => n * by), worthOn(m.before)])]
}

/** A count that touches things must end on how many there are, and start at one. */
export const countAgainstTable: LineRule = (m) => {
  if (!counting(m)) return []
  const c = m.count!
  if (!c.touching || m.error) return []
  const first = c.numbers[0]!
  const last = c.numbers.at(-1)!
  const by = Math.abs((c.numbers[1] ?? first + 1) - first) || 1
  if (last < first) return []
  const group = groupCounted(m)
  const on = group ?? visibleThings(m.before).filter((t) => !t.crossed).length
  if (group === null && visibleThings(m.before).length === 0) return [at(m, 'count-nothing', {})]
  // Counting on: the held ones are covered or known, and the last number is everything.
  if (c.onFrom !== null || first > by) {
    const all = thingsOn(m.before).length
    return [on + first, all, on, worthOn(m.before)].includes(last)
      ? []
      : [at(m, 'count-end', { last, there: all })]
  }
  if (first !== by)
    return [at(m, 'count-start', { first, should: by }, repair(m, `${by} to ${on}, touching each`, group))]
  const ends = group === null ? endsOf(m, by) : [group, group * by]
  if (ends.includes(last)) return []
  const text = by === 1 && !c.listed ? `1 to ${on}, touching each` : null
  return [at(m, 'count-end', { last, there: on }, text ? repair(m, text, group) : undefined)]
}
/** The repair keeps what the line says of its group, and changes only the numbers. */
function repair(m: Moment, text: string, group: number | null) {
  if (group === null) return replace(m, text)
  const run = m.step.text.match(/^\s*\S+ to \S+/)
  return run ? replace(m, m.step.text.replace(run[0], `1 to ${group}`)) : undefined
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
  const faces = Face.options.map((f) => all.filter((t) => t.face === f).length)
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
