import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type Hidden, plainList, type Repair } from '../contracts/cut.ts'
import { coversFor } from './covers.ts'
import { homography, isProperQuad, mapped, type Quad } from './homography.ts'
import { film } from '../film/camera/frame.ts'
import {
  boxAt,
  boxInFilm,
  closerBox,
  filmToTake,
  frameQuad,
  gainsOf,
  isCovered,
  isPlainRepair,
  keyed,
  matched,
  plainRepair,
  repairOf,
  takeToFilm,
  withRepair,
} from './repairs.ts'

const A = 'aaaaaaaa-0000-4000-8000-000000000001'
const repair = (over: Partial<Repair>): Repair => ({ ...plainRepair(A), ...over })
const at = (r: Repair, x: number, y: number, frame = 0) => {
  const p = mapped(takeToFilm(r, frame), { x, y })
  return [Math.round(p.x) + 0, Math.round(p.y) + 0]
}

describe('where a point of the take comes in the film', () => {
  test('as filmed it stays where it is', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1280 }), fc.integer({ min: 0, max: 720 }), (x, y) => {
        expect(at(repair({}), x, y)).toEqual([x, y])
      }),
    ))
  test('mirrored, left and right change places and nothing else', () =>
    expect([at(repair({ mirror: true }), 100, 50), at(repair({ mirror: true }), 640, 360)]).toEqual([
      [1180, 50],
      [640, 360],
    ]))
  test.each([
    [90, [842, 0]],
    [180, [1280, 720]],
    [270, [438, 720]],
  ] as const)('turned %i°, the upper left corner goes to %o', (turn, to) => {
    const [x, y] = at(repair({ turn }), 0, 0)
    expect(Math.abs(x! - to[0])).toBeLessThan(2)
    expect(y).toBe(to[1])
  })
  test('the four corners of a tilted table become the corners of the frame', () => {
    const corners: Quad = [
      { x: 200, y: 80 },
      { x: 1100, y: 140 },
      { x: 1180, y: 640 },
      { x: 120, y: 600 },
    ]
    const r = repair({ corners: [...corners] as Repair['corners'] })
    corners.forEach((c, i) => expect(at(r, c.x, c.y)).toEqual([frameQuad[i]!.x, frameQuad[i]!.y]))
  })
  test('corners that cross straighten nothing', () => {
    const crossed = [
      { x: 200, y: 80 },
      { x: 120, y: 600 },
      { x: 1180, y: 640 },
      { x: 1100, y: 140 },
    ] as const
    expect(isProperQuad(crossed)).toBe(false)
    expect(at(repair({ corners: [...crossed] }), 300, 300)).toEqual([300, 300])
  })
  test('brought closer slowly it begins whole and ends at the point, and never shows what is beside the picture', () => {
    const closer = { x: 100, y: 100, by: 2, from: 30, frames: 60 }
    expect([closerBox(closer, 0), closerBox(closer, 200)]).toEqual([
      { x: 0, y: 0, w: 1280, h: 720 },
      { x: 0, y: 0, w: 640, h: 360 },
    ])
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 1280 }),
        fc.integer({ min: 0, max: 720 }),
        (frame, x, y) => {
          const b = closerBox({ ...closer, x, y }, frame)
          expect(b.x).toBeGreaterThanOrEqual(0)
          expect(b.x + b.w).toBeLessThanOrEqual(1280.001)
          expect(b.y + b.h).toBeLessThanOrEqual(720.001)
        },
      ),
    )
  })
  test('the way back undoes the way there', () =>
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.constantFrom(0, 90, 180, 270),
        fc.double({ min: 1, max: 3, noNaN: true }),
        (mirror, turn, by) => {
          const h = takeToFilm(
            repair({
              mirror,
              turn: turn,
              closer: { x: 500, y: 300, by, from: 0, frames: 0 },
              corners: [
                { x: 100, y: 60 },
                { x: 1200, y: 90 },
                { x: 1240, y: 700 },
                { x: 60, y: 660 },
              ],
            }),
            10,
          )
          const p = mapped(filmToTake(h), mapped(h, { x: 640, y: 360 }))
          expect([Math.round(p.x), Math.round(p.y)]).toEqual([640, 360])
        },
      ),
    ))
  test('three corners on a line have no map', () =>
    expect(
      homography(
        [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
          { x: 2, y: 0 },
          { x: 0, y: 1 },
        ],
        frameQuad,
      ),
    ).toBeNull())
  test('a box stays a box that holds all its corners', () =>
    expect(boxInFilm(takeToFilm(repair({ mirror: true }), 0), { x: 0, y: 0, w: 100, h: 50 })).toEqual({
      x: 1180,
      y: 0,
      w: 100,
      h: 50,
    }))
})

