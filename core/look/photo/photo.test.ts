import { describe, expect, test } from 'vitest'
import { colourName, labOf } from './colours.ts'
import { coarser, shrunk } from './picture.ts'
import { readPhoto } from './read.ts'
import { rowsOf } from './rows.ts'
import { kinds, type PixelKind, type See } from './seen.ts'

/** What a network would say of a scene: discs with how sure it is of each, and pixels of other kinds. */
interface Scene {
  things: { x: number; y: number; r: number; sure?: (look: number) => number }[]
  also?: (x: number, y: number) => PixelKind | null
  /** The same, where looks differ. */
  seenAs?: (look: number) => (x: number, y: number) => PixelKind | null
}
const logit = (p: number) => Math.log(p / (1 - p))
/** Scenes are 400 × 300; looks are counted, so that one may see less than another: the third and fourth are as in a mirror, the third and fifth upside down. */
function eyes(scene: Scene): See {
  let look = -1
  return (_rgb, width, height) => {
    look++
    const [w, h] = [width / 2, height / 2]
    const k = w / 400
    const [across, down] = [look === 2 || look === 3, look === 2 || look === 4]
    const n = w * h
    const planes = new Float32Array(8 * n).fill(-8)
    const flip = (x: number, y: number) => [across ? w - 1 - x : x, down ? h - 1 - y : y] as const
    const what = new Uint8Array(n)
    const also = scene.seenAs?.(look) ?? scene.also
    if (also)
      for (let i = 0; i < n; i++) {
        const [x, y] = flip(i % w, Math.floor(i / w))
        what[i] = kinds.indexOf(also(x / k, y / k) ?? 'ground')
      }
    // Only round about each thing is there anything to say of it.
    for (const t of scene.things) {
      const reach = 2.2 * t.r * k
      for (let y = Math.max(0, Math.floor(t.y * k - reach)); y <= Math.min(h - 1, t.y * k + reach); y++)
        for (let x = Math.max(0, Math.floor(t.x * k - reach)); x <= Math.min(w - 1, t.x * k + reach); x++) {
          const [px, py] = flip(x, y)
          const i = py * w + px
          const d = Math.hypot(x / k - t.x, y / k - t.y)
          const p = (t.sure?.(look) ?? 0.95) * Math.exp(-((d / t.r) ** 2))
          if (p > 0.02) planes[i] = Math.max(planes[i]!, logit(Math.min(0.98, p)))
          if (d < t.r) {
            what[i] = kinds.indexOf('thing')
            planes[n + i] = Math.log((t.r * k) / 8)
          }
        }
    }
    for (let i = 0; i < n; i++) planes[(2 + what[i]!) * n + i] = 8
    return Promise.resolve({ width: w, height: h, planes })
  }
}
const pixels = (
  paint: (x: number, y: number) => readonly [number, number, number] = () => [180, 170, 160],
) => {
  const px = new Uint8ClampedArray(400 * 300 * 4)
  for (let i = 0; i < 400 * 300; i++) px.set([...paint(i % 400, Math.floor(i / 400)), 255], i * 4)
  return px
}
const read = (scene: Scene, px = pixels()) => readPhoto(px, 400, 300, eyes(scene))
const row = (n: number, y = 150, r = 14) => Array.from({ length: n }, (_, i) => ({ x: 40 + i * 60, y, r }))

