import { Face } from '../../../contracts/table.ts'
import {
  hasWhole,
  heapsIn,
  holdsThings,
  type Mat,
  type Spot,
  type TableState,
  type Thing,
  thingsIn,
} from '../../table/state.ts'
import { isCalled, thingsAt } from '../pick.ts'
import { stem } from '../lexicon.ts'

const count = (things: readonly Thing[], test: (t: Thing) => boolean): number => things.filter(test).length
const uncrossed = (things: readonly Thing[]): number => count(things, (t) => !t.crossed)
const worth = (things: readonly Thing[]): number => things.reduce((s, t) => s + (t.crossed ? 0 : t.worth), 0)
const all = (t: TableState): Thing[] => t.mats.filter(holdsThings).flatMap(thingsIn)

/** Every number a table can be said to show, in whatever way it is looked at: what lies outside of it is surely not shown. */
export function everyNumber(table: TableState): Set<number> {
  const out = new Set<number>()
  const add = (...ns: (number | null | undefined)[]) => {
    for (const n of ns) if (n !== null && n !== undefined) out.add(n)
  }
  const things = all(table)
  const byKind = new Map<string, Thing[]>()
  for (const t of things) byKind.set(t.kind, [...(byKind.get(t.kind) ?? []), t])
  const tally = (list: readonly Thing[]) => {
    add(
      list.length,
      uncrossed(list),
      count(list, (t) => t.crossed),
      count(list, (t) => t.hidden),
      count(list, (t) => !t.hidden),
    )
    add(...Face.options.map((f) => count(list, (t) => t.face === f)), worth(list))
    for (const w of new Set(list.map((t) => t.worth)))
      add(
        count(list, (t) => t.worth === w),
        w * count(list, (t) => t.worth === w),
      )
  }
  tally(things)
  for (const list of byKind.values()) tally(list)
  add(table.taken, table.start, table.held, Math.floor(uncrossed(things) / 2), things.length % 2)
  for (const m of table.mats) for (const n of ofMat(m)) add(n)
  const regions = table.mats.filter((m) => m.regions.length > 1 && holdsThings(m)).flatMap((m) => m.regions)
  for (const a of regions)
    for (const b of regions)
      add(Math.abs(a.things.length - b.things.length), a.things.length + b.things.length)
  for (const w of table.written) for (const n of w.match(/\d+/g) ?? []) add(Number(n))
  return out
}
/** Numbers one mat shows by itself: its places, heaps, gaps, rings, hops, cards. */
function ofMat(m: Mat): number[] {
  const things = thingsIn(m)
  const out: number[] = [m.regions.length, m.regions.length - (hasWhole(m.kind) ? 1 : 0)]
  for (const r of m.regions) {
    out.push(r.things.length, uncrossed(r.things), worth(r.things), ...heapsIn(r).map((h) => h.length))
    out.push(...Face.options.map((f) => count(r.things, (t) => t.face === f)))
    if (r.slots !== null) out.push(r.slots - r.things.length, r.slots, r.slots / 10)
    if (r.label !== null && /^\d+$/.test(r.label)) out.push(Number(r.label))
  }
  if (m.kind === 'frame')
    out.push(
      Math.floor(things.length / 10) * 10,
      things.length % 10,
      10 - (things.length % 10 || 10),
      Math.min(5, things.length),
      Math.max(0, things.length - 5),
    )
  if (m.divider !== null) out.push(m.divider, things.length - m.divider)
  const ringed = m.rings.map((r) => r.to - r.from)
  if (ringed.length) out.push(...ringed, ringed.length, things.length - ringed.reduce((a, b) => a + b, 0))
  if (m.line) {
    const { hops, marks, at, from, to } = m.line
    out.push(
      hops.length,
      marks.length,
      from,
      to,
      ...marks,
      ...(at === null ? [] : [at]),
      ...hops.flatMap((h) => [h.from, h.to, Math.abs(h.to - h.from)]),
    )
    if (hops.length) out.push(Math.abs(hops.at(-1)!.to - hops[0]!.from))
  }
  const faces = m.cards.filter((c) => /^\d+$/.test(c.text)).map((c) => Number(c.text))
  out.push(m.cards.length, ...faces)
  if (faces.length && faces.length <= 6) out.push(faces.reduce((a, b) => a + b, 0))
  for (const a of faces.slice(0, 6))
    for (const b of faces.slice(0, 6)) if (a < 10 && b < 10) out.push(a * 10 + b, Math.abs(a - b), a + b)
  return out
}

/** What is asked or said of a table: which things, in which state, where. */
export interface Aspect {
  spots: readonly Spot[]
  face: Thing['face'] | null
  noun: string | null
  /** left: still there. gone: taken, crossed, fallen. hidden: under a cover. free: places still empty. */
  state:
    | 'left'
    | 'gone'
    | 'hidden'
    | 'free'
    | 'each'
    | 'over'
    | 'worth'
    | 'at'
    | 'difference'
    | 'seen'
    | 'pairs'
    | null
  /** The noun is one of a picture's things. */
  pictured?: boolean
}
/** Whether it says anything more than "how many". */
export const isNarrow = (a: Aspect): boolean =>
  a.spots.length > 0 || a.face !== null || a.state !== null || a.pictured === true

