import type { Seconds } from '../../contracts/units.ts'
import { type HeardFinding, type HeardLine, type HeardWord, type Hearing } from '../../contracts/heard.ts'
import type { Piece } from '../ear/chunks.ts'
import { qualityOf } from './heard.ts'
import { ofWords } from './limits.ts'
import type { SpokenLine } from '../follow/spoken.ts'

const matters = (f: HeardFinding): boolean => ofWords.has(f.code)
/** Seconds listened to around a finding, and how far apart two hearings of one slip may lie. */
const [around, near] = [6, 1.2]

/**
 * The stretches worth listening to a second time: around every finding that rests on what was recognised, ended in
 * silence where there is some. Times in seconds; none overlap.
 */
export function doubtful(h: Pick<Hearing, 'findings' | 'words'>, duration: Seconds): Piece[] {
  const out: Piece[] = []
  for (const f of h.findings.filter(matters)) {
    const from = quietBefore(h.words, Math.max(0, f.start - around))
    const to = quietAfter(h.words, Math.min(duration, f.end + around), duration)
    const last = out.at(-1)
    if (last && from <= last.to) last.to = Math.max(last.to, to)
    else out.push({ from, to })
  }
  return out
}
function quietBefore(words: readonly HeardWord[], t: number): number {
  for (let k = words.length - 1; k > 0; k--)
    if (words[k]!.start <= t && words[k]!.start - words[k - 1]!.end > 0.5)
      return (words[k]!.start + words[k - 1]!.end) / 2
  return 0
}
function quietAfter(words: readonly HeardWord[], t: number, duration: Seconds): number {
  for (let k = 1; k < words.length; k++)
    if (words[k - 1]!.end >= t && words[k]!.start - words[k - 1]!.end > 0.5)
      return (words[k]!.start + words[k - 1]!.end) / 2
  return duration
}

/**
 * The stretches in which a segment's counts were said, from a breath before the first number to two beats after the
 * last, and never into what another line says. Times in seconds; none overlap.
 */
export function countsIn(h: Pick<Hearing, 'words' | 'lines'>, lines: readonly SpokenLine[]): Piece[] {
  const out: Piece[] = []
  const taken = h.lines.flatMap((l, i) =>
    lines[i]?.numbers ? [] : l.words.flatMap((w) => (w.at === null ? [] : [h.words[w.at]!])),
  )
  h.lines.forEach((l, i) => {
    const ats = l.words.flatMap((w) => (w.at === null ? [] : [h.words[w.at]!]))
    if (!lines[i]?.numbers || ats.length < 2) return
    const [start, end] = [ats[0]!.start, ats.at(-1)!.end]
    const beat = Math.min(2, (ats.at(-1)!.start - start) / Math.max(1, ats.length - 1))
    const before = Math.max(0, ...taken.filter((w) => w.end <= start + 0.05).map((w) => w.end))
    const after = Math.min(Infinity, ...taken.filter((w) => w.start >= end - 0.05).map((w) => w.start))
    const piece = { from: Math.max(before + 0.03, start - 0.5), to: Math.min(after - 0.03, end + beat * 2) }
    if (piece.to - piece.from > 0.5 && (out.at(-1)?.to ?? -1) <= piece.from) out.push(piece)
  })
  return out
}

/**
 * The words of a take with those of the stretches heard again in place of the first ones. At the edge of a stretch a
 * word may be cut through: what was heard whole the first time stays, and what overlaps it is let go.
 */
export function withSecond(
  words: readonly HeardWord[],
  again: readonly HeardWord[],
  stretches: readonly Piece[],
): HeardWord[] {
  const middle = (w: HeardWord): number => (w.start + w.end) / 2
  const stays = words.filter((w) => !stretches.some((s) => middle(w) >= s.from && middle(w) < s.to))
  const edges = stays.filter((w) =>
    stretches.some((s) => (w.start < s.from && w.end > s.from) || (w.start < s.to && w.end > s.to)),
  )
  const clear = (w: HeardWord): boolean =>
    edges.every(
      (x) =>
        Math.min(w.end, x.end) - Math.max(w.start, x.start) <
        0.4 * Math.min(w.end - w.start, x.end - x.start),
    )
  return [...stays, ...again.filter(clear)].sort((a, b) => a.start - b.start)
}

/**
 * Two hearings of one take: what only one ear found is a doubt; a doubt of the first is let go where the second heard
 * the line as written (`lines` of the second hearing; with no script there are none, and it goes).
 */
export function agreedFindings(
  first: readonly HeardFinding[],
  second: readonly HeardFinding[],
  lines: readonly HeardLine[],
): HeardFinding[] {
  const close = (a: HeardFinding, b: HeardFinding): boolean =>
    a.start <= b.end + near && a.end >= b.start - near
  const shared = (f: HeardFinding): boolean =>
    second.some((s) => family(s.code) === family(f.code) && close(f, s))
  const asWritten = (f: HeardFinding): boolean =>
    lines.find((l) => l.stepId === f.stepId)?.words.every((w) => w.status === 'said') ?? true
  const kept = first.flatMap((f) =>
    !matters(f) || shared(f) ? [f] : f.certain || !asWritten(f) ? [{ ...f, certain: false }] : [],
  )
  const more = second
    .filter(
      (f) =>
        matters(f) &&
        f.certain &&
        f.code !== 'line-skipped' &&
        f.code !== 'false-start' &&
        !kept.some((k) => matters(k) && close(k, f)),
    )
    .map((f) => ({ ...f, certain: false }))
  return [...kept, ...more].sort((a, b) => a.start - b.start)
}
/** The first hearing with what both agree on. `second` is the hearing of `withSecond`. */
export function agreed(first: Hearing, second: Pick<Hearing, 'findings' | 'lines'>): Hearing {
  const findings = agreedFindings(first.findings, second.findings, second.lines)
  return { ...first, findings, quality: qualityOf(findings, first.understood) }
}
/** A number heard wrong may be told as a number, a total or a sentence, depending on the words around it. */
const family = (code: HeardFinding['code']): string =>
  ['number-changed', 'total-mismatch', 'false-sentence'].includes(code) ? 'number' : code
