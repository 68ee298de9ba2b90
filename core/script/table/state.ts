import type { Params } from '../../contracts/finding.ts'
import type {
  Card,
  Face,
  Hop,
  Line,
  Mat,
  MatKind,
  Region,
  Spot,
  TableState,
  Thing,
} from '../../contracts/table.ts'

export { matKinds } from '../../contracts/table.ts'
export type { Card, Face, Hop, Line, Mat, MatKind, Region, Spot, TableState, Thing }
export const emptyTable: TableState = {
  mats: [],
  aside: [],
  written: [],
  held: null,
  start: 0,
  taken: 0,
  nextKey: 1,
  last: null,
}

/**
 * What one movement of a hand does, with nothing left open: things by their keys, places by mat and index. Which things
 * a line means is decided before, by the reader of lines; here they are only carried out.
 */
export type Action =
  | {
      type: 'lay'
      mat: MatKind
      parts: number
      from: number
      to: number
      every: number
      items: readonly { text: string; count: number }[]
      /** What its places are called, when the line calls them otherwise: "cup". */
      name: string | null
    }
  | { type: 'away'; mat: MatKind }
  | { type: 'bring back'; mat: MatKind }
  /** One place more on a mat that has several. */
  | { type: 'add place'; mat: MatKind }
  /** `apart`: a heap of its own beside what lies there. */
  | { type: 'put'; count: number; face: Face; kind: string; worth: number; at: Spot; apart: boolean }
  | { type: 'take'; keys: readonly number[] }
  | { type: 'move'; keys: readonly number[]; at: Spot; apart: boolean }
  | { type: 'heap'; heaps: readonly (readonly number[])[] }
  /** `face`: null turns each to its other face. */
  | { type: 'turn'; keys: readonly number[]; face: Face | null }
  | { type: 'swap places'; mat: MatKind; a: number; b: number }
  | { type: 'cover'; keys: readonly number[] }
  | { type: 'cover mat'; mat: MatKind }
  | { type: 'uncover'; mat: MatKind | null }
  | { type: 'cross'; keys: readonly number[]; crossed: boolean }
  | { type: 'ring'; mat: MatKind; from: number; to: number }
  | { type: 'unring' }
  | { type: 'divide'; mat: MatKind; at: number | null }
  /** Each thing cut into two halves. */
  | { type: 'halve'; keys: readonly number[] }
  | { type: 'exchange'; keys: readonly number[]; count: number; worth: number }
  | { type: 'rearrange'; mat: MatKind | null }
  | { type: 'hop'; from: number | null; by: number; times: number }
  | { type: 'stand'; at: number }
  | { type: 'mark'; numbers: readonly number[]; mat: 'line' | 'square'; face: Face | null }
  | { type: 'unmark'; numbers: readonly number[] | null }
  | { type: 'unhop' }
  | { type: 'hold'; number: number }
  | { type: 'label'; text: string; at: Spot }
  | { type: 'rub out' }
  | { type: 'roll'; faces: readonly number[] }
  | { type: 'spin'; text: string | null }
  | { type: 'show card'; texts: readonly string[]; up: boolean }
  /** The cards in a new order, or with one laid between: all that lie there, from the left. */
  | { type: 'order cards'; texts: readonly string[] }
  | { type: 'cards back'; texts: readonly string[] }
  | { type: 'draw'; texts: readonly string[]; back: boolean; from: 'bowl' | 'cards' }
  | { type: 'clap'; count: number; unseen: boolean }
  | { type: 'clear'; at: { mat: MatKind; region: number | null } | null }

export type TableErrorCode =
  'not-there' | 'no-room' | 'not-conserved' | 'covered' | 'no-mat' | 'off-the-line' | 'no-card'

/** Why the table refuses an action: a code, and what fills its words in the catalogue of findings. */
export class TableError extends Error {
  constructor(
    readonly code: TableErrorCode,
    readonly params: Params = {},
  ) {
    super(code)
    this.name = 'TableError'
  }
}

