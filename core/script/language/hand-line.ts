import { act } from '../table/machine.ts'
import { type Action, emptyTable, type MatKind, type TableState } from '../table/state.ts'
import { readHands } from './read.ts'

const laid = (mat: MatKind, over: Partial<Extract<Action, { type: 'lay' }>> = {}): Action => ({
  type: 'lay',
  mat,
  parts: 2,
  from: 0,
  to: 100,
  every: 1,
  items: [],
  name: null,
  ...over,
})
const with9 = (mat: MatKind): Action[] => [
  laid(mat, { parts: mat === 'frame' ? 1 : 2 }),
  {
    type: 'put',
    count: 9,
    face: 'saffron',
    kind: 'counters',
    worth: 1,
    at: { mat, region: 0 },
    apart: false,
  },
]
/** Tables such as a line out of its lesson may have been written for. */
const tables: readonly TableState[] = [
  [],
  with9('row'),
  with9('frame'),
  with9('shelves'),
  with9('jar'),
  with9('parts'),
  with9('rail'),
  [laid('line')],
].map((actions) => actions.reduce(act, emptyTable))

/** Whether a line found outside a script says what hands do: it can be read whole on some table it might be meant for. */
export const isHandLine = (text: string): boolean => tables.some((t) => readHands(text, t).whole)
