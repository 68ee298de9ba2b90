import type { HouseStyle } from '../contracts/house-style.ts'
import type { Lesson } from '../contracts/lesson.ts'
import { readSeconds } from './reading.ts'
import type { Moment } from './simulate.ts'
import { clock, type LessonTime, timeOf } from './time.ts'

type KindOfTime =
  'talk' | 'questions' | 'waiting' | 'counting' | 'handling' | 'writing' | 'pause cues' | 'sounds'
const kindOf: Record<Moment['step']['verb'], KindOfTime> = {
  say: 'talk',
  reveal: 'talk',
  ask: 'questions',
  wait: 'waiting',
  count: 'counting',
  do: 'handling',
  write: 'writing',
  pause: 'pause cues',
  sound: 'sounds',
}

export interface TimeShare {
  kind: KindOfTime
  seconds: number
  share: number
}
/** Where the film's seconds go, most first; shares sum to one. */
export function whereTimeGoes(lesson: Pick<Lesson, 'segments'>, time: LessonTime): TimeShare[] {
  const by = new Map<KindOfTime, number>()
  lesson.segments.forEach((s, i) =>
    s.steps.forEach((step, j) =>
      by.set(kindOf[step.verb], (by.get(kindOf[step.verb]) ?? 0) + (time.segments[i]?.steps[j]?.film ?? 0)),
    ),
  )
  return [...by]
    .map(([kind, seconds]) => ({ kind, seconds, share: time.film > 0 ? seconds / time.film : 0 }))
    .filter((x) => x.seconds > 0)
    .sort((a, b) => b.seconds - a.seconds)
}

export type Saving =
  | { kind: 'shorter wait'; stepId: string; seconds: number; to: number; what: string }
  | { kind: 'repetition'; segmentId: string; seconds: number; what: string }
  | { kind: 'recount'; stepId: string; seconds: number; what: string }
  | { kind: 'long talk'; stepId: string; seconds: number; what: string }

/** Think-time is never cut under this, in seconds: what is offered is the rest of a longer wait. */
const kindWait = 5

/**
 * What would bring a film under its limit, the least harmful first: repetitions beyond the second of a kind, counts
 * said again, waits longer than anybody thinks, and last the longest talk. Enough of them to reach the limit, or all.
 */
export function savings(
  lesson: Pick<Lesson, 'segments' | 'age'>,
  time: LessonTime,
  moments: readonly Moment[],
  style: HouseStyle,
): { over: number; list: Saving[]; enough: boolean } {
  const over = time.watched - time.filmLimit
  if (over <= 0) return { over: 0, list: [], enough: true }
  const all: Saving[] = []
  const together = lesson.segments
    .map((s, i) => ({ s, film: time.segments[i]!.film }))
    .filter((x) => x.s.kind === 'together' && x.s.audience === 'children')
  for (const { s, film } of together.slice(2).reverse())
    all.push({
      kind: 'repetition',
      segmentId: s.id,
      seconds: film,
      what: `Leave “${s.title}” out: two rounds of the same are shown before it.`,
    })
  for (const s of lesson.segments) {
    const counts = moments.filter((m) => m.segment === s && m.count && !m.count.touching)
    for (const m of counts.slice(1))
      if (counts[0]!.count!.numbers.join() === m.count!.numbers.join())
        all.push({
          kind: 'recount',
          stepId: m.step.id,
          seconds: timeOf(m, lesson.age, style).film,
          what: `“${m.step.text}” is counted once already here.`,
        })
  }
  for (const m of moments
    .filter((x) => x.step.verb === 'wait')
    .sort((a, b) => (readSeconds(b.step.text) ?? 0) - (readSeconds(a.step.text) ?? 0))) {
    const s = readSeconds(m.step.text) ?? 0
    if (s > kindWait + 1)
      all.push({
        kind: 'shorter wait',
        stepId: m.step.id,
        seconds: s - kindWait,
        to: kindWait,
        what: `A wait of ${s} s could be ${kindWait} s, or a stop of the film.`,
      })
  }
  for (const m of moments
    .filter((x) => x.step.verb === 'say')
    .sort((a, b) => b.step.text.length - a.step.text.length)
    .slice(0, 5)) {
    const s = timeOf(m, lesson.age, style).film
    if (s > 10)
      all.push({
        kind: 'long talk',
        stepId: m.step.id,
        seconds: s / 2,
        what: `“${m.step.text.slice(0, 40)}…” takes ${Math.round(s)} s: half of it would do.`,
      })
  }
  const list: Saving[] = []
  let saved = 0
  for (const x of all) {
    if (saved >= over) break
    list.push(x)
    saved += x.seconds
  }
  return { over, list, enough: saved >= over }
}
export const limitsOf = (age: number): { film: number; segment: number; talk: number } => ({
  film: clock.filmLimit[age] ?? 900,
  segment: clock.segmentLimit,
  talk: clock.talkLimit(age),
})
