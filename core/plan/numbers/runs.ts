import type { HouseStyle } from '../../contracts/house-style.ts'
import { numberName, run } from './names.ts'

/**
 * A run as it is said: "five … six, seven" when the held number is said first, "six, seven" when the first number
 * said is the next one; counting back says only where each jump lands. Numbers 0–1000, steps of at least one.
 */
export function spokenRun(
  from: number,
  to: number,
  by: number,
  style: Pick<HouseStyle, 'countingOn'>,
  held = false,
): string {
  const numbers = run(from, to, by).map(numberName)
  if (!held) return numbers.join(', ')
  const rest = numbers.slice(1).join(', ')
  return style.countingOn === 'held' && to >= from ? `${numbers[0]} … ${rest}` : rest
}
/** The count line of a script for counting on from a held number. Which number is said first is the house's, when it is spoken. */
export const countOnLine = (from: number, to: number, touching: boolean): string =>
  `on from ${from} to ${to}${touching ? ', touching each' : ''}`
