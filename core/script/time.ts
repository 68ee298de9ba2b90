import { type HouseStyle } from '../contracts/house-style.ts'
import type { Lesson, Segment } from '../contracts/lesson.ts'
import { assertNever } from '../contracts/assert-never.ts'
import { tokens } from '../plan/numbers/names.ts'
import { readPauseSeconds, readSeconds } from './reading.ts'
import { type Moment, simulate } from './simulate.ts'
import type { Action } from './table/state.ts'

/**
 * Constants of the clock. Words a minute are unhurried child-directed speech by age (adult conversation runs
 * at about 150–170); counting, handling and waiting are timed apart. Limits follow attention at each age.
 */
export const clock = {
  wordsPerMinute: { 3: 115, 4: 125, 5: 135, 6: 145, 7: 145 } as Record<number, number>,
  adultWordsPerMinute: 165,
  /** Seconds a number: to 10, to 20, beyond (longer names); with a movement. */
  countTo10: 1.1,
  countTo20: 1.2,
  countBeyond: 1.5,
  movement: 0.4,
  /** Under three seconds a wait cuts thought off (Rowe 1974). */
  shortestWait: 3,
  move: 1.5,
  dot: 0.8,
  turn: 1,
  roll: 3,
  numeral: 2,
  sign: 1.2,
  clear: 4,
  cover: 1.5,
  hop: 1.5,
  pauseFilm: 2,
  /** Seconds a home takes to answer a question after it was thought about: to type a number, to tap a choice. */
  homeAnswer: {
    number: 20,
    choice: 15,
    several: 25,
    sentence: 45,
    ways: 180,
    order: 40,
    gaps: 40,
    share: 60,
    match: 45,
    own: 90,
    tell: 40,
    line: 60,
    circles: 45,
    cross: 30,
    draw: 120,
    record: 180,
  },
  filmLimit: { 3: 480, 4: 720, 5: 900, 6: 1080, 7: 1080 } as Record<number, number>,
  segmentLimit: 240,
  talkLimit: (age: number): number => 45 + 15 * (age - 3),
} as const

export interface StepTime {
  /** Seconds of film. */
  film: number
  /** Seconds at home with the film stopped. */
  home: number
}

/** Seconds a hand takes for one action. */
const handling = (a: Action): number => {
  switch (a.type) {
    case 'put':
      return a.at.mat === 'hands'
        ? clock.turn
        : a.at.mat === 'dots' || a.at.mat === 'pairs'
          ? clock.dot * a.count
          : clock.move * a.count
    case 'take':
    case 'move':
      return clock.move * a.keys.length
    case 'heap':
      // All but the largest heap are moved away from it.
      return clock.move * Math.max(1, a.heaps.length - 1) * Math.min(...a.heaps.map((h) => h.length))
    case 'exchange':
    case 'swap places':
      return clock.move * 2
    case 'turn':
      return clock.turn * a.keys.length
    case 'cross':
      return clock.dot * a.keys.length
    case 'draw':
      return clock.roll * Math.max(1, a.texts.length)
    case 'spin':
      return clock.roll
    case 'show card':
    case 'order cards':
    case 'cards back':
      return clock.turn * Math.max(1, a.texts.length)
    case 'label':
      return clock.numeral
    case 'roll':
      return clock.roll * Math.max(1, a.faces.length)
    case 'clear':
      return a.at ? clock.move : clock.clear
    case 'hop':
      // A jump is a jump, of one or of ten.
      return a.times * clock.hop
    case 'lay':
    case 'away':
    case 'bring back':
    case 'add place':
    case 'halve':
      return clock.move * 2
    case 'clap':
      return 2
    case 'cover':
    case 'cover mat':
    case 'uncover':
    case 'rearrange':
    case 'ring':
    case 'divide':
      return clock.cover
    case 'mark':
      return clock.turn * a.numbers.length
    case 'stand':
    case 'unmark':
    case 'unhop':
    case 'unring':
    case 'hold':
    case 'rub out':
      return clock.turn
    default:
      return assertNever(a)
  }
}

const spokenWords = (text: string): number => tokens(text).filter((w) => /[\p{L}\d]/u.test(w)).length

