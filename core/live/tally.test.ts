import { expect, test } from 'vitest'
import type { LiveAct } from '../contracts/live.ts'
import type { Answer } from '../contracts/reply.ts'
import { ladder } from '../plan/ladder/ladder.ts'
import { packOf } from '../send/pack.ts'
import { answersOf, missedNote, packAfter, segmentTimes } from './afterwards.ts'
import { runOf } from './run.ts'
import { after, startState } from './state.ts'
import { type AskedBefore, saidBefore, tallyOf, tallySeen } from './tally.ts'
import { lessonOf, stepsOf, style } from './testing.ts'

const round = {
  id: 'r1',
  prompt: 'There are 8. 3 are taken away. How many are left?',
  spec: { kind: 'number', answer: 5 },
  parts: [],
} as const
const typed = (text: string): Answer => ({ taskId: 'r1', kind: 'number', text })
const given = (childId: string, text: string, late = false) => ({ childId, answer: typed(text), late, at: 0 })
const kids = ['anouk', 'bram', 'fenn', 'kofi', 'leyla', 'zuri']

test('a tally by answer, commonest first; of each wrong one what it may come from; and who is silent', () => {
  const t = tallyOf(
    round,
    [given('anouk', '5'), given('bram', '11'), given('fenn', 'five'), given('kofi', '6', true)],
    kids,
  )
  expect(t.rows.map((r) => [r.shown, r.verdict, r.children])).toEqual([
    ['5', 'right', ['anouk', 'fenn']],
    ['6', 'wrong', ['kofi']],
    ['11', 'wrong', ['bram']],
  ])
  const why = Object.fromEntries(t.rows.map((r) => [r.shown, r.perhaps]))
  expect(why['5']).toBeNull()
  expect(why['11']).toMatch(/add/)
  expect(why['6']).not.toBeNull()
  expect([t.right, t.wrong, t.late, t.silent]).toEqual([2, 2, ['kofi'], ['leyla', 'zuri']])
})
test('where the words tell nothing, how the things lay as it was asked does: one part for the whole, the whole for a part', () => {
  const lay = {
    id: 'r1',
    prompt: 'How many socks altogether?',
    spec: { kind: 'number', answer: 5 },
    parts: [2, 3],
  } as const
  const why = (r: Parameters<typeof tallyOf>[0], text: string) =>
    tallyOf(r, [given('bram', text)], kids).rows[0]!.perhaps
  expect(why(lay, '3')).not.toBeNull()
  expect(
    why({ ...lay, prompt: 'How many on the other shelf?', spec: { kind: 'number', answer: 2 } }, '5'),
  ).not.toBeNull()
  expect(why({ ...lay, parts: [] }, '3')).toBeNull()
})
test('being ready is no answer that is right or wrong, and an answer nobody can read is for the eye', () => {
  const ready = tallyOf(
    { id: 'r1', prompt: 'Fetch six', spec: null, parts: [] },
    [given('anouk', 'ready')],
    kids,
  )
  expect(ready.rows).toEqual([{ shown: 'ready', verdict: 'look', children: ['anouk'], perhaps: null }])
  expect(tallyOf(round, [given('bram', 'a lot')], kids).rows[0]).toMatchObject({
    verdict: 'look',
    perhaps: null,
  })
})
test('what the class said before: the same question before one like it, the newest first, and nothing where nothing is like it', () => {
  const was = (prompt: string, answer: number, at: number, right: number): AskedBefore => ({
    task: { id: 'x', prompt, spec: { kind: 'number', answer } },
    at,
    right,
    of: 11,
  })
  const same = was('8 parcels, 3 taken away: how many are left?', 5, 10, 5)
  const other = was('6 and 1?', 7, 20, 9)
  expect(saidBefore(round, [same, other])).toEqual({ same: true, at: 10, right: 5, of: 11 })
  expect(saidBefore(round, [other])).toEqual({ same: false, at: 20, right: 9, of: 11 })
  expect(saidBefore(round, [])).toBeNull()
  expect(saidBefore({ ...round, spec: { kind: 'photo', things: 5 } }, [same])).toBeNull()
})
test('afterwards: what was taken back does not count, and tasks kept for home stand behind the rounds', () => {
  const doc = lessonOf([
    {
      id: 's1',
      kind: 'home task',
      steps: stepsOf('s1', ['ask: Find six at home.']).map((s) => ({
        ...s,
        task: { kind: 'photo', things: 6 } as const,
      })),
    },
  ])
  const s = startState(doc)
  const was = {
    stepId: null,
    segmentId: null,
    show: 'card',
    game: false,
    began: 0,
    opens: 0,
    shows: 1,
    closed: 2,
  } as const
  const rounds = [
    { ...was, ...round, parts: [], undone: true },
    { ...was, ...round, id: 'r2', parts: [], undone: false },
    { ...was, id: 'r3', prompt: 'Fetch six', spec: null, parts: [], undone: false },
  ]
  const answers = answersOf({ rounds }, [
    { roundId: 'r1', answer: typed('9') },
    { roundId: 'r2', answer: typed('5') },
    { roundId: 'r3', answer: typed('ready') },
  ])
  expect(answers).toEqual([{ taskId: 'r2', kind: 'number', text: '5' }])
  const pack = packAfter(packOf(doc, ladder, style), runOf(doc, style, null, s), { ...s, rounds })
  expect(pack.tasks.map((t) => [t.id, t.prompt])).toEqual([
    ['r2', round.prompt],
    ['s1-1', 'Find six at home.'],
  ])
})
test('a recording of the call is parted by when each segment was gone to; going back makes another part', () => {
  const doc = lessonOf([
    { id: 'a', steps: stepsOf('a', ['say: One.', 'say: Two.']) },
    { id: 'b', steps: stepsOf('b', ['say: Three.']) },
  ])
  const by = { id: '00000000-0000-4000-8000-000000000001', name: 'Marnie', desk: 'one' }
  const acts: [number, LiveAct][] = [
    [10_000, { do: 'start' }],
    [20_000, { do: 'go', line: 1 }],
    [30_000, { do: 'go', line: 2 }],
    [45_000, { do: 'go', line: 0 }],
    [50_000, { do: 'end' }],
  ]
  const run = runOf(doc, style, null, startState(doc))
  const over = acts.reduce((s, [at, act]) => after(s, run, { act, at, by }), startState(doc))
  expect(segmentTimes(over)).toEqual([
    { segmentId: 'a', from: 0, to: 20 },
    { segmentId: 'b', from: 20, to: 35 },
    { segmentId: 'a', from: 35, to: 40 },
  ])
})
test('homes that missed it are told of what was done, and of nothing that was gone past', () => {
  const doc = lessonOf([
    { id: 'a', title: 'Ready?', steps: stepsOf('a', ['say: One.']) },
    { id: 'b', title: 'Parcels', steps: stepsOf('b', ['say: Two.']) },
    { id: 'c', title: 'Share the stamps out.', steps: stepsOf('c', ['say: Three.']) },
  ])
  const run = runOf(doc, style, null, startState(doc))
  const visits = ['a', 'c'].map((segmentId, at) => ({ segmentId, at }))
  expect(missedNote(run, { visits }, 'Tuesday')).toContain('We did: Ready, Share the stamps out. If')
})
test('how long answers took is told of those in time, from when they could be given', () => {
  const open = {
    ...round,
    id: 'r1',
    stepId: null,
    segmentId: null,
    show: 'card',
    game: true,
    began: 0,
    opens: 2000,
    shows: 9000,
    closed: null,
    undone: false,
    parts: [],
  } as const
  const seen = tallySeen(
    { ...open, parts: [] },
    [
      { ...given('anouk', '5'), at: 5000 },
      { ...given('bram', '5', true), at: 20_000 },
    ],
    { children: kids, now: 8000, earlier: [], readings: new Map() },
  )
  expect([seen.took, seen.shown, seen.rows]).toEqual([[3000], false, []])
})