describe('what is believed of several looks', () => {
  test('what all see is counted and sure', async () => {
    expect(await read({ things: row(5) })).toMatchObject({ count: 5, low: 5, high: 5 })
  })
  test('what one look misses is in doubt, not lost', async () => {
    const r = await read({
      things: [...row(4), { x: 300, y: 60, r: 14, sure: (look) => (look === 1 ? 0.03 : 0.9) }],
    })
    expect([r.low, r.high]).toEqual([4, 5])
  })
  test('a doubtful one widens the range upwards only', async () => {
    const r = await read({ things: [...row(4), { x: 300, y: 60, r: 14, sure: () => 0.25 }] })
    expect([r.count, r.low, r.high]).toEqual([4, 4, 5])
  })
  test('pixels of things that no middle accounts for could be one more', async () => {
    const r = await read({
      things: row(4),
      also: (x, y) => (Math.hypot(x - 320, y - 60) < 14 ? 'thing' : null),
    })
    expect([r.count, r.low, r.high]).toEqual([4, 4, 5])
  })
  test('one at the edge may or may not count', async () => {
    const r = await read({ things: [...row(3), { x: 395, y: 250, r: 14 }] })
    expect([r.low, r.count, r.warnings.includes('cut off')]).toEqual([3, 4, true])
  })
  test('nothing seen says so', async () => {
    expect(await read({ things: [] })).toMatchObject({
      count: 0,
      warnings: expect.arrayContaining(['nothing found']) as string[],
    })
  })
  test('a hand is told of and left out; a picture of something else is none of things', async () => {
    const hand = await read({
      things: row(3),
      also: (x, y) => (x > 300 && y > 200 && (x + y) % 200 < 100 ? 'other' : null),
    })
    expect(hand.count).toBe(3)
    expect(hand.warnings).toContain('something large in view')
    const other = await read({ things: [], also: (x) => (x < 300 ? 'other' : null) })
    expect(other.warnings).toContain('not a photo of things')
  })
  test('a blob longer and larger than the others is two, one on the other, where it has their outline; else it could be', async () => {
    const two = (x: number, y: number): PixelKind | null =>
      Math.hypot(x - 320, y - 70) < 14 || Math.hypot(x - 332, y - 70) < 14 ? 'thing' : null
    const r = await read({ things: [...row(5), { x: 326, y: 70, r: 10 }], also: two })
    expect([r.count, r.low, r.high]).toEqual([7, 6, 7])
    const square = (x: number, y: number): PixelKind | null =>
      Math.abs(x - 326) < 18 && Math.abs(y - 70) < 12 ? 'thing' : null
    const s = await read({ things: [...row(5), { x: 326, y: 70, r: 10 }], also: square })
    expect([s.count, s.low, s.high]).toEqual([6, 6, 7])
  })
  test('of two that lie alone one may itself be two: the smaller tells', async () => {
    const two = (x: number, y: number): PixelKind | null =>
      Math.abs(x - 326) < 20 && Math.abs(y - 70) < 12 ? 'thing' : null
    const r = await read({ things: [...row(1), { x: 326, y: 70, r: 10 }], also: two })
    expect([r.count, r.low, r.high]).toEqual([2, 2, 3])
  })
  test('what is far larger than the things is left out, told of, and keeps the count in doubt', async () => {
    const r = await read({ things: [...row(4), { x: 320, y: 70, r: 40 }] })
    expect([r.count, r.low, r.high]).toEqual([4, 4, 5])
    expect(r.warnings).toContain('something large in view')
    expect(
      (
        await read({
          things: [
            { x: 60, y: 150, r: 12 },
            { x: 320, y: 70, r: 40 },
          ],
        })
      ).count,
    ).toBe(2)
  })
  test('a doubtful speck among things that are all alike is none, and stays in doubt', async () => {
    const speck = { x: 320, y: 70, r: 5, sure: (look: number) => [0.9, 0.3, 0.3, 0.3, 0.6][look]! }
    // One of the others is missed where the speck is seen.
    const shy = { x: 330, y: 200, r: 14, sure: (look: number) => [0.3, 0.98, 0.98, 0.98, 0.98][look]! }
    const r = await read({ things: [...row(5), shy, speck] })
    expect(r.count).toBe(6)
    expect(r.high).toBeGreaterThan(6)
  })
  test('a doubtful thing beside something else is part of it: not counted, and in doubt; a clear one is counted', async () => {
    const cup = (x: number, y: number): PixelKind | null => (x > 312 && y > 180 ? 'other' : null)
    const handle = (p: number) => ({ x: 304, y: 230, r: 14, sure: () => p })
    const doubtful = await read({ things: [...row(4), handle(0.5)], also: cup })
    expect([doubtful.count, doubtful.low]).toEqual([4, 4])
    expect(doubtful.high).toBeGreaterThan(4)
    expect((await read({ things: [...row(4), handle(0.9)], also: cup })).count).toBe(5)
    expect((await read({ things: [...row(4), handle(0.5)] })).count).toBe(5)
  })
  test('things that touch are told of', async () => {
    expect(
      (
        await read({
          things: [
            { x: 100, y: 150, r: 14 },
            { x: 128, y: 150, r: 14 },
          ],
        })
      ).warnings,
    ).toContain('touching')
  })
  test('pixels that do not fit the size are refused', async () => {
    await expect(readPhoto(new Uint8Array(10), 4, 4, eyes({ things: [] }))).rejects.toThrow(RangeError)
  })
})

