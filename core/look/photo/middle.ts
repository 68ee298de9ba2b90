import { median } from '../../median.ts'

/** The middle of a list of measures; null of none. */
export const middle = (xs: readonly number[]): number | null => (xs.length ? median(xs) : null)
