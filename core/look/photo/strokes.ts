import { middle } from './middle.ts'
import type { Picture } from './picture.ts'
import { ellipseOf, type Region, regions } from './regions.ts'

/** What the pen left: 1 where a picture is clearly darker than what lies around it. */
export interface Ink {
  width: number
  height: number
  on: Uint8Array
  /** What of it hangs together; `labels` says of each pixel to which, by the regions' labels. */
  labels: Int32Array
  regions: Region[]
}
/** Constants of reading strokes; lengths as shares of the picture's longer side, light 0–1. */
const pen = {
  /** Half the side of the square whose mean light is "around". */
  around: 0.03,
  /** So much darker than around is ink: a pencil on white paper is 0.15 and more. */
  darker: 0.085,
  /** Strokes shorter than this are specks. */
  shortest: 0.02,
  /** A stroke is so many times as long as wide. */
  slender: 3.6,
  /** Strokes of one tally are of like lengths and directions. */
  like: 1.9,
  parallel: 0.45,
  /** Share of the ink that must be tally strokes before a tally is told of. */
  explained: 0.75,
  most: 120,
  /** A pen draws all of them as thick: so many times the usual at most; and thin against their length. */
  thick: 1.7,
  thin: 0.2,
  /** Written on something light: the mean light about each stroke. */
  light: 0.5,
} as const

export const lightOf = (p: Picture): Float32Array => {
  const n = p.width * p.height
  const out = new Float32Array(n)
  for (let i = 0; i < n; i++) out[i] = 0.3 * p.rgb[i]! + 0.59 * p.rgb[n + i]! + 0.11 * p.rgb[2 * n + i]!
  return out
}
/** Sums of light from the upper left, for means of squares in four steps. */
function summed(light: Float32Array, w: number, h: number): Float64Array {
  const sums = new Float64Array((w + 1) * (h + 1))
  for (let y = 0; y < h; y++) {
    let row = 0
    for (let x = 0; x < w; x++) {
      row += light[y * w + x]!
      sums[(y + 1) * (w + 1) + x + 1] = sums[y * (w + 1) + x + 1]! + row
    }
  }
  return sums
}
/** Local threshold by brightness: lamp and shadow change slowly, a stroke does not. */
export function inkOf({ width: w, height: h }: Pick<Picture, 'width' | 'height'>, light: Float32Array): Ink {
  const sums = summed(light, w, h)
  const reach = Math.max(4, Math.round(pen.around * Math.max(w, h)))
  const on = new Uint8Array(w * h)
  for (let y = 0; y < h; y++) {
    const y0 = Math.max(0, y - reach)
    const y1 = Math.min(h, y + reach + 1)
    // Rows of the sums above and below the square.
    const above = y0 * (w + 1)
    const below = y1 * (w + 1)
    for (let x = 0; x < w; x++) {
      const x0 = Math.max(0, x - reach)
      const x1 = Math.min(w, x + reach + 1)
      const sum = sums[below + x1]! - sums[above + x1]! - sums[below + x0]! + sums[above + x0]!
      const mean = sum / ((y1 - y0) * (x1 - x0))
      if (light[y * w + x]! < mean - Math.max(pen.darker, 0.16 * mean)) on[y * w + x] = 1
    }
  }
  const { labels, list } = regions(w * h, w, (i) => on[i] === 1)
  return { width: w, height: h, on, labels, regions: list }
}

export interface Tally {
  count: number
  low: number
  high: number
}
/**
 * Tally marks: single strokes and bundles (four and one across them, or any strokes that touch), wherever they stand.
 * Null where what the pen left is mostly something else. Uncertain where something of the ink is no stroke.
 */
