import type { PackTask } from '../contracts/pack.ts'
import type { PhotoReading } from '../contracts/reading.ts'
import type { Answer } from '../contracts/reply.ts'
import { checkAnswer } from './answers.ts'
import type { Check } from './check.ts'
import { onSheet } from './on-sheet.ts'

export interface Checked {
  task: PackTask
  answer: Answer | undefined
  check: Check
}
/** What was seen in the photos of a reply, by their id. */
export type Readings = ReadonlyMap<string, PhotoReading | null>

/**
 * What every task of a pack comes to by rule, in the pack's order; one left open is there too. Of a photo of the
 * reply sheet each task is held against its own box.
 */
export const checksOf = (
  tasks: readonly PackTask[],
  answers: readonly Answer[],
  readings: Readings,
): Checked[] =>
  tasks.map((task, place) => {
    const answer = answers.find((a) => a.taskId === task.id)
    return { task, answer, check: checkAnswer(task, answer, readingFor(answer, readings, place)) }
  })
/** What was seen for one answer: of a reply sheet, in the box of its place among the pack's tasks. */
export function readingFor(
  answer: Answer | undefined,
  readings: Readings,
  place: number,
): PhotoReading | null {
  const reading = answer?.photoId ? (readings.get(answer.photoId) ?? null) : null
  return reading && onSheet(reading, place)
}
