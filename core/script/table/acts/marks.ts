import {
  holdsThings,
  type Mat,
  TableError,
  type TableState,
  type Target,
  type Thing,
  thingsIn,
} from '../state.ts'
import { place } from './places.ts'

export function mapThings(state: TableState, f: (t: Thing) => Thing): TableState {
  return {
    ...state,
    mats: state.mats.map((m) =>
      holdsThings(m) ? { ...m, regions: m.regions.map((r) => ({ ...r, things: r.things.map(f) })) } : m,
    ),
  }
}
const among = (state: TableState, target: Target): Thing[] =>
  state.mats
    .filter((m) => holdsThings(m) && (!target.mat || m.kind === target.mat))
    .flatMap((m) =>
      m.regions.flatMap((r, i) => (target.region === null || i === target.region ? [...r.things] : [])),
    )

/** Turns over the last `count` saffron faces (or, when too few are left saffron, faces from the end). */
export function turnOver(state: TableState, count: number, target: Target): TableState {
  const things = among(state, target)
  if (count > things.length) throw new TableError('not-there', { case: 'turn', have: things.length, count })
  const saffron = things.filter((t) => t.face === 'saffron')
  const from = saffron.length >= count ? saffron : things
  const turned = new Set(from.slice(from.length - count).map((t) => t.key))
  return mapThings(state, (t) =>
    turned.has(t.key) ? { ...t, face: t.face === 'saffron' ? 'blue' : 'saffron' } : t,
  )
}

export function crossOut(state: TableState, count: number, target: Target): TableState {
  const open = among(state, target).filter((t) => !t.crossed)
  if (count > open.length) throw new TableError('not-there', { case: 'cross', have: open.length, count })
  const crossed = new Set(open.slice(open.length - count).map((t) => t.key))
  return mapThings(state, (t) => (crossed.has(t.key) ? { ...t, crossed: true } : t))
}

function firstWithThings(state: TableState, target: Target, least: number, what: 'ring' | 'divide'): Mat {
  const found = state.mats.find(
    (m) =>
      holdsThings(m) &&
      m.regions.length > 0 &&
      (!target.mat || m.kind === target.mat) &&
      thingsIn(m).length >= least,
  )
  if (!found) throw new TableError('not-there', { case: what, count: least })
  return found
}
/** Rings the next `count` things not ringed yet, in the order they lie. */
export function ring(state: TableState, count: number, target: Target): TableState {
  const m = firstWithThings(state, target, count, 'ring')
  const from = m.rings.at(-1)?.to ?? 0
  const n = thingsIn(m).length
  if (from + count > n) throw new TableError('not-there', { case: 'ring-left', have: n - from, count })
  return {
    ...state,
    mats: state.mats.map((x) => (x === m ? { ...x, rings: [...x.rings, { from, to: from + count }] } : x)),
  }
}
/** Slides the divider (or, on a rail, the pegs) so that `at` things stand before it. */
export function divide(state: TableState, at: number, target: Target): TableState {
  const m = firstWithThings(state, target, at, 'divide')
  return { ...state, mats: state.mats.map((x) => (x === m ? { ...x, divider: at } : x)) }
}
/** Writes a numeral or a word in a place: the whole of a part-whole, a plate, a jar. */
export function label(state: TableState, text: string, target: Target): TableState {
  const p = place(state, target, true)
  return {
    ...p.state,
    mats: p.state.mats.map((m, i) =>
      i === p.mat
        ? {
            ...m,
            regions: m.regions.map((r, j) => (j === p.region ? { ...r, label: text.slice(0, 12) } : r)),
          }
        : m,
    ),
  }
}
/** The same things in another pattern: nothing comes or goes. */
export function rearrange(state: TableState): TableState {
  if (!state.mats.some((m) => m.regions.length)) throw new TableError('not-there', { case: 'rearrange' })
  return {
    ...state,
    mats: state.mats.map((m) =>
      m.regions.length ? { ...m, look: m.look + 1, rings: [], divider: null } : m,
    ),
  }
}
