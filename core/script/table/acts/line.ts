import { layMat } from '../mats.ts'
import { type Face, type Line, TableError, type TableState } from '../state.ts'

const within = (line: Line, n: number): number => {
  if (n < line.from || n > line.to)
    throw new TableError('off-the-line', { from: line.from, to: line.to, number: n })
  return n
}
function onLine(
  state: TableState,
  kind: 'line' | 'square' | null,
  highest: number,
  change: (line: Line) => Line,
): TableState {
  const is = (k: string) => (kind ? k === kind : k === 'line' || k === 'square')
  const to = highest <= 10 ? 10 : highest <= 20 ? 20 : 100
  const s = state.mats.some((m) => is(m.kind))
    ? state
    : {
        ...state,
        mats: [
          ...state.mats,
          layMat(kind ?? 'line', kind === 'square' ? { from: 1 } : { to, every: to > 20 ? 10 : 1 }),
        ],
      }
  const chosen = s.mats.find((m) => is(m.kind))
  return { ...s, mats: s.mats.map((m) => (m === chosen && m.line ? { ...m, line: change(m.line) } : m)) }
}

/** Hops `by` (negative is back), `times` over, from a number or from where the last hop ended. */
export function hop(state: TableState, from: number | null, by: number, times: number): TableState {
  return onLine(state, null, Math.max(from ?? 0, (from ?? 0) + by * times), (line) => {
    let at = within(line, from ?? line.at ?? line.from)
    const hops = [...line.hops]
    for (let i = 0; i < times; i++) {
      const to = within(line, at + by)
      hops.push({ from: at, to })
      at = to
    }
    return { ...line, hops, at }
  })
}

/** Marks numbers on a line, or shades them on a hundred square, in a colour where one is said; the last one is where one stands. */
export function mark(
  state: TableState,
  numbers: readonly number[],
  kind: 'line' | 'square',
  face: Face | null = null,
): TableState {
  const here = state.mats.some((m) => m.kind === kind) ? kind : state.mats.some((m) => m.line) ? null : kind
  return onLine(state, here, Math.max(...numbers), (line) => {
    for (const n of numbers) within(line, n)
    return {
      ...line,
      marks: [...new Set([...line.marks, ...numbers])],
      pens: face
        ? [
            ...line.pens.filter((p) => !numbers.includes(p.number)),
            ...numbers.map((number) => ({ number, face })),
          ]
        : line.pens,
      at: numbers.at(-1) ?? line.at,
    }
  })
}
/** Where one stands before the first hop, without a mark. */
export const standAt = (state: TableState, at: number): TableState =>
  onLine(state, null, at, (line) => ({ ...line, at: within(line, at) }))
/** Marks or shading wiped off: those named, or all of them. */
export const unmark = (state: TableState, numbers: readonly number[] | null): TableState =>
  onLine(state, null, 0, (line) => {
    const missing = numbers?.find((n) => !line.marks.includes(n))
    if (missing !== undefined) throw new TableError('not-there', { case: 'mark', number: missing })
    const stays = (n: number): boolean => numbers !== null && !numbers.includes(n)
    return { ...line, marks: line.marks.filter(stays), pens: line.pens.filter((p) => stays(p.number)) }
  })
export const unhop = (state: TableState): TableState =>
  onLine(state, null, 0, (line) => ({ ...line, hops: [], at: line.marks.at(-1) ?? null }))
