import type { Point } from '../../plane.ts'
import { type Region, regions } from './regions.ts'
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
/** Kinds of pixels by their index. */
export const [thing, plate, line, sheet] = [is('thing'), is('plate'), is('line'), is('sheet')]

/** Shares of a picture's area, and of lines seen where a frame has some; pixels of all that is drawn. */
export const least = {
  frame: 0.008,
  ring: 0.004,
  plate: 0.012,
  support: 0.55,
  inner: 0.4,
  drawn: 60,
} as const

/** Plates with what lies on them. */
export function solidPlates(
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
/** Pixels of a kind and those beside them. */
export function grown(what: Uint8Array, w: number, kind: number): Uint8Array {
  const out = new Uint8Array(what.length)
  for (let i = 0; i < what.length; i++)
    if (what[i] === kind)
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) if (out[i + dy * w + dx] !== undefined) out[i + dy * w + dx] = 1
  return out
}
