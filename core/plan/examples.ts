import type { Aim, Example, Wish } from '../contracts/lesson.ts'
import { cannotCome, unreachable } from './chance/plan.ts'
import { candidates } from './candidates.ts'
import { crossesTen, factKey, leftOver, tagsOf } from './numbers/facts.ts'
import { seeded } from './seeded.ts'

export interface ExampleSet {
  /** How far it stretches: shown beside the set. */
  level: Level
  examples: Example[]
  /** 0–100: how much the set varies and how evenly it rises. */
  score: number
}
const levels = ['gentle', 'middle', 'stretch'] as const
type Level = (typeof levels)[number]
/** `shared`: facts that stand in more than one set although they differ as much as the facts allow; `facts`: how many there are. */
export type SearchResult =
  { ok: true; sets: ExampleSet[]; shared: number; facts: number } | { ok: false; conflict: string }

/** Whether a set holds what a wish asks for. */
export const holds: Record<Wish, (set: readonly Example[]) => boolean> = {
  double: (set) =>
    set.some((e) => e.a === e.b && e.op === '+' && e.a > 0) ||
    set.some((e) => e.op === '-' && e.a === 2 * e.b && e.b > 0),
  'turn-round': (set) =>
    set.some(
      (e) => e.a !== e.b && set.some((f) => f.op === '+' && e.op === '+' && f.a === e.b && f.b === e.a),
    ),
  zero: (set) => set.some((e) => e.a === 0 || (e.op !== '#' && e.b === 0) || e.total === 0),
  'crosses ten': (set) => set.some(crossesTen),
  leftover: (set) => set.some((e) => leftOver(e) > 0),
}
/** Rough effort of a fact: larger counts, then the smaller part, then crossing a ten or something left over. Used only for order. */
const effort = (e: Example): number =>
  Math.max(e.a, e.op === '÷' ? 0 : e.total) +
  Math.min(e.a, e.b) / 2 +
  (crossesTen(e) ? 5 : 0) +
  (leftOver(e) ? 3 : 0)

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
  return Math.round(
    40 * Math.min(1, kinds.size / 3) + 30 * firsts + 20 * gaps + 10 * (rises / Math.max(1, set.length - 1)),
  )
}

export interface SearchOptions {
  /** Whether the house counts zero as a part. */
  zero: boolean
  /** Whether it counts a turn-round as another way; true when not said. */
  turnRounds?: boolean
  seed: number
  /** Examples that must be in every set. */
  keep?: readonly Example[]
}
/**
 * Searches for three ordered sets that meet every constraint: gentle, middle and stretch, each with the best score
 * found for its share of the facts by effort. Deterministic for a seed. When none exists, says which wishes cannot
 * stand together.
 */
