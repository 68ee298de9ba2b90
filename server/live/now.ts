import type { LiveState } from '@awlbox/core/contracts/live'
import { type LiveRun, runKey, runOf } from '@awlbox/core/live/run'
import { askedBefore, type AskedBefore } from '@awlbox/core/live/tally'
import type { Db } from '../platform/db.ts'
import { earlierReplies, type LiveRow } from './store.ts'

const runs = new Map<string, LiveRun>()
/** The run of a live lesson as its state has it; the same for all who ask while nothing of it changes. */
export function runFor(
  row: Pick<LiveRow, 'id' | 'doc' | 'style' | 'pace' | 'revision'>,
  state: LiveState,
): LiveRun {
  const key = `${row.id} ${row.revision} ${runKey(state)}`
  let run = runs.get(key)
  if (!run) {
    run = runOf(row.doc, row.style, row.pace, state)
    if (runs.size > 40) runs.clear()
    runs.set(key, run)
  }
  return run
}
/** What the class was asked of the idea before, but for what this lesson itself left. */
export const earlierFor = async (
  db: Db,
  row: Pick<LiveRow, 'classId' | 'doc' | 'publicationId'>,
): Promise<AskedBefore[]> =>
  askedBefore((await earlierReplies(db, row)).filter((r) => r.publicationId !== row.publicationId))