/** The same, and of each mat by itself: a game may show one number twice, as skittles and on a frame. */
export function numbersFor(a: Aspect, table: TableState): number[] {
  const holding = table.mats.filter((m) => holdsThings(m) && thingsIn(m).length)
  const whole = numbersOf(a, table)
  if (a.spots.length || a.pictured || holding.length < 2 || !whole.length) return whole
  const each = holding.flatMap((m) =>
    numbersOf(a, { ...table, mats: table.mats.filter((x) => x === m || !holding.includes(x)) }),
  )
  return [...new Set([...whole, ...each])]
}
/** Numbers that answer to an aspect on a table: more than one where it may be meant in several ways, none where it cannot be told. */
function numbersOf(a: Aspect, table: TableState): number[] {
  const pictured = inPicture(a, table)
  if (pictured) return pictured
  const things = thingsMeant(a, table)
  const worths = things.some((t) => t.worth !== 1) ? [worth(things)] : []
  if (a.state === null)
    return things.length || a.spots.length ? [uncrossed(things), things.length, ...worths] : []
  return byState[a.state]({ a, table, things, worths })
}
function inPicture(a: Aspect, table: TableState): number[] | null {
  const scene = table.mats.find((m) => m.kind === 'scene')
  const region =
    a.noun === null
      ? undefined
      : scene?.regions.find((r) => r.name.split(' ').some((w) => stem(w) === a.noun))
  return region ? [region.things.length] : null
}
/** The things in the places, of the kind and of the colour that are named. */
function thingsMeant(a: Aspect, table: TableState): Thing[] {
  let things = a.spots.length ? a.spots.flatMap((s) => thingsAt(table, s)) : all(table)
  const called = a.noun === null ? [] : things.filter((t) => isCalled(t, a.noun!))
  if (called.length && new Set(things.map((t) => t.kind)).size > 1) things = called
  return a.face === null ? things : things.filter((t) => t.face === a.face)
}
interface Looked {
  a: Aspect
  table: TableState
  things: readonly Thing[]
  /** What they are worth together, where some stand for more than one. */
  worths: readonly number[]
}
const mats = (table: TableState): Mat[] => table.mats.filter((m) => holdsThings(m) && m.regions.length > 0)
const open = (t: Thing): boolean => !t.hidden && !t.crossed
/** How many are in a state, as the table shows it. */
const byState: Record<NonNullable<Aspect['state']>, (l: Looked) => number[]> = {
  left: ({ table, things, worths }) =>
    things.length || table.taken ? (divided(table, 'left') ?? [uncrossed(things), ...worths]) : [],
  gone: ({ a, table, things }) => {
    const holding = mats(table).filter((m) => thingsIn(m).length || m.kind === 'hands')
    if (holding.length && holding.every((m) => m.kind === 'hands')) return [10 - things.length, table.taken]
    const taken = a.spots.length || a.face ? 0 : table.taken
    return divided(table, 'gone') ?? [count(things, (t) => t.crossed) + taken]
  },
  hidden: ({ table }) => {
    const under = mats(table).reduce(
      (s, m) => s + (m.covered ? thingsIn(m).length : count(thingsIn(m), (t) => t.hidden)),
      0,
    )
    return under ? [under] : []
  },
  seen: ({ a, table, things }) =>
    a.spots.length
      ? [count(things, open)]
      : [mats(table).reduce((s, m) => s + (m.covered ? 0 : count(thingsIn(m), open)), 0)],
  free: ({ table }) => {
    const slots = mats(table).flatMap((m) => (m.kind === 'frame' ? [m.regions[0]!] : []))
    return slots.length === 1 ? [slots[0]!.slots! - slots[0]!.things.length] : missingPart(table)
  },
  each: ({ table }) => {
    const sizes = new Set(table.mats.find((m) => m.kind === 'plates')?.regions.map((r) => r.things.length))
    return sizes.size === 1 ? [...sizes] : []
  },
  over: ({ table }) => {
    const plates = table.mats.find((m) => m.kind === 'plates')
    return plates ? [all(table).length - thingsIn(plates).length] : []
  },
  worth: ({ worths }) => [...worths],
  at: ({ table }) => {
    const at = table.mats.find((m) => m.line)?.line?.at
    return at == null ? [] : [at]
  },
  difference: ({ a, table }) => difference(a.spots, table),
  pairs: ({ things }) => (things.length ? [Math.floor(things.length / 2)] : []),
}
/** What the empty part of a part-whole must hold, where the whole is known by its things or its number. */
function missingPart(table: TableState): number[] {
  const m = table.mats.find((x) => hasWhole(x.kind))
  if (!m) return []
  const [whole, ...parts] = m.regions
  // What lies in the whole still is what is left to go, where no number says how many there are.
  if (whole!.label === null) return whole!.things.length ? [whole!.things.length] : []
  const total = Number(whole!.label)
  const known = parts.filter((p) => p.things.length || p.label)
  if (!Number.isFinite(total) || known.length !== parts.length - 1) return []
  return [total - known.reduce((s, p) => s + (p.things.length || Number(p.label)), 0)]
}
/** On a rail, what was slid is gone and the rest did not move. */
function divided(table: TableState, which: 'left' | 'gone'): number[] | null {
  const rail = table.mats.find((m) => m.kind === 'rail' && m.divider !== null)
  if (!rail) return null
  return [which === 'gone' ? rail.divider! : thingsIn(rail).length - rail.divider!]
}
function difference(spots: readonly Spot[], table: TableState): number[] {
  const [a, b] = spots
  if (a && b) return [Math.abs(thingsAt(table, a).length - thingsAt(table, b).length)]
  const parted = table.mats.filter((m) => m.regions.length === 2 && holdsThings(m))
  if (parted.length !== 1) return []
  return [Math.abs(parted[0]!.regions[0]!.things.length - parted[0]!.regions[1]!.things.length)]
}
