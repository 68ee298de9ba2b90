import type { Seconds } from '../../contracts/units.ts'
import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Segment, Step } from '../../contracts/lesson.ts'
import { readSeconds } from '../../script/reading.ts'
import { timeOf } from '../../script/time.ts'
import { simulate } from '../../script/simulate.ts'
import type { TableState } from '../../script/table/state.ts'
import { spokenLines } from '../follow/spoken.ts'

/** One line on the prompter. */
export interface PromptLine {
  step: Step
  /** What kind of attention it wants: words to say, hands to move, or silence to keep. */
  kind: 'say' | 'hands' | 'wait'
  /** Seconds it takes at the teacher's pace. */
  seconds: Seconds
  /** How many numbers a count has; null for other lines. */
  numbers: number | null
  /** The table once this line is done. */
  table: TableState
  /** Whether this line changes the table. */
  changes: boolean
  /** Faces written for a die, spinner or draw: what really comes up may be another. */
  roll: boolean
}

/** The lines of a segment for the prompter. `pace` is the teacher's own rate in words a minute, null while unknown. */
export function promptLines(
  segment: Segment,
  age: number,
  style: HouseStyle,
  pace: number | null,
): PromptLine[] {
  const spoken = new Map(spokenLines(segment, style).map((l) => [l.stepId, l]))
  return simulate({ segments: [segment] }).map((m) => ({
    step: m.step,
    kind: m.step.verb === 'wait' ? 'wait' : spoken.has(m.step.id) ? 'say' : 'hands',
    seconds:
      m.step.verb === 'wait'
        ? (readSeconds(m.step.text) ?? style.defaultWait)
        : Math.max(
            0.6,
            timeOf(m, age, style, pace).film -
              (m.step.verb === 'ask' && spoken.has(m.step.id) ? silentPart(segment, m.step, style) : 0),
          ),
    numbers: spoken.get(m.step.id)?.numbers?.length ?? null,
    table: m.after,
    changes: m.after !== m.before,
    roll: m.actions.some((a) => a.type === 'roll'),
  }))
}
/** The clock counts the think-time of a question with no wait of its own into the question. */
function silentPart(segment: Segment, step: Step, style: HouseStyle): number {
  const next = segment.steps[segment.steps.indexOf(step) + 1]?.verb
  return step.task || next === 'wait' || next === 'pause' ? 0 : style.defaultWait
}

/** Where the prompter is, and what it has heard at this line. Seconds. */
export interface Following {
  line: number
  voiced: number
  quiet: number
  /** Since the line began. */
  gone: number
  /** Times a voice set in: in a count, about one for each number. */
  onsets: number
  /** How this voice compares with the clock: 0.8 speaks a fifth quicker. Learnt from line to line. */
  rate: number
}
export const startFollowing = (line = 0, rate = 1): Following => ({
  line,
  voiced: 0,
  quiet: 0,
  gone: 0,
  onsets: 0,
  rate,
})

/**
 * How the prompter keeps with a voice, in shares of a line's own time and seconds: a line is done when most of it was
 * spoken and a breath follows, when a good part of it was and a long breath follows (the voice is quicker than the
 * clock thought), or when speech runs on past it; hands are done when speech goes on. A count is done when about as
 * many numbers as it has were said, and then silence for longer than between two of them.
 */
const following = {
  spoken: 0.75,
  breath: 0.35,
  quick: 0.4,
  longBreath: 1,
  runOn: 1.35,
  begun: 0.25,
  counted: 0.75,
  afterCount: 1.3,
  learn: 0.3,
  slowest: 1.6,
  quickest: 0.4,
} as const

/**
 * Moves the prompter on by `dt` seconds in which there was voice or silence. Holds in silence for as long as it lasts;
 * waits run out by themselves. Never goes past the end, `lines.length`.
 */
export function follow(
  state: Following,
  lines: readonly PromptLine[],
  dt: number,
  speaking: boolean,
): Following {
  const line = lines[state.line]
  if (!line) return state
  const onset = speaking && (state.quiet > 0 || state.voiced === 0)
  const next = {
    ...state,
    gone: state.gone + dt,
    voiced: state.voiced + (speaking ? dt : 0),
    quiet: speaking ? 0 : state.quiet + dt,
    onsets: state.onsets + (onset ? 1 : 0),
  }
  const on = (carried = 0, rate = state.rate): Following => ({
    ...startFollowing(state.line + 1, rate),
    voiced: carried,
    gone: carried,
    onsets: carried > 0 ? 1 : 0,
  })
  if (line.kind === 'wait') return next.gone >= line.seconds ? on() : next
  if (line.kind === 'hands') return next.voiced >= following.begun ? on(following.begun) : next
  if (line.numbers !== null)
    return next.onsets >= line.numbers * following.counted && next.quiet >= following.afterCount ? on() : next
  const spoken = next.voiced / (line.seconds * state.rate)
  if (
    (spoken >= following.spoken && next.quiet >= following.breath) ||
    (spoken >= following.quick && next.quiet >= following.longBreath)
  ) {
    const learnt = state.rate * (1 - following.learn) + (next.voiced / line.seconds) * following.learn
    return on(0, Math.min(following.slowest, Math.max(following.quickest, learnt)))
  }
  return spoken >= following.runOn ? on(next.voiced - line.seconds * state.rate * following.runOn) : next
}

/** Letters are read with ease from where their height is seen under this many minutes of arc (twice the least legible). */
const easyReading = 20
/** Of Andika, height of a capital for each unit of font size. */
const capital = 0.7
/** Millimetres of a CSS pixel on a screen of 96 dots an inch; most laptop screens show it a little smaller. */
const mmPerPixel = 25.4 / 96

/** Font size in CSS pixels that reads with ease from a distance in millimetres (300–4000). */
export const sizeForDistance = (distance: number): number =>
  Math.ceil((2 * distance * Math.tan(((easyReading / 2 / 60) * Math.PI) / 180)) / capital / mmPerPixel)
/** The distance in millimetres from which a font size reads with ease. */
export const distanceForSize = (px: number): number =>
  Math.round((px * capital * mmPerPixel) / (2 * Math.tan(((easyReading / 2 / 60) * Math.PI) / 180)))
