import { seeded } from '@awlbox/core/plan/seeded'

/** What a child of the street believes wrongly; the teacher's side never sees it. */
const beliefs = [
  'none',
  'counts the start',
  'one too few',
  'adds for take away',
  'says the larger',
  'bunches the line',
  'unequal shares are fine',
] as const
type Belief = (typeof beliefs)[number]
/** What is in the way of a photo in a real kitchen. */
const troubles = ['plain', 'gingham', 'cup', 'hand', 'thick frame', 'plates', 'dim'] as const
export type Trouble = (typeof troubles)[number]
/** What a home does when a lesson comes. `half`: it begins to send a photo and is never heard of again. */
export const manners = ['replies', 'late', 'twice', 'dropped', 'could not', 'half', 'silent'] as const
export type Manner = (typeof manners)[number]

export interface Household {
  n: number
  seed: number
  /** Chance of a right answer, 0–1. */
  ability: number
  belief: Belief
  help: 'alone' | 'nudged' | 'together'
  way: 'things' | 'picture' | 'track' | 'head'
  feeling: 'easy' | 'just right' | 'hard'
  manner: Manner
  /** Minutes after the sending at which it sits down; the street goes through them in this order. */
  after: number
  /** Null where the home sends no photos. */
  photo: Trouble | null
  words: string
}
const said = [
  '',
  'She moved them one by one and told me each time.',
  'I reminded him about the last one.',
  'Did it twice, both ways round.',
  '',
  'Tired today; we did it together.',
  'Counted them in his head, then checked with buttons.',
  'One rolled under the sofa 🙈',
  'يحب عدّ الأزرار',
  'Used spoons, we had no counters.',
] as const

/** One household of the street, the same for the same seed and place in it. */
export function householdOf(seed: number, n: number): Household {
  const random = seeded(seed * 100_003 + n * 7919 + 17)
  const of = <T>(list: readonly T[]): T => list[random(list.length)]!
  /** A choice by weights that add up to 100. */
  const by = <T>(weights: readonly (readonly [T, number])[]): T => {
    let at = random(100)
    for (const [what, w] of weights) {
      if (at < w) return what
      at -= w
    }
    return weights[0]![0]
  }
  const ability = 0.45 + random(55) / 100
  const manner = by<Manner>([
    ['replies', 58],
    ['late', 12],
    ['twice', 7],
    ['dropped', 7],
    ['could not', 4],
    ['half', 3],
    ['silent', 9],
  ])
  return {
    n,
    seed: seed * 1000 + n,
    ability,
    // Who is sure of it rarely believes something else.
    belief: ability > 0.85 || random(100) < 45 ? 'none' : of(beliefs.slice(1)),
    help: ability > 0.8 ? 'alone' : of(['alone', 'nudged', 'nudged', 'together'] as const),
    way: of(['things', 'things', 'picture', 'track', 'head'] as const),
    feeling: ability > 0.8 ? 'easy' : of(['just right', 'just right', 'hard'] as const),
    manner,
    after: manner === 'late' ? 2000 + random(4000) : 20 + random(900),
    photo: random(100) < 15 ? null : of(troubles),
    words: of(said),
  }
}
