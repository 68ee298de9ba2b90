import { describe, expect, test } from 'vitest'
import type { TaskSpec } from '@awlbox/core/contracts/lesson'
import { checkAnswer } from '@awlbox/core/look/answers'
import { seeded } from '@awlbox/core/plan/seeded'
import { shownTask } from '@awlbox/core/send/shown-task'
import { householdOf, manners } from './household.ts'
import { laidFrom, laidOut, type Laying } from './laying.ts'
import { solve } from './solve.ts'

const street = (seed: number, n: number) => Array.from({ length: n }, (_, i) => householdOf(seed, i))

describe('a street', () => {
  test('is the same for the same seed, and another for another', () => {
    expect(street(3, 60)).toEqual(street(3, 60))
    expect(street(3, 60)).not.toEqual(street(4, 60))
  })
  test('has homes of every manner, kitchens of every kind and children of every belief', () => {
    const homes = street(1, 400)
    expect(new Set(homes.map((h) => h.manner))).toEqual(new Set(manners))
    expect(new Set(homes.map((h) => h.photo)).size).toBe(8)
    expect(new Set(homes.map((h) => h.belief)).size).toBe(7)
    const share = (m: string) => homes.filter((h) => h.manner === m).length / homes.length
    expect(share('replies')).toBeGreaterThan(0.45)
    expect(share('silent')).toBeLessThan(0.2)
  })
})

const specs: [string, TaskSpec][] = [
  ['Bobbin has seven parcels. Two go on the top shelf. How many go below?', { kind: 'number', answer: 5 }],
  ['Four stamps and three more. How many altogether?', { kind: 'number', answer: 7 }],
  ['Which one is true?', { kind: 'choice', choices: ['6 + 1 = 6', '6 + 1 = 7'], answer: 1 }],
  ['Which are true?', { kind: 'several', choices: ['1 + 1 = 2', '2 + 2 = 5', '3 − 1 = 2'], right: [0, 2] }],
  ['Lay four and three make seven.', { kind: 'sentence', sentence: '4 + 3 = 7' }],
  ['What is missing?', { kind: 'sentence', sentence: '9 − 4 = 5', hidden: 1 }],
  ['Lay four and three make seven, both ways.', { kind: 'sentence', sentence: '4 + 3 = 7', count: 2 }],
  ['All the ways.', { kind: 'ways', total: 5, parts: 2, zero: true, turned: true }],
  ['In order.', { kind: 'order', items: ['2', '5', '9'] }],
  ['What is missing?', { kind: 'gaps', run: [10, 20, 30, 40], gaps: [1, 3] }],
  ['What is missing?', { kind: 'gaps', run: [1, 2, 3, 11, 12, 13], gaps: [1, 4], wide: 3 }],
  ['Share them.', { kind: 'share', things: 7, plates: 3 }],
  [
    'Which belong together?',
    {
      kind: 'match',
      pairs: [
        ['3', 'three'],
        ['4', 'four'],
      ],
    },
  ],
  ['Five doubles.', { kind: 'own', count: 5, rule: 'double' }],
  ['Where do they live?', { kind: 'line', from: 0, to: 100, marks: [20, 70] }],
  ['Circles.', { kind: 'circles', under: [3, 0, 5] }],
  ['Seven are there. Cross off four.', { kind: 'cross', things: 7, go: 4 }],
  ['Ten skittles. How many fall?', { kind: 'record', rounds: 4, rule: 'take', start: 10 }],
]
const answered = (prompt: string, spec: TaskSpec, ability: number, seed: number) => {
  const task = { id: 't', prompt, kind: spec.kind, sets: [], ...shownTask('t', spec) }
  const answer = solve(task, { ability, belief: 'none', words: '' }, seeded(seed))
  return checkAnswer({ id: 't', prompt, spec }, answer ?? undefined).verdict
}
describe('a household that', () => {
  test.each(specs)('knows all answers “%s” rightly: %j', (prompt, spec) =>
    expect(answered(prompt, spec, 1, 5)).toBe('right'),
  )
  test.each(specs)('knows nothing never answers “%s” rightly by its own doing: %j', (prompt, spec) => {
    // Where it chooses among few it may hit upon it.
    const hits = Array.from({ length: 12 }, (_, i) => answered(prompt, spec, 0, i)).filter(
      (v) => v === 'right',
    )
    expect(hits.length).toBeLessThan(spec.kind === 'choice' ? 12 : spec.kind === 'several' ? 8 : 1)
  })
  test('believes that the start is counted answers by it, and not at random', () => {
    const spec: TaskSpec = { kind: 'number', answer: 9 }
    const task = {
      id: 't',
      prompt: 'Six and three more. How many?',
      kind: spec.kind,
      sets: [],
      ...shownTask('t', spec),
    }
    const said = [1, 2, 3].map(
      (n) => solve(task, { ability: 0, belief: 'counts the start', words: '' }, seeded(n))?.text,
    )
    expect(said).toEqual(['8', '8', '8'])
  })
  test('draws gives lines that can be sent', () => {
    const task = {
      id: 't',
      prompt: 'Draw it',
      kind: 'draw' as const,
      sets: [],
      ...shownTask('t', { kind: 'draw' }),
    }
    expect(solve(task, { ability: 1, belief: 'none', words: '' }, seeded(1))!.drawing).toMatch(
      /^(?:[ML]\d{1,4} \d{1,4})+$/,
    )
  })
})

