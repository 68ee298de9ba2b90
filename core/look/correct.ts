import type { PhotoReading, PhotoStructure, PhotoThing } from '../contracts/reading.ts'
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
    line: r.line && relined(r.line, things),
    dice: [],
    // A person has looked: nothing is doubtful any more.
    warnings: r.warnings.filter((w) => w === 'cut off' && things.some((t) => t.cutOff)),
  }
}
/** Shares of a drawn line at which things lie that are near it. */
function relined(
  line: NonNullable<PhotoReading['line']>,
  things: readonly PhotoThing[],
): PhotoReading['line'] {
  const [dx, dy] = [line.to[0] - line.from[0], line.to[1] - line.from[1]]
  const long = dx * dx + dy * dy || 1
  const at = things.flatMap((t) => {
    const [x, y] = [t.x - line.from[0], t.y - line.from[1]]
    const off = Math.abs(x * dy - y * dx) / Math.sqrt(long)
    return off < 2.2 * t.r ? [Math.min(1, Math.max(0, (x * dx + y * dy) / long))] : []
  })
  return { ...line, at: at.sort((a, b) => a - b) }
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
            return (
              Math.min(1, Math.max(0, Math.floor(v * 2))) * 5 + Math.min(4, Math.max(0, Math.floor(u * 5)))
            )
          })
          return { ...f, cells: cells.sort((a, b) => a - b), astray: 0 }
        }),
      }
  }
}
