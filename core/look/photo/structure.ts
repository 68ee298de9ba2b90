import type { PhotoStructure } from '../../contracts/reading.ts'
import { holds, type Point } from '../../plane.ts'
import { boxes, filledFrame, type Framed, frameLines } from './frames.ts'
import { type At, least, line, type Map2, type Place } from './map.ts'
import { type Region, regions } from './regions.ts'
import { cards, plates, rings } from './rounds.ts'

/** Whether any line was drawn that could be part of a frame or of a ring. */
export const isDrawnOn = ({ what }: Map2): boolean => {
  let lines = 0
  for (let i = 0; i < what.length; i++) if (what[i] === line) lines++
  return lines >= least.drawn
}
/** Places that are areas and not drawn: boxes, plates and cards. */
export interface Areas {
  boxes: readonly Framed[]
  rounds: readonly Place[]
}
export const areasOf = (map: Map2): Areas => ({ boxes: boxes(map), rounds: [...plates(map), ...cards(map)] })

/** Frames, plates and rings of a picture, and which things lie in which; `areas` where they are known. */
export function placesOf(map: Map2, things: readonly At[], areas: Areas = areasOf(map)): Place[] {
  const frames = [...frameLines(map), ...areas.boxes].map((f) => filledFrame(f, things))
  const inFrame = (x: number, y: number) => frames.some((f) => holds(f.outline, [x, y]))
  const rounds = [...areas.rounds, ...rings(map)]
    .filter((p) => !inFrame(p.x, p.y))
    .map((p) => ({
      ...p,
      inside: things.flatMap((t, i) => (holds(p.outline, [t.x, t.y]) ? [i] : [])),
    }))
  // A ring in a plate is the plate's own rim; a ring seen twice, by its line and by its inside, is one.
  const outer = rounds.filter(
    (p, k) =>
      !rounds.some(
        (q, m) =>
          m !== k && (q.area > p.area || (q.area === p.area && m < k)) && holds(q.outline, [p.x, p.y]),
      ),
  )
  return [...frames, ...outer]
}

/** The picture's structure as its reading tells it: frames, a whole and its parts, or groups; null where there is none. */
export function structureOf(
  map: Map2,
  places: readonly Place[],
  scale: (p: Point) => Point,
): PhotoStructure | null {
  const frames = places
    .filter((p) => p.kind === 'frame')
    .sort((a, b) => (Math.abs(a.y - b.y) > Math.sqrt(a.area) * 0.3 ? a.y - b.y : a.x - b.x))
  const outlineOf = (p: Place) => p.outline.map((o): [number, number] => [...scale(o)])
  if (frames.length)
    return {
      kind: 'frames',
      frames: frames.map((f) => ({ cells: f.cells ?? [], outline: outlineOf(f), astray: f.astray ?? 0 })),
    }
  const rounds = places.filter((p) => p.kind !== 'frame')
  if (!rounds.length) return null
  const inOrder = (list: readonly Place[]) =>
    [...list].sort((a, b) => (Math.abs(a.y - b.y) > Math.sqrt(a.area) * 0.6 ? a.y - b.y : a.x - b.x))
  const whole = rounds.length >= 3 ? wholeOf(map, rounds) : null
  const group = (p: Place) => ({ count: p.inside.length, outline: outlineOf(p) })
  if (whole)
    return {
      kind: 'parts',
      whole: group(whole),
      parts: inOrder(rounds.filter((p) => p !== whole)).map(group),
    }
  return { kind: 'groups', groups: inOrder(rounds).map(group) }
}
/** Of rings joined by lines the one that is joined to all others. */
function wholeOf({ width: w, height: h, what }: Map2, rounds: readonly Place[]): Place | null {
  const n = w * h
  const grown = rounds.map((p) =>
    p.outline.map(([x, y]): Point => [p.x + (x - p.x) * 1.16, p.y + (y - p.y) * 1.16]),
  )
  const outside = (i: number) => !grown.some((o) => holds(o, [i % w, Math.floor(i / w)]))
  const joins = regions(n, w, (i) => what[i] === line && outside(i)).list.filter((r) => r.area >= 4)
  const degree = rounds.map(() => 0)
  for (const j of joins) {
    const near = rounds
      .map((p, k) => ({
        k,
        d: Math.min(
          ...cornersOfBox(j).map(([x, y]) =>
            Math.abs(Math.hypot(x - p.x, y - p.y) / Math.sqrt(p.area / Math.PI) - 1.1),
          ),
        ),
      }))
      .sort((a, b) => a.d - b.d)
    if (near[1] && near[1].d < 0.6) for (const { k } of near.slice(0, 2)) degree[k]!++
  }
  const best = degree.indexOf(Math.max(...degree))
  if (degree[best]! >= 2) return rounds[best]!
  // Lines between rings are thin; without them the empty ring that stands apart from two or more on one line is the whole.
  if (rounds.some((p) => p.kind !== 'ring')) return null
  const lonely = rounds.filter(
    (p) =>
      !p.inside.length &&
      rounds.filter((q) => q !== p).every((q) => Math.abs(q.y - p.y) > 0.9 * Math.sqrt(p.area / Math.PI)),
  )
  return lonely.length === 1 ? lonely[0]! : null
}
const cornersOfBox = (r: Region): Point[] => [
  [r.left, r.top],
  [r.right, r.top],
  [r.left, r.bottom],
  [r.right, r.bottom],
]
