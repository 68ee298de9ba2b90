import { describe, expect, test } from 'vitest'
import type { TaskSpec } from '../contracts/lesson.ts'
import { checkAnswer } from './answers.ts'

const check = (spec: TaskSpec, given: string[] | null, text?: string) => {
  const c = checkAnswer({ id: 't', prompt: 'p', spec }, { taskId: 't', kind: spec.kind, given, text })
  return [c.verdict, c.why] as const
}
const verdict = (spec: TaskSpec, given: string[] | null) => check(spec, given)[0]

describe('all that fit', () => {
  const odd: TaskSpec = { kind: 'several', choices: ['3', '4', '5'], right: [0, 2] }
  test.each([
    [['3', '5'], 'right', ''],
    [['5', '3'], 'right', ''],
    [['3'], 'wrong', 'also 5'],
    [['3', '4', '5'], 'wrong', 'not 4'],
    [[], 'wrong', 'also 3, 5'],
  ])('%j is %s', (given, v, why) => expect(check(odd, given)).toEqual([v, why]))
  test('none may be right, and nothing ticked at all is left open', () => {
    const none: TaskSpec = { kind: 'several', choices: ['1', '2'], right: [] }
    expect([verdict(none, []), verdict(none, null), verdict(none, ['1'])]).toEqual(['right', 'open', 'wrong'])
  })
})

describe('a sentence of tiles', () => {
  const seven: TaskSpec = { kind: 'sentence', sentence: '4 + 3 = 7' }
  test.each([
    ['4 + 3 = 7', 'right'],
    ['3 + 4 = 7', 'right'],
    ['7 = 4 + 3', 'right'],
    ['7 − 3 = 4', 'right'],
    ['4 + 4 = 7', 'wrong'],
    ['4 + 3 = 8', 'wrong'],
    ['5 + 3 = 8', 'look'],
    ['4 + 3', 'look'],
    ['4 3 7', 'look'],
    ['4 + 3 = 7 2', 'look'],
    ['= 7', 'look'],
  ])('%s is %s', (text, v) => expect(verdict(seven, text.split(' '))).toBe(v))
  test('one that is false is told with what is true', () =>
    expect(check(seven, ['4', '+', '3', '=', '8'])[1]).toMatch(/not true: .*7/))
})

describe('all the ways', () => {
  const ways = (more: object = {}): TaskSpec => ({
    kind: 'ways',
    total: 4,
    parts: 2,
    zero: true,
    turned: false,
    ...more,
  })
  test('complete by the rule is right; missing ones are named, and the order is said', () => {
    expect(verdict(ways(), ['4 + 0', '3 + 1', '2 + 2'])).toBe('right')
    expect(verdict(ways({ turned: true }), ['0+4', '1+3', '2+2', '3+1', '4+0'])).toBe('right')
    expect(check(ways({ turned: true }), ['0+4', '1+3', '2+2', '3+1', '4+0'])[1]).toContain('in order')
    expect(check(ways(), ['2 + 2', '1 and 3'])).toEqual([
      'look',
      expect.stringMatching(/2 of 3 ways.*missing 4 \+ 0/),
    ])
    expect(verdict(ways({ zero: false }), ['3+1', '2+2'])).toBe('right')
  })
  test('one that does not make it is wrong, and named', () =>
    expect(check(ways(), ['4+0', '3+2'])).toEqual(['wrong', '3+2 does not make 4']))
})

