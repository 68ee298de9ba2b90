import { linear } from '../look/photo/colours.ts'

/** A stretch of the film that flashes, seconds, with the most flashes in any one second of it. */
export interface Flashing {
  from: number
  to: number
  perSecond: number
  /** Of saturated red, which fewer people bear. */
  red: boolean
}
/**
 * Limits of WCAG 2.3.1: a flash is a pair of opposing changes in relative luminance of a tenth or more, the darker
 * below 0.80, over a quarter of any ten-degree field (a quarter of a small picture's blocks, here); three in a second are
 * allowed. Saturated red counts by itself: there by linear light, here by R − G − B of the values as they are stored,
 * from a third of their range on, since blocks are means.
 */
const wcag = { change: 0.1, darker: 0.8, area: 0.25, most: 3, redChange: 80 / 255 } as const

/**
 * Finds flashes frame by frame: call `frame` with each picture as RGB bytes (`blocks` × 3), in order, then `found`.
 * Pictures are averaged to a few hundred blocks before, so that only areas count.
 */
export function flashFinder(blocks: number, framesPerSecond: number) {
  /** Per block: the last turning point and which way it has gone since, for luminance and for red. */
  const tracks = [0, 1].map(() => ({
    extreme: new Float32Array(blocks).fill(NaN),
    way: new Int8Array(blocks),
  }))
  const turns: [number[], number[]] = [[], []]
  let n = 0
  const counts = [0, 0]
  /** Follows one block in luminance (0) or red (1); a turn is counted. */
  const follow = (k: 0 | 1, i: number, v: number): void => {
    const { extreme, way } = tracks[k]!
    const was = extreme[i]!
    if (Number.isNaN(was)) extreme[i] = v
    else if (way[i] !== 0 && Math.sign(v - was) === way[i]) extreme[i] = v
    else if (
      Math.abs(v - was) >= (k === 0 ? wcag.change : wcag.redChange) &&
      (k === 1 || Math.min(v, was) < wcag.darker)
    ) {
      if (way[i] !== 0) counts[k]!++
      way[i] = Math.sign(v - was)
      extreme[i] = v
    }
  }
  return {
    frame(rgb: ArrayLike<number>): void {
      counts.fill(0)
      for (let i = 0; i < blocks; i++) {
        const [r, g, b] = [rgb[i * 3]!, rgb[i * 3 + 1]!, rgb[i * 3 + 2]!]
        follow(0, i, 0.2126 * linear[r]! + 0.7152 * linear[g]! + 0.0722 * linear[b]!)
        follow(1, i, r + g + b > 0 && r / (r + g + b) >= 0.8 ? Math.max(0, r - g - b) / 255 : 0)
      }
      turns.forEach((t, k) => counts[k]! >= blocks * wcag.area && t.push(n))
      n++
    },
    found(): Flashing[] {
      return turns.flatMap((at, k) => {
        const out: Flashing[] = []
        // A turn is the second change of a pair; n turns in a row are n + 1 changes, and two changes are a flash.
        for (let i = 0, j = 0; i < at.length; i++) {
          while (at[i]! - at[j]! >= framesPerSecond) j++
          const flashes = Math.floor((i - j + 2) / 2)
          if (flashes <= wcag.most) continue
          const [from, to] = [at[j]! / framesPerSecond, (at[i]! + 1) / framesPerSecond]
          const last = out.at(-1)
          if (last && from <= last.to + 0.5)
            Object.assign(last, { to, perSecond: Math.max(last.perSecond, flashes) })
          else out.push({ from, to, perSecond: flashes, red: k === 1 })
        }
        return out
      })
    },
  }
}
