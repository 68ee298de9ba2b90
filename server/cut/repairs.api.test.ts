import path from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Hidden, Overlay } from '@awlbox/core/contracts/cut'
import { play } from '@awlbox/core/script/table/play'
import { segmentKey, type SegmentSource, type TakeFilm } from './render.ts'
import {
  clip,
  colourAt,
  framesIn,
  loudness,
  makeFilm,
  rendered,
  repair,
  takeA,
  takeB,
  testFolder,
} from './test-films.ts'

const { dir, remove } = testFolder()
afterAll(remove)
/** Left half red, right half blue, a white square in the middle of the upper left quarter; a tone of 400 Hz with quiet from 3 to 4 s. */
const films = new Map<string, TakeFilm>()
beforeAll(() => {
  const halves =
    'color=c=red:s=640x720:r=30:d=4[l];color=c=blue:s=640x720:r=30:d=4[r];[l][r]hstack,drawbox=x=280:y=140:w=80:h=80:c=white:t=fill'
  films.set(takeA, {
    ...makeFilm(
      path.join(dir, 'a.mp4'),
      halves,
      "aevalsrc='0.3*sin(2*PI*400*t)*lt(t,3)+0.004*sin(2*PI*900*t)':s=48000:d=4",
      4,
    ),
    tone: { from: 3.2, to: 3.9 },
  })
  films.set(
    takeB,
    makeFilm(path.join(dir, 'b.mp4'), 'color=c=green:s=1280x720:r=30:d=4', 'sine=f=1200:d=4', 4),
  )
})
const isRed = ([r, , b]: readonly number[]): boolean => r! - b! > 100
const isBlue = ([r, , b]: readonly number[]): boolean => b! - r! > 100
const isWhite = (c: readonly number[]): boolean => Math.min(...c) > 200
const mended = (over: Parameters<typeof repair>[0], items = [clip(0, 30)]) =>
  rendered(dir, items, films, { repairs: [repair(over)] })

