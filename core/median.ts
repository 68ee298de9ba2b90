/** The middle of a list of numbers, the mean of the two middle ones when it is even in length; NaN for an empty list. */
export function median(xs: readonly number[]): number {
  const sorted = [...xs].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}
