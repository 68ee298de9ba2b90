import type { PhotoReading, PhotoThing } from '../../contracts/reading.ts'
import { groundDistance } from './ground.ts'
import { blur, type LabImage, sharpness, toLab } from './image.ts'
import { type Blob, close, components, distance, erode, fillHoles, maskOf, open, otsu } from './mask.ts'

/** Raised whenever photos may be read otherwise than before: what an older reader made is read anew. */
export const readerVersion = 1

/** Constants of photo reading; lengths in working pixels, areas as shares of the picture. */
const seeing = {
  longSide: 800,
  /** Least distance from the ground, in Lab units, that can be a thing: a just clearly seen difference. */
  leastDistance: 9,
  smallest: 0.00025,
  /** A part this large is a sheet, tray or box the things lie on, not a thing. */
  sheet: 0.09,
  /** Against the photo's own median size: below the first a speck, above the second more than one. */
  speck: 0.28,
  several: 1.45,
} as const

interface Found {
  x: number
  y: number
  r: number
  area: number
  l: number
  a: number
  b: number
  cutOff: boolean
  shared: boolean
}

/**
 * Counts the small things in a photo. `rgba`: width × height × 4 bytes, upright.
 * Uncertain is a result: `low` and `high` hold every count the evidence allows.
 * @throws RangeError when the pixels do not fit the size.
 */
export function readPhoto(rgba: Uint8ClampedArray | Uint8Array, width: number, height: number): PhotoReading {
  const image = toLab(rgba, width, height, seeing.longSide)
  const sharp = sharpness(image)
  for (const plane of ['l', 'a', 'b'] as const)
    image[plane] = blur(blur(image[plane], image.width, image.height, 1), image.width, image.height, 1)
  const { mask, busy } = thingMask(image)
  const { found, alternatives } = separate(image, mask)
  return summarise(image, found, alternatives, { width, height, sharp, busy })
}

/** Pixels that belong to things, looking inside a sheet or tray when there is one. */
function thingMask(image: LabImage): { mask: Uint8Array; busy: boolean } {
  const { width: w, height: h } = image
  const outer = foreground(image)
  let mask: Uint8Array = outer.mask
  const { labels, blobs } = components(mask, w, h)
  for (const sheet of blobs.filter((b) => b.area > seeing.sheet * w * h)) {
    const solid = fillHoles(
      maskOf(labels.length, (i) => labels[i] === sheet.label),
      w,
      h,
      w * h,
    )
    // Its rim is blurred into the table and carries its own shadow.
    const inside = erode(solid, w, h, Math.max(3, Math.round(w / 160)))
    const inner = foreground(image, inside)
    const covered =
      inner.mask.reduce((s, m) => s + m, 0) /
      Math.max(
        1,
        inside.reduce((s, m) => s + m, 0),
      )
    // A heap of touching things is not a sheet: nothing in it is common ground.
    if (covered > 0.6) continue
    const before = mask
    mask = maskOf(before.length, (i) => (solid[i] ? inner.mask[i] === 1 : before[i] === 1))
  }
  return { mask, busy: outer.noise > 7 }
}

function foreground(image: LabImage, inside?: Uint8Array): { mask: Uint8Array; noise: number } {
  const { width: w, height: h } = image
  const { d, noise } = groundDistance(image, inside)
  const threshold = Math.min(Math.max(seeing.leastDistance, 3.2 * noise, otsu(d, 60, inside) * 0.8), 34)
  const raw = maskOf(d.length, (i) => d[i]! > threshold)
  const r = Math.max(1.5, w / 400)
  const filled = fillHoles(close(raw, w, h, r), w, h, 0.02 * w * h)
  return { mask: open(filled, w, h, r * 1.5), noise }
}

