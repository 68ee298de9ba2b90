import { expect, test } from 'vitest'
import type { Segment } from '../contracts/lesson.ts'
import type { LiveState } from '../contracts/live.ts'
import { timingOf } from './clock.ts'
import { runOf } from './run.ts'
import { startState } from './state.ts'
import { lessonOf, stepsOf, style } from './testing.ts'

/** A segment of so many minutes of silence. */
const part = (
  id: string,
  kind: Segment['kind'],
  minutes: number,
  more: readonly string[] = [],
): Partial<Segment> => ({
  id,
  title: id,
  kind,
  steps: stepsOf(id, [...Array.from({ length: minutes }, () => 'wait: 60 s'), ...more]),
})
const doc = lessonOf([
  part('hello', 'hook', 2),
  part('show', 'show', 4),
  part('together-1', 'together', 3),
  part('together-2', 'together', 5),
  part('extra', 'challenge', 1),
  part('goodbye', 'close', 2),
])
const run = runOf(doc, style, null, startState(doc))
/** On for so many seconds since its hour, with what each segment had so far, one after another, up to now. */
function on(
  now: number,
  { spent, ...change }: Partial<LiveState> & { spent: Record<string, number> },
): LiveState {
  const all = Object.entries(spent)
  let from = now - all.reduce((sum, [, s]) => sum + s, 0)
  const visits = all.map(([segmentId, s]) => {
    const at = from * 1000
    from += s
    return { segmentId, at }
  })
  const here =
    change.line === undefined ? [] : [{ segmentId: run.lines[change.line]!.segmentId, at: now * 1000 }]
  return {
    ...startState(doc),
    phase: 'on',
    startedAt: 0,
    since: now * 1000,
    visits: [...visits, ...here],
    ...change,
  }
}
const when = (now: number, room = run.seconds) => ({ at: now * 1000, startsAt: 0, room })
const line = (id: string): number => run.segments.find((s) => s.id === id)!.from

test('the plan: each segment after the one before it, ending when the plan does', () => {
  const t = timingOf(doc, run, startState(doc), when(0))
  expect(t.rows.map((r) => [r.segment.id, r.planned, r.state])).toEqual([
    ['hello', 0, 'coming'],
    ['show', 120, 'coming'],
    ['together-1', 360, 'coming'],
    ['together-2', 540, 'coming'],
    ['extra', 840, 'coming'],
    ['goodbye', 900, 'coming'],
  ])
  expect([t.plannedEnd, t.ends, t.offer]).toEqual([1020, 1020, null])
})
test('what took longer moves all that comes, and the least that mends it is offered', () => {
  // Hello and show took as planned, but it began three minutes late: three minutes over.
  const state = (now: number) => on(now, { line: line('together-1'), spent: { hello: 120, show: 240 } })
  const t = timingOf(doc, run, state(540), when(540, 1020))
  expect(t.ends).toBe(1200)
  expect(t.rate).toBe(1)
  expect(t.offer).toEqual({ segmentIds: ['together-2'], titles: ['together-2'], ends: 900 })
  const little = timingOf(doc, run, state(450), when(450, 1020))
  expect(little.offer).toEqual({ segmentIds: ['extra'], titles: ['extra'], ends: 1050 })
  expect(timingOf(doc, run, state(400), when(400, 1020)).offer).toBeNull()
})
test('a class that needs half as long again is thought to need it for the rest', () => {
  const state = (now: number) => on(now, { line: line('together-1'), spent: { hello: 180, show: 360 } })
  const t = timingOf(doc, run, state(540), when(540, 1020))
  expect(t.rate).toBe(1.5)
  expect(t.ends).toBe(540 + 11 * 60 * 1.5)
})
test('what was left out takes no time, and what is left out is not offered again', () => {
  const state = (now: number) =>
    on(now, { line: line('together-1'), spent: { hello: 120, show: 240 }, leftOut: ['together-2'] })
  const t = timingOf(doc, run, state(540), when(540, 1020))
  expect(t.ends).toBe(900)
  expect(t.rows.find((r) => r.segment.id === 'together-2')!.state).toBe('left out')
})
test.each([
  [1530, ['together-2']],
  [1300, ['together-1', 'together-2']],
  // All of it is not enough: the most dispensable first.
  [600, ['extra', 'together-2', 'together-1']],
])(
  'one, two, or as many as it needs where the lesson may end after %d s; what opens, shows and closes is never offered',
  (room, ids) => {
    const state = on(600, { line: line('show'), spent: { hello: 600 } })
    expect(timingOf(doc, run, state, when(600, room)).offer?.segmentIds).toEqual(ids)
  },
)
test('nothing is offered on whose table later lines stand', () => {
  const built = lessonOf([
    part('hello', 'hook', 1),
    part('lay-it', 'together', 5, ['do: Put 6 on the frame']),
    part('turn-it', 'show', 3, ['do: Turn over 2 on the frame']),
  ])
  const r = runOf(built, style, null, startState(built))
  const t = timingOf(
    built,
    r,
    { ...startState(built), phase: 'on', line: 0, startedAt: 0, since: 400_000 },
    when(400, 300),
  )
  expect(t.ends).toBeGreaterThan(345)
  expect(t.offer).toBeNull()
})
