import { layMat, thing } from '../mats.ts'
import {
  type Face,
  hasWhole,
  holdsThings,
  type Mat,
  type MatKind,
  TableError,
  type TableState,
  type Target,
  type Thing,
  thingsIn,
  thingsOn,
} from '../state.ts'
import { capital } from '../../../words.ts'

const takesThings = (m: Mat): boolean => m.regions.length > 0 && holdsThings(m)
/** Mats laid two at a time when nothing else is said. */
const usualParts: Partial<Record<MatKind, number>> = { parts: 2, bar: 2, plates: 2 }

/** Index of the mat and region a target means; lays the mat when it is named and not there yet. */
export function place(
  state: TableState,
  target: Target,
  lay: boolean,
): { state: TableState; mat: number; region: number } {
  let s = state
  let mat = target.mat ? s.mats.findIndex((m) => m.kind === target.mat) : s.mats.findIndex(takesThings)
  if (mat < 0) {
    if (!lay)
      throw new TableError('no-mat', target.mat ? { case: 'mat', mat: target.mat } : { case: 'nothing' })
    const kind = target.mat ?? 'row'
    s = { ...s, mats: [...s.mats, layMat(kind, { parts: usualParts[kind] ?? 1 }, s.nextKey)] }
    mat = s.mats.length - 1
  }
  const m = s.mats[mat]!
  if (!takesThings(m)) throw new TableError('no-mat', { case: 'not-on', mat: m.kind })
  const region = target.region === null ? 0 : target.region + (hasWhole(m.kind) ? 1 : 0)
  if (region < 0 || region >= m.regions.length) throw new TableError('no-mat', { case: 'place', mat: m.kind })
  return { state: s, mat, region }
}

const withRegion = (state: TableState, mat: number, at: number, things: readonly Thing[]): TableState => ({
  ...state,
  mats: state.mats.map((m, i) =>
    i === mat ? { ...m, regions: m.regions.map((r, j) => (j === at ? { ...r, things } : r)) } : m,
  ),
})

export interface Putting {
  target: Target
  count?: number
  face?: Face
  kind?: string
  worth?: number
  /** Things already there, moved rather than new. */
  things?: readonly Thing[]
}
export function put(state: TableState, what: Putting): TableState {
  const things =
    what.things ??
    Array.from({ length: what.count ?? 0 }, (_, i) =>
      thing(state.nextKey + i, what.kind ?? 'counters', {
        face: what.face ?? 'saffron',
        worth: what.worth ?? 1,
      }),
    )
  const p = place(
    what.things ? state : { ...state, nextKey: state.nextKey + things.length },
    what.target,
    true,
  )
  const m = p.state.mats[p.mat]!
  const r = m.regions[p.region]!
  const room = r.slots === null ? Infinity : r.slots - r.things.length
  if (things.length <= room) return withRegion(p.state, p.mat, p.region, [...r.things, ...things])
  // A hand too full goes on with the other, unless one was named.
  const next = m.regions[p.region + 1]
  if (
    m.kind === 'hands' &&
    what.target.region === null &&
    next &&
    things.length - room <= next.slots! - next.things.length
  )
    return withRegion(
      withRegion(p.state, p.mat, p.region, [...r.things, ...things.slice(0, room)]),
      p.mat,
      p.region + 1,
      [...next.things, ...things.slice(room)],
    )
  throw new TableError('no-room', { case: 'more', place: capital(r.name), room, count: things.length })
}

/**
 * Lifts the last `count` things from a place (or from wherever things were put last). What is lifted is gone,
 * unless `then` puts it somewhere.
 */
export function take(
  state: TableState,
  source: Target,
  count: number,
  face: Face | null,
  then?: (after: TableState, things: readonly Thing[]) => TableState,
  gone = true,
): TableState {
  const [after, things] = lift(state, source, count, face)
  return then ? then(after, things) : { ...after, taken: after.taken + (gone ? count : 0) }
}

