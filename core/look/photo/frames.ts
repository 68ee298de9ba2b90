import { planeOf, type Plane, type Point } from '../../plane.ts'
import { cellAt } from './cells.ts'
import { type At, grown, least, line, type Map2, type Place, plate, solidPlates, thing } from './map.ts'
import { areaOf, clockwise, cornersOf, hullOf, regions } from './regions.ts'

export interface Framed {
  outline: Point[]
  plane: Plane
}
/** Ten frames by their lines: a quadrilateral whose inner lines are there too. */
export function frameLines(map: Map2): Framed[] {
  const { width: w, height: h, what } = map
  const n = w * h
  // Lines a pixel wide break where they run aslant or a thing lies on them.
  const inked = grown(what, w, line)
  const { labels, list } = regions(
    n,
    w,
    (i) => near(inked, i, w) || (what[i] === thing && touches(what, i, w)),
  )
  return list
    .filter((r) => r.area > least.frame * n * 0.3)
    .flatMap((r) => {
      const corners = cornersOf(hullOf(labels, w, r))
      if (!corners || areaOf(corners) < least.frame * n) return []
      const found = bestFrame(corners, (x, y) => at(map, inked, x, y))
      return found ? [found] : []
    })
}
/** Broken lines of one figure lie near each other. */
const near = (inked: Uint8Array, i: number, w: number): boolean =>
  inked[i] === 1 ||
  inked[i - 1] === 1 ||
  inked[i + 1] === 1 ||
  inked[i - w] === 1 ||
  inked[i + w] === 1 ||
  inked[i - 2] === 1 ||
  inked[i + 2] === 1 ||
  inked[i - 2 * w] === 1 ||
  inked[i + 2 * w] === 1
/** Whether a line runs beside a pixel: a thing on a line belongs to the line's figure. */
const touches = (what: Uint8Array, i: number, w: number): boolean =>
  [1, 2, 3].some(
    (d) =>
      what[i - d] === line || what[i + d] === line || what[i - d * w] === line || what[i + d * w] === line,
  )
