import type { Example } from '../../contracts/lesson.ts'

export interface WaysRule {
  ordered: boolean
  zero: boolean
}
/**
 * All splits of n into k parts. `ordered`: turn-rounds are listed apart; `zero`: a part may be nothing.
 * Unordered lists give each split largest part first. n 0–100, k 1–6.
 */
export function ways(n: number, k: number, rule: WaysRule): number[][] {
  const least = rule.zero ? 0 : 1
  const out: number[][] = []
  const grow = (parts: number[], left: number) => {
    if (parts.length === k - 1) {
      const last = left
      const fits = rule.ordered || parts.length === 0 || last <= parts.at(-1)!
      if (last >= least && fits) out.push([...parts, last])
      return
    }
    const most = rule.ordered || parts.length === 0 ? left : Math.min(left, parts.at(-1)!)
    for (let p = most; p >= least; p--) grow([...parts, p], left - p)
  }
  grow([], n)
  return out
}

/**
 * How many splits `ways` lists, without listing them. Ordered: stars and bars, C(n+k−1, k−1) with zero and
 * C(n−1, k−1) without. Unordered: partitions of n into at most (with zero) or exactly (without) k parts,
 * by p(n, k) = p(n−1, k−1) + p(n−k, k).
 */
export function countWays(n: number, k: number, rule: WaysRule): number {
  if (rule.ordered) return rule.zero ? choose(n + k - 1, k - 1) : n < k ? 0 : choose(n - 1, k - 1)
  return rule.zero ? exactly(n + k, k) : exactly(n, k)
}
function choose(n: number, k: number): number {
  let out = 1
  for (let i = 1; i <= k; i++) out = (out * (n - k + i)) / i
  return Math.round(out)
}
function exactly(n: number, k: number): number {
  if (k === 0) return n === 0 ? 1 : 0
  if (n < k) return 0
  const table = Array.from({ length: k + 1 }, () => new Array<number>(n + 1).fill(0))
  table[0]![0] = 1
  for (let j = 1; j <= k; j++)
    for (let m = j; m <= n; m++) table[j]![m] = table[j - 1]![m - 1]! + table[j]![m - j]!
  return table[k]![n]!
}

/** A convention in words, as a script or sheet should say it. */
export const waysInWords = (rule: WaysRule): string =>
  `${rule.ordered ? 'the order counts' : 'turned round is the same way'}, ${rule.zero ? 'a part may be zero' : 'no part is zero'}`

/** Every sentence of a fact's family: 4 + 3 = 7, 3 + 4 = 7, 7 − 3 = 4, 7 − 4 = 3. Only adding and taking away have one. */
export function familyOf(e: Example): string[] {
  if (e.op !== '+' && e.op !== '-') return []
  const [a, b, whole] = e.op === '+' ? [e.a, e.b, e.total] : [e.total, e.b, e.a]
  return [
    ...new Set([
      `${a} + ${b} = ${whole}`,
      `${b} + ${a} = ${whole}`,
      `${whole} − ${b} = ${a}`,
      `${whole} − ${a} = ${b}`,
    ]),
  ]
}

/** The fact two numbers make; for `@` the second is the first one's nearest ten. Take-aways may come out below zero. */
export function factFrom(op: Example['op'], a: number, b: number): Example {
  switch (op) {
    case '+':
      return { a, b, total: a + b, op }
    case '-':
      return { a, b, total: a - b, op }
    case '÷':
      return { a, b, total: Math.floor(a / Math.max(1, b)), op }
    case '~':
      return { a, b, total: Math.abs(a - b), op }
    case '#':
      return { a, b: 0, total: a, op }
    case '@':
      return { a, b: Math.round(a / 10) * 10, total: a, op }
  }
}

/** What is left over when things are shared. */
export const leftOver = (e: Example): number => (e.op === '÷' && e.b > 0 ? e.a - e.b * e.total : 0)

