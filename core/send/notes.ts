import type { HouseStyle } from '../contracts/house-style.ts'
import type { Lesson, Structure } from '../contracts/lesson.ts'
import type { PackNotes } from '../contracts/pack.ts'
import { waysToWork } from '../plan/numbers/strategies.ts'
import { told, type WordKey } from './words/words.ts'

/** Structures whose notes for the grown-up are the same. */
const group = {
  parts: 'parts',
  missing: 'parts',
  add: 'add',
  'count-on': 'add',
  doubles: 'add',
  'take-away': 'away',
  'round-back': 'away',
  halves: 'share',
  share: 'share',
  compare: 'compare',
  teens: 'place',
  tens: 'place',
  order: 'place',
  numbers: 'place',
} as const satisfies Record<Structure, string>

/** Most ways of working that are named: more is a lecture. */
const mostWays = 5

/**
 * What the grown-up is told before a lesson: its aim, why it matters, what may be seen and what to say then, the ways
 * children may take (the lesson's own examples worked by each), and what is better not told.
 */
export function notesOf(lesson: Pick<Lesson, 'aim' | 'examples'>, style: HouseStyle): PackNotes {
  const { structure, upTo } = lesson.aim
  const of = group[structure]
  const ids = lesson.examples.flatMap((e) => waysToWork(e, style).map((w) => w.id))
  const counts = new Map<string, number>()
  for (const id of ids) counts.set(id, (counts.get(id) ?? 0) + 1)
  // Those that fit most of the examples; among equals in the house's order.
  const ways = [...counts]
    .sort((a, b) => b[1] - a[1])
    .slice(0, mostWays)
    .sort((a, b) => ids.indexOf(a[0]) - ids.indexOf(b[0]))
  return {
    aim: told(`aim.${structure}`, { upTo }),
    why: told(`why.${of}`),
    see: ([1, 2] as const).map((n) => ({ see: told(`see.${of}.${n}`), say: told(`say.${of}.${n}`) })),
    ways: ways.map(([id]) => told(`way.${id}` as WordKey)),
    not: told(`not.${of}`),
  }
}
