import { describe, expect, test } from 'vitest'
import { drawnLineOf } from './drawn-line.ts'
import { sidesOf, towersOf } from './lying.ts'
import { kinds } from './seen.ts'

const size = { width: 600, height: 400 }
const spot = (x: number, y: number) => ({ x, y, r: 14 })
const jitter = (k: number) => (((k * 37) % 7) - 3) * 0.8

describe('towers', () => {
  const built = (...heights: number[]) =>
    heights.flatMap((h, i) =>
      Array.from({ length: h }, (_, k) => spot(100 + i * 90 + jitter(i + k), 350 - k * 26 + jitter(k))),
    )
  test.each([[[3]], [[1, 4]], [[5, 2, 3]], [[1, 1, 1]]])('%j from the left', (heights) => {
    // Found in any order.
    const spots = built(...heights).sort((a, b) => ((a.x * 7 + a.y * 3) % 11) - ((b.x * 7 + b.y * 3) % 11))
    expect(towersOf(spots).map((t) => t.length)).toEqual(heights)
  })
  test('things beside each other are towers of one', () => {
    expect(towersOf([spot(100, 200), spot(130, 200), spot(160, 204)]).map((t) => t.length)).toEqual([1, 1, 1])
    expect(towersOf([])).toEqual([])
  })
})

describe('sides of a line', () => {
  const along = (turn: number, ...at: number[]) =>
    at.map((u, k) =>
      spot(300 + u * Math.cos(turn) + jitter(k) * Math.sin(turn), 200 + u * Math.sin(turn) + jitter(k)),
    )
  test.each([0, 0.3, -0.4])('parted by the widest gap, aslant by %f too', (turn) => {
    expect(sidesOf(along(turn, -200, -170, -140, 40, 70), size)).toEqual([3, 2])
    expect(sidesOf(along(turn, -200, 0, 30, 60, 90, 120), size)).toEqual([1, 5])
  })
  test('one that stands is read from the top', () => {
    expect(sidesOf(along(Math.PI / 2, -150, -120, 60), size)).toEqual([2, 1])
    expect(sidesOf(along(-Math.PI / 2 + 0.1, -150, 30, 60), size)).toEqual([2, 1])
  })
  test('all on one side are that many and none', () => {
    expect(sidesOf(along(0, -250, -222, -196, -168), size)).toEqual([4, 0])
    expect(sidesOf(along(0, 150, 178, 206), size)).toEqual([0, 3])
  })
  test('a heap has no sides', () => {
    expect(sidesOf([spot(100, 100), spot(300, 120), spot(200, 300)], size)).toBeNull()
    expect(sidesOf([], size)).toBeNull()
  })
})

describe('a drawn line', () => {
  /** A line from one point to another on a page of ground, broken where something covers it. */
  type Ends = readonly [x0: number, y0: number, x1: number, y1: number]
  const page = ([x0, y0, x1, y1]: Ends, covered: (u: number) => boolean = () => false) => {
    const [width, height] = [300, 200]
    const what = new Uint8Array(width * height)
    const long = Math.hypot(x1 - x0, y1 - y0)
    for (let s = 0; s <= long; s += 0.5)
      if (!covered(s / long))
        for (const o of [-0.5, 0.5])
          what[
            Math.round(y0 + ((y1 - y0) * s) / long + o) * width + Math.round(x0 + ((x1 - x0) * s) / long)
          ] = kinds.indexOf('line')
    return { width, height, what }
  }
  const on = ([x0, y0, x1, y1]: Ends, shares: number[]) =>
    shares.map((u) => ({ x: x0 + (x1 - x0) * u, y: y0 + (y1 - y0) * u, r: 6 }))
  test.each([
    [30, 100, 270, 100],
    [30, 60, 260, 140],
    [270, 150, 40, 90],
  ] as const)('tells where things lie along it: %i,%i to %i,%i', (...ends) => {
    const shares = [0.2, 0.5, 0.9]
    const things = on(ends, shares)
    const line = drawnLineOf(
      page(ends, (u) => shares.some((s) => Math.abs(s - u) < 0.025)),
      things,
    )!
    // From its left end, whichever end it was drawn from.
    const wanted = ends[0] < ends[2] ? shares : shares.map((s) => 1 - s).reverse()
    expect(line.at.map((a) => Math.round(a * 20) / 20)).toEqual(wanted.map((a) => Math.round(a * 20) / 20))
  })
  test('is none without a line, without things on it, and where most lie elsewhere', () => {
    expect(drawnLineOf(page([10, 10, 40, 10]), on([30, 100, 270, 100], [0.5]))).toBeNull()
    expect(drawnLineOf(page([30, 100, 270, 100]), [])).toBeNull()
    expect(
      drawnLineOf(page([30, 100, 270, 100]), [
        { x: 60, y: 30, r: 6 },
        { x: 90, y: 40, r: 6 },
        { x: 150, y: 100, r: 6 },
      ]),
    ).toBeNull()
  })
})
