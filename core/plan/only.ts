import type { Aim, Example, FactKind } from '../contracts/lesson.ts'
import { crossesTen } from './numbers/facts.ts'

/** Which facts are of a kind. Takes and gives one fact at a time; a structure without such facts gives none. */
export const isOfKind: Record<FactKind, (e: Example) => boolean> = {
  any: () => true,
  'one more or fewer': (e) => (e.op === '+' || e.op === '-') && e.b === 1,
  'next to a double': (e) => e.op === '+' && Math.abs(e.a - e.b) === 1 && Math.min(e.a, e.b) > 0,
  'crosses ten': crossesTen,
  'none or all': (e) => e.op === '-' && (e.b === 0 || e.total === 0),
  'whole tens': (e) => e.a > 0 && e.a % 10 === 0 && e.b % 10 === 0,
  'without regrouping': (e) => e.op === '-' && e.b >= 10 && e.b % 10 > 0 && e.a % 10 >= e.b % 10,
}
export const kindWords: Record<FactKind, string> = {
  any: 'all facts',
  'one more or fewer': 'one more and one fewer only',
  'next to a double': 'neighbours of doubles only',
  'crosses ten': 'only facts that cross ten',
  'none or all': 'only none taken or all taken',
  'whole tens': 'whole tens only',
  'without regrouping': 'only with ones enough to take from',
}

/**
 * What an idea of the ladder asks of its examples beyond its structure and range. Ideas that are not here ask for
 * nothing more; a setting's own ideas have ids of their own.
 */
export const aimsOfIdeas: Readonly<Record<string, Partial<Aim>>> = {
  'count-3': { least: 1, count: 3 },
  'count-5': { least: 2 },
  'see-3': { least: 1, count: 3 },
  'count-scattered': { least: 4 },
  'count-10': { least: 4 },
  zero: { mustHave: ['zero'], count: 3 },
  'numerals-5': { mustHave: ['zero'] },
  'numerals-10': { least: 3 },
  'same-number': { least: 4 },
  'give-n': { least: 2 },
  'see-groups': { least: 4 },
  sounds: { least: 2 },
  'words-10': { least: 1 },
  'order-10': { least: 1, upTo: 9 },
  'next-before': { only: 'one more or fewer' },
  'turn-rounds': { mustHave: ['turn-round'] },
  'near-doubles': { only: 'next to a double', least: 2 },
  'odd-even': { mustHave: ['leftover'] },
  'halves-10': { mustHave: ['leftover'] },
  'share-2': { among: 2, mustHave: ['leftover'] },
  'share-k': { among: 3, mustHave: ['leftover'] },
  groups: { among: 3 },
  'take-zero': { only: 'none or all', mustHave: ['zero'] },
  'count-20': { least: 5, upTo: 15 },
  'make-ten': { only: 'crosses ten' },
  'through-ten': { only: 'crosses ten' },
  tens: { only: 'whole tens', least: 30, upTo: 90 },
  'two-digits': { least: 21 },
  'take-tens': { only: 'without regrouping' },
}
