import type { HeardFinding, HeardWord } from '../contracts/heard.ts'
import { readNumberAt, tokens } from '../plan/numbers/names.ts'
import { inSigns, isTrue, sentencesIn } from '../script/sentence.ts'

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
  const said = numbersSaid(words)
  const out: HeardFinding[] = []
  let run: Said[] = []
  const close = () => {
    if (run.length >= 4) out.push(...judgeRun(run, words))
    run = []
  }
  for (const s of said) {
    const last = run.at(-1)
    if (last) {
      const between = words.slice(last.last + 1, s.first)
      const apart = between.some((w) => !passOver.has(w.word.toLowerCase())) || words[s.first]!.start - words[last.last]!.end > 6
      // A start over at one is a recount, not a slip.
      const restart = run.length >= 3 && s.n <= run[0]!.n && run[0]!.n !== last.n
      if (restart && !apart) {
        out.push({ code: 'recount', start: words[s.first]!.start, end: words[s.last]!.end, stepId: null, expected: '', heard: String(s.n), certain: true, message: 'Counted again from the start.' })
        close()
      } else if (apart || Math.abs(s.n - last.n) > 12) close()
    }
    run.push(s)
  }
  close()
  return out
}

function judgeRun(run: readonly Said[], words: readonly HeardWord[]): HeardFinding[] {
  const steps = run.slice(1).map((s, i) => s.n - run[i]!.n)
  const tally = new Map<number, number>()
  for (const d of steps) tally.set(d, (tally.get(d) ?? 0) + 1)
  const [step, times] = [...tally].sort((a, b) => b[1] - a[1])[0]!
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

function sentences(words: readonly HeardWord[]): HeardFinding[] {
  // Tokens may be more than words ("4 + 3"): keep which word each came from.
  const from: number[] = []
  const list = words.flatMap((w, i) => tokens(w.word).map((t) => (from.push(i), t)))
  const out: HeardFinding[] = []
  for (const s of sentencesIn(list.join(' '))) {
    if (isTrue(s)) continue
    const parts = s.text.split(' ')
    const at = list.findIndex((_, i) => parts.every((p, k) => list[i + k] === p))
    if (at < 0) continue
    const [a, b] = [words[from[at]!]!, words[from[at + parts.length - 1]!]!]
    out.push({ code: 'false-sentence', start: a.start, end: b.end, stepId: null, expected: '', heard: inSigns(s), certain: words.slice(from[at]!, from[at + parts.length - 1]! + 1).every((w) => w.confidence >= 0.3), message: `${inSigns(s)} was said, and it is not true.` })
  }
  return out
}
