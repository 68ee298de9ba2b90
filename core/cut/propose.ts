import type { Frames, Seconds } from '../contracts/units.ts'
import { told } from '../findings/say.ts'
import {
  type Clip,
  type CutItem,
  type CutList,
  type CutSegment,
  type Overlay,
  plainList,
  type Repair,
  type Why,
} from '../contracts/cut.ts'
import { type HouseStyle } from '../contracts/house-style.ts'
import type { TakeMark } from '../contracts/take.ts'
import type { Hearing } from '../contracts/heard.ts'
import { isInFilm, type Lesson, type Segment } from '../contracts/lesson.ts'
import { lineState } from '../film/desk/corrections.ts'
import { takeCodes } from '../findings/codes.ts'
import { byMerit } from '../film/desk/take-sheet.ts'
import { type LessonTime, timeLesson } from '../script/time.ts'
import { cardsFor, withCards } from './cards.ts'
import { type Drop, dropsOf, type Held, holdsOf } from './drops.ts'
import { type Moment, simulate } from '../script/simulate.ts'
import type { TableState } from '../script/table/state.ts'
import { withRoll } from '../film/desk/rolls.ts'
import { coversOf } from './covers.ts'
import { overlaysFor } from './overlays.ts'
import { plainRepair, repairOf, withRepair } from './repairs.ts'
import { segmentFrames, toFrame } from './timeline.ts'
import type { TakeSeen } from '../contracts/render.ts'

export interface TakeFacts {
  id: string
  segmentId: string
  number: number
  seconds: Seconds
  hearing: Hearing | null
  /** What was marked while filming; absent where nobody asked. */
  marks?: readonly TakeMark[]
  /** What was found in its pictures that may have to be covered. */
  seen?: TakeSeen | null
}
/** The takes that can be cut from: ready, long enough to show anything, and given to a segment. */
export const factsOf = (
  takes: readonly {
    id: string
    segmentId: string | null
    number: number
    seconds: Seconds | null
    status: string
    hearing: Hearing | null
    marks: readonly TakeMark[]
    looked: TakeSeen | null
  }[],
): TakeFacts[] =>
  takes.flatMap((t) =>
    t.status === 'ready' && t.seconds && t.segmentId
      ? [
          {
            id: t.id,
            segmentId: t.segmentId,
            number: t.number,
            seconds: t.seconds,
            hearing: t.hearing,
            marks: t.marks,
            seen: t.looked,
          },
        ]
      : [],
  )
type Whole = Pick<Lesson, 'segments' | 'age' | 'title' | 'kit' | 'examples' | 'aim'>

/** A segment as it came out in a take: what really was rolled flows into every later line that rests on it. */
export const asFilmed = (
  lesson: Pick<Lesson, 'examples' | 'aim'>,
  segment: Segment,
  marks: readonly TakeMark[] = [],
): Segment =>
  marks.reduce(
    (s, m) => (m.kind === 'roll' ? (withRoll(lesson, s, m.stepId, m.faces)?.segment ?? s) : s),
    segment,
  )

/** A lesson as it came out in the takes it is cut from, and the table after each of its steps. */
export interface AsFilmed {
  segments: readonly Segment[]
  moments: readonly Moment[]
}
export function lessonAsFilmed(
  lesson: Pick<Lesson, 'segments' | 'examples' | 'aim'>,
  rows: readonly Pick<CutSegment, 'segmentId' | 'takeId'>[],
  takes: readonly Pick<TakeFacts, 'id' | 'marks'>[],
): AsFilmed {
  const segments = lesson.segments.map((s) => {
    const takeId = rows.find((r) => r.segmentId === s.id)?.takeId
    return asFilmed(lesson, s, takes.find((t) => t.id === takeId)?.marks)
  })
  return { segments, moments: simulate({ segments }) }
}
/** The table after a step; null where there is no such step. */
export const tableAfter = ({ moments }: Pick<AsFilmed, 'moments'>, stepId: string): TableState | null =>
  moments.find((m) => m.step.id === stepId)?.after ?? null

/** The take to cut from: the one with fewest slips that cannot be cut away, then the best heard; of equals the one nearest to the `planned` seconds (0: unknown), then the latest. */
export const bestTake = (takes: readonly TakeFacts[], planned = 0): TakeFacts | null =>
  [...takes].sort((a, b) => byMerit(a, b, planned))[0] ?? null

