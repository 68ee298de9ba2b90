import { holdsThings, type Spot, TableError, type TableState, type Thing } from '../table/state.ts'
import type { Group } from './groups.ts'
import { anyThing, stem } from './lexicon.ts'
import type { Ground } from './spots.ts'

export interface Wanted {
  /** The place it must lie in; null anywhere. A region of −1 is the whole mat. */
  at: Spot | null
  /** From which end things go when the words do not say. */
  end: 'first' | 'last'
  /** Which of them may go at all: "cross" takes those not crossed yet. */
  among?: (t: Thing) => boolean
  /** What the refusal says cannot be done. */
  refusal: 'take' | 'turn' | 'cross' | 'cover' | 'ring-left'
  where?: string
}

/** Things lying in a place, or anywhere; pictures and claps are none. */
export function thingsAt(table: TableState, at: Spot | null): Thing[] {
  return table.mats.flatMap((m) =>
    at
      ? m.kind === at.mat
        ? m.regions.flatMap((r, i) => (at.region < 0 || i === at.region ? [...r.things] : []))
        : []
      : holdsThings(m)
        ? m.regions.flatMap((r) => [...r.things])
        : [],
  )
}
/** Whether a thing is what the noun calls it. */
export const isCalled = (t: Thing, noun: string): boolean =>
  stem(t.kind) === noun || t.kind.split(' ').some((w) => stem(w) === noun)

/** "The bottom row" of a frame: its second five, in the order a frame is filled. */
function frameRow(group: Group, ground: Ground): Thing[] | null {
  const frame = ground.table.mats.find((m) => m.kind === 'frame')
  if (!frame || group.mat !== 'row' || (group.order === null && group.place === null)) return null
  const i =
    group.place === 'bottom' || group.order === -1 ? 1 : group.place === 'top' ? 0 : (group.order ?? 1) - 1
  return thingsAt(ground.table, { mat: 'frame', region: 0 }).slice(i * 5, i * 5 + 5)
}

/** Things of a group that a table has, however many are asked for. */
export function candidates(group: Group, ground: Ground, wanted: Wanted): Thing[] {
  const inner = group.of && group.of.mat === null ? group.of : null
  let there = frameRow(group, ground) ?? thingsAt(ground.table, wanted.at)
  if (wanted.among) there = there.filter(wanted.among)
  const noun = [group.noun, inner?.noun ?? null].find((n): n is string => !!n && !anyThing.has(n))
  if (noun) {
    const called = there.filter((t) => isCalled(t, noun))
    // A story may call plain counters what it likes; things with names of their own keep them.
    if (called.length) there = called
    else if (new Set(there.map((t) => t.kind)).size > 1 && there.some((t) => t.kind !== 'counters'))
      there = there.filter((t) => t.kind === 'counters')
  }
  const face = group.face ?? inner?.face ?? null
  if (face) there = there.filter((t) => t.face === face)
  if (
    group.worth !== null &&
    there.some((t) => t.worth !== 1 || group.worth === 1) &&
    there.some((t) => t.worth !== there[0]!.worth || t.worth === group.worth)
  )
    there = there.filter((t) => t.worth === group.worth)
  switch (group.state) {
    case 'crossed':
    case 'fallen':
      there = there.filter((t) => t.crossed)
      break
    case 'standing':
      there = there.filter((t) => !t.crossed)
      break
    case 'hidden':
      there = there.filter((t) => t.hidden)
      break
    case 'alone':
      there = there.slice(-1)
      break
    default:
      break
  }
  return there
}

/**
 * The things a group means, by their keys in the order they lie.
 * @throws TableError `not-there` when fewer lie there than it says.
 */
export function picked(group: Group, ground: Ground, wanted: Wanted): number[] {
  const there = candidates(group, ground, wanted)
  const keys = there.map((t) => t.key)
  const count = countOf(group, there.length)
  const refuse = (n: number): never => {
    throw new TableError(
      'not-there',
      wanted.refusal === 'take'
        ? there.length
          ? { case: 'take', have: there.length, where: wanted.where ?? 'on the table', count: n }
          : { case: 'take-none', where: wanted.where ?? 'on the table' }
        : { case: wanted.refusal, have: there.length, count: n },
    )
  }
  if (count === 'all') return keys.length ? keys : refuse(1)
  if (group.quantity === 'all but')
    return (group.n ?? 1) <= keys.length ? keys.slice(group.n ?? 1) : refuse(group.n ?? 1)
  if (count > keys.length || !Number.isInteger(count)) return refuse(Math.ceil(count))
  // "the third shell" is one; "the first three" are three.
  if (group.order !== null && group.order > 1 && group.n === null)
    return keys[group.order - 1] === undefined ? refuse(group.order) : [keys[group.order - 1]!]
  if (group.order === 1 || group.place === 'bottom' || (wanted.end === 'first' && group.order !== -1))
    return keys.slice(0, count)
  const open = there.some((t) => t.crossed) && wanted.refusal === 'take'
  // What is crossed out goes before what is not: crossing out was how it was said to go.
  const ordered = open
    ? [...there.filter((t) => !t.crossed), ...there.filter((t) => t.crossed)].map((t) => t.key)
    : keys
  const chosen = new Set(ordered.slice(ordered.length - count))
  return keys.filter((k) => chosen.has(k))
}
/** How many a group asks for, of so many there. */
function countOf(group: Group, there: number): number | 'all' {
  if (group.quantity === 'half') return there / 2
  if (group.quantity === 'all' || group.quantity === 'rest' || group.quantity === 'each')
    return group.quantity === 'rest' && group.n !== null ? group.n : 'all'
  if (group.quantity === 'both') return there === 2 || group.n === null ? (there === 2 ? 2 : 'all') : group.n
  if (group.pairs) return 2 * (group.n ?? 1)
  if (group.n !== null) return group.n
  if (group.of?.quantity === 'all') return 'all'
  if (group.order !== null) return 1
  // "the bean" is one; "the beans" are all of them; a noun for nothing on the table is none.
  return group.state === 'alone' ? 1 : 'all'
}