describe('a picture mended', () => {
  test('mirrored, left is right', async () => {
    const out = await mended({ mirror: true })
    expect([
      isBlue(colourAt(out, 5, 100, 600)),
      isRed(colourAt(out, 5, 1100, 600)),
      isWhite(colourAt(out, 5, 955, 175)),
    ]).toEqual([true, true, true])
  })
  test('turned a quarter it stands upright in the middle; upside down it is both turned and mirrored', async () => {
    const quarter = await mended({ turn: 90 })
    expect([
      isRed(colourAt(quarter, 5, 640, 100)),
      isBlue(colourAt(quarter, 5, 640, 600)),
      isRed(colourAt(quarter, 5, 100, 100)),
    ]).toEqual([true, true, false])
    const half = await mended({ turn: 180 })
    expect([isBlue(colourAt(half, 5, 100, 300)), isWhite(colourAt(half, 5, 955, 535))]).toEqual([true, true])
  })
  test('brought closer, the point asked for fills the frame; slowly, it gets there by its last frame', async () => {
    const close = await mended({ closer: { x: 320, y: 180, by: 4, from: 0, frames: 0 } })
    expect([
      isWhite(colourAt(close, 5, 600, 340)),
      isRed(colourAt(close, 5, 100, 100)),
      isRed(colourAt(close, 5, 1200, 100)),
    ]).toEqual([true, true, true])
    const slow = await mended({ closer: { x: 320, y: 180, by: 4, from: 0, frames: 28 } })
    expect([
      isBlue(colourAt(slow, 0, 1200, 300)),
      isRed(colourAt(slow, 29, 1200, 300)),
      isWhite(colourAt(slow, 29, 640, 360)),
    ]).toEqual([true, true, true])
  })
  test('the corners of a tilted table become those of the frame', async () => {
    const out = await mended({
      corners: [
        { x: 320, y: 100 },
        { x: 960, y: 140 },
        { x: 1000, y: 640 },
        { x: 280, y: 600 },
      ],
    })
    expect([isRed(colourAt(out, 5, 60, 360)), isBlue(colourAt(out, 5, 1200, 360)), framesIn(out)]).toEqual([
      true,
      true,
      30,
    ])
  })
  test('a stop of light doubles what is dark; warmth raises red over blue', async () => {
    const grey = new Map([
      [takeA, makeFilm(path.join(dir, 'grey.mp4'), 'color=c=0x505050:s=1280x720:r=30:d=1', 'sine=d=1', 1)],
    ])
    const [lit, warm] = [
      await rendered(dir, [clip(0, 10)], grey, { repairs: [repair({ light: 1 })] }),
      await rendered(dir, [clip(0, 10)], grey, { repairs: [repair({ warmth: 1 })] }),
    ]
    expect(Math.abs(colourAt(lit, 3, 300, 300)[1] - 160)).toBeLessThan(6)
    const [r, g, b] = colourAt(warm, 3, 300, 300)
    expect(r - g).toBeGreaterThan(12)
    expect(g - b).toBeGreaterThan(12)
  })
  test('a shaken camera is steadier', async () => {
    const shaken = makeFilm(
      path.join(dir, 'shaken.mp4'),
      "color=c=gray:s=1600x900:r=30:d=0.04,format=gray,geq=lum='128+60*sin(X/17)*cos(Y/23)+40*sin(X/71+Y/50)',loop=loop=100:size=1,setpts=N/30/TB,crop=1280:720:x='160+24*sin(n*1.9)':y='90+18*cos(n*2.3)',format=yuv420p",
      'sine=d=3',
      3,
    )
    const of = async (steady: boolean) =>
      rendered(dir, [clip(10, 46)], new Map([[takeA, shaken]]), { repairs: [repair({ steady })] })
    /** How much neighbouring pictures differ. */
    const restless = (file: string): number =>
      Array.from({ length: 4 }, (_, i) => 8 + i * 7).reduce((sum, f) => {
        const [a, b] = [colourAt(file, f, 420, 260, 40), colourAt(file, f + 1, 420, 260, 40)]
        return sum + a.reduce((n, v, k) => n + Math.abs(v - b[k]!), 0)
      }, 0)
    const [before, after] = [await of(false), await of(true)]
    expect(restless(after)).toBeLessThan(restless(before) * 0.7)
    expect(framesIn(after)).toBe(36)
  })
  test('an area is covered where it is and as it moves, and nothing of it can be told; a cover only proposed covers nothing', async () => {
    const face: Hidden = {
      id: 'f',
      what: 'face',
      from: 0,
      to: 60,
      keys: [
        { frame: 0, box: { x: 260, y: 120, w: 120, h: 120 } },
        { frame: 30, box: { x: 860, y: 120, w: 120, h: 120 } },
      ],
      why: null,
    }
    const out = await mended({ hidden: [face] }, [clip(0, 60)])
    expect(isWhite(colourAt(out, 0, 310, 170))).toBe(false)
    // By the key it has moved on: the square is seen again, and the blue there is one colour still.
    expect(isWhite(colourAt(out, 40, 310, 170))).toBe(true)
    const proposed = await mended({
      hidden: [{ ...face, why: { id: 'w', act: 'add', kind: 'face', note: '', sure: false, state: 'open' } }],
    })
    expect(isWhite(colourAt(proposed, 0, 310, 170))).toBe(true)
  })
  test('what is covered in a still picture stays covered for as long as it stands', async () => {
    const face: Hidden = {
      id: 'f',
      what: 'face',
      from: 0,
      to: 60,
      keys: [
        { frame: 0, box: { x: 260, y: 120, w: 120, h: 120 } },
        { frame: 20, box: { x: 860, y: 120, w: 120, h: 120 } },
      ],
      why: null,
    }
    const out = await mended({ hidden: [face] }, [clip(0, 50, { still: true })])
    expect([0, 25, 49].map((f) => isWhite(colourAt(out, f, 310, 170)))).toEqual([false, false, false])
    expect(framesIn(out)).toBe(50)
  })
  test('a still span shows its first picture while its sound goes on', async () => {
    const moving = new Map([
      [
        takeA,
        makeFilm(
          path.join(dir, 'moving.mp4'),
          "color=c=black:s=1280x720:r=30:d=3,format=gray,geq=lum='40+N*2',format=yuv420p",
          "aevalsrc='0.3*sin(2*PI*400*t)*gt(t,1)':d=3",
          3,
        ),
      ],
    ])
    const out = await rendered(dir, [clip(10, 70, { still: true }), clip(70, 80)], moving)
    expect(Math.abs(colourAt(out, 0, 300, 300)[0] - colourAt(out, 59, 300, 300)[0])).toBeLessThan(3)
    expect(colourAt(out, 65, 300, 300)[0]).toBeGreaterThan(colourAt(out, 59, 300, 300)[0] + 60)
    expect(loudness(out, 1, 1.8)).toBeGreaterThan(0.1)
    expect(framesIn(out)).toBe(70)
  })
})

