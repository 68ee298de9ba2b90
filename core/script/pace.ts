/** Takes needed before a teacher's own rate replaces the usual one for the age. */
export const takesNeeded = 3
/** Own rate in words a minute: the median of the paces heard, or null while there are fewer than three. */
export function ownPace(paces: readonly number[]): number | null {
  if (paces.length < takesNeeded) return null
  const sorted = [...paces].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return Math.round(sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2)
}
