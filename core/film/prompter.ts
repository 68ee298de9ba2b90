import type { HouseStyle } from '../contracts/house-style.ts'
import type { Segment, Step } from '../contracts/lesson.ts'
import { readSeconds } from '../script/reading.ts'
import { timeOf } from '../script/time.ts'
import { simulate } from '../script/simulate.ts'
import type { TableState } from '../script/table/state.ts'
import { spokenLines } from './spoken.ts'

/** One line on the prompter. */
export interface PromptLine {
  step: Step
  /** What kind of attention it wants: words to say, hands to move, or silence to keep. */
  kind: 'say' | 'hands' | 'wait'
  /** Seconds it takes at the teacher's pace. */
  seconds: number
  /** The table once this line is done. */
  table: TableState
  /** Whether this line changes the table. */
  changes: boolean
  /** Faces written for a die, spinner or draw: what really comes up may be another. */
  roll: boolean
}

/** The lines of a segment for the prompter. `pace` is the teacher's own rate in words a minute, null while unknown. */
export function promptLines(segment: Segment, age: number, style: HouseStyle, pace: number | null): PromptLine[] {
  const spoken = new Set(spokenLines(segment, style).map((l) => l.stepId))
  return simulate({ segments: [segment] }).map((m) => ({
    step: m.step,
    kind: m.step.verb === 'wait' ? 'wait' : spoken.has(m.step.id) ? 'say' : 'hands',
    seconds: m.step.verb === 'wait' ? (readSeconds(m.step.text) ?? style.defaultWait) : Math.max(0.6, timeOf(m, age, style, pace).film - (m.step.verb === 'ask' && spoken.has(m.step.id) ? silentPart(segment, m.step, style) : 0)),
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
}
export const startFollowing = (line = 0): Following => ({ line, voiced: 0, quiet: 0, gone: 0 })

/**
 * How the prompter keeps with a voice, in shares of a line's own time and seconds: a line is done when most of it was
 * spoken and a breath follows, or when speech runs on past it; hands are done when speech goes on.
 */
export const following = { spoken: 0.75, breath: 0.35, runOn: 1.35, begun: 0.25 } as const

/**
 * Moves the prompter on by `dt` seconds in which there was voice or silence. Holds in silence for as long as it lasts;
 * waits run out by themselves. Never goes past the end, `lines.length`.
 */
export function follow(state: Following, lines: readonly PromptLine[], dt: number, speaking: boolean): Following {
  const line = lines[state.line]
  if (!line) return state
  const next = { ...state, gone: state.gone + dt, voiced: state.voiced + (speaking ? dt : 0), quiet: speaking ? 0 : state.quiet + dt }
  const on = (carried = 0): Following => ({ line: state.line + 1, voiced: carried, quiet: 0, gone: carried })
  switch (line.kind) {
    case 'wait': return next.gone >= line.seconds ? on() : next
    case 'hands': return next.voiced >= following.begun ? on(following.begun) : next
    case 'say': {
      if (next.voiced >= line.seconds * following.spoken && next.quiet >= following.breath) return on()
      return next.voiced >= line.seconds * following.runOn ? on(next.voiced - line.seconds * following.runOn) : next
    }
  }
}

/** Letters are read with ease from where their height is seen under this many minutes of arc (twice the least legible). */
const easyReading = 20
/** Of Andika, height of a capital for each unit of font size. */
const capital = 0.7
/** Millimetres of a CSS pixel on a screen of 96 dots an inch; most laptop screens show it a little smaller. */
const mmPerPixel = 25.4 / 96

/** Font size in CSS pixels that reads with ease from a distance in millimetres (300–4000). */
export const sizeForDistance = (distance: number): number => Math.ceil((2 * distance * Math.tan(((easyReading / 2 / 60) * Math.PI) / 180)) / capital / mmPerPixel)
/** The distance in millimetres from which a font size reads with ease. */
export const distanceForSize = (px: number): number => Math.round((px * capital * mmPerPixel) / (2 * Math.tan(((easyReading / 2 / 60) * Math.PI) / 180)))
