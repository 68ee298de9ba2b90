import { remembered } from '../../../remember.ts'
import { type Word, wordsOf } from '../words.ts'

/** A sentence as words and numbers, without its stops. Dashes between clauses part them as commas do. */
export interface Said {
  words: readonly Word[]
  /** The stop it ended with: "?" asks, "…" waits. */
  end: string
}
/** The sentences of a line. */
export const sentencesSaid: (text: string) => readonly Said[] = remembered((text) => {
  const out: Said[] = []
  let words: Word[] = []
  for (const w of wordsOf(text)) {
    if (['.', '!', '?', '…', ';'].includes(w.t)) {
      if (words.length) out.push({ words, end: w.t })
      words = []
    } else words.push(w)
  }
  if (words.length) out.push({ words, end: '.' })
  return out
})

/** A number worked out from words, and where in the sentence it stands. */
export interface Term {
  value: number
  from: number
  to: number
  /** Made of more than one number: a sum, a double, a half. */
  made: boolean
}
const plus = new Set(['and', 'add', 'plus', '+', 'with'])
const minus = new Set(['minus', '-', '−', '–', 'subtract'])
/** Words that never name a thing after a number. */
const noNoun = new Set(
  'and add plus minus is are was were be equals equal makes make made gives give leaves leave comes come has have more fewer less bigger smaller larger greater than to of in on at for from with by or but so then that which who after before between each every take away subtract the a an double half twice shared share among left over altogether all both even odd even it they we you i not no nor again now still just only right too next first last = + - − – , : ( )'.split(
    ' ',
  ),
)
/** After a number: the index behind the noun it counts, if one stands there. */
export function afterNoun(words: readonly Word[], i: number): number {
  let at = i
  while (
    at - i < 3 &&
    words[at] &&
    words[at]!.n === null &&
    /^\p{L}/u.test(words[at]!.t) &&
    !noNoun.has(words[at]!.t)
  )
    at++
  return at
}

/** One number: "seven", "seven plums", "double four", "half of eight", "one less than double five". */
export function termAt(words: readonly Word[], i: number): Term | null {
  const w = words[i]
  if (!w) return null
  if (w.t === 'double' || w.t === 'twice') {
    const inner = termAt(words, i + 1)
    return inner && { ...inner, value: inner.value * 2, from: i, made: true }
  }
  if (w.t === 'half' && (words[i + 1]?.t === 'of' || words[i + 1]?.t === 'the')) {
    const inner = termAt(words, i + 2)
    return inner && { ...inner, value: inner.value / 2, from: i, made: true }
  }
  if (w.n === null) return null
  const way = words[i + 1]?.t
  const after = words[i + 2]?.t
  if ((way === 'more' || way === 'less' || way === 'fewer') && after === 'than') {
    const base = expressionAt(words, i + 3)
    if (base) return { value: base.value + (way === 'more' ? w.n : -w.n), from: i, to: base.to, made: true }
  }
  return { value: w.n, from: i, to: afterNoun(words, i + 1), made: false }
}
/** A sum or difference of terms: "four and five", "eleven take away four", "9 + 2". */
export function expressionAt(words: readonly Word[], i: number): Term | null {
  const first = termAt(words, i)
  if (!first) return null
  let { value, to } = first
  let made = first.made
  let bare = first.made || to === i + 1
  for (;;) {
    const op = operationAt(words, to)
    // "Ten bottles and eight never moved" tells of two things; "ten and eight" adds them.
    if (op && !bare && (words[to]!.t === 'and' || words[to]!.t === 'with')) break
    const next = op && termAt(words, op.to)
    if (!op || !next) break
    // "One more than eight and one less than ten" says two things.
    if (words[to]!.t === 'and' && words.slice(next.from, next.to).some((w) => w.t === 'than')) break
    value += op.sign * next.value
    bare = next.made || next.to === next.from + 1
    to = next.to
    made = true
  }
  return { value, from: i, to, made }
}
function operationAt(words: readonly Word[], i: number): { sign: 1 | -1; to: number } | null {
  const w = words[i]?.t
  if (w === undefined) return null
  if (plus.has(w)) return { sign: 1, to: words[i + 1]?.t === 'another' ? i + 2 : i + 1 }
  if (minus.has(w)) return { sign: -1, to: i + 1 }
  if (w === 'take' && words[i + 1]?.t === 'away') return { sign: -1, to: i + 2 }
  return null
}
/** The widest expression that ends just before word i: what "is" speaks of. */
export function expressionBefore(words: readonly Word[], i: number): Term | null {
  for (let from = 0; from < i; from++) {
    const found = expressionAt(words, from)
    if (found && found.to === i) return found
  }
  return null
}
export const textOf = (words: readonly Word[], from: number, to: number): string =>
  words
    .slice(from, to)
    .map((w) => w.t)
    .join(' ')
    .replace(/ ([,:])/g, '$1')
