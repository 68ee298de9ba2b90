import type { Lesson, Segment } from '../contracts/lesson.ts'
import type { LiveState } from '../contracts/live.ts'
import type { Seconds } from '../contracts/units.ts'
import { type Moment, simulate } from '../script/simulate.ts'
import type { LiveRun, LiveSegment } from './run.ts'

interface Row {
  segment: LiveSegment
  state: 'done' | 'now' | 'coming' | 'left out'
  /** Seconds after the agreed hour at which it was planned to start, and does by what is known now. */
  planned: Seconds
  starts: Seconds
  /** Seconds it took, takes by now, or is thought to take. */
  lasts: Seconds
}
interface Offer {
  segmentIds: readonly string[]
  titles: readonly string[]
  /** Seconds after the agreed hour at which it ends without them. */
  ends: Seconds
}
export interface Timing {
  /** The hour it counts from, ms. */
  base: number
  rows: readonly Row[]
  /** Seconds after the agreed hour: by plan, and as it stands. */
  plannedEnd: Seconds
  ends: Seconds
  /** How the time of what is done compares with its plan, 0.7–1.6; 1 while too little is done to tell. */
  rate: number
  /** What to leave out to be in time; null where nothing needs to be, or nothing can. */
  offer: Offer | null
}

/** Fewer seconds of plan done than this say nothing of the lesson's pace. */
const tellsFrom = 60
const [slowest, quickest] = [1.6, 0.7]
/** Seconds over the end that nobody minds. */
const mind = 45
/** Kinds that may be left out, the most dispensable first. What opens, shows and closes a lesson stays. */
const dispensable: readonly Segment['kind'][] = [
  'challenge',
  'home task',
  'game',
  'together',
  'story',
  'alone',
  'warm-up',
]

interface Span {
  segmentId: string
  /** Milliseconds by the server's clock; `to` null while it is there. */
  from: number
  to: number | null
}
/** Where a lesson was, stretch by stretch: going back to a segment makes another. */
export const spansOf = (s: Pick<LiveState, 'visits' | 'endedAt'>): Span[] =>
  s.visits.map((v, i) => ({ segmentId: v.segmentId, from: v.at, to: s.visits[i + 1]?.at ?? s.endedAt }))

/**
 * A live lesson's time against its plan, in seconds after the hour it counts from: the agreed one, or when it began
 * where that was before; while it waits, not before now. `at` and `startsAt` in ms. The plan is held against what the
 * done segments really took, and the rest is thought to take as much longer or shorter.
 */
export function timingOf(
  doc: Pick<Lesson, 'segments'>,
  run: LiveRun,
  state: Pick<LiveState, 'line' | 'leftOut' | 'visits' | 'phase' | 'since' | 'startedAt' | 'endedAt'>,
  { at, startsAt, room }: { at: number; startsAt: number; room: Seconds },
): Timing {
  const base = state.startedAt === null ? Math.max(startsAt, at) : Math.min(startsAt, state.startedAt)
  const now = Math.max(0, (at - base) / 1000)
  const inLine = state.phase === 'on' ? Math.max(0, (at - state.since) / 1000) : 0
  const here = state.phase === 'waiting' ? -1 : state.line
  const spans = spansOf(state)
  const isDone = (s: LiveSegment): boolean => s.to <= here || state.phase === 'over'
  const isNow = (s: LiveSegment): boolean => state.phase === 'on' && s.from <= here && here < s.to
  const spent = (s: LiveSegment): Seconds =>
    spans.reduce((sum, x) => sum + (x.segmentId === s.id ? ((x.to ?? at) - x.from) / 1000 : 0), 0)
  const done = run.segments.filter((s) => isDone(s) && spent(s) > 0)
  const planned = done.reduce((sum, s) => sum + s.seconds, 0)
  const real = done.reduce((sum, s) => sum + spent(s), 0)
  const rate = planned >= tellsFrom ? Math.min(slowest, Math.max(quickest, real / planned)) : 1
  /** What is left of the present segment: of the line it is at, what the line has not had yet. */
  const rest = (s: LiveSegment): Seconds =>
    run.lines
      .slice(here, s.to)
      .reduce((sum, l, i) => sum + Math.max(0, l.seconds * rate - (i === 0 ? inLine : 0)), 0)
  let [plan, starts] = [0, 0]
  const rows = run.segments.map((segment): Row => {
    const out = state.leftOut.includes(segment.id)
    const status = isDone(segment) ? 'done' : isNow(segment) ? 'now' : out ? 'left out' : 'coming'
    // What comes cannot start before now.
    if (status === 'coming') starts = Math.max(starts, now)
    const lasts = {
      'left out': 0,
      done: spent(segment),
      now: spent(segment) + rest(segment),
      coming: segment.seconds * rate,
    }[status]
    // Where it is now counts, not the sum of what was: a late start is late all the way.
    const begins = status === 'now' ? Math.max(starts, now - spent(segment)) : starts
    const row = { segment, state: status, planned: plan, starts: begins, lasts } as const
    plan += segment.seconds
    starts = begins + lasts
    return row
  })
  const ends = Math.max(starts, now)
  return {
    base,
    rows,
    plannedEnd: room,
    ends,
    rate,
    offer: state.phase === 'over' ? null : offerOf(doc, rows, { ends, room }),
  }
}

