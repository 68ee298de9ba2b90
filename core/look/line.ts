/** A number and where a child put it, both in the line's own units. */
export interface Placed {
  number: number
  at: number
}
export interface LineReading {
  /** Absolute error of each mark as a share of the scale, 0–1. */
  errors: number[]
  /** Their mean: percent absolute error over 100. */
  mean: number
  /** Pairs that stand the wrong way round, the larger before the smaller. */
  orderErrors: number
  /** Fit of a straight line and of a logarithm to where the marks stand: R² each, 0–1; null with fewer than three marks. */
  linear: number | null
  logarithmic: number | null
  statement:
    | 'good spacing'
    | 'bunched at the top'
    | 'even steps regardless'
    | 'order only'
    | 'out of order'
    | 'too few to tell'
}
/** Means for 0–100, for orientation (Siegler & Booth 2004): about 27 % at five, 18 % at six, 15 % at seven. */
export const usualError: Readonly<Record<number, number>> = { 5: 0.27, 6: 0.18, 7: 0.15 }
const limits = { good: 0.1, fit: 0.9, ahead: 0.03, even: 0.06 } as const

function fit(xs: readonly number[], ys: readonly number[]): number {
  const n = xs.length
  const [mx, my] = [xs.reduce((a, b) => a + b, 0) / n, ys.reduce((a, b) => a + b, 0) / n]
  let [xy, xx, yy] = [0, 0, 0]
  for (let i = 0; i < n; i++) {
    xy += (xs[i]! - mx) * (ys[i]! - my)
    xx += (xs[i]! - mx) ** 2
    yy += (ys[i]! - my) ** 2
  }
  return xx && yy ? (xy * xy) / (xx * yy) : 0
}
/**
 * How numbers were placed on a line from `from` to `to`. @throws RangeError when the line has no length.
 */
export function readLine(placed: readonly Placed[], from: number, to: number): LineReading {
  if (to <= from) throw new RangeError(`A line from ${from} to ${to} has no length`)
  const errors = placed.map((p) => Math.abs(p.number - p.at) / (to - from))
  const mean = errors.length ? errors.reduce((a, b) => a + b, 0) / errors.length : 0
  let orderErrors = 0
  for (const a of placed) for (const b of placed) if (a.number < b.number && a.at >= b.at) orderErrors++
  const sorted = [...placed].sort((a, b) => a.number - b.number)
  const enough = new Set(placed.map((p) => p.number)).size >= 3
  const ys = sorted.map((p) => (p.at - from) / (to - from))
  const linear = enough
    ? fit(
        sorted.map((p) => p.number),
        ys,
      )
    : null
  const logarithmic = enough
    ? fit(
        sorted.map((p) => Math.log(p.number - from + 1)),
        ys,
      )
    : null
  const statement = ((): LineReading['statement'] => {
    if (!placed.length) return 'too few to tell'
    if (orderErrors) return 'out of order'
    if (mean <= limits.good) return 'good spacing'
    if (linear === null || logarithmic === null) return 'too few to tell'
    const gaps = ys.slice(1).map((y, i) => y - ys[i]!)
    const step = gaps.reduce((a, b) => a + b, 0) / gaps.length
    const wanted = sorted.slice(1).map((p, i) => p.number - sorted[i]!.number)
    const uneven = Math.max(...wanted) > 1.8 * Math.min(...wanted)
    if (uneven && gaps.every((g) => Math.abs(g - step) < limits.even)) return 'even steps regardless'
    // Small numbers take too much room, large ones are pressed together towards the end.
    if (logarithmic > linear + limits.ahead && logarithmic >= limits.fit) return 'bunched at the top'
    return 'order only'
  })()
  return { errors, mean, orderErrors, linear, logarithmic, statement }
}
