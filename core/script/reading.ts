import { numbersIn, readNumberAt, run, tokens } from '../plan/numbers/names.ts'
import { knownThings } from '../plan/things.ts'
import type { Action, Face, MatKind, Target } from './table/state.ts'

/** Words that name a mat, longest first so that "ten frame" is met before "frame". */
const matWords: readonly (readonly [string, MatKind])[] = [
  ['number line', 'line'], ['ten frame', 'frame'], ['egg box', 'frame'], ['part-whole', 'parts'], ['part whole', 'parts'],
  ['pigeon-holes', 'shelves'], ['pigeon holes', 'shelves'], ['pigeon-hole', 'shelves'], ['frames', 'frame'], ['frame', 'frame'],
  ['shelves', 'shelves'], ['shelf', 'shelves'], ['plates', 'plates'], ['plate', 'plates'], ['jar', 'jar'], ['hive', 'jar'],
  ['row', 'row'], ['line', 'line'], ['street', 'line'], ['open table', 'table'], ['parts', 'parts'], ['part', 'parts'], ['whole', 'parts'],
]
const regionWords: readonly (readonly [RegExp, number])[] = [
  [/\b(whole)\b/, -1], [/\b(top|upper|left|first)\b/, 0], [/\b(bottom|lower|below|right|second)\b/, 1],
  [/\bthird\b/, 2], [/\bfourth\b/, 3], [/\bfifth\b/, 4], [/\bsixth\b/, 5],
]

function targetIn(text: string): Target {
  const mat = matWords.find(([w]) => new RegExp(`\\b${w}\\b`).test(text))?.[1] ?? null
  const numbered = text.match(/\b(?:part|plate|shelf) (\d)\b/)
  const region = numbered ? Number(numbered[1]) - 1 : (regionWords.find(([w]) => w.test(text))?.[1] ?? null)
  return { mat: mat ?? (region === -1 ? 'parts' : null), region }
}
const faceIn = (text: string): Face => (/\bblue\b/.test(text) ? 'blue' : 'saffron')
function kindIn(text: string): string {
  for (const k of knownThings) {
    if (k.properties.includes('counted') && k.words.some((w) => new RegExp(`\\b${w}\\b`).test(text))) return k.name
  }
  return 'counters'
}

/**
 * Reads a `do` line as table-top actions: "put 7 on the frame", "turn over 3 and count", "hop 3 on from 5",
 * several joined by ", then" or ";". Returns null when the words mean no action the table knows.
 */
export function readActions(line: string): Action[] | null {
  const parts = line.toLowerCase().split(/\s*(?:;|,? then |\. )\s*/).filter(Boolean)
  const actions = parts.map(readAction)
  return actions.length && actions.every((a) => a !== null) ? (actions as Action[]) : null
}

