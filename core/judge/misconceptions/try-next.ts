import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Example } from '../../contracts/lesson.ts'
import { factFrom } from '../../plan/numbers/facts.ts'
import { waysToWork } from '../../plan/numbers/strategies.ts'
import type { Asked } from './asked.ts'

/** The question as a fact that strategies can work; null where none is. */
function factOf(q: Asked): Example | null {
  switch (q.form) {
    case 'add':
      return factFrom('+', q.a, q.b)
    case 'take':
      return factFrom('-', q.a, q.b)
    case 'missing':
      return factFrom('-', q.total, q.known)
    case 'double':
      return factFrom('+', q.n, q.n)
    case 'half':
      return factFrom('÷', q.n, 2)
    case 'share':
      return factFrom('÷', q.things, q.among)
    case 'compare':
    case 'which':
      return factFrom('~', q.a, q.b)
    case 'after':
      return Math.abs(q.by) === 10
        ? factFrom(q.by > 0 ? '+' : '-', q.from, 10)
        : factFrom('#', Math.min(20, q.from), 0)
    case 'count':
    case 'write':
      return factFrom('#', q.n, 0)
  }
}
/**
 * What to do next with things, for a question the child met: the first of the wanted strategies that works for its
 * numbers, as lines that could stand in a script. Null where none does.
 */
export function tryNext(
  wanted: readonly string[],
  questions: readonly Asked[],
  style: HouseStyle,
): { name: string; lines: string[] } | null {
  for (const id of wanted)
    for (const q of questions) {
      const fact = factOf(q)
      const way = fact && waysToWork(fact, style).find((w) => w.id === id)
      if (way) return { name: way.name, lines: way.lines.map((l) => l.text) }
    }
  return null
}
