import { describe, expect, test } from 'vitest'
import { mayBeFace } from './skin.ts'

type Colour = readonly [number, number, number]
/** A picture 100 wide and high: a ground, an oval in the middle, two dark spots for eyes. */
function picture(ground: Colour, oval: Colour): Uint8Array {
  const out = new Uint8Array(100 * 100 * 3)
  for (let y = 0; y < 100; y++)
    for (let x = 0; x < 100; x++) {
      const eye = Math.hypot(x - 40, y - 42) < 5 || Math.hypot(x - 60, y - 42) < 5
      const inside = ((x - 50) / 30) ** 2 + ((y - 50) / 38) ** 2 < 1
      out.set(eye ? [30, 25, 25] : inside ? oval : ground, (y * 100 + x) * 3)
    }
  return out
}
const box = { x: 15, y: 10, w: 70, h: 80 }
const grey: Colour = [140, 150, 145]

describe('the colour of a face', () => {
  test.each<[string, Colour]>([
    ['light', [236, 196, 172]],
    ['tanned', [217, 176, 140]],
    ['brown', [150, 104, 78]],
    ['dark', [92, 60, 46]],
  ])('%s skin may be a face', (_, tone) => expect(mayBeFace(picture(grey, tone), 100, box)).toBe(true))
  test.each<[string, Colour]>([
    ['a white mat', [247, 245, 239]],
    ['saffron counters', [242, 183, 5]],
    ['blue counters', [31, 95, 153]],
    ['a moss cloth', [35, 95, 69]],
  ])('%s is none', (_, tone) => expect(mayBeFace(picture([194, 162, 122], tone), 100, box)).toBe(false))
  test('without colour, a picture says nothing against it', () =>
    expect(mayBeFace(picture([90, 90, 90], [180, 180, 180]), 100, box)).toBe(true))
})
