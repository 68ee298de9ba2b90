import { type HeardFinding, type HeardLine, type HeardWord, type Hearing, plainCodes } from '../contracts/heard.ts'
import type { Piece } from './chunks.ts'
import { qualityOf } from './heard.ts'

/** Codes that rest on which words were recognised, not on when. */
const ofWords: ReadonlySet<HeardFinding['code']> = new Set(['count-skip', 'count-repeat', 'count-order', 'count-end', 'total-mismatch', 'false-sentence', 'number-changed', 'line-skipped', 'false-start'])
const matters = (f: HeardFinding): boolean => !plainCodes.has(f.code) && ofWords.has(f.code)
/** Seconds listened to around a finding, and how far apart two hearings of one slip may lie. */
const [around, near] = [6, 1.2]

/**
 * The stretches worth listening to a second time: around every finding that rests on what was recognised, ended in
 * silence where there is some. Times in seconds; none overlap.
 */
export function doubtful(h: Pick<Hearing, 'findings' | 'words'>, duration: number): Piece[] {
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
  for (let k = words.length - 1; k > 0; k--) if (words[k]!.start <= t && words[k]!.start - words[k - 1]!.end > 0.5) return (words[k]!.start + words[k - 1]!.end) / 2
  return 0
}
function quietAfter(words: readonly HeardWord[], t: number, duration: number): number {
  for (let k = 1; k < words.length; k++) if (words[k - 1]!.end >= t && words[k]!.start - words[k - 1]!.end > 0.5) return (words[k]!.start + words[k - 1]!.end) / 2
  return duration
}

/** The words of a take with those of the stretches heard again in place of the first ones. */
export const withSecond = (words: readonly HeardWord[], again: readonly HeardWord[], stretches: readonly Piece[]): HeardWord[] =>
  [...words.filter((w) => !stretches.some((s) => (w.start + w.end) / 2 >= s.from && (w.start + w.end) / 2 < s.to)), ...again].sort((a, b) => a.start - b.start)

/**
 * Two hearings of one take: what only one ear found is a doubt; a doubt of the first is let go where the second heard
 * the line as written (`lines` of the second hearing; with no script there are none, and it goes).
 */
export function agreedFindings(first: readonly HeardFinding[], second: readonly HeardFinding[], lines: readonly HeardLine[]): HeardFinding[] {
  const close = (a: HeardFinding, b: HeardFinding): boolean => a.start <= b.end + near && a.end >= b.start - near
  const shared = (f: HeardFinding): boolean => second.some((s) => family(s.code) === family(f.code) && close(f, s))
  const asWritten = (f: HeardFinding): boolean => lines.find((l) => l.stepId === f.stepId)?.words.every((w) => w.status === 'said') ?? true
  const kept = first.flatMap((f) => (!matters(f) || shared(f) ? [f] : f.certain || !asWritten(f) ? [{ ...f, certain: false }] : []))
  const more = second.filter((f) => matters(f) && f.certain && f.code !== 'line-skipped' && f.code !== 'false-start' && !kept.some((k) => matters(k) && close(k, f))).map((f) => ({ ...f, certain: false }))
  return [...kept, ...more].sort((a, b) => a.start - b.start)
}
/** The first hearing with what both agree on. `second` is the hearing of `withSecond`. */
export function agreed(first: Hearing, second: Pick<Hearing, 'findings' | 'lines'>): Hearing {
  const findings = agreedFindings(first.findings, second.findings, second.lines)
  return { ...first, findings, quality: qualityOf(findings) }
}
/** A number heard wrong may be told as a number, a total or a sentence, depending on the words around it. */
const family = (code: HeardFinding['code']): string => (['number-changed', 'total-mismatch', 'false-sentence'].includes(code) ? 'number' : code)
