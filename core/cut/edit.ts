import type { Frames } from '../contracts/units.ts'
import type { Clip, CutItem, CutList, CutSegment, Overlay, Why } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import { toFrame } from './timeline.ts'

/** What a person does to a row of spans. Each gives a new row and leaves the old one as it was; takes are never touched. */
const handDrop = (id: string): Why => ({
  id: `h-${id}`,
  act: 'drop',
  kind: 'by hand',
  note: '',
  sure: true,
  state: 'accepted',
})
const byHand = (segment: CutSegment, items: CutItem[]): CutSegment => ({ ...segment, items, byHand: true })
const indexOf = (segment: CutSegment, id: string): number => segment.items.findIndex((i) => i.id === id)

const withState = <T extends { why: Why | null }>(
  all: readonly T[],
  which: (why: Why) => boolean,
  state: Why['state'],
): T[] => all.map((x) => (x.why && which(x.why) ? { ...x, why: { ...x.why, state } } : x))
/** Decides every open proposal that `which` picks, in all rows and repairs. Those decided before stay. */
export function decideAll(
  list: CutList,
  which: (why: Why) => boolean,
  state: Exclude<Why['state'], 'open'>,
): CutList {
  const open = (why: Why): boolean => why.state === 'open' && which(why)
  return {
    ...list,
    segments: list.segments.map((s) => ({
      ...s,
      items: withState(s.items, open, state),
      overlays: withState(s.overlays, open, state),
    })),
    repairs: list.repairs.map((r) => ({ ...r, hidden: withState(r.hidden, open, state) })),
  }
}
/** Decides one proposal with everything that belongs to it, also one decided before. */
export function decide(segment: CutSegment, whyId: string, state: Why['state']): CutSegment {
  const mine = (why: Why): boolean => why.id === whyId
  return {
    ...segment,
    items: withState(segment.items, mine, state),
    overlays: withState(segment.overlays, mine, state),
  }
}

/** Takes an item out of the film. A span stays in the row, folded; a card or hold put in by hand is gone. */
export function drop(segment: CutSegment, id: string): CutSegment {
  const item = segment.items[indexOf(segment, id)]
  if (!item) return segment
  if (item.why && item.why.kind !== 'by hand')
    return decide(segment, item.why.id, item.why.act === 'drop' ? 'accepted' : 'declined')
  return byHand(
    segment,
    item.kind === 'clip'
      ? segment.items.map((i) => (i.id === id ? { ...i, why: handDrop(id) } : i))
      : segment.items.filter((i) => i.id !== id),
  )
}
/** Puts an item back into the film. */
export function bringBack(segment: CutSegment, id: string): CutSegment {
  const item = segment.items[indexOf(segment, id)]
  if (!item?.why) return segment
  if (item.why.kind === 'by hand')
    return byHand(
      segment,
      segment.items.map((i) => (i.id === id ? { ...i, why: null } : i)),
    )
  return decide(segment, item.why.id, item.why.act === 'drop' ? 'declined' : 'accepted')
}

/** A span begun at another frame; what is heard in place of its sound begins as much later. */
const begun = (clip: Clip, frame: Frames, id: string): Clip => ({
  ...clip,
  id,
  from: frame,
  ...(clip.voice ? { voice: { ...clip.voice, from: Math.max(0, clip.voice.from + frame - clip.from) } } : {}),
})

