import type { Picture } from './picture.ts'
import type { Seen } from './seen.ts'

const light = (p: Picture, i: number): number => {
  const n = p.width * p.height
  return 0.3 * p.rgb[i]! + 0.59 * p.rgb[n + i]! + 0.11 * p.rgb[2 * n + i]!
}
/** Sharpness: the strongest edges of a picture, as the 99.5th percentile of the Laplacian of lightness in hundredths. Clear photos of things have well over 5. */
export function sharpness(p: Picture): number {
  const { width: w, height: h } = p
  const values = new Float32Array(Math.max(0, Math.ceil((h - 2) / 2) * (w - 2)))
  let n = 0
  for (let y = 1; y < h - 1; y += 2)
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x
      values[n++] = Math.abs(
        light(p, i - 1) + light(p, i + 1) + light(p, i - w) + light(p, i + w) - 4 * light(p, i),
      )
    }
  if (!values.length) return 0
  values.sort()
  return 100 * values[Math.floor(values.length * 0.995)]!
}
/** How restless the ground is: the mean step in lightness from pixel to pixel two apart, 0–1, where only ground was seen. */
export function groundGrain(p: Picture, what: Uint8Array, seen: Seen): number {
  let [sum, n] = [0, 0]
  for (let y = 1; y < seen.height - 1; y += 2)
    for (let x = 1; x < seen.width - 1; x += 2) {
      if (what[y * seen.width + x] !== 0 || what[y * seen.width + x + 1] !== 0) continue
      const i = 2 * y * p.width + 2 * x
      sum += Math.abs(light(p, i) - light(p, i + 2))
      n++
    }
  return n ? sum / n : 0
}
