import { numbersIn, run, tokens } from '../plan/numbers/names.ts'
import { readClause } from './language/clauses.ts'
import type { Group } from './language/groups.ts'
import { isNumber } from './language/senses/sense.ts'
import { wordsOf } from './language/words.ts'

export interface CountLine {
  numbers: number[]
  /** Numbers written out one by one rather than as "from … to …". */
  listed: boolean
  touching: boolean
  /** What is counted, where the line says: "the blue ones", "on the top shelf", "the fallen skittles". */
  of: readonly Group[]
  movement: boolean
  /** "on from 5 to 8": 5 is held, not counted. */
  onFrom: number | null
}

/** Reads a `count` line: "1 to 7, touching each", "on from 5 to 8", "back from 10 to 7", "in twos from 2 to 10", "1, 2, 3". */
export function readCount(line: string): CountLine | null {
  const text = line.toLowerCase()
  const words = tokens(text.replace(/\bten[- ](frame|slot)/g, 'the $1'))
  const found = numbersIn(words)
  const movement = /\b(clap\w*|jump\w*|hop\w*|stamp\w*|nod\w*|stretch\w*|tap\w*)\b/.test(text)
  // "a clap for each" is for each number, not for each thing.
  const touching =
    /\b(touch\w*|point\w*|the things|on the table)\b/.test(text) || (!movement && /\beach\b/.test(text))
  const by = stepIn(text) ?? 1
  const base = { touching, movement, of: countedGroups(line) }
  const to = words.indexOf('to')
  if (to > 0) {
    const start = found.filter((f) => f.to <= to).at(-1)
    const end = found.find((f) => f.from > to)
    if (start && end) {
      const on = /\bon from\b/.test(text)
      return {
        ...base,
        numbers: run(start.value, end.value, by),
        listed: false,
        onFrom: on ? start.value : null,
      }
    }
    if (end && !start) return { ...base, numbers: run(by, end.value, by), listed: false, onFrom: null }
  }
  if (found.length >= 2) return { ...base, numbers: found.map((f) => f.value), listed: true, onFrom: null }
  return null
}

const stepWords: readonly (readonly [RegExp, number])[] = [
  [/\b(twos|2s)\b/, 2],
  [/\b(fives|5s)\b/, 5],
  [/\b(tens|10s)\b/, 10],
  [/\b(hundreds|100s)\b/, 100],
]
/** "in twos", "in fives", "in tens", "in hundreds". */
const stepIn = (text: string): number | null => stepWords.find(([said]) => said.test(text))?.[1] ?? null
/** The groups a count names besides its numbers; "the table" and "the things" are everything. */
function countedGroups(line: string): Group[] {
  return readClause(wordsOf(line))
    .parts.map((p) => p.group)
    .filter(
      (g) =>
        !isNumber(g) &&
        g.mat !== 'table' &&
        g.pairs === false &&
        g.worth === null &&
        (g.mat !== null || g.face !== null || g.state !== null || g.place !== null || g.noun !== null),
    )
}

/** Claps, taps or knocks of a `sound` line, and whether they are to be heard without being seen; null when it is another sound. */
export function readClaps(line: string): { count: number; unseen: boolean } | null {
  const text = line.toLowerCase()
  if (!/\b(clap|tap|knock|drum|beat|stamp|ring|bell)/.test(text)) return null
  const n =
    numbersIn(tokens(text))[0]?.value ?? (/\bonce\b/.test(text) ? 1 : /\btwice\b/.test(text) ? 2 : null)
  return n === null || n > 30
    ? null
    : { count: n, unseen: /\b(unseen|behind|hidden|under|eyes (shut|closed))\b/.test(text) }
}

/** Seconds in a `wait` line: "5 s", "five seconds", "1 minute"; null when none is given. */
export function readSeconds(line: string): number | null {
  const words = tokens(line)
  const found = numbersIn(words)[0]
  if (!found) return null
  const unit = words[found.to]
  if (unit && /^min/.test(unit)) return found.value * 60
  return found.value
}

/** Home seconds at the end of a `pause` line, "(90 s)" or "(2 min)"; null when none is given. */
export function readPauseSeconds(line: string): number | null {
  const inside = line.match(/\(([^)]*)\)\s*$/)?.[1]
  return inside && /\d|minute|second/.test(inside) ? readSeconds(inside) : null
}
export const pauseWords = (line: string): string =>
  line.replace(/\s*\([^)]*(s|sec|second|seconds|min|minute|minutes)\)\s*$/i, '')