export function tallyIn(ink: Ink, light: Float32Array): Tally | null {
  const { width: w, height: h } = ink
  const long = pen.shortest * Math.max(w, h)
  const { labels } = ink
  const marks = ink.regions.filter(
    (r) => Math.max(r.right - r.left, r.bottom - r.top) >= long && !atRim(r, w, h),
  )
  // So many strokes are a cloth's threads.
  if (marks.length > pen.most) return null
  const singles = marks.filter(isStroke)
  const bundles = marks.flatMap((r) => {
    if (isStroke(r)) return []
    const n = strokesIn(labels, w, r)
    return n === null ? [] : [{ r, ...n }]
  })
  // What direction and length the strokes have: the bundles' upright ones count with the single ones.
  const usual = middle([...singles.map((r) => 2 * ellipseOf(r).a), ...bundles.map((b) => b.long)])
  if (usual === null) return null
  const turns = [...singles.map((r) => ellipseOf(r).turn), ...bundles.map((b) => b.turn)]
  const along = turnOf(turns)
  const fits = (length: number, turn: number) =>
    length < pen.like * usual && length > usual / pen.like && between(turn, along) < pen.parallel
  const thickness = (r: Region) => r.area / (2 * ellipseOf(r).a)
  const penned = middle([...singles.map(thickness), ...bundles.map((b) => b.wide)])!
  const drawn = (wide: number, length: number) =>
    wide < pen.thick * penned && wide > penned / pen.thick && wide < pen.thin * length
  const mine = singles.filter(
    (r) => fits(2 * ellipseOf(r).a, ellipseOf(r).turn) && drawn(thickness(r), 2 * ellipseOf(r).a),
  )
  const tied = bundles.filter((b) => fits(b.long, b.turn) && drawn(b.wide, b.long))
  const area = (rs: readonly Region[]) => rs.reduce((s, r) => s + r.area, 0)
  const counted = [...mine, ...tied.map((b) => b.r)]
  if (!counted.length || area(counted) < pen.explained * area(marks)) return null
  if (counted.some((r) => lightAbout(ink, light, r) < pen.light)) return null
  const count = mine.length + tied.reduce((s, b) => s + b.count, 0)
  const other = marks.length - counted.length
  // One stroke or two may be anything.
  const few = count < 3
  return {
    count,
    low: few ? 0 : mine.length + tied.reduce((s, b) => s + b.low, 0),
    high: count + other + tied.reduce((s, b) => s + b.high - b.count, 0),
  }
}
/** Mean light of what is no ink about a region. */
function lightAbout({ width: w, height: h, on }: Ink, light: Float32Array, r: Region): number {
  let [sum, n] = [0, 0]
  for (let y = Math.max(0, r.top - 4); y <= Math.min(h - 1, r.bottom + 4); y++)
    for (let x = Math.max(0, r.left - 4); x <= Math.min(w - 1, r.right + 4); x++)
      if (!on[y * w + x]) {
        sum += light[y * w + x]!
        n++
      }
  return n ? sum / n : 0
}
const atRim = (r: Region, w: number, h: number): boolean =>
  r.left <= 1 || r.top <= 1 || r.right >= w - 2 || r.bottom >= h - 2
const isStroke = (r: Region): boolean => {
  const { a, b } = ellipseOf(r)
  return a > pen.slender * b
}
/** The angle between two directions of lines, 0 to a quarter turn. */
const between = (a: number, b: number): number => {
  const d = Math.abs(a - b) % Math.PI
  return Math.min(d, Math.PI - d)
}
/** The mean direction of lines: of their doubled angles. */
const turnOf = (turns: readonly number[]): number =>
  0.5 *
  Math.atan2(
    turns.reduce((s, t) => s + Math.sin(2 * t), 0),
    turns.reduce((s, t) => s + Math.cos(2 * t), 0),
  )

