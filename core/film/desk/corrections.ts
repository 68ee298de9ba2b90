import type { Seconds } from '../../contracts/units.ts'
import type { Correction } from '../../contracts/correction.ts'
import {
  type HeardFinding,
  type HeardLine,
  type HeardWord,
  type Hearing,
  plainCodes,
} from '../../contracts/heard.ts'
import { spokenWordsOf } from '../follow/spoken.ts'

/** Heard words with every correction in place of what was recognised there; corrected words are certain. */
export function corrected(words: readonly HeardWord[], corrections: readonly Correction[]): HeardWord[] {
  let out = [...words]
  for (const c of corrections) {
    const said = spokenWordsOf(c.said)
    out = out.filter((w) => !((w.start + w.end) / 2 >= c.from - 0.01 && (w.start + w.end) / 2 <= c.to + 0.01))
    const each = (c.to - c.from) / Math.max(1, said.length)
    out.push(
      ...said.map((word, i) => ({
        word,
        start: c.from + i * each,
        end: c.from + (i + 1) * each,
        confidence: 1,
      })),
    )
  }
  return out.sort((a, b) => a.start - b.start)
}

/** Adds a correction to those there are; one for the same stretch is replaced, and those within it are taken up by it. */
export const withCorrection = (all: readonly Correction[], c: Correction): Correction[] =>
  [...all.filter((x) => x.from < c.from - 0.01 || x.to > c.to + 0.01), c].sort((a, b) => a.from - b.from)

/** Heard words from the first to the last that were matched in a line, with whatever lies between them; null where none was. */
export function heardIn(
  h: Pick<Hearing, 'words'>,
  l: HeardLine,
): { from: Seconds; to: Seconds; words: string } | null {
  const ats = l.words.flatMap((w) => (w.at === null ? [] : [w.at]))
  if (!ats.length) return null
  const words = h.words.slice(Math.min(...ats), Math.max(...ats) + 1)
  return { from: words[0]!.start, to: words.at(-1)!.end, words: words.map((w) => w.word).join(' ') }
}

/** Seconds an unheard line is taken to last: a little for each word. */
const lasting = (words: number): number => 0.35 * words + 0.3

/** The correction that says a finding's line was said as written; null where the finding belongs to no spoken line. */
export function saidAsWritten(h: Pick<Hearing, 'words' | 'lines'>, f: HeardFinding): Correction | null {
  const line = h.lines.find((l) => l.stepId === f.stepId)
  if (!line) return null
  const heard = f.code === 'line-skipped' ? null : heardIn(h, line)
  const [from, to] = heard
    ? [heard.from, heard.to]
    : [f.start + 0.05, Math.min(f.end - 0.05, f.start + lasting(line.words.length))]
  return {
    from,
    to: Math.max(from + 0.1, to),
    heard: heard?.words ?? '',
    said: line.words.map((w) => w.word).join(' '),
  }
}

/** Below this share of its words understood, a line in which no slip was found is one to listen to. */
const understoodShare = 0.5
/**
 * How a line of a take came out: `slip` where something found is about it, `unclear` where most of it was not
 * understood and nothing can be said of it, `clear` otherwise.
 */
export function lineState(h: Pick<Hearing, 'findings'>, l: HeardLine): 'slip' | 'unclear' | 'clear' {
  if (h.findings.some((f) => f.stepId === l.stepId && !plainCodes.has(f.code))) return 'slip'
  return l.words.filter((w) => w.status === 'said').length < l.words.length * understoodShare
    ? 'unclear'
    : 'clear'
}
