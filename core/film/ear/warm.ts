import { levelsPerSecond, type Piece, quietLevel } from './chunks.ts'

/** Seconds of a take from which a recogniser learns how the voice and the room sound, before it listens to the words. */
export const warmSeconds = 12

/** The stretch of a take (at most `warmSeconds`) with the most voice in it, from its loudness (`levelsPerSecond` values a second). */
export function warmStretch(levels: ArrayLike<number>): Piece {
  const quiet = quietLevel(levels)
  const length = Math.min(levels.length, warmSeconds * levelsPerSecond)
  let loud = 0
  let [best, from] = [-1, 0]
  for (let k = 0; k < levels.length; k++) {
    if (levels[k]! > quiet) loud++
    if (k >= length && levels[k - length]! > quiet) loud--
    if (k >= length - 1 && loud > best) [best, from] = [loud, k - length + 1]
  }
  return { from: from / levelsPerSecond, to: (from + length) / levelsPerSecond }
}
