/** The nightly backup as it stands. Times as ISO moments. */
export interface Nightly {
  on: boolean
  /** When it was switched on, or a backup last went well. */
  since: string | null
  lastGood: string | null
  lastTried: string | null
  /** Asked for by hand, and not made yet. */
  asked: boolean
}
const hour = 3_600_000
const hoursSince = (moment: string | null, now: Date): number =>
  moment === null ? Infinity : (now.getTime() - Date.parse(moment)) / hour

/** Hours of the night in which nobody films; a machine that sleeps then is caught up with in the day. */
const night = { from: 1, to: 5 } as const
/** Hours: a backup is due again after the first by night, after the second at any time; one that failed is tried again after the third. */
const due = { byNight: 16, anyTime: 30, again: 1 } as const
/** The hour of a moment by the clock of a time zone, 0–23. */
export const hourIn = (timeZone: string, now: Date): number =>
  Number(new Intl.DateTimeFormat('en-GB', { hour: '2-digit', hourCycle: 'h23', timeZone }).format(now))
/** Whether a backup is to be made now. `localHour`: the hour of the setting's clock. */
export function isDue(n: Nightly, now: Date, localHour: number): boolean {
  if (n.asked) return true
  if (!n.on || hoursSince(n.lastTried, now) < due.again) return false
  const old = hoursSince(n.lastGood, now)
  return old > due.anyTime || (old > due.byNight && localHour >= night.from && localHour < night.to)
}
/** Days after which a backup that did not come is told on the Shelf. */
const lateAfter = 3
/** Whole days since the last good backup, where that is too long; null while all is well, or nobody wants one. */
export function lateBy(n: Pick<Nightly, 'on' | 'since' | 'lastGood'>, now: Date): number | null {
  if (!n.on) return null
  const hours = hoursSince(n.lastGood ?? n.since, now)
  return hours > lateAfter * 24 ? Math.floor(hours / 24) : null
}
