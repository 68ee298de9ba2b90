import type { HouseStyle } from '../../contracts/house-style.ts'
import { numberName, run } from './names.ts'

/**
 * A run as it is said: "five … six, seven" when the held number is said first, "six, seven" when the first number
 * said is the next one; counting back says only where each jump lands. Numbers 0–1000, steps of at least one.
 */
export function spokenRun(from: number, to: number, by: number, style: Pick<HouseStyle, 'countingOn'>, held = false): string {
  const numbers = run(from, to, by).map(numberName)
  if (!held) return numbers.join(', ')
  const rest = numbers.slice(1).join(', ')
  return style.countingOn === 'held' && to >= from ? `${numbers[0]} … ${rest}` : rest
}
/** The count line of a script for counting on from a held number, as the house says it. */
export function countOnLine(from: number, to: number, style: Pick<HouseStyle, 'countingOn'>, touching: boolean): string {
  const end = touching ? ', touching each' : ''
  return style.countingOn === 'held' ? `on from ${from} to ${to}${end}` : `${from + 1} to ${to}${end}`
}
/** Which numbers a count on says aloud under the house's rule. */
export const saidCountingOn = (from: number, to: number, style: Pick<HouseStyle, 'countingOn'>): number[] => run(style.countingOn === 'held' ? from : from + 1, to)
