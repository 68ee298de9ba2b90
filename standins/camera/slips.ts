import type { Slip } from '@awlbox/core/contracts/stand-in'

/** Where a slip is in a planned take: during a beat, or in the silence just before it. */
export interface Label {
  slip: Slip
  where: 'during' | 'before'
  /** What was planned and what was said instead, in words; empty where nothing was. */
  planned: string
  said: string
}
export class CannotSlip extends Error {}
