import { type CutDrop, type CutSegment, framesPerSecond } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'

export interface Span {
  /** Frames into the take, on the output's frame grid: [from, to). */
  from: number
  to: number
}
const frame = (seconds: number): number => Math.round(seconds * framesPerSecond)

/** What of a take stays, in order, in whole frames. Overlapping drops count once; a drop reaching past an end is cut to it. */
export function keptSpans(cut: Pick<CutSegment, 'start' | 'end' | 'drops'>, takeSeconds: number): Span[] {
  const last = frame(Math.min(cut.end ?? takeSeconds, takeSeconds))
  let at = Math.min(frame(cut.start), last)
  const spans: Span[] = []
  const drops = cut.drops.filter((d) => d.state === 'accepted' && d.to > d.from).sort((a, b) => a.from - b.from)
  for (const d of drops) {
    const [from, to] = [frame(d.from), frame(d.to)]
    if (to <= at) continue
    if (from >= last) break
    if (from > at) spans.push({ from: at, to: from })
    at = Math.max(at, Math.min(to, last))
  }
  if (last > at) spans.push({ from: at, to: last })
  return spans
}
export const spanFrames = (spans: readonly Span[]): number => spans.reduce((s, x) => s + x.to - x.from, 0)

/** Frames one segment takes in the film: what stays of its take and its card. */
export function segmentFrames(cut: CutSegment, takeSeconds: number | null): number {
  return (takeSeconds === null ? 0 : spanFrames(keptSpans(cut, takeSeconds))) + (cut.card ? frame(cut.card.seconds) : 0)
}

/** Where a stretch of the take (seconds) comes in the cut segment, as far as it is left; null when all of it was dropped. */
export function stretchInCut(spans: readonly Span[], from: number, to: number): { start: number; end: number } | null {
  let before = 0
  let start: number | null = null
  let end: number | null = null
  for (const s of spans) {
    const [a, b] = [Math.max(s.from, from * framesPerSecond), Math.min(s.to, to * framesPerSecond)]
    if (b > a) {
      start ??= (before + a - s.from) / framesPerSecond
      end = (before + b - s.from) / framesPerSecond
    }
    before += s.to - s.from
  }
  return start === null || end === null ? null : { start, end }
}

/** The drops hearing proposes for a take, as the cut list keeps them. Ones decided before stay decided. */
export function proposedDrops(hearing: Pick<Hearing, 'drops'>, before: readonly CutDrop[] = []): CutDrop[] {
  const byHand = before.filter((d) => d.reason === 'by hand')
  const fresh = hearing.drops.map((d): CutDrop => {
    const id = `${d.reason[0]}${Math.round(d.from * 100)}-${Math.round(d.to * 100)}`
    return before.find((b) => b.id === id) ?? { id, from: d.from, to: d.to, reason: d.reason, note: d.note.slice(0, 200), state: 'proposed' }
  })
  return [...fresh, ...byHand].sort((a, b) => a.from - b.from)
}
