import type { HeardWord } from '../../contracts/heard.ts'
import type { SpokenLine } from './spoken.ts'
import { substitution } from '../ear/sounds.ts'

/**
 * Costs of the alignment. `gap` is paid once a run of extra or missing words, so that a line left out is left out
 * whole. `back` is going back to the start of a line already begun; each line further back costs `backLine` more.
 * Two words said again are worth a jump back, a single echoed word is not. `pause` and `longPause` are for going on within a line after a
 * silence of `paused` and `longPaused` seconds: what follows a pause is more likely another line. Counts pause between their numbers.
 */
export const cost = {
  gap: 0.12,
  insert: 0.72,
  delete: 0.75,
  back: 1.3,
  backLine: 0.25,
  pause: 0.7,
  longPause: 2.2,
  /** Each end of what was left out that lies within a line: of ways alike, lines are left out whole. */
  broken: 0.02,
} as const
const [paused, longPaused] = [2, 4]
/** Lines one can go back over at once: nobody begins again further back without starting the take anew. */
export const linesBack = 3

export type Followable = Pick<SpokenLine, 'words'> & Partial<Pick<SpokenLine, 'numbers'>>

/** One time a line was said, or begun. */
export interface Attempt {
  line: number
  /** For each word of the line the index of the heard word, or null. */
  words: (number | null)[]
}
export interface Followed {
  /** For each heard word the line it was matched in, or null where it is extra. */
  lineOf: (number | null)[]
  /** Attempts in the order they were made. */
  attempts: Attempt[]
  /** For each line the attempt that counts, or null: the last that is nearly as whole as the best. */
  final: (Attempt | null)[]
}

/**
 * Follows a speaker through the script: forward mostly, leaving words out, putting words in, and going back to the
 * start of a line to say it again. The path of least cost, found by dynamic programming over heard × expected words.
 * Time and memory grow with their product: 2,000 heard against 2,000 expected takes about a tenth of a second.
 */
export function follow(lines: readonly Followable[], heard: readonly HeardWord[]): Followed {
  const expected = lines.flatMap((l, line) => l.words.map((word) => ({ word, line })))
  const path = leastCost(lines, expected, heard)
  const attempts: Attempt[] = []
  const open = new Map<number, Attempt>()
  let before = -1
  path.forEach((at, k) => {
    if (at === null) return
    const { line } = expected[at]!
    if (at <= before) {
      // Going back begins new attempts at this line and those after it.
      for (const l of [...open.keys()]) if (l >= line) open.delete(l)
    }
    let attempt = open.get(line)
    if (!attempt) {
      attempt = { line, words: lines[line]!.words.map(() => null) }
      open.set(line, attempt)
      attempts.push(attempt)
    }
    attempt.words[at - startOf(lines, line)] = k
    before = at
  })
  return {
    lineOf: path.map((at) => (at === null ? null : expected[at]!.line)),
    attempts,
    final: lines.map((_, i) => finalOf(attempts.filter((a) => a.line === i))),
  }
}

export const coverage = (a: Attempt): number =>
  a.words.filter((w) => w !== null).length / Math.max(1, a.words.length)
/** The last attempt counts, unless an earlier one was clearly more of the line: then the last was an echo of part of it. */
function finalOf(mine: readonly Attempt[]): Attempt | null {
  const best = Math.max(...mine.map(coverage), 0)
  return mine.findLast((a) => coverage(a) >= best * 0.75) ?? null
}

const starts = new WeakMap<object, number[]>()
export function startOf(lines: readonly Followable[], line: number): number {
  let known = starts.get(lines)
  if (!known) {
    let at = 0
    known = lines.map((l) => (at += l.words.length) - l.words.length)
    starts.set(lines, known)
  }
  return known[line]!
}

