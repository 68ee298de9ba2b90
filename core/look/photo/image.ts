/** A picture in CIE Lab at working size: three planes of `width * height` values. */
export interface LabImage {
  width: number
  height: number
  /** Pixels of the original for one working pixel. */
  scale: number
  l: Float32Array
  a: Float32Array
  b: Float32Array
}

/** Linear light, 0–1, of an sRGB value of 0–255. */
export const linear = Float32Array.from({ length: 256 }, (_, v) => {
  const c = v / 255
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
})
const f = (t: number): number => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116)

/**
 * Shrinks RGBA pixels to `longSide` by averaging areas and converts to Lab (D65).
 * @throws RangeError when the pixels do not fit width × height.
 */
export function toLab(
  rgba: Uint8ClampedArray | Uint8Array,
  width: number,
  height: number,
  longSide: number,
): LabImage {
  if (rgba.length !== width * height * 4 || width < 1 || height < 1)
    throw new RangeError(`Expected ${width} × ${height} RGBA pixels`)
  const scale = Math.max(1, Math.max(width, height) / longSide)
  const w = Math.max(1, Math.floor(width / scale))
  const h = Math.max(1, Math.floor(height / scale))
  const sums = new Float32Array(w * h * 3)
  const counts = new Uint16Array(w * h)
  const column = Uint16Array.from({ length: width }, (_, x) => Math.min(w - 1, Math.floor(x / scale)))
  // Every second pixel is enough once four or more fall into one.
  const stride = scale >= 4 ? 2 : 1
  for (let y = 0; y < height; y += stride) {
    const row = Math.min(h - 1, Math.floor(y / scale)) * w
    let p = y * width * 4
    for (let x = 0; x < width; x += stride, p += 4 * stride) {
      const i = row + column[x]!
      sums[i * 3]! += linear[rgba[p]!]!
      sums[i * 3 + 1]! += linear[rgba[p + 1]!]!
      sums[i * 3 + 2]! += linear[rgba[p + 2]!]!
      counts[i]!++
    }
  }
  const out: LabImage = {
    width: w,
    height: h,
    scale,
    l: new Float32Array(w * h),
    a: new Float32Array(w * h),
    b: new Float32Array(w * h),
  }
  for (let i = 0; i < w * h; i++) {
    const n = counts[i] || 1
    const [r, g, bl] = [sums[i * 3]! / n, sums[i * 3 + 1]! / n, sums[i * 3 + 2]! / n]
    const fx = f((0.4124 * r + 0.3576 * g + 0.1805 * bl) / 0.9505)
    const fy = f(0.2126 * r + 0.7152 * g + 0.0722 * bl)
    const fz = f((0.0193 * r + 0.1192 * g + 0.9505 * bl) / 1.089)
    out.l[i] = 116 * fy - 16
    out.a[i] = 500 * (fx - fy)
    out.b[i] = 200 * (fy - fz)
  }
  return out
}

/** Box blur of radius r, in place of a Gaussian when run twice. */
export function blur(plane: Float32Array, w: number, h: number, r: number): Float32Array {
  const pass = (
    src: Float32Array,
    lines: number,
    length: number,
    step: number,
    jump: number,
  ): Float32Array => {
    const out = new Float32Array(src.length)
    for (let k = 0; k < lines; k++) {
      const base = k * jump
      let sum = 0
      for (let i = -r; i <= r; i++) sum += src[base + Math.min(length - 1, Math.max(0, i)) * step]!
      for (let i = 0; i < length; i++) {
        out[base + i * step] = sum / (2 * r + 1)
        sum += src[base + Math.min(length - 1, i + r + 1) * step]! - src[base + Math.max(0, i - r) * step]!
      }
    }
    return out
  }
  return pass(pass(plane, h, w, 1, w), w, h, w, 1)
}

/** Sharpness: variance of the Laplacian of lightness. A clear photo of things has well over 3 at working size. */
export function sharpness(image: LabImage): number {
  const { l, width: w, height: h } = image
  let sum = 0
  let squares = 0
  let n = 0
  for (let y = 1; y < h - 1; y += 1)
    for (let x = 1; x < w - 1; x += 1) {
      const i = y * w + x
      const v = l[i - 1]! + l[i + 1]! + l[i - w]! + l[i + w]! - 4 * l[i]!
      sum += v
      squares += v * v
      n++
    }
  return n ? squares / n - (sum / n) ** 2 : 0
}
