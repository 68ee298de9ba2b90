import type { HeardFinding, HeardWord } from '../contracts/heard.ts'
import { readNumberAt, run, tokens } from '../plan/numbers/names.ts'
import { inSigns, isTrue, type Sentence, sentencesIn } from '../script/sentence.ts'
import { nameWords, type SpokenLine } from './spoken.ts'

/**
 * Judges words with no script: counting runs and number sentences alone. A run is four or more numbers said one
 * after another that mostly go up or down by the same step.
 */
export function hearFree(words: readonly HeardWord[]): HeardFinding[] {
  return [...countRuns(words), ...sentences(words)].sort((a, b) => a.start - b.start)
}

interface Said {
  n: number
  first: number
  last: number
}
/** Numbers in the words, with the indices of the words they take. */
function numbersSaid(words: readonly HeardWord[]): Said[] {
  const list = words.map((w) => w.word.toLowerCase())
  const out: Said[] = []
  for (let i = 0; i < list.length; ) {
    const found = readNumberAt(list, i)
    if (found && list[i] !== 'nothing' && list[i] !== 'none') {
      out.push({ n: found.value, first: i, last: found.to - 1 })
      i = found.to
    } else i++
  }
  return out
}
const passOver = new Set(['um', 'and', 'then', 'er', 'oh', 'oops'])

function countRuns(words: readonly HeardWord[]): HeardFinding[] {
  const inSentence = sentenceWords(words)
  // The numbers of a number sentence are no count, even straight after one.
  const said = numbersSaid(words).filter((s) => !inSentence.has(s.first))
  const out: HeardFinding[] = []
  let current: Said[] = []
  const close = () => {
    const run = trimmed(current)
    if (run.length >= 4) out.push(...judgeRun(run, words))
    current = []
  }
  for (const s of said) {
    const last = current.at(-1)
    if (last) {
      const between = words.slice(last.last + 1, s.first)
      const apart = between.some((w) => !passOver.has(w.word.toLowerCase())) || words[s.first]!.start - words[last.last]!.end > 6
      // A start over at one is a recount, not a slip.
      const restart = current.length >= 3 && s.n <= current[0]!.n && current[0]!.n < last.n
      if (restart && !apart) {
        out.push({ code: 'recount', start: words[s.first]!.start, end: words[s.last]!.end, stepId: null, expected: '', heard: String(s.n), certain: true, message: 'Counted again from the start.' })
        close()
      } else if (apart || Math.abs(s.n - last.n) > (s.n % 10 === 0 && last.n % 10 === 0 ? 30 : 12)) close()
    }
    current.push(s)
  }
  close()
  return out
}

/** Drops a number at either end that belongs to the talk around the count: "…nine, ten. Four parcels" . */
function trimmed(run: readonly Said[]): Said[] {
  const out = [...run]
  const inner = out.slice(1).map((s, i) => s.n - out[i]!.n)
  const step = mostOften(inner)
  const fits = (d: number) => d === 0 || (Math.sign(d) === Math.sign(step) && d % step === 0 && Math.abs(d / step) <= 3)
  while (out.length > 4 && step && !fits(out.at(-1)!.n - out.at(-2)!.n)) out.pop()
  while (out.length > 4 && step && !fits(out[1]!.n - out[0]!.n)) out.shift()
  return out
}
function mostOften(xs: readonly number[]): number {
  const tally = new Map<number, number>()
  for (const x of xs) tally.set(x, (tally.get(x) ?? 0) + 1)
  return [...tally].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
}

