import type { Seconds } from '../../contracts/units.ts'
import type { HeardFinding, HeardWord } from '../../contracts/heard.ts'
import { run } from '../../plan/numbers/names.ts'
import { countSlips, mendRetries, numbersSaid, passedOver, type Said, withoutEcho } from './count-heard.ts'
import { pauseCues, waitsIn } from './cues.ts'
import { stumbles } from './stumbles.ts'
import { hearing } from './limits.ts'
import { confusable, inCount } from '../ear/sounds.ts'
import { nameWords } from '../follow/spoken.ts'
import { type Statement, statementsIn, type Token } from './statements.ts'

/**
 * Judges words with no script: counting runs from any start, up or down, by any usual step; the total said after a
 * count; number sentences; and tells pause cues, waits and recounts as plain information.
 */
export function hearFree(input: readonly HeardWord[]): HeardFinding[] {
  const words = input.map((w) => ({ ...w, word: w.word.toLowerCase().replace(/[‘’]/g, "'") }))
  const tokens = tokensOf(words)
  const statements = statementsIn(tokens)
  const runs = countRuns(words, statements)
  return [
    ...runs.flatMap((r) => r.findings),
    ...totals(words, tokens, runs),
    ...falseStatements(words, statements),
    ...pauseCues(words),
    ...waitsIn(words),
    ...stumbles(words),
  ].sort((a, b) => a.start - b.start)
}

const tokensOf = (words: readonly HeardWord[]): Token[] =>
  words.map((w, i) => ({
    word: w.word,
    gap: i ? Math.max(0, w.start - words[i - 1]!.end) : 0,
    mark: w.mark ?? '',
  }))

function falseStatements(words: readonly HeardWord[], statements: readonly Statement[]): HeardFinding[] {
  return statements
    .filter((s) => !s.holds)
    .map((s) => {
      const part = words.slice(s.from, s.to)
      const clear =
        part.every((w) => w.confidence >= hearing.unsure) && !part.some((w) => /(teen|ty)$/.test(w.word))
      return {
        code: 'false-sentence',
        start: part[0]!.start,
        end: part.at(-1)!.end,
        stepId: null,
        expected: '',
        heard: s.text,
        certain: clear && (s.joined || part.every((w) => w.confidence >= 0.5)),
        params: { sentence: s.text },
      }
    })
}

interface Run {
  said: readonly Said[]
  /** The number the count ends on. */
  end: number
  step: number
  findings: HeardFinding[]
}

/** Numbers said one after another, parted where the talk between them is more than one says while counting. */
function groupsOf(words: readonly HeardWord[], statements: readonly Statement[]): Said[][] {
  const stated = new Set(
    statements.flatMap((s) => Array.from({ length: s.to - s.from }, (_, k) => s.from + k)),
  )
  const said = numbersSaid(words, 0, words.length, (w, i) =>
    inCount(w) !== w && countsHere(words, i) ? inCount(w) : w,
  ).filter((s) => !stated.has(s.first))
  // "One parcel, two parcels": the same word after each number belongs to the count.
  const between = said.map((s, i) =>
    i + 1 < said.length
      ? words
          .slice(s.last + 1, said[i + 1]!.first)
          .map((w) => w.word)
          .filter((w) => !passedOver.has(w))
          .map((w) => w.replace(/s$/, ''))
      : [],
  )
  const same = (a: readonly string[] | undefined, b: readonly string[] | undefined): boolean =>
    !!a && !!b && a.length > 0 && a.join(' ') === b.join(' ')
  const groups: Said[][] = []
  said.forEach((s, i) => {
    const [gone, group] = [said[i - 1], groups.at(-1)]
    const talk = between[i - 1]
    const together =
      gone &&
      group &&
      talk &&
      s.start - gone.end <= 6 &&
      (talk.length === 0 || (talk.length <= 2 && (same(talk, between[i - 2]) || same(talk, between[i])))) &&
      !stated.has(gone.last + 1)
    if (together) group.push(s)
    else groups.push([s])
  })
  return groups
}
/** Whether "to" or "for" at i stands where the next number of a count would. */
function countsHere(words: readonly HeardWord[], i: number): boolean {
  const value = (k: number): number | null =>
    numbersSaid(words, Math.max(0, k), Math.max(0, k) + 1, (w) => (k === i ? inCount(w) : w))[0]?.n ?? null
  const [a, v, b] = [i > 0 ? value(i - 1) : null, value(i), value(i + 1)]
  if (a === null || v === null) return false
  if (b !== null) return v - a === b - v && Math.abs(v - a) <= 2
  const earlier = i > 1 ? value(i - 2) : null
  return (
    earlier !== null &&
    v - a === a - earlier &&
    Math.abs(v - a) === 1 &&
    ((words[i]!.mark !== undefined && words[i]!.mark !== '') ||
      (words[i + 1]?.start ?? Infinity) - words[i]!.end > 0.5)
  )
}