/** Parts the mask into single things: by size against the photo's own, and by peaks of the distance to the outline. */
function separate(image: LabImage, mask: Uint8Array): { found: Found[]; alternatives: number[] } {
  const { width: w, height: h } = image
  const { labels, blobs } = components(mask, w, h)
  const large = blobs.filter(
    (b) => b.area > seeing.smallest * w * h && b.area < seeing.sheet * w * h && !isStroke(b),
  )
  if (!large.length) return { found: [], alternatives: [0, 0] }
  const d = distance(mask, w, h)
  const depth = new Float32Array(blobs.length + 1)
  for (let i = 0; i < d.length; i++) if (labels[i] && d[i]! > depth[labels[i]!]!) depth[labels[i]!] = d[i]!
  const round = large.filter((b) => b.area < 1.5 * Math.PI * depth[b.label]!)
  const unit = unitArea(round.length >= 2 || round.length === large.length ? round : large)
  const unitDepth = Math.sqrt(median((round.length ? round : large).map((b) => depth[b.label]!)))
  const whole = large.filter((b) => b.area > seeing.speck * unit)
  const found: Found[] = []
  let [byArea, byPeaks] = [0, 0]
  for (const b of whole) {
    const share = Math.max(1, Math.round(b.area / unit))
    const solid = b.area < 1.45 * Math.PI * depth[b.label]!
    const peaks = b.area > seeing.several * unit && !solid ? peaksIn(b, labels, d, w, unitDepth) : []
    const n = Math.max(1, peaks.length)
    byPeaks += n
    byArea += solid ? 1 : share
    if (n === 1) found.push(describe(image, labels, b, [b.x, b.y, Math.sqrt(b.area / Math.PI)], false))
    else for (const p of peaks) found.push(describe(image, labels, b, p, true))
  }
  const doubtful = large.filter(
    (b) => b.area > seeing.speck * 0.6 * unit && b.area < seeing.speck * 1.7 * unit,
  ).length
  const strict =
    whole.filter((b) => b.area > seeing.speck * 1.7 * unit).length + (found.length - whole.length)
  return {
    found,
    alternatives: [
      byArea,
      byPeaks,
      Math.min(strict, byPeaks),
      byPeaks +
        large.filter((b) => b.area <= seeing.speck * unit && b.area > seeing.speck * 0.6 * unit).length *
          (doubtful ? 1 : 0),
    ],
  }
}
/** Drawn lines and frames: long and thin. */
const isStroke = (b: Blob): boolean => {
  const [bw, bh] = [b.right - b.left + 1, b.bottom - b.top + 1]
  return Math.max(bw, bh) / Math.min(bw, bh) > 7 || b.area < 0.16 * bw * bh
}
/** The area of one thing: the median of parts, leaving out specks well under the largest. */
function unitArea(blobs: readonly Blob[]): number {
  const areas = blobs.map((b) => b.area).sort((x, y) => x - y)
  const upper = areas.filter((a) => a > areas.at(-1)! * 0.12)
  return median(upper)
}
const median = (xs: readonly number[]): number => {
  const s = [...xs].sort((x, y) => x - y)
  return s[Math.floor((s.length - 1) / 2)] ?? 0
}

/** Centres of the things in a clump: local maxima of depth that stand clear of each other. */
function peaksIn(
  b: Blob,
  labels: Int32Array,
  d: Float32Array,
  w: number,
  unitDepth: number,
): [number, number, number][] {
  const tops: [number, number, number][] = []
  const least = (unitDepth * 0.55) ** 2
  for (let y = b.top; y <= b.bottom; y++)
    for (let x = b.left; x <= b.right; x++) {
      const i = y * w + x
      const v = d[i]!
      if (labels[i] !== b.label || v < least) continue
      if (v >= (d[i - 1] ?? 0) && v >= (d[i + 1] ?? 0) && v >= (d[i - w] ?? 0) && v >= (d[i + w] ?? 0))
        tops.push([x, y, Math.sqrt(v)])
    }
  tops.sort((p, q) => q[2] - p[2])
  const kept: [number, number, number][] = []
  for (const t of tops)
    // Two centres of touching round things lie about two radii apart; nearer ones are one thing's ridge.
    if (
      kept.every(
        (k) =>
          Math.hypot(k[0] - t[0], k[1] - t[1]) > 0.62 * (k[2] + t[2]) + 0.3 * unitDepth &&
          saddle(k, t, d, w) < 0.86 * Math.min(k[2], t[2]),
      )
    )
      kept.push(t)
  return kept
}
/** Least depth along the straight way between two peaks. */
function saddle(
  p: readonly [number, number, number],
  q: readonly [number, number, number],
  d: Float32Array,
  w: number,
): number {
  const n = Math.ceil(Math.hypot(p[0] - q[0], p[1] - q[1]))
  let least = Infinity
  for (let k = 0; k <= n; k++)
    least = Math.min(
      least,
      d[Math.round(p[1] + ((q[1] - p[1]) * k) / n) * w + Math.round(p[0] + ((q[0] - p[0]) * k) / n)]!,
    )
  return Math.sqrt(least)
}

function describe(
  image: LabImage,
  labels: Int32Array,
  b: Blob,
  [x, y, r]: readonly [number, number, number],
  shared: boolean,
): Found {
  const { width: w, height: h } = image
  const reach = Math.max(2, r * 0.75)
  let n = 0
  const sum = [0, 0, 0]
  for (let yy = Math.max(0, Math.floor(y - reach)); yy <= Math.min(h - 1, y + reach); yy++)
    for (let xx = Math.max(0, Math.floor(x - reach)); xx <= Math.min(w - 1, x + reach); xx++) {
      const i = yy * w + xx
      if (labels[i] !== b.label || Math.hypot(xx - x, yy - y) > reach) continue
      // Highlights are the lamp's colour, not the thing's.
      if (image.l[i]! > 92) continue
      sum[0]! += image.l[i]!
      sum[1]! += image.a[i]!
      sum[2]! += image.b[i]!
      n++
    }
  n ||= 1
  return {
    x,
    y,
    r,
    area: Math.PI * r * r,
    l: sum[0]! / n,
    a: sum[1]! / n,
    b: sum[2]! / n,
    shared,
    cutOff: b.left <= 1 || b.top <= 1 || b.right >= w - 2 || b.bottom >= h - 2,
  }
}

