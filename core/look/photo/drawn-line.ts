import type { Point } from '../../plane.ts'
import { ellipseOf, fromLeft, regions } from './regions.ts'
import { kinds } from './seen.ts'
import type { At } from './map.ts'

/** A drawn line with things on it: its two ends, and where along it (0–1 from its left or upper end) each thing lies. */
export interface DrawnLine {
  from: Point
  to: Point
  at: number[]
}
/** A line this long (share of the picture's width) and so slender is one to put things on. */
const least = { long: 0.4, slender: 14, near: 2.2, ink: 0.55 } as const
const line = kinds.indexOf('line')

/**
 * The longest straight line of a picture, where things lie along it; broken by things and labels it is still one.
 * Null where there is none, or where fewer than half of the things lie along it.
 */
export function drawnLineOf(
  map: { width: number; height: number; what: Uint8Array },
  things: readonly At[],
): DrawnLine | null {
  const { width: w, height: h, what } = map
  const pieces = regions(w * h, w, (i) => what[i] === line)
    .list.map((r) => ({ r, ...ellipseOf(r) }))
    .filter((p) => p.a > 5 && p.a > 2.5 * p.b)
    .sort((p, q) => q.a - p.a)
    .slice(0, 12)
  let best: { turn: number; x: number; y: number; from: number; to: number; ink: number } | null = null
  for (const { r, turn } of pieces) {
    const [c, s] = fromLeft(turn)
    // All ink within two pixels of the piece's own axis: what a thing on the line hides is jumped over.
    const bins = new Map<number, number>()
    for (let i = 0; i < w * h; i++) {
      if (what[i] !== line) continue
      const [dx, dy] = [(i % w) - r.x, Math.floor(i / w) - r.y]
      if (Math.abs(dy * c - dx * s) <= 2.2) {
        const u = Math.round(dx * c + dy * s)
        bins.set(u, (bins.get(u) ?? 0) + 1)
      }
    }
    const us = [...bins.keys()].sort((a, b) => a - b)
    const [from, to] = [us[0]!, us.at(-1)!]
    const covered = things.reduce((n, t) => {
      const [dx, dy] = [t.x - r.x, t.y - r.y]
      return n + (Math.abs(dy * c - dx * s) < t.r ? 2 * t.r : 0)
    }, us.length)
    if (!best || covered > best.ink) best = { turn, x: r.x, y: r.y, from, to, ink: covered }
  }
  if (!best || best.to - best.from < least.long * w || best.ink < least.ink * (best.to - best.from))
    return null
  const [c, s] = fromLeft(best.turn)
  const end = (u: number): Point => [best.x + u * c, best.y + u * s]
  const ends = { from: end(best.from), to: end(best.to) }
  const at = alongLine(ends, things)
  return at.length && at.length * 2 >= things.length ? { ...ends, at } : null
}
/** Where along a line, 0–1 from its first end, those of some things lie that are near it; in order. */
export function alongLine({ from, to }: { from: Point; to: Point }, things: readonly At[]): number[] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const long = Math.hypot(dx, dy) || 1
  return things
    .flatMap((t) => {
      const [x, y] = [t.x - from[0], t.y - from[1]]
      const along = (x * dx + y * dy) / (long * long)
      const near = Math.abs(x * dy - y * dx) / long < least.near * t.r
      return near && along > -beyond && along < 1 + beyond ? [Math.min(1, Math.max(0, along))] : []
    })
    .sort((a, b) => a - b)
}
/** A thing laid on a line's end reaches over it by so much of its length at most. */
const beyond = 0.04
