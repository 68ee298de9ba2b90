import type { LabImage } from './image.ts'

/** How far each pixel is from the ground, with what looks like shadow taken out. */
export interface Distance {
  d: Float32Array
  /** Spread of the ground itself (robust standard deviation): grain, weave, noise. */
  noise: number
}

const terms = 6
/** Length of a vector; Math.hypot guards against overflow we cannot meet and costs ten times as much. */
const length3 = (x: number, y: number, z: number): number => Math.sqrt(x * x + y * y + z * z)

/** Solves the 6 × 6 normal equations by Gaussian elimination with pivoting; null when singular. */
function solve(m: number[][]): number[] | null {
  for (let c = 0; c < terms; c++) {
    let p = c
    for (let r = c + 1; r < terms; r++) if (Math.abs(m[r]![c]!) > Math.abs(m[p]![c]!)) p = r
    if (Math.abs(m[p]![c]!) < 1e-9) return null
    ;[m[c], m[p]] = [m[p]!, m[c]!]
    for (let r = 0; r < terms; r++) {
      if (r === c) continue
      const k = m[r]![c]! / m[c]![c]!
      for (let j = c; j <= terms; j++) m[r]![j]! -= k * m[c]![j]!
    }
  }
  return m.map((row, i) => row[terms]! / row[i]!)
}

function fit(plane: Float32Array, w: number, h: number, picks: readonly number[]): number[] | null {
  const m = Array.from({ length: terms }, () => new Array<number>(terms + 1).fill(0))
  const v = new Float64Array(terms)
  // One in three of a dense grid settles six coefficients.
  for (let p = 0; p < picks.length; p += picks.length > 9000 ? 3 : 1) {
    const i = picks[p]!
    const [x, y] = [(i % w) / w - 0.5, Math.floor(i / w) / h - 0.5]
    v[0] = 1
    v[1] = x
    v[2] = y
    v[3] = x * x
    v[4] = x * y
    v[5] = y * y
    for (let r = 0; r < terms; r++) {
      const row = m[r]!
      for (let c = 0; c < terms; c++) row[c]! += v[r]! * v[c]!
      row[terms]! += v[r]! * plane[i]!
    }
  }
  for (let r = 0; r < terms; r++) m[r]![r]! += 1e-4 * picks.length
  return solve(m)
}
const valueAt = (k: readonly number[], x: number, y: number): number =>
  k[0]! + k[1]! * x + k[2]! * y + k[3]! * x * x + k[4]! * x * y + k[5]! * y * y

/** Lightness matters half as much as hue: lamp light changes it most. */
const lightness = 0.55

/**
 * Models the ground as a smooth surface in each channel, fitted again and again on what still looks like ground,
 * so that lamp fall-off and vignettes disappear. `inside` limits it to part of the picture (a sheet of paper).
 */
export function groundDistance(image: LabImage, inside?: Uint8Array): Distance {
  const { width: w, height: h, l, a, b } = image
  const grid: number[] = []
  for (let y = 1; y < h; y += 3)
    for (let x = 1; x < w; x += 3) if (!inside || inside[y * w + x]) grid.push(y * w + x)
  let picks = startFrom(image, grid)
  let ks = [l, a, b].map((p) => fit(p, w, h, picks))
  const residual = (i: number): number => {
    const [x, y] = [(i % w) / w - 0.5, Math.floor(i / w) / h - 0.5]
    return length3(
      lightness * (l[i]! - valueAt(ks[0]!, x, y)),
      a[i]! - valueAt(ks[1]!, x, y),
      b[i]! - valueAt(ks[2]!, x, y),
    )
  }
  let noise = 4
  for (let round = 0; round < 7 && ks.every((k) => k !== null); round++) {
    const rs = grid.map(residual)
    const sorted = Float32Array.from(rs).sort()
    // The nearest half is ground in any picture whose things cover less than half of it.
    noise = Math.max(1.2, 1.25 * sorted[Math.floor(sorted.length * 0.4)]!)
    const limit = Math.max(5, 2.8 * noise)
    const next = grid.filter((_, k) => rs[k]! < limit)
    if (next.length < 40) break
    picks = next
    ks = [l, a, b].map((p) => fit(p, w, h, picks))
  }
  const d = new Float32Array(w * h)
  const [k0, k1, k2] = ks
  if (!k0 || !k1 || !k2) return { d, noise }
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i++) {
      if (inside && !inside[i]) continue
      const u = x / w - 0.5
      const v = y / h - 0.5
      const gl = valueAt(k0, u, v)
      const ga = valueAt(k1, u, v)
      const gb = valueAt(k2, u, v)
      const dl = l[i]! - gl
      let da = a[i]! - ga
      let db = b[i]! - gb
      let light = lightness * dl
      if (dl < 0) {
        // A shadow is the same hue, darker: its chroma shrinks with its lightness.
        const k = Math.max(0.2, l[i]! / Math.max(5, gl))
        const sa = a[i]! - ga * k
        const sb = b[i]! - gb * k
        if (sa * sa + sb * sb < da * da + db * db) {
          da = sa
          db = sb
        }
        const depth = -dl / Math.max(10, gl)
        // Cast shadows on a table darken by up to about four tenths; darker than that is a thing.
        if (da * da + db * db < 81 && depth < 0.42) light *= 0.3
      }
      d[i] = length3(light, da, db)
    }
  return { d, noise }
}

/** Starts from the commonest colour in a coarse histogram, not the mean: things may be many and bright. */
function startFrom(image: LabImage, grid: readonly number[]): number[] {
  const bins = new Map<number, number[]>()
  for (const i of grid) {
    const key =
      Math.floor(image.l[i]! / 14) * 10000 +
      Math.floor((image.a[i]! + 128) / 10) * 100 +
      Math.floor((image.b[i]! + 128) / 10)
    const bin = bins.get(key)
    if (bin) bin.push(i)
    else bins.set(key, [i])
  }
  const sorted = [...bins.values()].sort((x, y) => y.length - x.length)
  const out: number[] = []
  // Neighbouring shades of one ground fall into several bins.
  const first = sorted[0] ?? []
  const mean = (p: Float32Array, of: readonly number[]) =>
    of.reduce((s, i) => s + p[i]!, 0) / Math.max(1, of.length)
  const [ml, ma, mb] = [mean(image.l, first), mean(image.a, first), mean(image.b, first)]
  for (const bin of sorted) {
    const far = Math.hypot((mean(image.l, bin) - ml) * 0.5, mean(image.a, bin) - ma, mean(image.b, bin) - mb)
    if (far < 14) out.push(...bin)
  }
  return out.length >= 40 ? out : [...grid]
}