/** Film and home seconds of one step for a lesson's age (3–7) and the audience of its segment; `pace` in words a minute replaces the usual rate. */
export function timeOf(m: Moment, age: number, style: HouseStyle, pace: number | null = null): StepTime {
  const t = watchedTime(m, age, style, pace)
  // What is given without a film is read or done at home; nobody waits for it on a screen.
  return m.segment.unfilmed ? { film: 0, home: t.home } : t
}
function watchedTime(m: Moment, age: number, style: HouseStyle, pace: number | null): StepTime {
  const rate =
    (m.segment.audience === 'adults'
      ? clock.adultWordsPerMinute
      : (pace ?? clock.wordsPerMinute[age] ?? 135)) / 60
  switch (m.step.verb) {
    case 'say':
    case 'reveal':
      return { film: spokenWords(m.step.text) / rate, home: 0 }
    case 'ask': {
      const next = m.segment.steps[m.stepIndex + 1]
      const waits = next && (next.verb === 'wait' || next.verb === 'pause')
      return {
        film: spokenWords(m.step.text) / rate + (waits || m.step.task ? 0 : style.defaultWait),
        home: m.step.task && m.step.task.kind !== 'photo' ? clock.homeAnswer[m.step.task.kind] : 0,
      }
    }
    case 'wait':
      return { film: readSeconds(m.step.text) ?? style.defaultWait, home: 0 }
    case 'do':
      return { film: m.actions.reduce((s, a) => s + handling(a), 0) || clock.move, home: 0 }
    case 'count': {
      if (!m.count) return { film: clock.move, home: 0 }
      const film = m.count.numbers.reduce(
        (s, n) =>
          s +
          (n <= 10 ? clock.countTo10 : n <= 20 ? clock.countTo20 : clock.countBeyond) +
          (m.count!.movement ? clock.movement : 0),
        0,
      )
      return { film, home: 0 }
    }
    case 'write': {
      const signs = tokens(m.step.text).length
      return { film: signs ? clock.numeral + clock.sign * (signs - 1) : 0, home: 0 }
    }
    case 'pause':
      return {
        film: clock.pauseFilm + spokenWords(m.step.text) / rate,
        home: readPauseSeconds(m.step.text) ?? style.defaultPause,
      }
    case 'sound':
      return { film: 2, home: 0 }
    default:
      return assertNever(m.step.verb)
  }
}

export interface SegmentTime extends StepTime {
  id: string
  /** Where it starts in the film, in seconds. */
  start: number
  steps: StepTime[]
}
export interface LessonTime {
  film: number
  home: number
  segments: SegmentTime[]
  /** Share (0–1) of all time, home time included, in which children do, count or answer. */
  doing: number
  /** Longest run of unbroken teacher talk to children, seconds, and the step it starts at. */
  longestTalk: { seconds: number; stepId: string | null }
  questionsPerMinute: number
  /** Seconds of the film a child is to watch: all but the grown-ups' parts. The limit is held against these. */
  watched: number
  filmLimit: number
}

/** Running time of a lesson, per step, per segment and in all. Pass moments already computed to save the work. */
export function timeLesson(
  lesson: Pick<Lesson, 'segments' | 'age'>,
  style: HouseStyle,
  moments: readonly Moment[] = simulate(lesson),
  pace: number | null = null,
): LessonTime {
  const bySegment = new Map<Segment, SegmentTime>()
  let at = 0
  let doing = 0
  let questions = 0
  let talk = { seconds: 0, stepId: null as string | null }
  let longest = talk
  let current: Segment | null = null
  for (const s of lesson.segments) bySegment.set(s, { id: s.id, start: 0, film: 0, home: 0, steps: [] })
  for (const m of moments) {
    const t = timeOf(m, lesson.age, style, pace)
    const entry = bySegment.get(m.segment)!
    if (m.segment !== current) {
      current = m.segment
      talk = { seconds: 0, stepId: null }
    }
    if (entry.steps.length === 0) entry.start = at
    entry.steps.push(t)
    entry.film += t.film
    entry.home += t.home
    at += t.film
    if (m.segment.audience === 'adults') continue
    if (m.step.verb === 'say' || m.step.verb === 'reveal') {
      talk = { seconds: talk.seconds + t.film, stepId: talk.stepId ?? m.step.id }
      if (talk.seconds > longest.seconds) longest = talk
    } else talk = { seconds: 0, stepId: null }
    if (m.step.verb === 'ask') questions++
    if (m.step.verb === 'wait' || m.step.verb === 'count') doing += t.film
    if (m.step.verb === 'ask')
      doing += Math.max(
        0,
        t.film - spokenWords(m.step.text) / ((pace ?? clock.wordsPerMinute[lesson.age] ?? 135) / 60),
      )
    doing += t.home
  }
  const segments = lesson.segments.map((s) => bySegment.get(s)!)
  for (let i = 0, start = 0; i < segments.length; i++) {
    segments[i]!.start = start
    start += segments[i]!.film
  }
  const home = segments.reduce((s, x) => s + x.home, 0)
  const adults = lesson.segments.reduce((s, x, i) => s + (x.audience === 'adults' ? segments[i]!.film : 0), 0)
  return {
    film: at,
    home,
    watched: at - adults,
    segments,
    longestTalk: longest,
    doing: at + home > 0 ? doing / (at + home) : 0,
    questionsPerMinute: at > 0 ? questions / (at / 60) : 0,
    filmLimit: clock.filmLimit[lesson.age] ?? 900,
  }
}
