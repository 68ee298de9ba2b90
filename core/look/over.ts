import type { PhotoReading } from '../contracts/reading.ts'
import type { Point } from '../plane.ts'
import { middle } from './photo/middle.ts'
import { clockwise } from './photo/regions.ts'
import { rowsOf } from './photo/rows.ts'

interface Spot {
  x: number
  y: number
  r: number
}
/** A planned table as it is drawn: its things, and where its mats lie. */
export interface Planned {
  things: readonly Spot[]
  zones: readonly { mat: string; x: number; y: number; w: number; h: number }[]
}
/** a b c d e f as SVG has them: x' = ax + cy + e, y' = bx + dy + f. */
export type Matrix = readonly [number, number, number, number, number, number]

/** How far things may lie from where the plan has them for both to be one arrangement: so many radii, as a root mean square. */
const asPlanned = 1.6
/** A photo is held upright, give or take: a plan turned further than this (radians) was matched wrongly. */
const mostTurn = 0.6
/** Things may lie so many times wider apart, or closer, for their size than the plan has them. */
const mostWider = 1.8

/**
 * Where the drawing of a planned table lies over a photo at the scale of what was found: a frame on the frame, plates
 * and parts on as many that were found, things on things where they lie as planned, else about the same middle and of
 * the same size. Null where nothing was found.
 */
export function laidOver(plan: Planned, reading: PhotoReading): Matrix | null {
  return onFrame(plan, reading) ?? onPlaces(plan, reading) ?? onThings(plan, reading)
}

function onFrame({ zones, things }: Planned, { structure, things: found }: PhotoReading): Matrix | null {
  const zone = zones.find((z) => z.mat === 'frame')
  const [frame, ...more] = structure?.kind === 'frames' ? structure.frames : []
  if (!zone || !frame || more.length || frame.outline.length !== 4) return null
  const { x, y, w, h } = zone
  // Two frames planned, one above the other, do not lie on one that was found.
  if (h > 0.6 * w) return null
  const corners: Point[] = [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ]
  const [q0, q1, q2, q3] = clockwise(frame.outline)
  if (apart(q0!, q1!) + apart(q2!, q3!) >= apart(q1!, q2!) + apart(q3!, q0!))
    return affine(corners, [q0!, q1!, q2!, q3!])
  // Photographed upright it is turned by a quarter one way or the other: that on which the things lie.
  const ways = [
    [q1, q2, q3, q0],
    [q3, q0, q1, q2],
  ].map((to) => affine(corners, to as Point[]))
  return ways.sort((p, q) => offThings(p, things, found) - offThings(q, things, found))[0]!
}
const apart = (p: Point, q: Point): number => Math.hypot(p[0] - q[0], p[1] - q[1])
/** How far what was found lies from the planned things, all together. */
const offThings = (m: Matrix, things: readonly Spot[], found: readonly Spot[]): number => {
  const planned = things.map((t) => moved(m, [t.x, t.y]))
  return found.reduce((s, f) => s + Math.min(...planned.map((p) => apart(p, [f.x, f.y]))), 0)
}

/** Mats of several places that a photo shows as places of their own. */
const places = new Map([
  ['plates', 'groups'],
  ['dots', 'groups'],
  ['parts', 'parts'],
])
/** Places lie as planned where their middles are nearer than this share of their own size. */
const inPlace = 0.7
function onPlaces({ zones }: Planned, { structure }: PhotoReading): Matrix | null {
  const mats = zones.filter((z) => places.has(z.mat))
  const seen =
    structure?.kind === 'groups'
      ? structure.groups
      : structure?.kind === 'parts'
        ? [structure.whole, ...structure.parts]
        : []
  const one = new Set(mats.map((z) => z.mat)).size === 1 && places.get(mats[0]!.mat) === structure?.kind
  if (!one || mats.length !== seen.length) return null
  const from = inOrder(mats.map((z) => ({ x: z.x + z.w / 2, y: z.y + z.h / 2, r: (z.w + z.h) / 4 })))
  const to = inOrder(seen.map((g) => roundOf(g.outline)))
  const [planned, found] = [middle(from.map((p) => p.r)), middle(to.map((p) => p.r))]
  if (!planned || !found) return null
  if (from.length === 1) return centred(from, to, found / planned)
  const m = similar(from, to)
  return fits(m, from, to, inPlace) ? m : null
}
/** An outline as a middle and half its size. */
function roundOf(outline: readonly Point[]): Spot {
  const [xs, ys] = [outline.map((p) => p[0]), outline.map((p) => p[1])]
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  return { x: (left + right) / 2, y: (top + bottom) / 2, r: (right - left + bottom - top) / 4 }
}
const inOrder = (spots: readonly Spot[]): Spot[] => rowsOf(spots).flatMap((row) => row.map((i) => spots[i]!))

