import type { Idea } from '../contracts/idea.ts'
import { Aim, type Structure } from '../contracts/lesson.ts'
import { candidates } from './candidates.ts'
import { aimsOfIdeas } from './only.ts'

/** An aim with everything not said at its usual value. */
export const aimOf = (said: Partial<Aim> & Pick<Aim, 'structure' | 'upTo'>): Aim =>
  Aim.parse({ count: 4, mustHave: [], noRepeatedTotal: false, ...said })

/** Numbers a structure can be played with, smallest and largest "up to". */
const limits: Partial<Record<Structure, readonly [number, number]>> = {
  parts: [2, 20],
  teens: [11, 20],
  tens: [20, 100],
  'round-back': [20, 100],
  order: [9, 100],
  'count-on': [4, 100],
  numbers: [1, 100],
}
export const rangeOf = (structure: Structure): readonly [number, number] => limits[structure] ?? [2, 100]

/**
 * What an idea asks of its examples, as an aim to start from. It asks for no more examples than the house's conventions
 * leave facts: where turned round is the same way, five has two splits without nothing in them.
 */
export function aimOfIdea(
  idea: Pick<Idea, 'id' | 'structure' | 'least' | 'upTo'>,
  house: { zero: boolean; turnRounds: boolean } = { zero: true, turnRounds: true },
  from: Partial<Aim> = {},
): Aim {
  const structure = idea.structure ?? 'numbers'
  const [low, high] = rangeOf(structure)
  const own = aimsOfIdeas[idea.id]
  const aim = aimOf({
    ...from,
    structure,
    least: Math.min(99, idea.least),
    upTo: Math.max(low, Math.min(high, idea.upTo)),
    mustHave: [],
    noRepeatedTotal: false,
    only: 'any',
    ...own,
  })
  const facts = candidates(aim, house.zero, house.turnRounds).length
  // A turn-round is no second way where the house counts the two as one.
  const mustHave = aim.mustHave.filter(
    (w) =>
      (w !== 'turn-round' || house.turnRounds || structure !== 'parts') &&
      (w !== 'zero' || house.zero || structure === 'numbers' || aim.only === 'none or all'),
  )
  return { ...aim, mustHave, count: Math.max(1, Math.min(aim.count, facts)) }
}
