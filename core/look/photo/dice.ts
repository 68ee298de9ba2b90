import { ellipseOf, ellipseShare, regions } from './regions.ts'

/** A face of a die is looked at in a square of this side, its dots as shares of that. */
const face = {
  side: 64,
  half: 1.05,
  inside: 0.86,
  least: 0.004,
  most: 0.075,
  alike: 2.6,
  apart: 0.1,
} as const

/**
 * The dots on a die's upper face, dark on light or light on dark. `sure` where they are of one size and lie as dice
 * have them: the same when turned by half a turn. Zero where none are seen: it may be no die.
 * `t`: middle and radius of the die in pixels of the RGBA picture.
 */
export function pipsOf(
  rgba: Uint8ClampedArray | Uint8Array,
  size: { width: number; height: number },
  t: { x: number; y: number; r: number },
): { pips: number; sure: boolean } {
  const light = squareOf(rgba, size, t)
  const readings = [1, -1].map((sign) => dotsIn(light, sign)).sort((a, b) => b.fit - a.fit)
  const { dots, fit } = readings[0]!
  return { pips: Math.min(6, dots), sure: dots > 0 && dots <= 6 && fit >= 0.9 }
}
/** Light, 0–1, of the square about a thing, brought to one size. */
function squareOf(
  rgba: Uint8ClampedArray | Uint8Array,
  { width, height }: { width: number; height: number },
  t: { x: number; y: number; r: number },
): Float32Array {
  const n = face.side
  const out = new Float32Array(n * n)
  const step = (2 * face.half * t.r) / n
  for (let y = 0; y < n; y++)
    for (let x = 0; x < n; x++) {
      let [sum, many] = [0, 0]
      for (const dy of [-0.25, 0.25])
        for (const dx of [-0.25, 0.25]) {
          const px = Math.round(t.x + (x + 0.5 + dx - n / 2) * step)
          const py = Math.round(t.y + (y + 0.5 + dy - n / 2) * step)
          if (px < 0 || py < 0 || px >= width || py >= height) continue
          const i = (py * width + px) * 4
          sum += 0.3 * rgba[i]! + 0.59 * rgba[i + 1]! + 0.11 * rgba[i + 2]!
          many++
        }
      out[y * n + x] = many ? sum / many / 255 : 0.5
    }
  return out
}
/** Spots darker (`sign` 1) or lighter (−1) than the face, and how well they lie as a die's. */
function dotsIn(light: Float32Array, sign: number): { dots: number; fit: number } {
  const n = face.side
  const within = (i: number) =>
    Math.hypot((i % n) + 0.5 - n / 2, Math.floor(i / n) + 0.5 - n / 2) < (face.inside * n) / 2
  const values = [...light].filter((_, i) => within(i)).sort((a, b) => a - b)
  // The face is most of what is there; dots take a tenth to a third of it.
  const usual = values[Math.floor(values.length * (sign > 0 ? 0.62 : 0.38))]!
  const other = values[Math.floor(values.length * (sign > 0 ? 0.03 : 0.97))]!
  if (sign * (usual - other) < 0.12) return { dots: 0, fit: 0 }
  const cut = (usual + other) / 2
  const { list } = regions(n * n, n, (i) => within(i) && sign * (cut - light[i]!) > 0)
  const area = n * n
  const spots = list.filter((r) => {
    const { a, b } = ellipseOf(r)
    return r.area > face.least * area && r.area < face.most * area && a / b < 1.8 && ellipseShare(r) > 0.8
  })
  // Whatever else is as dark as the dots speaks against them.
  const stray = list.filter((r) => r.area > face.least * area && !spots.includes(r)).length
  if (!spots.length || spots.length > 6) return { dots: spots.length, fit: 0 }
  const sizes = spots.map((r) => r.area)
  const alike = Math.max(...sizes) / Math.min(...sizes) < face.alike
  const [cx, cy] = [n / 2, n / 2]
  const reach = face.apart * n
  const symmetric = spots.every((p) =>
    spots.some((q) => Math.hypot(2 * cx - p.x - q.x, 2 * cy - p.y - q.y) < 2 * reach),
  )
  return { dots: spots.length, fit: (alike ? 0.5 : 0) + (symmetric ? 0.5 : 0) - 0.3 * stray }
}
