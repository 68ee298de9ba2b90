import { describe, expect, test } from 'vitest'
import { flashFinder } from './flashes.ts'
import { humIn } from './hum.ts'
import { roomToneOf } from './room-tone.ts'

const noise = (n: number, size: number): number[] => {
  let x = 7
  return Array.from({ length: n }, () => {
    x = (Math.imul(x, 1_103_515_245) + 12_345) & 0x7fffffff
    return ((x / 0x7fffffff) * 2 - 1) * size
  })
}
const tone = (n: number, rate: number, hertz: number, size: number): number[] =>
  Array.from(
    { length: n },
    (_, i) =>
      size * (Math.sin((2 * Math.PI * hertz * i) / rate) + 0.5 * Math.sin((4 * Math.PI * hertz * i) / rate)),
  )

describe('room tone', () => {
  // Four seconds: speech 0–1, breath 1–2, quiet 2–3.5, speech to the end.
  const peaks = Array.from({ length: 200 }, (_, i) => (i < 50 ? 180 : i < 100 ? 60 : i < 175 ? 20 : 180))
  test('is the quietest stretch, away from what is said', () => {
    const found = roomToneOf(peaks, 50, [
      { start: 0, end: 1 },
      { start: 3.5, end: 4 },
    ])!
    expect(found.from).toBeGreaterThanOrEqual(2)
    expect(found.to).toBeLessThanOrEqual(3.5)
    expect(found.to - found.from).toBeGreaterThanOrEqual(0.3)
  })
  test('a take that is all words has none', () =>
    expect(roomToneOf(peaks, 50, [{ start: 0, end: 4 }])).toBeNull())
  test('an empty take has none', () => expect(roomToneOf([], 50, [])).toBeNull())
})

describe('hum', () => {
  const rate = 16_000
  test.each([50, 60] as const)('of %i Hz is heard under noise', (hertz) => {
    const hum = tone(rate, rate, hertz, 300)
    expect(
      humIn(
        noise(rate, 200).map((v, i) => v + hum[i]!),
        rate,
      ),
    ).toBe(hertz)
  })
  test.each([
    ['noise', noise(rate, 400)],
    ['silence', Array.from({ length: rate }, () => 0)],
    ['a low voice', tone(rate, rate, 110, 400)],
    ['too short a stretch', tone(2000, rate, 50, 400)],
  ] as const)('%s is no hum', (_, samples) => expect(humIn(samples, rate)).toBe(0))
})

describe('flashes', () => {
  const blocks = 100
  const picture = (v: number, share = 1, rgb: readonly [number, number, number] = [1, 1, 1]): number[] =>
    Array.from({ length: blocks * 3 }, (_, i) => (Math.floor(i / 3) < blocks * share ? v * rgb[i % 3]! : 60))
  const run = (frames: readonly number[][]) => {
    const f = flashFinder(blocks, 30)
    frames.forEach((p) => f.frame(p))
    return f.found()
  }
  /** So many flashes in two seconds. */
  const flashing = (n: number, bright: number, share = 1, rgb?: readonly [number, number, number]) =>
    Array.from({ length: 60 }, (_, i) => picture(Math.floor((i * n * 2) / 60) % 2 ? bright : 20, share, rgb))
  test('five a second are found, with where', () => {
    const found = run(flashing(10, 220))
    expect(found).toHaveLength(1)
    expect(found[0]!.perSecond).toBeGreaterThan(3)
    expect(found[0]!.to).toBeGreaterThan(1.5)
  })
  test('two a second are allowed, so are small areas and faint changes', () => {
    expect(run(flashing(4, 220))).toEqual([])
    expect(run(flashing(10, 220, 0.1))).toEqual([])
    expect(run(flashing(10, 50))).toEqual([])
  })
  test('a slow fade and a cut are none', () => {
    expect(run(Array.from({ length: 60 }, (_, i) => picture(i * 4)))).toEqual([])
    expect(run(Array.from({ length: 60 }, (_, i) => picture(i < 30 ? 20 : 220)))).toEqual([])
  })
  test('saturated red flashing is told as red', () =>
    expect(run(flashing(12, 200, 1, [1, 0, 0])).some((f) => f.red)).toBe(true))
})
