import type { Params } from '../../contracts/finding.ts'
import type { Card, Face, Hop, Line, Mat, MatKind, Region, TableState, Thing } from '../../contracts/table.ts'

export { matKinds } from '../../contracts/table.ts'
export type { Card, Face, Hop, Line, Mat, MatKind, Region, TableState, Thing }
export const emptyTable: TableState = { mats: [], written: [], held: null, start: 0, taken: 0, nextKey: 1 }

/** Where an action lands. `region`: 0 is the first part, shelf or plate; −1 the whole of a part-whole or bar. */
export interface Target {
  mat: MatKind | null
  region: number | null
}
export const anywhere: Target = { mat: null, region: null }

export type Action =
  | {
      type: 'lay'
      mat: MatKind
      parts: number
      from: number
      to: number
      every: number
      items: readonly { text: string; count: number }[]
    }
  | { type: 'put'; count: number; face: Face; kind: string; worth: number; target: Target }
  | { type: 'take'; count: number; target: Target; face: Face | null }
  | { type: 'move'; count: number; source: Target; target: Target }
  | { type: 'turn'; count: number; target: Target }
  | { type: 'turn card' }
  | { type: 'cover'; target: Target; count: number | null }
  | { type: 'uncover'; target: Target }
  | { type: 'cross'; count: number; target: Target }
  | { type: 'uncross' }
  | { type: 'ring'; count: number; target: Target }
  | { type: 'divide'; at: number; target: Target }
  | { type: 'split'; parts: readonly number[] }
  | { type: 'join' }
  | { type: 'share'; count: number | null; among: number }
  | { type: 'pair' }
  | { type: 'swap ten' }
  | { type: 'hop'; from: number | null; by: number; times: number }
  | { type: 'mark'; numbers: readonly number[]; mat: 'line' | 'square' }
  | { type: 'hold'; number: number }
  | { type: 'label'; text: string; target: Target }
  | { type: 'rub out'; count: number | null }
  | { type: 'rearrange' }
  | { type: 'roll'; faces: readonly number[] }
  | { type: 'show card'; texts: readonly string[]; up: boolean }
  | { type: 'draw'; texts: readonly string[]; back: boolean; from: 'bowl' | 'cards' }
  | { type: 'spin'; text: string | null }
  | { type: 'clear' }

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
/** Mats whose first region is the whole and the others its parts. */
export const hasWhole = (kind: MatKind): boolean => kind === 'parts' || kind === 'bar'