/** Parts a span at a frame of its take; nothing happens at or outside its ends. `newId` names the second part. */
export function split(segment: CutSegment, id: string, frame: Frames, newId: string): CutSegment {
  const i = indexOf(segment, id)
  const item = segment.items[i]
  if (item?.kind !== 'clip' || frame <= item.from || frame >= item.to) return segment
  return byHand(segment, segment.items.toSpliced(i, 1, { ...item, to: frame }, begun(item, frame, newId)))
}
/** Drops a stretch of a take (frames) out of every span that shows it. `newId` gives names for parts. */
export function dropStretch(
  segment: CutSegment,
  takeId: string,
  from: number,
  to: number,
  newId: () => string,
): CutSegment {
  if (to <= from) return segment
  return byHand(
    segment,
    segment.items.flatMap((item): CutItem[] => {
      if (item.kind !== 'clip' || item.takeId !== takeId || item.to <= from || item.from >= to) return [item]
      const [a, b] = [Math.max(from, item.from), Math.min(to, item.to)]
      const id = a > item.from ? newId() : item.id
      return [
        ...(a > item.from ? [{ ...item, to: a }] : []),
        { ...begun(item, a, id), to: b, why: handDrop(id) },
        ...(b < item.to ? [begun(item, b, newId())] : []),
      ]
    }),
  )
}

/**
 * Moves one edge of a span to a frame of its take. Where the neighbour goes on from there in the same take, its edge
 * moves along, and it keeps at least one frame; what is uncovered beside nothing becomes a dropped span, so that it can
 * be brought back. `last` is the take's length in frames.
 */
export function moveEdge(
  segment: CutSegment,
  id: string,
  edge: 'from' | 'to',
  frame: Frames,
  last: number,
  newId: string,
): CutSegment {
  const i = indexOf(segment, id)
  const item = segment.items[i]
  if (item?.kind !== 'clip') return segment
  const step = edge === 'to' ? 1 : -1
  const other = segment.items[i + step]
  const joined =
    other?.kind === 'clip' &&
    other.takeId === item.takeId &&
    (edge === 'to' ? other.from === item.to : other.to === item.from)
      ? other
      : null
  const [least, most] =
    edge === 'to'
      ? [item.from + 1, joined ? joined.to - 1 : last]
      : [joined ? joined.from + 1 : 0, item.to - 1]
  const at = Math.min(most, Math.max(least, frame))
  if (at === item[edge]) return segment
  const moved: Clip = edge === 'from' ? begun(item, at, item.id) : { ...item, to: at }
  const items = segment.items.with(i, moved)
  if (joined) items[i + step] = { ...joined, ...(edge === 'to' ? begun(joined, at, joined.id) : { to: at }) }
  else if (edge === 'to' ? at < item.to : at > item.from) {
    const left: Clip = {
      ...(edge === 'to' ? begun(item, at, newId) : { ...item, to: at }),
      id: newId,
      why: handDrop(newId),
    }
    items.splice(edge === 'to' ? i + 1 : i, 0, left)
  }
  return byHand(segment, items)
}

/** Moves an item to another place of its row; `to` counts in the row without it. */
export function move(segment: CutSegment, id: string, to: number): CutSegment {
  const i = indexOf(segment, id)
  if (i < 0) return segment
  const rest = segment.items.toSpliced(i, 1)
  const at = Math.min(rest.length, Math.max(0, to))
  return at === i ? segment : byHand(segment, rest.toSpliced(at, 0, segment.items[i]!))
}
/** Puts an item in after another, or at the start. */
export const insertAfter = (segment: CutSegment, id: string | null, item: CutItem): CutSegment =>
  byHand(segment, segment.items.toSpliced(id === null ? 0 : indexOf(segment, id) + 1, 0, item))
/** Changes a hold or card in place. */
export const change = <T extends CutItem>(segment: CutSegment, item: T): CutSegment =>
  byHand(
    segment,
    segment.items.map((i) => (i.id === item.id ? item : i)),
  )