/** The segments whose leaving out brings the lesson to its end in time, by as little as does: one, two, or as many as it needs. */
function offerOf(
  doc: Pick<Lesson, 'segments'>,
  rows: readonly Row[],
  { ends, room }: { ends: Seconds; room: Seconds },
): Offer | null {
  const over = ends - room
  if (over <= mind) return null
  const may = rows.filter((r) => r.state === 'coming' && dispensable.includes(r.segment.kind))
  const ofKind = (r: Row): number => dispensable.indexOf(r.segment.kind)
  const rank = (set: readonly Row[]): number => Math.min(...set.map(ofKind))
  const saves = (set: readonly Row[]): Seconds => set.reduce((sum, r) => sum + r.lasts, 0)
  const isEnough = (set: readonly Row[]): boolean => saves(set) >= over - mind
  const can = (set: readonly Row[]): boolean =>
    standsWithout(
      doc,
      set.map((r) => r.segment.id),
    )
  const few = [...may.map((r) => [r]), ...may.flatMap((a, i) => may.slice(i + 1).map((b) => [a, b]))]
    .filter(isEnough)
    .sort((a, b) => a.length - b.length || rank(a) - rank(b) || saves(a) - saves(b))
    .find(can)
  // Where two are not enough: one after another, the most dispensable and longest first, until it is or nothing more can go.
  const set =
    few ??
    [...may]
      .sort((a, b) => ofKind(a) - ofKind(b) || b.lasts - a.lasts)
      .reduce<Row[]>((out, r) => (!isEnough(out) && can([...out, r]) ? [...out, r] : out), [])
  return set.length
    ? {
        segmentIds: set.map((r) => r.segment.id),
        titles: set.map((r) => r.segment.title),
        ends: ends - saves(set),
      }
    : null
}
/** What is known of a lesson: asked again at every tick of the clock, it is played once for each set. */
const stands = new WeakMap<Pick<Lesson, 'segments'>, Map<string, boolean>>()
/** Whether the rest can still be played on the table when some segments are left out. */
function standsWithout(doc: Pick<Lesson, 'segments'>, out: readonly string[]): boolean {
  const known = stands.get(doc) ?? new Map<string, boolean>()
  stands.set(doc, known)
  const key = out.join(' ')
  let does = known.get(key)
  if (does === undefined) {
    const refused = (moments: readonly Moment[]): number =>
      moments.filter((m) => !out.includes(m.segment.id) && (m.error !== null || m.unread)).length
    const rest = doc.segments.filter((s) => !out.includes(s.id))
    does = refused(simulate({ segments: rest })) <= refused(simulate(doc))
    known.set(key, does)
  }
  return does
}
