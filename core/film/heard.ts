import { type HeardFinding, type HeardLine, type HeardWord, type Hearing, plainCodes, type ProposedDrop } from '../contracts/heard.ts'
import { type HouseStyle, defaultHouseStyle } from '../contracts/house-style.ts'
import type { Segment } from '../contracts/lesson.ts'
import { readSeconds } from '../script/reading.ts'
import { isTrue, sentencesIn, inSigns } from '../script/sentence.ts'
import { simulate } from '../script/simulate.ts'
import { timeOf } from '../script/time.ts'
import { align, type Alignment, confusable, type ExpectedWord, soundsLike } from './align.ts'
import { countFindings } from './count-heard.ts'
import { numberWords, slipWords } from './language-model.ts'
import { spokenLines, type SpokenLine } from './spoken.ts'

/** Limits of hearing, in seconds unless said otherwise, each with its reason. */
export const hearing = {
  /** Silence beyond what is written before it is called dead air: a breath and a look at the notes. */
  deadAir: 3,
  /** Within one line nothing is awaited: two seconds is a lost thread. */
  deadAirInLine: 2.2,
  /** Silence left at each side of a drop so that speech is not clipped. */
  margin: 0.25,
  /** A wait is cut short under three seconds (Rowe 1974) or under three fifths of what was written. */
  waitShare: 0.6, shortestWait: 3,
  /** Below this share of its words heard, a line counts as skipped. */
  skippedShare: 0.34,
  /** Words a minute, while speaking, beyond which something is wrong: inside one good film it runs from 60 (counting) to over 200 (asides). */
  slowest: 45, fastest: 260,
} as const

const clean = (words: readonly HeardWord[]): HeardWord[] => words.map((w) => ({ ...w, word: w.word.toLowerCase().replace(/[‘’]/g, "'") }))

/**
 * Holds a take against its segment. `words` come from recognition or captions, in order; `duration` is the
 * take's length in seconds. A take in which everything was said as written gives no finding but plain ones.
 */
export function hear(segment: Segment, words: readonly HeardWord[], duration: number, options: { style?: HouseStyle; age?: number; unpronounced?: string[] } = {}): Hearing {
  const style = options.style ?? defaultHouseStyle
  const heard = clean(words)
  const lines = spokenLines(segment, style)
  const expected: ExpectedWord[] = lines.flatMap((l, line) => l.words.map((word) => ({ word, line })))
  const alignment = align(expected, heard)
  const perLine = linesHeard(lines, expected, alignment, heard)
  const silent = silentBetween(segment, lines, options.age ?? 4, style)
  const findings: HeardFinding[] = []
  const drops: ProposedDrop[] = []
  if (heard.length === 0) {
    if (lines.length) findings.push({ code: 'dead-air', start: 0, end: duration, stepId: lines[0]!.stepId, expected: lines[0]!.text, heard: '', certain: true, message: 'Nothing was heard in this take.' })
    return { words: heard, lines: perLine, findings, drops, pace: null, quality: 0, unpronounced: options.unpronounced ?? [] }
  }
  const restarts = falseStarts(lines, perLine, alignment, heard)
  findings.push(...restarts.findings)
  drops.push(...restarts.drops)
  lines.forEach((line, i) => {
    if (line.deliberate) return
    const l = perLine[i]!
    const share = l.words.filter((w) => w.status === 'said').length / l.words.length
    if (share < hearing.skippedShare && !(line.numbers && share > 0)) {
      findings.push(skipped(line, i, perLine, duration))
      return
    }
    if (line.numbers) findings.push(...countFindings(line, l, heard, restarts.used))
    else findings.push(...numberChanges(line, l, heard))
  })
  const air = silences(lines, perLine, heard, duration, silent, restarts.used)
  findings.push(...air.findings)
  drops.push(...air.drops)
  const pace = paceOf(heard)
  if (pace !== null && (pace > hearing.fastest || pace < hearing.slowest))
    findings.push({ code: 'pace', start: 0, end: duration, stepId: null, expected: `${hearing.slowest}–${hearing.fastest}`, heard: String(Math.round(pace)), certain: true, message: `Spoken at ${Math.round(pace)} words a minute.` })
  findings.sort((a, b) => a.start - b.start)
  drops.sort((a, b) => a.from - b.from)
  return { words: heard, lines: perLine, findings, drops, pace, quality: qualityOf(findings), unpronounced: options.unpronounced ?? [] }
}