test.each<[string, TaskSpec, string[], string, RegExp]>([
  ['an order', { kind: 'order', items: ['3', '5', '9'] }, ['3', '5', '9'], 'right', /^$/],
  ['turned round', { kind: 'order', items: ['3', '5', '9'] }, ['9', '5', '3'], 'wrong', /other end/],
  ['mixed', { kind: 'order', items: ['3', '5', '9'] }, ['5', '3', '9'], 'wrong', /3, 5, 9 was asked/],
  ['half placed', { kind: 'order', items: ['3', '5', '9'] }, ['3'], 'look', /not all/],
  ['a run', { kind: 'gaps', run: [10, 20, 30, 40], gaps: [1, 2] }, ['20', '30'], 'right', /^$/],
  [
    'a run with a slip',
    { kind: 'gaps', run: [10, 20, 30, 40], gaps: [1, 2] },
    ['20', '31'],
    'wrong',
    /30 for 31/,
  ],
  ['a run half open', { kind: 'gaps', run: [10, 20, 30, 40], gaps: [1, 2] }, ['20', ''], 'look', /left open/],
  ['a fair share', { kind: 'share', things: 10, plates: 3 }, ['3', '3', '3'], 'right', /^$/],
  ['one that is not', { kind: 'share', things: 10, plates: 3 }, ['4', '3', '3'], 'wrong', /not equal/],
  [
    'one that keeps too much back',
    { kind: 'share', things: 10, plates: 3 },
    ['2', '2', '2'],
    'wrong',
    /3 each/,
  ],
  ['more than there were', { kind: 'share', things: 6, plates: 2 }, ['4', '4'], 'wrong', /there were 6/],
  [
    'pairs',
    {
      kind: 'match',
      pairs: [
        ['3', 'three'],
        ['4', 'four'],
      ],
    },
    ['three', 'four'],
    'right',
    /^$/,
  ],
  [
    'pairs crossed',
    {
      kind: 'match',
      pairs: [
        ['3', 'three'],
        ['4', 'four'],
      ],
    },
    ['four', 'three'],
    'wrong',
    /3 is three/,
  ],
  [
    'pairs half open',
    {
      kind: 'match',
      pairs: [
        ['3', 'three'],
        ['4', 'four'],
      ],
    },
    ['three', ''],
    'look',
    /left open/,
  ],
  [
    'doubles of one’s own',
    { kind: 'own', count: 2, rule: 'double' },
    ['2 + 2 = 4', 'double five is ten'],
    'right',
    /^$/,
  ],
  ['a near double', { kind: 'own', count: 1, rule: 'double' }, ['2 + 3 = 5'], 'wrong', /no double/],
  [
    'what makes ten',
    { kind: 'own', count: 2, rule: 'makes', makes: 10 },
    ['7 + 3 = 10', '12 − 2 = 10'],
    'right',
    /^$/,
  ],
  [
    'what makes another',
    { kind: 'own', count: 1, rule: 'makes', makes: 10 },
    ['7 + 2 = 9'],
    'wrong',
    /not 10/,
  ],
  ['a false one', { kind: 'own', count: 1, rule: 'any' }, ['7 + 2 = 10'], 'wrong', /not true/],
  ['too few', { kind: 'own', count: 3, rule: 'any' }, ['1 + 1 = 2'], 'look', /1 of 3/],
  ['the same twice', { kind: 'own', count: 2, rule: 'any' }, ['1 + 1 = 2', '1+1=2'], 'look', /twice/],
  ['what is no sentence', { kind: 'own', count: 1, rule: 'any' }, ['bananas'], 'look', /not read/],
])('%s', (...[, spec, given, v, why]) => {
  const [found, words] = check(spec, given)
  expect(found).toBe(v)
  expect(words).toMatch(why)
})
test('what was told is for a person; not checked is for a person whatever it is; nothing is open', () => {
  expect(check({ kind: 'tell' }, null, 'I saw two')[0]).toBe('look')
  expect(check({ kind: 'tell' }, null, ' ')[0]).toBe('open')
  expect(check({ kind: 'order', items: ['1', '2'], unchecked: true }, ['2', '1'])).toEqual([
    'look',
    'not checked',
  ])
  for (const spec of [
    { kind: 'share', things: 4, plates: 2 },
    { kind: 'gaps', run: [1, 2, 3], gaps: [1] },
    { kind: 'own', count: 2, rule: 'any' },
  ] as TaskSpec[])
    expect([verdict(spec, null), verdict(spec, []), verdict(spec, ['', ' '])]).toEqual([
      'open',
      'open',
      'open',
    ])
})