function readAction(part: string): Action | null {
  const text = part.trim().replace(/[.!]$/, '')
  const words = tokens(text)
  const numbers = numbersIn(words).map((n) => n.value)
  // "ten frame" holds a number word that counts nothing.
  const counted = numbersIn(tokens(text.replace(/\bten[- ](frame|slot)/g, 'the $1').replace(/\b(part|plate|shelf) \d/g, '$1'))).map((n) => n.value)
  const n = counted[0]
  if (/^(clear|wipe|empty|tidy)\b/.test(text)) return { type: 'clear' }
  if (/^rub (it |them )?out\b/.test(text)) return { type: 'rub out' }
  if (/^(lay|set|get|bring) (out|up)\b|^(lay|draw) (a|an|the|two|three)\b/.test(text)) {
    const target = targetIn(text)
    if (!target.mat) return null
    const many = target.mat === 'frame' ? (/\b(two|2)\b/.test(text) ? 2 : /\b(three|3)\b/.test(text) ? 3 : 1) : (n ?? 2)
    const [from, to] = target.mat === 'line' && counted.length >= 2 ? [counted[0]!, counted[1]!] : target.mat === 'line' && counted.length === 1 ? [0, counted[0]!] : [0, 10]
    return { type: 'lay', mat: target.mat, parts: many, from, to }
  }
  if (/^turn\b/.test(text)) return n === undefined ? null : { type: 'turn', count: n }
  if (/^uncover\b|^lift the (lid|cover)\b|^tip out\b/.test(text)) return { type: 'uncover', target: targetIn(text) }
  if (/^(cover|hide|put the lid on)\b/.test(text)) return { type: 'cover', target: targetIn(text) }
  if (/^un-?cross\b/.test(text)) return { type: 'uncross' }
  if (/^cross\b/.test(text)) return n === undefined ? null : { type: 'cross', count: n }
  if (/^split\b|^share\b/.test(text)) {
    const into = counted.slice(/\binto\b/.test(text) && counted.length > 2 ? 1 : 0)
    return into.length >= 2 ? { type: 'split', parts: into } : null
  }
  if (/^(bring|push|put) (them |it |all |everything )*(back )?together\b|^join\b/.test(text)) return { type: 'join' }
  if (/^(hop|jump)\b/.test(text)) return readHop(words, numbers)
  if (/^(mark|point to|point at|stand on)\b/.test(text)) return n === undefined ? null : { type: 'mark', at: n }
  if (/^(hold|keep|remember)\b/.test(text)) return n === undefined ? null : { type: 'hold', number: n }
  if (/^(rearrange|shake|shuffle|stir)\b/.test(text)) return { type: 'rearrange' }
  if (/^(roll|throw|draw a card|spin)\b/.test(text)) return { type: 'roll' }
  if (/^move\b/.test(text)) {
    if (n === undefined) return null
    const [before, after] = text.split(/\b(?:to|into|onto|over to)\b/)
    const source = before?.match(/\bfrom\b(.*)/)?.[1]
    return { type: 'move', count: n, source: source ? targetIn(source) : { mat: null, region: null }, target: targetIn(after ?? '') }
  }
  if (/^(take|remove|eat|post)\b/.test(text)) {
    if (n === undefined) return null
    const from = text.match(/\b(?:from|off|out of)\b(.*)/)?.[1]
    return { type: 'take', count: n, target: from ? targetIn(from) : { mat: null, region: null } }
  }
  if (/^(put|place|add|drop|set|draw)\b/.test(text)) return n === undefined ? null : { type: 'put', count: n, face: faceIn(text), kind: kindIn(text), target: targetIn(text) }
  return null
}

function readHop(words: readonly string[], numbers: readonly number[]): Action | null {
  const back = words.includes('back')
  const fromAt = words.indexOf('from')
  const from = fromAt >= 0 ? (readNumberAt(words, fromAt + 1)?.value ?? null) : null
  const toAt = words.indexOf('to')
  const to = toAt >= 0 ? (readNumberAt(words, toAt + 1)?.value ?? null) : null
  if (from !== null && to !== null) return { type: 'hop', from, by: to - from }
  const by = numbers.find((_, i) => numbersIn(words)[i]!.from !== fromAt + 1)
  return by === undefined ? null : { type: 'hop', from, by: back ? -by : by }
}

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
  const touching = /\b(touch\w*|point\w*|each|the things|on the table)\b/.test(text)
  const movement = /\b(clap\w*|jump\w*|hop\w*|stamp\w*|nod\w*|stretch\w*|tap\w*)\b/.test(text)
  const by = /\b(twos|2s)\b/.test(text) ? 2 : /\b(fives|5s)\b/.test(text) ? 5 : /\b(tens|10s)\b/.test(text) ? 10 : 1
  const base = { touching, movement, target: targetIn(text) }
  const to = words.indexOf('to')
  if (to > 0) {
    const start = found.filter((f) => f.to <= to).at(-1)
    const end = found.find((f) => f.from > to)
    if (start && end) {
      const on = /\bon from\b/.test(text)
      return { ...base, numbers: run(start.value, end.value, by), listed: false, onFrom: on ? start.value : null }
    }
    if (end && !start) return { ...base, numbers: run(by, end.value, by), listed: false, onFrom: null }
  }
  if (found.length >= 2) return { ...base, numbers: found.map((f) => f.value), listed: true, onFrom: null }
  return null
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
export const pauseWords = (line: string): string => line.replace(/\s*\([^)]*(s|sec|second|seconds|min|minute|minutes)\)\s*$/i, '')