function countRuns(words: readonly HeardWord[], statements: readonly Statement[]): Run[] {
  const out: Run[] = []
  for (const group of groupsOf(words, statements)) {
    const { said: mended, findings: retries } = mendRetries(withoutTotal(group, words), words, null)
    let first = true
    for (const part of atRestarts([...withoutEcho(mended)])) {
      const found = progression(part)
      if (!found) continue
      const before = out.at(-1)
      const findings = [...judge(found, words), ...saidOver(part, found)]
      if (first && retries.length) findings.push(...retries)
      first = false
      // The same count once more, soon after, is a check and no slip.
      if (
        before &&
        found.span[0]!.n === before.said[0]!.n &&
        found.step === before.step &&
        found.span[0]!.start - before.said.at(-1)!.end < 12
      )
        findings.push({
          code: 'recount',
          start: found.span[0]!.start,
          end: found.span.at(-1)!.end,
          stepId: null,
          expected: '',
          heard: `${found.span[0]!.n} to ${found.end}`,
          certain: true,
          params: { case: 'free', from: found.span[0]!.n },
        })
      out.push({ said: found.span, end: found.end, step: found.step, findings })
    }
  }
  return out
}

/** "… four, five. Six bears altogether": what is announced after a count's full stop is its total and no part of it. */
function withoutTotal(group: readonly Said[], words: readonly HeardWord[]): readonly Said[] {
  const [last, before] = [group.at(-1)!, group.at(-2)]
  if (!before || group.length < 4) return group
  const list = words.slice(last.last + 1, last.last + 6).map((w) => w.word)
  if (!wholes.some((w) => list.some((_, k) => k <= 2 && w.every((x, i) => list[k + i] === x)))) return group
  const stops = group.slice(0, -1).map((s) => /[.!?]/.test(words[s.last]!.mark ?? ''))
  const gaps = group.slice(1).map((s, i) => s.start - group[i]!.end)
  const usual = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 2)]!
  // Where every number is a sentence, a full stop says nothing.
  const parted = stops.at(-1)! && stops.filter(Boolean).length <= stops.length / 2
  return parted || (gaps.at(-1)! > 0.5 && gaps.at(-1)! > usual * 1.8) ? group.slice(0, -1) : group
}
/** "A hundred, a hundred, a hundred, ninety": a count's first number said three times or more. Twice is how one sets off. */
function saidOver(part: readonly Said[], p: Progression): HeardFinding[] {
  const first = part.indexOf(p.span[0]!)
  const again = part.slice(0, first).filter((s) => s.n === p.start)
  if (again.length < 2 || first !== again.length) return []
  const said = part[first]!
  return [
    {
      code: 'count-repeat',
      start: part[1]!.start,
      end: said.end,
      stepId: null,
      expected: String(p.start + p.step),
      heard: String(p.start),
      certain: Math.min(...part.slice(0, first + 1).map((s) => s.confidence)) >= hearing.unsure,
      params: { case: 'sure', said: p.start },
    },
  ]
}

