import fc from 'fast-check'
import { expect, test } from 'vitest'
import { defaultHouseStyle } from '../contracts/house-style.ts'
import type { Lesson, Segment } from '../contracts/lesson.ts'
import { type LiveAct, LiveState } from '../contracts/live.ts'
import { describeTable } from '../script/table/description.ts'
import { lessonOf, stepsOf } from './testing.ts'
import { runOf } from './run.ts'
import { after, arrival, countdown, isShown, LiveRefusal, roundNow, startState, tableNow } from './state.ts'
import { seenBy } from './view.ts'

const doc: Lesson = lessonOf([
  {
    id: 's1',
    title: 'Hello',
    kind: 'hook',
    steps: stepsOf('s1', ['say: Hello from Bobbin.', 'do: Put 4 on the frame']),
  },
  {
    id: 's2',
    title: 'Parcels',
    kind: 'show',
    steps: [
      ...stepsOf('s2', ['ask: How many are on the frame?', 'wait: 5 s', 'say: Four.']).map((s, i) =>
        i === 0 ? { ...s, task: { kind: 'number', answer: 4 } as const } : s,
      ),
      ...stepsOf('s2x', ['wait: 8 s', 'pause: Put four of your own out (60 s)', 'do: Roll 5']),
    ],
  },
  {
    id: 's3',
    title: 'At home',
    kind: 'home task',
    steps: stepsOf('s3', ['ask: Find six at home.']).map((s) => ({
      ...s,
      task: { kind: 'photo', things: 6 } as const,
    })),
  },
] as Partial<Segment>[])
const style = defaultHouseStyle
const by = { id: '00000000-0000-4000-8000-000000000001', name: 'Marnie', desk: 'one' }
const run = (s: LiveState) => runOf(doc, style, null, s)
/** Does acts one after another, so many milliseconds apart. */
function doing(acts: readonly (readonly [number, LiveAct])[], from: LiveState = startState(doc)): LiveState {
  return acts.reduce((s, [at, act]) => after(s, run(s), { act, at, by }), from)
}
const line = (words: string): number => run(startState(doc)).lines.findIndex((l) => l.words.startsWith(words))

