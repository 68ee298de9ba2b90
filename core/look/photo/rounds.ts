import { holds, type Point } from '../../plane.ts'
import { grown, least, line, type Map2, type Place, plate, sheet, solidPlates, thing } from './map.ts'
import {
  areaOf,
  cornersOf,
  ellipseOf,
  ellipseShare,
  hullOf,
  lengthOf,
  type Region,
  regions,
} from './regions.ts'

/** Cards with dots, slips and mats beside each other: straight-sided sheets, two or more; one alone is paper under things. */
export function cards(map: Map2): Place[] {
  const { width: w, height: h } = map
  const n = w * h
  const solid = solidPlates(map, [sheet])
  const found = solid.list.flatMap((r): Place[] => {
    if (r.area < least.plate * n || r.area > 0.4 * n) return []
    const hull = hullOf(solid.labels, w, r)
    const corners = cornersOf(hull)
    if (!corners || areaOf(corners) < 0.86 * areaOf(hull) || r.area < 0.82 * areaOf(hull)) return []
    return [{ kind: 'card', outline: corners, x: r.x, y: r.y, area: r.area, inside: [] }]
  })
  return found.length > 1 ? found : []
}
/** A sheet or a cell has straight sides: its four corners hold nearly all of it, where a round's hold two thirds. */
function isSquare(labels: Int32Array, w: number, r: Region): boolean {
  if (labels.indexOf(r.label) < 0) return false
  const hull = hullOf(labels, w, r)
  const corners = cornersOf(hull)
  return corners !== null && areaOf(corners) > 0.82 * areaOf(hull)
}
const rim = (r: Region): Point[] => {
  const { a, b, turn } = ellipseOf(r)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return Array.from({ length: 24 }, (_, k) => {
    const t = (k / 24) * 2 * Math.PI
    return [
      r.x + a * Math.cos(t) * c - b * Math.sin(t) * s,
      r.y + a * Math.cos(t) * s + b * Math.sin(t) * c,
    ] as const
  })
}
export function plates(map: Map2): Place[] {
  const { width: w, height: h } = map
  // A pale plate and a sheet of paper look alike; their outline tells them apart.
  const solid = solidPlates(map, [plate, sheet])
  return solid.list
    .flatMap((r) => (r.area > least.plate * w * h ? parted(solid.labels, w, r) : []))
    .flatMap((r) => {
      const { a, b } = ellipseOf(r)
      if (
        r.area < least.plate * w * h * 0.6 ||
        a / b > 1.75 ||
        ellipseShare(r) < 0.9 ||
        (solid.list.includes(r) && isSquare(solid.labels, w, r))
      )
        return []
      return [{ kind: 'plate' as const, outline: rim(r), x: r.x, y: r.y, area: r.area, inside: [] }]
    })
}
/** Two plates that touch, taken apart: worn down from the rim until they let go, then grown back to where they were. */
function parted(labels: Int32Array, w: number, whole: Region): Region[] {
  if (ellipseShare(whole) > 0.95 && lengthOf(whole) < 1.6) return [whole]
  // In a box of its own, with a free edge round it.
  const [bw, bh] = [whole.right - whole.left + 3, whole.bottom - whole.top + 3]
  let mask = new Uint8Array(bw * bh)
  for (let y = 1; y < bh - 1; y++)
    for (let x = 1; x < bw - 1; x++)
      mask[y * bw + x] = labels[(whole.top + y - 1) * w + whole.left + x - 1] === whole.label ? 1 : 0
  for (let worn = 1; worn < 24; worn++) {
    const next = new Uint8Array(bw * bh)
    for (let y = 1; y < bh - 1; y++)
      for (let x = 1; x < bw - 1; x++) {
        const i = y * bw + x
        next[i] = mask[i]! & mask[i - 1]! & mask[i + 1]! & mask[i - bw]! & mask[i + bw]!
      }
    mask = next
    const left = regions(bw * bh, bw, (i) => mask[i] === 1, true).list.filter(
      (r) => r.area > 0.1 * whole.area,
    )
    if (left.length > 1)
      return left.map((r) => {
        // Worn by so many pixels all round: its moments grow back with it.
        const { a, b } = ellipseOf(r)
        const [ka, kb] = [(a + worn) / a, (b + worn) / b]
        const k = (ka + kb) / 2
        const at = { x: r.x + whole.left - 1, y: r.y + whole.top - 1 }
        return { ...r, ...at, area: r.area * ka * kb, xx: r.xx * k * k, xy: r.xy * k * k, yy: r.yy * k * k }
      })
    if (!left.length) break
  }
  return [whole]
}
/** Drawn rings: what a closed line holds. */
export function rings(map: Map2): Place[] {
  const { width: w, height: h, what } = map
  const open = regions(w * h, w, (i) => what[i] !== line, true)
  return [
    ...open.list.filter((r) => isRound(r, w, h) && !isSquare(open.labels, w, r)).map(ringOf),
    ...crossedRings(map),
  ]
}
const ringOf = (r: Region): Place => ({
  kind: 'ring',
  outline: rim(r),
  x: r.x,
  y: r.y,
  area: r.area,
  inside: [],
})
function isRound(r: Region, w: number, h: number): boolean {
  if (r.left === 0 || r.top === 0 || r.right === w - 1 || r.bottom === h - 1) return false
  return r.area >= least.ring * w * h && lengthOf(r) <= 2 && ellipseShare(r) >= 0.93
}
/** How much of the outline of a ring is a line, and how much is a line or a thing that lies on it. */
const outlined = { line: 0.45, all: 0.85 } as const
/** Rings whose line things lie on, or that has gaps of a pixel or two: what line and things hold between them. */
function crossedRings({ width: w, height: h, what }: Map2): Place[] {
  const n = w * h
  const inked = grown(what, w, line)
  const heaps = regions(n, w, (i) => what[i] === thing)
  const onLine = new Set<number>()
  for (let i = 0; i < n; i++) if (inked[i] && heaps.labels[i]) onLine.add(heaps.labels[i]!)
  const open = regions(n, w, (i) => !inked[i] && !onLine.has(heaps.labels[i]!), true)
  return open.list.flatMap((r) => {
    if (r.area < 0.5 * least.ring * n || r.area > 0.4 * n) return []
    const hull = hullOf(open.labels, w, r)
    const { list, labels } = regions(n, w, (i) => {
      const [x, y] = [i % w, Math.floor(i / w)]
      const isNear = x >= r.left && x <= r.right && y >= r.top && y <= r.bottom
      return isNear && holds(hull, [x + 0.5, y + 0.5])
    })
    const filled = list[0]
    if (!filled || !isRound(filled, w, h) || isSquare(labels, w, filled)) return []
    // Its inside reaches to half a pixel of the line as it was grown.
    const place = ringOf({ ...filled, xx: wider(filled.xx), yy: wider(filled.yy) })
    let [lines, things] = [0, 0]
    for (const [x, y] of place.outline) {
      const near = (is: (i: number) => boolean) => nearby([x, y], { w, h }, is)
      if (near((i) => inked[i] === 1)) lines++
      else if (near((i) => what[i] === thing)) things++
    }
    const all = place.outline.length
    return lines >= outlined.line * all && lines + things >= outlined.all * all ? [place] : []
  })
}
const wider = (moment: number): number => (Math.sqrt(moment) + 0.75) ** 2
/** Whether anything within two pixels is so. */
function nearby([x, y]: Point, { w, h }: { w: number; h: number }, is: (i: number) => boolean): boolean {
  for (let py = Math.max(0, Math.round(y) - 2); py <= Math.min(h - 1, Math.round(y) + 2); py++)
    for (let px = Math.max(0, Math.round(x) - 2); px <= Math.min(w - 1, Math.round(x) + 2); px++)
      if (is(py * w + px)) return true
  return false
}