/** 1 where a line is, 0.5 where a thing may hide one, 0 where there is none. */
function at({ what, width: w, height: h }: Map2, inked: Uint8Array, x: number, y: number): number {
  const [cx, cy] = [Math.round(x), Math.round(y)]
  let best = 0
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const [px, py] = [cx + dx, cy + dy]
      if (px < 0 || py < 0 || px >= w || py >= h) continue
      const i = py * w + px
      best = Math.max(best, inked[i] ? 1 : what[i] === thing ? 0.5 : 0)
    }
  return best
}
/** Reads the corners as a frame of two rows of five, lying or standing, or as none. */
function bestFrame(corners: readonly Point[], seen: (x: number, y: number) => number): Framed | null {
  let best: (Framed & { score: number }) | null = null
  // The hull runs a little outside the lines.
  for (const inset of [0, 1.5, 3, 4.5])
    for (let turn = 0; turn < 2; turn++) {
      const q = drawnIn(upperLeftFirst(corners, turn), inset)
      const plane = planeOf(q)
      const score = (lines: readonly (readonly [number, number, number, number])[]) => {
        let [sum, many] = [0, 0]
        for (const [u0, v0, u1, v1] of lines)
          for (let k = 0; k <= 20; k++) {
            const [x, y] = plane.to(u0 + ((u1 - u0) * k) / 20, v0 + ((v1 - v0) * k) / 20)
            const s = seen(x, y)
            // Hidden ones neither speak for it nor against it.
            if (s === 0.5) continue
            sum += s
            many++
          }
        return many < 20 ? 0 : sum / many
      }
      const inner = score([[0, 0.5, 1, 0.5], ...[1, 2, 3, 4].map((i) => [i / 5, 0, i / 5, 1] as const)])
      const rim = score([
        [0, 0, 1, 0],
        [1, 0, 1, 1],
        [1, 1, 0, 1],
        [0, 1, 0, 0],
      ])
      // Lines between the cells, where a frame has none: a grid of another kind. Looked for away from the frame's own.
      const inCell = [0.25, 0.75]
      const between = score([
        ...[0.5, 1.5, 2.5, 3.5, 4.5].flatMap((i) =>
          inCell.map((v) => [i / 5, v - 0.13, i / 5, v + 0.13] as const),
        ),
        ...[0, 1, 2, 3, 4].flatMap((i) => inCell.map((v) => [(i + 0.25) / 5, v, (i + 0.75) / 5, v] as const)),
      ])
      if (rim < least.support || inner < least.inner || between > inner * 0.5) continue
      const total = rim + 2 * inner - between
      if (!best || total > best.score + 0.02) best = { outline: [...q], plane, score: total }
    }
  return best
}
/** Corners drawn in towards their middle by so many pixels. */
function drawnIn(q: readonly [Point, Point, Point, Point], by: number): [Point, Point, Point, Point] {
  const [cx, cy] = [0, 1].map((k) => q.reduce((s, p) => s + p[k]!, 0) / 4) as [number, number]
  return q.map(([x, y]) => {
    const d = Math.hypot(x - cx, y - cy) || 1
    return [x - ((x - cx) / d) * by * 1.2, y - ((y - cy) / d) * by * 1.2] as const
  }) as unknown as [Point, Point, Point, Point]
}
/** Corners in order from the one that is upper left when the picture is seen as it lies, turned on by quarter turns. */
function upperLeftFirst(corners: readonly Point[], turn: number): [Point, Point, Point, Point] {
  const round = clockwise(corners)
  return [0, 1, 2, 3].map((k) => round[(turn + k) % 4]!) as [Point, Point, Point, Point]
}
/** Which cells of a frame are filled. */
export function filledFrame(f: Framed, things: readonly At[]): Place {
  const cells: number[] = []
  const inside: number[] = []
  let astray = 0
  things.forEach((t, i) => {
    const [u, v] = f.plane.from(t.x, t.y)
    if (u < -0.06 || u > 1.06 || v < -0.12 || v > 1.12) return
    inside.push(i)
    if (u < -0.02 || u > 1.02 || v < -0.04 || v > 1.04) astray++
    cells.push(cellAt(u, v))
  })
  const [x, y] = f.plane.to(0.5, 0.5)
  return {
    kind: 'frame',
    outline: f.outline,
    x,
    y,
    area: areaOf(f.outline),
    inside,
    cells: cells.sort((p, q) => p - q),
    astray,
  }
}

/** Egg boxes and trays of two rows of five: a straight-sided plate about two and a half times as long as wide. */
export function boxes(map: Map2): Framed[] {
  const { width: w, height: h } = map
  const solid = solidPlates(map, [plate])
  return solid.list.flatMap((r) => {
    if (r.area < least.plate * w * h) return []
    const hull = hullOf(solid.labels, w, r)
    const corners = cornersOf(hull)
    if (!corners || areaOf(corners) < 0.86 * areaOf(hull)) return []
    const q = upperLeftFirst(corners, 0)
    const side = (i: number) => Math.hypot(q[i]![0] - q[(i + 1) % 4]![0], q[i]![1] - q[(i + 1) % 4]![1])
    const [along, across] = [(side(0) + side(2)) / 2, (side(1) + side(3)) / 2]
    const ratio = Math.max(along, across) / Math.min(along, across)
    if (ratio < 1.75 || ratio > 3.4) return []
    const turned = along >= across ? q : upperLeftFirst(corners, 1)
    // Its rim takes an eighth of a cell each side.
    const plane = planeOf(turned)
    const inner = [
      plane.to(0.03, 0.06),
      plane.to(0.97, 0.06),
      plane.to(0.97, 0.94),
      plane.to(0.03, 0.94),
    ] as [Point, Point, Point, Point]
    return [{ outline: inner, plane: planeOf(inner) }]
  })
}