export function findExamples(aim: Aim, options: SearchOptions): SearchResult {
  const all = candidates(aim, options.zero, options.turnRounds)
  const pool = fromDevice(aim, all)
  const conflict = deviceConflict(aim, all, pool) ?? conflictIn(aim, pool, options)
  if (conflict) return { ok: false, conflict }
  const random = seeded(options.seed)
  const keep = options.keep ?? []
  const sets: ExampleSet[] = []
  // Avoid filling a set with zeros nobody asked for.
  const plain = pool.filter((e) => e.op === '#' || (e.a && e.b && (e.total || e.op === '~')))
  const ranked = [...(!aim.mustHave.includes('zero') && plain.length >= aim.count ? plain : pool)].sort(
    (x, y) => effort(x) - effort(y),
  )
  for (const level of levels) {
    // The gentle set comes from the easier two thirds of the facts, the stretch set from the harder two thirds.
    const cut = Math.ceil(ranked.length / 3)
    const share =
      level === 'gentle'
        ? ranked.slice(0, Math.max(aim.count, ranked.length - cut))
        : level === 'stretch'
          ? ranked.slice(Math.min(cut, Math.max(0, ranked.length - aim.count)))
          : ranked
    const used = new Set(sets.flatMap((s) => s.examples.map(factKey)))
    const fresh = (from: readonly Example[]): Example[] => from.filter((e) => !used.has(factKey(e)))
    // A set of new facts of its own level, of any, and only then one that shares some; zeros nobody asked for come last.
    const tries = [fresh(share), fresh(ranked), share, ranked, ...(sets.length ? [] : [pool])]
    let best: ReturnType<typeof bestOf> = null
    for (const from of tries) {
      const found: ReturnType<typeof bestOf> = bestOf({ aim, pool: from, keep, random, before: sets })
      if (found && (!best || found.shared < best.shared)) best = found
      if (best?.shared === 0) break
    }
    best ??= bestOf({ aim, pool, keep, random, before: sets })
    if (best) sets.push({ level, examples: best.examples, score: best.score })
  }
  if (sets.length === 0)
    return {
      ok: false,
      conflict: `No set of ${aim.count} holds ${aim.mustHave.join(' and ') || 'what is asked'} together: ask for more examples or fewer wishes.`,
    }
  const byEffort = [...sets].sort((x, y) => mean(x.examples) - mean(y.examples))
  return {
    ok: true,
    ...sharedIn(sets, keep),
    facts: ranked.length,
    sets: byEffort.map((s, i) => ({
      ...s,
      level: sets.length === 3 ? levels[i]! : sets.length === 2 ? levels[i === 0 ? 0 : 2] : 'middle',
    })),
  }
}
const mean = (set: readonly Example[]): number => set.reduce((s, e) => s + effort(e), 0) / set.length

/** Best of a bounded number of random builds that shares as little as can be with the sets found before. */
function bestOf({
  aim,
  pool,
  keep,
  random,
  before,
}: {
  aim: Aim
  pool: readonly Example[]
  keep: readonly Example[]
  random: (n: number) => number
  before: readonly ExampleSet[]
}): { examples: Example[]; score: number; shared: number } | null {
  const used = new Set(before.flatMap((s) => s.examples.map(factKey)))
  const seen = new Set(before.map((s) => keyOf(s.examples)))
  const kept = new Set(keep.map(factKey))
  let best: { examples: Example[]; score: number; shared: number } | null = null
  for (let round = 0; round < 200; round++) {
    const set = build(aim, pool, keep, random)
    if (!set) continue
    const examples = arrange(set)
    if (seen.has(keyOf(examples))) continue
    const score = scoreOf(examples)
    const shared = examples.filter((e) => used.has(factKey(e)) && !kept.has(factKey(e))).length
    if (!best || shared < best.shared || (shared === best.shared && score > best.score))
      best = { examples, score, shared }
  }
  return best
}
/** How many facts stand in more than one set, those kept in every set aside. */
function sharedIn(sets: readonly ExampleSet[], keep: readonly Example[]): { shared: number } {
  const kept = new Set(keep.map(factKey))
  const count = new Map<string, number>()
  for (const key of sets.flatMap((s) => s.examples.map(factKey)))
    if (!kept.has(key)) count.set(key, (count.get(key) ?? 0) + 1)
  return { shared: [...count.values()].filter((n) => n > 1).length }
}
/** What makes a set varied, in words: "3 kinds of fact, 4 first numbers, rising". */
export function varietyWords(set: readonly Example[]): string {
  const kinds = new Set(set.flatMap((e) => tagsOf(e).filter((t) => !/\d/.test(t)))).size
  const firsts = new Set(set.map((e) => e.a)).size
  const rises = set.every((e, i) => i === 0 || effort(e) >= effort(set[i - 1]!))
  return [
    ...(kinds > 0 ? [`${kinds} ${kinds === 1 ? 'kind' : 'kinds'} of fact`] : []),
    `${firsts} ${firsts === 1 ? 'first number' : 'first numbers'}`,
    ...(rises && set.length > 1 ? ['rising'] : []),
  ].join(' · ')
}
const keyOf = (set: readonly Example[]): string => set.map(factKey).sort().join()

