import type { Seconds } from '../contracts/units.ts'

/** A film that was rendered on this machine: its length, how much of it had to be encoded, and how long the work took. */
export interface Rendered {
  film: Seconds
  encoded: Seconds
  took: Seconds
}
/** Of the work of a film whose every segment is encoded anew, the share that is encoding; joining, looking through and the small version are the rest. */
const encoding = 0.7
const work = (film: Seconds, encoded: Seconds): number => encoded * encoding + film * (1 - encoding)

/** Seconds of work for a second of film, from what this machine has rendered: the middle one of the last few. Null with no history. */
export function renderRate(history: readonly Rendered[]): number | null {
  const rates = history
    .filter((r) => r.film > 0 && r.took > 0)
    .map((r) => r.took / work(r.film, r.encoded))
    .sort((a, b) => a - b)
  return rates[Math.floor((rates.length - 1) / 2)] ?? null
}
/** Seconds a film is likely to take, by the rate of `renderRate`. */
export const renderSeconds = (rate: number, film: Seconds, encoded: Seconds = film): Seconds =>
  rate * work(film, encoded)

/**
 * Seconds a job has left: by what was expected at first, and more and more by its own pace, for the machine may be
 * doing other things as well. Null while neither says anything.
 */
export function secondsLeft(expected: Seconds | null, gone: Seconds, share: number): Seconds | null {
  const byPace = share >= 0.02 ? (gone / share) * (1 - share) : null
  if (expected === null) return share >= 0.05 ? byPace : null
  const bySize = expected * (1 - share)
  if (byPace === null) return Math.max(0, bySize)
  const trust = Math.min(1, share * 3)
  // A pace far slower than expected is believed at once: nothing is worse than a promise that runs out.
  return byPace > bySize * 2 ? byPace : byPace * trust + bySize * (1 - trust)
}
