import type { Idea } from '../../contracts/idea.ts'

/** How many rungs lie below each idea: 0 for those with nothing before them. Ideas must not go round in a circle. */
export function rungs(ideas: readonly Idea[]): Map<string, number> {
  const by = new Map(ideas.map((i) => [i.id, i]))
  const out = new Map<string, number>()
  const depth = (id: string): number => {
    const known = out.get(id)
    if (known !== undefined) return known
    const before = by.get(id)?.after.filter((a) => by.has(a)) ?? []
    const d = before.length ? 1 + Math.max(...before.map(depth)) : 0
    out.set(id, d)
    return d
  }
  for (const i of ideas) depth(i.id)
  return out
}

export interface RungPlace {
  idea: Idea
  /** Column from the left and row from the top. */
  column: number
  row: number
}
/**
 * Places the ladder as columns of rungs, each idea as near as can be to the mean row of those before it, so that
 * lines run flat. Deterministic.
 */
export function placeLadder(ideas: readonly Idea[]): { places: RungPlace[]; columns: number; rows: number } {
  const depth = rungs(ideas)
  const columns = Math.max(0, ...depth.values()) + 1
  const rowOf = new Map<string, number>()
  let rows = 0
  for (let c = 0; c < columns; c++) {
    const here = ideas.filter((i) => depth.get(i.id) === c)
    const wish = (i: Idea): number => {
      const before = i.after.flatMap((a) => (rowOf.has(a) ? [rowOf.get(a)!] : []))
      return before.length ? before.reduce((a, b) => a + b, 0) / before.length : ideas.indexOf(i)
    }
    here.sort((x, y) => wish(x) - wish(y) || ideas.indexOf(x) - ideas.indexOf(y))
    let next = 0
    for (const i of here) {
      const row = Math.max(next, Math.round(wish(i)) - Math.floor(here.length / 3))
      rowOf.set(i.id, Math.min(row, 40))
      next = row + 1
    }
    // A column pushed down past its neighbours slides up as one.
    const spare = Math.max(0, next - Math.max(here.length, 12))
    for (const i of here) rowOf.set(i.id, Math.max(here.indexOf(i), rowOf.get(i.id)! - spare))
    rows = Math.max(rows, ...here.map((i) => rowOf.get(i.id)! + 1))
  }
  return {
    places: ideas.map((idea) => ({ idea, column: depth.get(idea.id)!, row: rowOf.get(idea.id)! })),
    columns,
    rows,
  }
}

/** Everything that comes before an idea, however far. */
export function allBefore(id: string, ideas: readonly Idea[]): Set<string> {
  const by = new Map(ideas.map((i) => [i.id, i]))
  const out = new Set<string>()
  const walk = (x: string) => {
    for (const a of by.get(x)?.after ?? [])
      if (!out.has(a)) {
        out.add(a)
        walk(a)
      }
  }
  walk(id)
  return out
}

/** The place an arrow key leads to: in the same column up and down, in the nearest row of the next column left and right; null at an edge. */
export function walk(places: readonly RungPlace[], from: RungPlace, key: string): RungPlace | null {
  const nearest = (list: readonly RungPlace[], far: (p: RungPlace) => number): RungPlace | null =>
    [...list].sort((a, b) => far(a) - far(b))[0] ?? null
  const beside = (column: number): RungPlace | null =>
    nearest(
      places.filter((p) => p.column === column),
      (p) => Math.abs(p.row - from.row),
    )
  const column = places.filter((p) => p.column === from.column)
  switch (key) {
    case 'ArrowRight':
      return beside(from.column + 1)
    case 'ArrowLeft':
      return beside(from.column - 1)
    case 'ArrowDown':
      return nearest(
        column.filter((p) => p.row > from.row),
        (p) => p.row,
      )
    case 'ArrowUp':
      return nearest(
        column.filter((p) => p.row < from.row),
        (p) => -p.row,
      )
    case 'Home':
      return beside(0)
    case 'End':
      return beside(Math.max(...places.map((p) => p.column)))
    default:
      return null
  }
}
