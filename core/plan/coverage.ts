import type { Aim, Example } from '../contracts/lesson.ts'
import { candidates } from './candidates.ts'
import { factKey } from './numbers/facts.ts'

/** How lately a fact was met: in this lesson, this week, this term, or not. */
export type Met = 'lesson' | 'week' | 'term' | 'never'
interface CoverageCell {
  example: Example
  met: Met
  times: number
}
export interface Coverage {
  cells: CoverageCell[]
  /** Axes of the grid, when the facts make one: first numbers down, second across. */
  rows: number[]
  columns: number[]
  met: Record<Met, number>
}
/** The grid of an idea's facts, each with when it was last met. Only grids of at most 250 facts are drawn out whole. */
export function coverage(
  aim: Aim,
  zero: boolean,
  here: readonly Example[],
  week: readonly Example[],
  term: readonly Example[],
): Coverage {
  const facts = candidates({ ...aim, mostThings: 0 }, zero)
  const keys = (list: readonly Example[]) => {
    const by = new Map<string, number>()
    for (const e of list) by.set(factKey(e), (by.get(factKey(e)) ?? 0) + 1)
    return by
  }
  const [l, w, t] = [keys(here), keys(week), keys(term)]
  const cells = facts.slice(0, 2000).map((example): CoverageCell => {
    const k = factKey(example)
    return {
      example,
      met: l.has(k) ? 'lesson' : w.has(k) ? 'week' : t.has(k) ? 'term' : 'never',
      times: (l.get(k) ?? 0) + (w.get(k) ?? 0) + (t.get(k) ?? 0),
    }
  })
  const met: Record<Met, number> = { lesson: 0, week: 0, term: 0, never: 0 }
  for (const c of cells) met[c.met]++
  const sorted = (of: (e: Example) => number) => [...new Set(facts.map(of))].sort((a, b) => a - b)
  return { cells, rows: sorted((e) => e.a), columns: sorted((e) => e.b), met }
}
