import { z } from 'zod'
import type { HeardWord } from '../contracts/heard.ts'
import { spokenWordsOf } from './spoken.ts'

/** What a person typed for a stretch of a take that was recognised wrong. Seconds; `said` is empty where nothing was said. */
export const Correction = z.object({ from: z.number().min(0), to: z.number().min(0), heard: z.string().max(400), said: z.string().max(400) })
export type Correction = z.infer<typeof Correction>

/** Heard words with every correction in place of what was recognised there; corrected words are certain. */
export function corrected(words: readonly HeardWord[], corrections: readonly Correction[]): HeardWord[] {
  let out = [...words]
  for (const c of corrections) {
    const said = spokenWordsOf(c.said)
    out = out.filter((w) => !((w.start + w.end) / 2 >= c.from - 0.01 && (w.start + w.end) / 2 <= c.to + 0.01))
    const each = (c.to - c.from) / Math.max(1, said.length)
    out.push(...said.map((word, i) => ({ word, start: c.from + i * each, end: c.from + (i + 1) * each, confidence: 1 })))
  }
  return out.sort((a, b) => a.start - b.start)
}

/** Adds a correction to those there are; one for the same stretch is replaced, and those within it are taken up by it. */
export const withCorrection = (all: readonly Correction[], c: Correction): Correction[] =>
  [...all.filter((x) => x.from < c.from - 0.01 || x.to > c.to + 0.01), c].sort((a, b) => a.from - b.from)
