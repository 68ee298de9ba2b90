import type { HomeLive } from '@awlbox/core/contracts/api/live'
import type { Home } from '../platform/actor.ts'
import type { Db } from '../platform/db.ts'
import type { Given } from '../platform/route.ts'
import { type LiveRow, livesFor } from './store.ts'

/** Milliseconds before its hour at which a live lesson opens to homes. */
const opensBefore = 5 * 60_000
/** A live lesson as a home knows it. */
const asSeen = (
  row: Awaited<ReturnType<typeof livesFor>>[number] & { rehearsal?: boolean },
  now: number,
): Given<HomeLive> => {
  const opensIn =
    row.rehearsal || row.phase !== 'waiting' ? 0 : Math.max(0, +row.startsAt - opensBefore - now)
  return {
    id: row.id,
    title: row.title,
    className: row.className,
    startsAt: row.startsAt,
    minutes: row.minutes,
    open: opensIn === 0,
    opensIn,
    phase: row.phase,
  }
}
/** The same of a whole row. */
export const asSeenRow = (row: LiveRow, now: number): Given<HomeLive> =>
  asSeen({ ...row, title: row.doc.title, phase: row.state.phase }, now)
/** Live lessons of a home that are on or to come. */
export const livesOfHome = async (db: Db, home: Home): Promise<Given<HomeLive>[]> => {
  const now = Date.now()
  return (await livesFor(db, home.householdId)).map((row) => asSeen(row, now))
}
