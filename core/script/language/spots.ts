import { layMat } from '../table/mats.ts'
import { hasWhole, holdsThings, type Mat, type MatKind, type Spot, type TableState } from '../table/state.ts'
import type { Group } from './groups.ts'
import { placeNouns } from './lexicon.ts'

/** The table a line is read on, and the spots its clauses have named so far: "the other one" needs both. */
export interface Ground {
  table: TableState
  named: Spot | null
}
/** A mat that lies on the table. */
export const matHere = (g: Ground, kind: MatKind): Mat | undefined =>
  g.table.mats.find((m) => m.kind === kind)
/** A mat on the table, or put away and to be had again by its name. */
export const matOn = (g: Ground, kind: MatKind): Mat | undefined =>
  matHere(g, kind) ?? g.table.aside.find((m) => m.kind === kind)

/**
 * Words that may name another mat than their own when that one is not there: a card with dots is a dot card, a line on
 * which things hang is a row, the rows of a frame are the frame's.
 */
const standIns: readonly (readonly [MatKind, MatKind, (g: Group) => boolean])[] = [
  ['square', 'dots', () => true],
  ['cards', 'dots', () => true],
  ['line', 'row', (g) => g.noun !== 'number line'],
  ['parts', 'bar', () => true],
  ['row', 'frame', () => true],
]
/** Which mat a group's words name, given what lies on the table; null when they name none. */
export function matNamed(group: Group, ground: Ground): MatKind | null {
  if (group.of?.mat && (group.mat === null || group.noun === 'part' || group.noun === 'whole'))
    return matNamed(group.of, ground)
  if (group.mat) return standingFor(group, group.mat, ground)
  // Plates may be called rings or houses: by the name they were laid under.
  const plates = matOn(ground, 'plates')
  if (plates && group.noun !== null && plates.regions[0]!.name.replace(/ \d+$/, '') === group.noun)
    return 'plates'
  if (group.noun && group.noun in placeNouns)
    return placeNouns[group.noun] ?? severalPlaces(ground)?.kind ?? ground.named?.mat ?? null
  if (group.noun !== null && !(group.noun === 'circle' && group.place === 'whole')) return null
  if (group.place === 'whole') return matOn(ground, 'bar') && !matOn(ground, 'parts') ? 'bar' : 'parts'
  return placeAlone(group, ground)
}
function standingFor(group: Group, mat: MatKind, ground: Ground): MatKind {
  const sided = group.place === 'left' || group.place === 'right' || group.place === 'other'
  if (mat === 'square' && sided && group.noun === 'square') return 'dots'
  const found = standIns.find(
    ([said, meant, fits]) => said === mat && !matHere(ground, said) && matHere(ground, meant) && fits(group),
  )
  return found ? found[1] : mat
}
/** "The second", "the left", "up top": a place with no noun is the one mat's that has several. */
function placeAlone(group: Group, ground: Ground): MatKind | null {
  if (group.n !== null) return null
  const several = severalPlaces(ground)?.kind ?? null
  if (group.order !== null && group.pronoun === null && group.face === null) return several
  if (group.place === null || group.place === 'last') return null
  return several ?? ground.named?.mat ?? (isHigh(group) && nothingLies(ground) ? 'shelves' : null)
}
const isHigh = (g: Group): boolean => g.place === 'top' || g.place === 'bottom'
const nothingLies = (ground: Ground): boolean =>
  !ground.table.mats.some((m) => m.kind !== 'shelves' && m.regions.some((r) => r.things.length))
/** The mat with more than one place, when a line says only "the other side" or "the left". */
const severalPlaces = (g: Ground): Mat | undefined => {
  const several = g.table.mats.filter((m) => m.regions.length > 1 && holdsThings(m))
  return several.length === 1 ? several[0] : undefined
}

/**
 * The places a group names, by mat and index; null when it names no place. A mat that is not there yet counts as laid
 * in its usual form; `parts` of it must then be laid first.
 */
export function spotsNamed(group: Group, ground: Ground): Spot[] | null {
  const kind = matNamed(group, ground)
  if (!kind || ['line', 'square', 'cards', 'dice', 'spinner', 'bowl', 'sound'].includes(kind)) return null
  const mat = matOn(ground, kind) ?? layMat(kind, { parts: Math.max(2, group.order ?? 2) })
  const first = hasWhole(kind) ? 1 : 0
  const places = mat.regions.map((_, i) => i).slice(first)
  const at = (i: number | undefined): Spot[] => (i === undefined ? [] : [{ mat: kind, region: i }])
  if (kind === 'scene') return at(mat.regions.findIndex((r) => r.name === group.noun))
  if (group.place === 'whole' || group.noun === 'whole') return at(0)
  const each =
    group.quantity === 'each' ||
    group.quantity === 'both' ||
    group.quantity === 'all' ||
    group.state === 'each'
  if (places.length > 1) {
    if (group.place === 'other' && (group.quantity === 'rest' || group.quantity === 'each'))
      return places.filter((i) => !mat.regions[i]!.things.length).flatMap(at)
    if (each) return places.flatMap(at)
    const which = whichOf(group, places, ground)
    if (which !== null) return at(which)
    if (kind === 'hands') return [{ mat: kind, region: -1 }]
    return [{ mat: kind, region: -1 }]
  }
  return at(places[0] ?? 0)
}
function whichOf(group: Group, places: readonly number[], ground: Ground): number | null {
  const last = places.at(-1)!
  switch (group.place) {
    case 'left':
    case 'top':
      return places[0]!
    case 'right':
    case 'bottom':
    case 'last':
      return last
    case 'middle':
      return places.length % 2 ? places[(places.length - 1) / 2]! : null
    case 'other': {
      const named = ground.named
      const rest = places.filter((i) => i !== named?.region)
      return rest.length === 1 ? rest[0]! : last
    }
    default:
      break
  }
  if (group.order !== null && group.order > 0) return places[group.order - 1] ?? -2
  if (group.order === -1) return last
  if (group.n === 1 && !group.definite && group.noun !== null && group.noun in placeNouns) {
    const mat = matOn(ground, matNamed(group, ground)!)
    return places.find((i) => !mat?.regions[i]!.things.length) ?? places[0]!
  }
  return null
}