/** Seconds of silence at which spans part, and what of it stays with the words at each side. */
const [pause, beside] = [0.9, 0.15]
/** Frames: no span is parted off shorter than this. */
const sliver = 9
/** Seconds left before and after a line taken from another take. */
const round = { before: 0.12, after: 0.25 } as const

/** The first cut of one segment from one take: its spans in order, what is proposed to go, to be held and to be added. */
export function firstCut(
  lesson: Whole,
  segment: Segment,
  take: TakeFacts,
  { style, others = [] }: { style: HouseStyle; others?: readonly TakeFacts[] },
): CutItem[] {
  const drops = take.hearing ? dropsOf(take.hearing, take.seconds) : []
  const holds = take.hearing
    ? holdsOf(take.hearing).filter((h) => !drops.some((d) => h.at > d.from && h.at < d.to))
    : []
  const better = take.hearing ? fromOthers(take.hearing, drops, others) : []
  const all = [...drops, ...better.flatMap((b) => (b.drop ? [b.drop] : []))].sort((a, b) => a.from - b.from)
  const items = spans(
    take,
    all,
    holds,
    better.map((b) => b.at),
  )
  for (const b of better) {
    const i = items.findLastIndex((x) => x.kind === 'clip' && x.takeId === take.id && x.to <= b.at)
    items.splice(i + 1, 0, b.clip)
  }
  return withCards(items, cardsFor(lesson, segment, take.hearing, style), take.id)
}

/** A take parted at drops, holds and silences. */
function spans(
  take: TakeFacts,
  drops: readonly Drop[],
  holds: readonly Held[],
  more: readonly number[],
): CutItem[] {
  const end = Math.max(1, toFrame(take.seconds))
  const points = new Set([0, end, ...more])
  for (const d of drops) points.add(d.from).add(d.to)
  for (const h of holds) points.add(h.at)
  // A sliver between a drop and a silence is nothing to choose.
  const hard = [...points]
  for (const p of silences(take)) if (hard.every((h) => Math.abs(h - p) > sliver)) points.add(p)
  const inDrop = (f: number): boolean => drops.some((d) => f > d.from && f < d.to)
  const cuts = [...points].filter((f) => f >= 0 && f <= end && !inDrop(f)).sort((a, b) => a - b)
  const out: CutItem[] = []
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [from, to] = [cuts[i]!, cuts[i + 1]!]
    const drop = drops.find((d) => d.from <= from && d.to >= to)
    out.push({ kind: 'clip', id: idOf(take.id, from), takeId: take.id, from, to, why: drop?.why ?? null })
    for (const h of holds)
      if (h.at === to)
        out.push({
          kind: 'hold',
          id: `hold-${idOf(take.id, h.at)}`,
          frames: h.frames,
          stepId: h.stepId,
          why: h.why,
        })
  }
  return out
}
const idOf = (takeId: string, from: number): string => `${takeId.slice(0, 8)}-${from}`

/** Frames at which long silences between words begin and end. */
function silences(take: Pick<TakeFacts, 'seconds' | 'hearing'>): number[] {
  const words = take.hearing?.words ?? []
  const out: number[] = []
  let before = 0
  for (const w of [...words, { start: take.seconds, end: take.seconds }]) {
    if (w.start - before >= pause)
      out.push(
        ...(before > 0 ? [toFrame(before + beside)] : []),
        ...(w.start < take.seconds ? [toFrame(w.start - beside)] : []),
      )
    before = Math.max(before, w.end)
  }
  return out
}

