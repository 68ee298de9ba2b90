import type { HeardFinding, HeardLine, HeardWord } from '../contracts/heard.ts'
import { confusable } from './align.ts'
import { numberWords } from './language-model.ts'
import { nameWords, type SpokenLine } from './spoken.ts'

/**
 * Miscounts in one count line: numbers left out, said twice, or changed. The last number said again
 * ("ten… ten!") and a whole recount are no slips.
 */
export function countFindings(line: SpokenLine, l: HeardLine, heard: readonly HeardWord[], ignore: ReadonlySet<number>): HeardFinding[] {
  const out: HeardFinding[] = []
  const numbers = line.numbers!
  let k = 0
  const spans = numbers.map((n) => {
    const words = nameWords(n)
    const part = l.words.slice(k, k + words.length)
    k += words.length
    return { n, words, part, said: part.every((w) => w.status === 'said'), ats: part.flatMap((w) => (w.at === null ? [] : [w.at])) }
  })
  const beat = median(spans.flatMap((s, i) => (i && s.said && spans[i - 1]!.said ? [heard[s.ats[0]!]!.start - heard[spans[i - 1]!.ats[0]!]!.start] : [])))
  const finding = (code: HeardFinding['code'], at: { start: number; end: number }, expected: string, said: string, certain: boolean, message: string) =>
    out.push({ code, ...at, stepId: line.stepId, expected, heard: said, certain, message })
  spans.forEach((s, i) => {
    if (s.said) return
    const before = spans.slice(0, i).reverse().find((x) => x.said)
    const after = spans.slice(i + 1).find((x) => x.said)
    const from = before ? heard[before.ats.at(-1)!]! : null
    const to = after ? heard[after.ats[0]!]! : null
    const missing = s.part.every((w) => w.status === 'missing')
    if (missing) {
      if (!to && !from) return
      if (!to) {
        finding('count-end', { start: from!.end, end: from!.end + 0.5 }, String(numbers.at(-1)), String(before!.n), i === spans.length - 1 && spans.length > 3, `The count stops at ${before!.n}; ${numbers.at(-1)} was planned.`)
        return
      }
      // Where the beat leaves room for the number, it may have been said and not heard.
      const gone = spans.slice(before ? spans.indexOf(before) + 1 : 0, spans.indexOf(after!)).length
      const room = beat !== null && from !== null && to.start - from.start > beat * (1 + gone * 0.75)
      finding('count-skip', { start: from?.end ?? Math.max(0, to.start - 0.5), end: to.start }, String(s.n), '', !room, room ? `${s.n} was not heard, though there was time for it.` : `${s.n} is left out of the count.`)
      return
    }
    const at = s.part.find((w) => w.at !== null && w.status === 'changed')
    const h = at ? heard[at.at!]! : null
    if (!h || !numberWords.has(h.word)) return
    const doubt = confusable(at!.word, h.word)
    const repeat = before && nameWords(before.n).join(' ') === h.word
    finding(repeat ? 'count-repeat' : 'count-order', { start: h.start, end: h.end }, String(s.n), h.word, !doubt && h.confidence >= 0.3, `“${h.word}” is said where ${s.n} belongs.`)
  })
  // Numbers said between the planned ones. The last number said over again is emphasis.
  spans.slice(1).forEach((next, k) => {
    const s = spans[k]!
    if (!s.said || !next.said) return
    for (let h = s.ats.at(-1)! + 1; h < next.ats[0]!; h++) {
      const again = [s, next].find((x) => x.words.length === 1 && heard[h]!.word === x.words[0])
      if (!again || ignore.has(h) || again === spans.at(-1)) continue
      // Said twice, a number takes two beats; one drawn out is sometimes heard as two.
      if (beat !== null && heard[next.ats[0]!]!.start - heard[s.ats[0]!]!.start < beat * 1.6) continue
      finding('count-repeat', { start: heard[h]!.start, end: heard[h]!.end }, String(next.n), heard[h]!.word, true, `${again.n} is said twice.`)
    }
  })
  return dedupe(out)
}
const median = (xs: readonly number[]): number | null => (xs.length < 2 ? null : [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!)
const dedupe = (fs: readonly HeardFinding[]): HeardFinding[] => fs.filter((f, i) => f.code !== 'count-end' || fs.findIndex((g) => g.code === 'count-end') === i)
