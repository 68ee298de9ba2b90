import type { Lesson, TaskSpec } from '../contracts/lesson.ts'
import { act } from '../script/table/machine.ts'
import { emptyTable, type MatKind, type TableState } from '../script/table/state.ts'

/**
 * The table a photo task asks for, on the mat the lesson used: the number of things asked, parted as the lesson's
 * last example was when its whole is that number. Any other split of it may be just as right.
 */
export function expectedTable(lesson: Pick<Lesson, 'aim' | 'examples'>, task: TaskSpec): TableState {
  const n = task.kind === 'photo' ? task.things : task.kind === 'number' ? task.answer : 0
  const mat: MatKind = lesson.aim.structure === 'count-on' ? 'row' : n > 10 ? 'row' : 'frame'
  const target = { mat, region: null }
  const e = [...lesson.examples].reverse().find((x) => x.op === '+' && x.total === n)
  const put = act(act(emptyTable, { type: 'lay', mat, parts: 1, from: 0, to: 10 }), { type: 'put', count: Math.min(n, 20), face: 'saffron', kind: 'counters', target })
  return e && e.b > 0 && e.b <= n ? act(put, { type: 'turn', count: e.b }) : put
}
