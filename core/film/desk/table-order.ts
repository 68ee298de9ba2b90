import type { TableState } from '../../script/table/state.ts'

/** What lies where, as a count for each kind of thing in each place: "frame 0 saffron" → 4. */
function contents(state: TableState): Map<string, number> {
  const out = new Map<string, number>()
  const add = (key: string, n = 1): void => void out.set(key, (out.get(key) ?? 0) + n)
  state.mats.forEach((m) => {
    add(`mat ${m.kind} ${m.regions.length}`)
    m.regions.forEach((r, i) =>
      r.things.forEach((t) => add(`thing ${m.kind} ${i} ${t.kind} ${t.face} ${t.worth}`)),
    )
    m.cards.forEach((c) => add(`card ${m.kind} ${c.text}`))
    m.line?.marks.forEach((n) => add(`mark ${m.kind} ${n}`))
    if (m.covered) add(`cover ${m.kind}`)
  })
  state.written.forEach((w) => add(`written ${w}`))
  return out
}

/** How many things must be laid, taken off or turned to get from one table to another. */
export function resetCost(from: TableState, to: TableState): number {
  const [a, b] = [contents(from), contents(to)]
  let [off, on] = [0, 0]
  for (const key of new Set([...a.keys(), ...b.keys()])) {
    const change = (b.get(key) ?? 0) - (a.get(key) ?? 0)
    if (change > 0) on += change
    else off -= change
  }
  // What is taken off in one place and laid in another is one move of the hand.
  return Math.max(off, on)
}

export interface ToFilm {
  segmentId: string
  /** The table as it must be before its first step, and as its last step leaves it. */
  before: TableState
  after: TableState
}
/** Up to this many segments every order is weighed; beyond it, the nearest table comes next. */
export const everyOrder = 11

/**
 * The order of filming that needs the fewest hands on the table, from the table as it stands now. Ties keep the order
 * of the lesson. Gives each segment with what must be moved before it.
 */
export function filmingOrder(
  now: TableState,
  segments: readonly ToFilm[],
): { segmentId: string; moves: number }[] {
  const n = segments.length
  const first = segments.map((s) => resetCost(now, s.before))
  const between = segments.map((a) => segments.map((b) => resetCost(a.after, b.before)))
  const order = n <= everyOrder ? bestOrder(first, between) : nearestFirst(first, between)
  return order.map((i, k) => ({
    segmentId: segments[i]!.segmentId,
    moves: k === 0 ? first[i]! : between[order[k - 1]!]![i]!,
  }))
}

/** Every order weighed (Held–Karp): least cost over subsets by the segment filmed last. */
function bestOrder(first: readonly number[], between: readonly (readonly number[])[]): number[] {
  const n = first.length
  if (!n) return []
  const full = 1 << n
  const cost = new Float64Array(full * n).fill(Infinity)
  const from = new Int8Array(full * n).fill(-1)
  // A tiny charge for leaving the lesson's order, so that of equals it wins.
  const away = (i: number, place: number): number => Math.abs(i - place) * 1e-4
  for (let i = 0; i < n; i++) cost[(1 << i) * n + i] = first[i]! + away(i, 0)
  for (let set = 1; set < full; set++) {
    const place = set.toString(2).replaceAll('0', '').length
    for (let last = 0; last < n; last++) {
      const c = cost[set * n + last]!
      if (!(set & (1 << last)) || c === Infinity) continue
      for (let next = 0; next < n; next++) {
        if (set & (1 << next)) continue
        const at = (set | (1 << next)) * n + next
        const total = c + between[last]![next]! + away(next, place)
        if (total < cost[at]!) [cost[at], from[at]] = [total, last]
      }
    }
  }
  let last = 0
  for (let i = 1; i < n; i++) if (cost[(full - 1) * n + i]! < cost[(full - 1) * n + last]!) last = i
  const order: number[] = []
  for (let set = full - 1; last >= 0;) {
    order.unshift(last)
    const before = from[set * n + last]!
    set &= ~(1 << last)
    last = before
  }
  return order
}
function nearestFirst(first: readonly number[], between: readonly (readonly number[])[]): number[] {
  const left = new Set(first.map((_, i) => i))
  const order: number[] = []
  while (left.size) {
    const cost = order.length ? between[order.at(-1)!]! : first
    const next = [...left].reduce((b, i) => (cost[i]! < cost[b]! ? i : b))
    left.delete(next)
    order.push(next)
  }
  return order
}
