import { numbersIn, parseNumber } from '../../plan/numbers/names.ts'
import { nameWords, type SpokenLine } from '../follow/spoken.ts'
import { talkWords } from './talk-words.ts'

/**
 * Weights of the segment's own language model. Absolute discounting takes `discount` from every count seen;
 * what is freed backs off to single words. Of a count's own weight the next number gets `nextInCount` and
 * every other number word an equal part of the rest, each above its discount, so that a number left out is heard as left out, not filled in.
 * Where a sentence of the script has a number, the numbers next to it get `otherNumber` of its weight between them, so that
 * a wrong one is heard as it was said and not bent to what is written.
 * The slips people make in a count (`skipOne`: the number after next, the same again, one past the end) weigh more than other numbers.
 * `floorTalk` is for words that are in no script.
 */
const modelWeights = {
  discount: 0.4,
  nextInCount: 0.85,
  countWeight: 6,
  skipOne: 0.8,
  otherNumber: 0.5,
  floorNumber: 0.25,
  floorSlip: 0.25,
  floorTalk: 0.02,
  scriptWord: 1,
} as const

const slipWords = ['oops', 'okay', 'sorry', 'wait', 'again', 'um', 'no'] as const
const floorNumbers = [...Array.from({ length: 21 }, (_, i) => i), 30, 40, 50, 60, 70, 80, 90, 100]
export const numberWords: ReadonlySet<string> = new Set(
  floorNumbers.flatMap(nameWords).filter((w) => w !== 'and'),
)

const tensWords: ReadonlySet<string> = new Set([30, 40, 50, 60, 70, 80, 90].flatMap(nameWords))
/** A segment speaks of tens from here on, and of hundreds from here on: a slip goes a step further than the script. */
const [tensFrom, hundredsFrom] = [13, 80]
/** The largest number a segment's lines say; 0 where they say none. */
const largestIn = (lines: readonly SpokenLine[]): number =>
  Math.max(0, ...lines.flatMap((l) => l.numbers ?? numbersIn(l.words).map((n) => n.value)))
/**
 * Number words that may slip in where the script has others. Tens are among them only where the segment speaks of
 * numbers over twelve: "eight equals" sounds like "eighty quals", and nobody says eighty in a lesson to ten.
 */
function floorOf(lines: readonly SpokenLine[]): string[] {
  const largest = largestIn(lines)
  return [...numberWords].filter((w) =>
    w === 'hundred' ? largest >= hundredsFrom : !tensWords.has(w) || largest >= tensFrom,
  )
}

/** What passes between the numbers of a count besides slips. */
const countTalk = ['and', 'now', 'then'] as const
/** Talk that is in no script. Where nothing but counts is listened to, hardly any: a lone number is not to be bent into two short words. */
const talkOf = (lines: readonly SpokenLine[]): readonly string[] =>
  lines.length > 0 && lines.every((l) => l.numbers) ? countTalk : talkWords

/** Every word the recogniser may hear in these lines. */
export function vocabularyOf(lines: readonly SpokenLine[]): string[] {
  return [
    ...new Set([...lines.flatMap((l) => l.words), ...floorOf(lines), ...slipWords, ...talkOf(lines)]),
  ].sort()
}

/**
 * A bigram model in ARPA format (base-10 logarithms) for one segment. `known` are the words the dictionary can
 * pronounce; others are left out, and the caller reports them.
 */
export function arpaModel(lines: readonly SpokenLine[], known: ReadonlySet<string>): string {
  const unigram = new Map<string, number>([['</s>', Math.max(1, lines.length)]])
  const bigram = new Map<string, Map<string, number>>()
  const add = (h: string, w: string, n: number) => {
    const row = bigram.get(h) ?? new Map<string, number>()
    row.set(w, (row.get(w) ?? 0) + n)
    bigram.set(h, row)
  }
  for (const w of talkOf(lines)) if (known.has(w)) unigram.set(w, modelWeights.floorTalk)
  for (const w of floorOf(lines)) if (known.has(w)) unigram.set(w, modelWeights.floorNumber)
  for (const w of slipWords) if (known.has(w)) unigram.set(w, modelWeights.floorSlip)
  lines.forEach((line, i) => {
    // One line runs on into the next when the pause between them is short.
    const [last, next] = [line.words.at(-1), lines[i + 1]?.words[0]]
    if (last && next && known.has(last) && known.has(next)) add(last, next, 1.5)
    const words = ['<s>', ...line.words.filter((w) => known.has(w)), '</s>']
    for (let i = 1; i < words.length; i++) {
      const [h, w] = [words[i - 1]!, words[i]!]
      if (!line.numbers) otherNumbers(h, w, known, add)
      if (w !== '</s>') unigram.set(w, (unigram.get(w) ?? 0) + modelWeights.scriptWord)
      add(h, w, 1)
      // A pause ends an utterance anywhere, so every word may also end one and begin one.
      if (w !== '</s>') add('<s>', w, 0.5)
      add(w === '</s>' ? h : w, '</s>', 0.5)
    }
    if (line.numbers) {
      line.words.slice(1).forEach((w, k) => countBigram(line.words[k]!, w, line.words[k + 2], known, add))
      pastTheEnd(line.numbers, known, add)
    }
  })
  return write(unigram, bigram)
}

