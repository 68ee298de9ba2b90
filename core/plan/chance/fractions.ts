/**
 * A fast repeatable source of numbers from 0 up to, not with, 1. Each seed is mixed before its first number, so that
 * seeds next to each other give runs that have nothing to do with each other (a 32-bit counter through a
 * multiply-and-shift mixer). For games and simulations, not for secrets.
 */
export function fractions(seed: number): () => number {
  let at = seed >>> 0
  return () => {
    at = (at + 0x6d2b79f5) >>> 0
    let x = at
    x = Math.imul(x ^ (x >>> 15), x | 1)
    x ^= x + Math.imul(x ^ (x >>> 7), x | 61)
    return ((x ^ (x >>> 14)) >>> 0) / 4294967296
  }
}
