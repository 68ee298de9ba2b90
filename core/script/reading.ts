import { numbersIn, run, tokens } from '../plan/numbers/names.ts'
import { stepIn, targetIn } from './read-actions.ts'
import type { Target } from './table/state.ts'

export interface CountLine {
  numbers: number[]
  /** Numbers written out one by one rather than as "from … to …". */
  listed: boolean
  touching: boolean
  target: Target
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
  // "on the table" says that things are touched, not which mat they are on.
  const base = {
    touching,
    movement,
    target: targetIn(text.replace(/\b(on|of) the table\b|\bin hand\b/g, '')),
  }
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