/** In a count: the next number mostly; the one after it as the slip people make; any other a little. */
function countBigram(
  h: string,
  next: string,
  afterNext: string | undefined,
  known: ReadonlySet<string>,
  add: (h: string, w: string, n: number) => void,
): void {
  if (!known.has(h) || !known.has(next)) return
  const others = [...numberWords].filter((w) => known.has(w) && w !== next)
  const { countWeight, nextInCount, discount } = modelWeights
  add(h, next, countWeight * nextInCount)
  if (afterNext && known.has(afterNext)) add(h, afterNext, modelWeights.skipOne)
  add(h, h, modelWeights.skipOne / 2)
  for (const w of others) add(h, w, discount + (countWeight * (1 - nextInCount)) / others.length)
}

/** Numbers said by mistake in place of one in a sentence: those next to it, before or after the words it stands among. */
function otherNumbers(
  h: string,
  w: string,
  known: ReadonlySet<string>,
  add: (h: string, w: string, n: number) => void,
): void {
  const near = (word: string): string[] => {
    const n = parseNumber(word)
    if (n === null || !numberWords.has(word)) return []
    return [n - 2, n - 1, n + 1, n + 2]
      .filter((m) => m >= 0 && m <= 20)
      .map((m) => nameWords(m)[0]!)
      .filter((x) => known.has(x))
  }
  for (const other of near(w)) add(h, other, modelWeights.otherNumber / 4)
  for (const other of near(h)) add(other, w, modelWeights.otherNumber / 4)
}

/** A count may go on one further than planned, or say its last number again. */
function pastTheEnd(
  numbers: readonly number[],
  known: ReadonlySet<string>,
  add: (h: string, w: string, n: number) => void,
): void {
  const [last, before] = [numbers.at(-1)!, numbers.at(-2)]
  const next = before === undefined ? last + 1 : last + (last - before)
  const [from, same] = [nameWords(last).at(-1)!, nameWords(last)[0]!]
  const to = next >= 0 && next <= 1000 ? nameWords(next)[0]! : null
  if (to && known.has(from) && known.has(to)) add(from, to, modelWeights.skipOne)
  if (known.has(from) && known.has(same)) add(from, same, modelWeights.skipOne / 2)
}

function write(
  unigram: ReadonlyMap<string, number>,
  bigram: ReadonlyMap<string, ReadonlyMap<string, number>>,
): string {
  const all = [...unigram.values()].reduce((a, b) => a + b, 0)
  const p1 = (w: string) => (unigram.get(w) ?? 0) / all
  const one: string[] = []
  const two: string[] = []
  const log = (p: number) => Math.log10(Math.max(p, 1e-7)).toFixed(4)
  for (const h of ['<s>', ...unigram.keys()]) {
    const row = bigram.get(h)
    let backoff = 0
    if (row) {
      const total = [...row.values()].reduce((a, b) => a + b, 0)
      let seen = 0
      let seenUnigram = 0
      for (const [w, n] of row) {
        const p = Math.max(n - modelWeights.discount, n * 0.1) / total
        seen += p
        seenUnigram += p1(w)
        two.push(`${log(p)} ${h} ${w}`)
      }
      backoff = Math.log10(Math.max(1 - seen, 1e-4) / Math.max(1 - seenUnigram, 1e-4))
    }
    one.push(`${h === '<s>' ? '-99.0000' : log(p1(h))} ${h} ${backoff.toFixed(4)}`)
  }
  return [
    '\\data\\',
    `ngram 1=${one.length}`,
    `ngram 2=${two.length}`,
    '',
    '\\1-grams:',
    ...one,
    '',
    '\\2-grams:',
    ...two,
    '',
    '\\end\\',
    '',
  ].join('\n')
}