/** Parts a run of numbers where it starts over: three or more on their way, then back to where they began. */
function atRestarts(said: readonly Said[]): Said[][] {
  const parts: Said[][] = [[]]
  for (const s of said) {
    const part = parts.at(-1)!
    const [first, last] = [part[0], part.at(-1)]
    const way = first && last ? Math.sign(last.n - first.n) : 0
    if (part.length >= 3 && first && way !== 0 && (s.n - first.n) * way <= 0 && Math.abs(s.n - last!.n) > 1)
      parts.push([s])
    else part.push(s)
  }
  return parts
}

const steps = [1, -1, 2, -2, 10, -10, 5, -5, 3, -3, 4, -4, 100] as const
interface Progression {
  span: readonly Said[]
  step: number
  start: Seconds
  end: Seconds
}
/** The even walk that most of the numbers follow, as the longest chain with few gaps and few strangers; null when there is none. */
function progression(said: readonly Said[]): Progression | null {
  let best: { score: number; chain: number[]; step: number } | null = null
  for (const step of steps) {
    const score = said.map(() => 1)
    const from = said.map(() => -1)
    for (let i = 0; i < said.length; i++)
      for (let j = Math.max(0, i - 4); j < i; j++) {
        const k = (said[i]!.n - said[j]!.n) / step
        if (!Number.isInteger(k) || k < 1 || k > 4) continue
        const s = score[j]! + 1 - 0.55 * (k - 1) - 0.6 * (i - j - 1)
        if (s > score[i]!) [score[i], from[i]] = [s, j]
      }
    const last = score.reduce((b, s, i) => (s > score[b]! ? i : b), 0)
    if (best && score[last]! <= best.score + 1e-9) continue
    const chain: number[] = []
    for (let i = last; i >= 0; i = from[i]!) chain.unshift(i)
    best = { score: score[last]!, chain, step }
  }
  if (!best || best.chain.length < 3) return null
  const { chain, step } = best
  const links = chain.slice(1).map((i, k) => (said[i]!.n - said[chain[k]!]!.n) / step)
  const even = links.filter((k) => k === 1).length
  const span = said.slice(chain[0], chain.at(-1)! + 1)
  if (even < 2 || even < links.length * 0.6 || span.length - chain.length > span.length * 0.34) return null
  return { span, step, start: said[chain[0]!]!.n, end: said[chain.at(-1)!]!.n }
}

/** A count is one that begins where counts begin, goes on for five numbers, or was announced. */
function isCount(p: Progression, words: readonly HeardWord[]): boolean {
  const begins = p.start === 0 || p.start === p.step || (p.step < 0 && (p.start % 5 === 0 || p.end <= 1))
  const announced = words
    .slice(Math.max(0, p.span[0]!.first - 14), p.span[0]!.first)
    .some((w) => /^count/.test(w.word))
  return (
    (p.span.length >= 4 && (begins || announced)) || p.span.length >= 5 || (announced && p.span.length >= 3)
  )
}
/** Said soon after, these words show that the slip was meant or noticed. */
const noticed = new Set([
  'wrong',
  'mistake',
  'silly',
  'missed',
  'forgot',
  'forgotten',
  'oops',
  'whoops',
  'wait',
  'sorry',
  'uh-oh',
])

function judge(p: Progression, words: readonly HeardWord[]): HeardFinding[] {
  if (!isCount(p, words)) return []
  const planned = run(p.start, p.end, Math.abs(p.step))
  const after = p.span.at(-1)!
  const seen = words
    .slice(after.last + 1, after.last + 10)
    .some((w) => noticed.has(w.word) && w.start - after.end < 5)
  return countSlips(planned, p.span, null, words[after.last]?.mark === undefined).map((f) => ({
    ...f,
    certain: f.certain && !seen && !mostlyTeens(p) && p.span.length >= 4,
  }))
}

/** A run of teens with no script may be tens: the ear cannot tell fifteen from fifty. */
const mostlyTeens = (p: Progression): boolean =>
  p.span.filter((s) => s.n >= 13 && s.n <= 19).length >= p.span.length / 2

