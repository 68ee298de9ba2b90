import { type CutDrop, type CutSegment, framesPerSecond } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import { keptSpans } from './spans.ts'

/** A stretch of a take as the Cut screen shows it. Times in seconds of the take. */
export type Piece =
  | { kind: 'kept'; from: number; to: number; words: string; silent: boolean }
  | { kind: 'dropped'; from: number; to: number; drop: CutDrop }
  | { kind: 'proposed'; from: number; to: number; drop: CutDrop }
  | { kind: 'trimmed'; from: number; to: number }

/** Longest stretch shown as one piece, and the silence (seconds) at which pieces part. */
const longest = 9
const pause = 0.9

/** Parts a take into what is kept, dropped, proposed to be dropped and trimmed, at silences between words. */
export function piecesOf(cut: CutSegment, seconds: number, hearing: Pick<Hearing, 'words'> | null): Piece[] {
  const out: Piece[] = []
  const end = Math.min(cut.end ?? seconds, seconds)
  if (cut.start > 0.05) out.push({ kind: 'trimmed', from: 0, to: cut.start })
  const proposed = cut.drops.filter((d) => d.state === 'proposed' && d.to > cut.start && d.from < end)
  const accepted = cut.drops.filter((d) => d.state === 'accepted' && d.to > cut.start && d.from < end)
  for (const span of keptSpans(cut, seconds)) {
    let at = span.from / framesPerSecond
    const to = span.to / framesPerSecond
    for (const d of proposed.filter((x) => x.to > at && x.from < to)) {
      if (d.from > at) out.push(...kept(at, d.from, hearing))
      out.push({ kind: 'proposed', from: Math.max(at, d.from), to: Math.min(d.to, to), drop: d })
      at = Math.min(d.to, to)
    }
    if (to > at + 0.01) out.push(...kept(at, to, hearing))
  }
  out.push(...accepted.map((d): Piece => ({ kind: 'dropped', from: Math.max(d.from, cut.start), to: Math.min(d.to, end), drop: d })))
  if (end < seconds - 0.05) out.push({ kind: 'trimmed', from: end, to: seconds })
  return out.sort((a, b) => a.from - b.from)
}

function kept(from: number, to: number, hearing: Pick<Hearing, 'words'> | null): Piece[] {
  const words = (hearing?.words ?? []).filter((w) => (w.start + w.end) / 2 >= from && (w.start + w.end) / 2 < to)
  const marks: number[] = [from]
  words.forEach((w, i) => {
    const next = words[i + 1]
    if (next && next.start - w.end >= pause) marks.push(w.end + 0.15, next.start - 0.15)
  })
  if (words[0] && words[0].start - from >= pause) marks.push(words[0].start - 0.15)
  const last = words.at(-1)
  if (last && to - last.end >= pause) marks.push(last.end + 0.15)
  marks.push(to)
  const cuts = [...new Set(marks)].filter((m) => m >= from && m <= to).sort((a, b) => a - b)
  const out: Piece[] = []
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [a, b] = [cuts[i]!, cuts[i + 1]!]
    const n = Math.max(1, Math.ceil((b - a) / longest))
    for (let k = 0; k < n; k++) {
      const [x, y] = [a + ((b - a) * k) / n, a + ((b - a) * (k + 1)) / n]
      const said = words.filter((w) => (w.start + w.end) / 2 >= x && (w.start + w.end) / 2 < y)
      out.push({ kind: 'kept', from: x, to: y, words: said.map((w) => w.word).join(' '), silent: said.length === 0 })
    }
  }
  return out
}
