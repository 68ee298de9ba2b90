import type { CutList, CutSegment } from '../contracts/cut.ts'
import { isCovered } from './repairs.ts'
import { plays, runsOf, segmentFrames, toSeconds } from './timeline.ts'

const picture = (s: CutSegment | undefined): string =>
  JSON.stringify(
    s
      ? runsOf(s).map((r) =>
          r.kind === 'clip'
            ? [r.takeId, r.from, r.frames, r.voice, r.still]
            : r.kind === 'hold'
              ? r.frames
              : [r.card.look, r.card.title, r.card.lines, r.card.table, r.frames],
        )
      : null,
  )
const over = (s: CutSegment | undefined): string =>
  JSON.stringify((s?.overlays ?? []).filter(plays).map(({ why: _why, ...o }) => o))

const mended = (list: CutList): string =>
  JSON.stringify(list.repairs.map((r) => ({ ...r, hidden: r.hidden.filter(isCovered) })))

/** What differs between two cuts of a lesson, in words for families: a line for each segment that changed. */
export function changesBetween(
  before: CutList,
  after: CutList,
  titleOf: (segmentId: string) => string,
): string[] {
  const out: string[] = []
  for (const s of after.segments) {
    const was = before.segments.find((x) => x.segmentId === s.segmentId)
    const title = titleOf(s.segmentId)
    const [a, b] = [was ? segmentFrames(was) : 0, segmentFrames(s)]
    if (!a && !b) continue
    if (!a) out.push(`New: ${title}.`)
    else if (!b) out.push(`Left out: ${title}.`)
    else if (picture(was) !== picture(s)) {
      const seconds = Math.round(Math.abs(toSeconds(b - a)))
      out.push(`Cut anew: ${title}${seconds ? `, ${seconds} s ${b < a ? 'shorter' : 'longer'}` : ''}.`)
    } else if (over(was) !== over(s)) out.push(`What is shown over the picture: ${title}.`)
  }
  for (const s of before.segments)
    if (segmentFrames(s) && !after.segments.some((x) => x.segmentId === s.segmentId))
      out.push(`Left out: ${titleOf(s.segmentId)}.`)
  if (JSON.stringify(before.captions) !== JSON.stringify(after.captions)) out.push('The captions.')
  if (mended(before) !== mended(after)) out.push('Picture and sound were mended.')
  return out
}
