import { expect, test } from 'vitest'
import type { LiveAct, LiveState } from '../contracts/live.ts'
import { backAct, nextAct } from './next-act.ts'
import { liveWords, runOf } from './run.ts'
import { after, countdown, startState } from './state.ts'
import { lessonOf, stepsOf, style } from './testing.ts'

const doc = lessonOf([
  { id: 'a', steps: stepsOf('a', ['say: Hello.']) },
  {
    id: 'b',
    kind: 'together',
    steps: stepsOf('b', [
      'ask: How many?',
      'pause: Fetch your things. Press play when you are back. (60 s)',
    ]).map((s) => (s.verb === 'ask' ? { ...s, task: { kind: 'number' as const, answer: 3 } } : s)),
  },
  { id: 'c', steps: stepsOf('c', ['say: Goodbye.']) },
])
const by = { id: '00000000-0000-4000-8000-000000000001', name: 'Marnie', desk: 'one' }
const run = (s: LiveState) => runOf(doc, style, null, s)
const does = (s: LiveState, act: LiveAct | null, at: number): LiveState =>
  after(s, run(s), { act: act!, at, by })

test('one key leads through the whole lesson: begin, ask, wait, show, go on, let them do it, end', () => {
  let [s, at] = [startState(doc), 0]
  const said: string[] = []
  for (let k = 0; k < 40 && s.phase !== 'over'; k++) {
    const next = nextAct(run(s), s, at, 'card')
    said.push(next.words)
    if (next.from !== null) at = next.from
    else {
      s = does(s, next.act, at)
      at += 1000
    }
  }
  expect(said).toEqual([
    'Begin',
    'Go on',
    'Ask it',
    'They are thinking',
    'Three, two, one, show',
    'Three, two, one …',
    'Go on',
    'Let them do it',
    'Go on',
    'End the lesson',
  ])
  expect(s.rounds.map((r) => [r.prompt, r.opens - r.began, r.shows! - r.opens >= countdown])).toEqual([
    ['How many?', style.defaultWait * 1000, true],
    ['Fetch your things. Say “ready” when you are back.', 0, false],
  ])
})
test('what is left out is gone past, forwards and back', () => {
  let s = does(startState(doc), { do: 'start' }, 0)
  s = does(s, { do: 'leave out', segmentId: 'b' }, 1)
  expect(nextAct(run(s), s, 2, 'card').act).toEqual({ do: 'go', line: 3 })
  s = does(s, { do: 'go', line: 3 }, 3)
  expect(backAct(run(s), s)).toEqual({ do: 'go', line: 0 })
  expect(backAct(run(s), does(s, { do: 'go', line: 0 }, 4))).toBeNull()
})
test('a round that was taken back can be asked anew', () => {
  let s = does(startState(doc), { do: 'start' }, 0)
  s = does(s, { do: 'go', line: 1 }, 1)
  s = does(s, nextAct(run(s), s, 2, 'dots').act, 2)
  s = does(s, { do: 'undo' }, 3)
  expect(nextAct(run(s), s, 4, 'dots')).toMatchObject({ words: 'Ask it', act: { do: 'round', show: 'dots' } })
})
test.each([
  ['Then press play.', 'Then say “ready”.'],
  ['Press play again when you have ten.', 'Say “ready” when you have ten.'],
  ['Pause the film here and find six.', 'Stop here and find six.'],
  ['Bobbin likes to play.', 'Bobbin likes to play.'],
])('a film is played and stopped, homes say that they are ready: %s', (film, live) => {
  expect(liveWords(film)).toBe(live)
})
