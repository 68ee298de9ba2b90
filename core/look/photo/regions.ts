import type { Point } from '../../plane.ts'

/** A connected part of a mask: its pixels' statistics, enough for the ellipse that has them. */
export interface Region {
  label: number
  area: number
  x: number
  y: number
  left: number
  top: number
  right: number
  bottom: number
  /** Second moments about the middle, per pixel: xx, xy, yy. */
  xx: number
  xy: number
  yy: number
}

/** Eight-connected parts of what `set` says (four-connected where `thin`), their labels from 1. */
export function regions(
  n: number,
  w: number,
  set: (i: number) => boolean,
  thin = false,
): { labels: Int32Array; list: Region[] } {
  const h = n / w
  const labels = new Int32Array(n)
  const list: Region[] = []
  const stack: number[] = []
  const near = thin ? [-1, 1, -w, w] : [-1, 1, -w, w, -w - 1, -w + 1, w - 1, w + 1]
  for (let start = 0; start < n; start++) {
    if (labels[start] || !set(start)) continue
    const label = list.length + 1
    const r: Region = {
      label,
      area: 0,
      x: 0,
      y: 0,
      left: w,
      top: h,
      right: 0,
      bottom: 0,
      xx: 0,
      xy: 0,
      yy: 0,
    }
    labels[start] = label
    stack.push(start)
    while (stack.length) {
      const i = stack.pop()!
      const x = i % w
      const y = (i - x) / w
      r.area++
      r.x += x
      r.y += y
      r.xx += x * x
      r.xy += x * y
      r.yy += y * y
      if (x < r.left) r.left = x
      if (x > r.right) r.right = x
      if (y < r.top) r.top = y
      if (y > r.bottom) r.bottom = y
      for (const d of near) {
        const j = i + d
        if (j < 0 || j >= n || labels[j] || Math.abs((j % w) - x) > 1 || !set(j)) continue
        labels[j] = label
        stack.push(j)
      }
    }
    r.x /= r.area
    r.y /= r.area
    r.xx = r.xx / r.area - r.x * r.x
    r.xy = r.xy / r.area - r.x * r.y
    r.yy = r.yy / r.area - r.y * r.y
    list.push(r)
  }
  return { labels, list }
}

/** The ellipse that has a region's moments: half axes in pixels, and the larger one's turn in radians. */
export function ellipseOf(r: Region): { a: number; b: number; turn: number } {
  const mean = (r.xx + r.yy) / 2
  const diff = Math.hypot((r.xx - r.yy) / 2, r.xy)
  return {
    a: 2 * Math.sqrt(Math.max(0.1, mean + diff)),
    b: 2 * Math.sqrt(Math.max(0.1, mean - diff)),
    turn: 0.5 * Math.atan2(2 * r.xy, r.xx - r.yy),
  }
}
/** How much longer than wide that ellipse is. */
export const lengthOf = (r: Region): number => {
  const { a, b } = ellipseOf(r)
  return a / b
}
/** How much of an ellipse's area a region has: near 1 for discs and ellipses, 0.95 for squares, less for anything ragged or hollow. */
export const ellipseShare = (r: Region): number => {
  const { a, b } = ellipseOf(r)
  return r.area / (Math.PI * a * b)
}

/** The convex hull of the pixels of a label, in order round it (Andrew's monotone chain). */
export function hullOf(labels: Int32Array, w: number, r: Region): Point[] {
  const ends: Point[] = []
  for (let y = r.top; y <= r.bottom; y++) {
    let [first, last] = [-1, -1]
    for (let x = r.left; x <= r.right; x++)
      if (labels[y * w + x] === r.label) {
        if (first < 0) first = x
        last = x
      }
    if (first >= 0) ends.push([first, y], ...(last > first ? [[last, y] as Point] : []))
  }
  ends.sort((p, q) => p[0] - q[0] || p[1] - q[1])
  const turn = (o: Point, p: Point, q: Point) => (p[0] - o[0]) * (q[1] - o[1]) - (p[1] - o[1]) * (q[0] - o[0])
  const half = (points: readonly Point[]) => {
    const out: Point[] = []
    for (const p of points) {
      while (out.length > 1 && turn(out.at(-2)!, out.at(-1)!, p) <= 0) out.pop()
      out.push(p)
    }
    return out.slice(0, -1)
  }
  return [...half(ends), ...half([...ends].reverse())]
}
/**
 * The four corners of a hull: of the narrowest rectangle around it (one side lies along a side of the hull), each taken
 * as the hull's own point that reaches furthest into that corner, so that a frame seen aslant keeps its shape.
 */
export function cornersOf(hull: readonly Point[]): Point[] | null {
  if (hull.length < 4) return null
  let best: { area: number; ux: number; uy: number; wide: number; high: number } | null = null
  for (let i = 0; i < hull.length; i++) {
    const [p, q] = [hull[i]!, hull[(i + 1) % hull.length]!]
    const n = Math.hypot(q[0] - p[0], q[1] - p[1])
    if (n < 1) continue
    const [ux, uy] = [(q[0] - p[0]) / n, (q[1] - p[1]) / n]
    const along = hull.map((h) => h[0] * ux + h[1] * uy)
    const across = hull.map((h) => h[1] * ux - h[0] * uy)
    const [wide, high] = [Math.max(...along) - Math.min(...along), Math.max(...across) - Math.min(...across)]
    if (!best || wide * high < best.area) best = { area: wide * high, ux, uy, wide, high }
  }
  if (!best || !best.wide || !best.high) return null
  const { ux, uy, wide, high } = best
  const reach = (sx: number, sy: number) =>
    hull.reduce((b, h) => {
      const at = (k: Point) => (sx * (k[0] * ux + k[1] * uy)) / wide + (sy * (k[1] * ux - k[0] * uy)) / high
      return at(h) > at(b) ? h : b
    })
  return [reach(-1, -1), reach(1, -1), reach(1, 1), reach(-1, 1)]
}
/** Points in order round their middle as they are seen, from the one nearest the upper left of the picture. */
export function clockwise(points: readonly Point[]): Point[] {
  const n = points.length
  const [cx, cy] = [0, 1].map((k) => points.reduce((s, p) => s + p[k]!, 0) / n) as [number, number]
  const round = [...points].sort(
    (p, q) => Math.atan2(p[1] - cy, p[0] - cx) - Math.atan2(q[1] - cy, q[0] - cx),
  )
  const first = round.reduce((b, p, i) => (p[0] + p[1] < round[b]![0] + round[b]![1] ? i : b), 0)
  return round.map((_, k) => round[(first + k) % n]!)
}
/** A direction of a line as cosine and sine, from its left end; from its upper end where it stands. */
export function fromLeft(turn: number): readonly [c: number, s: number] {
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const on = Math.abs(c) >= Math.abs(s) ? Math.sign(c) : Math.sign(s)
  return [on * c, on * s]
}
export const areaOf = (points: readonly Point[]): number =>
  Math.abs(
    points.reduce(
      (s, p, i) =>
        s + p[0] * points[(i + 1) % points.length]![1] - p[1] * points[(i + 1) % points.length]![0],
      0,
    ),
  ) / 2
