import { readHands } from '../language/read.ts'
import { emptyTable, type TableState } from './state.ts'

/**
 * The table after lines written as a script's `do` steps: the way drawings outside a script are made.
 * @throws RangeError for a line that is no action; TableError for one the table refuses.
 */
export function play(lines: readonly string[], from: TableState = emptyTable): TableState {
  return lines.reduce((state, text) => {
    const reading = readHands(text, state)
    if (reading.error) throw reading.error
    if (!reading.whole) throw new RangeError(`No action of the table: ${text}`)
    return reading.after
  }, from)
}
