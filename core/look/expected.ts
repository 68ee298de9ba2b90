import type { Lesson, TaskSpec } from '../contracts/lesson.ts'
import { play } from '../script/table/play.ts'
import type { TableState } from '../script/table/state.ts'

/**
 * The table a photo task asks for, on the mat the lesson used: the number of things asked, parted as the lesson's
 * last example was when its whole is that number. Any other split of it may be just as right.
 */
export function expectedTable(lesson: Pick<Lesson, 'aim' | 'examples'>, task: TaskSpec): TableState {
  const n = task.kind === 'photo' ? task.things : task.kind === 'number' ? task.answer : 0
  const mat = lesson.aim.structure === 'count-on' || n > 10 ? 'row' : 'frame'
  const e = [...lesson.examples].reverse().find((x) => x.op === '+' && x.total === n)
  return play([
    `Lay out a ${mat}`,
    `Put ${Math.min(n, 20)} on the ${mat}`,
    ...(e && e.b > 0 && e.b <= n ? [`Turn over ${e.b}`] : []),
  ])
}