/** Groups by colour: things join the group whose mean is nearest, within 20 Lab units (lightness at a third). */
function colourGroups(found: readonly Found[]): { name: string; members: Found[] }[] {
  const groups: { l: number; a: number; b: number; members: Found[] }[] = []
  for (const f of found) {
    const near = groups
      .map((g) => ({ g, far: Math.hypot((g.l - f.l) * 0.35, g.a - f.a, g.b - f.b) }))
      .sort((p, q) => p.far - q.far)[0]
    if (near && near.far < 20) {
      const n = near.g.members.push(f)
      for (const k of ['l', 'a', 'b'] as const) near.g[k] += (f[k] - near.g[k]) / n
    } else groups.push({ l: f.l, a: f.a, b: f.b, members: [f] })
  }
  return groups
    .map((g) => ({ name: colourName(g.l, g.a, g.b), members: g.members }))
    .sort((p, q) => q.members.length - p.members.length)
}
function colourName(l: number, a: number, b: number): string {
  const chroma = Math.hypot(a, b)
  if (chroma < 12) return l > 72 ? 'white' : l < 28 ? 'black' : 'grey'
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
  if (hue < 20 || hue >= 340) return l > 60 ? 'pink' : 'red'
  if (hue < 50) return l > 62 ? 'orange' : 'red'
  if (hue < 72) return l < 50 ? 'brown' : 'orange'
  if (hue < 105) return l < 45 ? 'brown' : 'yellow'
  if (hue < 190) return 'green'
  if (hue < 300) return 'blue'
  return 'purple'
}

/** Heaps: things nearer than two and a half of their widths belong together. */
function heaps(found: readonly Found[]): number[] {
  const left = new Set(found)
  const sizes: number[] = []
  for (const start of found) {
    if (!left.delete(start)) continue
    let size = 0
    const queue = [start]
    while (queue.length) {
      const f = queue.pop()!
      size++
      for (const g of left)
        if (Math.hypot(f.x - g.x, f.y - g.y) < 2.5 * (f.r + g.r)) {
          left.delete(g)
          queue.push(g)
        }
    }
    sizes.push(size)
  }
  return sizes.sort((p, q) => q - p)
}

function summarise(
  image: LabImage,
  found: readonly Found[],
  alternatives: readonly number[],
  photo: { width: number; height: number; sharp: number; busy: boolean },
): PhotoReading {
  const groups = colourGroups(found)
  const count = found.length
  const things: PhotoThing[] = groups.flatMap((g) =>
    g.members.map((f) => ({
      x: Math.round((f.x + 0.5) * image.scale),
      y: Math.round((f.y + 0.5) * image.scale),
      r: Math.round(f.r * image.scale),
      colour: g.name,
      cutOff: f.cutOff,
    })),
  )
  inReadingOrder(things)
  const warnings: PhotoReading['warnings'] = []
  const radius = median(found.map((f) => f.r))
  const light = image.l.reduce((s, v) => s + v, 0) / image.l.length
  if (photo.sharp < 1.2 && count) warnings.push('blurred')
  if (light < 24) warnings.push('dark')
  if (count && radius < 6) warnings.push('too small')
  if (found.some((f) => f.shared)) warnings.push('touching')
  if (found.some((f) => f.cutOff)) warnings.push('cut off')
  if (!count) warnings.push('nothing found')
  if (photo.busy) warnings.push('busy ground')
  const cut = found.filter((f) => f.cutOff).length
  const merged = mergeNames(groups)
  return {
    width: photo.width,
    height: photo.height,
    count,
    low: Math.max(0, Math.min(count - cut, ...alternatives)),
    high: Math.max(count, ...alternatives),
    groups: merged,
    places: heaps(found),
    things: things.slice(0, 400),
    warnings,
  }
}
/** Orders things in rows from top left, whichever way the photo was tilted: the tilt (±15°) at which rows are flattest. */
function inReadingOrder(things: PhotoThing[]): void {
  const r = median(things.map((t) => t.r)) || 1
  const rowsAt = (angle: number) => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    const turned = things
      .map((t) => ({ t, x: t.x * c + t.y * s, y: t.y * c - t.x * s }))
      .sort((p, q) => p.y - q.y)
    let [row, top, spread] = [0, turned[0]?.y ?? 0, 0]
    const placed = turned.map((p) => {
      if (p.y - top > 1.3 * r) {
        row++
        top = p.y
      }
      spread += p.y - top
      return { ...p, row }
    })
    return { placed, cost: spread + row * 0.6 * r }
  }
  let best = rowsAt(0)
  for (let degrees = 1.5; degrees <= 15; degrees += 1.5)
    for (const sign of [1, -1]) {
      const other = rowsAt((sign * degrees * Math.PI) / 180)
      if (other.cost < best.cost) best = other
    }
  best.placed.sort((p, q) => p.row - q.row || p.x - q.x).forEach((p, i) => (things[i] = p.t))
}

function mergeNames(groups: readonly { name: string; members: Found[] }[]): PhotoReading['groups'] {
  const byName = new Map<string, number>()
  for (const g of groups) byName.set(g.name, (byName.get(g.name) ?? 0) + g.members.length)
  return [...byName].map(([colour, n]) => ({ colour, count: n })).sort((p, q) => q.count - p.count)
}
