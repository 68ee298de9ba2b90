import type { LiveState } from '@awlbox/core/contracts/live'
import { checksOf } from '@awlbox/core/look/checks'
import { type LiveRun, runOf } from '@awlbox/core/live/run'
import type { AskedBefore } from '@awlbox/core/live/tally'
import type { Db } from '../platform/db.ts'
import { earlierReplies, type LiveRow } from './store.ts'

const runs = new Map<string, LiveRun>()
/** The run of a live lesson as its state has it; the same for all who ask while nothing of it changes. */
export function runFor(
  row: Pick<LiveRow, 'id' | 'doc' | 'style' | 'pace' | 'revision'>,
  state: LiveState,
): LiveRun {
  const key = JSON.stringify([row.id, row.revision, state.thrown, state.later, state.said])
  let run = runs.get(key)
  if (!run) {
    run = runOf(row.doc, row.style, row.pace, state)
    if (runs.size > 40) runs.clear()
    runs.set(key, run)
  }
  return run
}

/** Every question of the idea the class was asked before, with how many answered it right. */
export async function askedBefore(
  db: Db,
  row: Pick<LiveRow, 'classId' | 'doc' | 'publicationId'>,
): Promise<AskedBefore[]> {
  const all = new Map<string, AskedBefore>()
  for (const r of await earlierReplies(db, row)) {
    if (r.publicationId === row.publicationId) continue
    for (const { task, check } of checksOf(r.pack.tasks, r.answers, new Map())) {
      if (check.verdict !== 'right' && check.verdict !== 'wrong') continue
      const key = `${r.publicationId} ${task.id}`
      const so = all.get(key) ?? { task, at: r.at.getTime(), right: 0, of: 0 }
      all.set(key, { ...so, right: so.right + (check.verdict === 'right' ? 1 : 0), of: so.of + 1 })
    }
  }
  return [...all.values()]
}
