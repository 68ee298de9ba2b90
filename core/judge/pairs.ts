/** Which of two replies showed more; `same`: neither. */
export interface Compared {
  better: string
  other: string
  same: boolean
}
export interface OnScale {
  id: string
  /** Place on the scale: 0 is the middle of all, a step of 1 means being found to show more about three times in four. */
  place: number
  /** Standard error of it; Infinity of one nobody compared. */
  error: number
  compared: number
}
/** Steps of the fit, and a pull to the middle that keeps replies that won or lost all from running away. */
const [rounds, pull] = [200, 0.25]
const logistic = (x: number): number => 1 / (1 + Math.exp(-x))

/**
 * Places replies on one scale by comparisons of two (Bradley & Terry 1952), fitted by Newton's steps reply by reply.
 * A draw is half a win for each.
 */
export function scaleOf(ids: readonly string[], compared: readonly Compared[]): OnScale[] {
  const place = new Map(ids.map((id) => [id, 0]))
  const mine = new Map(ids.map((id) => [id, compared.filter((c) => c.better === id || c.other === id)]))
  const score = (c: Compared, id: string) => (c.same ? 0.5 : c.better === id ? 1 : 0)
  const against = (c: Compared, id: string) => (c.better === id ? c.other : c.better)
  for (let round = 0; round < rounds; round++) {
    let moved = 0
    for (const id of ids) {
      const at = place.get(id)!
      let [slope, bend] = [-pull * at, -pull]
      for (const c of mine.get(id)!) {
        const p = logistic(at - (place.get(against(c, id)) ?? 0))
        slope += score(c, id) - p
        bend -= p * (1 - p)
      }
      const step = Math.max(-1, Math.min(1, slope / -bend))
      place.set(id, at + step)
      moved = Math.max(moved, Math.abs(step))
    }
    if (moved < 1e-5) break
  }
  const mean = [...place.values()].reduce((a, b) => a + b, 0) / Math.max(1, ids.length)
  return ids
    .map((id) => {
      const at = place.get(id)!
      const known = mine.get(id)!.reduce((s, c) => {
        const p = logistic(at - (place.get(against(c, id)) ?? 0))
        return s + p * (1 - p)
      }, 0)
      return {
        id,
        place: at - mean,
        error: known ? 1 / Math.sqrt(known + pull) : Infinity,
        compared: mine.get(id)!.length,
      }
    })
    .sort((a, b) => b.place - a.place)
}
/** How often each reply should have been compared, at least, and how sharp the scale has to be. */
export const enough = { each: 4, error: 0.9 } as const

/**
 * The pair to compare next: of those least compared the two whose order is least certain, not the same pair again
 * while there are others. Null when the scale stands.
 */
export function nextPair(ids: readonly string[], compared: readonly Compared[]): [string, string] | null {
  if (ids.length < 2) return null
  const scale = scaleOf(ids, compared)
  const had = new Set(compared.map((c) => [c.better, c.other].sort().join(' ')))
  const stands = scale.every(
    (s) => s.compared >= Math.min(enough.each, ids.length - 1) && s.error <= enough.error,
  )
  if (stands || had.size >= (ids.length * (ids.length - 1)) / 2) return null
  const first = [...scale].sort((a, b) => a.compared - b.compared || b.error - a.error)[0]!
  const other = scale
    .filter((s) => s.id !== first.id && !had.has([s.id, first.id].sort().join(' ')))
    .sort(
      (a, b) =>
        Math.abs(a.place - first.place) +
        0.3 * a.compared -
        (Math.abs(b.place - first.place) + 0.3 * b.compared),
    )[0]
  if (other) return [first.id, other.id]
  for (const a of ids) for (const b of ids) if (a < b && !had.has(`${a} ${b}`)) return [a, b]
  return null
}
