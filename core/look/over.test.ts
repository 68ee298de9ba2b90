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
  test('lies nowhere where nothing was found, or nothing is planned', () => {
    expect(laidOver(plan, read({}))).toBeNull()
    expect(laidOver({ things: [], zones: [] }, read({ things: [thing(1, 1)] }))).toBeNull()
  })
})
