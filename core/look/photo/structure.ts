import type { PhotoStructure } from '../../contracts/reading.ts'
import { holds, type Plane, planeOf, type Point } from '../../plane.ts'
import { cellAt } from './cells.ts'
import {
  areaOf,
  clockwise,
  cornersOf,
  ellipseOf,
  ellipseShare,
  hullOf,
  lengthOf,
  type Region,
  regions,
} from './regions.ts'
import { kinds, type PixelKind } from './seen.ts'

/** What the pixels are, and the things found; all in half pixels of the picture the network saw. */
export interface Map2 {
  width: number
  height: number
  /** Index into `kinds` of each pixel. */
  what: Uint8Array
}
export interface At {
  x: number
  y: number
  r: number
}
/** A place things may lie in, with the things in it by their index. */
export interface Place {
  kind: 'frame' | 'plate' | 'ring' | 'card'
  /** Corners of a frame (first its upper left as the cells are read) or of a card, or an ellipse's outline. */
  outline: Point[]
  x: number
  y: number
  area: number
  inside: number[]
  /** Filled cells of a frame, 0–9 in reading order; each as often as things lie in it. */
  cells?: number[]
  /** Things that lie on a frame's edge or outside every cell, though near. */
  astray?: number
}
const is = (k: PixelKind): number => kinds.indexOf(k)
const [thing, plate, line, sheet] = [is('thing'), is('plate'), is('line'), is('sheet')]

/** Shares of a picture's area, and of lines seen where a frame has some; pixels of all that is drawn. */
const least = { frame: 0.008, ring: 0.004, plate: 0.012, support: 0.55, inner: 0.4, drawn: 60 } as const

/** Whether any line was drawn that could be part of a frame or of a ring. */
export const isDrawnOn = ({ what }: Map2): boolean => {
  let lines = 0
  for (let i = 0; i < what.length; i++) if (what[i] === line) lines++
  return lines >= least.drawn
}
/** Places that are areas and not drawn: boxes, plates and cards. */
export interface Areas {
  boxes: readonly Framed[]
  rounds: readonly Place[]
}
export const areasOf = (map: Map2): Areas => ({ boxes: boxes(map), rounds: [...plates(map), ...cards(map)] })

/** Frames, plates and rings of a picture, and which things lie in which; `areas` where they are known. */
export function placesOf(map: Map2, things: readonly At[], areas: Areas = areasOf(map)): Place[] {
  const frames = [...frameLines(map), ...areas.boxes].map((f) => filledFrame(f, things))
  const inFrame = (x: number, y: number) => frames.some((f) => holds(f.outline, [x, y]))
  const rounds = [...areas.rounds, ...rings(map)]
    .filter((p) => !inFrame(p.x, p.y))
    .map((p) => ({
      ...p,
      inside: things.flatMap((t, i) => (holds(p.outline, [t.x, t.y]) ? [i] : [])),
    }))
  // A ring in a plate is the plate's own rim; a ring seen twice, by its line and by its inside, is one.
  const outer = rounds.filter(
    (p, k) =>
      !rounds.some(
        (q, m) =>
          m !== k && (q.area > p.area || (q.area === p.area && m < k)) && holds(q.outline, [p.x, p.y]),
      ),
  )
  return [...frames, ...outer]
}

