import type { Seconds } from '../../contracts/units.ts'
import { type Hearing, plainCodes } from '../../contracts/heard.ts'

/** A heard word as one should read it. Seconds into the take. */
export interface WordAsWritten {
  /** As the script writes it where it was understood; empty for a sound that stands for none of its words. */
  word: string
  /** What the recogniser made of it, where that is something else. */
  heard: string | null
  start: Seconds
  end: Seconds
}

/**
 * The words of a take as they should be read: where a line was understood and nothing was found wrong in it, the
 * script's own words stand in place of what the recogniser made of them. Where something was found, what was heard
 * stays, for that is what the finding is about.
 */
export function asWritten(h: Pick<Hearing, 'words' | 'lines' | 'findings'>): WordAsWritten[] {
  const out: WordAsWritten[] = h.words.map(({ word, start, end }) => ({ word, heard: null, start, end }))
  const wrong = h.findings.filter((f) => !plainCodes.has(f.code))
  for (const line of h.lines) {
    const matched = line.words.flatMap((w) => (w.at === null ? [] : [w.at]))
    if (!matched.length) continue
    const [first, last] = [Math.min(...matched), Math.max(...matched)]
    const [from, to] = [h.words[first]?.start ?? 0, h.words[last]?.end ?? 0]
    if (wrong.some((f) => f.end > from && f.start < to)) continue
    const written = new Map(line.words.flatMap((w) => (w.at === null ? [] : [[w.at, w.word] as const])))
    for (let i = first; i <= last; i++) {
      const now = out[i]
      const word = written.get(i) ?? ''
      if (now && now.word !== word) out[i] = { ...now, word, heard: now.word }
    }
  }
  return out
}
/** The words between two seconds, as they should be read and, where that differs, as they were heard. */
export function wordsBetween(
  words: readonly WordAsWritten[],
  from: Seconds,
  to: Seconds,
): { written: string; heard: string | null } {
  const mine = words.filter((w) => (w.start + w.end) / 2 >= from && (w.start + w.end) / 2 < to)
  const written = mine.flatMap((w) => (w.word ? [w.word] : [])).join(' ')
  const heard = mine.map((w) => w.heard ?? w.word).join(' ')
  return { written, heard: heard === written ? null : heard }
}
