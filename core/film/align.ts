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
const stem = (w: string): string => w.replace(/(teen|ty)$/, '').replace('thir', 'three').replace('fif', 'five')
export const confusable = (a: string, b: string): boolean => /(teen|ty)$/.test(a) && /(teen|ty)$/.test(b) && stem(a) === stem(b)

/** Costs of the alignment. A number for another number is closer than a number for any other word. */
const cost = { insert: 0.72, delete: 0.75, alike: 0.12, confusable: 0.5, numberChanged: 1.05, changed: 1.2 } as const
function substitution(e: string, h: string): number {
  if (e === h) return 0
  if (soundsLike(e, h)) return cost.alike
  if (confusable(e, h)) return cost.confusable
  const [ne, nh] = [numberWords.has(e), numberWords.has(h)]
  if (ne && nh) return cost.numberChanged
  return ne || nh ? 1.6 : cost.changed
}

/**
 * Aligns what was heard with what was to be said, word by word (edit distance with weights above), then moves
 * every run of extra words as early as it will go, so that of two attempts at a line the later one is matched.
 */
export function align(expected: readonly ExpectedWord[], heard: readonly HeardWord[]): Alignment {
  const [n, m] = [expected.length, heard.length]
  const width = m + 1
  const best = new Float64Array((n + 1) * width)
  const from = new Uint8Array((n + 1) * width)
  for (let j = 1; j <= m; j++) {
    best[j] = j * cost.insert
    from[j] = 2
  }
  for (let i = 1; i <= n; i++) {
    best[i * width] = i * cost.delete
    from[i * width] = 1
    for (let j = 1; j <= m; j++) {
      const sub = best[(i - 1) * width + j - 1]! + substitution(expected[i - 1]!.word, heard[j - 1]!.word)
      const del = best[(i - 1) * width + j]! + cost.delete
      const ins = best[i * width + j - 1]! + cost.insert
      const least = Math.min(sub, del, ins)
      best[i * width + j] = least
      from[i * width + j] = least === sub ? 0 : least === ins ? 2 : 1
    }
  }
  const heardFor: (number | null)[] = new Array(n).fill(null)
  let [i, j] = [n, m]
  while (i > 0 || j > 0) {
    const move = from[i * width + j]
    if (move === 0 && i > 0 && j > 0) heardFor[--i] = --j
    else if (move === 2 && j > 0) j--
    else i--
  }
  shiftExtrasEarlier(expected, heard, heardFor)
  const used = new Set(heardFor.filter((x) => x !== null))
  const inserted: [number, number][] = []
  for (let k = 0; k < m; k++) {
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