/**
 * One more fact for a set: like the one given in kind and effort, but not in it, and none of those already offered in
 * its place; null when there is none.
 */
export function anotherLike(
  e: Example,
  set: readonly Example[],
  aim: Aim,
  options: SearchOptions & { offered?: ReadonlySet<string> },
): Example | null {
  const taken = new Set([...set.map(factKey), ...(options.offered ?? [])])
  const kindsOf = (x: Example) => new Set(tagsOf(x).filter((t) => !/\d/.test(t)))
  const kinds = kindsOf(e)
  const random = seeded(options.seed)
  const unlike = (f: Example): number => {
    const other = kindsOf(f)
    return [...kinds].filter((t) => !other.has(t)).length + [...other].filter((t) => !kinds.has(t)).length
  }
  const near = fromDevice(aim, candidates(aim, options.zero, options.turnRounds))
    .filter(
      (f) =>
        !taken.has(factKey(f)) &&
        f.op === e.op &&
        (!aim.noRepeatedTotal || !set.some((g) => g !== e && g.total === f.total)),
    )
    .map((f) => ({ f, far: Math.abs(effort(f) - effort(e)) + 4 * unlike(f) + random(100) / 100 }))
  return near.sort((x, y) => x.far - y.far)[0]?.f ?? null
}

/**
 * Another fact in the place of one, and what has been offered there by then: asking on and on goes through all there are
 * before any comes again (`again`).
 */
export function nextLike(
  e: Example,
  set: readonly Example[],
  aim: Aim,
  options: SearchOptions & { offered: readonly string[] },
): { next: Example | null; offered: readonly string[]; again: boolean } {
  const offered = [...options.offered, factKey(e)]
  const fresh = anotherLike(e, set, aim, { ...options, offered: new Set(offered) })
  if (fresh) return { next: fresh, offered, again: false }
  const first = anotherLike(e, set, aim, { ...options, offered: new Set([factKey(e)]) })
  return { next: first, offered: [factKey(e)], again: first !== null }
}

