import { middle } from './middle.ts'
import { fromLeft } from './regions.ts'

interface Spot {
  x: number
  y: number
  r: number
}
/** How things of a tower lie on one another: so far aside, and so near and far below, as shares of the two radii together. */
const stacked = { aside: 0.5, nearest: 0.5, farthest: 1.3 } as const

/**
 * Towers from the left: things that stand on one another, seen from the front. Indices of the spots given, from the
 * lowest up. A thing that stands alone is a tower of one.
 */
export function towersOf(spots: readonly Spot[]): number[][] {
  const below = spots.map((upper, i) => {
    const near = spots
      .map((lower, k) => ({
        k,
        dx: Math.abs(lower.x - upper.x),
        dy: lower.y - upper.y,
        of: lower.r + upper.r,
      }))
      .filter(
        (q) =>
          q.k !== i &&
          q.dx < stacked.aside * q.of &&
          q.dy > stacked.nearest * q.of &&
          q.dy < stacked.farthest * q.of,
      )
      .sort((a, b) => a.dy + a.dx - b.dy - b.dx)
    return near[0]?.k ?? null
  })
  return spots
    .flatMap((_, i) => (below[i] === null ? [i] : []))
    .map((base) => {
      const tower = [base]
      for (;;) {
        const next = below.findIndex((b, i) => b === tower.at(-1) && !tower.includes(i))
        if (next < 0) return tower
        tower.push(next)
      }
    })
    .sort((a, b) => spots[a[0]!]!.x - spots[b[0]!]!.x)
}

/** From which gap on, against the usual one, what lies along a line is in two. */
const split = 1.8
/**
 * Things along one line (pegs on a rail, rings on a string) by its sides: `[left, right]`, or upper and lower of one
 * that stands. Null where they do not lie on a line. One side alone is `[n, 0]` or `[0, n]` by where the line's own
 * middle (a share of the picture, 0.5 where unknown) is.
 */
export function sidesOf(
  spots: readonly Spot[],
  size: { width: number; height: number },
): readonly [number, number] | null {
  if (!spots.length) return null
  const [mx, my] = [mean(spots.map((t) => t.x)), mean(spots.map((t) => t.y))]
  const [xx, xy, yy] = [
    mean(spots.map((t) => (t.x - mx) ** 2)),
    mean(spots.map((t) => (t.x - mx) * (t.y - my))),
    mean(spots.map((t) => (t.y - my) ** 2)),
  ]
  const turn = spots.length === 1 ? 0 : 0.5 * Math.atan2(2 * xy, xx - yy)
  const [c, s] = fromLeft(turn)
  const r = middle(spots.map((t) => t.r)) ?? 1
  if (spots.some((t) => Math.abs((t.y - my) * c - (t.x - mx) * s) > 1.2 * r)) return null
  const along = spots.map((t) => (t.x - mx) * c + (t.y - my) * s).sort((a, b) => a - b)
  const gaps = along.slice(1).map((a, i) => a - along[i]!)
  const widest = gaps.length ? Math.max(...gaps) : 0
  // With two things there is no usual gap: they are apart where one more would fit between.
  const usual = gaps.length > 1 ? middle([...gaps].sort((a, b) => a - b).slice(0, -1))! : 2.2 * r
  if (widest > split * Math.max(usual, 2 * r * 0.8)) {
    const left = gaps.indexOf(widest) + 1
    return [left, spots.length - left]
  }
  const at = Math.abs(c) > Math.abs(s) ? mx / size.width : my / size.height
  return at < 0.5 ? [spots.length, 0] : [0, spots.length]
}
const mean = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0) / xs.length