/** Sounds are heard and pictures looked at: neither is a thing that a home must have. */
export const holdsThings = (m: Mat): boolean => m.kind !== 'sound' && m.kind !== 'scene'
export const thingsIn = (m: Mat): Thing[] => m.regions.flatMap((r) => [...r.things])
const gathered = new WeakMap<TableState, readonly Thing[]>()
/** Every thing on the table, in the order of mats and places. Gathered once for each state: every rule asks for it. */
export function thingsOn(state: TableState): readonly Thing[] {
  const known = gathered.get(state)
  if (known) return known
  const all = state.mats.filter(holdsThings).flatMap(thingsIn)
  gathered.set(state, all)
  return all
}
/** Things not crossed out: what is left. */
export const leftOn = (state: TableState): number => thingsOn(state).filter((t) => !t.crossed).length
/** What the things not crossed out are worth: tens count ten, coins their value. */
export const worthOn = (state: TableState): number =>
  thingsOn(state).reduce((s, t) => s + (t.crossed ? 0 : t.worth), 0)
/** Things a viewer can see and touch: not under a cover. */
export const visibleThings = (state: TableState): Thing[] =>
  state.mats.flatMap((m) => (m.covered || !holdsThings(m) ? [] : thingsIn(m).filter((t) => !t.hidden)))
export const isBare = (state: TableState): boolean =>
  thingsOn(state).length === 0 &&
  state.written.length === 0 &&
  state.mats.every((m) => (!m.line || m.line.hops.length === 0) && m.regions.every((r) => !r.label))

/** Numbers the table shows as parts of a whole, one list per way of seeing it (by place, face, crossing, divider, cover). */
export function partitionsOn(state: TableState): number[][] {
  const all = thingsOn(state)
  const count = (test: (t: Thing) => boolean): [number, number] => {
    const n = all.filter(test).length
    return [n, all.length - n]
  }
  const out: number[][] = [count((t) => t.face === 'saffron')]
  if (all.some((t) => t.hidden)) out.push(count((t) => !t.hidden))
  if (all.some((t) => t.crossed)) out.push(count((t) => !t.crossed))
  const regions = state.mats.filter(holdsThings).flatMap((m) => m.regions.map((r) => r.things.length))
  if (regions.length > 1) out.push(regions)
  for (const m of state.mats) {
    if (m.regions.length > 1)
      out.push((hasWhole(m.kind) ? m.regions.slice(1) : m.regions).map((r) => r.things.length))
    if (m.divider !== null) out.push([m.divider, thingsIn(m).length - m.divider])
    const heaps = m.regions.flatMap(heapsIn)
    if (heaps.length > m.regions.length) out.push(heaps.map((h) => h.length))
    if (m.rings.length) {
      const ringed = m.rings.map((r) => r.to - r.from)
      out.push([...ringed, thingsIn(m).length - ringed.reduce((a, b) => a + b, 0)])
    }
    const ten = m.kind === 'frame' ? thingsIn(m).length : 0
    if (ten > 10) out.push([10, ten - 10], [Math.floor(ten / 10) * 10, ten % 10])
    if (m.kind === 'dice') out.push(m.cards.map((c) => Number(c.text)))
    if (m.kind === 'cards') out.push(m.cards.filter((c) => /^\d+$/.test(c.text)).map((c) => Number(c.text)))
    if (m.line && m.line.hops.length) {
      const first = m.line.hops[0]!
      out.push([first.from, ...m.line.hops.map((h) => Math.abs(h.to - h.from))])
      out.push(m.line.hops.map((h) => Math.abs(h.to - h.from)))
      out.push([first.from, m.line.hops.reduce((s, h) => s + Math.abs(h.to - h.from), 0)])
    }
  }
  return out
}
/** The heaps of a place in the order they lie; one for things never parted, none for an empty place. */
export function heapsIn(r: Region): Thing[][] {
  const out: Thing[][] = []
  for (const t of r.things) {
    const mine = out.find((h) => h[0]!.heap === t.heap)
    if (mine) mine.push(t)
    else out.push([t])
  }
  return out
}
/** Mats whose first region is the whole and the others its parts. */
export const hasWhole = (kind: MatKind): boolean => kind === 'parts' || kind === 'bar'
