import { tableHeight } from './paper.ts'

/** The line at the table's foot on which is written. */
export const writingLine = tableHeight - 26
/** What is written at the foot, and the size of its letters: smaller the more there is, the newest alone where there is too much. */
export function writing(written: readonly string[]): { text: string; size: number } {
  const both = written.slice(-2).join('     ')
  return {
    text: both.length > 60 ? written.at(-1)! : both,
    size: both.length > 40 ? 18 : both.length > 26 ? 24 : 36,
  }
}
/** Circle round a number that is held in the head, at the foot's left. */
export const heldCircle = { x: 74, y: tableHeight - 38, r: 27 } as const