describe('what is laid for a photo', () => {
  const laid = (prompt: string, well = true) => laidFrom(prompt, well, seeded(4))
  const photo = ' Ask the grown-up with you to take one photo of all two of them.'
  test.each<[string, number, Laying]>([
    ['Lay nine things in a row.', 9, { as: 'rows', sizes: [9] }],
    ['Lay four things in one row and three in another.', 7, { as: 'rows', sizes: [4, 3] }],
    ['Put out twelve things and move away the two that go.', 12, { as: 'moved', go: 2 }],
    ['Put ten pegs on a rail and slide four to one side.', 10, { as: 'rail', one: 4 }],
    ['Make seventeen on two ten frames.', 17, { as: 'frames', frames: 2 }],
    ['Share eight things on four plates.', 8, { as: 'heaps', sizes: [2, 2, 2, 2], on: 'plates' }],
    ['Put three things in your sack and two more.', 5, { as: 'heap' }],
    ['Draw a line from 0 to 20. Lay a thing at 5 and 15.', 2, { as: 'line', at: [0.25, 0.75] }],
  ])('“%s” is laid as the words have it', (prompt, things, laying) => {
    expect(laid(prompt + photo)).toEqual({ things, laying })
    expect(laid(prompt + photo, false)).not.toEqual({ things, laying })
  })
  test('two heaps hold all there are, each something', () => {
    const { things, laying } = laid('Make two piles of socks, five altogether.')
    expect(things).toBe(5)
    if (laying.as !== 'heaps') throw new Error(laying.as)
    expect(laying.sizes.reduce((a, b) => a + b)).toBe(5)
    expect(Math.min(...laying.sizes)).toBeGreaterThan(0)
  })
  test.each<[number, Laying]>([
    [20, { as: 'frames', frames: 2 }],
    [8, { as: 'heaps', sizes: [2, 2, 2, 2], on: 'plates' }],
    [12, { as: 'rows', sizes: [6, 6] }],
    [10, { as: 'rail', one: 4 }],
    [12, { as: 'moved', go: 3 }],
    [9, { as: 'heap' }],
    [3, { as: 'line', at: [0, 0.5, 1] }],
  ])('%i things lie on the table and not on one another: %j', (n, laying) => {
    const table = { w: 1600, h: 1200, r: 50 }
    const { places } = laidOut(n, laying, table)
    expect(places).toHaveLength(n)
    for (const [i, p] of places.entries()) {
      expect(p.x > table.r && p.x < table.w - table.r && p.y > table.r && p.y < table.h - table.r).toBe(true)
      for (const q of places.slice(i + 1))
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeGreaterThan(2 * table.r)
    }
  })
})