const totalLeads: readonly (readonly string[])[] = [
  ['so', "that's"],
  ["that's"],
  ['that', 'is'],
  ['that', 'makes'],
  ['there', 'are'],
  ["there's"],
  ['there', 'is'],
  ['we', 'have'],
  ["we've", 'got'],
  ['we', 'have', 'got'],
  ['i', 'have'],
  ["i've", 'got'],
  ['i', 'have', 'got'],
  ['you', 'have'],
  ["you've", 'got'],
  ['it', 'makes'],
  ['makes'],
  ['so'],
  ['i', 'counted'],
  ['we', 'counted'],
  ['he', 'has'],
  ['she', 'has'],
  ["he's", 'got'],
  ["she's", 'got'],
  ['they', 'have'],
  ['has'],
]
const wholes: readonly (readonly string[])[] = [
  ['altogether'],
  ['all', 'together'],
  ['in', 'total'],
  ['in', 'all'],
  ['in', 'the', 'whole'],
]
/** Between a count and its total these words begin something new. */
const somethingElse = new Set([
  'more',
  'another',
  'add',
  'plus',
  'take',
  'away',
  'left',
  'less',
  'fewer',
  'need',
  'if',
  'other',
  'double',
  'half',
  'next',
  'minus',
  'count',
  'now',
  'each',
  'first',
  'second',
  'group',
  'of',
  'these',
  'those',
  'only',
  'or',
])

const empty = new Set(
  'a an the so and there are is that makes we have i you now yes well right very good of them here oh then it all ones one things'.split(
    ' ',
  ),
)
/** "… three red ones. And there are four blue ones": another group is told, not the total of the first. */
function ofOthers(between: readonly string[], after: readonly string[]): boolean {
  const name = (w: string): string => w.replace(/s$/, '')
  const [counted, told] = [between, after.slice(0, 2)].map((l) => l.filter((w) => !empty.has(w)).map(name))
  return counted!.length > 0 && told!.length > 0 && !told!.some((w) => counted!.includes(w))
}

/** Whether the words between a count and the next number lead up to its total: "that makes", "how many". */
const announced = (between: readonly string[]): boolean =>
  totalLeads.some((w) => w.every((x, i) => between[between.length - w.length + i] === x)) ||
  between.slice(-3).join(' ').includes('how many')

/** The total announced after a count, where it is not what was counted. */
function totals(words: readonly HeardWord[], tokens: readonly Token[], runs: readonly Run[]): HeardFinding[] {
  const out: HeardFinding[] = []
  for (const r of runs) {
    if (r.step < 0 || r.said.length < 3) continue
    const last = r.said.at(-1)!
    const to = Math.min(words.length, last.last + 14)
    const next = numbersSaid(words, last.last + 1, to, (w) => w)[0]
    if (!next || next.start - last.end > 7 || next.n === r.end) continue
    const list = words.map((w) => w.word)
    const between = list.slice(last.last + 1, next.first)
    const after = list.slice(next.last + 1, next.last + 5)
    if (
      between.some((w) => somethingElse.has(w)) ||
      /^(more|less|fewer|add|plus|take|and|of|times|groups|lots|left|o'clock|is|equals|minus)$/.test(
        after[0] ?? '',
      )
    )
      continue
    const whole = wholes.some((w) => after.some((_, k) => k <= 2 && w.every((x, i) => after[k + i] === x)))
    if (!whole && !(announced(between) && Math.abs(next.n - r.end) <= 3)) continue
    const mixedUp = confusable(nameWords(next.n).join(' '), nameWords(r.end).join(' '))
    if (tokens[next.last]!.mark.includes('?') || (!whole && ofOthers(between, after))) continue
    out.push({
      code: 'total-mismatch',
      start: next.start,
      end: next.end,
      stepId: null,
      expected: String(r.end),
      heard: String(next.n),
      certain: !mixedUp && next.confidence >= hearing.unsure && (whole || Math.abs(next.n - r.end) <= 2),
      params: { case: 'free', counted: r.end, said: next.n },
    })
  }
  return out
}
