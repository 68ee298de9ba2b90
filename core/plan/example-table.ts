import type { Example, Structure } from '../contracts/lesson.ts'
import { act } from '../script/table/machine.ts'
import { type Action, emptyTable, type TableState } from '../script/table/state.ts'

/** How an example looks on the table when it is done: what the Plan rows draw. */
export function exampleTable(e: Example, structure: Structure): TableState {
  const on = (mat: 'frame' | 'row' | 'jar') => ({ mat, region: null })
  const put = (count: number, mat: 'frame' | 'row' | 'jar', face: 'saffron' | 'blue' = 'saffron'): Action => ({ type: 'put', count, face, kind: 'counters', target: on(mat) })
  const largest = e.op === '+' ? e.total : e.a
  const mat = largest > 10 ? 'row' : 'frame'
  const actions: Action[] = structure === 'count-on' ? [put(e.a, 'jar'), { type: 'cover', target: on('jar') }, { type: 'hold', number: e.a }, put(e.b, 'row', 'blue')]
    : e.op === '-' ? [put(e.a, mat), { type: 'cross', count: e.b }]
      : [put(e.a, mat), put(e.b, mat, 'blue')]
  return actions.filter((a) => a.type !== 'put' || a.count > 0).reduce(act, emptyTable)
}
