import type { Example, Structure } from '../contracts/lesson.ts'
import { play } from '../script/table/play.ts'
import type { TableState } from '../script/table/state.ts'

/** How an example looks on the table when it is done: what the Plan rows draw. */
export function exampleTable(e: Example, structure: Structure): TableState {
  return play(exampleLines(e, structure))
}

/** The table of an example as script lines, from a bare table to its end. */
export function exampleLines(e: Example, structure: Structure): string[] {
  const put = (n: number, where: string, face = '') => (n > 0 ? [`Put ${n}${face} on the ${where}`] : [])
  const largest = Math.max(e.a, e.b, e.total)
  const frame = largest <= 10 ? ['Lay out a ten frame'] : largest <= 20 ? ['Lay out two ten frames'] : []
  switch (structure) {
    case 'count-on':
      return [`Put ${e.a} in the jar`, 'Cover the jar', `Hold ${e.a}`, ...put(e.b, 'row', ' blue')]
    case 'doubles':
      return ['Lay out a dot card', `Put ${e.a} and ${e.b} on the dot card`]
    case 'halves':
    case 'share':
      return [`Share ${e.a} among ${e.b}`]
    case 'compare':
      return e.a > 10 || e.b > 10
        ? [
            'Lay out a bar with 2 parts',
            `Write ${e.a} in part 1 of the bar`,
            `Write ${e.b} in part 2 of the bar`,
          ]
        : ['Lay out two shelves', ...put(e.a, 'top shelf'), ...put(e.b, 'bottom shelf', ' blue')]
    case 'order':
      return ['Lay out a number line 0 to 100 in tens', `Mark ${e.a} on the line`]
    case 'tens':
      return [
        'Lay out a hundred square',
        `Mark ${e.a}`,
        ...(e.b ? [`Jump ${e.op === '-' ? 'back ' : ''}${e.b / 10} tens from ${e.a}`] : []),
      ]
    case 'round-back': {
      const up = Math.ceil(e.b / 10) * 10
      return [
        `Lay out an empty line ${Math.max(0, Math.floor((e.a - up) / 10) * 10)} to ${Math.ceil((e.a + 1) / 10) * 10}`,
        `Hop back ${up} from ${e.a}`,
        ...(up > e.b ? [`Hop ${up - e.b} on`] : []),
      ]
    }
    case 'teens':
      return ['Lay out two ten frames', `Put 10 on the frame`, ...put(e.b, 'frame', ' blue')]
    case 'missing':
      return ['Lay out a part-whole', `Write ${e.total} in the whole`, ...put(e.a, 'part 1')]
    case 'take-away':
      return e.a > 20
        ? [
            `Lay out an empty line 0 to ${Math.ceil(e.a / 10) * 10}`,
            ...(e.b ? [`Hop back ${e.b} from ${e.a}`] : []),
          ]
        : [...frame, ...put(e.a, 'frame'), ...(e.b ? [`Cross out ${e.b}`] : [])]
    case 'numbers':
      return e.a > 20
        ? [`Put ${Math.floor(e.a / 10)} tens${e.a % 10 ? ` and ${e.a % 10} ones` : ''} on the table`]
        : [...frame, ...put(e.a, 'frame')]
    case 'parts':
    case 'add':
      return largest > 20
        ? [
            `Lay out an empty line 0 to ${Math.ceil(e.total / 10) * 10}`,
            ...(e.b ? [`Hop ${e.b} on from ${e.a}`] : []),
          ]
        : [...frame, ...put(e.a, 'frame'), ...put(e.b, 'frame', ' blue')]
  }
}
