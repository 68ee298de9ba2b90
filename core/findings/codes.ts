import type { HeardCode } from '../contracts/heard.ts'
import type { FilmCheck, FilmCode } from '../contracts/render.ts'
import type { Severity } from '../contracts/finding.ts'

/** How grave each finding of a script can be. Codes do not change their meaning. */
export const scriptCodes = {
  'false-sentence': ['wrong'],
  'sentence-table': ['wrong'],
  'left-larger': ['wrong'],
  'share-unfair': ['risky'],
  'all-numbers': ['risky'],
  'count-skip': ['wrong'],
  'count-repeat': ['wrong'],
  'count-order': ['wrong'],
  'count-start': ['wrong'],
  'count-end': ['wrong'],
  'count-nothing': ['wrong'],
  'count-covered': ['wrong'],
  'claim-table': ['wrong'],
  'answer-wrong': ['wrong'],
  'answer-told': ['wrong'],
  'story-other': ['wrong'],
  'ways-wrong': ['wrong'],
  'device-never': ['wrong'],
  'mark-other': ['wrong'],
  'turned-same': ['wrong'],
  'number-unaccounted': ['risky'],
  'table-not-there': ['wrong'],
  'table-no-room': ['wrong'],
  'table-not-conserved': ['wrong'],
  'table-no-mat': ['wrong'],
  'table-off-the-line': ['wrong'],
  'table-no-card': ['wrong'],
  'unread-line': ['tidy'],
  'held-unsaid': ['risky'],
  'hidden-unsaid': ['risky'],
  'never-uncovered': ['risky'],
  'no-wait': ['risky'],
  'short-wait': ['risky'],
  'wait-alone': ['tidy'],
  'answer-early': ['wrong'],
  'answer-before-wait': ['wrong'],
  'answer-given': ['risky'],
  'pause-empty': ['risky'],
  'table-not-cleared': ['wrong'],
  'not-listed': ['wrong'],
  'too-few-listed': ['wrong'],
  'listed-unused': ['wrong', 'tidy'],
  'asked-late': ['wrong', 'risky'],
  'example-repeat': ['tidy'],
  'example-range': ['wrong'],
  'example-aim': ['risky'],
  'too-many-alike': ['tidy'],
  'zero-later': ['tidy'],
  'turn-round-twice': ['tidy'],
  'device-example': ['wrong'],
  'device-limits': ['risky'],
  'ways-unsaid': ['risky'],
  'challenge-easy': ['risky'],
  'task-no-answer': ['risky'],
  'task-answer': ['wrong'],
  'choice-answer': ['wrong'],
  'photo-faces': ['risky'],
  'no-hand-over': ['tidy'],
  'no-hand-back': ['tidy'],
  'briefing-answer': ['risky'],
  'film-long': ['risky'],
  'segment-long': ['tidy'],
  'talk-long': ['risky'],
  'house-word': ['tidy'],
  'fewer-less': ['tidy'],
  'pairs-name': ['tidy'],
  'symbol-stage': ['tidy'],
  'unknown-left': ['tidy'],
  'counting-on': ['tidy'],
  'word-early': ['risky'],
  'praise-unseen': ['risky'],
  rivalry: ['risky'],
  fingers: ['risky'],
  'helper-word': ['tidy'],
  'caution-height': ['risky'],
  'caution-never': ['risky'],
  'caution-breakable': ['risky'],
  'caution-food': ['risky'],
  'caution-sharp': ['risky'],
  'caution-space': ['risky'],
  'caution-hot': ['risky'],
  'caution-flash': ['risky'],
  expires: ['tidy'],
  identifies: ['risky'],
} as const satisfies Record<string, readonly Severity[]>
export type ScriptCode = keyof typeof scriptCodes

/** How grave each finding of a take is. */
export const takeCodes: Record<HeardCode, Severity> = {
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

/** How grave each finding of a cut can be, beside what is heard again in what is left of its takes. */
export const cutCodes = {
  expires: ['risky'],
  identifies: ['wrong'],
  'caption-number': ['wrong', 'risky'],
  'caption-quick': ['risky'],
  'caption-missing': ['risky'],
  'caption-covers': ['risky'],
  'overlay-counted': ['wrong'],
  'overlay-edge': ['risky'],
  'overlay-captions': ['risky'],
  'overlay-small': ['risky'],
  'card-small': ['risky'],
  'card-cut-off': ['wrong'],
  'person-seen': ['wrong'],
  'film-long': ['risky'],
  'segment-long': ['risky'],
  'sound-clipped': ['risky'],
} as const satisfies Record<string, readonly Severity[]>
export type CutCode = keyof typeof cutCodes

/** How grave each finding of a finished film can be. */
export const filmCodes: Record<FilmCode, FilmCheck['severity']> = {
  flash: 'wrong',
  black: 'risky',
  frozen: 'risky',
  loud: 'risky',
  sync: 'wrong',
  size: 'risky',
}

/** Whoever reads, and what it can find. */
export interface Codes {
  script: ScriptCode
  take: HeardCode
  cut: CutCode | HeardCode
  film: FilmCode
}
export type Reader = keyof Codes