function judgeRun(run: readonly Said[], words: readonly HeardWord[]): HeardFinding[] {
  const steps = run.slice(1).map((s, i) => s.n - run[i]!.n)
  const step = mostOften(steps)
  const times = steps.filter((d) => d === step).length
  if (step === 0 || times < steps.length * 0.5 || ![1, 2, 3, 4, 5, 10].includes(Math.abs(step))) return []
  const out: HeardFinding[] = []
  const say = (code: HeardFinding['code'], i: number, expected: string, heard: string, message: string, certain = true) =>
    out.push({ code, start: words[run[i]!.last]!.end, end: words[run[i + 1]!.first]!.start, stepId: null, expected, heard, certain: certain && words[run[i + 1]!.first]!.confidence >= 0.3, message })
  steps.forEach((d, i) => {
    const [a, b] = [run[i]!.n, run[i + 1]!.n]
    if (d === step) return
    if (d === 0) {
      // The last number said again is emphasis.
      if (i + 1 < run.length - 1) say('count-repeat', i, String(a + step), String(b), `${a} is said twice.`)
    } else if (Math.sign(d) === Math.sign(step) && d % step === 0 && Math.abs(d / step) <= 4) {
      const missing = Array.from({ length: Math.abs(d / step) - 1 }, (_, k) => a + step * (k + 1))
      say('count-skip', i, missing.join(' '), '', `${missing.join(' and ')} ${missing.length > 1 ? 'are' : 'is'} left out of the count.`)
    } else say('count-order', i, String(a + step), String(b), `${b} follows ${a} in the count.`, Math.abs(d) < 10)
  })
  return out
}

/** Number sentences in the words, each with the words it takes: [first, last]. */
function sentencesSaid(words: readonly HeardWord[]): { sentence: Sentence; first: number; last: number }[] {
  // Tokens may be more than words ("4 + 3"): keep which word each came from.
  const from: number[] = []
  const list = words.flatMap((w, i) => tokens(w.word).map((t) => (from.push(i), t)))
  let after = 0
  return sentencesIn(list.join(' ')).flatMap((sentence) => {
    const parts = sentence.text.split(' ')
    const at = list.findIndex((_, i) => i >= after && parts.every((p, k) => list[i + k] === p))
    if (at < 0) return []
    after = at + parts.length
    return [{ sentence, first: from[at]!, last: from[at + parts.length - 1]! }]
  })
}
const sentenceWords = (words: readonly HeardWord[]): Set<number> => new Set(sentencesSaid(words).flatMap((s) => Array.from({ length: s.last - s.first + 1 }, (_, k) => s.first + k)))

function sentences(words: readonly HeardWord[]): HeardFinding[] {
  return sentencesSaid(words).filter((s) => !isTrue(s.sentence)).map(({ sentence, first, last }) => ({
    code: 'false-sentence', start: words[first]!.start, end: words[last]!.end, stepId: null, expected: '', heard: inSigns(sentence),
    certain: words.slice(first, last + 1).every((w) => w.confidence >= 0.3), message: `${inSigns(sentence)} was said, and it is not true.`,
  }))
}

/** Lines a recogniser may expect when there is no script: counting runs either way, and the frames of number sentences. */
export const freeLines: readonly SpokenLine[] = (() => {
  const count = (numbers: number[]): SpokenLine => ({ stepId: 'free', verb: 'count', words: numbers.flatMap(nameWords), numbers, text: '', deliberate: false })
  const say = (text: string): SpokenLine => ({ stepId: 'free', verb: 'say', words: text.split(' '), numbers: null, text, deliberate: false })
  const small = run(0, 10).map(nameWords).flat()
  const sentences = small.flatMap((a) => ['add', 'plus', 'and', 'take away', 'minus'].map((op) => say(`${a} ${op} ${small[(small.indexOf(a) + 3) % small.length]} equals ${small[(small.indexOf(a) + 5) % small.length]}`)))
  return [
    count(run(1, 20)), count(run(1, 20)), count(run(20, 0)), count(run(20, 100, 10)), count(run(2, 20, 2)), count(run(5, 50, 5)),
    ...sentences,
    ...['makes', 'make', 'is', 'are', 'altogether', 'how many', 'let us count', 'count with me', 'now', 'the', 'we have', 'i have', 'there are', 'left', 'more', 'well done', 'look', 'here', 'this', 'that is', 'and', 'so', 'can you', 'what', 'it'].map(say),
  ]
})()