interface Bundle {
  count: number
  low: number
  high: number
  /** Length, direction and thickness of its upright strokes. */
  long: number
  turn: number
  wide: number
}
/** Strokes that touch: lines drawn across them meet as many as there are, and one more where a slanting one crosses. */
function strokesIn(labels: Int32Array, w: number, r: Region): Bundle | null {
  if (encloses(labels, w, r)) return null
  let best: (Bundle & { even: number }) | null = null
  for (let degrees = -36; degrees <= 36; degrees += 6)
    for (const quarter of [0, 90]) {
      const turn = ((degrees + 90 + quarter) * Math.PI) / 180
      const b = runsAcross(labels, w, r, turn)
      if (b && (!best || b.even > best.even)) best = b
    }
  return best
}
/** Strokes with one across them shut nothing in; rings, letters and grids do. */
function encloses(labels: Int32Array, w: number, r: Region): boolean {
  const [wide, high] = [r.right - r.left + 3, r.bottom - r.top + 3]
  const open = regions(
    wide * high,
    wide,
    (i) => labels[(r.top - 1 + Math.floor(i / wide)) * w + r.left - 1 + (i % wide)] !== r.label,
    true,
  )
  return open.list.some((o) => o.left > 0 && o.area > 0.02 * wide * high)
}
/** Strokes along `turn`, counted on lines across it at several heights. */
function runsAcross(
  labels: Int32Array,
  w: number,
  r: Region,
  turn: number,
): (Bundle & { even: number }) | null {
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const corners = [
    [r.left, r.top],
    [r.right, r.top],
    [r.left, r.bottom],
    [r.right, r.bottom],
  ] as const
  const us = corners.map(([x, y]) => (x - r.x) * c + (y - r.y) * s)
  const vs = corners.map(([x, y]) => (y - r.y) * c - (x - r.x) * s)
  const [u0, u1, v0, v1] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)]
  const runs: number[] = []
  let [first, last] = [NaN, NaN]
  const widths: number[] = []
  for (let u = u0; u <= u1; u += Math.max(1, (u1 - u0) / 60)) {
    let [n, in0] = [0, false]
    let width = 0
    for (let v = v0 - 1; v <= v1 + 1; v++) {
      const [x, y] = [Math.round(r.x + u * c - v * s), Math.round(r.y + u * s + v * c)]
      const on = x >= r.left && x <= r.right && y >= r.top && y <= r.bottom && labels[y * w + x] === r.label
      if (on) width++
      if (on && !in0) n++
      in0 = on
    }
    if (!n) continue
    if (Number.isNaN(first)) first = u
    last = u
    runs.push(n)
    widths.push(width / n)
  }
  const long = last - first
  if (runs.length < 12) return null
  const inner = runs.slice(Math.floor(runs.length * 0.15), Math.ceil(runs.length * 0.85))
  const most = Math.max(...inner)
  if (most < 2) return null
  const often = (n: number) => inner.filter((k) => k === n).length / inner.length
  // The greatest number seen on more than a stray line.
  const top = often(most) >= 0.12 ? most : most - 1
  const wide = middle(widths)!
  // Strokes of a bundle are thin against their length, and most lines across meet nearly all of them.
  const near = often(top) + often(top - 1)
  if (wide * pen.slender > long || near < 0.5) return null
  const low = often(top) >= 0.3 ? top : top - 1
  return {
    count: top,
    low,
    high: Math.max(top, often(most) < 0.12 ? most : top),
    long,
    turn,
    wide,
    even: near + 0.1 * top - (wide / long) * 2,
  }
}

/** How a stroke through a thing is told: shares of its radius, light 0–1. */
const through = {
  beyond: [1.06, 1.12, 1.18, 1.24],
  beside: 0.24,
  darker: 0.1,
  share: 0.92,
  another: 0.05,
} as const
/**
 * Whether a thing is crossed out: a line darker (or, on dark things, lighter) than what lies on both its sides runs
 * through it and out at both ends. `t`: its middle and radius in pixels of the picture.
 */
export function isCrossed(
  light: Float32Array,
  size: { width: number; height: number },
  t: { x: number; y: number; r: number },
): boolean {
  const { width: w, height: h } = size
  const at = (x: number, y: number): number => {
    const [cx, cy] = [Math.round(x), Math.round(y)]
    return cx < 0 || cy < 0 || cx >= w || cy >= h ? NaN : light[cy * w + cx]!
  }
  for (let k = 0; k < 24; k++) {
    const a = (k / 24) * Math.PI
    const [c, s] = [Math.cos(a), Math.sin(a)]
    for (let off = -0.4; off <= 0.41; off += 0.1) {
      const p = (u: number, o: number) => at(t.x + t.r * (u * c - o * s), t.y + t.r * (u * s + o * c))
      const beside = (u: number) => Math.min(p(u, off - through.beside), p(u, off + through.beside))
      const differs = (u: number): boolean =>
        beside(u) - Math.min(p(u, off - 0.04), p(u, off), p(u, off + 0.04)) > through.darker
      let [on, n] = [0, 0]
      for (let u = -0.78; u <= 0.781; u += 0.12) {
        n++
        if (differs(u)) on++
      }
      if (on < through.share * n) continue
      // Out of the thing at both ends: what lies beside the stroke there is the ground, not more of a long thing.
      const out = [-1, 1].every(
        (e) =>
          through.beyond.every((u) => differs(e * u)) &&
          Math.abs(beside(1.15 * e) - beside(0)) > through.another,
      )
      if (out) return true
    }
  }
  return false
}
