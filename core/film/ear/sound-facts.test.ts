import { describe, expect, test } from 'vitest'
import { seeded } from '../../plan/seeded.ts'
import { levelsOf } from './chunks.ts'
import { addSamples, adviceOf, factsOf, gather } from './sound-facts.ts'

const rate = 16_000
const seconds = 6
/** Something like a voice: half a second of tones with a hiss over them, half a second of room. */
function voice({ loud = 0.3, hiss = 0.05, room = 0.0005, top = 1 } = {}): Int16Array {
  const random = seeded(7)
  const noise = (): number => random(20_001) / 10_000 - 1
  return Int16Array.from({ length: rate * seconds }, (_, i) => {
    const t = i / rate
    const tones =
      Math.sin(2 * Math.PI * 180 * t) * 0.6 +
      Math.sin(2 * Math.PI * 900 * t) * 0.3 * Math.sin(2 * Math.PI * 3 * t) +
      Math.sin(2 * Math.PI * 2300 * t) * 0.1
    const x = (t % 1 < 0.5 ? loud * tones + loud * hiss * noise() : 0) + room * noise()
    return Math.round(Math.max(-top, Math.min(top, x)) * 32_767)
  })
}
const advice = (samples: Int16Array) => {
  const g = gather()
  // In blocks, as a file is read.
  for (let i = 0; i < samples.length; i += 5000) addSamples(g, samples.subarray(i, i + 5000))
  return adviceOf(factsOf(g, levelsOf(samples, rate)))
}

describe('what is told of a sound by itself', () => {
  test('a clear voice needs nothing', () => expect(advice(voice())).toEqual([]))
  test('cut off at the top', () => expect(advice(voice({ loud: 1.6, top: 0.5 }))).toContain('cut off'))
  test('nothing over four thousand hertz is a telephone, whatever the file says', () =>
    expect(advice(voice({ hiss: 0, room: 0.00002 }))).toContain('telephone'))
  test('hardly anything', () => expect(advice(voice({ loud: 0.004, room: 0.00003 }))).toContain('quiet'))
  test('a room nearly as loud as the voice', () => expect(advice(voice({ room: 0.12 }))).toContain('noise'))
  test('silence gives no advice', () => expect(advice(new Int16Array(rate * 3))).toEqual([]))
})
