import type { Seconds } from '../../contracts/units.ts'
import type { HeardWord } from '../../contracts/heard.ts'
import { levelsPerSecond, type Piece, quietLevel } from './chunks.ts'

/** Breaks shorter than this (seconds) are within a word; sounds shorter than the second are knocks. */
const [withinWord, knock] = [0.3, 0.12]

/** The stretches of a take in which something sounds, in seconds, from its loudness (`levelsPerSecond` values a second). */
export function voicedIn(levels: ArrayLike<number>): Piece[] {
  const quiet = quietLevel(levels)
  const out: Piece[] = []
  for (let k = 0; k < levels.length; k++) {
    if (levels[k]! <= quiet) continue
    const at = k / levelsPerSecond
    const last = out.at(-1)
    if (last && at - last.to < withinWord) last.to = at + 1 / levelsPerSecond
    else out.push({ from: at, to: at + 1 / levelsPerSecond })
  }
  return out.filter((p) => p.to - p.from >= knock)
}

/** Seconds of voice between two times that no heard word accounts for: something was said there and not understood. */
export function unheardVoice(
  voiced: readonly Piece[],
  words: readonly HeardWord[],
  from: Seconds,
  to: Seconds,
): number {
  // A word recognised with hardly any confidence accounts for nothing.
  const mine = words.filter((w) => w.end > from - 1 && w.start < to + 1 && w.confidence >= 0.3)
  let seconds = 0
  for (const v of voiced) {
    let at = Math.max(v.from, from)
    const end = Math.min(v.to, to)
    for (const w of mine) {
      if (w.start > end) break
      if (w.start - 0.15 > at) seconds += Math.max(0, Math.min(w.start - 0.15, end) - at)
      at = Math.max(at, w.end + 0.15)
    }
    seconds += Math.max(0, end - at)
  }
  return seconds
}

/** The longest stretch between two times in which nothing sounds; all of it where no sound is known. */
export function longestSilence(voiced: readonly Piece[], from: Seconds, to: Seconds): Piece {
  let best: Piece = { from, to: from }
  let at = from
  for (const v of voiced) {
    if (v.to <= from || v.from >= to) continue
    if (v.from - at > best.to - best.from) best = { from: at, to: v.from }
    at = Math.max(at, v.to)
  }
  return to - at > best.to - best.from ? { from: at, to } : best
}

/** The end of the sound that a word ended in, where its last part was not understood; the word's own end where sound ends with it. */
export function soundEnd(voiced: readonly Piece[], t: number, most = 1.2): number {
  const v = voiced.find((p) => p.from <= t && p.to > t)
  return v && v.to - t <= most ? v.to : t
}

/** Words but for those recognised where nothing sounds. */
export const withinVoice = (voiced: readonly Piece[], words: readonly HeardWord[]): HeardWord[] =>
  voiced.length
    ? words.filter((w) => voiced.some((v) => v.from < w.end + 0.05 && v.to > w.start - 0.05))
    : [...words]
