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

export const exampleSentence = (e: Example): string => `${e.a} ${e.op === '+' ? '+' : '−'} ${e.b} = ${e.total}`

export type Tag =
  | 'double' | 'near double' | 'makes ten' | 'crosses ten' | 'teen' | 'includes zero'
  | `turn-round of ${number}` | `one more than ${number}` | `same total as ${number}`

/** What a fact is, by itself and against the facts before it (numbered from one). */
export function tagsOf(e: Example, before: readonly Example[] = []): Tag[] {
  const tags: Tag[] = []
  if (e.op === '+' && e.a === e.b && e.a > 0) tags.push('double')
  if (e.op === '+' && Math.abs(e.a - e.b) === 1) tags.push('near double')
  if (e.op === '+' && e.total === 10) tags.push('makes ten')
  if (crossesTen(e)) tags.push('crosses ten')
  if (e.total > 10 && e.total < 20) tags.push('teen')
  if (e.a === 0 || e.b === 0 || e.total === 0) tags.push('includes zero')
  before.forEach((f, i) => {
    if (e.op !== f.op) return
    if (e.op === '+' && e.a === f.b && e.b === f.a && e.a !== e.b) tags.push(`turn-round of ${i + 1}`)
    else if (e.op === '+' && e.b === f.b && e.a === f.a + 1) tags.push(`one more than ${i + 1}`)
    else if (e.total === f.total && i === before.findIndex((g) => g.total === e.total)) tags.push(`same total as ${i + 1}`)
  })
  return tags
}

/** Whether working the fact out passes through ten: 8 + 5, 13 − 6; not 10 + 3. */
export function crossesTen(e: Example): boolean {
  return e.op === '+' ? e.a < 10 && e.b < 10 && e.total > 10 : e.a > 10 && e.total < 10
}
