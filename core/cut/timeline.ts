import type { Frames, Seconds } from '../contracts/units.ts'
import {
  type Card,
  type Clip,
  type CutItem,
  type CutSegment,
  framesPerSecond,
  type Hold,
} from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import { assertNever } from '../contracts/assert-never.ts'

export const toFrame = (seconds: Seconds): Frames => Math.round(seconds * framesPerSecond)
export const toSeconds = (frames: Frames): Seconds => frames / framesPerSecond

/** Whether an item is in the film: a drop takes effect when it is accepted, so does an addition. */
export const plays = (item: Pick<CutItem, 'why'>): boolean =>
  item.why === null ||
  (item.why.act === 'drop' ? item.why.state !== 'accepted' : item.why.state === 'accepted')
export const isOpen = (item: Pick<CutItem, 'why'>): boolean => item.why?.state === 'open'

/** Frames an item takes in the film when it plays. */
export function framesOf(item: CutItem): Frames {
  switch (item.kind) {
    case 'clip':
      return item.to - item.from
    case 'hold':
    case 'card':
      return item.frames
    default:
      return assertNever(item)
  }
}
export const segmentFrames = (segment: Pick<CutSegment, 'items'>): Frames =>
  segment.items.reduce((n, i) => n + (plays(i) ? framesOf(i) : 0), 0)

/** An item of the film with the frame of its segment at which it comes. */
export interface Placed {
  item: CutItem
  at: Frames
}
/** What plays of a segment, in order. */
export function layOut(segment: Pick<CutSegment, 'items'>): Placed[] {
  let at = 0
  return segment.items.filter(plays).map((item) => {
    const placed = { item, at }
    at += framesOf(item)
    return placed
  })
}

/** What is played without a cut: spans of one take that follow each other without a gap are one run. */
export type ClipRun = {
  kind: 'clip'
  at: Frames
  frames: Frames
  takeId: string
  from: Frames
  /** Its first picture is shown all the while. */
  still: boolean
  /** What is heard instead of its own sound. */
  voice: { takeId: string; from: Frames } | null
}
export type Run =
  | ClipRun
  | { kind: 'hold'; at: Frames; frames: Frames; hold: Hold }
  | { kind: 'card'; at: Frames; frames: Frames; card: Card }
export function runsOf(segment: Pick<CutSegment, 'items'>): Run[] {
  const out: Run[] = []
  for (const { item, at } of layOut(segment)) {
    const frames = framesOf(item)
    const last = out.at(-1)
    if (item.kind === 'hold') out.push({ kind: 'hold', at, frames, hold: item })
    else if (item.kind === 'card') out.push({ kind: 'card', at, frames, card: item })
    else if (last?.kind === 'clip' && goesOn(last, item)) last.frames += frames
    else
      out.push({
        kind: 'clip',
        at,
        frames,
        takeId: item.takeId,
        from: item.from,
        still: item.still ?? false,
        voice: item.voice ?? null,
      })
  }
  return out
}
/** Whether a span goes on where a run ends, in picture and in sound. */
function goesOn(run: ClipRun, item: Clip): boolean {
  if (run.takeId !== item.takeId || run.from + run.frames !== item.from || run.still || item.still)
    return false
  return item.voice
    ? run.voice?.takeId === item.voice.takeId && run.voice.from + run.frames === item.voice.from
    : run.voice === null
}

/** The runs of rows looked at before: rows are never changed in place, and many words are looked for in one. */
const known = new WeakMap<object, readonly Run[]>()
const runsFor = (segment: Pick<CutSegment, 'items'>): readonly Run[] => {
  const runs = known.get(segment.items) ?? runsOf(segment)
  known.set(segment.items, runs)
  return runs
}

/** The takes whose sound a row may let be heard. */
export const heardTakes = (segment: Pick<CutSegment, 'items'>): ReadonlySet<string> =>
  new Set(segment.items.flatMap((i) => (i.kind === 'clip' ? [i.voice?.takeId ?? i.takeId] : [])))

/** A stretch of the segment's film, in seconds. */
export interface Stretch {
  start: Seconds
  end: Seconds
}
/**
 * Where a stretch of a take (seconds) comes in the segment's film: once for each time it is heard (or `of` its picture:
 * shown), as far as it is left. Parts that a drop has brought next to each other are one.
 */
export function stretchesOf(
  segment: Pick<CutSegment, 'items'>,
  takeId: string,
  from: Seconds,
  to: Seconds,
  of: 'sound' | 'picture' = 'sound',
): Stretch[] {
  const out: Stretch[] = []
  for (const run of runsFor(segment)) {
    if (run.kind !== 'clip') continue
    const source = of === 'sound' ? (run.voice ?? run) : run
    if (source.takeId !== takeId) continue
    const [a, b] = [
      Math.max(source.from, from * framesPerSecond),
      Math.min(source.from + run.frames, to * framesPerSecond),
    ]
    if (b - a < 0.5) continue
    const [start, end] = [toSeconds(run.at + a - source.from), toSeconds(run.at + b - source.from)]
    const last = out.at(-1)
    if (last && start - last.end < 0.05) last.end = end
    else out.push({ start, end })
  }
  return out
}

/** The item at a frame of the segment's film, and the frame of its take for a clip (0 for a hold or card); null past the end. */
export function shownAt(
  segment: Pick<CutSegment, 'items'>,
  frame: Frames,
): { item: CutItem; frame: Frames } | null {
  const placed = layOut(segment).find((p) => frame >= p.at && frame < p.at + framesOf(p.item))
  return placed
    ? { item: placed.item, frame: placed.item.kind === 'clip' ? placed.item.from + frame - placed.at : 0 }
    : null
}

/** Seconds within which two moments of a film are one. */
const same = 0.05
/** The frame of the segment's film at which the word before or after a frame begins, whichever take it is from; null where there is none. `hearings` by take id. */
export function wordBeside(
  segment: Pick<CutSegment, 'items'>,
  hearings: ReadonlyMap<string, Pick<Hearing, 'words'>>,
  frame: Frames,
  step: -1 | 1,
): number | null {
  const here = toSeconds(frame)
  const heard = heardTakes(segment)
  const starts = [...hearings]
    .flatMap(([takeId, h]) =>
      (heard.has(takeId) ? h.words : []).flatMap((w) =>
        stretchesOf(segment, takeId, w.start, w.end).map((s) => s.start),
      ),
    )
    .sort((a, b) => a - b)
  const to = step > 0 ? starts.find((s) => s > here + same) : starts.findLast((s) => s < here - same)
  return to === undefined ? null : toFrame(to)
}