function lift(state: TableState, source: Target, count: number, face: Face | null): [TableState, Thing[]] {
  const fits = (t: Thing) => face === null || t.face === face
  // "from the table" is anywhere, unless an open table is one of the mats.
  const named =
    (source.mat !== null && (source.mat !== 'table' || state.mats.some((m) => m.kind === 'table'))) ||
    (source.mat === null && source.region !== null)
  const p = named ? place(state, source, false) : null
  const from =
    p && source.region === null && p.state.mats[p.mat]!.kind === 'hands' ? { ...p, region: null } : p
  const inPlace = (m: number, r: number) =>
    !from || (from.mat === m && (from.region === null || from.region === r))
  const there = state.mats.flatMap((m, i) =>
    holdsThings(m) ? m.regions.flatMap((r, j) => (inPlace(i, j) ? r.things.filter(fits) : [])) : [],
  )
  if (count > there.length) {
    const where = p ? `in ${p.state.mats[p.mat]!.regions[p.region]!.name}` : 'on the table'
    throw new TableError(
      'not-there',
      there.length ? { case: 'take', have: there.length, where, count } : { case: 'take-none', where },
    )
  }
  // Things not crossed out go first only when they are all that is asked for: what is crossed out is what is taken.
  const ordered = there.some((t) => t.crossed)
    ? [...there.filter((t) => !t.crossed), ...there.filter((t) => t.crossed)]
    : there
  const keys = new Set(ordered.slice(ordered.length - count).map((t) => t.key))
  const mats = state.mats.map((m) =>
    m.regions.some((r) => r.things.some((t) => keys.has(t.key)))
      ? {
          ...m,
          divider: null,
          rings: [],
          regions: m.regions.map((r) => ({ ...r, things: r.things.filter((t) => !keys.has(t.key)) })),
        }
      : m,
  )
  return [{ ...state, mats }, there.filter((t) => keys.has(t.key))]
}

export function cover(state: TableState, target: Target, count: number | null): TableState {
  if (count !== null) return coverSome(state, target, count)
  const open = state.mats.findIndex((m) =>
    target.mat ? m.kind === target.mat : m.regions.length > 0 && !m.covered,
  )
  if (open < 0) throw new TableError('no-mat', { case: 'cover' })
  return { ...state, mats: state.mats.map((m, i) => (i === open ? { ...m, covered: true } : m)) }
}
function coverSome(state: TableState, target: Target, count: number): TableState {
  const seen = state.mats
    .filter((m) => holdsThings(m) && (!target.mat || m.kind === target.mat))
    .flatMap(thingsIn)
    .filter((t) => !t.hidden && !t.crossed)
  if (count > seen.length) throw new TableError('not-there', { case: 'cover', have: seen.length, count })
  const keys = new Set(seen.slice(seen.length - count).map((t) => t.key))
  return {
    ...state,
    mats: state.mats.map((m) => ({
      ...m,
      regions: m.regions.map((r) => ({
        ...r,
        things: r.things.map((t) => (keys.has(t.key) ? { ...t, hidden: true } : t)),
      })),
    })),
  }
}
export function uncover(state: TableState, target: Target): TableState {
  const hides = (m: Mat) => m.covered || thingsIn(m).some((t) => t.hidden)
  const found = state.mats.find((m) => (target.mat ? m.kind === target.mat : hides(m)))
  if (!found) throw new TableError('no-mat', { case: 'uncover' })
  return {
    ...state,
    mats: state.mats.map((m) =>
      m === found
        ? {
            ...m,
            covered: false,
            regions: m.regions.map((r) => ({
              ...r,
              things: r.things.map((t) => (t.hidden ? { ...t, hidden: false } : t)),
            })),
          }
        : m,
    ),
  }
}

/** Everything on the table parted into the given numbers: by place where there are places, by face where there are none. */
export function split(state: TableState, parts: readonly number[]): TableState {
  const things = thingsOn(state)
  const sum = parts.reduce((a, b) => a + b, 0)
  if (sum !== things.length)
    throw new TableError('not-conserved', { parts: [...parts], sum, have: things.length })
  const mat = state.mats.findIndex((m) => m.regions.length > 1 && holdsThings(m))
  if (mat < 0) {
    if (parts.length > 2) throw new TableError('no-mat', { case: 'parts' })
    const first = new Set(things.slice(0, parts[0]).map((t) => t.key))
    return {
      ...state,
      mats: state.mats.map((m) => ({
        ...m,
        regions: m.regions.map((r) => ({
          ...r,
          things: r.things.map((t) => ({
            ...t,
            face: first.has(t.key) ? ('saffron' as const) : ('blue' as const),
          })),
        })),
      })),
    }
  }
  const m = state.mats[mat]!
  const offset = hasWhole(m.kind) ? 1 : 0
  if (parts.length > m.regions.length - offset)
    throw new TableError('no-room', {
      case: 'places',
      mat: m.kind,
      room: m.regions.length - offset,
      count: parts.length,
    })
  return onlyOn(state, mat, (i, used) => (i < offset ? 0 : (parts[i - offset] ?? 0)) + used, things)
}

/** Lays all things out over the regions of one mat; `end(i, used)` says where in the list region i ends. */
function onlyOn(
  state: TableState,
  mat: number,
  end: (i: number, used: number) => number,
  things: readonly Thing[],
): TableState {
  let used = 0
  const regions = state.mats[mat]!.regions.map((r, i) => {
    const from = used
    used = end(i, used)
    if (r.slots !== null && used - from > r.slots)
      throw new TableError('no-room', {
        case: 'whole',
        place: capital(r.name),
        room: r.slots,
        count: used - from,
      })
    return { ...r, things: things.slice(from, used) }
  })
  return {
    ...state,
    mats: state.mats.map((m, i) =>
      i === mat
        ? { ...m, regions }
        : holdsThings(m)
          ? { ...m, divider: null, rings: [], regions: m.regions.map((r) => ({ ...r, things: [] })) }
          : m,
    ),
  }
}

