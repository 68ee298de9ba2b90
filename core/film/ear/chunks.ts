import type { Seconds } from '../../contracts/units.ts'
/** Loudness of a take, a hundred values a second: what is needed to part it at silences and to judge its sound. */
export const levelsPerSecond = 100

/** Seconds a piece of sound is given to one recogniser: long enough to keep a count whole, short enough to share out over cores and to lose little when a process dies. */
export const pieceSeconds = { least: 22, aim: 40, most: 70 } as const

export interface Piece {
  /** Seconds into the take. */
  from: Seconds
  to: Seconds
}

/** Parts a take into pieces for recognition, each cut in the middle of the longest quiet stretch near its end. */
export function piecesOfSound(levels: ArrayLike<number>): Piece[] {
  const total = levels.length / levelsPerSecond
  const quiet = quietLevel(levels)
  const out: Piece[] = []
  let at = 0
  while (total - at > pieceSeconds.most) {
    const [a, b] = [
      Math.round((at + pieceSeconds.least) * levelsPerSecond),
      Math.round(Math.min(total, at + pieceSeconds.most) * levelsPerSecond),
    ]
    const to = bestCut(levels, a, b, quiet, (at + pieceSeconds.aim) * levelsPerSecond) / levelsPerSecond
    out.push({ from: at, to })
    at = to
  }
  out.push({ from: at, to: total })
  return out
}

/** The middle of the longest run of quiet between a and b, the one nearer to `aim` where two are alike; the quietest moment where there is none. */
function bestCut(levels: ArrayLike<number>, a: number, b: number, quiet: number, aim: number): number {
  let [best, score] = [-1, -Infinity]
  for (let i = a; i < b;) {
    if (levels[i]! > quiet) {
      i++
      continue
    }
    let j = i
    while (j < b && levels[j]! <= quiet) j++
    const s = Math.min(j - i, 3 * levelsPerSecond) - Math.abs((i + j) / 2 - aim) * 0.02
    if (j - i >= 25 && s > score) [best, score] = [Math.round((i + j) / 2), s]
    i = j
  }
  if (best >= 0) return best
  for (let i = a, least = Infinity; i < b; i++) if (levels[i]! < least) [least, best] = [levels[i]!, i]
  return best
}

/** Loudness under which nobody speaks: twice the floor, or a thirtieth of the loud parts where the floor is silence. */
export function quietLevel(levels: ArrayLike<number>): number {
  const sorted = Array.from(levels).sort((x, y) => x - y)
  const at = (share: number): number =>
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0
  return Math.max(at(0.1) * 2, at(0.95) / 30)
}

/** Root mean square of each hundredth of a second of 16-bit samples, 0–1. */
export function levelsOf(samples: ArrayLike<number>, rate: number): Float32Array {
  const step = rate / levelsPerSecond
  const out = new Float32Array(Math.floor(samples.length / step))
  for (let k = 0; k < out.length; k++) {
    let sum = 0
    const [a, b] = [Math.floor(k * step), Math.floor((k + 1) * step)]
    for (let i = a; i < b; i++) sum += (samples[i]! / 32_768) ** 2
    out[k] = Math.sqrt(sum / Math.max(1, b - a))
  }
  return out
}
/** Times as loud that bring the loud parts of a take to a fifth of full strength, where recognition is at its best; never over 30. */
export function gainFor(levels: ArrayLike<number>): number {
  const sorted = Array.from(levels).sort((x, y) => x - y)
  const loud = sorted[Math.floor(sorted.length * 0.95)] ?? 0
  return loud > 0 ? Math.min(30, Math.max(0.2, 0.14 / loud)) : 1
}
