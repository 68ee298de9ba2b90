import { readNumberAt, tokens } from '../plan/numbers/names.ts'
import { remembered } from '../remember.ts'

export interface Sentence {
  /** Terms of each side with their sign; null for an unknown ("__"). */
  left: Term[]
  right: Term[]
  text: string
}
interface Term {
  sign: 1 | -1
  value: number | null
}

const plusWords = new Set(['+', 'add', 'plus', 'and'])
const minusWords = new Set(['-', 'minus', 'subtract'])
const unknown = /^(_{2,}|□)$/

/**
 * Every number sentence in a text, in signs ("4 + 3 = 7") or words ("four and three make seven",
 * "seven take away two is five"). Needs an operation and an "equals" between its two sides.
 */
// A number sentence never runs over a full stop.
export const sentencesIn: (text: string) => readonly Sentence[] = remembered((text) =>
  text.split(/[.!?;]+(?:\s|$)/).flatMap((part) => sentencesOf(tokens(part))),
)

function sentencesOf(words: readonly string[]): Sentence[] {
  const out: Sentence[] = []
  for (let i = 0; i < words.length;) {
    const found = sentenceAt(words, i)
    if (found?.sentence) out.push(found.sentence)
    i = found ? found.to : i + 1
  }
  return out
}

/** The sentence at i and where it ends; a null sentence is one that has been read and is no sum ("double three is six"). */
function sentenceAt(words: readonly string[], i: number): { sentence: Sentence | null; to: number } | null {
  const left = sideAt(words, i)
  if (!left) return null
  const eq = equalsAt(words, left.to)
  if (eq < 0) return null
  // "4 + 3 = 7 and 3 + 4 = 7": after a sum, "and" begins something new; in "seven is four and three" it adds.
  const wide = sideAt(words, eq, left.terms.length === 1)
  // "Double three is six and double four is eight": what follows the "and" is a sentence of its own.
  const right = wide && equalsAt(words, wide.to) >= 0 ? sideAt(words, eq, false) : wide
  if (!right) return null
  if (left.terms.length + right.terms.length < 3)
    return right === wide ? null : { sentence: null, to: right.to }
  // "… and four is three fewer than seven" compares; it is no sum.
  if (['more', 'fewer', 'less'].includes(words[right.to] ?? '')) return null
  return {
    sentence: { left: left.terms, right: right.terms, text: words.slice(i, right.to).join(' ') },
    to: right.to,
  }
}

function sideAt(words: readonly string[], i: number, andAdds = true): { terms: Term[]; to: number } | null {
  const first = termAt(words, i)
  if (!first) return null
  const terms: Term[] = [{ sign: 1, value: first.value }]
  let at = first.to
  for (;;) {
    const op = operationAt(words, at)
    if (!op || (!andAdds && words[at] === 'and')) break
    const next = termAt(words, op.to)
    if (!next) break
    terms.push({ sign: op.sign, value: next.value })
    at = next.to
  }
  return { terms, to: at }
}

function termAt(words: readonly string[], i: number): { value: number | null; to: number } | null {
  if (unknown.test(words[i] ?? '')) return { value: null, to: i + 1 }
  return readNumberAt(words, i)
}

function operationAt(words: readonly string[], i: number): { sign: 1 | -1; to: number } | null {
  const w = words[i]
  if (w === undefined) return null
  if (plusWords.has(w))
    return { sign: 1, to: words[i + 1] === 'then' || words[i + 1] === 'another' ? i + 2 : i + 1 }
  if (minusWords.has(w)) return { sign: -1, to: i + 1 }
  if ((w === 'take' || w === 'takeaway') && (words[i + 1] === 'away' || w === 'takeaway'))
    return { sign: -1, to: w === 'take' ? i + 2 : i + 1 }
  return null
}

/** Index after an "equals" at i, or −1. "is" alone counts only after an operation, which the caller has met. */
function equalsAt(words: readonly string[], i: number): number {
  const w = words[i]
  if (
    w === '=' ||
    w === 'equals' ||
    w === 'make' ||
    w === 'makes' ||
    w === 'leaves' ||
    w === 'gives' ||
    w === 'give'
  )
    return i + 1
  if (w === 'is' || w === 'are') {
    if (words[i + 1] === 'the' && words[i + 2] === 'same' && words[i + 3] === 'as') return i + 4
    if (words[i + 1] === 'equal' && words[i + 2] === 'to') return i + 3
    return i + 1
  }
  return -1
}

const sum = (terms: readonly Term[]): number => terms.reduce((s, t) => s + t.sign * (t.value ?? 0), 0)
export const hasUnknown = (s: Sentence): boolean => [...s.left, ...s.right].some((t) => t.value === null)

/** Whether it is true; a sentence with one unknown is true when a whole number ≥ 0 fits it. */
export function isTrue(s: Sentence): boolean {
  const unknowns = [...s.left, ...s.right].filter((t) => t.value === null)
  if (unknowns.length === 0) return sum(s.left) === sum(s.right)
  return unknowns.length > 1 || solve(s) !== null
}

/** The whole number ≥ 0 that makes a sentence with one unknown true, or null. */
export function solve(s: Sentence): number | null {
  const inLeft = s.left.find((t) => t.value === null)
  const gap = inLeft
    ? (sum(s.right) - sum(s.left)) * inLeft.sign
    : (sum(s.left) - sum(s.right)) * (s.right.find((t) => t.value === null)?.sign ?? 1)
  return gap >= 0 ? gap : null
}

/** The parts and the whole a two-term sentence speaks of, whichever way round it is written. */
export function shapeOf(s: Sentence): { parts: number[]; whole: number; takeAway: boolean } | null {
  if (hasUnknown(s)) return null
  const [long, short] = s.left.length >= s.right.length ? [s.left, s.right] : [s.right, s.left]
  if (short.length !== 1 || long.length < 2) return null
  const takeAway = long.some((t) => t.sign < 0)
  if (takeAway && long.length > 2) return null
  const values = long.map((t) => t.value!)
  return takeAway
    ? { parts: [values[1]!, short[0]!.value!], whole: values[0]!, takeAway }
    : { parts: values, whole: short[0]!.value!, takeAway }
}

const signed = (terms: readonly Term[]): string =>
  terms.map((t, i) => (i === 0 ? '' : t.sign > 0 ? ' + ' : ' − ') + (t.value ?? '__')).join('')
/** Written with signs, left side as it stands: "4 + 3 = 7". */
export const inSigns = (s: Sentence): string => `${signed(s.left)} = ${signed(s.right)}`

/** The same sentence made true by changing its lone side, or null when neither side is a lone number. */
export function mended(s: Sentence): string | null {
  if (hasUnknown(s)) return null
  if (s.right.length === 1 && sum(s.left) >= 0) return `${signed(s.left)} = ${sum(s.left)}`
  if (s.left.length === 1 && sum(s.right) >= 0) return `${sum(s.right)} = ${signed(s.right)}`
  return null
}
