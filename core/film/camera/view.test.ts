import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Segment } from '../../contracts/lesson.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { simulate } from '../../script/simulate.ts'
import { checkView, needsOf } from './camera-check.ts'
import { apart, farEnough, hardToTell } from './colours.ts'
import { judgeLight } from './light.ts'
import { anglesOn, inPicture, mmPerPixel, patchOf, sheets, viewFrom, viewFromSheet } from './view.ts'

const straight = viewFrom({ height: 500, tilt: 0, lens: 60, aspect: 16 / 9 })
const segment = (body: string): Segment => {
  let n = 0
  return fromMarkdown(`# Post\n\n## Show {show}\n${body}`, () => `s${(n += 1)}`).lesson.segments[0]!
}
const needs = (body: string, thing = 30) => needsOf(simulate({ segments: [segment(body)] }), thing, 'across')

describe('what a camera sees', () => {
  test('straight down: a rectangle as wide as the lens says', () => {
    const p = patchOf(straight)!
    expect(p[1]!.x - p[0]!.x).toBeCloseTo(2 * 500 * Math.tan(Math.PI / 6), 3)
    expect(p[2]!.y - p[1]!.y).toBeCloseTo((2 * 500 * Math.tan(Math.PI / 6) * 9) / 16, 3)
    expect(mmPerPixel(straight, 0, 1280)).toBeCloseTo((2 * 500 * Math.tan(Math.PI / 6)) / 1280, 3)
  })
  test('tilted: a trapezium, wider and coarser at its far edge', () => {
    const v = viewFrom({ height: 500, tilt: 35, lens: 60, aspect: 16 / 9 })
    const p = patchOf(v)!
    expect(p[2]!.x - p[3]!.x).toBeGreaterThan((p[1]!.x - p[0]!.x) * 1.3)
    expect(mmPerPixel(v, 0.9, 1280)!).toBeGreaterThan(mmPerPixel(v, -0.9, 1280)! * 1.2)
  })
  test('tilted so far that it sees the horizon: no patch', () =>
    expect(patchOf(viewFrom({ height: 500, tilt: 75, lens: 60, aspect: 16 / 9 }))).toBeNull())
  test.each([{ height: 10 }, { tilt: 85 }, { lens: 200 }, { height: NaN }])(
    'out of range is refused: %o',
    (bad) =>
      expect(() => viewFrom({ height: 500, tilt: 0, lens: 60, aspect: 1.5, ...bad })).toThrow(RangeError),
  )
  test('to the table and back is the same place', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 150, max: 1200, noNaN: true }),
        fc.double({ min: 0, max: 45, noNaN: true }),
        fc.double({ min: -0.95, max: 0.95, noNaN: true }),
        fc.double({ min: -0.95, max: 0.95, noNaN: true }),
        (height, tilt, u, v) => {
          const view = viewFrom({ height, tilt, lens: 60, aspect: 1.6 })
          const q = view.toPicture(view.toTable(u, v)!)!
          expect(q.u).toBeCloseTo(u, 6)
          expect(q.v).toBeCloseTo(v, 6)
        },
      ),
    )
  })
  test('a thing looks larger from nearer, and twice as large is twice the angle', () => {
    const at = { x: 0, y: 0 }
    const lower = viewFrom({ height: 250, tilt: 0, lens: 60, aspect: 16 / 9 })
    expect(anglesOn(lower, at, 20)! / anglesOn(straight, at, 20)!).toBeCloseTo(2, 1)
    // 20 mm of 577 mm, on a screen of 140 mm, seen from 400 mm.
    expect(anglesOn(straight, at, 20)!).toBeCloseTo((((20 / 577.35) * 140) / 400) * (180 / Math.PI) * 60, 0)
  })
})

describe('a view measured from a sheet of paper', () => {
  const corners = (view: typeof straight, turn = 0) => {
    const [long, short] = sheets.A4
    return (
      [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ] as const
    ).map(([a, b]) => {
      const [x, y] = [(a * long) / 2, (b * short) / 2]
      return view.toPicture({
        x: x * Math.cos(turn) - y * Math.sin(turn),
        y: x * Math.sin(turn) + y * Math.cos(turn),
      })!
    })
  }
  test.each([
    [0, 0],
    [30, 0],
    [20, 0.5],
    [40, -1.1],
  ])('agrees with the camera it was seen by: tilt %d, sheet turned %d', (tilt, turn) => {
    const camera = viewFrom({ height: 480, tilt, lens: 66, aspect: 16 / 9 })
    const measured = viewFromSheet(corners(camera, turn), 'A4', 16 / 9)
    for (const [u, v] of [
      [0, 0],
      [0.7, -0.6],
      [-0.8, 0.5],
    ] as const) {
      const [a, b] = [camera.toTable(u, v)!, measured.toTable(u, v)!]
      expect(Math.hypot(a.x, a.y)).toBeCloseTo(Math.hypot(b.x, b.y), 1)
      expect(measured.toPicture(b)!.u).toBeCloseTo(u, 5)
    }
    expect(mmPerPixel(measured, 0, 1280)!).toBeCloseTo(mmPerPixel(camera, 0, 1280)!, 2)
  })
  test('corners given the other way round are the same sheet', () => {
    const c = corners(straight)
    expect(mmPerPixel(viewFromSheet([c[1]!, c[0]!, c[3]!, c[2]!], 'A4', 16 / 9), 0, 1280)!).toBeCloseTo(
      mmPerPixel(straight, 0, 1280)!,
      3,
    )
  })
  test('corners that cross, or lie on a line, are refused', () => {
    const c = corners(straight)
    expect(() => viewFromSheet([c[0]!, c[2]!, c[1]!, c[3]!], 'A4', 1.78)).toThrow(/outline/)
    expect(() =>
      viewFromSheet(
        [0, 1, 2, 3].map((i) => ({ u: i / 4, v: 0 })),
        'A4',
        1.78,
      ),
    ).toThrow(RangeError)
    expect(() => viewFromSheet(c.slice(0, 3), 'A4', 1.78)).toThrow(/four/)
  })
})

