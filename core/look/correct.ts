import type { PhotoReading, PhotoStructure, PhotoThing } from '../contracts/reading.ts'
import { cellAt } from './photo/cells.ts'
import { alongLine } from './photo/drawn-line.ts'
import { sidesOf, towersOf } from './photo/lying.ts'
import { heapsOf, rowsOf } from './photo/rows.ts'
import { holds, type Point, planeOf } from '../plane.ts'

/**
 * A reading as a person put it right: things added, removed or given another colour. Everything that follows from
 * them (count, groups, rows, what lies in which place) follows; where the places are stays as it was seen.
 */
export function corrected(r: PhotoReading, things: readonly PhotoThing[]): PhotoReading {
  const rows = rowsOf(things)
  const ordered = rows.flat().map((i) => things[i]!)
  const sides = sidesOf(things, r)
  const by = new Map<string, number>()
  for (const t of things) by.set(t.colour, (by.get(t.colour) ?? 0) + 1)
  return {
    ...r,
    count: things.length,
    low: things.length,
    high: things.length,
    things: ordered,
    groups: [...by].map(([colour, count]) => ({ colour, count })).sort((a, b) => b.count - a.count),
    places: heapsOf(things),
    rows: rows.map((row) => row.map((i) => things[i]!.colour)),
    structure: r.structure && refilled(r.structure, things),
    towers: towersOf(things).map((t) => t.length),
    sides: sides && [...sides],
    line: r.line && { ...r.line, at: alongLine(r.line, things) },
    dice: [],
    // A person has looked: nothing is doubtful any more.
    warnings: r.warnings.filter((w) => w === 'cut off' && things.some((t) => t.cutOff)),
  }
}
function refilled(s: PhotoStructure, things: readonly PhotoThing[]): PhotoStructure {
  const inside = (outline: readonly Point[]) => things.filter((t) => holds(outline, [t.x, t.y]))
  const group = (g: { outline: [number, number][] }) => ({
    count: inside(g.outline).length,
    outline: g.outline,
  })
  switch (s.kind) {
    case 'parts':
      return { kind: 'parts', whole: group(s.whole), parts: s.parts.map(group) }
    case 'groups':
      return { kind: 'groups', groups: s.groups.map(group) }
    case 'frames':
      return {
        kind: 'frames',
        frames: s.frames.map((f) => {
          const plane = planeOf(f.outline as unknown as [Point, Point, Point, Point])
          const cells = inside(f.outline).map((t) => {
            const [u, v] = plane.from(t.x, t.y)
            return cellAt(u, v)
          })
          return { ...f, cells: cells.sort((a, b) => a - b), astray: 0 }
        }),
      }
  }
}
