import { describe, expect, test } from 'vitest'
import { PhotoReading } from '../contracts/reading.ts'
import { laidOver, moved, type Planned } from './over.ts'

const read = (over: Partial<PhotoReading>): PhotoReading =>
  PhotoReading.parse({
    width: 1200,
    height: 900,
    count: 0,
    low: 0,
    high: 0,
    groups: [],
    places: [],
    warnings: [],
    things: [],
    ...over,
  })
const thing = (x: number, y: number, r = 30) => ({ x, y, r, colour: 'blue', cutOff: false })
/** Five and two in a frame of cells of 80. */
const plan: Planned = {
  things: [0, 1, 2, 3, 4, 5, 6].map((i) => ({
    x: 140 + 80 * (i % 5),
    y: 140 + 80 * Math.floor(i / 5),
    r: 30,
  })),
  zones: [{ mat: 'frame', x: 100, y: 100, w: 400, h: 160 }],
}
const near = (a: readonly [number, number], b: readonly [number, number], by: number) =>
  expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(by)

describe('the plan laid over a photo', () => {
  test('has its things on those that lie as planned, however the photo was turned and whatever its scale', () => {
    const [c, s, k] = [Math.cos(0.2), Math.sin(0.2), 1.7]
    const at = (x: number, y: number) => [k * (c * x - s * y) + 200, k * (s * x + c * y) - 40] as const
    const found = plan.things.map((t) => thing(...at(t.x, t.y), 51))
    const m = laidOver(plan, read({ things: found, count: 7 }))!
    plan.things.forEach((t) => near(moved(m, [t.x, t.y]), at(t.x, t.y), 1))
  })
  test('things strewn otherwise are met in size and middle, and not turned', () => {
    const found = [
      [300, 300],
      [700, 320],
      [520, 700],
      [310, 640],
      [800, 600],
      [600, 400],
      [420, 480],
    ].map(([x, y]) => thing(x!, y!, 45))
    const m = laidOver(plan, read({ things: found, count: 7 }))!
    expect(m.slice(0, 4)).toEqual([1.5, 0, 0, 1.5])
    const mean = (k: 'x' | 'y', of: readonly { x: number; y: number }[]) =>
      of.reduce((n, t) => n + t[k], 0) / of.length
    near(moved(m, [mean('x', plan.things), mean('y', plan.things)]), [mean('x', found), mean('y', found)], 1)
  })
  test('one more at the end of a row, or one left out there, moves nothing', () => {
    const at = (i: number) => thing(300 + 100 * (i % 5), 200 + 100 * Math.floor(i / 5), 37)
    for (const many of [6, 8]) {
      const m = laidOver(plan, read({ things: Array.from({ length: many }, (_, i) => at(i)) }))!
      for (const i of [0, 4, 5]) near(moved(m, [plan.things[i]!.x, plan.things[i]!.y]), [at(i).x, at(i).y], 1)
    }
  })
  test('in one long row instead it lies at the scale of what was found', () => {
    const m = laidOver(
      plan,
      read({ things: Array.from({ length: 8 }, (_, i) => thing(200 + 90 * i, 400, 15)) }),
    )!
    expect(m[0]).toBeCloseTo(0.5)
  })
  test('its frame lies on the frame, seen aslant too', () => {
    const outline: [number, number][] = [
      [820, 380],
      [780, 560],
      [200, 540],
      [240, 360],
    ]
    const structure = { kind: 'frames' as const, frames: [{ cells: [0], outline, astray: 0 }] }
    const m = laidOver(plan, read({ things: [thing(300, 400)], structure }))!
    near(moved(m, [100, 100]), [240, 360], 8)
    near(moved(m, [500, 100]), [820, 380], 8)
    near(moved(m, [500, 260]), [780, 560], 8)
    near(moved(m, [100, 260]), [200, 540], 8)
  })
  test('its frame lies on one photographed upright, turned to where the things are', () => {
    // Five in one column and two in the other: the first column is the first row, seen from the right.
    const outline: [number, number][] = [
      [200, 100],
      [360, 100],
      [360, 500],
      [200, 500],
    ]
    const structure = { kind: 'frames' as const, frames: [{ cells: [0], outline, astray: 0 }] }
    const right = [0, 1, 2, 3, 4, 5, 6].map((i) => thing(320 - 80 * Math.floor(i / 5), 140 + 80 * (i % 5)))
    const m = laidOver(plan, read({ things: right, structure }))!
    plan.things.forEach((t, i) => near(moved(m, [t.x, t.y]), [right[i]!.x, right[i]!.y], 8))
    const left = right.map((t) => thing(560 - t.x, 600 - t.y))
    const n = laidOver(plan, read({ things: left, structure }))!
    plan.things.forEach((t, i) => near(moved(n, [t.x, t.y]), [left[i]!.x, left[i]!.y], 8))
  })
  describe('of plates', () => {
    const plates: Planned = {
      things: [0, 1, 2, 3, 4, 5, 6, 7].map((i) => ({
        x: (i < 4 ? 170 : 430) + 40 * (i % 2),
        y: 150 + 40 * (Math.floor(i / 2) % 2),
        r: 15,
      })),
      zones: [100, 360].map((x) => ({ mat: 'plates', x, y: 80, w: 200, h: 200 })),
    }
    const square = (x: number, y: number, half: number): [number, number][] => [
      [x - half, y],
      [x, y - half],
      [x + half, y],
      [x, y + half],
    ]
    const group = (count: number, x: number, y: number) => ({ count, outline: square(x, y, 150) })
    test('lies plate on plate, however many lie on each', () => {
      const groups = [group(7, 300, 400), group(1, 690, 430)]
      const things = [0, 1, 2, 3, 4, 5, 6]
        .map((i) => thing(240 + 20 * i, 380, 20))
        .concat(thing(700, 430, 20))
      const m = laidOver(plates, read({ things, structure: { kind: 'groups', groups } }))!
      near(moved(m, [200, 180]), [300, 400], 1)
      near(moved(m, [460, 180]), [690, 430], 1)
    })
    test('lies on things where there are more plates than planned', () => {
      const groups = [group(4, 300, 400), group(3, 690, 430), group(1, 1000, 430)]
      const things = [240, 900, 640, 740].map((x, i) => thing(x, 200 + 190 * ((i * 2) % 3), 20))
      const m = laidOver(plates, read({ things, structure: { kind: 'groups', groups } }))!
      expect(m[0]).toBeCloseTo(20 / 15)
    })
    test('one plate lies on one at its size, with nothing on it too', () => {
      const m = laidOver(
        { ...plates, zones: plates.zones.slice(0, 1) },
        read({ structure: { kind: 'groups', groups: [group(0, 500, 500)] } }),
      )!
      near(moved(m, [200, 180]), [500, 500], 1)
      expect(m[0]).toBeCloseTo(1.5)
    })
  })
  test('lies nowhere where nothing was found, or nothing is planned', () => {
    expect(laidOver(plan, read({}))).toBeNull()
    expect(laidOver({ things: [], zones: [] }, read({ things: [thing(1, 1)] }))).toBeNull()
  })
})
