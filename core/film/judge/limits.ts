import type { HeardCode } from '../../contracts/heard.ts'

/** Limits of hearing, in seconds unless said otherwise, each with its reason. */
export const hearing = {
  /** Silence beyond what is written before it is called dead air: a breath and a look at the notes. */
  deadAir: 3,
  /** Within one line nothing is awaited: two seconds is a lost thread. */
  deadAirInLine: 2.2,
  /** Silence left at each side of a drop so that speech is not clipped. */
  margin: 0.25,
  /** A wait is cut short under three seconds (Rowe 1974) or under three fifths of what was written; below `early` the answer came with the question. */
  waitShare: 0.6,
  shortestWait: 3,
  early: 1,
  /** Below this share of its words heard, a line counts as skipped. */
  skippedShare: 0.34,
  /** A line expected to have been said to more than this share, over all paths through the take, is not left out for certain. */
  maybeSaid: 0.1,
  /** Seconds a short word takes, said quickly. */
  shortestWord: 0.18,
  /** Seconds of the longest take that is heard: a whole evening's recording is first cut into clips. */
  longestTake: 5400,
  /** Between two numbers of one count nobody waits longer; afterwards it is a new count, or talk. */
  countGap: 4,
  /** A silence from which on a wait after a question is told. */
  waitTold: 2.5,
  /** Under this confidence a word may be something else altogether; from `sure` on it is what it says; under `faint` it says nothing; a number that came out as another is certain from `plainly` on. Shares, 0–1. */
  unsure: 0.3,
  sure: 0.75,
  faint: 0.05,
  plainly: 0.6,
  /** Words a minute, while speaking, beyond which something is wrong: inside one good film it runs from 60 (counting) to over 200 (asides). */
  slowest: 45,
  fastest: 260,
} as const

/** Codes that rest on which words were recognised, not on when. */
export const ofWords: ReadonlySet<HeardCode> = new Set([
  'count-skip',
  'count-repeat',
  'count-order',
  'count-end',
  'total-mismatch',
  'false-sentence',
  'number-changed',
  'line-skipped',
  'false-start',
])

/** Words that go with a slip: what follows them is a second try. */
export const slipTalk: ReadonlySet<string> = new Set([
  'oops',
  'oopsie',
  'whoops',
  'oh',
  'sorry',
  'wait',
  'um',
  'er',
  'erm',
  'uh',
])
export const round = (n: number): number => Math.round(n * 10) / 10