describe('sound', () => {
  const [low, high] = ['bandpass=f=400:width_type=h:w=60', 'bandpass=f=1200:width_type=h:w=60']
  test('of another take is heard over the picture', async () => {
    const out = await rendered(dir, [clip(0, 60, { voice: { takeId: takeB, from: 15 } })], films)
    expect(isRed(colourAt(out, 20, 100, 300))).toBe(true)
    expect(loudness(out, 0.3, 1.7, high)).toBeGreaterThan(5 * loudness(out, 0.3, 1.7, low))
  })
  test('a held picture and a card have the room under them, not silence', async () => {
    const out = await rendered(
      dir,
      [clip(0, 30), { kind: 'hold', id: 'h', frames: 120, stepId: null, why: null }],
      films,
    )
    const room = loudness(out, 1.5, 4.5)
    expect(room).toBeGreaterThan(0.001)
    expect(room).toBeLessThan(0.02)
    const [bare] = [
      await rendered(
        dir,
        [clip(0, 30), { kind: 'hold', id: 'h', frames: 120, stepId: null, why: null }],
        new Map([[takeA, { ...films.get(takeA)!, tone: null }]]),
      ),
    ]
    expect(loudness(bare, 1.5, 4.5)).toBe(0)
  })
  test('hum goes, what is said stays', async () => {
    const hums = new Map([
      [
        takeA,
        makeFilm(
          path.join(dir, 'hum.mp4'),
          'color=c=gray:s=1280x720:r=30:d=4',
          "aevalsrc='0.2*sin(2*PI*50*t)+0.2*sin(2*PI*100*t)+0.2*sin(2*PI*620*t)':d=4",
          4,
        ),
      ],
    ])
    const [as, out] = [
      await rendered(dir, [clip(0, 110)], hums),
      await rendered(dir, [clip(0, 110)], hums, { repairs: [repair({ hum: 50 })] }),
    ]
    const [humBand, voice] = ['lowpass=f=130,lowpass=f=130', 'bandpass=f=620:width_type=h:w=100']
    expect(loudness(out, 1, 3, humBand)).toBeLessThan(0.25 * loudness(as, 1, 3, humBand))
    expect(loudness(out, 1, 3, voice)).toBeGreaterThan(0.9 * loudness(as, 1, 3, voice))
  })
  test('hiss is taken down', async () => {
    const hisses = new Map([
      [
        takeA,
        makeFilm(
          path.join(dir, 'hiss.mp4'),
          'color=c=gray:s=1280x720:r=30:d=4',
          'anoisesrc=d=4:c=white:a=0.01:seed=4',
          4,
        ),
      ],
    ])
    const [as, out] = [
      await rendered(dir, [clip(0, 110)], hisses),
      await rendered(dir, [clip(0, 110)], hisses, { repairs: [repair({ hiss: true })] }),
    ]
    expect(loudness(out, 1.5, 3)).toBeLessThan(0.6 * loudness(as, 1.5, 3))
  })
  test('louder is louder by what was asked', async () => {
    const [as, out] = [
      await rendered(dir, [clip(0, 60)], films),
      await mended({ louder: -12 }, [clip(0, 60)]),
    ]
    expect(loudness(out, 0.5, 1.5) / loudness(as, 0.5, 1.5)).toBeCloseTo(10 ** (-12 / 20), 2)
  })
})

