import type { Aim, Example } from '../contracts/lesson.ts'
import { crossesTen, tagsOf, ways } from './numbers/facts.ts'
import { seeded } from './seeded.ts'

export interface ExampleSet {
  examples: Example[]
  /** 0–100: how much the set varies and how evenly it rises. */
  score: number
}
export type SearchResult = { ok: true; sets: ExampleSet[] } | { ok: false; conflict: string }

/** All facts an aim allows, before anything is asked of the set as a whole. */
export function candidates(aim: Aim, zero: boolean): Example[] {
  const least = zero ? 0 : 1
  const out: Example[] = []
  switch (aim.structure) {
    case 'parts':
      return ways(aim.upTo, 2, { ordered: true, zero }).map(([a, b]) => ({ a: a!, b: b!, total: aim.upTo, op: '+' }))
    case 'add':
    case 'count-on':
      for (let a = least; a <= aim.upTo; a++)
        for (let b = least; a + b <= aim.upTo; b++) {
          // Counting on is for a small second number: beyond three it is slower than other ways.
          if (aim.structure === 'count-on' && (b < 1 || b > 3 || a < 2)) continue
          if (a + b >= 2) out.push({ a, b, total: a + b, op: '+' })
        }
      return out
    case 'take-away':
      for (let a = 2; a <= aim.upTo; a++)
        for (let b = least; b <= a; b++) if (zero || a !== b) out.push({ a, b, total: a - b, op: '-' })
      return out
  }
}

const has: Record<Aim['mustHave'][number], (set: readonly Example[]) => boolean> = {
  double: (set) => set.some((e) => e.a === e.b && e.op === '+' && e.a > 0) || set.some((e) => e.op === '-' && e.a === 2 * e.b && e.b > 0),
  'turn-round': (set) => set.some((e) => e.a !== e.b && set.some((f) => f.op === '+' && e.op === '+' && f.a === e.b && f.b === e.a)),
  zero: (set) => set.some((e) => e.a === 0 || e.b === 0 || e.total === 0),
  'crosses ten': (set) => set.some(crossesTen),
}

/** Rough effort of a fact: larger counts, then the smaller part, then crossing ten. Used only for order. */
const effort = (e: Example): number => Math.max(e.a, e.total) + Math.min(e.a, e.b) / 2 + (crossesTen(e) ? 5 : 0)

/**
 * Score of a set, 0–100: 40 for different kinds of fact (tags), 30 for spread of first numbers, 20 for not
 * repeating a difference between the parts, 10 for rising effort. A turn-round pair asked for stands together.
 */
export function scoreOf(set: readonly Example[]): number {
  const kinds = new Set(set.flatMap((e) => tagsOf(e).filter((t) => !/\d/.test(t))))
  const firsts = new Set(set.map((e) => e.a)).size / set.length
  const gaps = new Set(set.map((e) => e.a - e.b)).size / set.length
  let rises = 0
  for (let i = 1; i < set.length; i++) if (effort(set[i]!) >= effort(set[i - 1]!)) rises++
  return Math.round(40 * Math.min(1, kinds.size / 3) + 30 * firsts + 20 * gaps + 10 * (rises / Math.max(1, set.length - 1)))
}

/**
 * Searches for ordered example sets that meet every constraint, best scores first, at most three that differ.
 * Deterministic for a seed. When none exists, says which wishes cannot stand together.
 */
export function findExamples(aim: Aim, options: { zero: boolean; seed: number; keep?: readonly Example[] }): SearchResult {
  const pool = candidates(aim, options.zero)
  const conflict = conflictIn(aim, pool, options.zero)
  if (conflict) return { ok: false, conflict }
  const random = seeded(options.seed)
  const keep = options.keep ?? []
  const found = new Map<string, ExampleSet>()
  // A bounded random restart: pools here hold at most 66 facts, so 400 restarts meet the optimum in practice.
  for (let round = 0; round < 400; round++) {
    const set = build(aim, pool, keep, random)
    if (!set) continue
    const ordered = arrange(set)
    const key = ordered.map((e) => `${e.a}${e.op}${e.b}`).sort().join()
    if (!found.has(key)) found.set(key, { examples: ordered, score: scoreOf(ordered) })
  }
  const sets = apart([...found.values()].sort((x, y) => y.score - x.score))
  if (sets.length === 0) return { ok: false, conflict: `No set of ${aim.count} holds ${aim.mustHave.join(' and ')} together: ask for more examples or fewer wishes.` }
  return { ok: true, sets }
}

