import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/** A repeatable source of whole numbers: `next(n)` is uniform over 0 … n − 1 (n ≥ 1). */
export function seeded(seed: number): (n: number) => number {
  const generator = xoroshiro128plus(seed)
  return (n) => uniformInt(generator, 0, n - 1)
}
