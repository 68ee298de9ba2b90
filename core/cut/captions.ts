import type { CutSegment } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import type { Segment } from '../contracts/lesson.ts'
import type { Cue } from '../film/captions.ts'
import { spokenWordsOf } from '../film/spoken.ts'
import { numberName } from '../plan/numbers/names.ts'
import { pauseWords, readCount } from '../script/reading.ts'
import { layOut, segmentFrames, stretchesOf, toSeconds } from './timeline.ts'

/** Caption limits: two lines of about 32 letters suit a phone; under a second nobody can read one. */
export const captionLimits = { letters: 64, shortest: 1 } as const

export interface CaptionPart {
  segment: Segment
  cut: Pick<CutSegment, 'items'>
  /** Of every take that is shown, by its id. */
  hearings: ReadonlyMap<string, Hearing>
}

/** Captions of a film: the script's words, timed by what was heard, in the cut's own time. */
export function captionsOf(parts: readonly CaptionPart[]): Cue[] {
  const cues: Cue[] = []
  let at = 0
  for (const p of parts) {
    const mine: Cue[] = []
    for (const [takeId, hearing] of p.hearings)
      for (const line of hearing.lines) {
        const step = p.segment.steps.find((s) => s.id === line.stepId)
        if (!step || line.start === null) continue
        for (const piece of pieces(captionText(step.verb, step.text), line, hearing))
          for (const left of stretchesOf(p.cut, takeId, piece.start, piece.end)) {
            // Of a line cut down to a breath nothing is worth reading.
            if (left.end - left.start >= 0.2) mine.push({ start: at + left.start, end: at + left.end, text: piece.text })
          }
      }
    for (const { item, at: from } of layOut(p.cut)) if (item.kind === 'card') mine.push({ start: at + toSeconds(from), end: at + toSeconds(from + item.frames), text: [item.title, ...item.lines].join(' ') })
    cues.push(...mine.sort((a, b) => a.start - b.start))
    at += toSeconds(segmentFrames(p.cut))
  }
  // A caption stays a moment longer to be read, but never into the next one.
  return cues.map((c, i) => ({ ...c, end: Math.min(Math.max(c.end + 0.3, c.start + captionLimits.shortest), cues[i + 1]?.start ?? Infinity, Math.max(at, c.start + 0.1)) })).filter((c) => c.end > c.start)
}

/** What a line of script says as a caption: a count as its numbers in words, a pause without its seconds. */
export function captionText(verb: string, text: string): string {
  const count = verb === 'count' ? readCount(text) : null
  if (count) return count.numbers.map((n) => numberName(n)).join(', ')
  return verb === 'pause' ? pauseWords(text) : text
}

/** Parts a long line into captions, each timed by its own words. */
function pieces(text: string, line: Hearing['lines'][number], hearing: Hearing): Cue[] {
  const words = text.split(/\s+/).filter(Boolean)
  const groups: string[][] = [[]]
  for (const w of words) {
    const g = groups.at(-1)!
    if (g.length && g.join(' ').length + w.length + 1 > captionLimits.letters) groups.push([w])
    else g.push(w)
  }
  let k = 0
  const timed = groups.map((g) => {
    const n = g.reduce((s, w) => s + spokenWordsOf(w).length, 0)
    const ats = line.words.slice(k, k + n).flatMap((w) => (w.at === null ? [] : [hearing.words[w.at]!]))
    k += n
    return { text: g.join(' '), start: ats[0]?.start ?? null, end: ats.at(-1)?.end ?? null }
  })
  let last = line.start!
  return timed.map((t) => {
    const start = t.start ?? last
    const end = Math.max(t.end ?? start + 1, start + 0.2)
    last = end
    return { text: t.text, start, end }
  })
}