test('stops and questions are rounds, the wait after a question is its thinking, other waits are silence, home tasks stay for later', () => {
  const r = run(startState(doc))
  expect(r.lines.map((l) => [l.kind, l.words, l.think])).toEqual([
    ['say', 'Hello from Bobbin.', 0],
    ['hands', 'Put 4 on the frame', 0],
    ['round', 'How many are on the frame?', 5],
    ['say', 'Four.', 0],
    ['wait', '8 s', 0],
    ['round', 'Put four of your own out', 0],
    ['hands', 'Roll 5', 0],
    ['say', 'Find six at home.', 0],
  ])
  expect(startState(doc).later).toEqual(['s3-1'])
  const asked = run(doing([[1, { do: 'later', stepId: 's3-1', later: false }]]))
  expect(asked.lines.at(-1)!.kind).toBe('round')
})
test('a round: thinking, open, three two one, shown; and nothing can be sent before the thinking is over', () => {
  const s = doing([
    [1000, { do: 'start' }],
    [2000, { do: 'go', line: line('How many') }],
    [3000, { do: 'round', line: line('How many'), show: 'card', think: 5 }],
  ])
  expect(arrival(s, 'r1', 7000)).toBe('early')
  expect(arrival(s, 'r1', 8000)).toBe('in time')
  expect(() => doing([[6000, { do: 'show' }]], s)).toThrow('still thinking')
  const longer = doing([[6000, { do: 'longer', seconds: 5 }]], s)
  expect(arrival(longer, 'r1', 9000)).toBe('early')
  const shown = doing([[12_000, { do: 'show' }]], s)
  const r = roundNow(shown)!
  expect(isShown(r, 12_000 + countdown - 1)).toBe(false)
  expect(isShown(r, 12_000 + countdown)).toBe(true)
  expect(arrival(shown, 'r1', 12_000 + countdown + 1000)).toBe('in time')
  expect(arrival(shown, 'r1', 12_000 + countdown + 2000)).toBe('late')
  expect(arrival(shown, 'r9', 12_000)).toBe('unknown')
  expect(arrival(doing([[20_000, { do: 'undo' }]], shown), 'r1', 20_001)).toBe('undone')
})
test('going on closes the round; what comes for it afterwards is late, not lost', () => {
  const s = doing([
    [0, { do: 'start' }],
    [0, { do: 'round', line: line('How many'), show: 'card', think: 0 }],
    [9000, { do: 'go', line: line('Four') }],
  ])
  expect(roundNow(s)).toBeNull()
  expect(s.rounds[0]).toMatchObject({ shows: 9000, closed: 9000, undone: false })
  expect(arrival(s, 'r1', 11_000)).toBe('late')
})
test('what hands do is read like a line of the script; what cannot be read or done changes nothing and says why', () => {
  const s = doing([
    [0, { do: 'start' }],
    [1, { do: 'go', line: 1 }],
    [2, { do: 'table', text: 'Put 2 blue ones on the frame' }],
  ])
  expect(describeTable(tableNow(run(s), s))).toBe('ten frame: 4 saffron, 2 blue, 4 empty')
  expect(() => doing([[3, { do: 'table', text: 'Put 9 more on the frame' }]], s)).toThrow(LiveRefusal)
  expect(() => doing([[3, { do: 'table', text: 'Wobble the crumpet sideways' }]], s)).toThrow(
    'nothing was moved',
  )
  expect(describeTable(tableNow(run(s), doing([[3, { do: 'table back' }]], s)))).toBe(
    'ten frame: 4 saffron, 6 empty',
  )
  // The script's own table comes back with its next line.
  expect(doing([[3, { do: 'go', line: 2 }]], s).acts).toEqual([])
})
test('what really came up is written into the line, and homes are told of it', () => {
  const s = doing([
    [0, { do: 'start' }],
    [1, { do: 'throw', stepId: run(startState(doc)).lines[line('Roll')]!.step.id, faces: [2] }],
  ])
  expect(run(s).lines[line('Roll')]!.words).toBe('Roll 2')
  expect(() => doing([[2, { do: 'throw', stepId: 's1-1', faces: [2] }]], s)).toThrow('Nothing is thrown')
  expect(() =>
    doing([[2, { do: 'throw', stepId: run(s).lines[line('Roll')]!.step.id, faces: [2, 3] }]], s),
  ).toThrow('tell as many')
})
test.each([
  ['fingers', 10, 'fingers'],
  ['fingers', 11, 'card'],
  ['frame', 20, 'frame'],
  ['dots', 21, 'card'],
] as const)('a number is shown with %s only where it can be: %d with a %s', (show, answer, way) => {
  const s = doing([
    [0, { do: 'start' }],
    [1, { do: 'ask', prompt: 'Show me.', answer, show, think: 0 }],
  ])
  expect(roundNow(s)!.show).toBe(way)
})
test('a game throws rounds of its own, on a table of its own, and leaves the script where it was', () => {
  const s = doing([
    [0, { do: 'start' }],
    [1, { do: 'game', game: { kind: 'to and fro', total: 7 } }],
    [2, { do: 'play', thrown: [3], real: true, show: 'card', think: 0 }],
  ])
  expect(roundNow(s)).toMatchObject({
    game: true,
    prompt: 'I say 3. What goes with it to make 7?',
    spec: { answer: 4 },
  })
  expect(describeTable(tableNow(run(s), s))).toBe('cards: 3')
  expect(() => doing([[3, { do: 'play', thrown: [8], real: true, show: 'card', think: 0 }]], s)).toThrow(
    'cannot come up',
  )
  const back = doing([[3, { do: 'game', game: null }]], s)
  expect([back.game, back.line]).toEqual([null, 0])
})
test.each<[string, (readonly [number, LiveAct])[]]>([
  [
    'ended',
    [
      [0, { do: 'start' }],
      [1, { do: 'end' }],
      [2, { do: 'go', line: 1 }],
    ],
  ],
  ['not begun', [[0, { do: 'go', line: 1 }]]],
  [
    'begun already',
    [
      [0, { do: 'start' }],
      [1, { do: 'start' }],
    ],
  ],
  [
    'past its last line',
    [
      [0, { do: 'start' }],
      [1, { do: 'go', line: 8 }],
    ],
  ],
  [
    'a line that asks nothing',
    [
      [0, { do: 'start' }],
      [1, { do: 'round', line: 0, show: 'card', think: 0 }],
    ],
  ],
  [
    'nothing asked',
    [
      [0, { do: 'start' }],
      [1, { do: 'show' }],
    ],
  ],
  [
    'nothing to take back',
    [
      [0, { do: 'start' }],
      [1, { do: 'undo' }],
    ],
  ],
  [
    'leaving out where one is',
    [
      [0, { do: 'start' }],
      [1, { do: 'leave out', segmentId: 's1' }],
    ],
  ],
  [
    'no game',
    [
      [0, { do: 'start' }],
      [1, { do: 'play', thrown: [1], real: true, show: 'card', think: 0 }],
    ],
  ],
])('is refused in words: %s', (_, acts) => {
  expect(() => doing(acts)).toThrow(LiveRefusal)
})