/** A fact written with signs, or, for shares, comparisons and places on a line, in the fewest words. */
export function exampleSentence(e: Example): string {
  switch (e.op) {
    case '+':
      return `${e.a} + ${e.b} = ${e.total}`
    case '-':
      return `${e.a} − ${e.b} = ${e.total}`
    case '÷':
      return `${e.a} shared by ${e.b}: ${e.total} each${leftOver(e) ? `, ${leftOver(e)} left over` : ''}`
    case '~':
      return e.a === e.b
        ? `${e.a} and ${e.b}: the same`
        : `${Math.max(e.a, e.b)} is ${e.total} more than ${Math.min(e.a, e.b)}`
    case '@':
      return `${e.a} on the line`
    case '#':
      return String(e.a)
  }
}
/** The same fact, whatever else is known of it. */
export const factKey = (e: Example): string => `${e.a}${e.op}${e.b}`
/** The most things a fact puts out at once. */
export const thingsFor = (e: Example): number =>
  e.op === '+' ? e.total : e.op === '~' ? e.a + e.b : e.op === '@' ? 1 : e.a
/** The largest number a fact says. */
export const largestIn = (e: Example): number =>
  e.op === '+' ? e.total : Math.max(e.a, e.op === '÷' || e.op === '@' ? 0 : e.b)

export type Tag =
  | 'double'
  | 'near double'
  | 'makes ten'
  | 'crosses ten'
  | 'teen'
  | 'includes zero'
  | 'half'
  | 'left over'
  | 'the same'
  | 'nearly a ten'
  | 'tens only'
  | `turn-round of ${number}`
  | `one more than ${number}`
  | `same total as ${number}`
  | `same first number as ${number}`

/** What a fact is, by itself and against the facts before it (numbered from one). */
export function tagsOf(e: Example, before: readonly Example[] = []): Tag[] {
  const tags: Tag[] = []
  const plus = e.op === '+'
  if (plus && e.a === e.b && e.a > 0) tags.push('double')
  if (plus && Math.abs(e.a - e.b) === 1) tags.push('near double')
  if (plus && e.total === 10) tags.push('makes ten')
  if (crossesTen(e)) tags.push('crosses ten')
  if ((plus || e.op === '#') && e.total > 10 && e.total < 20) tags.push('teen')
  if ((e.op === '-' && e.a === 2 * e.b && e.b > 0) || (e.op === '÷' && e.b === 2 && !leftOver(e)))
    tags.push('half')
  if (leftOver(e)) tags.push('left over')
  if (e.op === '~' && e.a === e.b) tags.push('the same')
  if ((e.op === '-' || e.op === '+') && e.b > 10 && e.b % 10 >= 8) tags.push('nearly a ten')
  if ((plus || e.op === '-') && e.a % 10 === 0 && e.b % 10 === 0 && e.a + e.b > 0) tags.push('tens only')
  if (e.op === '#' && e.a === 0) tags.push('includes zero')
  if (!['@', '÷', '#'].includes(e.op) && (e.a === 0 || e.b === 0 || (e.op === '-' && e.total === 0)))
    tags.push('includes zero')
  before.forEach((f, i) => {
    if (e.op !== f.op) return
    if (plus && e.a === f.b && e.b === f.a && e.a !== e.b) tags.push(`turn-round of ${i + 1}`)
    else if (plus && e.b === f.b && e.a === f.a + 1) tags.push(`one more than ${i + 1}`)
    else if (
      e.op !== '@' &&
      e.op !== '#' &&
      e.total === f.total &&
      i === before.findIndex((g) => g.total === e.total)
    )
      tags.push(`same total as ${i + 1}`)
    else if (e.op !== '@' && e.op !== '#' && e.a === f.a && i === before.findIndex((g) => g.a === e.a))
      tags.push(`same first number as ${i + 1}`)
  })
  return tags
}
/** Whether working the fact out passes through ten: 8 + 5, 13 − 6; not 10 + 3. Beyond twenty, through any ten. */
export function crossesTen(e: Example): boolean {
  if (e.op === '+') return (e.a % 10) + (e.b % 10) > 10 && e.b % 10 > 0 && e.total > 10
  if (e.op === '-') return e.a > 10 && e.a % 10 < e.b % 10 && e.a % 10 > 0
  return false
}
