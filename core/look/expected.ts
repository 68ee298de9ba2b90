import type { Lesson, PhotoLaid } from '../contracts/lesson.ts'
import type { PackTask } from '../contracts/pack.ts'
import { play } from '../script/table/play.ts'
import { TableError, type TableState } from '../script/table/state.ts'
import { laidOf } from './laid.ts'

type Asked = Pick<PackTask, 'prompt' | 'spec'>
/** Things a mat of the table holds. */
const most = 20
const ordinals = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth']

/**
 * The table a photo task asks for: laid as its words or its writer have it; else on the mat the lesson used, parted as
 * the lesson's last example was when its whole is that number. Any other split of it may be just as right.
 */
export function expectedTable(lesson: Pick<Lesson, 'aim' | 'examples'>, { prompt, spec }: Asked): TableState {
  const n = spec.kind === 'photo' ? spec.things : spec.kind === 'number' ? spec.answer : 0
  const laid = laidOf({ prompt, spec })
  const lines = laid && laidLines(laid, n, prompt)
  const asAsked = lines && played(lines)
  if (asAsked) return asAsked
  const mat = lesson.aim.structure === 'count-on' || n > 10 ? 'row' : 'frame'
  const e = [...lesson.examples].reverse().find((x) => x.op === '+' && x.total === n)
  return play([
    `Lay out a ${mat}`,
    `Put ${Math.min(n, most)} on the ${mat}`,
    ...(e && e.b > 0 && e.b <= n ? [`Turn over ${e.b}`] : []),
  ])
}
/** The table so laid; null where it refuses: more crossed out than lie there, a mark beside the line. */
function played(lines: readonly string[]): TableState | null {
  try {
    return play(lines)
  } catch (error) {
    if (error instanceof RangeError || error instanceof TableError) return null
    throw error
  }
}
/** Lines that lay the table as is asked; null where it has no mat that shows it. */
function laidLines(laid: PhotoLaid, n: number, prompt: string): string[] | null {
  if (n > most && laid.as !== 'line') return null
  switch (laid.as) {
    case 'frame':
      return n > 10
        ? ['Lay out two ten frames', `Put ${n} on the frames`]
        : ['Lay out a frame', `Put ${n} on the frame`]
    case 'shares': {
      const each = Math.floor(n / laid.plates)
      return [
        ...placed(
          'plate',
          Array.from({ length: laid.plates }, () => each),
        ),
        ...spare(n % laid.plates),
      ]
    }
    case 'parts':
      return partLines(laid, n, prompt)
    case 'gone':
      return laid.go <= n ? placed('ring', [n - laid.go, laid.go]) : null
    case 'row':
      return ['Lay out a row', `Put ${n} on the row`]
    case 'towers':
      return laid.heights.length === 1 ? [`Build a tower of ${n}`] : null
    case 'sides':
      return [
        'Lay out a rail',
        `Put ${n} on the rail`,
        ...(laid.one ? [`Slide ${laid.one} on the rail`] : []),
      ]
    case 'crossed':
      return [
        'Lay out a row',
        `Put ${n} on the row`,
        ...(laid.crossed ? [`Cross out ${laid.crossed} on the row`] : []),
      ]
    case 'line':
      return [
        `Lay out an empty number line from ${laid.from} to ${laid.to}`,
        `Mark ${laid.at.join(', ')} on the line`,
      ]
    default:
      return null
  }
}
/** Parts in rows, rings, on plates or shelves where the words name them, each as many as was asked, or any split of it. */
function partLines(laid: Extract<PhotoLaid, { as: 'parts' }>, n: number, prompt: string): string[] | null {
  const first = Math.ceil(n / laid.parts)
  const any = Array.from({ length: laid.parts }, (_, i) =>
    i < laid.parts - 1 ? Math.min(first, Math.max(0, n - i * first)) : Math.max(0, n - i * first),
  )
  const split = laid.split ?? any
  const place = /\b(row|ring|plate|shelf|shelves)s?\b/i.exec(prompt)?.[1]?.toLowerCase()
  if (split.length === 2 && place && /row|shel/.test(place))
    return ['Lay out two shelves', `Put ${split[0]} on the top shelf`, `Put ${split[1]} on the bottom shelf`]
  if (place === 'plate' || place === 'ring') return placed(place, split)
  return laid.split || laid.parts > 2 ? placed('ring', split) : null
}
const placed = (place: string, sizes: readonly number[]): string[] => [
  `Lay out ${sizes.length} ${place}s`,
  ...sizes.flatMap((k, i) => (k ? [`Put ${k} on the ${ordinals[i]} ${place}`] : [])),
]
const spare = (n: number): string[] => (n ? [`Put ${n} on the table`] : [])
