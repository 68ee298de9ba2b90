import type { Seconds } from '../../contracts/units.ts'
import type { HeardFinding, HeardLine, HeardWord, ProposedDrop } from '../../contracts/heard.ts'
import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Segment } from '../../contracts/lesson.ts'
import { readSeconds } from '../../script/reading.ts'
import { simulate } from '../../script/simulate.ts'
import { timeOf } from '../../script/time.ts'
import type { Piece } from '../ear/chunks.ts'
import { hearing, round } from './limits.ts'
import type { SpokenLine } from '../follow/spoken.ts'
import { longestSilence, soundEnd } from '../ear/voiced.ts'

/** The silence written between two spoken lines. */
export interface Silent {
  /** Film seconds of what is done, written and waited for. */
  seconds: Seconds
  /** The wait among it, or null. */
  wait: number | null
  /** Whether the line before it is a question, or a pause of the film. */
  after: 'ask' | 'pause' | 'other'
}

/** What is written to be silent before each spoken line, and after the last: one more than there are lines. */
export function silentBetween(
  segment: Segment,
  lines: readonly SpokenLine[],
  age: number,
  style: HouseStyle,
): Silent[] {
  const spoken = new Map(lines.map((l, i) => [l.stepId, i]))
  const out = Array.from({ length: lines.length + 1 }, (): Silent => ({
    seconds: 0,
    wait: null,
    after: 'other',
  }))
  let next = 0
  for (const m of simulate({ segments: [segment] })) {
    const i = spoken.get(m.step.id)
    if (i === undefined) {
      out[next]!.seconds += timeOf(m, age, style).film
      if (m.step.verb === 'wait') out[next]!.wait = readSeconds(m.step.text) ?? style.defaultWait
      continue
    }
    next = i + 1
    const follows = segment.steps[m.stepIndex + 1]?.verb
    if (m.step.verb === 'ask') out[next]!.after = 'ask'
    if (m.step.verb === 'ask' && !m.step.task && follows !== 'wait' && follows !== 'pause')
      out[next]!.seconds += style.defaultWait
    if (m.step.verb === 'pause')
      out[next] = { ...out[next]!, after: 'pause', seconds: out[next]!.seconds + 4 }
  }
  return out
}

export interface Gaps {
  findings: HeardFinding[]
  drops: ProposedDrop[]
}
/**
 * The silences of a take against what is written: dead air, waits cut short, waits kept. `lineOf` says which line each
 * heard word belongs to; `used` are words of tries given up, beside which silence is already dropped.
 */
export function gapsOf(
  lines: readonly SpokenLine[],
  per: readonly HeardLine[],
  heard: readonly HeardWord[],
  lineOf: readonly (number | null)[],
  silent: readonly Silent[],
  used: ReadonlySet<number>,
  duration: Seconds,
  voiced: readonly Piece[] = [],
): Gaps {
  const out: Gaps = { findings: [], drops: [] }
  let previous = -1
  for (let k = 0; k < heard.length; k++) {
    const line = used.has(k) ? null : lineOf[k]!
    if (previous >= 0 && !used.has(k) && !used.has(k - 1))
      between(out, lines, heard, lineOf, silent, previous, k, line, voiced)
    if (line !== null) {
      const before = previous >= 0 ? lineOf[previous]! : -1
      if (before >= 0 && line > before) waitKept(out, lines, per, heard, silent, before, line, previous, k)
      previous = k
    }
  }
  if (heard[0]!.start > 1.5 + silent[0]!.seconds)
    out.drops.push({
      from: 0,
      to: heard[0]!.start - 0.5 - silent[0]!.seconds,
      reason: 'silence',
      note: 'before the first word',
    })
  const tail = silent[lines.length]?.seconds ?? 0
  const last = heard.at(-1)!.end
  if (duration - last > tail + hearing.deadAir)
    out.drops.push({ from: last + tail + 0.5, to: duration, reason: 'silence', note: 'after the last word' })
  return { ...out, drops: out.drops.filter((d) => d.to - d.from > 0.2) }
}

