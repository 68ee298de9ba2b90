import { wordsOf } from '../words.ts'
import { remembered } from '../../../remember.ts'

/** What counts as a way, as a lesson says it; null where it does not say. */
export interface Conventions {
  orderCounts: boolean | null
  zeroAllowed: boolean | null
}
/** "Swapped round counts as another way, and a cup may stay empty." */
export const conventionsIn: (text: string) => Conventions = remembered((text) => {
  const t = text.toLowerCase()
  let orderCounts: boolean | null = null
  if (/\b(swapped|turned|other way) (round|about)|\bturn-?rounds?\b|\border\b/.test(t)) {
    if (
      /\b(is|are|counts? as) (the |just the )?same|\bnot (a new|another|a different|counted|new)|\bonly once|does(n't| not) count/.test(
        t,
      )
    )
      orderCounts = false
    else if (/\b(another|new|different|its own|of its own|two ways|counts)\b/.test(t)) orderCounts = true
  }
  let zeroAllowed: boolean | null = null
  if (
    /\b(no zero|nobody may get (zero|nothing)|at least one|(neither|no|none) .*\b(empty|zero)|must (each )?(get|have|hold)|without zero|not be empty|may not|never empty)\b/.test(
      t,
    )
  )
    zeroAllowed = false
  else if (
    /\b(may (stay|be) empty|can (stay|be) empty|zero is (fine|allowed|welcome)|zero counts|with zero|nothing is allowed|empty is (fine|allowed))\b/.test(
      t,
    )
  )
    zeroAllowed = true
  return { orderCounts, zeroAllowed }
})
/** Ways to part n in two: order counting or not, zero allowed or not. */
export function waysOfTwo(n: number, orderCounts: boolean, zeroAllowed: boolean): number {
  if (orderCounts) return zeroAllowed ? n + 1 : Math.max(0, n - 1)
  return zeroAllowed ? Math.floor(n / 2) + 1 : Math.floor(n / 2)
}
/** The whole that a question asks the ways of, parted in two; null when it asks something else. */
export const partedInTwo: (text: string) => number | null = remembered((text) => {
  if (!/\b(ways?|pairs?)\b/i.test(text)) return null
  const words = wordsOf(text)
  const numbers = words.flatMap((w, i) =>
    w.n === null ? [] : [{ n: w.n, next: words[i + 1]?.t ?? '', before: words[i - 1]?.t ?? '' }],
  )
  const places = numbers.filter(
    (x) =>
      x.n === 2 &&
      (/^(cups?|boxes|plates?|pockets?|friends?|parts?|hives?|shelves|houses?|groups?|bags?|jars?|pots?|nests?)$/.test(
        x.next,
      ) ||
        x.before === 'in'),
  )
  const whole = numbers.filter((x) => !places.includes(x) && !/^ways?$/.test(x.next))
  return whole.length === 1 && places.length <= 1 ? whole[0]!.n : null
})
/** "There are four ways", "nine coins, then nine ways": how many ways a line says there are. */
export const waysSaid: (text: string) => number | null = remembered((text) => {
  const words = wordsOf(text)
  const at = words.findIndex((w) => /^ways?$/.test(w.t))
  if (at < 0) return null
  for (let k = at - 1; k >= Math.max(0, at - 3); k--) if (words[k]!.n !== null) return words[k]!.n
  return null
})