describe('what is covered', () => {
  const h: Hidden = {
    id: 'h',
    what: 'face',
    from: 10,
    to: 100,
    keys: [
      { frame: 20, box: { x: 0, y: 0, w: 100, h: 100 } },
      { frame: 40, box: { x: 200, y: 100, w: 100, h: 100 } },
    ],
    why: null,
  }
  test('moves in straight lines from key to key, stands still before and after, and is not there outside its frames', () =>
    expect([5, 10, 30, 99, 100].map((f) => boxAt(h, f)?.x ?? null)).toEqual([null, 0, 100, 200, null]))
  test('a key set anew replaces the one of that frame; keys stay in order', () =>
    expect(
      keyed(keyed(h, 30, { x: 5, y: 5, w: 50, h: 50 }), 30, { x: 9, y: 5, w: 50, h: 50 }).keys.map((k) => [
        k.frame,
        k.box.x,
      ]),
    ).toEqual([
      [20, 0],
      [30, 9],
      [40, 200],
    ]))
  test('a proposed cover covers only once it is accepted', () =>
    expect(
      (['open', 'accepted', 'declined'] as const).map((state) =>
        isCovered({ why: { id: 'w', act: 'add', kind: 'face', note: '', sure: false, state } }),
      ),
    ).toEqual([false, true, false]))
  test('faces near each other in neighbouring pictures are one; a face seen once is none', () => {
    const face = (x: number) => ({ x, y: 100, w: 80, h: 80 })
    const covers = coversFor(
      'face',
      [
        { frame: 0, boxes: [face(100)] },
        { frame: 30, boxes: [face(120), face(900)] },
        { frame: 60, boxes: [face(140)] },
      ],
      30,
      300,
    )
    expect(covers.map((c) => [c.from, c.to, c.keys.length])).toEqual([[0, 91, 3]])
    expect(covers[0]!.why!.state).toBe('open')
    for (const k of covers[0]!.keys) expect(k.box.w).toBeGreaterThan(80)
  })
  test('faces that come back after a while are covered on their own', () => {
    const box = { x: 100, y: 100, w: 80, h: 80 }
    const seen = [0, 30, 600, 630].map((frame) => ({ frame, boxes: [box] }))
    expect(coversFor('face', seen, 30, 900).map((c) => [c.from, c.to])).toEqual([
      [0, 61],
      [570, 661],
    ])
  })
})

describe('light', () => {
  test('a stop doubles; warmth moves red and blue apart and leaves green', () => {
    expect(gainsOf({ light: 1, warmth: 0 })).toEqual({ r: 2, g: 2, b: 2 })
    const warm = gainsOf({ light: 0, warmth: 1 })
    expect([warm.r > 1, warm.g, warm.b < 1]).toEqual([true, 1, true])
  })
  test('matching a picture changed by known light and warmth finds them again', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        fc.double({ min: -0.9, max: 0.9, noNaN: true }),
        (light, warmth) => {
          const mine = { r: 90, g: 80, b: 70 }
          const g = gainsOf({ light, warmth })
          const found = matched(mine, { r: mine.r * g.r, g: mine.g * g.g, b: mine.b * g.b })
          expect(Math.abs(found.light - light)).toBeLessThan(0.02)
          expect(Math.abs(found.warmth - warmth)).toBeLessThan(0.02)
        },
      ),
    ))
  test('a black picture tells nothing', () =>
    expect(matched({ r: 0, g: 0, b: 0 }, { r: 90, g: 90, b: 90 })).toEqual({ light: 0, warmth: 0 }))
})

test('a repair that changes nothing is not kept, one that does takes the place of the one before', () => {
  const once = withRepair(plainList, repair({ mirror: true }))
  expect(once.repairs).toHaveLength(1)
  expect(withRepair(once, repair({ turn: 90 })).repairs.map((r) => [r.turn, r.mirror])).toEqual([[90, false]])
  expect(withRepair(once, plainRepair(A)).repairs).toEqual([])
  expect(isPlainRepair(repairOf(once, 'bbbbbbbb-0000-4000-8000-000000000002'))).toBe(true)
  expect(film.width / film.height).toBeCloseTo(16 / 9)
})
