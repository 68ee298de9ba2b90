import { describe, expect, test } from 'vitest'
import type { HeardWord } from '../../contracts/heard.ts'
import { levelsPerSecond } from './chunks.ts'
import { otherVoices, pitchesIn, pitchesPerSecond, withoutOthers } from './voices.ts'

const rate = 16_000
/** Noise without a pitch: a linear congruential generator's high bits. */
function* noises(): Generator<number> {
  for (let x = 12_345; ;) {
    x = (Math.imul(x, 1_664_525) + 1_013_904_223) >>> 0
    yield x / 2 ** 31 - 1
  }
}
/** A sound with the pitch and the overtones of a voice, in 16-bit samples. */
const hum = (hz: number, seconds: number, strength = 6000, noise = 0): Int16Array => {
  const hiss = noises()
  return Int16Array.from({ length: seconds * rate }, (_, i) => {
    const t = (2 * Math.PI * hz * i) / rate
    return (
      strength * (Math.sin(t) + 0.6 * Math.sin(2 * t + 1) + 0.5 * Math.sin(3 * t + 2)) +
      noise * (hiss.next().value as number)
    )
  })
}
const median = (a: Float32Array): number =>
  [...a].filter((x) => x > 0).sort((x, y) => x - y)[Math.floor([...a].filter((x) => x > 0).length / 2)] ?? 0

describe('the pitch of a sound', () => {
  test.each([85, 120, 200, 260, 390])('of a voice at %i Hz is heard', (hz) => {
    expect(Math.abs(12 * Math.log2(median(pitchesIn(hum(hz, 1), rate)) / hz))).toBeLessThan(0.7)
  })
  test('is heard over some noise, and in noise alone or silence there is none', () => {
    expect(Math.abs(median(pitchesIn(hum(200, 1, 6000, 1500), rate)) - 200)).toBeLessThan(10)
    expect(median(pitchesIn(hum(200, 1, 0, 8000), rate))).toBe(0)
    expect(median(pitchesIn(new Int16Array(rate), rate))).toBe(0)
  })
})

describe('who speaks', () => {
  /** Words a second apart, each half a second long, at pitches (Hz) and levels (decibels under the first). */
  const take = (spoken: readonly (readonly [string, number, number])[]) => {
    const words = spoken.map(([word], i): HeardWord => ({ word, start: i, end: i + 0.5, confidence: 0.9 }))
    const at = (each: number, value: (hz: number, db: number) => number) =>
      Float32Array.from({ length: spoken.length * each }, (_, k) => {
        const [, hz, db] = spoken[Math.floor(k / each)]!
        return k % each < each / 2 ? value(hz, db) : 0
      })
    return {
      words,
      others: otherVoices(
        words,
        at(pitchesPerSecond, (hz) => hz),
        at(levelsPerSecond, (_, db) => 0.2 * 10 ** (-db / 20)),
      ),
    }
  }
  const teacher = 'one two three four five six seven eight nine ten'
    .split(' ')
    .map((w) => [w, 190, 0] as const)
  test('a child further off is told apart, and what it says is not held against the script', () => {
    const { words, others } = take([...teacher.slice(0, 4), ['nine', 330, 8], ...teacher.slice(4)])
    expect(others).toEqual([{ from: 4, to: 4.5, sure: true }])
    expect(withoutOthers(words, others).map((w) => w.word)).toEqual(teacher.map(([w]) => w))
  })
  test('a deeper voice as well', () => {
    expect(take([...teacher, ['lovely', 110, 6]]).others).toMatchObject([{ sure: true }])
  })
  test('a voice far off in pitch alone is a doubt: it may be a puppet’s', () => {
    const { words, others } = take([...teacher.slice(0, 5), ['hello', 300, 0], ...teacher.slice(5)])
    expect(others).toMatchObject([{ sure: false }])
    expect(withoutOthers(words, others)).toHaveLength(words.length)
  })
  test('a speaker who rises at the end of a line, or turns away, is still herself', () => {
    expect(take(teacher.map(([w], i) => [w, 190 * (i % 3 === 2 ? 1.22 : 1), i % 4])).others).toEqual([])
    expect(take(teacher.map(([w], i) => [w, 190, i % 3 === 0 ? 9 : 0])).others).toEqual([])
  })
  test('one who plays many parts is not cut to pieces', () => {
    const { words, others } = take(teacher.map(([w], i) => [w, i % 2 ? 300 : 190, i % 2 ? 8 : 0]))
    expect(withoutOthers(words, others)).toHaveLength(words.length)
  })
  test('of a few words nothing is told', () => expect(take(teacher.slice(0, 5)).others).toEqual([]))
})
