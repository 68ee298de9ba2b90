/** Draws from one seed: the same seed, the same pictures. */
export interface Chance {
  /** A number from `a` up to `b`. */
  between: (a: number, b: number) => number
  /** A whole number from `a` to `b`, both included. */
  whole: (a: number, b: number) => number
  one: <T>(of: readonly T[]) => T
  /** True with probability `p`. */
  happens: (p: number) => boolean
}
export function chance(seed: number): Chance {
  let s = (seed * 2654435761 + 12345) >>> 0
  const next = () => {
    s = (s + 0x6d2b79f5) >>> 0
    let t = Math.imul(s ^ (s >>> 15), 1 | s)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  for (let i = 0; i < 5; i++) next()
  const between = (a: number, b: number) => a + (b - a) * next()
  const whole = (a: number, b: number) => Math.floor(between(a, b + 1 - 1e-9))
  return { between, whole, one: (of) => of[whole(0, of.length - 1)]!, happens: (p) => next() < p }
}