export function join(state: TableState): TableState {
  const things = thingsOn(state)
  const mat = state.mats.findIndex((m) => m.regions.length > 1 && holdsThings(m))
  if (mat < 0) {
    if (!things.length) throw new TableError('not-there', { case: 'join' })
    return {
      ...state,
      mats: state.mats.map((m) => ({
        ...m,
        divider: null,
        rings: [],
        regions: m.regions.map((r) => ({
          ...r,
          things: r.things.map((t) => ({ ...t, face: 'saffron' as const })),
        })),
      })),
    }
  }
  // On plates and shelves everything comes to the first place, on a part-whole to the whole.
  return onlyOn(state, mat, (i) => (i === 0 ? things.length : things.length), things)
}

/**
 * Deals things one at a time to `among` plates. What is left over when another full round cannot be dealt stays
 * where it was, or comes to the open table.
 */
export function share(state: TableState, count: number | null, among: number): TableState {
  if (among < 2 || among > 6) throw new TableError('no-mat', { case: 'among', among })
  let s = state
  const plates = s.mats.find((m) => m.kind === 'plates')
  const on = plates ? thingsIn(plates) : []
  if (!plates || on.length || plates.regions.length !== among) {
    // What lies on plates already is gathered first, and shared with the rest.
    s = { ...s, mats: [...s.mats.filter((m) => m !== plates), layMat('plates', { parts: among })] }
    if (on.length) s = put(s, { target: { mat: 'table', region: null }, things: on })
  }
  const mat = s.mats.findIndex((m) => m.kind === 'plates')
  const loose = s.mats.flatMap((m) => (holdsThings(m) ? thingsIn(m) : []))
  const have = loose.length
  const n = count ?? have
  if (have === 0 && n > 0)
    return share(put(s, { target: { mat: 'table', region: null }, count: n }), n, among)
  if (n > have) throw new TableError('not-there', { case: 'share', have, count: n })
  const each = Math.floor(n / among)
  const dealt = loose.slice(0, each * among)
  const keys = new Set(dealt.map((t) => t.key))
  return {
    ...s,
    mats: s.mats.map((m, i) =>
      i === mat
        ? {
            ...m,
            regions: m.regions.map((r, j) => ({ ...r, things: dealt.filter((_, k) => k % among === j) })),
          }
        : {
            ...m,
            divider: null,
            rings: [],
            regions: m.regions.map((r) =>
              holdsThings(m) ? { ...r, things: r.things.filter((t) => !keys.has(t.key)) } : r,
            ),
          },
    ),
  }
}

/** Everything on the table set two by two on the pair plate: an odd one stands alone at the end. */
export function pairUp(state: TableState): TableState {
  const things = thingsOn(state)
  if (!things.length) throw new TableError('not-there', { case: 'pair' })
  let s = state
  if (!s.mats.some((m) => m.kind === 'pairs')) s = { ...s, mats: [...s.mats, layMat('pairs')] }
  const slots = 20
  if (things.length > slots)
    throw new TableError('no-room', { case: 'pairs', room: slots, count: things.length })
  return onlyOn(
    s,
    s.mats.findIndex((m) => m.kind === 'pairs'),
    (i, used) => (i === 0 ? things.length : used),
    things,
  )
}

/** Ten ones become one ten, in the place where they lie. */
export function swapTen(state: TableState): TableState {
  const m = state.mats.findIndex(
    (x) =>
      holdsThings(x) &&
      x.regions.some((r) => r.things.filter((t) => t.worth === 1 && !t.crossed).length >= 10),
  )
  if (m < 0) throw new TableError('not-there', { case: 'swap' })
  const r = state.mats[m]!.regions.findIndex(
    (x) => x.things.filter((t) => t.worth === 1 && !t.crossed).length >= 10,
  )
  const things = state.mats[m]!.regions[r]!.things
  const ones = things.filter((t) => t.worth === 1 && !t.crossed).slice(0, 10)
  const keys = new Set(ones.map((t) => t.key))
  const kept = things.filter((t) => !keys.has(t.key))
  const parted = {
    ...state,
    mats: state.mats.map((x, i) => (i === m ? { ...x, divider: null, rings: [] } : x)),
  }
  const after = withRegion({ ...parted, nextKey: state.nextKey + 1 }, m, r, [
    ...kept.filter((t) => t.worth > 1),
    thing(state.nextKey, ones[0]!.kind, { face: ones[0]!.face, worth: 10 }),
    ...kept.filter((t) => t.worth === 1),
  ])
  return after
}
