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
  /** A sudden sound that may turn out to be a clap, with its loudness. */
  sudden: { at: number; level: number } | null
  /** Whether the second of two claps has just sounded. */
  doubleClap: boolean
}
export const silent: Level = { level: 0, speaking: false, clipped: false }
export const startListening = (): Listening => ({
  now: silent,
  floor: 0.02,
  clippedAt: -Infinity,
  clapAt: -Infinity,
  sudden: null,
  doubleClap: false,
})

/** Speech is this many times as loud as the room, and never under `least`; from `full` on a sample is cut off. */
const limits = { over: 3, least: 0.012, full: 0.98, clippedFor: 2 } as const
/**
 * A clap is broad (`broad` is the energy of its changes against its own), rises out of quiet `times` over what was before it, to `loud` at least, and is down to `gone` of itself within `within`
 * seconds, as no word is. Two of them between `least` and `most` apart mark a slip.
 */
const claps = { loud: 0.05, times: 4, broad: 0.12, gone: 0.3, within: 0.18, least: 0.18, most: 0.8 } as const

/** One look at a microphone's samples (−1 to 1) at a time in seconds; looks follow one another with no gap between their samples. */
export function listen(before: Listening, samples: ArrayLike<number>, at: number): Listening {
  let [sum, peak, change, last] = [0, 0, 0, samples[0] ?? 0]
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]!
    sum += x * x
    change += (x - last) ** 2
    last = x
    peak = Math.max(peak, Math.abs(x))
  }
  const level = Math.sqrt(sum / Math.max(1, samples.length))
  // The floor falls quickly into a pause and rises slowly with a room that gets louder.
  const floor = level < before.floor ? before.floor * 0.7 + level * 0.3 : before.floor * 0.995 + level * 0.005
  const clippedAt = peak > limits.full ? at : before.clippedAt
  const was = before.sudden
  const clap = was && level < was.level * claps.gone ? was.at : null
  // A clap is broad: from sample to sample it changes far more than a voice does, which lies low.
  const broad = sum > 0 && change / sum > claps.broad
  const rises = broad && !before.now.speaking && level > claps.loud && level > before.now.level * claps.times
  const sudden =
    clap !== null
      ? null
      : was
        ? at - was.at > claps.within
          ? null
          : { at: was.at, level: Math.max(was.level, level) }
        : rises
          ? { at, level }
          : null
  const apart = clap === null ? Infinity : clap - before.clapAt
  const doubleClap = apart >= claps.least && apart <= claps.most
  const clapAt = doubleClap ? -Infinity : (clap ?? before.clapAt)
  return {
    now: {
      level,
      speaking: level > Math.max(limits.least, floor * limits.over),
      clipped: at - clippedAt < limits.clippedFor,
    },
    floor,
    clippedAt,
    clapAt,
    sudden,
    doubleClap,
  }
}
