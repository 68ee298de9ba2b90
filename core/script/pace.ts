import { median } from '../median.ts'

/** Takes needed before a teacher's own rate replaces the usual one for the age. */
export const takesNeeded = 3
/** Own rate in words a minute: the median of the paces heard, or null while there are fewer than three. */
export function ownPace(paces: readonly number[]): number | null {
  return paces.length < takesNeeded ? null : Math.round(median(paces))
}
