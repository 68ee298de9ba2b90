import type { Turned } from './picture.ts'

/**
 * What the network saw, at half the size of the picture it was shown: planes one after another, rows from the top.
 * Plane 0: is this the middle of a thing (logit); 1: how large the thing is (natural log of its radius in half
 * pixels over 8); 2–7: what the pixel is (logits: ground, thing, something else in view, plate, drawn line, sheet).
 */
export interface Seen {
  width: number
  height: number
  planes: Float32Array
}
/**
 * Shows the network a picture: red, green and blue planes of 0–1, width and height multiples of 16.
 * The network runs outside the core; the same picture gives the same answer.
 */
export type See = (rgb: Float32Array, width: number, height: number) => Promise<Seen>

export const kinds = ['ground', 'thing', 'other', 'plate', 'line', 'sheet'] as const
export type PixelKind = (typeof kinds)[number]

/** The middle of a thing, in shares of the picture: x 0–1 across, y 0–1 down, r as a share of the width. */
export interface Middle {
  x: number
  y: number
  r: number
  /** 0–1, as the network has it. */
  p: number
}
const logistic = (v: number): number => 1 / (1 + Math.exp(-v))

/** Middles from likeliest down to `least`; of two nearer than their sizes allow the likelier stays. */
export function middlesOf(seen: Seen, least: number): Middle[] {
  const { width: w, height: h, planes } = seen
  const n = w * h
  const found: Middle[] = []
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x
      const v = planes[i]!
      const p = logistic(v)
      if (p < least || !isTop(seen, x, y)) continue
      // The top lies between pixels: the middle of what is as high around it.
      let [sx, sy, sw] = [0, 0, 0]
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          if (x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue
          const q = logistic(planes[i + dy * w + dx]!)
          sx += q * dx
          sy += q * dy
          sw += q
        }
      found.push({
        x: (x + 0.5 + sx / sw) / w,
        y: (y + 0.5 + sy / sw) / h,
        r: (8 * Math.exp(planes[n + i]!)) / w,
        p,
      })
    }
  found.sort((a, b) => b.p - a.p)
  const kept: Middle[] = []
  const shape = h / w
  for (const m of found)
    if (
      kept.every(
        (k) =>
          Math.hypot(k.x - m.x, (k.y - m.y) * shape) > 0.55 * Math.min(k.r, m.r) + 0.12 * Math.max(k.r, m.r),
      )
    )
      kept.push(m)
  return kept
}
function isTop({ planes, width: w, height: h }: Seen, x: number, y: number): boolean {
  const i = y * w + x
  const v = planes[i]!
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      if ((!dx && !dy) || x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue
      const other = planes[i + dy * w + dx]!
      // Of equals the first in reading order is the top.
      if (other > v || (other === v && (dy < 0 || (dy === 0 && dx < 0)))) return false
    }
  return true
}

const line = kinds.indexOf('line')
/**
 * What each pixel most likely is: an index into `kinds`. `forLines` is added to the logit of lines: they are a pixel
 * wide, and one that breaks closes nothing.
 */
export function kindsOf({ width, height, planes }: Seen, forLines = 0): Uint8Array {
  const n = width * height
  const out = new Uint8Array(n)
  for (let i = 0; i < n; i++) {
    let [best, most] = [0, -Infinity]
    for (let k = 0; k < kinds.length; k++) {
      const v = planes[(2 + k) * n + i]! + (k === line ? forLines : 0)
      if (v > most) [best, most] = [k, v]
    }
    out[i] = best
  }
  return out
}

/** Another look at the same picture, as it was shown. */
export interface Again extends Turned {
  seen: Seen
}
/** What the pixels of the first look are by several looks together: the means of their logits, for `kindsOf`. */
export function together(first: Seen, again: readonly Again[]): Seen {
  const { width: w, height: h } = first
  const n = w * h
  const planes = first.planes.slice()
  for (const { seen, across: mirrored, down: upsideDown } of again) {
    const [across, down, m] = [seen.width / w, seen.height / h, seen.width * seen.height]
    for (let y = 0; y < h; y++) {
      const v = (upsideDown ? h - 1 - y : y) + 0.5
      const row = Math.min(seen.height - 1, Math.floor(v * down)) * seen.width
      for (let x = 0; x < w; x++) {
        const u = (mirrored ? w - 1 - x : x) + 0.5
        const j = row + Math.min(seen.width - 1, Math.floor(u * across))
        for (let k = 2; k < 2 + kinds.length; k++) planes[k * n + y * w + x]! += seen.planes[k * m + j]!
      }
    }
  }
  for (let i = 2 * n; i < planes.length; i++) planes[i]! /= again.length + 1
  return { width: w, height: h, planes }
}
