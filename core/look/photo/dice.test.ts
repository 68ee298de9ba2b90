import { describe, expect, test } from 'vitest'
import { pipsOf } from './dice.ts'

/** Where the dots of a face lie, in thirds of its side. */
const faces: Record<number, [number, number][]> = {
  1: [[0, 0]],
  2: [
    [-1, -1],
    [1, 1],
  ],
  3: [
    [-1, -1],
    [0, 0],
    [1, 1],
  ],
  4: [
    [-1, -1],
    [1, -1],
    [-1, 1],
    [1, 1],
  ],
  5: [
    [-1, -1],
    [1, -1],
    [0, 0],
    [-1, 1],
    [1, 1],
  ],
  6: [
    [-1, -1],
    [1, -1],
    [-1, 0],
    [1, 0],
    [-1, 1],
    [1, 1],
  ],
}
const [width, height] = [200, 160]
interface Die {
  turn: number
  side: number
  face: number
  dots: number
  /** Half the side of its dots, as a share. */
  dot?: number
}
/** A die from above on a table, its dots as dice have them. */
function die(n: number, d: Die): Uint8ClampedArray {
  const px = new Uint8ClampedArray(width * height * 4).fill(255)
  const [c, s] = [Math.cos(d.turn), Math.sin(d.turn)]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x - 100) * c + (y - 80) * s, (y - 80) * c - (x - 100) * s]
      let value = 120
      if (Math.abs(u) < d.side / 2 && Math.abs(v) < d.side / 2) {
        value = d.face
        for (const [a, b] of faces[n] ?? [])
          if (Math.hypot(u - a * d.side * 0.27, v - b * d.side * 0.27) < d.side * (d.dot ?? 0.09))
            value = d.dots
      }
      for (let k = 0; k < 3; k++) px[(y * width + x) * 4 + k] = value
    }
  return px
}
const at = (side: number) => ({ x: 100, y: 80, r: side / Math.sqrt(Math.PI) })
const read = (n: number, d: Die) => pipsOf(die(n, d), { width, height }, at(d.side))

describe('the dots of a die', () => {
  test.each([1, 2, 3, 4, 5, 6])('%i, dark on white and white on dark, however it lies', (n) => {
    for (const turn of [0, 0.4, 0.785, 1.9])
      for (const [face, dots] of [
        [235, 30],
        [60, 240],
      ] as const)
        expect(read(n, { turn, side: 60, face, dots }), `turned ${turn}`).toEqual({ pips: n, sure: true })
  })
  test('small ones too', () => {
    for (const n of [2, 3, 5])
      expect(read(n, { turn: 0.3, side: 30, face: 235, dots: 30, dot: 0.1 }).pips).toBe(n)
  })
  test('a blank cube has none, and what does not lie as a die’s is not sure', () => {
    expect(read(0, { turn: 0.2, side: 60, face: 235, dots: 30 })).toEqual({ pips: 0, sure: false })
    const px = die(4, { turn: 0, side: 60, face: 235, dots: 30 })
    // One dot painted over: three in a corner are no three.
    for (let y = 55; y < 75; y++)
      for (let x = 74; x < 95; x++) for (let k = 0; k < 3; k++) px[(y * width + x) * 4 + k] = 235
    expect(pipsOf(px, { width, height }, at(60)).sure).toBe(false)
  })
})
