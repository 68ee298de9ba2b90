import { remembered } from '../../../remember.ts'
import type { Word } from '../words.ts'
import { sentencesSaid } from './terms.ts'

/** A run of numbers said in a line with something wrong in it. */
export interface Broken {
  /** false where it may have been meant: only its last number leaves the step. */
  sure?: boolean
  kind: 'skip' | 'order'
  numbers: readonly number[]
  /** Left out, or said in the place of another. */
  missing: readonly number[]
  should: readonly number[]
}
const names: Readonly<Record<string, number>> = { ones: 1, twos: 2, threes: 3, fours: 4, fives: 5, tens: 10 }

/** Numbers one after another with only commas, "and" or a thing's name between them; each at least three long. */
function runsOf(words: readonly Word[]): number[][] {
  const out: number[][] = []
  let run: number[] = []
  let gap = 0
  for (const w of words) {
    if (w.n !== null) {
      if (gap > 3) {
        out.push(run)
        run = []
      }
      run.push(w.n)
      gap = 0
    } else if (w.t === ',') gap = Math.max(gap, 1)
    else if (['and', 'then', 'on', 'to'].includes(w.t)) gap += 0.5
    else gap = 9
  }
  out.push(run)
  return out.filter((r) => r.length >= 3)
}
/** The step a line names: "by fives", "five a time", "every rung is ten more", "two by two". */
function stepNamed(words: readonly Word[]): number | null {
  for (const [i, w] of words.entries()) {
    if (names[w.t]) return names[w.t]!
    if (w.t === 'two by two') return 2
    if (
      w.n !== null &&
      w.n > 1 &&
      (['more', 'less', 'fewer'].includes(words[i + 1]?.t ?? '') ||
        (['a', 'at'].includes(words[i + 1]?.t ?? '') &&
          words.slice(i + 1, i + 4).some((x) => x.t === 'time')))
    )
      return w.n
  }
  return null
}

/** What is wrong with a run, or null when it keeps its step or keeps none. */
function brokenRun(numbers: readonly number[], step: number | null): Broken | null {
  if (numbers.length < 3) return null
  const gaps = numbers.slice(1).map((n, i) => n - numbers[i]!)
  const down = gaps.filter((g) => g < 0).length > gaps.length / 2
  const tally = new Map<number, number>()
  for (const g of gaps) tally.set(g, (tally.get(g) ?? 0) + 1)
  const [usual, times] = [...tally].sort((a, b) => b[1] - a[1] || Math.abs(a[0]) - Math.abs(b[0]))[0]!
  const by = step === null ? usual : down ? -step : step
  const kept = gaps.filter((g) => g === by).length
  if (by === 0 || kept === gaps.length || (step === null && (times < 2 || kept < gaps.length - 2)))
    return null
  if (step !== null && kept === 0) return null
  // One number in the place of another: the two gaps around it make up for each other.
  for (let i = 1; i < numbers.length - 1; i++)
    if (gaps[i - 1] !== by && gaps[i - 1]! + gaps[i]! === 2 * by && kept === gaps.length - 2) {
      const should = numbers.map((n, k) => (k === i ? numbers[i - 1]! + by : n))
      return { kind: 'order', numbers, missing: [should[i]!], should }
    }
  const odd = gaps.filter((g) => g !== by)
  if (
    kept >= 2 &&
    kept === gaps.length - 1 &&
    gaps.at(-1) !== by &&
    Math.abs(gaps.at(-1)!) < Math.abs(by) &&
    Math.sign(gaps.at(-1)!) === Math.sign(by)
  ) {
    const should = [...numbers.slice(0, -1), numbers.at(-2)! + by]
    return { kind: 'order', numbers, missing: [should.at(-1)!], should, sure: false }
  }
  if (!odd.every((g) => g !== 0 && g % by === 0 && g / by > 1 && g / by <= 3) || odd.length > 1) return null
  if (step === null && kept < 2) return null
  const should: number[] = []
  for (let n = numbers[0]!; down ? n >= numbers.at(-1)! : n <= numbers.at(-1)!; n += by) should.push(n)
  return { kind: 'skip', numbers, missing: should.filter((n) => !numbers.includes(n)), should }
}
/** Runs of numbers said in a line that leave one out or put one wrong. */
export const brokenRunsIn: (text: string) => readonly Broken[] = remembered((text) =>
  sentencesSaid(text).flatMap(({ words, end }) =>
    end === '?' ? [] : runsOf(words).flatMap((r) => brokenRun(r, stepNamed(words)) ?? []),
  ),
)
/** "Eighteen, nineteen, and on to twenty-one next": a short run that says what comes next. */
export const nextIn: (text: string) => Broken | null = remembered((text) => {
  for (const { words } of sentencesSaid(text)) {
    const numbers = words.flatMap((w) => (w.n === null ? [] : [w.n]))
    const after = words[words.findLastIndex((w) => w.n !== null) + 1]?.t
    if (numbers.length !== 3 || after !== 'next' || !runsOf(words).some((r) => r.length === 3)) continue
    const [a, b, c] = numbers as [number, number, number]
    if (Math.abs(b - a) === 1 && c !== b + (b - a))
      return { kind: 'skip', numbers, missing: [b + (b - a)], should: [a, b, b + (b - a)] }
  }
  return null
})
