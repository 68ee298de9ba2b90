import {
  type Action,
  type Face,
  type Mat,
  TableError,
  type TableState,
  type Thing,
  thingsIn,
} from '../state.ts'
import { eachMat, ensured } from './places.ts'

/** Changes the things with these keys, and no others. */
function these(state: TableState, keys: readonly number[], change: (t: Thing) => Thing): TableState {
  const wanted = new Set(keys)
  return eachMat(state, (m) =>
    m.regions.some((r) => r.things.some((t) => wanted.has(t.key)))
      ? {
          ...m,
          regions: m.regions.map((r) => ({
            ...r,
            things: r.things.map((t) => (wanted.has(t.key) ? change(t) : t)),
          })),
        }
      : m,
  )
}
/** The other side; what is green has none and stays green. */
const other = (face: Face): Face => (face === 'green' ? 'green' : face === 'saffron' ? 'blue' : 'saffron')
export const turnOver = (state: TableState, keys: readonly number[], face: Face | null): TableState =>
  these(state, keys, (t) => ({ ...t, face: face ?? other(t.face) }))
export const cross = (state: TableState, keys: readonly number[], crossed: boolean): TableState =>
  these(state, keys, (t) => ({ ...t, crossed }))
export const cover = (state: TableState, keys: readonly number[]): TableState =>
  these(state, keys, (t) => ({ ...t, hidden: true }))

const hides = (m: Mat): boolean => m.covered || thingsIn(m).some((t) => t.hidden)
export function coverMat(state: TableState, mat: Mat['kind']): TableState {
  if (!state.mats.some((m) => m.kind === mat)) throw new TableError('no-mat', { case: 'cover' })
  return eachMat(state, (m) => (m.kind === mat ? { ...m, covered: true } : m))
}
export function uncover(state: TableState, mat: Mat['kind'] | null): TableState {
  if (!state.mats.some((m) => hides(m) && (mat === null || m.kind === mat)))
    throw new TableError('no-mat', { case: 'uncover' })
  return eachMat(state, (m) =>
    hides(m) && (mat === null || m.kind === mat)
      ? {
          ...m,
          covered: false,
          regions: m.regions.map((r) => ({
            ...r,
            things: r.things.map((t) => (t.hidden ? { ...t, hidden: false } : t)),
          })),
        }
      : m,
  )
}
export const ring = (state: TableState, a: Extract<Action, { type: 'ring' }>): TableState =>
  eachMat(state, (m) => (m.kind === a.mat ? { ...m, rings: [...m.rings, { from: a.from, to: a.to }] } : m))
export const unring = (state: TableState): TableState =>
  eachMat(state, (m) => (m.rings.length ? { ...m, rings: [] } : m))
export const divide = (state: TableState, a: Extract<Action, { type: 'divide' }>): TableState =>
  eachMat(state, (m) => (m.kind === a.mat ? { ...m, divider: a.at } : m))

/** Writes a numeral or a word in a place: the whole of a part-whole, a plate, a jar. */
export function label(state: TableState, a: Extract<Action, { type: 'label' }>): TableState {
  return eachMat(ensured(state, a.at.mat), (m) =>
    m.kind === a.at.mat
      ? {
          ...m,
          regions: m.regions.map((r, j) => (j === a.at.region ? { ...r, label: a.text.slice(0, 12) } : r)),
        }
      : m,
  )
}
/** The same things in another pattern: nothing comes or goes. */
export function rearrange(state: TableState, mat: Mat['kind'] | null): TableState {
  if (!state.mats.some((m) => m.regions.length && (mat === null || m.kind === mat)))
    throw new TableError('not-there', { case: 'rearrange' })
  return eachMat(state, (m) =>
    m.regions.length && (mat === null || m.kind === mat)
      ? { ...m, look: m.look + 1, rings: [], divider: null }
      : m,
  )
}
