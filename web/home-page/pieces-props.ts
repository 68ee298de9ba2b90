import type { HomeTask } from '@awlbox/core/contracts/api/home'

/** A task answered piece by piece, and what was given so far. */
export interface PiecesProps {
  task: HomeTask
  given: string[] | undefined
  locked: boolean
  onGive: (given: string[]) => void
}
