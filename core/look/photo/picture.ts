/** A picture as the network wants it: planes of red, green and blue, 0–1. */
export interface Picture {
  width: number
  height: number
  rgb: Float32Array
}
const grain = 16
const toGrain = (n: number): number => Math.max(grain, Math.round(n / grain) * grain)

/**
 * Shrinks RGBA pixels (rows from the top, 0–255) to about `longSide` by averaging areas; both sides become multiples of 16.
 * @throws RangeError when the pixels do not fit width × height.
 */
export function shrunk(
  rgba: Uint8ClampedArray | Uint8Array,
  width: number,
  height: number,
  longSide: number,
): Picture {
  if (rgba.length !== width * height * 4 || width < 1 || height < 1)
    throw new RangeError(`Expected ${width} × ${height} RGBA pixels`)
  const k = longSide / Math.max(width, height)
  const [w, h] = [toGrain(width * k), toGrain(height * k)]
  const n = w * h
  const rgb = new Float32Array(3 * n)
  const columns = Array.from({ length: w }, (_, x) => span(x, w, width))
  for (let y = 0; y < h; y++) {
    const [y0, y1] = span(y, h, height)
    for (let x = 0; x < w; x++) {
      const column = columns[x]!
      const [x0, x1] = [column[0], column[1]]
      let r = 0
      let g = 0
      let b = 0
      // Every second pixel is enough once many fall into one.
      const step = x1 - x0 >= 5 ? 2 : 1
      let m = 0
      for (let yy = y0; yy < y1; yy += step)
        for (let xx = x0; xx < x1; xx += step) {
          const p = (yy * width + xx) * 4
          r += rgba[p]!
          g += rgba[p + 1]!
          b += rgba[p + 2]!
          m++
        }
      const i = y * w + x
      rgb[i] = r / m / 255
      rgb[n + i] = g / m / 255
      rgb[2 * n + i] = b / m / 255
    }
  }
  return { width: w, height: h, rgb }
}
/**
 * A photo of many millions of dots at a half, a third … of its size, no smaller than `longSide`: each dot the mean of a
 * square of them, so that what is shrunk from it several times is not gone through whole each time.
 */
export function coarser(
  rgba: Uint8ClampedArray | Uint8Array,
  width: number,
  height: number,
  longSide: number,
): { data: Uint8ClampedArray | Uint8Array; width: number; height: number } {
  const k = Math.floor(Math.max(width, height) / longSide)
  if (k < 2 || Math.min(width, height) < k || rgba.length !== width * height * 4)
    return { data: rgba, width, height }
  const [w, h] = [Math.floor(width / k), Math.floor(height / k)]
  const data = new Uint8ClampedArray(w * h * 4)
  const part = 1 / (k * k)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let r = 0
      let g = 0
      let b = 0
      for (let row = 0; row < k; row++) {
        let p = ((y * k + row) * width + x * k) * 4
        for (let column = 0; column < k; column++, p += 4) {
          r += rgba[p]!
          g += rgba[p + 1]!
          b += rgba[p + 2]!
        }
      }
      const i = (y * w + x) * 4
      data[i] = r * part
      data[i + 1] = g * part
      data[i + 2] = b * part
      data[i + 3] = 255
    }
  return { data, width: w, height: h }
}
const span = (i: number, of: number, from: number): [number, number] => {
  const a = Math.floor((i * from) / of)
  return [Math.min(a, from - 1), Math.max(Math.min(a, from - 1) + 1, Math.floor(((i + 1) * from) / of))]
}

/** How a picture is shown: as in a mirror beside it (`across`), below it (`down`); both are half a turn. */
export interface Turned {
  across: boolean
  down: boolean
}
export function turned(p: Picture, { across, down }: Turned): Picture {
  const { width: w, height: h } = p
  const n = w * h
  const rgb = new Float32Array(p.rgb.length)
  for (let c = 0; c < 3; c++)
    for (let y = 0; y < h; y++) {
      const [to, from] = [c * n + y * w, c * n + (down ? h - 1 - y : y) * w]
      for (let x = 0; x < w; x++) rgb[to + x] = p.rgb[from + (across ? w - 1 - x : x)]!
    }
  return { ...p, rgb }
}
/** Brought to a middling light, so that a dim kitchen looks like a bright one: a mean of 0.46, at most six times brighter. */
export function lit(p: Picture): Picture {
  let sum = 0
  for (let i = 0; i < p.rgb.length; i++) sum += p.rgb[i]!
  const k = Math.min(6, Math.max(0.6, 0.46 / Math.max(0.01, sum / p.rgb.length)))
  const rgb = new Float32Array(p.rgb.length)
  for (let i = 0; i < rgb.length; i++) rgb[i] = Math.min(1, p.rgb[i]! * k)
  return { ...p, rgb }
}