/** The stretch of a take in which a line is said, with a breath at each side, in frames; null where it was not heard. */
function lineStretch(
  hearing: Pick<Hearing, 'lines'>,
  stepId: string,
  last: number,
): { from: number; to: number } | null {
  const line = hearing.lines.find((l) => l.stepId === stepId)
  if (line?.start == null || line.end === null) return null
  const [from, to] = [Math.max(0, toFrame(line.start - 0.12)), Math.min(last, toFrame(line.end + 0.25))]
  return to > from ? { from, to } : null
}
/** Replaces a line of the row's take by the same line of another take. */
export function replaceLine(
  segment: CutSegment,
  stepId: string,
  here: { takeId: string; hearing: Pick<Hearing, 'lines'>; frames: Frames },
  there: { takeId: string; hearing: Pick<Hearing, 'lines'>; frames: Frames },
  newId: () => string,
): CutSegment {
  const [mine, theirs] = [
    lineStretch(here.hearing, stepId, here.frames),
    lineStretch(there.hearing, stepId, there.frames),
  ]
  if (!mine || !theirs) return segment
  const cut = dropStretch(segment, here.takeId, mine.from, mine.to, newId)
  const i = cut.items.findLastIndex(
    (x) => x.kind === 'clip' && x.takeId === here.takeId && x.to <= mine.to && x.to > mine.from,
  )
  return byHand(
    cut,
    cut.items.toSpliced(i + 1, 0, { kind: 'clip', id: newId(), takeId: there.takeId, ...theirs, why: null }),
  )
}

/** The sound of another take over a span's picture: its own line there, or from that take's beginning. None takes it away again. */
export const withVoice = (
  segment: CutSegment,
  id: string,
  voice: { takeId: string; from: number } | null,
): CutSegment =>
  byHand(
    segment,
    segment.items.map((i): CutItem => {
      if (i.id !== id || i.kind !== 'clip') return i
      const { voice: _before, ...rest } = i
      return voice ? { ...rest, voice } : rest
    }),
  )
/** Adds an overlay, changes it in place, or (null) takes it away. */
export const withOverlay = (segment: CutSegment, id: string, overlay: Overlay | null): CutSegment => ({
  ...segment,
  overlays:
    overlay === null
      ? segment.overlays.filter((o) => o.id !== id)
      : segment.overlays.some((o) => o.id === id)
        ? segment.overlays.map((o) => (o.id === id ? overlay : o))
        : [...segment.overlays, overlay],
})

/** From which frame another take's sound goes with a span's picture: so that the first line both have is said at the same time; from its first word where they share none. */
export function voiceFrom(
  item: Pick<Clip, 'from' | 'to'>,
  here: Pick<Hearing, 'lines'> | null,
  there: Pick<Hearing, 'lines' | 'words'> | null,
): number {
  for (const line of here?.lines ?? []) {
    const start = line.start === null ? null : toFrame(line.start)
    const other = there?.lines.find((l) => l.stepId === line.stepId && l.start !== null)
    if (start !== null && other && start >= item.from - 6 && start < item.to)
      return Math.max(0, toFrame(other.start!) - (start - item.from))
  }
  return Math.max(0, toFrame((there?.words[0]?.start ?? 0.15) - 0.15))
}

/** Frames an edge likes to stop at: ends of words and the middle of silences between them. */
export function snapPoints(hearing: Pick<Hearing, 'words'> | null): number[] {
  const words = hearing?.words ?? []
  const out = new Set<number>()
  words.forEach((w, i) => {
    out.add(toFrame(w.start - 0.05)).add(toFrame(w.end + 0.05))
    const next = words[i + 1]
    if (next && next.start - w.end > 0.2) out.add(toFrame((w.end + next.start) / 2))
  })
  return [...out].filter((f) => f >= 0).sort((a, b) => a - b)
}
/** The point nearest to a frame, where one is within `reach` frames; else the frame itself. `points` in order. */
export function snapped(frame: Frames, points: readonly number[], reach: number): number {
  let [low, high] = [0, points.length]
  while (low < high) {
    const mid = (low + high) >> 1
    if (points[mid]! < frame) low = mid + 1
    else high = mid
  }
  const near = [points[low - 1], points[low]]
    .filter((p) => p !== undefined)
    .sort((a, b) => Math.abs(a - frame) - Math.abs(b - frame))[0]
  return near !== undefined && Math.abs(near - frame) <= reach ? near : frame
}
