import type { PostRules } from '../contracts/post.ts'

const minute = 60_000
/** Hours and day by a clock on the wall somewhere. */
export interface WallClock {
  /** 0–23. */
  hour: number
  minute: number
  /** "2026-11-28". */
  day: string
}
export const wallClock = (at: Date, timeZone: string): WallClock => {
  const parts = Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
      .formatToParts(at)
      .map((p) => [p.type, p.value]),
  ) as Record<string, string>
  return {
    hour: Number(parts.hour),
    minute: Number(parts.minute),
    day: `${parts.year}-${parts.month}-${parts.day}`,
  }
}
/** Whether no letter goes at an hour; none is quiet where both ends are the same. */
export function isQuiet(hour: number, { quietFrom, quietTo }: PostRules): boolean {
  if (quietFrom === quietTo) return false
  return quietFrom < quietTo ? hour >= quietFrom && hour < quietTo : hour >= quietFrom || hour < quietTo
}

/**
 * The first moment from `from` on at which a home may be written to: not in quiet hours, and on a day on which it has
 * had no letter. `had`: days, by the setting's clock, on which one went or is to go. Looked for in steps of ten minutes, so
 * that a clock that is put forward or back in between is met as it stands.
 */
export function mayGoAt(from: Date, rules: PostRules, timeZone: string, had: ReadonlySet<string>): Date {
  let at = from
  // Two weeks of full days is more than anybody writes.
  for (let tries = 0; tries < 14 * 24 * 6; tries++) {
    const { hour, day } = wallClock(at, timeZone)
    if (!isQuiet(hour, rules) && !had.has(day)) return at
    at = new Date((Math.floor(at.getTime() / (10 * minute)) + 1) * 10 * minute)
  }
  return at
}

/** Milliseconds before the n-th new try of a letter no server took (from 1); null after the last. */
export const waitForTry = (n: number): number | null =>
  [5, 30, 120, 600].map((m) => m * minute)[n - 1] ?? null