describe('one number hidden in a sentence', () => {
  const hidden: TaskSpec = { kind: 'sentence', sentence: '9 = 6 + 3', hidden: 1 }
  test.each([
    [['6'], 'right'],
    [['3'], 'wrong'],
    [['9'], 'wrong'],
    [[''], 'open'],
  ])('%j is %s', (given, v) => expect(verdict(hidden, given)).toBe(v))
})
describe('several sentences from the same tiles', () => {
  const two: TaskSpec = { kind: 'sentence', sentence: '4 + 3 = 7', count: 2 }
  const laid = (text: string) => verdict(two, text.split(' '))
  test.each([
    ['4 + 3 = 7 / 3 + 4 = 7', 'right'],
    ['4 + 3 = 7 / 7 = 4 + 3', 'right'],
    ['4 + 3 = 7 / 4 + 3 = 7', 'look'],
    ['4 + 3 = 7', 'look'],
    ['4 + 3 = 7 / 3 + 4 = 8', 'wrong'],
  ])('%s is %s', (text, v) => expect(laid(text)).toBe(v))
  test('a double has no turn-round of its own: it is asked for once over', () =>
    expect(
      verdict({ kind: 'sentence', sentence: '4 + 4 = 8', count: 3 }, '4 + 4 = 8 / 8 = 4 + 4'.split(' ')),
    ).toBe('right'))
})
describe('marks on a line', () => {
  const line: TaskSpec = { kind: 'line', from: 0, to: 100, marks: [20, 70] }
  test.each([
    [['21', '68'], 'right'],
    [['40', '80'], 'look'],
    [['70', '20'], 'wrong'],
    [['20', '20'], 'wrong'],
    [['20', ''], 'look'],
    [['', ''], 'open'],
    [['20', 'far'], 'look'],
  ])('%j is %s', (given, v) => expect(verdict(line, given)).toBe(v))
  test('a child’s usual bunching is told, and not failed', () =>
    expect(check(line, ['35', '85'])).toEqual(['look', 'in order, 15 % off in the middle']))
})
describe('circles, crossing off, drawings', () => {
  const under: TaskSpec = { kind: 'circles', under: [3, 0] }
  test.each([
    [['3', '0'], 'right'],
    [['3', '1'], 'wrong'],
    [['3'], 'look'],
  ])('circles %j are %s', (given, v) => expect(verdict(under, given)).toBe(v))
  const cross: TaskSpec = { kind: 'cross', things: 5, go: 2 }
  test.each([
    [['1', '4'], 'right'],
    [['1', '4', '4'], 'right'],
    [['1'], 'wrong'],
    [[], 'wrong'],
    [['1', '9'], 'wrong'],
  ])('%j crossed off is %s', (given, v) => expect(verdict(cross, given)).toBe(v))
  test('none crossed off is right where none goes, and nothing said is left open', () => {
    const none: TaskSpec = { kind: 'cross', things: 5, go: 0 }
    expect([verdict(none, []), verdict(none, null)]).toEqual(['right', 'open'])
  })
  test('a drawing is never judged by itself', () => {
    const spec: TaskSpec = { kind: 'draw' }
    const of = (more: object) =>
      checkAnswer({ id: 't', prompt: '', spec }, { taskId: 't', kind: 'draw', ...more }).verdict
    expect([of({}), of({ drawing: 'M1 1L9 9' }), of({ text: 'two houses' })]).toEqual([
      'open',
      'look',
      'look',
    ])
  })
  test('a voice is to be listened to', () =>
    expect(
      checkAnswer(
        { id: 't', prompt: '', spec: { kind: 'tell' } },
        { taskId: 't', kind: 'tell', recordingId: '00000000-0000-4000-8000-000000000000' },
      ),
    ).toMatchObject({ verdict: 'look', why: 'to be listened to' }))
})
describe('the rounds of a game', () => {
  const game: TaskSpec = { kind: 'record', rounds: 2, rule: 'take', start: 10 }
  test.each([
    [['3|7|10 - 3 = 7', '4|six|10 − 4 = 6'], 'right'],
    [['3|8|10 - 3 = 7', '4|6|'], 'wrong'],
    [['3|7|10 - 3 = 8', '4|6|'], 'wrong'],
    [['3|7|9 - 2 = 7', '4|6|'], 'wrong'],
    [['3|7|'], 'look'],
    [['3||', '4|6|'], 'look'],
    [['three|7|', '4|6|'], 'right'],
    [['||'], 'open'],
  ])('%j is %s', (given, v) => expect(verdict(game, given)).toBe(v))
  test('added to the number it begins with', () =>
    expect(verdict({ kind: 'record', rounds: 1, rule: 'add', start: 6 }, ['3|9|6 + 3 = 9'])).toBe('right'))
})
