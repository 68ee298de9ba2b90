import { readActions } from '../read-actions.ts'
import { act } from './machine.ts'
import { emptyTable, type TableState } from './state.ts'

/**
 * The table after lines written as a script's `do` steps: the way drawings outside a script are made.
 * @throws RangeError for a line that is no action; TableError for one the table refuses.
 */
export function play(lines: readonly string[], from: TableState = emptyTable): TableState {
  return lines.reduce((state, text) => {
    const actions = readActions(text)
    if (!actions) throw new RangeError(`No action of the table: ${text}`)
    return actions.reduce(act, state)
  }, from)
}
