import type { Lesson, Segment, Step } from '../contracts/lesson.ts'
import { type HandReading, readHands } from './language/read.ts'
import { type CountLine, readClaps, readCount } from './reading.ts'
import { remembered } from '../remember.ts'
import { clap } from './table/acts/cards.ts'
import { type Action, emptyTable, TableError, type TableState } from './table/state.ts'

const countOf = remembered(readCount)

/** As many written sentences as can be read on a table; the oldest go first. */
const mostWritten = 12

/** One step with what the table is before and after it. */
export interface Moment {
  segment: Segment
  segmentIndex: number
  step: Step
  stepIndex: number
  before: TableState
  after: TableState
  actions: readonly Action[]
  count: CountLine | null
  /** Why the table refused this step; it is then left as it was. */
  error: TableError | null
  /** A `do` or `count` line whose words could not be read, or only some of them. */
  unread: boolean
  /** How a `do` line was understood; null for lines no hand carries out. */
  reading: HandReading | null
}

interface Played {
  from: TableState
  index: number
  moments: readonly Moment[]
  to: TableState
}
/** How each segment was last played: one that starts from the same table and is the same document plays the same. */
const lastPlayed = new WeakMap<Segment, Played>()

/** Plays a lesson on the table, step by step. Adults' segments have their own table and do not change the children's. */
export function simulate(lesson: Pick<Lesson, 'segments'>): Moment[] {
  const moments: Moment[] = []
  let table = emptyTable
  lesson.segments.forEach((segment, segmentIndex) => {
    const from = segment.audience === 'adults' ? emptyTable : table
    const known = lastPlayed.get(segment)
    const played =
      known && known.index === segmentIndex && sameTable(known.from, from)
        ? known
        : playSegment(segment, segmentIndex, from)
    moments.push(...played.moments)
    if (segment.audience === 'children') table = played.to
  })
  return moments
}

/** Whether two tables are the same, down to each thing. */
const sameTable = (a: TableState, b: TableState): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b)

function playSegment(segment: Segment, segmentIndex: number, from: TableState): Played {
  let state = from
  const moments = segment.steps.map((step, stepIndex): Moment => {
    const moment = playStep(state, step)
    state = moment.after
    return { segment, segmentIndex, step, stepIndex, ...moment }
  })
  const played = { from, index: segmentIndex, moments, to: state }
  lastPlayed.set(segment, played)
  return played
}

function playStep(
  before: TableState,
  step: Step,
): Pick<Moment, 'before' | 'after' | 'actions' | 'count' | 'error' | 'unread' | 'reading'> {
  const quiet = { before, after: before, actions: [], count: null, error: null, unread: false, reading: null }
  switch (step.verb) {
    case 'do': {
      const reading = readHands(step.text, before)
      const { actions, after, error, whole } = reading
      return { ...quiet, actions, after, error, unread: !whole && !error, reading }
    }
    case 'count': {
      const count = countOf(step.text)
      if (!count) return { ...quiet, unread: true }
      const covered =
        count.touching &&
        before.mats.find(
          (m) =>
            (m.covered || m.regions.some((r) => r.things.some((t) => t.hidden))) &&
            (!count.of[0]?.mat || m.kind === count.of[0].mat),
        )
      const error =
        covered &&
        !before.mats.some((m) => !m.covered && m.regions.some((r) => r.things.some((t) => !t.hidden)))
          ? new TableError('covered')
          : null
      return {
        ...quiet,
        count,
        error,
        after: count.onFrom === null ? before : { ...before, held: count.onFrom },
      }
    }
    case 'write':
      return {
        ...quiet,
        after: step.text.trim()
          ? { ...before, written: [...before.written, step.text.trim()].slice(-mostWritten) }
          : before,
      }
    case 'sound': {
      const claps = readClaps(step.text)
      return claps ? { ...quiet, after: clap(before, claps) } : quiet
    }
    default:
      return quiet
  }
}
