import type { StandInRoom } from '@awlbox/core/contracts/stand-in'
import { seeded } from '@awlbox/core/plan/seeded'
import { speechRate } from './speak.ts'

/**
 * Rooms the stand-in films in: noise in decibels below the voice, level in decibels against full strength, and
 * seconds in which an echo dies away by 60 decibels (0 for none).
 */
const rooms = {
  studio: { noise: null, level: 0, echo: 0 },
  'quiet kitchen': { noise: 32, level: -3, echo: 0.25 },
  'far from the microphone': { noise: 26, level: -14, echo: 0.35 },
  'fridge humming': { noise: 22, level: -3, echo: 0.3 },
} as const satisfies Record<StandInRoom, { noise: number | null; level: number; echo: number }>

/** One clap of hands: a burst of noise that dies away in a tenth of a second. */
export function clap(n: number): Int16Array {
  const random = seeded(977 + n * 31)
  const out = new Int16Array(Math.round(speechRate * 0.11))
  let low = 0
  for (let i = 0; i < out.length; i++) {
    const noise = random(20_001) / 10_000 - 1
    low += (noise - low) * 0.35
    out[i] = Math.round((noise - low) * 19_000 * Math.exp(-i / (speechRate * 0.014)) * Math.min(1, i / 12))
  }
  return out
}

/** The same sound as it arrives from a room: quieter, with an echo, noise and a mains hum. */
export function inRoom(dry: Int16Array, name: StandInRoom, seed: number): Int16Array {
  const room = rooms[name]
  if (room.noise === null) return dry
  const random = seeded(seed * 13 + 5)
  const out = new Float64Array(dry)
  // A handful of early reflections and one comb: enough to smear consonants as a kitchen does.
  for (const [ms, strength] of [
    [11, 0.3],
    [19, 0.22],
    [31, 0.16],
    [47, 0.1],
  ] as const) {
    const late = Math.round((ms * speechRate) / 1000)
    for (let i = late; i < dry.length; i++) out[i]! += dry[i - late]! * strength
  }
  const comb = Math.round(0.053 * speechRate)
  const back = room.echo ? 10 ** ((-3 * 0.053) / room.echo) * 0.4 : 0
  for (let i = comb; i < out.length; i++) out[i]! += out[i - comb]! * back
  const loud = Math.sqrt(mean(out, (x) => x * x))
  const noise = loud / 10 ** (room.noise / 20)
  const gain = 10 ** (room.level / 20) * 0.8
  let slow = 0
  const result = new Int16Array(dry.length)
  for (let i = 0; i < out.length; i++) {
    const white = (random(20_001) / 10_000 - 1) * 1.7
    slow += (white - slow) * 0.12
    const hiss =
      (white * 0.45 + slow * 1.6) * noise + Math.sin((2 * Math.PI * 100 * i) / speechRate) * noise * 0.5
    result[i] = Math.max(-32_768, Math.min(32_767, Math.round((out[i]! + hiss) * gain)))
  }
  return result
}
function mean(xs: Float64Array, f: (x: number) => number): number {
  let sum = 0
  for (const x of xs) sum += f(x)
  return sum / Math.max(1, xs.length)
}
