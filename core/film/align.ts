import type { HeardWord } from '../contracts/heard.ts'
import { numberWords } from './language-model.ts'

export interface ExpectedWord {
  word: string
  line: number
}
export interface Alignment {
  /** For each expected word the heard index matched to it, or null. */
  heardFor: (number | null)[]
  /** Whether the matched word sounds the same as the one expected. */
  same: boolean[]
  /** Heard indices matched to nothing, in runs: [first, after last). */
  inserted: [number, number][]
}

/** Words recognition cannot tell apart by sound. Meanings are compared, not spellings. */
const soundAlike: readonly (readonly string[])[] = [
  ['two', 'to', 'too'], ['four', 'for'], ['eight', 'ate'], ['one', 'won'], ['whole', 'hole', 'how'], ['no', 'know', 'now'], ['add', 'and', 'had', 'head'],
  ['their', 'there'], ['some', 'sum'], ['our', 'are'], ['here', 'hear'], ['right', 'write'], ['it', 'at'], ['a', 'the', 'of'], ['is', 'has', 'his'],
]
const soundClass = new Map(soundAlike.flatMap((words, i) => words.map((w) => [w, i] as const)))
export const soundsLike = (a: string, b: string): boolean => a === b || (soundClass.has(a) && soundClass.get(a) === soundClass.get(b))

/** Pairs that recognition mixes up often enough to be a doubt and never a verdict. */
const stem = (w: string): string => w.replace(/(teen|ty)$/, '').replace(/^thir$/, 'three').replace(/^fif$/, 'five').replace(/^for$/, 'four').replace(/^twen$/, 'two').replace(/^eigh$/, 'eight')
export const confusable = (a: string, b: string): boolean => a !== b && (/(teen|ty)$/.test(a) || /(teen|ty)$/.test(b)) && stem(a) === stem(b)

/** Costs of the alignment. `gap` is paid once a run of extra or missing words, so that a line left out is left out whole. A number for another number is closer than a number for any other word. */
const cost = { gap: 0.12, insert: 0.72, delete: 0.75, alike: 0.12, confusable: 0.5, numberChanged: 1.05, changed: 1.2 } as const
function substitution(e: string, h: string): number {
  if (e === h) return 0
  if (soundsLike(e, h)) return cost.alike
  if (confusable(e, h)) return cost.confusable
  const [ne, nh] = [numberWords.has(e), numberWords.has(h)]
  if (ne && nh) return cost.numberChanged
  return ne || nh ? 1.6 : cost.changed
}

const [paired, missing, extra] = [0, 1, 2] as const

/** Least-cost alignment with affine gaps (Gotoh 1982): for each expected word its heard index or null. */
function shortestPath(expected: readonly ExpectedWord[], heard: readonly HeardWord[]): (number | null)[] {
  const [n, m] = [expected.length, heard.length]
  const width = m + 1
  const size = (n + 1) * width
  const best = [new Float64Array(size).fill(Infinity), new Float64Array(size).fill(Infinity), new Float64Array(size).fill(Infinity)] as const
  const from = [new Uint8Array(size), new Uint8Array(size), new Uint8Array(size)] as const
  best[paired][0] = 0
  /** The cheapest way to reach `at`, opening a gap of kind `state` unless one is open. */
  const reach = (at: number, state: 0 | 1 | 2): [number, number] => {
    let [least, via] = [Infinity, 0]
    // Of equals the gap comes last: a word that could belong to either of two lines belongs to the earlier.
    for (const k of [missing, extra, paired]) {
      const c = best[k][at]! + (state !== paired && k !== state ? cost.gap : 0)
      if (c < least) [least, via] = [c, k]
    }
    return [least, via]
  }
  for (let i = 0; i <= n; i++)
    for (let j = 0; j <= m; j++) {
      const at = i * width + j
      if (i > 0 && j > 0) {
        const [c, via] = reach(at - width - 1, paired)
        best[paired][at] = c + substitution(expected[i - 1]!.word, heard[j - 1]!.word)
        from[paired][at] = via
      }
      if (i > 0) {
        const [c, via] = reach(at - width, missing)
        best[missing][at] = c + cost.delete
        from[missing][at] = via
      }
      if (j > 0) {
        const [c, via] = reach(at - 1, extra)
        best[extra][at] = c + cost.insert
        from[extra][at] = via
      }
    }
  const heardFor: (number | null)[] = new Array<number | null>(n).fill(null)
  let [i, j] = [n, m]
  let state = reach(n * width + m, paired)[1]
  while (i > 0 || j > 0) {
    const via = from[state as 0 | 1 | 2][i * width + j]!
    if (state === paired) heardFor[--i] = --j
    else if (state === missing) i--
    else j--
    state = via
  }
  return heardFor
}

/**
 * Aligns what was heard with what was to be said, word by word (edit distance with weights above), then moves
 * every run of extra words as early as it will go, so that of two attempts at a line the later one is matched.
 */
export function align(expected: readonly ExpectedWord[], heard: readonly HeardWord[]): Alignment {
  const heardFor = shortestPath(expected, heard)
  shiftExtrasEarlier(expected, heard, heardFor)
  const used = new Set(heardFor.filter((x) => x !== null))
  const inserted: [number, number][] = []
  for (let k = 0; k < heard.length; k++) {
    if (used.has(k)) continue
    const last = inserted.at(-1)
    if (last && last[1] === k) last[1] = k + 1
    else inserted.push([k, k + 1])
  }
  return { heardFor, same: heardFor.map((h, k) => h !== null && soundsLike(expected[k]!.word, heard[h]!.word)), inserted }
}

function shiftExtrasEarlier(expected: readonly ExpectedWord[], heard: readonly HeardWord[], heardFor: (number | null)[]): void {
  for (let e = expected.length - 1; e >= 0; e--) {
    const at = heardFor[e]
    if (at === null || at === undefined) continue
    // The next matched word bounds how late this one can be.
    let limit = heard.length
    for (let k = e + 1; k < expected.length; k++)
      if (heardFor[k] !== null) {
        limit = heardFor[k]!
        break
      }
    const late = limit - 1
    if (late > at && soundsLike(expected[e]!.word, heard[late]!.word) && sameLineNext(expected, heardFor, e, limit)) heardFor[e] = late
  }
}
/** Only words that run on into the next matched word of the same line are taken from the later attempt. */
function sameLineNext(expected: readonly ExpectedWord[], heardFor: readonly (number | null)[], e: number, limit: number): boolean {
  const next = expected[e + 1]
  return next !== undefined && next.line === expected[e]!.line && heardFor[e + 1] === limit
}
