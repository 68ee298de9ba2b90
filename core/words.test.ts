import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { median } from './median.ts'
import { capital, clockTime } from './words.ts'

describe('seconds on a clock', () => {
  test.each([
    [0, '0:00'],
    [9, '0:09'],
    [59.4, '0:59'],
    [59.7, '1:00'],
    [60, '1:00'],
    [719.6, '12:00'],
    [3725, '62:05'],
  ])('%d s is %s', (s, shown) => expect(clockTime(s)).toBe(shown))
  test('the seconds never reach sixty, and what is shown is within half a second', () =>
    fc.assert(
      fc.property(fc.double({ min: 0, max: 7200, noNaN: true }), (s) => {
        const [m, rest] = clockTime(s).split(':').map(Number)
        expect(rest).toBeLessThan(60)
        expect(Math.abs(m! * 60 + rest! - s)).toBeLessThanOrEqual(0.5)
      }),
    ))
})
test.each([
  ['', ''],
  ['a', 'A'],
  ['four add three', 'Four add three'],
  ['7 parcels', '7 parcels'],
  ['élan', 'Élan'],
])('“%s” with a capital is “%s”', (text, is) => expect(capital(text)).toBe(is))
test('the median has as many numbers at or under it as at or over it, in any order', () =>
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 15 }), (xs) => {
      const m = median(xs)
      expect(xs.filter((x) => x <= m).length).toBeGreaterThanOrEqual(xs.length / 2)
      expect(xs.filter((x) => x >= m).length).toBeGreaterThanOrEqual(xs.length / 2)
      expect(median([...xs].reverse())).toBe(m)
    }),
  ))
