import { type Aim, type Example, type FactKind, factKinds, type Structure } from '../contracts/lesson.ts'
import { isOfKind } from './only.ts'
import { factFrom, thingsFor, ways } from './numbers/facts.ts'
import { run } from './numbers/names.ts'

const plus = (a: number, b: number): Example => factFrom('+', a, b)
const minus = (a: number, b: number): Example => factFrom('-', a, b)
/** Every number from one to another; none when the second is smaller. */
const span = (from: number, to: number): number[] => (to < from ? [] : run(from, to))

/** All facts an aim allows, before anything is asked of the set as a whole; at most a few thousand. */
export function candidates(aim: Aim, zero: boolean, turnRounds = true): Example[] {
  const fits = isOfKind[aim.only]
  // "None or all" is about zero, whatever the house says of parts.
  const all = ofStructure(aim, zero || aim.only === 'none or all' ? 0 : 1).filter(fits)
  // Where turned round is the same way, a split is met once, its larger part first.
  const facts = aim.structure === 'parts' && !turnRounds ? all.filter((e) => e.a >= e.b) : all
  const most = aim.mostThings
  return most > 0 && countsThings(aim.structure) ? facts.filter((e) => thingsFor(e) <= most) : facts
}
/** Whether a structure is played with one thing for each number; lines and squares need none. */
export const countsThings = (s: Structure): boolean => s !== 'tens' && s !== 'round-back' && s !== 'order'

/** The kinds of facts an aim's numbers leave to choose from: all of them first, then each that some and not all are of. */
export function kindsFor(aim: Aim): FactKind[] {
  const all = candidates({ ...aim, only: 'any' }, true).length
  return factKinds.filter((only) => {
    const some = candidates({ ...aim, only }, true).length
    return only === 'any' || only === aim.only || (some > 2 && some < all)
  })
}

function ofStructure(aim: Aim, least: number): Example[] {
  const { least: from, upTo: to } = aim
  switch (aim.structure) {
    case 'parts':
      return ways(to, 2, { ordered: true, zero: least === 0 }).map(([a, b]) => plus(a!, b!))
    case 'add':
      if (aim.only === 'one more or fewer')
        return span(Math.max(1, from), to - 1).flatMap((a) => [plus(a, 1), minus(a, 1)])
      return span(Math.max(least, from), to).flatMap((a) =>
        span(least, to - a)
          .filter((b) => a + b >= 2)
          .map((b) => plus(a, b)),
      )
    // Counting on is for a small second number: beyond three it is slower than other ways.
    case 'count-on':
      return span(Math.max(2, from), to - 1).flatMap((a) =>
        span(1, Math.min(3, to - a)).map((b) => plus(a, b)),
      )
    case 'take-away':
      return span(Math.max(2, from), to).flatMap((a) =>
        span(least, least === 0 ? a : a - 1).map((b) => minus(a, b)),
      )
    case 'doubles':
      return span(Math.max(least, from), Math.floor(to / 2)).map((a) => plus(a, a))
    case 'halves':
      return span(Math.max(2, from), to)
        .filter((a) => a % 2 === 0 || aim.mustHave.includes('leftover'))
        .map((a) => factFrom('÷', a, 2))
    case 'share':
      return span(Math.max(aim.among, from), to)
        .filter((a) => a % aim.among === 0 || aim.mustHave.includes('leftover'))
        .map((a) => factFrom('÷', a, aim.among))
    case 'missing':
      return span(Math.max(2, from), to).flatMap((whole) =>
        span(least, whole - least).map((a) => plus(a, whole - a)),
      )
    case 'compare':
      return span(Math.max(least, from), to).flatMap((a) => span(least, to).map((b) => factFrom('~', a, b)))
    case 'teens':
      return span(1, Math.min(9, to - 10)).map((b) => plus(10, b))
    case 'tens':
      return span(Math.max(from, 1), to).flatMap((a) =>
        [10, 20, 30, 40, 50].flatMap((b) => [
          ...(a + b <= to ? [plus(a, b)] : []),
          ...(a - b >= 0 ? [minus(a, b)] : []),
        ]),
      )
    case 'round-back':
      return span(Math.max(20, from), to).flatMap((a) =>
        span(9, a - 1)
          .filter((b) => b > 8 && b % 10 >= 8)
          .map((b) => minus(a, b)),
      )
    case 'order':
      // Half-way between two tens a number is nearest to neither.
      return span(Math.max(least, from), to)
        .filter((a) => a % 10 !== 5)
        .map((a) => factFrom('@', a, 0))
    // Zero is a number here whether or not the house lets a part be nothing.
    case 'numbers':
      return span(from, to).map((a) => factFrom('#', a, 0))
  }
}
