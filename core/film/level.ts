/** How a sound is now: loudness 0–1 (root mean square), whether somebody speaks, and whether it was too loud in the last two seconds. */
export interface Level {
  level: number
  speaking: boolean
  clipped: boolean
}
/** What is remembered of a sound from one look to the next. Times in seconds. */
export interface Listening {
  now: Level
  /** Loudness of the room between words. */
  floor: number
  clippedAt: number
  clapAt: number
  /** Whether the second of two claps has just sounded. */
  doubleClap: boolean
}
export const silent: Level = { level: 0, speaking: false, clipped: false }
export const startListening = (): Listening => ({ now: silent, floor: 0.02, clippedAt: -Infinity, clapAt: -Infinity, doubleClap: false })

/** Speech is this many times as loud as the room, and never under `least`; from `full` on a sample is cut off. */
const limits = { over: 3, least: 0.012, full: 0.98, clippedFor: 2 } as const
/** Two sharp sounds this far apart are the double clap that marks a slip; a clap is all peak, with quiet before it. */
const claps = { least: 0.18, most: 0.8, peak: 0.3, sharp: 5, quietBefore: 0.1 } as const

/** One look at a microphone's samples (−1 to 1) at a time in seconds. */
export function listen(before: Listening, samples: ArrayLike<number>, at: number): Listening {
  let [sum, peak] = [0, 0]
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]!
    sum += x * x
    peak = Math.max(peak, Math.abs(x))
  }
  const level = Math.sqrt(sum / Math.max(1, samples.length))
  // The floor falls quickly into a pause and rises slowly with a room that gets louder.
  const floor = level < before.floor ? before.floor * 0.7 + level * 0.3 : before.floor * 0.995 + level * 0.005
  const clippedAt = peak > limits.full ? at : before.clippedAt
  // Speech of that height fills the whole window.
  const clap = peak > claps.peak && peak > level * claps.sharp && before.now.level < claps.quietBefore
  const apart = at - before.clapAt
  const doubleClap = clap && apart >= claps.least && apart <= claps.most
  const clapAt = doubleClap ? -Infinity : clap ? at : before.clapAt
  return { now: { level, speaking: level > Math.max(limits.least, floor * limits.over), clipped: at - clippedAt < limits.clippedFor }, floor, clippedAt, clapAt, doubleClap }
}