describe('where things lie', () => {
  /** A frame of five by two cells with its upper left at (60, 80). */
  const frame = (x: number, y: number): PixelKind | null => {
    const [u, v] = [(x - 60) / 50, (y - 80) / 50]
    if (u < -0.05 || u > 5.05 || v < -0.05 || v > 2.05) return null
    return Math.abs(u - Math.round(u)) < 0.06 || Math.abs(v - Math.round(v)) < 0.06 ? 'line' : null
  }
  const inCell = (c: number) => ({ x: 85 + (c % 5) * 50, y: 105 + Math.floor(c / 5) * 50, r: 14 })
  test('the filled cells of a frame are read, and what lies beside it is not in it', async () => {
    const r = await read({ things: [...[0, 1, 2, 5].map(inCell), { x: 350, y: 250, r: 14 }], also: frame })
    expect(r.count).toBe(5)
    expect(r.structure).toMatchObject({ kind: 'frames', frames: [{ cells: [0, 1, 2, 5] }] })
  })
  test('plates are told apart, an empty one too', async () => {
    const plate = (cx: number) => (x: number, y: number) => Math.hypot(x - cx, y - 150) < 80
    const both = [plate(110), plate(290)]
    const r = await read({
      things: [
        { x: 90, y: 150, r: 14 },
        { x: 130, y: 130, r: 14 },
      ],
      also: (x, y) => (both.some((p) => p(x, y)) ? 'plate' : null),
    })
    expect(r.structure).toMatchObject({ kind: 'groups', groups: [{ count: 2 }, { count: 0 }] })
  })
  test('cards beside each other hold what lies on them; one alone is paper', async () => {
    const card = (x0: number) => (x: number, y: number) => x > x0 && x < x0 + 130 && y > 80 && y < 220
    const dots = [60, 100].map((x) => ({ x, y: 150, r: 10 })).concat([{ x: 290, y: 150, r: 10 }])
    const two = await read({
      things: dots,
      also: (x, y) => (card(20)(x, y) || card(230)(x, y) ? 'sheet' : null),
    })
    expect(two.structure).toMatchObject({ kind: 'groups', groups: [{ count: 2 }, { count: 1 }] })
    const one = await read({ things: dots.slice(0, 2), also: (x, y) => (card(20)(x, y) ? 'sheet' : null) })
    expect(one.structure).toBeNull()
  })
  describe('one ring among things', () => {
    const ring = (x: number, y: number): PixelKind | null =>
      Math.abs(Math.hypot(x - 200, y - 150) - 80) < 3 ? 'line' : null
    const within = [
      { x: 180, y: 140, r: 12 },
      { x: 225, y: 165, r: 12 },
    ]
    test('holds what lies in it, and what lies on its line is no gap', async () => {
      const onLine = { x: 200, y: 221, r: 14 }
      const r = await read({ things: [...within, onLine, { x: 350, y: 40, r: 12 }], also: ring })
      expect(r.structure).toMatchObject({ kind: 'groups', groups: [{ count: 3 }] })
    })
    test('whose line is broken for one look is closed by the others', async () => {
      const gap = (look: number) => (x: number, y: number) =>
        look === 0 && x > 270 && Math.abs(y - 150) < 12 ? null : ring(x, y)
      const r = await read({ things: within, seenAs: gap })
      expect(r.structure).toMatchObject({ kind: 'groups', groups: [{ count: 2 }] })
    })
    test('half of which is missing is none', async () => {
      const r = await read({ things: within, also: (x, y) => (x < 200 ? ring(x, y) : null) })
      expect(r.structure).toBeNull()
    })
  })
  test('rings joined by lines are a whole and its parts', async () => {
    const rings = [
      [200, 60, 45],
      [110, 210, 55],
      [290, 210, 55],
    ] as const
    const joins = [
      [200, 60, 110, 210],
      [200, 60, 290, 210],
    ] as const
    const along = (x: number, y: number) =>
      joins.some(([a, b, c, d]) => {
        const t = ((x - a) * (c - a) + (y - b) * (d - b)) / ((c - a) ** 2 + (d - b) ** 2)
        return t > 0 && t < 1 && Math.hypot(x - a - t * (c - a), y - b - t * (d - b)) < 3
      })
    const r = await read({
      things: [
        { x: 100, y: 210, r: 12 },
        { x: 280, y: 200, r: 12 },
        { x: 300, y: 225, r: 12 },
      ],
      also: (x, y) => {
        const d = rings.map(([a, b, q]) => Math.hypot(x - a, y - b) - q)
        if (d.some((e) => Math.abs(e) < 3)) return 'line'
        return d.every((e) => e > 0) && along(x, y) ? 'line' : null
      },
    })
    expect(r.structure).toMatchObject({
      kind: 'parts',
      whole: { count: 0 },
      parts: [{ count: 1 }, { count: 2 }],
    })
    const numeral = await read({
      things: [
        { x: 200, y: 60, r: 12 },
        { x: 100, y: 210, r: 12 },
        { x: 280, y: 200, r: 12 },
        { x: 300, y: 225, r: 12 },
      ],
      also: (x, y) => {
        const d = rings.map(([a, b, q]) => Math.hypot(x - a, y - b) - q)
        if (d.some((e) => Math.abs(e) < 3)) return 'line'
        return d.every((e) => e > 0) && along(x, y) ? 'line' : null
      },
    })
    // A numeral in the whole's ring is no thing.
    expect([numeral.count, numeral.low, numeral.high]).toEqual([3, 3, 4])
  })
  test('a sheet of paper is no plate', async () => {
    const r = await read({
      things: row(3),
      also: (x, y) => (x > 20 && x < 380 && y > 40 && y < 260 ? 'sheet' : null),
    })
    expect(r.structure).toBeNull()
  })
  test('rows are read from the upper left, however the photo was tilted', () => {
    const tilt = (x: number, y: number) => ({ x: x + y * 0.18, y: y - x * 0.18, r: 10 })
    const spots = [tilt(0, 0), tilt(50, 0), tilt(100, 0), tilt(0, 60), tilt(50, 60)]
    expect(rowsOf(spots)).toEqual([
      [0, 1, 2],
      [3, 4],
    ])
  })
})

