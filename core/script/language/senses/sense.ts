import type { Action, Spot } from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import type { Group } from '../groups.ts'
import type { Ground } from '../spots.ts'
import type { Word } from '../words.ts'

/** What was said before on the same line: "it is the 8" tells what the card drawn was. */
export interface Said {
  ground: Ground
  before: readonly Action[]
}
/** One way of understanding a clause on a table: what hands do, and which of its parts that accounts for. */
export interface Sensed {
  actions: readonly Action[]
  uses: readonly Part[]
  /** The place it spoke of, for "the other one" later. */
  named?: Spot | null
  /** It says what the act before it came to, and stands in its stead. */
  instead?: boolean
}
/**
 * A sense of a verb. Null when the clause cannot mean this at all.
 * @throws TableError when it means this and the table does not allow it.
 */
export type Sense = (c: Clause, said: Said) => Sensed | null

export const sensed = (
  actions: readonly Action[],
  uses: readonly (Part | null | undefined)[],
  named?: Spot | null,
): Sensed => ({
  actions,
  uses: uses.filter((p): p is Part => !!p),
  ...(named === undefined ? {} : { named }),
})
export const bare = (c: Clause): Part[] => c.parts.filter((p) => p.prep === null)
export const after = (c: Clause, ...preps: readonly string[]): Part | undefined =>
  c.parts.find((p) => p.prep !== null && preps.includes(p.prep))
export const has = (c: Clause, ...words: readonly string[]): boolean => words.some((w) => c.particles.has(w))
export const says = (c: Clause, ...words: readonly string[]): boolean =>
  c.words.some((w) => words.includes(w.t))
/** A number and nothing else: "3", "the 9", "a one". */
export const isNumber = (g: Group): boolean =>
  g.n !== null && g.noun === null && g.mat === null && g.face === null && g.pronoun === null && !g.pairs

/** Numbers in the order they are said; "0 to 5" is the run between them, by the step the line names. */
export function numbersSaid(words: readonly Word[], step = 1): number[] {
  const out: number[] = []
  for (let i = 0; i < words.length; i++) {
    const n = words[i]!.n
    if (n === null) continue
    const to = words[i + 1]?.t === 'to' ? words[i + 2]?.n : undefined
    if (to !== undefined && to !== null && to !== n) {
      for (let k = n; n < to ? k <= to : k >= to; k += n < to ? step : -step) out.push(k)
      i += 2
    } else out.push(n)
  }
  return out
}
/** "in twos", "in fives", "by tens", "every five". */
export function stepSaid(words: readonly Word[]): number | null {
  const i = words.findIndex(
    (w, k) => (w.t === 'in' || w.t === 'by') && /^(ones|twos|fives|tens|\d+s)$/.test(words[k + 1]?.t ?? ''),
  )
  if (i < 0) {
    const every = words.findIndex((w) => w.t === 'every')
    return every >= 0 ? (words[every + 1]?.n ?? null) : null
  }
  return { ones: 1, twos: 2, fives: 5, tens: 10 }[words[i + 1]!.t] ?? Number.parseInt(words[i + 1]!.t, 10)
}