/** The best set, then the next best that share at most half their facts with those before: three real choices. */
function apart(ranked: readonly ExampleSet[]): ExampleSet[] {
  const out: ExampleSet[] = []
  const shared = (x: ExampleSet, y: ExampleSet) => x.examples.filter((e) => y.examples.some((f) => f.a === e.a && f.b === e.b)).length
  for (const most of [0.5, 0.75, 0.99])
    for (const s of ranked) {
      if (out.length === 3) return out
      if (out.every((o) => o !== s && shared(o, s) <= most * s.examples.length)) out.push(s)
    }
  return out
}

function conflictIn(aim: Aim, pool: readonly Example[], zero: boolean): string | null {
  if (aim.mustHave.includes('zero') && !zero) return 'Zero is asked for, but the house style leaves zero for later.'
  if (aim.structure === 'count-on' && aim.mustHave.includes('zero')) return 'Counting on nothing is no counting on: leave zero out.'
  if (aim.mustHave.includes('turn-round') && aim.structure === 'take-away') return 'Take away has no turn-rounds: 7 − 2 and 2 − 7 are different questions.'
  if (aim.mustHave.includes('double') && aim.structure === 'parts' && aim.upTo % 2) return `${aim.upTo} is odd, so no two equal parts make it: a double cannot be in the set.`
  if (aim.mustHave.includes('crosses ten') && aim.upTo <= 10) return `Nothing crosses ten while numbers stop at ${aim.upTo}.`
  if (aim.mustHave.includes('turn-round') && aim.noRepeatedTotal) return 'A turn-round has the same total as its partner, so “no total twice” cannot hold with it.'
  if (aim.structure === 'parts' && aim.noRepeatedTotal) return `Every split of ${aim.upTo} has the same total, so “no total twice” cannot hold.`
  for (const wish of aim.mustHave) if (!has[wish](pool)) return `No ${wish} exists among the facts of this idea up to ${aim.upTo}.`
  if (pool.length < aim.count) return `Only ${pool.length} facts exist here; ${aim.count} examples were asked for.`
  if (aim.noRepeatedTotal && new Set(pool.map((e) => e.total)).size < aim.count) return `Only ${new Set(pool.map((e) => e.total)).size} different totals exist; ${aim.count} were asked for.`
  return null
}

function build(aim: Aim, pool: readonly Example[], keep: readonly Example[], random: (n: number) => number): Example[] | null {
  const set: Example[] = [...keep]
  const allowed = (e: Example) =>
    !set.some((f) => f.a === e.a && f.b === e.b) && (!aim.noRepeatedTotal || !set.some((f) => f.total === e.total))
  const pick = (from: readonly Example[]) => {
    const open = from.filter(allowed)
    return open.length ? open[random(open.length)] : undefined
  }
  const asksZero = aim.mustHave.includes('zero')
  for (const wish of aim.mustHave) {
    if (has[wish](set)) continue
    if (wish === 'turn-round') {
      const first = set.find((e) => e.a !== e.b) ?? pick(pool.filter((e) => e.a !== e.b && (asksZero || (e.a && e.b)) && pool.some((f) => f.a === e.b && f.b === e.a)))
      if (!first) return null
      if (!set.includes(first)) set.push(first)
      const second = pool.find((f) => f.a === first.b && f.b === first.a)
      if (second && allowed(second)) set.push(second)
      continue
    }
    const one = pick(pool.filter((e) => has[wish]([e])))
    if (one) set.push(one)
  }
  while (set.length < aim.count) {
    // Avoid filling a set with zeros nobody asked for.
    const next = pick(pool.filter((e) => aim.mustHave.includes('zero') || (e.a && e.b && e.total) || pool.length <= aim.count))
      ?? pick(pool)
    if (!next) return null
    set.push(next)
  }
  return set.length <= aim.count && aim.mustHave.every((w) => has[w](set)) ? set : null
}

function arrange(set: readonly Example[]): Example[] {
  const sorted = [...set].sort((x, y) => effort(x) - effort(y) || y.a - x.a)
  // Turn-rounds stand next to their partner so that the lesson can turn the table round.
  const out: Example[] = []
  for (const e of sorted) {
    if (out.includes(e)) continue
    out.push(e)
    const partner = sorted.find((f) => f !== e && f.op === '+' && e.op === '+' && f.a === e.b && f.b === e.a)
    if (partner && !out.includes(partner)) out.push(partner)
  }
  return out
}
