/** Seeded choices (mulberry32, public domain): the same seed makes the same takes on every machine. */
export interface Draw {
  /** 0 ≤ x < 1. */
  next: () => number
  int: (from: number, to: number) => number
  of: <T>(from: readonly T[]) => T
}
export function drawFrom(seed: number): Draw {
  let a = seed >>> 0
  const next = (): number => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const int = (from: number, to: number): number => from + Math.floor(next() * (to - from + 1))
  return { next, int, of: (list) => list[int(0, list.length - 1)]! }
}
