import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type TaskSpec, taskKinds } from '../../contracts/lesson.ts'
import { mixed, shownTask } from '../../send/shown-task.ts'
import { freshTask } from '../fresh-task.ts'
import { fromMarkdown, toMarkdown } from './markdown.ts'
import { readTask, taskWords } from './task-mark.ts'

const all: TaskSpec[] = [
  { kind: 'number', answer: 7, also: [8] },
  { kind: 'choice', choices: ['A', 'B', 'C'], answer: 1 },
  { kind: 'photo', things: 5, mine: true },
  { kind: 'photo', things: 7, laid: { as: 'frame' } },
  { kind: 'photo', things: 7, laid: { as: 'parts', parts: 3 } },
  { kind: 'photo', things: 7, laid: { as: 'parts', parts: 2, split: [4, 3] }, sets: ['middle'] },
  { kind: 'photo', things: 8, laid: { as: 'shares', plates: 2 } },
  { kind: 'photo', things: 9, laid: { as: 'gone', go: 3 } },
  { kind: 'photo', things: 5, laid: { as: 'row', colours: ['yellow', 'blue'] } },
  { kind: 'photo', things: 5, laid: { as: 'row', colours: [] } },
  { kind: 'several', choices: ['A', 'B', 'C'], right: [0, 2] },
  { kind: 'several', choices: ['A', 'B'], right: [] },
  { kind: 'sentence', sentence: '4 + 3 = 7' },
  { kind: 'ways', total: 7, parts: 3, zero: false, turned: true },
  { kind: 'order', items: ['3', '5', '9'], unchecked: true },
  { kind: 'gaps', run: [10, 20, 30, 40], gaps: [1, 3] },
  { kind: 'share', things: 10, plates: 3 },
  {
    kind: 'match',
    pairs: [
      ['3', 'three'],
      ['4', 'four'],
    ],
  },
  { kind: 'own', count: 5, rule: 'double' },
  { kind: 'own', count: 3, rule: 'makes', makes: 10 },
  { kind: 'own', count: 2, rule: 'any' },
  { kind: 'tell', mine: true, unchecked: true },
  { kind: 'number', answer: 7, unit: 'first-class stamps', sets: ['gentle', 'stretch'] },
  { kind: 'choice', choices: ['5', '6'], answer: 0, look: 'dots' },
  { kind: 'several', choices: ['a square', 'a circle'], right: [1], look: 'shapes', sets: ['middle'] },
  { kind: 'sentence', sentence: '4 + 3 = 7', hidden: 1 },
  { kind: 'sentence', sentence: '4 + 3 = 7', count: 2, mine: true },
  { kind: 'gaps', run: [1, 2, 3, 11, 12, 13], gaps: [2, 4], wide: 3 },
  { kind: 'line', from: 0, to: 100, marks: [30, 50] },
  { kind: 'circles', under: [3, 5] },
  { kind: 'cross', things: 7, go: 4 },
  { kind: 'draw', sets: ['stretch'] },
  { kind: 'record', rounds: 5, rule: 'take', start: 10 },
  { kind: 'record', rounds: 3, rule: 'any' },
]
test('every kind is among them', () => expect(new Set(all.map((t) => t.kind))).toEqual(new Set(taskKinds)))
test.each(all.map((t) => [taskWords(t), t] as const))('{%s} is read as it was written', (words, task) => {
  expect(readTask(words)).toEqual(task)
  const text = `# L\n\n## H {home task}\nAsk: What is it? {${words}}`
  const { lesson } = fromMarkdown(text, () => 'x')
  expect(lesson.segments[0]!.steps[0]!.task).toEqual(task)
  expect(fromMarkdown(toMarkdown(lesson), () => 'x').lesson).toEqual(lesson)
})
test.each([
  'run 1, 2, 3, 4 (five)',
  'run (1), (2), (3)',
  'run 1, 2, 3',
  'share 10 on 9',
  'share 10',
  'match 3 = three',
  'match 3 = three | 3 = four',
  'order 5',
  'order 5 | 5',
  'ways of 99',
  'own 9 doubles',
  'own 3 elephants',
  'tick A',
  'sing a song',
  'line 0 to 100: 130',
  'line 10 to 5: 7',
  'cross 8 of 7',
  'record 5 rounds, take from',
  'circles',
  'sentence 4 + 3 = 7, hiding 9',
  'answer 7, for everybody',
])('{%s} is no task', (words) => expect(readTask(words)).toBeNull())

describe('as homes get it', () => {
  test('nothing of the answer is in it', () => {
    expect(shownTask('a', { kind: 'gaps', run: [10, 20, 30], gaps: [1] })).toEqual({
      choices: [],
      slots: ['10', '', '30'],
      numbers: [],
      look: null,
    })
    const order = shownTask('a', { kind: 'order', items: ['1', '2', '3'] }).choices
    expect(order).not.toEqual(['1', '2', '3'])
    expect([...order].sort()).toEqual(['1', '2', '3'])
    expect(
      JSON.stringify(shownTask('a', { kind: 'several', choices: ['A', 'B'], right: [1] })),
    ).not.toContain('right')
    expect(shownTask('a', { kind: 'ways', total: 7, parts: 2, zero: true, turned: true }).numbers).toEqual([
      7, 2,
    ])
  })
  test('a sentence’s tiles hold it, and others beside it', () => {
    const tiles = shownTask('x', { kind: 'sentence', sentence: '12 − 5 = 7' }).choices
    for (const t of ['12', '−', '5', '=', '7']) expect(tiles).toContain(t)
    expect(tiles.length).toBeGreaterThan(5)
  })
  test('mixed alike each time, and never as it should be in the end', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1, maxLength: 4 }), { minLength: 2, maxLength: 8 }),
        fc.string(),
        (items, id) => {
          const out = mixed(items, id)
          expect(out).toEqual(mixed(items, id))
          expect([...out].sort()).toEqual([...items].sort())
          expect(out).not.toEqual(items)
        },
      ),
    ))
})

describe('a new task, as its line suggests', () => {
  const fresh = (kind: TaskSpec['kind'], text: string) =>
    freshTask(kind, { text, worked: null, example: undefined })
  test.each<[TaskSpec['kind'], string, object]>([
    ['gaps', 'What is missing: 30, 40, __, 60?', { run: [30, 40, 50, 60], gaps: [2] }],
    ['share', 'Share ten stamps between three houses.', { things: 10, plates: 3 }],
    ['ways', 'Find all the ways to part seven.', { total: 7, parts: 2 }],
    ['order', 'Put 9, 3 and 5 in order.', { items: ['3', '5', '9'] }],
    ['sentence', 'Four and three make __. Lay the sentence 4 + 3 = __.', { sentence: '4 + 3 = 7' }],
    [
      'match',
      'Which belong together: 3, 4 and 5?',
      {
        pairs: [
          ['3', 'three'],
          ['4', 'four'],
          ['5', 'five'],
        ],
      },
    ],
    ['own', 'Write five doubles you like.', { rule: 'double' }],
    ['own', 'Find sums that make ten.', { rule: 'makes', makes: 10 }],
  ])('%s from “%s”', (kind, text, task) => expect(fresh(kind, text)).toMatchObject(task))
  test.each(taskKinds)('%s from a line that says nothing is whole, and is read back', (kind) => {
    const task = fresh(kind, 'What did you do?')
    expect(readTask(taskWords(task))).toEqual(task)
  })
})
