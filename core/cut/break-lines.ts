import { remembered } from '../remember.ts'
import { sentencesIn } from '../script/sentence.ts'

/** Letters in a line of captions, two lines at most: what a phone held upright shows at a size that can be read. */
export const lineLetters = 37
const lines = 2
/** Words a line should not end with: they belong to what follows. */
const leaning = new Set([
  'a',
  'an',
  'the',
  'and',
  'or',
  'to',
  'of',
  'in',
  'on',
  'at',
  'with',
  'by',
  'for',
  'is',
  'are',
  'my',
  'your',
  'our',
  'his',
  'her',
  'their',
  'this',
  'that',
  'how',
  'as',
  'from',
  'no',
  'not',
])
const bare = (w: string): string => w.toLowerCase().replace(/[^\p{L}\p{N}+=−'-]/gu, '')

/** For each word, whether it and the next stand in one number sentence. */
function joined(words: readonly string[], text: string): boolean[] {
  const out = words.map(() => false)
  const mine = words.map(bare)
  for (const s of sentencesIn(text)) {
    const theirs = s.text.split(/\s+/).map(bare).filter(Boolean)
    const at = mine.findIndex((_, i) => theirs.every((w, k) => mine[i + k] === w))
    if (at >= 0 && theirs.length > 1) for (let k = 0; k < theirs.length - 1; k++) out[at + k] = true
  }
  return out
}
const punctuation = (w: string): number =>
  /[.!?…]["’”)]*$/.test(w) ? 0 : /[,;:–—]$/.test(w) ? 2 : leaning.has(bare(w)) ? 9 : 5

/**
 * Parts a text into captions of at most two lines of 37 letters, each a list of its words by line. Breaks fall after
 * sentences and commas before anywhere else, never within a number sentence while it fits into one caption. A word
 * longer than a line is broken.
 */
export const captionBreaks: (text: string) => readonly (readonly (readonly string[])[])[] = remembered(breaks)
function breaks(text: string): string[][][] {
  const whole = text.split(/\s+/).filter(Boolean)
  const words = whole.flatMap((w) => w.match(new RegExp(`.{1,${lineLetters}}`, 'gu')) ?? [])
  if (!words.length) return []
  const glued = joined(words, text)
  const length = (i: number, j: number): number =>
    words.slice(i, j).reduce((n, w) => n + [...w].length, j - i - 1)
  const end = (j: number): number => (j === words.length ? 0 : glued[j - 1] ? 60 : punctuation(words[j - 1]!))
  interface Best {
    cost: number
    from: number
    split: number
  }
  const best: (Best | null)[] = [{ cost: 0, from: 0, split: 0 }]
  for (let j = 1; j <= words.length; j++) {
    let mine: Best | null = null
    for (let i = j - 1; i >= 0 && length(i, j) <= lineLetters * lines; i--) {
      const before = best[i]
      if (!before) continue
      const consider = (split: number, within: number): void => {
        // A caption costs something, so that there are not more than needed; one of a word or two costs more.
        const cost = before.cost + 8 + (length(i, j) < 10 ? 6 : 0) + end(j) * 2 + within
        if (!mine || cost < mine.cost) mine = { cost, from: i, split }
      }
      if (length(i, j) <= lineLetters) consider(j, 0)
      for (let k = i + 1; k < j; k++) {
        const [a, b] = [length(i, k), length(k, j)]
        if (a > lineLetters || b > lineLetters) continue
        consider(k, 3 + (glued[k - 1] ? 12 : punctuation(words[k - 1]!)) * 0.6 + Math.abs(a - b) * 0.08)
      }
    }
    best[j] = mine
  }
  const out: string[][][] = []
  for (let j = words.length; j > 0;) {
    const { from, split } = best[j]!
    out.unshift([words.slice(from, split), words.slice(split, j)].filter((l) => l.length))
    j = from
  }
  return out
}
/** A caption's words as they stand on screen. */
export const linesOf = (text: string): string =>
  captionBreaks(text)
    .flat()
    .map((l) => l.join(' '))
    .join('\n')
