import { describe, expect, test } from 'vitest'
import { takesNeeded, ownPace } from '../script/pace.ts'
import { remembered } from '../remember.ts'
import { evidenceOf, type RepliedTo } from './evidence.ts'

const pack = {
  title: 'Post',
  ideaId: 'add-10',
  aim: '',
  needs: [],
  cautions: [],
  adultNote: [],
  tasks: [
    { id: 'n', prompt: 'How many?', spec: { kind: 'number' as const, answer: 7 } },
    { id: 'c', prompt: 'Which?', spec: { kind: 'choice' as const, choices: ['a', 'b', 'c'], answer: 1 } },
    { id: 'p', prompt: 'Make seven.', spec: { kind: 'photo' as const, things: 7 } },
  ],
}
const reply = (over: Partial<RepliedTo>): RepliedTo => ({
  id: 'r',
  childId: 'k',
  lessonId: 'l',
  at: new Date(1000),
  pack,
  answers: [],
  help: 'alone',
  rung: null,
  ...over,
})

describe('what an answer says', () => {
  test('right and wrong, with the rung its kind stands on', () => {
    const said = evidenceOf(
      reply({
        answers: [
          { taskId: 'n', kind: 'number', text: 'seven' },
          { taskId: 'c', kind: 'choice', choice: 2 },
        ],
      }),
      new Map(),
    )
    expect(said.map((e) => [e.id, e.right, e.rung, e.kind])).toEqual([
      ['r:n', true, 'head', 'number'],
      ['r:c', false, 'picture', 'choice'],
    ])
    expect(said[1]).toMatchObject({ choices: 3, ideaId: 'add-10', title: 'Post' })
  })
  test.each([
    ['left open', []],
    ['unreadable', [{ taskId: 'n', kind: 'number' as const, text: '🙂' }]],
    ['a photo nobody has read yet', [{ taskId: 'p', kind: 'photo' as const, photoId: 'x' }]],
  ])('%s is no evidence', (_, answers) => expect(evidenceOf(reply({ answers }), new Map())).toEqual([]))
  test('the rung a judge saw outranks it, and help not told counts as a nudge', () =>
    expect(
      evidenceOf(
        reply({ rung: 'things', help: null, answers: [{ taskId: 'n', kind: 'number', text: '8' }] }),
        new Map(),
      )[0],
    ).toMatchObject({ rung: 'things', help: 'nudged', right: false }))
})

describe('one’s own pace', () => {
  test('counts from three takes, by the median, so that one odd take changes nothing', () => {
    expect(ownPace([120, 130])).toBeNull()
    expect(ownPace(Array.from({ length: takesNeeded }, () => 118))).toBe(118)
    expect(ownPace([100, 110, 300])).toBe(110)
    expect(ownPace([100, 110, 120, 300])).toBe(115)
  })
})

test('a remembered reading is made once for each text, and old ones give way', () => {
  let made = 0
  const read = remembered((t) => {
    made++
    return t.length
  }, 4)
  for (const t of ['a', 'bb', 'a', 'bb']) read(t)
  expect(made).toBe(2)
  for (const t of ['c', 'd', 'e', 'f', 'g']) read(t)
  expect(read('a')).toBe(1)
  expect(made).toBe(8)
})

describe('on which rung an answer was given', () => {
  const answers = [{ taskId: 'n', kind: 'number' as const, text: '7' }]
  test.each([
    ['as the judge saw it', { rung: 'things', way: 'track' }, 'things'],
    ['else as the home said', { rung: null, way: 'track' }, 'track'],
    ['else as its kind usually is', { rung: null, way: null }, 'head'],
  ] as const)('%s', (_words, said, rung) =>
    expect(evidenceOf(reply({ answers, ...said }), new Map())[0]).toMatchObject({ rung }),
  )
})
