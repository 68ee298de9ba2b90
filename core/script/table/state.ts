/** Faces of a two-faced counter. The blue face carries a dot, so the two stay apart without colour. */
export type Face = 'saffron' | 'blue'
export interface Thing {
  kind: string
  face: Face
  crossed: boolean
}
export const matKinds = ['table', 'row', 'frame', 'parts', 'shelves', 'plates', 'jar', 'line'] as const
export type MatKind = (typeof matKinds)[number]

export interface Region {
  name: string
  /** Places in it; null for as many as fit. */
  slots: number | null
  things: readonly Thing[]
}
export interface Hop {
  from: number
  to: number
}
export interface Mat {
  kind: MatKind
  regions: readonly Region[]
  covered: boolean
  line: { from: number; to: number; hops: readonly Hop[]; at: number | null } | null
}
export interface TableState {
  mats: readonly Mat[]
  written: readonly string[]
  held: number | null
  /** Largest number of things out since the table was last cleared: the "start" of a take-away. */
  start: number
  /** How many were taken off since the table was last cleared. */
  taken: number
}
export const emptyTable: TableState = { mats: [], written: [], held: null, start: 0, taken: 0 }

/** Where an action lands. `region`: 0 is the first part, shelf or plate; −1 the whole of a part-whole. */
export interface Target {
  mat: MatKind | null
  region: number | null
}

export type Action =
  | { type: 'lay'; mat: MatKind; parts: number; from: number; to: number }
  | { type: 'put'; count: number; face: Face; kind: string; target: Target }
  | { type: 'take'; count: number; target: Target }
  | { type: 'move'; count: number; source: Target; target: Target }
  | { type: 'turn'; count: number }
  | { type: 'cover'; target: Target }
  | { type: 'uncover'; target: Target }
  | { type: 'cross'; count: number }
  | { type: 'uncross' }
  | { type: 'split'; parts: number[] }
  | { type: 'join' }
  | { type: 'hop'; from: number | null; by: number }
  | { type: 'mark'; at: number }
  | { type: 'hold'; number: number }
  | { type: 'rub out' }
  | { type: 'rearrange' }
  | { type: 'roll' }
  | { type: 'clear' }

export type TableErrorCode = 'not-there' | 'no-room' | 'not-conserved' | 'covered' | 'no-mat' | 'off-the-line'
/** Why the table refuses an action, in words for the teacher. */
export class TableError extends Error {
  constructor(readonly code: TableErrorCode, message: string) {
    super(message)
    this.name = 'TableError'
  }
}

export const thingsOn = (state: TableState): Thing[] => state.mats.flatMap((m) => m.regions.flatMap((r) => [...r.things]))
/** Things not crossed out: what is left. */
export const leftOn = (state: TableState): number => thingsOn(state).filter((t) => !t.crossed).length
/** Things a viewer can see and touch: not under a cover. */
export const visibleThings = (state: TableState): Thing[] =>
  state.mats.flatMap((m) => (m.covered ? [] : m.regions.flatMap((r) => [...r.things])))
export const isBare = (state: TableState): boolean =>
  thingsOn(state).length === 0 && state.written.length === 0 && state.mats.every((m) => !m.line || m.line.hops.length === 0)

/** Numbers the table shows as parts of a whole, one list per way of seeing it (by place, by face, by crossing). */
export function partitionsOn(state: TableState): number[][] {
  const all = thingsOn(state)
  const out: number[][] = []
  const faces = [all.filter((t) => t.face === 'saffron').length, all.filter((t) => t.face === 'blue').length]
  out.push(faces)
  const regions = state.mats.flatMap((m) => m.regions.map((r) => r.things.length))
  if (regions.length > 1) out.push(regions)
  for (const m of state.mats) {
    if (m.regions.length > 1) out.push((m.kind === 'parts' ? m.regions.slice(1) : m.regions).map((r) => r.things.length))
    if (m.line && m.line.hops.length) {
      const first = m.line.hops[0]!
      out.push([first.from, ...m.line.hops.map((h) => Math.abs(h.to - h.from))])
      out.push(m.line.hops.map((h) => Math.abs(h.to - h.from)))
    }
  }
  return out
}
