import type { Standing } from './standing.ts'

/** How a class stands on one idea. */
export interface ClassLevel {
  children: number
  /** Children something has been seen of, and those of them who are secure. */
  seen: number
  secure: number
  /** Mean level of the children seen, 0–1; 0 when there are none. */
  mean: number
  /** Names of those seen who are not secure yet. */
  onTheWay: string[]
}
export interface StandingRow {
  name: string
  ideas: Readonly<Record<string, Pick<Standing, 'level' | 'word'> | undefined>>
}

/** The class's level on every idea any of its children has met, by id. */
export function classLevels(rows: readonly StandingRow[]): Map<string, ClassLevel> {
  const by = new Map<string, ClassLevel>()
  for (const row of rows)
    for (const [id, s] of Object.entries(row.ideas)) {
      if (!s) continue
      const l = by.get(id) ?? { children: 0, seen: 0, secure: 0, mean: 0, onTheWay: [] }
      l.children++
      if (s.word !== 'not seen') {
        l.mean += (s.level - l.mean) / ++l.seen
        if (s.word === 'secure') l.secure++
        else l.onTheWay.push(row.name)
      }
      by.set(id, l)
    }
  return by
}
