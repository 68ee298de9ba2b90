import { describe, expect, test } from 'vitest'
import type { Picture } from './picture.ts'
import { inkOf, isCrossed, lightOf, tallyIn } from './strokes.ts'

/** Paper under a lamp, with a pen: light falls off across it, and every pixel is a little off. */
function paper(seed: number, lamp = 0.25): { page: Picture; stroke: Pen; disc: Disc } {
  const [width, height] = [480, 360]
  const n = width * height
  const rgb = new Float32Array(3 * n)
  let state = seed * 2654435761 || 1
  const noise = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32 - 0.5
  }
  for (let i = 0; i < n; i++) {
    const v = 0.9 - (lamp * (i % width)) / width + 0.04 * noise()
    for (let c = 0; c < 3; c++) rgb[c * n + i] = v - c * 0.02
  }
  const put = (x: number, y: number, v: number) => {
    if (x < 0 || y < 0 || x >= width || y >= height) return
    for (let c = 0; c < 3; c++) rgb[c * n + Math.round(y) * width + Math.round(x)] = v
  }
  const stroke: Pen = ([x0, y0, x1, y1], thick = 3, dark = 0.3) => {
    const long = Math.hypot(x1 - x0, y1 - y0)
    for (let s = 0; s <= long; s += 0.5)
      for (let o = -thick / 2; o <= thick / 2; o += 0.5)
        put(
          Math.round(x0 + ((x1 - x0) * s) / long - ((y1 - y0) * o) / long),
          Math.round(y0 + ((y1 - y0) * s) / long + ((x1 - x0) * o) / long),
          dark,
        )
  }
  const disc: Disc = (cx, cy, r, v) => {
    for (let y = -r; y <= r; y++)
      for (let x = -r; x <= r; x++) if (Math.hypot(x, y) <= r) put(cx + x, cy + y, v)
  }
  return { page: { width, height, rgb }, stroke, disc }
}
type Ends = readonly [x0: number, y0: number, x1: number, y1: number]
type Pen = (ends: Ends, thick?: number, dark?: number) => void
type Disc = (x: number, y: number, r: number, light: number) => void
const tally = (p: Picture) => tallyIn(inkOf(p, lightOf(p)), lightOf(p))
/** So many strokes in bundles of five, turned by so much, each a little its own way. */
function scored(
  stroke: Pen,
  n: number,
  { x = 60, y = 120, turn = 0, long = 60, gap = 16, thick = 3 } = {},
): void {
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const to = (u: number, v: number) => [x + u * c - v * s, y + u * s + v * c] as const
  let at = 0
  for (let k = 0; k < n; k++) {
    const inBundle = k % 5
    if (inBundle === 4) {
      const [a, b] = [to(at - 4.6 * gap, long * 0.85), to(at - 0.4 * gap, long * 0.12)]
      stroke([...a, ...b], thick)
      at += 1.6 * gap
      continue
    }
    const lean = ((k * 7) % 5) - 2
    const [a, b] = [to(at + lean * 0.6, (k * 5) % 7), to(at - lean * 0.6, long - ((k * 3) % 6))]
    stroke([...a, ...b], thick)
    at += gap
  }
}

describe('a tally', () => {
  test.each([1, 2, 3, 4, 5, 6, 9, 10, 12, 14])('of %i is counted', (n) => {
    const { page, stroke } = paper(n)
    scored(stroke, n)
    const t = tally(page)
    expect(t?.count).toBe(n)
  })
  test.each([-0.4, -0.2, 0.2, 0.4])('turned by %f is the same', (turn) => {
    const { page, stroke } = paper(3)
    scored(stroke, 8, { turn, y: 150 - turn * 100 })
    expect(tally(page)?.count).toBe(8)
  })
  test('with a thick pen, close together, in a dim corner', () => {
    const { page, stroke } = paper(4, 0.4)
    scored(stroke, 7, { thick: 6, gap: 20, long: 80 })
    expect(tally(page)?.count).toBe(7)
  })
  test('what is no tally is none: blank paper, rings, a page of loose lines', () => {
    const { page } = paper(5)
    expect(tally(page)).toBeNull()
    const other = paper(6)
    for (const [x, y] of [
      [100, 100],
      [220, 160],
      [330, 90],
    ] as const)
      for (let a = 0; a < 6.28; a += 0.05)
        other.disc(Math.round(x + 30 * Math.cos(a)), Math.round(y + 30 * Math.sin(a)), 2, 0.3)
    expect(tally(other.page)).toBeNull()
  })
  test('beside something that is no stroke it is in doubt, not wrong', () => {
    const { page, stroke, disc } = paper(7)
    scored(stroke, 6)
    disc(350, 260, 12, 0.3)
    const t = tally(page)!
    expect([t.low <= 6, t.high > 6]).toEqual([true, true])
  })
})

describe('crossed out', () => {
  const at = (p: Picture, x: number, y: number, r: number) => isCrossed(lightOf(p), p, { x, y, r })
  test.each([0, 0.5, 0.8, 1.6, 2.4])('a stroke through a thing, whichever way it runs (%f)', (a) => {
    const { page, stroke, disc } = paper(11)
    disc(200, 150, 24, 0.65)
    stroke(
      [200 - 34 * Math.cos(a), 150 - 34 * Math.sin(a), 200 + 34 * Math.cos(a), 150 + 34 * Math.sin(a)],
      4,
      0.2,
    )
    expect(at(page, 200, 150, 24)).toBe(true)
  })
  test('a thing alone, with a rim, a shine or a shadow, is not', () => {
    const { page, disc } = paper(12)
    disc(200, 150, 24, 0.35)
    disc(200, 150, 20, 0.6)
    disc(192, 142, 5, 0.95)
    expect(at(page, 200, 150, 22)).toBe(false)
    const dark = paper(13)
    dark.disc(208, 158, 24, 0.45)
    dark.disc(200, 150, 24, 0.6)
    expect(at(dark.page, 200, 150, 24)).toBe(false)
  })
  test('a line that passes beside it is none', () => {
    const { page, stroke, disc } = paper(14)
    disc(200, 150, 24, 0.6)
    stroke([150, 190, 260, 190], 4, 0.2)
    expect(at(page, 200, 150, 24)).toBe(false)
  })
})