/** The gap between two heard words, one after the other, against what may be silent there. */
function between(
  out: Gaps,
  lines: readonly SpokenLine[],
  heard: readonly HeardWord[],
  lineOf: readonly (number | null)[],
  silent: readonly Silent[],
  previous: number,
  k: number,
  line: number | null,
  voiced: readonly Piece[],
): void {
  const before = lineOf[previous]!
  const { from, to } = longestSilence(voiced, soundEnd(voiced, heard[k - 1]!.end), heard[k]!.start)
  // A word that belongs to no line stands with the line that comes next: the silence before it was that line's.
  const now = line ?? lineOf.slice(k).find((l) => l !== null) ?? lines.length
  const count = lines[Math.min(now, lines.length - 1)]!.numbers !== null
  const allowed =
    now > before ? silent.slice(before + 1, now + 1).reduce((s, x) => s + x.seconds, 0) : count ? 1.5 : 0
  const gap = to - from
  const stepId = lines[Math.min(now, lines.length - 1)]!.stepId
  if (now === before && !count && gap > hearing.deadAirInLine && gap <= hearing.deadAir) {
    out.drops.push({
      from: from + 0.5,
      to: to - hearing.margin,
      reason: 'silence',
      note: `${round(gap)} s within a line`,
    })
    return
  }
  if (gap <= allowed + hearing.deadAir) return
  out.findings.push({
    code: 'dead-air',
    start: from,
    end: to,
    stepId,
    expected: `${round(allowed)} s`,
    heard: `${round(gap)} s`,
    certain: true,
    params: { case: 'long', silent: round(gap), written: round(allowed) },
  })
  // What is written stays; only what is over it goes.
  out.drops.push({
    from: from + allowed + hearing.margin,
    to: to - hearing.margin,
    reason: 'silence',
    note: `${round(gap - allowed)} s`,
  })
}

/** A question with a written wait, then its answer: how long was really left. Only where the question itself was heard to its end. */
function waitKept(
  out: Gaps,
  lines: readonly SpokenLine[],
  per: readonly HeardLine[],
  heard: readonly HeardWord[],
  silent: readonly Silent[],
  before: number,
  line: number,
  previous: number,
  k: number,
): void {
  const written = silent[before + 1]!
  if (written.wait === null || written.after !== 'ask') return
  const asked = per[before]!.words
  if (
    asked.filter((w) => w.at !== null).length < asked.length * 0.5 ||
    (asked.at(-1)!.at === null && asked.at(-2)?.at === null)
  )
    return
  // Talk that is in no script counts as the teacher going on, unless it only fills the silence.
  const talk = heard.slice(previous + 1, k).filter((w) => w.confidence >= 0.5)
  const end = heard[previous]!.end
  const gap = (talk[0]?.start ?? heard[k]!.start) - end
  const left = heard[k]!.start - end - talk.reduce((s, w) => s + w.end - w.start, 0)
  const limit = Math.min(hearing.shortestWait, written.wait * hearing.waitShare)
  const at = {
    start: end,
    end: heard[k]!.start,
    stepId: lines[before]!.stepId,
    expected: `${written.wait} s`,
    heard: `${round(Math.max(gap, left))} s`,
  }
  if (Math.max(gap, left) >= limit) {
    out.findings.push({
      code: 'wait',
      ...at,
      certain: true,
      params: { left: round(Math.max(gap, left)) },
    })
    return
  }
  // Where a line in between was left out as well, the next line heard may not be the answer.
  const certain = line === before + 1
  out.findings.push({
    code: gap < hearing.early ? 'answer-early' : 'wait-short',
    ...at,
    certain,
    params: { written: written.wait, left: round(Math.max(gap, left)) },
  })
}