describe('colours and sizes', () => {
  test.each([
    [[0.95, 0.72, 0.02], 'yellow'],
    [[0.55, 0.41, 0.02], 'yellow'],
    [[0.17, 0.4, 0.65], 'blue'],
    [[0.7, 0.15, 0.12], 'red'],
    [[0.15, 0.5, 0.2], 'green'],
    [[0.93, 0.92, 0.9], 'white'],
    [[0.1, 0.1, 0.1], 'black'],
    [[0.45, 0.3, 0.2], 'brown'],
    [[0.9, 0.8, 0.62], 'beige'],
  ] as const)('%j is %s in a home’s words', (c, name) =>
    expect(colourName(labOf(c[0], c[1], c[2]))).toBe(name),
  )
  test('groups go by colour', async () => {
    const things = row(4)
    const px = pixels((x, y) =>
      Math.hypot(x - 40, y - 150) < 16 || Math.hypot(x - 100, y - 150) < 16
        ? [40, 100, 170]
        : things.some((t) => Math.hypot(x - t.x, y - t.y) < 16)
          ? [235, 180, 20]
          : [180, 170, 160],
    )
    expect((await read({ things }, px)).groups).toEqual([
      { colour: 'blue', count: 2 },
      { colour: 'yellow', count: 2 },
    ])
  })
  test('a picture keeps its colours when it is made smaller, and its sides fit the network', () => {
    const p = shrunk(pixels(), 400, 300, 200)
    expect([p.width % 16, p.height % 16]).toEqual([0, 0])
    expect(p.rgb[0]).toBeCloseTo(180 / 255, 3)
    expect(p.rgb[2 * p.width * p.height]).toBeCloseTo(160 / 255, 3)
  })
  test('a photo of many dots is made coarser by means of squares, a small one is left alone', () => {
    const stripes = pixels((x) => (x % 2 ? [0, 100, 255] : [200, 100, 55]))
    const c = coarser(stripes, 400, 300, 200)
    expect([c.width, c.height]).toEqual([200, 150])
    expect([...c.data.slice(0, 4)]).toEqual([100, 100, 155, 255])
    expect(new Set(c.data.filter((_, i) => i % 4 === 0))).toEqual(new Set([100]))
    expect(coarser(stripes, 400, 300, 201).data).toBe(stripes)
    // A strip one dot high cannot be halved.
    const strip = new Uint8ClampedArray(4000 * 4)
    expect(coarser(strip, 4000, 1, 1000)).toEqual({ data: strip, width: 4000, height: 1 })
  })
})
