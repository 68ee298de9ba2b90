import { layMat, thing } from '../mats.ts'
import {
  type Action,
  hasWhole,
  holdsThings,
  type Mat,
  type MatKind,
  type Region,
  type Spot,
  TableError,
  type TableState,
  type Thing,
  thingsIn,
} from '../state.ts'
import { capital } from '../../../words.ts'

/** The mat of a place, laid in its usual form when it is not there yet. */
function withMat(state: TableState, kind: MatKind): TableState {
  if (state.mats.some((m) => m.kind === kind)) return state
  return { ...state, mats: [...state.mats, layMat(kind, { parts: 2 }, state.nextKey)] }
}
/** Laying a row or table that must hold several frames' worth is the reader's; one frame is usual. */
const single: ReadonlySet<MatKind> = new Set(['frame'])
export function ensured(state: TableState, kind: MatKind): TableState {
  if (state.mats.some((m) => m.kind === kind)) return state
  return single.has(kind)
    ? { ...state, mats: [...state.mats, layMat(kind, {}, state.nextKey)] }
    : withMat(state, kind)
}

/** A table whose mats are changed one by one; those that stay the same stay the same objects. */
export const eachMat = (state: TableState, change: (m: Mat) => Mat): TableState => ({
  ...state,
  mats: state.mats.map(change),
})
const eachRegion = (m: Mat, change: (r: Region, i: number) => Region): Mat => ({
  ...m,
  regions: m.regions.map(change),
})

/** @throws TableError when the place has no room for them. */
function into(state: TableState, at: Spot, things: readonly Thing[]): TableState {
  return eachMat(state, (m) => {
    if (m.kind !== at.mat) return m
    const r = m.regions[at.region]
    if (!r) throw new TableError('no-mat', { case: 'place', mat: m.kind })
    const room = r.slots === null ? Infinity : r.slots - r.things.length
    if (things.length > room)
      throw new TableError('no-room', { case: 'more', place: capital(r.name), room, count: things.length })
    return eachRegion(m, (x) => (x === r ? { ...x, things: [...x.things, ...things] } : x))
  })
}
/** The next number for a heap in a place, so that it stands apart from those there. */
const newHeap = (state: TableState, at: Spot): number => 1 + Math.max(-1, ...heapsAt(state, at))
const lastHeap = (state: TableState, at: Spot): number =>
  state.mats.find((m) => m.kind === at.mat)?.regions[at.region]?.things.at(-1)?.heap ?? 0
const heapsAt = (state: TableState, at: Spot): number[] =>
  (state.mats.find((m) => m.kind === at.mat)?.regions[at.region]?.things ?? []).map((t) => t.heap)

export function put(state: TableState, a: Extract<Action, { type: 'put' }>): TableState {
  const s = ensured(state, a.at.mat)
  const heap = a.apart ? newHeap(s, a.at) : lastHeap(s, a.at)
  const things = Array.from({ length: a.count }, (_, i) =>
    thing(s.nextKey + i, a.kind, { face: a.face, worth: a.worth, heap }),
  )
  return {
    ...into({ ...s, nextKey: s.nextKey + a.count }, a.at, things),
    last: { keys: things.map((t) => t.key), from: null },
  }
}