const weight: Partial<Record<HeardFinding['code'], number>> = { 'count-skip': 25, 'count-repeat': 15, 'count-order': 25, 'false-sentence': 30, 'number-changed': 20, 'line-skipped': 20, 'false-start': 8, 'dead-air': 6, 'wait-short': 8, 'answer-early': 10 }
const qualityOf = (findings: readonly HeardFinding[]): number =>
  Math.max(0, Math.round(100 - findings.reduce((s, f) => s + (plainCodes.has(f.code) ? 0 : (weight[f.code] ?? 3) * (f.certain ? 1 : 0.5)), 0)))

function linesHeard(lines: readonly SpokenLine[], expected: readonly ExpectedWord[], a: Alignment, heard: readonly HeardWord[]): HeardLine[] {
  let k = 0
  return lines.map((l) => {
    const words = l.words.map((word) => {
      const at = a.heardFor[k]!
      const status = at === null ? 'missing' as const : a.same[k] || doublesAs(expected[k]!.word, heard[at]!.word) ? 'said' as const : 'changed' as const
      k++
      return { word, at, status }
    })
    const ats = words.flatMap((w) => (w.at === null ? [] : [w.at]))
    return { stepId: l.stepId, words, start: ats.length ? heard[ats[0]!]!.start : null, end: ats.length ? heard[ats.at(-1)!]!.end : null }
  })
}
const doublesAs = (e: string, h: string): boolean => soundsLike(e, h)

function skipped(line: SpokenLine, i: number, all: readonly HeardLine[], duration: number): HeardFinding {
  const before = all.slice(0, i).reverse().find((l) => l.end !== null)?.end ?? 0
  const after = all.slice(i + 1).find((l) => l.start !== null)?.start ?? duration
  return { code: 'line-skipped', start: before, end: Math.max(before, after), stepId: line.stepId, expected: line.text, heard: '', certain: line.words.length >= 4, message: `“${line.text}” was not heard.` }
}

/** Numbers in a line that came out as another number, and sentences that came out false. */
function numberChanges(line: SpokenLine, l: HeardLine, heard: readonly HeardWord[]): HeardFinding[] {
  const out: HeardFinding[] = []
  l.words.forEach((w, k) => {
    if (w.status !== 'changed' || w.at === null) return
    const h = heard[w.at]!
    if (!numberWords.has(w.word) || !numberWords.has(h.word)) return
    // A pair the recogniser mixes up, or one lone word among neighbours it missed, is a doubt.
    const neighbours = [l.words[k - 1], l.words[k + 1]].filter((x) => x !== undefined)
    const certain = !confusable(w.word, h.word) && neighbours.every((x) => x.status === 'said') && h.confidence >= 0.75
    if (h.confidence < 0.5 && !certain) return
    out.push({ code: 'number-changed', start: h.start, end: h.end, stepId: line.stepId, expected: w.word, heard: h.word, certain, message: `“${w.word}” came out as “${h.word}”.` })
  })
  if (out.length) {
    const said = l.words.map((w) => (w.at === null ? w.word : w.status === 'said' ? w.word : heard[w.at]!.word)).join(' ')
    const wrong = sentencesIn(said).find((s) => !isTrue(s))
    if (wrong && sentencesIn(line.words.join(' ')).every(isTrue))
      out.push({ code: 'false-sentence', start: l.start!, end: l.end!, stepId: line.stepId, expected: line.words.join(' '), heard: inSigns(wrong), certain: out.every((f) => f.certain), message: `${inSigns(wrong)} was said, and it is not true.` })
  }
  return out
}