interface Better {
  drop: Drop | null
  /** Frame of the take at which the other take's clip goes in. */
  at: number
  clip: Clip
}
/** Lines that went wrong here and that another take has without a slip: the line goes, the other take's comes in its place. */
function fromOthers(hearing: Hearing, drops: readonly Drop[], others: readonly TakeFacts[]): Better[] {
  const out: Better[] = []
  const ranked = [...others].filter((t) => t.hearing).sort((a, b) => byMerit(a, b))
  for (const f of hearing.findings) {
    if (
      !f.certain ||
      !f.stepId ||
      (takeCodes[f.code] !== 'wrong' && f.code !== 'line-skipped') ||
      out.some((b) => b.clip.why!.id === `o-${f.stepId}`)
    )
      continue
    const mine = hearing.lines.find((l) => l.stepId === f.stepId)
    const [other, line] =
      ranked
        .map((t) => [t, t.hearing!.lines.find((l) => l.stepId === f.stepId)!] as const)
        .find(
          ([t, l]) =>
            l &&
            l.start !== null &&
            lineState(t.hearing!, l) === 'clear' &&
            l.words.every((w) => w.status === 'said'),
        ) ?? []
    if (!other || !line) continue
    const why = (act: Why['act']): Why => ({
      id: `o-${f.stepId}`,
      act,
      kind: 'other take',
      note: `${told('take', f)} Take ${other.number} has this line without a slip.`.slice(0, 240),
      sure: true,
      state: 'open',
    })
    const clip: Clip = {
      kind: 'clip',
      id: `other-${idOf(other.id, toFrame(line.start!))}`,
      takeId: other.id,
      from: toFrame(Math.max(0, line.start! - round.before)),
      to: toFrame(Math.min(other.seconds, line.end! + round.after)),
      why: why('add'),
    }
    const gone =
      mine?.start != null && mine.end !== null
        ? {
            from: toFrame(Math.max(0, Math.min(mine.start, f.start) - round.before)),
            to: toFrame(Math.max(mine.end, f.end) + round.after),
            why: why('drop'),
          }
        : null
    const at = gone?.to ?? toFrame(f.start + 0.1)
    if (drops.some((d) => (gone ? gone.from < d.to && gone.to > d.from : at > d.from && at < d.to))) continue
    out.push({ drop: gone, at, clip })
  }
  return out
}

/**
 * Brings a cut list in line with the lesson and its takes: a row for each segment children watch, in the script's
 * order; a first cut where there is none; newly heard proposals where nothing was cut by hand. What was decided
 * stays. Spans of takes that are gone leave the row; where none is left it is cut afresh.
 */
export function reconcile(
  cut: CutList | null,
  lesson: Whole,
  takes: readonly TakeFacts[],
  style: HouseStyle,
): CutList {
  // The clock is asked only where several takes are to choose from.
  let times: LessonTime | null = null
  const planned = (id: string): number =>
    (times ??= timeLesson(lesson, style)).segments.find((s) => s.id === id)?.film ?? 0
  const before = cut ?? plainList
  const segments = lesson.segments
    .filter((s) => !s.unfilmed && (isInFilm(s) || takes.some((t) => t.segmentId === s.id)))
    .map((s): CutSegment => {
      const mine = takes.filter((t) => t.segmentId === s.id)
      const row = before.segments.find((c) => c.segmentId === s.id)
      if (row?.byHand) {
        const items = row.items.flatMap((i) => within(i, takes))
        const overlays = row.overlays.flatMap((o) => within(o, takes))
        if (items.some((i) => i.kind === 'clip') || !mine.length)
          return {
            ...row,
            takeId: mine.some((t) => t.id === row.takeId) ? row.takeId : null,
            items,
            overlays,
          }
      }
      const chosen =
        mine.find((t) => t.id === row?.takeId) ?? bestTake(mine, mine.length > 1 ? planned(s.id) : 0)
      if (!chosen)
        return {
          segmentId: s.id,
          takeId: null,
          items: (row?.items ?? []).filter((i) => i.kind === 'card'),
          overlays: [],
          byHand: row?.byHand ?? false,
        }
      return forTake(lesson, s, chosen, mine, row ?? null, { style, repair: repairOf(before, chosen.id) })
    })
  return withCovers(
    { ...before, segments, repairs: before.repairs.filter((r) => takes.some((t) => t.id === r.takeId)) },
    takes,
  )
}

/** The cut with another take chosen for a segment: its row cut afresh, and what was found in the take proposed to be covered. Unchanged where the take is not the segment's. */
export function withTake(
  cut: CutList,
  lesson: Whole,
  segmentId: string,
  takeId: string,
  takes: readonly TakeFacts[],
  style: HouseStyle,
): CutList {
  const mine = takes.filter((t) => t.segmentId === segmentId)
  const [segment, take] = [lesson.segments.find((s) => s.id === segmentId), mine.find((t) => t.id === takeId)]
  if (!segment || !take) return cut
  const row = (s: CutSegment): CutSegment =>
    forTake(lesson, segment, take, mine, s, { style, repair: repairOf(cut, takeId) })
  return withCovers(
    { ...cut, segments: cut.segments.map((s) => (s.segmentId === segmentId ? row(s) : s)) },
    takes,
  )
}