/** The place a thing lies in. */
function spotOf(state: TableState, key: number): Spot | null {
  for (const m of state.mats)
    for (const [region, r] of m.regions.entries())
      if (r.things.some((t) => t.key === key)) return { mat: m.kind, region }
  return null
}
/** @throws TableError when one of them is not on the table. */
function lifted(state: TableState, keys: readonly number[]): [TableState, Thing[]] {
  const wanted = new Set(keys)
  const things = state.mats.flatMap(thingsIn).filter((t) => wanted.has(t.key))
  if (things.length < wanted.size)
    throw new TableError('not-there', {
      case: 'take',
      have: things.length,
      where: 'on the table',
      count: wanted.size,
    })
  const after = eachMat(state, (m) =>
    m.regions.some((r) => r.things.some((t) => wanted.has(t.key)))
      ? {
          ...eachRegion(m, (r) => ({ ...r, things: r.things.filter((t) => !wanted.has(t.key)) })),
          divider: null,
          rings: [],
        }
      : m,
  )
  return [after, things]
}
export function take(state: TableState, keys: readonly number[]): TableState {
  const [after] = lifted(state, keys)
  const counted = state.mats
    .filter(holdsThings)
    .flatMap(thingsIn)
    .filter((t) => keys.includes(t.key)).length
  return { ...after, taken: after.taken + counted, last: null }
}
export function move(state: TableState, a: Extract<Action, { type: 'move' }>): TableState {
  const from = a.keys.length ? spotOf(state, a.keys[0]!) : null
  const [after, things] = lifted(ensured(state, a.at.mat), a.keys)
  const heap = a.apart ? newHeap(after, a.at) : lastHeap(after, a.at)
  return {
    ...into(
      after,
      a.at,
      things.map((t) => ({ ...t, heap })),
    ),
    last: { keys: [...a.keys], from },
  }
}
/** Things of one place in heaps, in the order given; what is in none of them stays together before them. */
export function heap(state: TableState, heaps: readonly (readonly number[])[]): TableState {
  const numberOf = new Map(heaps.flatMap((keys, i) => keys.map((k) => [k, i + 1] as const)))
  return eachMat(state, (m) =>
    m.regions.some((r) => r.things.some((t) => numberOf.has(t.key)))
      ? {
          ...eachRegion(m, (r) => ({
            ...r,
            things: r.things
              .map((t) => ({ ...t, heap: numberOf.get(t.key) ?? 0 }))
              .sort((a, b) => a.heap - b.heap),
          })),
          divider: null,
          rings: [],
        }
      : m,
  )
}
export function swapPlaces(state: TableState, a: Extract<Action, { type: 'swap places' }>): TableState {
  return eachMat(state, (m) => {
    if (m.kind !== a.mat) return m
    const [one, other] = [m.regions[a.a], m.regions[a.b]]
    if (!one || !other) throw new TableError('no-mat', { case: 'place', mat: m.kind })
    return eachRegion(m, (r) =>
      r === one
        ? { ...r, things: other.things, label: other.label }
        : r === other
          ? { ...r, things: one.things, label: one.label }
          : r,
    )
  })
}
/** Ten ones for a ten, a ten for ten ones, a coin for smaller ones: worth the same, in the same place. */
export function exchange(state: TableState, a: Extract<Action, { type: 'exchange' }>): TableState {
  const at = a.keys.length ? spotOf(state, a.keys[0]!) : null
  if (!at) throw new TableError('not-there', { case: 'swap' })
  const [after, things] = lifted(state, a.keys)
  const before = things.reduce((s, t) => s + t.worth, 0)
  if (before !== a.count * a.worth)
    throw new TableError('not-conserved', {
      parts: [a.count * a.worth],
      sum: a.count * a.worth,
      have: before,
    })
  const made = Array.from({ length: a.count }, (_, i) =>
    thing(state.nextKey + i, things[0]!.kind, {
      face: things[0]!.face,
      worth: a.worth,
      heap: things[0]!.heap,
    }),
  )
  const next = into({ ...after, nextKey: state.nextKey + a.count }, at, made)
  // Tens lie before ones.
  return eachMat(next, (m) =>
    m.kind === at.mat
      ? eachRegion(m, (r, i) =>
          i === at.region ? { ...r, things: [...r.things].sort((x, y) => y.worth - x.worth) } : r,
        )
      : m,
  )
}

/** Each of some things in two: halves that are worth half of it, where it lay. */
export function halve(state: TableState, keys: readonly number[]): TableState {
  let key = state.nextKey
  const cut = new Set(keys)
  const after = eachMat(state, (m) =>
    m.regions.some((r) => r.things.some((t) => cut.has(t.key)))
      ? eachRegion(m, (r) => ({
          ...r,
          things: r.things.flatMap((t) =>
            cut.has(t.key)
              ? [0, 1].map(() => ({ ...t, key: key++, kind: `half ${t.kind}`, worth: t.worth / 2 }))
              : [t],
          ),
        }))
      : m,
  )
  return { ...after, nextKey: key, last: null }
}

/** The most places a mat of each kind has; others have no more than they are laid with. */
const mostPlaces: Partial<Record<MatKind, number>> = { parts: 6, bar: 6, plates: 10 }
/** @throws TableError when the mat is not there, or holds no more places. */
export function addPlace(state: TableState, kind: MatKind): TableState {
  const mat = state.mats.find((m) => m.kind === kind)
  if (!mat) throw new TableError('no-mat', { case: 'place', mat: kind })
  const places = mat.regions.length - (hasWhole(kind) ? 1 : 0)
  if (places >= (mostPlaces[kind] ?? 0))
    throw new TableError('no-room', { case: 'places', mat: kind, room: places, count: places + 1 })
  const base = mat.regions.at(-1)!.name.replace(/ \d+$/, '')
  return eachMat(state, (m) =>
    m === mat
      ? {
          ...m,
          regions: [...m.regions, { name: `${base} ${places + 1}`, slots: null, things: [], label: null }],
        }
      : m,
  )
}
