import { remembered } from '../../../remember.ts'
import type { Word } from '../words.ts'
import { groupsOf } from './groups-of.ts'
import { afterNoun, expressionAt, expressionBefore, sentencesSaid, termAt, textOf } from './terms.ts'

/** A statement about numbers that is not so, with what is. */
export interface Untrue {
  text: string
  right: string
}
type Judge = (words: readonly Word[], i: number) => Untrue | null | 'so'

const is = new Set(['is', 'are', 'makes', 'make', 'equals', 'was', 'were', 'gives', 'sits', 'must'])
/** Past "is", "must be", "comes to": where what is said of it begins. */
function afterIs(words: readonly Word[], i: number): number | null {
  if (!words[i] || !is.has(words[i].t)) return null
  if (words[i].t === 'must') return words[i + 1]?.t === 'be' ? i + 2 : null
  return i + 1
}
const untrue = (words: readonly Word[], from: number, to: number, right: number | string): Untrue => ({
  text: textOf(words, from, to),
  right: String(right),
})

/** "Four is three fewer than six", "Five pears are more than seven pears", "Seven and four is one more than ten". */
const compared: Judge = (words, i) => {
  const than = i
  if (
    words[than]?.t !== 'than' ||
    !['more', 'fewer', 'less', 'bigger', 'smaller', 'larger', 'greater'].includes(words[than - 1]?.t ?? '')
  )
    return null
  const right = expressionAt(words, than + 1)
  if (!right) return null
  const up = ['more', 'bigger', 'larger', 'greater'].includes(words[than - 1]!.t)
  const by = words[than - 2]?.n ?? null
  const verb = by === null ? than - 2 : than - 3
  if (afterIs(words, verb) === null && words[verb]?.t !== 'be') return null
  const left = expressionBefore(words, words[verb]!.t === 'be' ? verb - 1 : verb)
  if (!left) return null
  // "Two pairs is one less than five": groups are worth more than their number.
  if (/\b(pairs?|twos|threes|fours|fives|tens|lots|groups|rows)\b/.test(textOf(words, left.from, right.to)))
    return null
  const so =
    by === null
      ? up
        ? left.value > right.value
        : left.value < right.value
      : left.value === right.value + (up ? by : -by)
  if (so) return 'so'
  const should =
    by === null ? `${left.value} is ${up ? 'not more' : 'not fewer'}` : right.value + (up ? by : -by)
  return untrue(words, left.from, right.to, should)
}
/** "One more than six is eight", "Double five is eleven", "Half of twelve is five". */
const worked: Judge = (words, i) => {
  const left = expressionAt(words, i)
  // What stands behind "is" is said, not worked.
  if (!left?.made || is.has(words[i - 1]?.t ?? '')) return null
  for (let k = 0; k < i; k++) if ((expressionAt(words, k)?.to ?? 0) > i) return null
  const from = afterIs(words, left.to)
  const wide = from === null ? null : expressionAt(words, from)
  // "Double three is six and double four is eight": what follows the "and" speaks for itself.
  const said = wide && is.has(words[wide.to]?.t ?? '') ? termAt(words, from!) : wide
  if (!said || said.value === left.value) return said ? 'so' : null
  // "… and four is three fewer than seven" has its own judge; "is it eight?" asks.
  if (
    ['more', 'fewer', 'less', 'each'].includes(words[said.to]?.t ?? '') ||
    ['more', 'fewer', 'less'].includes(words[from! + 1]?.t ?? '')
  )
    return null
  const plainSum = !words
    .slice(left.from, left.to)
    .some((w) => ['double', 'twice', 'half', 'more', 'fewer', 'less'].includes(w.t))
  // Sums are the sentence reader's.
  return plainSum ? null : untrue(words, left.from, said.to, left.value)
}
/** "Seventeen has seven tens and one one", "58 = 8 tens and 5 ones", "Eighteen is one ten and eight ones". */
const places: Judge = (words, i) => {
  const tens = placesAt(words, i)
  if (!tens) return null
  const before = words[i - 1]?.t === 'just' ? i - 2 : i - 1
  if (!['is', 'has', '=', 'are', 'means', 'makes', 'shows'].includes(words[before]?.t ?? '')) {
    const after = afterIs(words, tens.to)
    const said = after === null ? null : termAt(words, after)
    return said ? (said.value === tens.value ? 'so' : untrue(words, i, said.to, tens.value)) : null
  }
  const whole = expressionBefore(words, before)
  if (!whole || whole.made) return null
  return whole.value === tens.value
    ? 'so'
    : untrue(words, whole.from, tens.to, `${Math.floor(whole.value / 10)} tens and ${whole.value % 10} ones`)
}
/** "Two tens and four ones" at i, and what it is worth. */
function placesAt(words: readonly Word[], i: number): { value: number; to: number } | null {
  const tens = words[i]
  const unit = words[i + 1]?.t
  if (tens?.n == null || (unit !== 'tens' && unit !== 'ten')) return null
  let at = i + 2
  if (words[at]?.t === 'and' || words[at]?.t === 'with' || words[at]?.t === ',') at++
  const ones = words[at]
  const none = ones?.t === 'no' && words[at + 1]?.t === 'ones'
  if (none) return { value: tens.n * 10, to: at + 2 }
  if (ones?.n == null || !['ones', 'one', 'units'].includes(words[at + 1]?.t ?? '')) return null
  return { value: tens.n * 10 + ones.n, to: at + 2 }
}
/** "Seventeen: that is ten and seven". */
const thatIs: Judge = (words, i) => {
  if (words[i]?.t !== 'that' || words[i + 1]?.t !== 'is' || !['–', ':', ','].includes(words[i - 1]?.t ?? ''))
    return null
  const before = termAt(words, i - 2)
  const said = expressionAt(words, i + 2)
  if (!before || !said?.made || before.to !== i - 1 || words[said.to] !== undefined) return null
  return said.value === before.value ? 'so' : untrue(words, before.from, said.to, before.value)
}
/** "Fifteen is an even number, "Seven is odd". */
const parity: Judge = (words, i) => {
  if (words[i]?.t !== 'even' && words[i]?.t !== 'odd') return null
  let at = i - 1
  if (words[at]?.t === 'an') at--
  const not = words[at]?.t === 'not'
  if (not) at--
  if (!is.has(words[at]?.t ?? '')) return null
  const of = expressionBefore(words, at)
  if (!of || of.made) return null
  const even = of.value % 2 === 0
  const says = (words[i].t === 'even') !== not
  return says === even ? 'so' : untrue(words, of.from, i + 1, even ? 'even' : 'odd')
}
/** "After twenty-nine comes thirty", "Go one house back from 12 and you knock at 13", "after forty we meet forty-one". */
const neighbour: Judge = (words, i) => {
  const w = words[i]!.t
  if (w !== 'after' && w !== 'before') return null
  const n = words[i + 1]?.t === 'number' ? words[i + 2] : words[i + 1]
  if (n?.n == null) return null
  const from = i + (words[i + 1]!.t === 'number' ? 3 : 2)
  const said = words.slice(from, from + 7).findIndex((x) => x.n !== null)
  if (said < 0) return null
  const between = words.slice(from, from + said).map((x) => x.t)
  if (!between.some((t) => ['is', 'comes', 'meet', 'next', 'say'].includes(t)) || between.includes('and'))
    return null
  const back = words.some((x) => ['back', 'backwards', 'down'].includes(x.t))
  const right = n.n + (w === 'after' ? 1 : -1) * (back ? -1 : 1)
  const value = words[from + said]!.n!
  // Counting in twos, fives or tens has neighbours of its own.
  if ([2, 5, 10].includes(Math.abs(value - n.n))) return null
  // A tens word with another ten is no number: "twenty-ten".
  const wrong =
    value !== right ||
    (value % 10 === 0 && value >= 20 && words[from + said + 1]?.n != null && words[from + said + 1]!.n! >= 10)
  return wrong ? untrue(words, i, from + said + 1, right) : 'so'
}
const stepped: Judge = (words, i) => {
  if (words[i]?.t !== 'from' || words[i + 1]?.n == null) return null
  const from = words[i + 1]!.n!
  const before = words.slice(0, i)
  const back = before.some((w) => w.t === 'back')
  const on = before.some((w) => ['on', 'forward', 'further'].includes(w.t))
  const by = before.findLast((w) => w.n !== null)?.n
  if (by == null || back === on) return null
  const later = words.slice(i + 2)
  const at = later.findIndex(
    (w, k) => w.n !== null && ['at', 'on', 'to', 'is', 'are', 'reach'].includes(later[k - 1]?.t ?? ''),
  )
  if (at < 0 || later.slice(0, at).some((w) => w.n !== null)) return null
  const right = back ? from - by : from + by
  return later[at]!.n === right ? 'so' : untrue(words, 0, i + 3 + at, right)
}
/** "… sits between nineteen and twenty-one", "one above eleven and one below thirteen". */
const between: Judge = (words, i) => {
  if (
    words[i]?.t !== 'between' ||
    words[i + 1]?.n == null ||
    words[i + 2]?.t !== 'and' ||
    words[i + 3]?.n == null
  )
    return null
  const [a, b] = [words[i + 1]!.n!, words[i + 3]!.n!]
  if (b - a !== 2) return null
  const said = words
    .slice(i + 4)
    .find(
      (w, k, rest) =>
        w.n !== null &&
        !['room', 'is', 'for'].includes(rest[k + 1]?.t ?? '') &&
        !/number/.test(rest[k + 1]?.t ?? ''),
    )
  if (!said || !words.slice(i + 4).some((w) => ['is', 'comes', 'sits', 'stands', ':'].includes(w.t)))
    return null
  return said.n === a + 1 ? 'so' : untrue(words, i, words.length, a + 1)
}
/** "Eight plums for three friends makes two each with nothing over", "Nine shared between two: four each, and two to spare". */
const shared: Judge = (words, i) => {
  if (!['for', 'among', 'between', 'into', 'to'].includes(words[i]?.t ?? '')) return null
  const k = words[i + 1]?.n
  const whole = wholeBefore(words, i)
  if (k == null || k < 2 || !whole || words[i + 2]?.t === 'and') return null
  const rest = words.slice(afterNoun(words, i + 2))
  const each = rest.findIndex((w, j) => w.n !== null && ['each', 'apiece'].includes(rest[j + 1]?.t ?? ''))
  const over = leftOver(rest)
  const [q, r] = [Math.floor(whole.value / k), whole.value % k]
  const fair =
    rest.length === words.length
      ? null
      : words.some((w) => w.t === 'fairly' || w.t === 'equally' || w.t === 'evenly')
  if (each < 0 && over === null) return null
  const saidEach = each < 0 ? null : rest[each]!.n!
  if (saidEach !== null && over !== null)
    return saidEach * k + over === whole.value && over < k
      ? 'so'
      : untrue(words, whole.from, words.length, r ? `${q} each with ${r} over` : `${q} each`)
  if (saidEach !== null)
    return saidEach === q || saidEach * k === whole.value
      ? 'so'
      : untrue(words, whole.from, words.length, `${q} each`)
  return over === r ? 'so' : fair === null ? null : untrue(words, whole.from, words.length, `${r} over`)
}
function wholeBefore(words: readonly Word[], i: number): { value: number; from: number } | null {
  for (let k = i - 1; k >= 0; k--)
    if (words[k]!.n !== null)
      return words.slice(k + 1, i).some((w) => [',', ':', 'and', 'but'].includes(w.t))
        ? null
        : { value: words[k]!.n!, from: k }
  return null
}
/** "Nothing over", "none left", "with two to spare", "one over". */
function leftOver(words: readonly Word[]): number | null {
  for (const [k, w] of words.entries()) {
    const next = words.slice(k + 1, k + 4).map((x) => x.t)
    const over =
      next[0] === 'over' ||
      (next[0] === 'to' && next[1] === 'spare') ||
      next[0] === 'left' ||
      next[0] === 'remaining' ||
      next[1] === 'over'
    if (!over) continue
    if (w.t === 'nothing' || w.t === 'none' || w.t === 'no') return 0
    if (w.n !== null) return w.n
  }
  return null
}
/** "Cut five in half and you get two on each side with nothing over", "Nine socks make neat pairs, none is odd". */
const halved: Judge = (words, i) => {
  const half = words[i]?.t === 'in' && ['half', 'halves', 'two'].includes(words[i + 1]?.t ?? '')
  if (half) {
    const whole = wholeBefore(words, i)
    const rest = words.slice(i + 2)
    const side = rest.find((w) => w.n !== null)?.n
    const over = leftOver(rest)
    if (!whole || side == null) return null
    if (
      side * 2 + (over ?? whole.value - side * 2) !== whole.value ||
      (over === null && side !== Math.floor(whole.value / 2))
    )
      return untrue(
        words,
        whole.from,
        words.length,
        whole.value % 2 ? `${Math.floor(whole.value / 2)} and 1 over` : whole.value / 2,
      )
    return 'so'
  }
  if (words[i]?.t !== 'pairs') return null
  const count = words[i - 1]?.n ?? null
  const said = words.slice(0, count === null ? i : i - 1).flatMap((w) => (w.n === null ? [] : [w.n]))
  const whole = said[0]
  if (said.length !== 1 || whole === undefined) return null
  const none =
    words.some(
      (w, k) => w.t === 'none' && ['is', 'left', 'over', 'alone', 'odd'].includes(words[k + 1]?.t ?? ''),
    ) || words.some((w) => w.t === 'everyone')
  const one = words
    .slice(i + 1)
    .some((w, k, rest) => w.n === 1 && ['is', 'sock', 'left', 'over', 'alone'].includes(rest[k + 1]?.t ?? ''))
  if (count !== null && count !== Math.floor(whole / 2))
    return untrue(words, 0, words.length, `${Math.floor(whole / 2)} pairs`)
  if (none && whole % 2) return untrue(words, 0, words.length, `${Math.floor(whole / 2)} pairs and one alone`)
  return one && whole % 2 === 0 ? untrue(words, 0, words.length, `${whole / 2} pairs`) : 'so'
}
/** "Twenty-ten": a tens word with a ten or a teen behind it is the name of no number. */
const noName: Judge = (words, i) => {
  const [tens, more] = [words[i], words[i + 1]]
  if (!/^(twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)$/.test(tens?.t ?? '') || more?.n == null)
    return null
  const touching = more.from === tens!.to + 1
  return touching && more.n >= 10 && more.n < 20 && !/^\d/.test(more.t)
    ? untrue(words, i, i + 2, tens!.n! + 10)
    : null
}

const judges: readonly Judge[] = [
  compared,
  worked,
  places,
  thatIs,
  parity,
  neighbour,
  stepped,
  between,
  shared,
  halved,
  groupsOf,
  noName,
]
/** Statements of a line about numbers alone that are not so. */
export const untrueIn: (text: string) => readonly Untrue[] = remembered((text) =>
  sentencesSaid(text).flatMap(({ words, end }, k, all) => {
    const supposes = words.some((w) => ['if', 'unless', 'cannot', 'not', 'suppose'].includes(w.t))
    if (end === '?' || supposes) return []
    const next = all[k + 1]
    // "There are three jars with five in each. That is fourteen altogether."
    const told = next && next.end !== '?' && ['that', 'they'].includes(next.words[0]!.t) ? next.words : []
    return words.flatMap((_, i) =>
      [
        ...judges.map((judge) => judge(words, i)),
        told.length ? groupsOf([...words, ...told], i) : null,
      ].filter((found) => found !== null && found !== 'so'),
    )
  }),
)