/** Extra words that begin a line which is then said again: the first attempt is the false start. */
function falseStarts(lines: readonly SpokenLine[], per: readonly HeardLine[], a: Alignment, heard: readonly HeardWord[]): { findings: HeardFinding[]; drops: ProposedDrop[]; used: Set<number> } {
  const findings: HeardFinding[] = []
  const drops: ProposedDrop[] = []
  const used = new Set<number>()
  const slip = new Set<string>(slipWords)
  for (const [first, after] of a.inserted) {
    const block = heard.slice(first, after)
    const words = block.map((w) => w.word)
    const next = per.findIndex((l) => l.words.some((w) => w.at !== null && w.at >= after))
    const isSlip = words.some((w) => slip.has(w) && w !== 'no')
    const candidates = [next, next - 1].filter((i) => i >= 0)
    const line = candidates.find((i) => startsLike(words.filter((w) => !slip.has(w)), lines[i]!.words))
    const spoken = words.filter((w) => !slip.has(w))
    if (line !== undefined && (spoken.length >= 2 || (spoken.length >= 1 && isSlip))) {
      for (let k = first; k < after; k++) used.add(k)
      const [start, end] = [block[0]!.start, heard[after]?.start ?? block.at(-1)!.end]
      findings.push({ code: 'false-start', start, end: block.at(-1)!.end, stepId: lines[line]!.stepId, expected: lines[line]!.text, heard: words.join(' '), certain: true, message: `Started “${spoken.join(' ')}”, then again.` })
      drops.push({ from: Math.max(0, start - 0.08), to: Math.max(start, end - 0.12), reason: 'false start', note: words.join(' ') })
    } else if (words.every((w) => w === 'um' || w === 'oops') && block.every((w) => w.confidence >= 0.5)) {
      for (let k = first; k < after; k++) used.add(k)
      findings.push({ code: 'filler', start: block[0]!.start, end: block.at(-1)!.end, stepId: null, expected: '', heard: words.join(' '), certain: false, message: `“${words.join(' ')}” was heard.` })
    }
  }
  return { findings, drops, used }
}
/** The extra words follow the line from its start, at most two of five amiss: a start is broken off because it went wrong. */
function startsLike(extra: readonly string[], line: readonly string[]): boolean {
  if (extra.length === 0 || extra.length > line.length + 2) return false
  const matches = extra.filter((w, i) => line[i] !== undefined && soundsLike(w, line[i])).length
  return soundsLike(extra[0]!, line[0]!) && matches >= Math.ceil(extra.length * 0.6)
}

/** Film seconds of silent steps (done, written, waited) before each spoken line, and whether a wait is among them. */
function silentBetween(segment: Segment, lines: readonly SpokenLine[], age: number, style: HouseStyle): { seconds: number; wait: number | null; asked: boolean }[] {
  const moments = simulate({ segments: [segment] })
  const spoken = new Map(lines.map((l, i) => [l.stepId, i]))
  const out = Array.from({ length: lines.length + 1 }, () => ({ seconds: 0, wait: null as number | null, asked: false }))
  let next = 0
  for (const m of moments) {
    const i = spoken.get(m.step.id)
    if (i !== undefined) {
      next = i + 1
      out[next]!.asked = m.step.verb === 'ask'
      const follows = segment.steps[m.stepIndex + 1]?.verb
      if (m.step.verb === 'ask' && !m.step.task && follows !== 'wait' && follows !== 'pause') out[next]!.seconds += style.defaultWait
      if (m.step.verb === 'pause') out[next]!.seconds += 4
      continue
    }
    const t = timeOf(m, age, style).film
    out[next]!.seconds += t
    if (m.step.verb === 'wait') out[next]!.wait = readSeconds(m.step.text) ?? style.defaultWait
  }
  return out
}

const nextLine = (lineOf: ReadonlyMap<number, number>, k: number, end: number): number | undefined => {
  for (let i = k; i < end; i++) if (lineOf.has(i)) return lineOf.get(i)
  return undefined
}