function conflictIn(aim: Aim, pool: readonly Example[], options: SearchOptions): string | null {
  const { structure, mustHave } = aim
  const keep = options.keep ?? []
  if (keep.length > aim.count)
    return `${keep.length} examples are kept, but the set holds ${aim.count}: let some go or ask for more.`
  if (mustHave.includes('zero') && !options.zero && structure !== 'numbers' && aim.only !== 'none or all')
    return 'Zero is asked for, but the house style leaves zero for later.'
  if (mustHave.includes('turn-round') && structure === 'parts' && options.turnRounds === false)
    return 'A turn-round pair is asked for, but the house style counts the two as one way.'
  if (structure === 'count-on' && mustHave.includes('zero'))
    return 'Counting on nothing is no counting on: leave zero out.'
  if (mustHave.includes('turn-round') && !['parts', 'add', 'missing', 'tens'].includes(structure))
    return structure === 'take-away' || structure === 'round-back'
      ? 'Take away has no turn-rounds: 7 − 2 and 2 − 7 are different questions.'
      : structure === 'doubles'
        ? 'A double turned round is the same double.'
        : 'Turn-rounds belong to adding: this idea has none.'
  if (mustHave.includes('double') && structure === 'parts' && aim.upTo % 2)
    return `${aim.upTo} is odd, so no two equal parts make it: a double cannot be in the set.`
  if (mustHave.includes('crosses ten') && aim.upTo <= 10)
    return `Nothing crosses ten while numbers stop at ${aim.upTo}.`
  if (mustHave.includes('turn-round') && aim.noRepeatedTotal)
    return 'A turn-round has the same total as its partner, so “no total twice” cannot hold with it.'
  if (structure === 'parts' && aim.noRepeatedTotal)
    return `Every split of ${aim.upTo} has the same total, so “no total twice” cannot hold.`
  if (mustHave.includes('leftover') && structure !== 'share' && structure !== 'halves')
    return 'Only sharing and halving leave something over.'
  if (structure === 'teens' && aim.upTo < 11) return 'Teens begin at eleven: let numbers go beyond ten.'
  if (pool.length === 0)
    return aim.mostThings > 0
      ? `No fact here can be shown with ${aim.mostThings} things: allow more, or smaller numbers.`
      : `No fact of this idea lies between ${aim.least} and ${aim.upTo}.`
  for (const wish of mustHave)
    if (!holds[wish](pool))
      return `No ${wish} exists among the facts of this idea up to ${aim.upTo}${aim.mostThings ? ` with ${aim.mostThings} things` : ''}.`
  if (pool.length < aim.count)
    return `Only ${pool.length} ${pool.length === 1 ? 'fact exists' : 'facts exist'} here; ${aim.count} examples were asked for.`
  if (aim.noRepeatedTotal && new Set(pool.map((e) => e.total)).size < aim.count)
    return `Only ${new Set(pool.map((e) => e.total)).size} different totals exist; ${aim.count} were asked for.`
  return null
}
/** The facts whose numbers the aim's device can give. */
function fromDevice(aim: Aim, facts: readonly Example[]): readonly Example[] {
  const never = new Set(unreachable(aim.device, facts, aim.structure))
  return never.size ? facts.filter((e) => !never.has(e)) : facts
}
const wishWords: Record<Wish, string> = {
  double: 'two equal parts',
  'turn-round': 'its turn-round',
  zero: 'zero',
  'crosses ten': 'a ten to cross',
  leftover: 'something left over',
}
/** What the device can never produce, held against the aim. */
function deviceConflict(aim: Aim, all: readonly Example[], pool: readonly Example[]): string | null {
  if (aim.device.kind === 'none') return null
  if (aim.mustHave.includes('double') && cannotCome(aim.device).doubles)
    return 'The device never gives a double: what is drawn is not put back.'
  const lost = aim.mustHave.find((w) => holds[w](all) && !holds[w](pool))
  if (pool.length && lost) return `The device never gives a fact with ${wishWords[lost]}.`
  if (all.length > 0 && pool.length < Math.min(aim.count, all.length))
    return pool.length
      ? `Only ${pool.length} of the ${all.length} facts here can come of the device; ${aim.count} examples were asked for. Change the device, or let numbers come from nothing.`
      : 'The device gives none of the facts here. Change the device, or let numbers come from nothing.'
  return null
}

const sameFact = (e: Example, f: Example): boolean => e.a === f.a && e.b === f.b && e.op === f.op

function build(
  aim: Aim,
  pool: readonly Example[],
  keep: readonly Example[],
  random: (n: number) => number,
): Example[] | null {
  const set: Example[] = [...keep]
  const allowed = (e: Example) =>
    !set.some((f) => sameFact(f, e)) && (!aim.noRepeatedTotal || !set.some((f) => f.total === e.total))
  const pick = (from: readonly Example[]) => {
    const open = from.filter(allowed)
    return open.length ? open[random(open.length)] : undefined
  }
  const asksZero = aim.mustHave.includes('zero')
  for (const wish of aim.mustHave) {
    if (holds[wish](set)) continue
    if (wish === 'turn-round') {
      const turned = new Set(pool.map((f) => 1000 * f.a + f.b))
      const first =
        set.find((e) => e.a !== e.b) ??
        pick(
          pool.filter(
            (e) => e.op === '+' && e.a !== e.b && (asksZero || (e.a && e.b)) && turned.has(1000 * e.b + e.a),
          ),
        )
      if (!first) return null
      if (!set.includes(first)) set.push(first)
      const second = pool.find((f) => f.op === '+' && f.a === first.b && f.b === first.a)
      if (second && allowed(second)) set.push(second)
      continue
    }
    const one = pick(pool.filter((e) => holds[wish]([e])))
    if (one) set.push(one)
  }
  while (set.length < aim.count) {
    const next = pick(pool)
    if (!next) return null
    set.push(next)
  }
  return set.length <= aim.count && aim.mustHave.every((w) => holds[w](set)) ? set : null
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