/** For each heard word the index of the expected word it is matched to, or null. */
function leastCost(
  lines: readonly Followable[],
  expected: readonly { word: string; line: number }[],
  heard: readonly HeardWord[],
): (number | null)[] {
  const [n, m] = [expected.length, heard.length]
  if (!n || !m) return heard.map(() => null)
  const differ = differences(expected, heard)
  const counts = lines.map((l) => (l.numbers ?? null) !== null)
  // Position p is "p words of the script are behind us"; a matched word i stands at position i + 1.
  const width = n + 1
  let matched = new Float64Array(width).fill(Infinity)
  let extra = new Float64Array(width).fill(Infinity)
  // Nothing heard yet: whatever was skipped at the start is paid when the first word is matched.
  extra[0] = 0
  /** Where a matched word came from: position × 2, plus 1 if the word before it was extra; an extra word stays where it is. */
  const cameFrom = new Int32Array(m * width)
  const extraFrom = new Uint8Array(m * width)
  /** Position q lies between two words of one line. */
  const within = (q: number): number =>
    q > 0 && q < n && expected[q]!.line === expected[q - 1]!.line ? cost.broken : 0
  let opened = true
  for (let j = 0; j < m; j++) {
    const row = j * width
    const nextMatched = new Float64Array(width).fill(Infinity)
    const nextExtra = new Float64Array(width).fill(Infinity)
    const least = (p: number): number => Math.min(matched[p]!, extra[p]!)
    const via = (p: number): number => p * 2 + (extra[p]! < matched[p]! ? 1 : 0)
    const back = backWays(lines, least)
    let [skipCost, skipFrom] = [Infinity, 0]
    const silence = j > 0 ? heard[j]!.start - heard[j - 1]!.end : 0
    const pause = silence > longPaused ? cost.longPause : silence > paused ? cost.pause : 0
    for (let p = 0; p < width; p++) {
      // The first word may be extra without any gap having been opened before it.
      const inLine =
        pause > 0 &&
        p > 0 &&
        p < n &&
        expected[p]!.line === expected[p - 1]!.line &&
        !counts[expected[p]!.line]
          ? pause
          : 0
      const [stay, more] = [
        matched[p]! + cost.gap + cost.insert + inLine,
        extra[p]! + inLine + cost.insert + (opened && j === 0 ? cost.gap : 0),
      ]
      nextExtra[p] = Math.min(stay, more)
      extraFrom[row + p] = more < stay ? 1 : 0
      if (p === 0) continue
      const i = p - 1
      // Position q lies within the line of word i once that line's first word is behind it.
      const across = (q: number): number =>
        pause > 0 && !counts[expected[i]!.line] && q > startOf(lines, expected[i]!.line) ? pause : 0
      let [c, from] = [least(p - 1) + across(p - 1), via(p - 1)]
      const skipped = skipCost + cost.gap + cost.delete * (p - 1) + across(skipFrom >> 1) + within(p - 1)
      if (skipped < c) [c, from] = [skipped, skipFrom]
      const again = back.get(i)
      if (again && again.cost < c) [c, from] = [again.cost, via(again.from)]
      nextMatched[p] = c + differ(i, j)
      cameFrom[row + p] = from
      const leaving = least(p - 1) - cost.delete * (p - 1) + within(p - 1)
      if (leaving < skipCost) [skipCost, skipFrom] = [leaving, via(p - 1)]
    }
    matched = nextMatched
    extra = nextExtra
    opened = false
  }
  return traceBack(heard.length, width, matched, extra, cameFrom, extraFrom)
}

function traceBack(
  m: number,
  width: number,
  matched: Float64Array,
  extra: Float64Array,
  cameFrom: Int32Array,
  extraFrom: Uint8Array,
): (number | null)[] {
  let [p, isExtra, least] = [0, true, Infinity]
  for (let q = 0; q < width; q++) {
    const left = width - 1 - q
    const tail = left ? cost.gap + cost.delete * left : 0
    for (const [c, e] of [
      [matched[q]! + tail, false],
      [extra[q]! + tail, true],
    ] as const)
      if (c < least) [p, isExtra, least] = [q, e, c]
  }
  const path = new Array<number | null>(m).fill(null)
  for (let j = m - 1; j >= 0; j--) {
    if (isExtra) isExtra = extraFrom[j * width + p] === 1
    else {
      path[j] = p - 1
      const from = cameFrom[j * width + p]!
      p = from >> 1
      isExtra = (from & 1) === 1
    }
  }
  return path
}

/** For the first word of each line, the cheapest way to come back to it from that line or the few after it. */
function backWays(
  lines: readonly Followable[],
  least: (p: number) => number,
): Map<number, { cost: number; from: number }> {
  const cheapest = lines.map((l, i) => {
    const start = startOf(lines, i)
    let [c, from] = [Infinity, 0]
    for (let p = start + 1; p <= start + l.words.length; p++) if (least(p) < c) [c, from] = [least(p), p]
    return { cost: c, from }
  })
  const out = new Map<number, { cost: number; from: number }>()
  lines.forEach((_, i) => {
    for (let k = 0; k <= linesBack && i + k < lines.length; k++) {
      const way = cheapest[i + k]!
      const c = way.cost + cost.back + cost.backLine * k
      const known = out.get(startOf(lines, i))
      if (c < (known?.cost ?? Infinity)) out.set(startOf(lines, i), { cost: c, from: way.from })
    }
  })
  return out
}

/** Cost of each expected word against each heard one, worked out once for each pair of different words. */
export function differences(
  expected: readonly { word: string }[],
  heard: readonly HeardWord[],
): (i: number, j: number) => number {
  const ids = (words: readonly string[]): [Uint16Array, string[]] => {
    const known = new Map<string, number>()
    return [
      Uint16Array.from(words, (w) => known.get(w) ?? (known.set(w, known.size), known.size - 1)),
      [...known.keys()],
    ]
  }
  const [e, eWords] = ids(expected.map((x) => x.word))
  const [h, hWords] = ids(heard.map((x) => x.word))
  const table = Float32Array.from({ length: eWords.length * hWords.length }, (_, k) =>
    substitution(eWords[Math.floor(k / hWords.length)]!, hWords[k % hWords.length]!),
  )
  return (i, j) => table[e[i]! * hWords.length + h[j]!]!
}