export interface Framed {
  outline: Point[]
  plane: Plane
}
/** Ten frames by their lines: a quadrilateral whose inner lines are there too. */
function frameLines(map: Map2): Framed[] {
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
function filledFrame(f: Framed, things: readonly At[]): Place {
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
function boxes(map: Map2): Framed[] {
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
/** Cards with dots, slips and mats beside each other: straight-sided sheets, two or more; one alone is paper under things. */
function cards(map: Map2): Place[] {
  const { width: w, height: h } = map
  const n = w * h
  const solid = solidPlates(map, [sheet])
  const found = solid.list.flatMap((r): Place[] => {
    if (r.area < least.plate * n || r.area > 0.4 * n) return []
    const hull = hullOf(solid.labels, w, r)
    const corners = cornersOf(hull)
    if (!corners || areaOf(corners) < 0.86 * areaOf(hull) || r.area < 0.82 * areaOf(hull)) return []
    return [{ kind: 'card', outline: corners, x: r.x, y: r.y, area: r.area, inside: [] }]
  })
  return found.length > 1 ? found : []
}
/** Plates with what lies on them. */
function solidPlates(
  { width: w, height: h, what }: Map2,
  of: readonly number[],
): { labels: Int32Array; list: Region[] } {
  const n = w * h
  const set = new Uint8Array(n)
  for (let i = 0; i < n; i++) set[i] = of.includes(what[i]!) ? 1 : 0
  // Things on a plate hide it: whatever is enclosed by plate is plate.
  const open = regions(n, w, (i) => !set[i], true)
  const enclosed = open.list.map((r) => r.left > 0 && r.top > 0 && r.right < w - 1 && r.bottom < h - 1)
  return regions(n, w, (i) => set[i] === 1 || enclosed[open.labels[i]! - 1] === true, true)
}
/** A sheet or a cell has straight sides: its four corners hold nearly all of it, where a round's hold two thirds. */
function isSquare(labels: Int32Array, w: number, r: Region): boolean {
  if (labels.indexOf(r.label) < 0) return false
  const hull = hullOf(labels, w, r)
  const corners = cornersOf(hull)
  return corners !== null && areaOf(corners) > 0.82 * areaOf(hull)
}
const rim = (r: Region): Point[] => {
  const { a, b, turn } = ellipseOf(r)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return Array.from({ length: 24 }, (_, k) => {
    const t = (k / 24) * 2 * Math.PI
    return [
      r.x + a * Math.cos(t) * c - b * Math.sin(t) * s,
      r.y + a * Math.cos(t) * s + b * Math.sin(t) * c,
    ] as const
  })
}
function plates(map: Map2): Place[] {
  const { width: w, height: h } = map
  // A pale plate and a sheet of paper look alike; their outline tells them apart.
  const solid = solidPlates(map, [plate, sheet])
  return solid.list
    .flatMap((r) => (r.area > least.plate * w * h ? parted(solid.labels, w, r) : []))
    .flatMap((r) => {
      const { a, b } = ellipseOf(r)
      if (
        r.area < least.plate * w * h * 0.6 ||
        a / b > 1.75 ||
        ellipseShare(r) < 0.9 ||
        (solid.list.includes(r) && isSquare(solid.labels, w, r))
      )
        return []
      return [{ kind: 'plate' as const, outline: rim(r), x: r.x, y: r.y, area: r.area, inside: [] }]
    })
}
/** Two plates that touch, taken apart: worn down from the rim until they let go, then grown back to where they were. */
function parted(labels: Int32Array, w: number, whole: Region): Region[] {
  if (ellipseShare(whole) > 0.95 && lengthOf(whole) < 1.6) return [whole]
  // In a box of its own, with a free edge round it.
  const [bw, bh] = [whole.right - whole.left + 3, whole.bottom - whole.top + 3]
  let mask = new Uint8Array(bw * bh)
  for (let y = 1; y < bh - 1; y++)
    for (let x = 1; x < bw - 1; x++)
      mask[y * bw + x] = labels[(whole.top + y - 1) * w + whole.left + x - 1] === whole.label ? 1 : 0
  for (let worn = 1; worn < 24; worn++) {
    const next = new Uint8Array(bw * bh)
    for (let y = 1; y < bh - 1; y++)
      for (let x = 1; x < bw - 1; x++) {
        const i = y * bw + x
        next[i] = mask[i]! & mask[i - 1]! & mask[i + 1]! & mask[i - bw]! & mask[i + bw]!
      }
    mask = next
    const left = regions(bw * bh, bw, (i) => mask[i] === 1, true).list.filter(
      (r) => r.area > 0.1 * whole.area,
    )
    if (left.length > 1)
      return left.map((r) => {
        // Worn by so many pixels all round: its moments grow back with it.
        const { a, b } = ellipseOf(r)
        const [ka, kb] = [(a + worn) / a, (b + worn) / b]
        const k = (ka + kb) / 2
        const at = { x: r.x + whole.left - 1, y: r.y + whole.top - 1 }
        return { ...r, ...at, area: r.area * ka * kb, xx: r.xx * k * k, xy: r.xy * k * k, yy: r.yy * k * k }
      })
    if (!left.length) break
  }
  return [whole]
}
/** Drawn rings: what a closed line holds. */
function rings(map: Map2): Place[] {
  const { width: w, height: h, what } = map
  const open = regions(w * h, w, (i) => what[i] !== line, true)
  return [
    ...open.list.filter((r) => isRound(r, w, h) && !isSquare(open.labels, w, r)).map(ringOf),
    ...crossedRings(map),
  ]
}
const ringOf = (r: Region): Place => ({
  kind: 'ring',
  outline: rim(r),
  x: r.x,
  y: r.y,
  area: r.area,
  inside: [],
})
function isRound(r: Region, w: number, h: number): boolean {
  if (r.left === 0 || r.top === 0 || r.right === w - 1 || r.bottom === h - 1) return false
  return r.area >= least.ring * w * h && lengthOf(r) <= 2 && ellipseShare(r) >= 0.93
}
/** How much of the outline of a ring is a line, and how much is a line or a thing that lies on it. */
const outlined = { line: 0.45, all: 0.85 } as const
/** Rings whose line things lie on, or that has gaps of a pixel or two: what line and things hold between them. */
function crossedRings({ width: w, height: h, what }: Map2): Place[] {
  const n = w * h
  const inked = grown(what, w, line)
  const heaps = regions(n, w, (i) => what[i] === thing)
  const onLine = new Set<number>()
  for (let i = 0; i < n; i++) if (inked[i] && heaps.labels[i]) onLine.add(heaps.labels[i]!)
  const open = regions(n, w, (i) => !inked[i] && !onLine.has(heaps.labels[i]!), true)
  return open.list.flatMap((r) => {
    if (r.area < 0.5 * least.ring * n || r.area > 0.4 * n) return []
    const hull = hullOf(open.labels, w, r)
    const { list, labels } = regions(n, w, (i) => {
      const [x, y] = [i % w, Math.floor(i / w)]
      const isNear = x >= r.left && x <= r.right && y >= r.top && y <= r.bottom
      return isNear && holds(hull, [x + 0.5, y + 0.5])
    })
    const filled = list[0]
    if (!filled || !isRound(filled, w, h) || isSquare(labels, w, filled)) return []
    // Its inside reaches to half a pixel of the line as it was grown.
    const place = ringOf({ ...filled, xx: wider(filled.xx), yy: wider(filled.yy) })
    let [lines, things] = [0, 0]
    for (const [x, y] of place.outline) {
      const near = (is: (i: number) => boolean) => nearby([x, y], { w, h }, is)
      if (near((i) => inked[i] === 1)) lines++
      else if (near((i) => what[i] === thing)) things++
    }
    const all = place.outline.length
    return lines >= outlined.line * all && lines + things >= outlined.all * all ? [place] : []
  })
}
const wider = (moment: number): number => (Math.sqrt(moment) + 0.75) ** 2
/** Whether anything within two pixels is so. */
function nearby([x, y]: Point, { w, h }: { w: number; h: number }, is: (i: number) => boolean): boolean {
  for (let py = Math.max(0, Math.round(y) - 2); py <= Math.min(h - 1, Math.round(y) + 2); py++)
    for (let px = Math.max(0, Math.round(x) - 2); px <= Math.min(w - 1, Math.round(x) + 2); px++)
      if (is(py * w + px)) return true
  return false
}
/** Pixels of a kind and those beside them. */
function grown(what: Uint8Array, w: number, kind: number): Uint8Array {
  const out = new Uint8Array(what.length)
  for (let i = 0; i < what.length; i++)
    if (what[i] === kind)
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) if (out[i + dy * w + dx] !== undefined) out[i + dy * w + dx] = 1
  return out
}

/** The picture's structure as its reading tells it: frames, a whole and its parts, or groups; null where there is none. */
export function structureOf(
  map: Map2,
  places: readonly Place[],
  scale: (p: Point) => Point,
): PhotoStructure | null {
  const frames = places
    .filter((p) => p.kind === 'frame')
    .sort((a, b) => (Math.abs(a.y - b.y) > Math.sqrt(a.area) * 0.3 ? a.y - b.y : a.x - b.x))
  const outlineOf = (p: Place) => p.outline.map((o): [number, number] => [...scale(o)])
  if (frames.length)
    return {
      kind: 'frames',
      frames: frames.map((f) => ({ cells: f.cells ?? [], outline: outlineOf(f), astray: f.astray ?? 0 })),
    }
  const rounds = places.filter((p) => p.kind !== 'frame')
  if (!rounds.length) return null
  const inOrder = (list: readonly Place[]) =>
    [...list].sort((a, b) => (Math.abs(a.y - b.y) > Math.sqrt(a.area) * 0.6 ? a.y - b.y : a.x - b.x))
  const whole = rounds.length >= 3 ? wholeOf(map, rounds) : null
  const group = (p: Place) => ({ count: p.inside.length, outline: outlineOf(p) })
  if (whole)
    return {
      kind: 'parts',
      whole: group(whole),
      parts: inOrder(rounds.filter((p) => p !== whole)).map(group),
    }
  return { kind: 'groups', groups: inOrder(rounds).map(group) }
}
/** Of rings joined by lines the one that is joined to all others. */
function wholeOf({ width: w, height: h, what }: Map2, rounds: readonly Place[]): Place | null {
  const n = w * h
  const grown = rounds.map((p) =>
    p.outline.map(([x, y]): Point => [p.x + (x - p.x) * 1.16, p.y + (y - p.y) * 1.16]),
  )
  const outside = (i: number) => !grown.some((o) => holds(o, [i % w, Math.floor(i / w)]))
  const joins = regions(n, w, (i) => what[i] === line && outside(i)).list.filter((r) => r.area >= 4)
  const degree = rounds.map(() => 0)
  for (const j of joins) {
    const near = rounds
      .map((p, k) => ({
        k,
        d: Math.min(
          ...cornersOfBox(j).map(([x, y]) =>
            Math.abs(Math.hypot(x - p.x, y - p.y) / Math.sqrt(p.area / Math.PI) - 1.1),
          ),
        ),
      }))
      .sort((a, b) => a.d - b.d)
    if (near[1] && near[1].d < 0.6) for (const { k } of near.slice(0, 2)) degree[k]!++
  }
  const best = degree.indexOf(Math.max(...degree))
  if (degree[best]! >= 2) return rounds[best]!
  // Lines between rings are thin; without them the empty ring that stands apart from two or more on one line is the whole.
  if (rounds.some((p) => p.kind !== 'ring')) return null
  const lonely = rounds.filter(
    (p) =>
      !p.inside.length &&
      rounds.filter((q) => q !== p).every((q) => Math.abs(q.y - p.y) > 0.9 * Math.sqrt(p.area / Math.PI)),
  )
  return lonely.length === 1 ? lonely[0]! : null
}
const cornersOfBox = (r: Region): Point[] => [
  [r.left, r.top],
  [r.right, r.top],
  [r.left, r.bottom],
  [r.right, r.bottom],
]
