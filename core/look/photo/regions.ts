import type { Point } from './places.ts'

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
/** A hull simplified to its four corners: the vertex that spans the least area goes first (Visvalingam). */
export function cornersOf(hull: readonly Point[]): Point[] | null {
  const left = [...hull]
  while (left.length > 4) {
    let [least, at] = [Infinity, 0]
    for (let i = 0; i < left.length; i++) {
      const [p, q, r] = [left[(i + left.length - 1) % left.length]!, left[i]!, left[(i + 1) % left.length]!]
      const area = Math.abs((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]))
      if (area < least) [least, at] = [area, i]
    }
    left.splice(at, 1)
  }
  return left.length === 4 ? left : null
}
export const areaOf = (points: readonly Point[]): number =>
  Math.abs(
    points.reduce(
      (s, p, i) =>
        s + p[0] * points[(i + 1) % points.length]![1] - p[1] * points[(i + 1) % points.length]![0],
      0,
    ),
  ) / 2
