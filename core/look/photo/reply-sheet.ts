import { mostBoxes, replyLayout } from '../../paper/reply-sheet.ts'
import { type Paper, papers } from '../../paper/sizes.ts'
import { areaOf, clockwise, ellipseOf, ellipseShare, type Region } from './regions.ts'
import { type Plane, planeOf, type Point } from '../../plane.ts'
import type { Ink } from './strokes.ts'

/** A box of a reply sheet by its four corners, in pixels of the picture. */
export type FoundBox = [Point, Point, Point, Point]
/** A corner mark: shares of the picture's longer side, and how square and how alike the four are. */
const mark = { least: 0.008, most: 0.09, solid: 0.86, round: 1.9, alike: 3.2 } as const
/** Share of the boxes' printed lines that must be there before a sheet is believed. */
const printed = 0.62
const most = 26

/**
 * The reply sheet in a photo by its four corner marks: however it lies, on A4 or Letter, with one box or six. The
 * boxes' own lines must be where that layout prints them; null otherwise.
 */
export function replySheetIn(ink: Ink): FoundBox[] | null {
  const { width: w, height: h } = ink
  const long = Math.max(w, h)
  const squares = ink.regions
    .filter((r) => isMark(r, long))
    .sort((a, b) => b.area - a.area)
    .slice(0, most)
  let best: { score: number; boxes: FoundBox[] } | null = null
  for (const round of fours(squares, 0.12 * w * h).slice(0, 40))
    for (let turn = 0; turn < 4; turn++) {
      const plane = planeOf([0, 1, 2, 3].map((k) => round[(k + turn) % 4]!) as FoundBox)
      for (const l of layouts) {
        const score = scoreOf(ink, plane, l)
        if (score >= printed && score > (best?.score ?? 0) + 0.004)
          best = { score, boxes: l.boxes.map((b) => b.map(([u, v]) => plane.to(u, v)) as FoundBox) }
      }
    }
  return best?.boxes ?? null
}
function isMark(r: Region, long: number): boolean {
  const side = Math.sqrt(r.area)
  if (side < mark.least * long || side > mark.most * long) return false
  const { a, b } = ellipseOf(r)
  return a / b < mark.round && ellipseShare(r) > mark.solid
}
/** Sets of four marks as large as each other that span a good part of the picture, each clockwise, the widest first. */
function fours(squares: readonly Region[], least: number): Point[][] {
  const out: { area: number; of: Point[] }[] = []
  const n = squares.length
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++)
      for (let c = b + 1; c < n; c++)
        for (let d = c + 1; d < n; d++) {
          const four = [squares[a]!, squares[b]!, squares[c]!, squares[d]!]
          // Sorted by area: the first is the largest.
          if (four[0]!.area > mark.alike * four[3]!.area) break
          const of = clockwise(four.map((r): Point => [r.x, r.y]))
          const area = areaOf(of)
          if (area >= least && isConvex(of)) out.push({ area, of })
        }
  return out.sort((p, q) => q.area - p.area).map((o) => o.of)
}
const isConvex = (q: readonly Point[]): boolean =>
  q.every((p, i) => {
    const [a, b] = [q[(i + 1) % 4]!, q[(i + 2) % 4]!]
    return (a[0] - p[0]) * (b[1] - a[1]) - (a[1] - p[1]) * (b[0] - a[0]) > 0
  })

interface Layout {
  /** Corners of each box as shares of the field between the marks' middles. */
  boxes: Point[][]
}
const layouts: readonly Layout[] = (Object.keys(papers) as Paper[]).flatMap((paper) =>
  [true, false].flatMap((code) =>
    Array.from({ length: mostBoxes }, (_, k): Layout => {
      const l = replyLayout(paper, k + 1, code)
      const middle = ([x, y, w, h]: readonly [number, number, number, number]): Point => [
        x + w / 2,
        y + h / 2,
      ]
      const [p, , q] = l.corners.map(middle) as [Point, Point, Point, Point]
      const share = (x: number, y: number): Point => [(x - p[0]) / (q[0] - p[0]), (y - p[1]) / (q[1] - p[1])]
      return {
        boxes: l.boxes.map(([x, y, w, h]) => [
          share(x, y),
          share(x + w, y),
          share(x + w, y + h),
          share(x, y + h),
        ]),
      }
    }),
  ),
)
/** How much of a layout's printed box lines is ink, less what is ink a little inside of them. */
function scoreOf({ width: w, height: h, on }: Ink, plane: Plane, l: Layout): number {
  const inked = (u: number, v: number): number => {
    const [x, y] = plane.to(u, v)
    for (let dy = -2; dy <= 2; dy++)
      for (let dx = -2; dx <= 2; dx++) {
        const [px, py] = [Math.round(x) + dx, Math.round(y) + dy]
        if (px >= 0 && py >= 0 && px < w && py < h && on[py * w + px]) return 1
      }
    return 0
  }
  let [hit, near, n] = [0, 0, 0]
  for (const box of l.boxes) {
    const [cx, cy] = [0, 1].map((k) => box.reduce((s, p) => s + p[k]!, 0) / 4) as [number, number]
    for (let side = 0; side < 4; side++) {
      const [a, b] = [box[side]!, box[(side + 1) % 4]!]
      for (let k = 1; k < 20; k++) {
        const [u, v] = [a[0] + ((b[0] - a[0]) * k) / 20, a[1] + ((b[1] - a[1]) * k) / 20]
        hit += inked(u, v)
        near += inked(u + (cx - u) * 0.12, v + (cy - v) * 0.12)
        n++
      }
    }
  }
  return (hit - 0.5 * near) / n
}
/** The share of a box's inside that the pen touched. */
export function inkedShare({ width: w, height: h, on }: Ink, [a, b, c, d]: FoundBox): number {
  const plane = planeOf([a, b, c, d])
  let [n, all] = [0, 0]
  for (let u = 0.04; u < 0.961; u += 0.01)
    for (let v = 0.08; v < 0.921; v += 0.02) {
      const [x, y] = plane.to(u, v)
      const [px, py] = [Math.round(x), Math.round(y)]
      if (px < 0 || py < 0 || px >= w || py >= h) continue
      all++
      n += on[py * w + px]!
    }
  return all ? n / all : 0
}