describe('the advice', () => {
  const frame = needs('Do: Lay out a ten frame\nDo: Put 7 on the frame\nSay: Seven.')
  test('a camera too low leaves the frame out and says by how much to raise it', () => {
    const low = viewFrom({ height: 200, tilt: 0, lens: 60, aspect: 16 / 9 })
    const [a] = checkView(low, frame, 200)
    expect(a).toMatchObject({
      kind: 'out',
      message: expect.stringMatching(
        /ten frame is not wholly in the picture\. Raise the camera by \d+ cm/,
      ) as string,
    })
    const by = Number(a!.message.match(/by (\d+) cm/)![1]) * 10 + 10
    expect(
      checkView(viewFrom({ height: 200 + by, tilt: 0, lens: 60, aspect: 16 / 9 }), frame, 200 + by).some(
        (x) => x.kind === 'out',
      ),
    ).toBe(false)
  })
  test('a camera too high makes things too small and says by how much to lower it', () => {
    const small = needs('Do: Lay out a ten frame\nDo: Put 7 on the frame\nSay: Seven.', 10)
    const high = viewFrom({ height: 1100, tilt: 0, lens: 70, aspect: 16 / 9 })
    const a = checkView(high, small, 1100).find((x) => x.kind === 'thing')!
    expect(a.message).toMatch(
      /′ across on a phone; 12′ can be read\. Make it \d\.\d × larger, or the camera \d+ cm lower/,
    )
    const by = Number(a.message.match(/camera (\d+) cm lower/)![1]) * 10 + 10
    expect(
      checkView(viewFrom({ height: 1100 - by, tilt: 0, lens: 70, aspect: 16 / 9 }), small, 1100 - by).some(
        (x) => x.kind === 'thing',
      ),
    ).toBe(false)
  })
  test('from a sheet no height is known: it speaks of nearer and closer', () =>
    expect(
      checkView(
        viewFrom({ height: 1100, tilt: 0, lens: 70, aspect: 16 / 9 }),
        needs('Do: Put 4 on the table', 8),
        null,
      )[0]!.message,
    ).toMatch(/bring the camera nearer/))
  test('looking past the table', () =>
    expect(
      checkView(viewFrom({ height: 300, tilt: 78, lens: 60, aspect: 1.7 }), frame, 300).map((a) => a.kind),
    ).toEqual(['horizon']))
  test('a good place is said to be good', () =>
    expect(
      checkView(viewFrom({ height: 480, tilt: 0, lens: 66, aspect: 16 / 9 }), frame, 480).map((a) => a.kind),
    ).toEqual(['fine']))
  test('every planned place of every moment is looked at, by name', () => {
    const n = needs('Do: Lay out two shelves\nDo: Put 3 on the first shelf\nDo: Put 2 on the second shelf')
    expect(n.places.length).toBeGreaterThanOrEqual(2)
    expect(new Set(n.places.map((p) => p.name)).size).toBe(n.places.length)
    for (const p of n.places)
      expect(inPicture(viewFrom({ height: 2000, tilt: 0, lens: 70, aspect: 1.7 }), p.from)).toBe(true)
  })
})

describe('colours', () => {
  test('saffron and blue stay apart for all eyes', () => {
    expect(Math.min(...Object.values(apart('#F2B705', '#1F5F99')))).toBeGreaterThan(farEnough)
    expect(
      hardToTell([
        ['the first counters', '#F2B705'],
        ['the second counters', '#1F5F99'],
        ['the mat', '#F7F5EF'],
      ]),
    ).toEqual([])
  })
  test('red and green are told apart by most, not by all', () => {
    const far = apart('#b5463a', '#7a7a2e')
    expect(far.everybody).toBeGreaterThan(farEnough)
    expect(Math.min(far['red-blind eyes'], far['green-blind eyes'])).toBeLessThan(farEnough)
    expect(
      hardToTell([
        ['the first counters', '#b5463a'],
        ['the second counters', '#7a7a2e'],
      ])[0],
    ).toMatch(/^The first counters and the second counters look alike to (red|green)-blind eyes/)
  })
  test('the same colour is no colour', () =>
    expect(
      hardToTell([
        ['a', '#ffffff'],
        ['b', '#fefefe'],
      ])[0],
    ).toContain('everybody'))
  test('what is no colour is refused', () => expect(() => apart('#fff', 'nonsense')).toThrow(RangeError))
})

describe('light', () => {
  const picture = (f: (x: number, y: number) => number) =>
    Uint8ClampedArray.from({ length: 64 * 36 * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : f(Math.floor(i / 4) % 64, Math.floor(i / 256)),
    )
  test.each([
    ['dark', () => 20],
    ['glaring', () => 250],
    ['good', () => 140],
    ['uneven', (x: number) => (x < 32 ? 60 : 200)],
    ['burnt', (x: number) => (x < 10 ? 255 : 150)],
  ] as const)('%s', (words, f) => expect(judgeLight(picture(f), 64, 36)).toMatchObject({ words }))
  test('pixels that do not fit are refused', () =>
    expect(() => judgeLight(new Uint8Array(10), 64, 36)).toThrow(RangeError))
})