const act: fc.Arbitrary<LiveAct> = fc.oneof(
  fc.record({
    do: fc.constantFrom(
      'start' as const,
      'again' as const,
      'show' as const,
      'close' as const,
      'undo' as const,
      'table back' as const,
      'lead' as const,
    ),
  }),
  fc.record({ do: fc.constant('go' as const), line: fc.integer({ min: 0, max: 9 }) }),
  fc.record({ do: fc.constant('longer' as const), seconds: fc.integer({ min: 1, max: 60 }) }),
  fc.record({
    do: fc.constant('round' as const),
    line: fc.integer({ min: 0, max: 9 }),
    show: fc.constant('card' as const),
    think: fc.integer({ min: 0, max: 9 }),
  }),
  fc.record({
    do: fc.constant('table' as const),
    text: fc.constantFrom('Put 2 on the table', 'Take 1 off the table', 'hm'),
  }),
  fc.record({
    do: fc.constantFrom('leave out' as const, 'bring back' as const),
    segmentId: fc.constantFrom('s1', 's2', 's3', 's9'),
  }),
  fc.record({
    do: fc.constant('game' as const),
    game: fc.constantFrom(null, { kind: 'skittles' as const, of: 10 }),
  }),
  fc.record({
    do: fc.constant('play' as const),
    thrown: fc.array(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: 2 }),
    real: fc.boolean(),
    show: fc.constant('card' as const),
    think: fc.constant(0),
  }),
  fc.record({ do: fc.constant('note' as const), text: fc.string({ maxLength: 20 }) }),
  fc.record({ do: fc.constant('end' as const) }),
)
test('whatever is done in whatever order: every state is whole, one round is under way at most, and no home is told an answer', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 9000 }), act), { maxLength: 40 }), (acts) => {
      let [s, at] = [startState(doc), 0]
      for (const [wait, a] of acts) {
        at += wait
        const before = s
        try {
          s = after(s, run(s), { act: a, at, by })
          expect(s.seq).toBe(before.seq + 1)
        } catch (error) {
          expect(error).toBeInstanceOf(LiveRefusal)
        }
        expect(LiveState.safeParse(s).error).toBeUndefined()
        expect(s.rounds.filter((r) => !r.undone && r.closed === null).length).toBeLessThanOrEqual(1)
        const seen = JSON.stringify(seenBy(run(s), s, style, at))
        expect(seen).not.toMatch(/"answer"|"spec"|"also"|"lead"|"notes"/)
      }
    }),
    { numRuns: 60 },
  )
})
test('homes are told the words that are said, the silence that is kept, and the question, and nothing of what is at the desk', () => {
  const s = doing([[1000, { do: 'start' }]])
  expect(seenBy(run(s), s, style, 1000)).toMatchObject({
    words: 'Hello from Bobbin.',
    silence: null,
    round: null,
  })
  const silent = doing(
    [
      [2000, { do: 'go', line: line('8 s') }],
      [3000, { do: 'longer', seconds: 4 }],
    ],
    s,
  )
  expect(seenBy(run(silent), silent, style, 3000)).toMatchObject({
    words: null,
    silence: { from: 2000, until: 14_000 },
  })
  const asked = doing(
    [
      [4000, { do: 'go', line: line('Put four') }],
      [4000, { do: 'round', line: line('Put four'), show: 'card', think: 2 }],
    ],
    s,
  )
  expect(seenBy(run(asked), asked, style, 4000).round).toMatchObject({
    prompt: 'Put four of your own out',
    task: null,
    opens: 6000,
  })
})
