import type { PhotoReading } from '../../contracts/reading.ts'
import type { FirstFrame } from '../../contracts/take.ts'
import { type TableState, thingsOn } from '../../script/table/state.ts'

/**
 * Holds the first picture of a clip against the planned table. Counts things, and the two faces where counters have
 * them: a table reset wrongly between two examples is found before the film is cut. Never certain: the picture is only read.
 */
export function compareFirstFrame(
  reading: Pick<PhotoReading, 'count' | 'low' | 'high' | 'groups' | 'warnings'>,
  table: TableState,
): FirstFrame {
  const shown = thingsOn(table).filter((t) => !t.hidden)
  const countable = table.mats.every(
    (m) =>
      m.line === null &&
      ![
        'square',
        'hands',
        'scene',
        'sound',
        'skittles',
        'dots',
        'pairs',
        'cards',
        'dice',
        'spinner',
        'bowl',
        'coins',
      ].includes(m.kind) &&
      !m.covered,
  )
  const base = { planned: shown.length, seen: reading.count, low: reading.low, high: reading.high }
  const bare = table.mats.length === 0 && table.written.length === 0 && table.held === null
  if (!countable || (shown.length === 0 && (reading.count === 0 || !bare)))
    return { ...base, agrees: null, message: '' }
  if (shown.length === 0)
    return {
      ...base,
      agrees: reading.low === 0 ? null : false,
      message: `The table should be bare as it begins; ${things(reading.count)} can be seen.`,
    }
  const blue = shown.filter((t) => t.face === 'blue').length
  const seenOf = (...colours: string[]): number =>
    reading.groups.filter((g) => colours.includes(g.colour)).reduce((n, g) => n + g.count, 0)
  // Saffron is what a photo's reader calls yellow, or orange under a warm lamp.
  const [seenBlue, seenSaffron] = [seenOf('blue'), seenOf('yellow', 'orange')]
  // Where a third colour lies, two say nothing of it.
  const colours =
    seenBlue + seenSaffron === reading.count &&
    reading.count === shown.length &&
    shown.every((t) => t.face !== 'green')
  if (shown.length >= reading.low && shown.length <= reading.high) {
    if (colours && seenBlue !== blue)
      return {
        ...base,
        agrees: false,
        message: `As it begins, ${shown.length - blue} saffron and ${blue} blue are planned; ${seenSaffron} and ${seenBlue} can be seen.`,
      }
    return {
      ...base,
      agrees: true,
      message: `It begins with ${things(shown.length)} on the table, as planned.`,
    }
  }
  return {
    ...base,
    agrees: false,
    message: `It should begin with ${things(shown.length)} on the table; ${reading.low === reading.high ? things(reading.count) : `${reading.low} to ${reading.high}`} can be seen. Was it reset?`,
  }
}
const things = (n: number): string => (n === 1 ? 'one thing' : `${n} things`)
