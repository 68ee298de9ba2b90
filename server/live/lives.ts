import type { HomeLive } from '@awlbox/core/contracts/api/live'
import type { Home } from '../platform/actor.ts'
import type { Db } from '../platform/db.ts'
import type { Given } from '../platform/route.ts'
import { type LiveRow, livesFor } from './store.ts'

/** Milliseconds before its hour at which a live lesson opens to homes. */
const opensBefore = 5 * 60_000
/** A live lesson as a home knows it. */
export const asSeen = (
  row: Pick<LiveRow, 'id' | 'doc' | 'className' | 'startsAt' | 'minutes' | 'state'> & { rehearsal?: boolean },
  now: number,
): Given<HomeLive> => {
  const opensIn =
    row.rehearsal || row.state.phase !== 'waiting' ? 0 : Math.max(0, +row.startsAt - opensBefore - now)
  return {
    id: row.id,
    title: row.doc.title,
    className: row.className,
    startsAt: row.startsAt,
    minutes: row.minutes,
    open: opensIn === 0,
    opensIn,
    phase: row.state.phase,
  }
}
/** Live lessons of a home that are on or to come. */
export const livesOfHome = async (db: Db, home: Home): Promise<Given<HomeLive>[]> => {
  const now = Date.now()
  return (await livesFor(db, home.householdId)).map((row) => asSeen(row, now))
}
