import { remembered } from '../../../remember.ts'
import type { Word } from '../words.ts'
import { expressionAt, sentencesSaid, termAt } from './terms.ts'

type Reader = (words: readonly Word[]) => number | null
const says = (words: readonly Word[], ...list: readonly string[]): boolean =>
  words.some((w) => list.includes(w.t))
/** The one expression of a sentence made of more than one number, or the only number with a relation to it. */
const sum: Reader = (words) => {
  if (says(words, 'between', 'both', 'or')) return null
  const found = words.map((_, i) => expressionAt(words, i)).filter((e) => e?.made)
  const outer = found.find((e) => e && !found.some((o) => o && o !== e && o.from <= e.from && o.to >= e.to))
  if (!outer || found.some((e) => e && (e.from < outer.from || e.from >= outer.to))) return null
  const others = words.some((w, i) => w.n !== null && (i < outer.from || i >= outer.to) && w.t !== 'one')
  return others || outer.value < 0 || !Number.isInteger(outer.value) ? null : outer.value
}
/** "if you add two to seven", "take eight away from fifteen", "take three from nine", "put four and three together". */
const told: Reader = (words) => {
  const i = words.findIndex((w) => ['add', 'adds', 'take', 'takes', 'subtract', 'put'].includes(w.t))
  if (i < 0) return null
  const a = words.slice(i + 1).findIndex((w) => w.n !== null)
  if (a < 0 || a > 2) return null
  const to = words.slice(i + 2 + a).findIndex((w) => ['to', 'from', 'off', 'on'].includes(w.t))
  if (to < 0) return null
  const b = words[i + 2 + a + to + 1]
  const n = words[i + 1 + a]!.n!
  if (b?.n == null) return null
  const prep = words[i + 2 + a + to]!.t
  if (words.filter((w) => w.n !== null).length !== 2) return null
  if (['add', 'adds', 'put'].includes(words[i]!.t)) return prep === 'to' || prep === 'on' ? n + b.n : null
  return prep === 'from' || prep === 'off' ? (b.n >= n ? b.n - n : null) : null
}
/** "just before 80", "right after number 69", "follows twenty-four", "squeezed in between 27 and 29", "in the middle of 10 and 20". */
const beside: Reader = (words) => {
  if (words.some((w) => /^(twos|threes|fives|tens|odd|even|skip)$/.test(w.t))) return null
  const numbers = words.flatMap((w, i) => (w.n === null ? [] : [{ n: w.n, i }]))
  if (says(words, 'between', 'middle', 'halfway') && numbers.length === 2) {
    const [a, b] = [numbers[0]!.n, numbers[1]!.n]
    const middle = (a + b) / 2
    if (
      !Number.isInteger(middle) ||
      (says(words, 'between') && Math.abs(a - b) !== 2 && !says(words, 'middle', 'halfway'))
    )
      return null
    return middle
  }
  if (numbers.length !== 1) return null
  const { n, i } = numbers[0]!
  const before = words.slice(0, i).map((w) => w.t)
  // "three days before", "two more after": only what stands right beside is asked.
  if (before.some((t) => ['more', 'count', 'tens', 'twos', 'fives'].includes(t))) return null
  const near = before.slice(-4)
  const asks = says(words, 'number', 'which', 'who', 'what', 'house', 'door', 'stone', 'next')
  if (!asks) return null
  if (near.includes('after') || near.includes('follows') || near.includes('follow'))
    return says(words, 'back', 'backwards') ? n - 1 : n + 1
  if (near.includes('before')) return n > 0 ? n - 1 : null
  return null
}
/** "How much is half of six", "double four is how many". */
const lone: Reader = (words) => {
  for (let i = 0; i < words.length; i++) {
    const t = termAt(words, i)
    if (t?.made) return words.some((w, k) => w.n !== null && (k < t.from || k >= t.to)) ? null : t.value
  }
  return null
}
const asks = (words: readonly Word[]): boolean =>
  says(words, 'what', 'how', 'which', 'who', 'find', 'tap', 'much', 'say', 'tell', 'where', 'is')

/** What a line asks about numbers alone comes to; null when it asks something else, or more than one thing. */
export const askedOf: (text: string) => number | null = remembered((text) => {
  // Counting in steps, what comes next is not the neighbour.
  if (/\bin (twos|threes|fives|tens)\b/i.test(text)) return null
  // A way is asked for, or what helps, and no number.
  if (/\bhow (do|can|could|did|would|should|else)\b|\bhelps?\b/i.test(text)) return null
  const found = new Set<number>()
  for (const said of sentencesSaid(text)) {
    // What comes after a colon asks by itself: "two gardeners with four each: double four is how many?".
    const colon = said.words.findLastIndex((w) => w.t === ':')
    const words =
      colon > 0 && said.words.slice(colon).some((w) => w.n !== null)
        ? said.words.slice(colon + 1)
        : said.words
    if (!words.some((w) => w.n !== null)) continue
    for (const read of [told, beside, sum, lone]) {
      const n = read(words)
      if (n === null || n < 0 || !Number.isInteger(n)) continue
      if (read === sum && !asks(words) && !sentencesSaid(text).some((s) => s.end === '?')) continue
      found.add(n)
      break
    }
  }
  const all = sentencesSaid(text).flatMap((s) => s.words.filter((w) => w.n !== null))
  return found.size === 1 && (all.length <= 3 || text.includes(':')) ? [...found][0]! : null
})