function silences(lines: readonly SpokenLine[], per: readonly HeardLine[], heard: readonly HeardWord[], duration: number, silent: readonly { seconds: number; wait: number | null; asked: boolean }[], restarts: ReadonlySet<number>): { findings: HeardFinding[]; drops: ProposedDrop[] } {
  const findings: HeardFinding[] = []
  const drops: ProposedDrop[] = []
  const lineOf = new Map<number, number>()
  per.forEach((l, i) => l.words.forEach((w) => w.at !== null && lineOf.set(w.at, i)))
  const gapAt = (from: number, to: number, allowed: number, stepId: string | null) => {
    const gap = to - from
    if (gap <= allowed + hearing.deadAir) return
    findings.push({ code: 'dead-air', start: from, end: to, stepId, expected: `${round(allowed)} s`, heard: `${round(gap)} s`, certain: true, message: `Silence of ${round(gap)} s; ${round(allowed)} s is written here.` })
    // What is written stays; only what is over it goes.
    drops.push({ from: from + allowed + hearing.margin, to: to - hearing.margin, reason: 'silence', note: `${round(gap - allowed)} s` })
  }
  let previous = -1
  for (let k = 0; k < heard.length; k++) {
    const line = lineOf.get(k)
    if (previous >= 0) {
      const before = lineOf.get(previous)!
      const [from, to] = [heard[k - 1]!.end, heard[k]!.start]
      // A word that belongs to no line stands with the line that comes next: the silence before it was that line's.
      const now = line ?? nextLine(lineOf, k, heard.length) ?? before
      const count = lines[now]!.numbers !== null
      const allowed = now > before ? silent.slice(before + 1, now + 1).reduce((s, x) => s + x.seconds, 0) : count ? 1.5 : 0
      // Beside a false start the silence is already dropped with it.
      if (!restarts.has(k) && !restarts.has(k - 1)) {
        if (now === before && !count && to - from > hearing.deadAirInLine && to - from <= hearing.deadAir)
          drops.push({ from: from + 0.5, to: to - hearing.margin, reason: 'silence', note: `${round(to - from)} s within a line` })
        else gapAt(from, to, allowed, lines[now]!.stepId)
      }
      const wait = now > before ? silent[before + 1]! : null
      if (wait?.asked && wait.wait !== null && line !== undefined && !restarts.has(k)) {
        const gap = heard[k]!.start - heard[previous]!.end
        if (gap < Math.min(hearing.shortestWait, wait.wait * hearing.waitShare))
          findings.push({ code: gap < 1 ? 'answer-early' : 'wait-short', start: heard[previous]!.end, end: heard[k]!.start, stepId: lines[before]!.stepId, expected: `${wait.wait} s`, heard: `${round(gap)} s`, certain: true, message: `A wait of ${wait.wait} s is written; ${round(gap)} s was left.` })
      }
    }
    if (line !== undefined) previous = k
  }
  if (heard[0]!.start > 1.5 + silent[0]!.seconds) drops.push({ from: 0, to: heard[0]!.start - 0.5 - silent[0]!.seconds, reason: 'silence', note: 'before the first word' })
  const tail = silent[lines.length]?.seconds ?? 0
  const last = heard.at(-1)!.end
  if (duration - last > tail + hearing.deadAir) drops.push({ from: last + tail + 0.5, to: duration, reason: 'silence', note: 'after the last word' })
  return { findings, drops: drops.filter((d) => d.to - d.from > 0.2) }
}

const round = (n: number): number => Math.round(n * 10) / 10
function paceOf(words: readonly HeardWord[]): number | null {
  // Only while speaking: gaps over a second are waits, handling or breath.
  let seconds = 0
  words.forEach((w, i) => {
    seconds += w.end - w.start + (i ? Math.min(1, Math.max(0, w.start - words[i - 1]!.end)) : 0)
  })
  return words.length >= 25 && seconds > 0 ? words.length / (seconds / 60) : null
}