describe('over the picture', () => {
  const overlay = (over: Partial<Overlay>): Overlay => ({
    id: 'o',
    look: 'sentence',
    takeId: takeA,
    from: 20,
    to: 40,
    text: '4 + 3 = 7',
    stepId: null,
    place: { x: 800, y: 100, w: 400, h: 100 },
    at: null,
    why: null,
    ...over,
  })
  const over = (o: Overlay, items = [clip(0, 60)], more: Partial<SegmentSource> = {}) =>
    rendered(dir, items, films, { ...more, cut: { items, overlays: [o] } })
  const isDark = (c: readonly number[]): boolean => Math.max(...c) < 90
  test('a sentence is there while its stretch is shown, wherever that comes in the cut', async () => {
    const out = await over(overlay({}), [clip(50, 60), clip(10, 50)])
    expect([5, 19, 20, 39, 40].map((f) => isDark(colourAt(out, f, 805, 140)))).toEqual([
      false,
      false,
      true,
      true,
      false,
    ])
  })
  test('one that is only proposed is not drawn', async () =>
    expect(
      isDark(
        colourAt(
          await over(
            overlay({ why: { id: 'w', act: 'add', kind: 'overlay', note: '', sure: true, state: 'open' } }),
          ),
          30,
          805,
          140,
        ),
      ),
    ).toBe(false))
  test('the table is drawn as it is after its step', async () => {
    const table = play(['Lay a ten frame', 'Put 4 saffron on the frame'])
    const out = await over(
      overlay({ look: 'table', stepId: 's', place: { x: 700, y: 100, w: 480, h: 312 } }),
      [clip(0, 60)],
      { tables: (id) => (id === 's' ? table : null) },
    )
    expect(isWhite(colourAt(out, 30, 720, 120))).toBe(true)
    expect(isBlue(colourAt(out, 45, 720, 120))).toBe(true)
  })
  test('a magnifier shows its part of the film larger', async () => {
    const out = await over(
      overlay({
        look: 'magnify',
        at: { x: 280, y: 140, w: 80, h: 80 },
        place: { x: 800, y: 300, w: 320, h: 320 },
      }),
    )
    expect(isWhite(colourAt(out, 30, 900, 400))).toBe(true)
    expect(isBlue(colourAt(out, 45, 900, 400))).toBe(true)
  })
  test('captions drawn in come at the foot while they are said', async () => {
    const out = await rendered(dir, [clip(0, 60)], films, {
      burnt: [{ start: 0.5, end: 1, text: 'Four and three\nmake seven.' }],
    })
    expect([10, 20, 40].map((f) => isDark(colourAt(out, f, 640, 684, 6)))).toEqual([false, true, false])
  })
})

describe('what makes a segment’s file another one', () => {
  const source = (over: Partial<SegmentSource>): SegmentSource => ({
    cut: { items: [clip(0, 30)], overlays: [] },
    films,
    fill: 'across',
    ...over,
  })
  const same = () => segmentKey(source({}))
  test('a repair of its take, an overlay that is shown, burnt-in captions', () => {
    expect(segmentKey(source({ repairs: [repair({ mirror: true })] }))).not.toBe(same())
    expect(segmentKey(source({ burnt: [{ start: 0, end: 1, text: 'a' }] }))).not.toBe(same())
    const o: Overlay = {
      id: 'o',
      look: 'sentence',
      takeId: takeA,
      from: 0,
      to: 20,
      text: '1 + 1 = 2',
      stepId: null,
      place: { x: 0, y: 0, w: 300, h: 80 },
      at: null,
      why: null,
    }
    expect(segmentKey(source({ cut: { items: [clip(0, 30)], overlays: [o] } }))).not.toBe(same())
    expect(segmentKey(source({ cut: { items: [clip(0, 30)], overlays: [{ ...o, takeId: takeB }] } }))).toBe(
      same(),
    )
  })
  test('not: names of spans, where they were parted, repairs of other takes, covers nobody accepted', () => {
    expect(
      segmentKey(source({ cut: { items: [clip(0, 10, { id: 'x' }), clip(10, 30)], overlays: [] } })),
    ).toBe(same())
    expect(segmentKey(source({ repairs: [{ ...repair({ mirror: true }), takeId: takeB }] }))).toBe(same())
  })
})
