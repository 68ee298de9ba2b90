/** The lower median; null of none. */
export const middle = (xs: readonly number[]): number | null =>
  xs.length ? [...xs].sort((a, b) => a - b)[Math.floor((xs.length - 1) / 2)]! : null