/** A segment's row cut afresh from a take. What was decided before about the same proposals stays, and so does what was put over it by hand. */
function forTake(
  lesson: Whole,
  segment: Segment,
  take: TakeFacts,
  takes: readonly TakeFacts[],
  before: CutSegment | null,
  by: { style: HouseStyle; repair?: Repair },
): CutSegment {
  const decided = new Map(
    [...(before?.items ?? []), ...(before?.overlays ?? [])].flatMap((i) =>
      i.why && i.why.state !== 'open' ? [[i.why.id, i.why.state] as const] : [],
    ),
  )
  const asDecided = <T extends { why: Why | null }>(all: readonly T[]): T[] =>
    all.map((i) =>
      i.why && decided.has(i.why.id) ? { ...i, why: { ...i.why, state: decided.get(i.why.id)! } } : i,
    )
  const filmed = asFilmed(lesson, segment, take.marks)
  const whole =
    filmed === segment
      ? lesson
      : { ...lesson, segments: lesson.segments.map((s) => (s.id === segment.id ? filmed : s)) }
  const items = asDecided(
    firstCut(whole, filmed, take, { style: by.style, others: takes.filter((t) => t.id !== take.id) }),
  )
  const own = (before?.overlays ?? []).filter((o) => o.why === null).flatMap((o) => within(o, takes))
  const overlays = asDecided(
    overlaysFor(filmed, take, simulate(whole), by.repair ?? plainRepair(take.id), by.style, lesson.age),
  ).filter((o) => own.every((x) => x.id !== o.id))
  return { segmentId: segment.id, takeId: take.id, items, overlays: [...own, ...overlays], byHand: false }
}

/** The cut with covers proposed for what was found in the takes that are shown in it. Those decided stay as they are. */
export function withCovers(cut: CutList, takes: readonly TakeFacts[]): CutList {
  const shown = new Set(
    cut.segments.flatMap((s) => s.items.flatMap((i) => (i.kind === 'clip' ? [i.takeId] : []))),
  )
  return takes.reduce((list, take) => {
    if (!shown.has(take.id) || !take.seen) return list
    const mine = repairOf(list, take.id)
    const fresh = coversOf(take.seen, toFrame(take.seconds)).filter((h) =>
      mine.hidden.every((x) => x.id !== h.id),
    )
    return fresh.length
      ? withRepair(list, { ...mine, hidden: [...mine.hidden, ...fresh].slice(0, 60) })
      : list
  }, cut)
}

/** A span or overlay as far as its take goes; nothing of a take that is gone, whose sound is its own again where it was heard over another. */
export function within<T extends CutItem | Overlay>(
  item: T,
  takes: readonly Pick<TakeFacts, 'id' | 'seconds'>[],
): T[] {
  if (!('takeId' in item)) return [item]
  const take = takes.find((t) => t.id === item.takeId)
  const to = Math.min(item.to, take ? toFrame(take.seconds) : 0)
  if (to <= item.from) return []
  if (!('voice' in item) || !item.voice || takes.some((t) => t.id === item.voice!.takeId))
    return [{ ...item, to }]
  const { voice: _gone, ...own } = item
  return [{ ...own, to } as T]
}

export const proposalsOf = (list: Pick<CutList, 'segments' | 'repairs'>): Why[] => {
  const byId = new Map<string, Why>()
  for (const s of list.segments)
    for (const i of [...s.items, ...s.overlays]) if (i.why) byId.set(`${s.segmentId} ${i.why.id}`, i.why)
  for (const r of list.repairs)
    for (const h of r.hidden) if (h.why) byId.set(`${r.takeId} ${h.why.id}`, h.why)
  return [...byId.values()]
}
export const filmFrames = (list: { segments: readonly Pick<CutSegment, 'items'>[] }): Frames =>
  list.segments.reduce((n, s) => n + segmentFrames(s), 0)