function onThings({ things }: Planned, { things: found }: PhotoReading): Matrix | null {
  const [planned, seen] = [middle(things.map((t) => t.r)), middle(found.map((t) => t.r))]
  if (!planned || !seen) return null
  for (const [from, to] of pairings(things, found)) {
    const m = similar(from, to)
    if (fits(m, from, to, asPlanned)) return m
  }
  return centred(things, found, seen / planned)
}
/** At one scale, middle on middle. */
function centred(from: readonly Spot[], to: readonly Spot[], k: number): Matrix {
  const [p, q] = [centre(from), centre(to)]
  return [k, 0, 0, k, q[0] - k * p[0], q[1] - k * p[1]]
}
/** Whether a plan so laid lies on what was found: within so many radii (root mean square), hardly turned, about as large. */
function fits(m: Matrix, from: readonly Spot[], to: readonly Spot[], within: number): boolean {
  const [planned, found] = [from, to].map((spots) => middle(spots.map((t) => t.r)) ?? 0) as [number, number]
  const off = Math.sqrt(
    from.reduce((s, p, i) => s + apart(moved(m, [p.x, p.y]), [to[i]!.x, to[i]!.y]) ** 2, 0) / from.length,
  )
  const wider = (Math.hypot(m[0], m[1]) * planned) / found
  return (
    off < within * found &&
    Math.abs(Math.atan2(m[1], m[0])) < mostTurn &&
    Math.max(wider, 1 / wider) < mostWider
  )
}
/** Which planned thing could be which: place by place in each row, so that one more at the end moves nothing; and all in order. */
function pairings(
  things: readonly Spot[],
  found: readonly Spot[],
): (readonly [readonly Spot[], readonly Spot[]])[] {
  const [planned, seen] = [things, found].map((spots) =>
    rowsOf(spots).map((row) => row.map((i) => spots[i]!)),
  ) as [Spot[][], Spot[][]]
  const both = planned.flatMap((row, i) =>
    row.slice(0, seen[i]?.length ?? 0).map((t, k) => [t, seen[i]![k]!] as const),
  )
  const most = Math.max(things.length, found.length)
  return [
    ...(both.length > 2 && both.length >= most / 2
      ? [[both.map(([t]) => t), both.map(([, t]) => t)] as const]
      : []),
    ...(things.length === found.length && most > 1 ? [[planned.flat(), seen.flat()] as const] : []),
  ]
}
export const moved = ([a, b, c, d, e, f]: Matrix, [x, y]: Point): Point => [
  a * x + c * y + e,
  b * x + d * y + f,
]
const centre = (spots: readonly Spot[]): Point => [
  spots.reduce((s, t) => s + t.x, 0) / spots.length,
  spots.reduce((s, t) => s + t.y, 0) / spots.length,
]
/** Shift, turn and scale that bring points nearest to others, by least squares. */
function similar(from: readonly Spot[], to: readonly Spot[]): Matrix {
  const [p, q] = [centre(from), centre(to)]
  let [along, across, size] = [0, 0, 0]
  from.forEach((s, i) => {
    const [x, y, u, v] = [s.x - p[0], s.y - p[1], to[i]!.x - q[0], to[i]!.y - q[1]]
    along += x * u + y * v
    across += x * v - y * u
    size += x * x + y * y
  })
  const [a, b] = [along / (size || 1), across / (size || 1)]
  return [a, b, -b, a, q[0] - a * p[0] + b * p[1], q[1] - b * p[0] - a * p[1]]
}
/** The map of a rectangle's corners (from the upper left, clockwise) onto four others that keeps lines parallel: the mean of both pairs of sides. */
function affine([p0, p1, , p3]: readonly Point[], [q0, q1, q2, q3]: readonly Point[]): Matrix {
  const [w, h] = [p1![0] - p0![0], p3![1] - p0![1]]
  const side = (i: 0 | 1) => ({
    across: (q1![i] - q0![i] + q2![i] - q3![i]) / (2 * w),
    down: (q3![i] - q0![i] + q2![i] - q1![i]) / (2 * h),
    mean: (q0![i] + q1![i] + q2![i] + q3![i]) / 4,
  })
  const [x, y] = [side(0), side(1)]
  const [mx, my] = [p0![0] + w / 2, p0![1] + h / 2]
  return [
    x.across,
    y.across,
    x.down,
    y.down,
    x.mean - x.across * mx - x.down * my,
    y.mean - y.across * mx - y.down * my,
  ]
}
