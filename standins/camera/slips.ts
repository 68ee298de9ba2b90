import type { Slip } from '@awlbox/core/contracts/stand-in'

/** The codes hearing may give for each slip; the first is the best one. */
const codesFor: Record<Slip, readonly string[]> = {
  'leave out a number': ['count-skip'],
  'say a number twice': ['count-repeat'],
  'swap two numbers': ['count-order'],
  'stop a count early': ['count-end', 'count-skip'],
  'count one too far': ['count-end', 'count-order'],
  'wrong total': ['total-mismatch', 'number-changed', 'false-sentence'],
  'wrong sentence': ['false-sentence', 'number-changed', 'total-mismatch'],
  'change a number': ['number-changed', 'false-sentence', 'total-mismatch'],
  'skip a line': ['line-skipped'],
  'false start': ['false-start'],
  'start a count again': ['false-start'],
  'say oops': ['filler'],
  'dead air': ['dead-air'],
  'answer too soon': ['answer-early', 'wait-short'],
  'cut a wait short': ['wait-short', 'answer-early'],
  'wrong die': ['number-changed', 'false-sentence', 'total-mismatch'],
  'wrong claps': ['clap-mismatch'],
}

/** Where a slip is in a planned take: during a beat, or in the silence just before it. */
export interface Label {
  slip: Slip
  where: 'during' | 'before'
  /** What was planned and what was said instead, in words; empty where nothing was. */
  planned: string
  said: string
}
export class CannotSlip extends Error {}
