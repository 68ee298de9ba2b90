import type { HeardCode } from '../../contracts/heard.ts'

export const severities = ['wrong', 'risky', 'tidy', 'info'] as const
/** wrong: the maths or the script is not as it should be. risky: children may be lost. tidy: only the ear is. info: nothing went wrong. */
export type Severity = (typeof severities)[number]
export const severityOf: Record<HeardCode, Severity> = {
  'count-skip': 'wrong',
  'count-repeat': 'wrong',
  'count-order': 'wrong',
  'count-end': 'wrong',
  'total-mismatch': 'wrong',
  'false-sentence': 'wrong',
  'number-changed': 'wrong',
  'clap-mismatch': 'wrong',
  'line-skipped': 'risky',
  'wait-short': 'risky',
  'answer-early': 'risky',
  'false-start': 'tidy',
  filler: 'tidy',
  'dead-air': 'tidy',
  pace: 'tidy',
  'pause-cue': 'info',
  wait: 'info',
  recount: 'info',
}
