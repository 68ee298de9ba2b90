/** Otsu's threshold of values clamped to 0 … top, in the unit of the values. */
export function otsu(values: Float32Array, top: number, inside?: Uint8Array): number {
  const bins = new Float64Array(128)
  let n = 0
  for (let i = 0; i < values.length; i++) {
    if (inside && !inside[i]) continue
    bins[Math.min(127, Math.floor((values[i]! / top) * 127))]!++
    n++
  }
  let total = 0
  for (let i = 0; i < 128; i++) total += i * bins[i]!
  let below = 0
  let sumBelow = 0
  let best = -1
  let at = 0
  for (let i = 0; i < 127; i++) {
    below += bins[i]!
    if (below === 0 || below === n) continue
    sumBelow += i * bins[i]!
    const between = below * (n - below) * (sumBelow / below - (total - sumBelow) / (n - below)) ** 2
    if (between > best) {
      best = between
      at = i
    }
  }
  return ((at + 0.5) / 127) * top
}

/** Builds a mask; `TypedArray.from` with a function walks an iterator and is many times slower. */
export function maskOf(n: number, set: (i: number) => boolean): Uint8Array {
  const out = new Uint8Array(n)
  for (let i = 0; i < n; i++) if (set(i)) out[i] = 1
  return out
}

const far = 1e9
/** Squared Euclidean distance of every set pixel to the nearest unset one (Felzenszwalb & Huttenlocher 2012). The outside counts as set. */
export function distance(mask: Uint8Array, w: number, h: number): Float32Array {
  const d = new Float32Array(mask.length)
  for (let i = 0; i < mask.length; i++) d[i] = mask[i] ? far : 0
  const size = Math.max(w, h)
  const [f, v, z] = [new Float32Array(size), new Int32Array(size), new Float32Array(size + 1)]
  const line = (base: number, step: number, n: number) => {
    for (let q = 0; q < n; q++) f[q] = d[base + q * step]!
    let k = 0
    v[0] = 0
    z[0] = -far
    z[1] = far
    for (let q = 1; q < n; q++) {
      let s: number
      for (;;) {
        const p = v[k]!
        s = (f[q]! + q * q - (f[p]! + p * p)) / (2 * q - 2 * p)
        if (s > z[k]! || k === 0) break
        k--
      }
      if (s <= z[k]! && k === 0) {
        v[0] = q
        z[0] = -far
        z[1] = far
        continue
      }
      v[++k] = q
      z[k] = s
      z[k + 1] = far
    }
    k = 0
    for (let q = 0; q < n; q++) {
      while (z[k + 1]! < q) k++
      d[base + q * step] = (q - v[k]!) ** 2 + f[v[k]!]!
    }
  }
  for (let x = 0; x < w; x++) line(x, w, h)
  for (let y = 0; y < h; y++) line(y * w, 1, w)
  return d
}

export function erode(mask: Uint8Array, w: number, h: number, r: number): Uint8Array {
  const d = distance(mask, w, h)
  return maskOf(d.length, (i) => d[i]! > r * r)
}
function dilate(mask: Uint8Array, w: number, h: number, r: number): Uint8Array {
  const d = distance(
    maskOf(mask.length, (i) => !mask[i]),
    w,
    h,
  )
  return maskOf(d.length, (i) => d[i]! <= r * r)
}
export const open = (mask: Uint8Array, w: number, h: number, r: number): Uint8Array =>
  dilate(erode(mask, w, h, r), w, h, r)
export const close = (mask: Uint8Array, w: number, h: number, r: number): Uint8Array =>
  erode(dilate(mask, w, h, r), w, h, r)

export interface Blob {
  label: number
  area: number
  x: number
  y: number
  left: number
  top: number
  right: number
  bottom: number
}

/** Eight-connected parts of a mask with their statistics, in one pass over the pixels a part. */
export function components(mask: Uint8Array, w: number, h: number): { labels: Int32Array; blobs: Blob[] } {
  const labels = new Int32Array(w * h)
  const blobs: Blob[] = []
  const stack: number[] = []
  for (let start = 0; start < w * h; start++) {
    if (!mask[start] || labels[start]) continue
    const label = blobs.length + 1
    const blob: Blob = { label, area: 0, x: 0, y: 0, left: w, top: h, right: 0, bottom: 0 }
    labels[start] = label
    stack.push(start)
    while (stack.length) {
      const i = stack.pop()!
      const x = i % w
      const y = (i - x) / w
      blob.area++
      blob.x += x
      blob.y += y
      if (x < blob.left) blob.left = x
      if (x > blob.right) blob.right = x
      if (y < blob.top) blob.top = y
      if (y > blob.bottom) blob.bottom = y
      for (let dy = -1; dy <= 1; dy++) {
        if (y + dy < 0 || y + dy >= h) continue
        for (let dx = -1; dx <= 1; dx++) {
          if (x + dx < 0 || x + dx >= w) continue
          const j = i + dy * w + dx
          if (mask[j] && !labels[j]) {
            labels[j] = label
            stack.push(j)
          }
        }
      }
    }
    blob.x /= blob.area
    blob.y /= blob.area
    blobs.push(blob)
  }
  return { labels, blobs }
}

/** Fills holes that the border cannot reach and that are smaller than `most` pixels. */
export function fillHoles(mask: Uint8Array, w: number, h: number, most: number): Uint8Array {
  const { labels, blobs } = components(
    maskOf(mask.length, (i) => !mask[i]),
    w,
    h,
  )
  const hole = blobs.map(
    (b) => b.left > 0 && b.top > 0 && b.right < w - 1 && b.bottom < h - 1 && b.area < most,
  )
  return maskOf(mask.length, (i) => mask[i] === 1 || hole[labels[i]! - 1] === true)
}
