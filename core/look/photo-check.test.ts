import { describe, expect, test } from 'vitest'
import type { PhotoLaid } from '../contracts/lesson.ts'
import { emptyReading, type PhotoReading, type PhotoStructure } from '../contracts/reading.ts'
import { photoSentence } from './answers.ts'
import { corrected } from './correct.ts'
import { laidOf } from './laid.ts'
import { checkPhoto } from './photo-check.ts'

const square: [number, number][] = [
  [0, 0],
  [100, 0],
  [100, 40],
  [0, 40],
]
const reading = (count: number, more: Partial<PhotoReading> = {}): PhotoReading => ({
  ...emptyReading({ width: 100, height: 100 }),
  count,
  low: count,
  high: count,
  groups: [{ colour: 'yellow', count }],
  places: [count],
  rows: [Array.from({ length: count }, () => 'yellow')],
  ...more,
})
const frames = (...cells: number[][]): PhotoStructure => ({
  kind: 'frames',
  frames: cells.map((c) => ({ cells: c, outline: square, astray: 0 })),
})
const groups = (...counts: number[]): PhotoStructure => ({
  kind: 'groups',
  groups: counts.map((count) => ({ count, outline: square })),
})
const first = (n: number) => Array.from({ length: n }, (_, i) => i)

describe('a photo against its task', () => {
  test('finding nothing proves nothing, and a doubtful count is looked at', () => {
    expect(checkPhoto(0, null, reading(0)).verdict).toBe('look')
    expect(checkPhoto(7, null, reading(7, { low: 6, high: 8 })).verdict).toBe('look')
    expect(checkPhoto(7, null, reading(7)).verdict).toBe('right')
    expect(checkPhoto(7, null, reading(6))).toMatchObject({
      verdict: 'wrong',
      difference: 'one fewer than asked',
    })
    expect(checkPhoto(3, null, reading(2, { warnings: ['not a photo of things'] })).verdict).toBe('look')
    const task = { id: 't', prompt: '', spec: { kind: 'photo' as const, things: 7 } }
    expect(photoSentence(task, reading(0))).toMatch(/no proof/)
  })
  test.each<[string, number, PhotoLaid, PhotoReading, string, RegExp]>([
    [
      'a frame from its first place',
      7,
      { as: 'frame' },
      reading(7, { structure: frames(first(7)) }),
      'right',
      /^$/,
    ],
    ['a frame in pairs', 4, { as: 'frame' }, reading(4, { structure: frames([0, 1, 5, 6]) }), 'right', /^$/],
    [
      'a frame seen from the other side',
      3,
      { as: 'frame' },
      reading(3, { structure: frames([7, 8, 9]) }),
      'right',
      /^$/,
    ],
    [
      'two frames',
      16,
      { as: 'frame' },
      reading(16, { structure: frames(first(10), first(6)) }),
      'right',
      /10 and 6/,
    ],
    [
      'the second begun early',
      12,
      { as: 'frame' },
      reading(12, { structure: frames(first(8), first(4)) }),
      'look',
      /second frame was begun/,
    ],
    [
      'a cell left out',
      4,
      { as: 'frame' },
      reading(4, { structure: frames([0, 1, 3, 4]) }),
      'look',
      /cell 3 was left out/,
    ],
    [
      'one beside the frame',
      5,
      { as: 'frame' },
      reading(5, { structure: frames(first(4)) }),
      'look',
      /beside the frame/,
    ],
    ['no frame seen', 5, { as: 'frame' }, reading(5), 'look', /frame was not seen/],
    ['any split', 7, { as: 'parts', parts: 2 }, reading(7, { structure: groups(5, 2) }), 'right', /5 \| 2/],
    [
      'an empty part is a part',
      7,
      { as: 'parts', parts: 2 },
      reading(7, { structure: groups(7, 0) }),
      'right',
      /7 \| 0/,
    ],
    [
      'another split than asked',
      7,
      { as: 'parts', parts: 2, split: [4, 3] },
      reading(7, { structure: groups(5, 2) }),
      'look',
      /split another way/,
    ],
    ['groups not told apart', 7, { as: 'parts', parts: 2 }, reading(7), 'look', /groups were not seen/],
    ['by heaps', 7, { as: 'parts', parts: 2 }, reading(7, { places: [4, 3] }), 'right', /4 \| 3/],
    [
      'equal shares',
      8,
      { as: 'shares', plates: 2 },
      reading(8, { structure: groups(4, 4) }),
      'right',
      /equal/,
    ],
    [
      'unequal shares',
      8,
      { as: 'shares', plates: 2 },
      reading(8, { structure: groups(5, 3) }),
      'wrong',
      /not equal, 4 each/,
    ],
    ['moved away', 9, { as: 'gone', go: 3 }, reading(9, { places: [6, 3] }), 'right', /6 left, 3 moved/],
    ['right by its total alone', 9, { as: 'gone', go: 3 }, reading(9), 'look', /which went was not seen/],
    [
      'the wrong number moved away',
      9,
      { as: 'gone', go: 3 },
      reading(9, { places: [5, 4] }),
      'wrong',
      /3 were to go/,
    ],
    [
      'those that went out of the picture',
      9,
      { as: 'gone', go: 3 },
      reading(6),
      'look',
      /not in the picture/,
    ],
    [
      'one too many',
      9,
      { as: 'parts', parts: 2 },
      reading(10, { structure: groups(5, 5) }),
      'wrong',
      /one more than asked/,
    ],
  ])('%s', (...[, things, laid, r, verdict, words]) => {
    const c = checkPhoto(things, laid, r)
    expect([c.verdict, words.test(c.difference)]).toEqual([verdict, true])
  })
})

describe('what a photo task looks for', () => {
  const of = (prompt: string) => laidOf({ prompt, spec: { kind: 'photo', things: 8 } })
  test.each<[string, PhotoLaid | null]>([
    ['Put nine of your own things on the table and move away the three that go.', { as: 'gone', go: 3 }],
    [
      'Make seven with your own things in two groups. Then ask the grown-up with you to take one photo.',
      { as: 'parts', parts: 2 },
    ],
    [
      'Put six of your own things in one row and four in another, matched one to one.',
      { as: 'parts', parts: 2, split: [6, 4] },
    ],
    ['Share eight of your own things so that two houses get the same.', { as: 'shares', plates: 2 }],
    ['Put four of your own things on each half of a folded paper.', { as: 'shares', plates: 2 }],
    ['Show seven in your egg box, or a drawn ten frame.', { as: 'frame' }],
    ['Put ten of your own things in two rows of five: that is one ten.', { as: 'frame' }],
    ['Put out seven buttons. Then ask the grown-up to take one photo of the table from two sides.', null],
  ])('%s', (prompt, laid) => expect(of(prompt)).toEqual(laid))
  test('what its writer set stands above its words', () =>
    expect(
      laidOf({ prompt: 'in two groups', spec: { kind: 'photo', things: 8, laid: { as: 'frame' } } }),
    ).toEqual({ as: 'frame' }))
})

describe('a reading put right by hand', () => {
  const thing = (x: number, y: number, colour = 'yellow') => ({ x, y, r: 5, colour, cutOff: false })
  test('everything that follows from the things follows, and nothing is doubtful any more', () => {
    const r = corrected(reading(1, { low: 0, high: 4, warnings: ['touching', 'blurred'] }), [
      thing(10, 10),
      thing(30, 10),
      thing(50, 11, 'blue'),
    ])
    expect(r).toMatchObject({
      count: 3,
      low: 3,
      high: 3,
      warnings: [],
      groups: [
        { colour: 'yellow', count: 2 },
        { colour: 'blue', count: 1 },
      ],
    })
    expect(r.rows).toEqual([['yellow', 'yellow', 'blue']])
  })
  test('what lies in which place follows too', () => {
    expect(
      corrected(reading(0, { structure: frames([]) }), [thing(10, 10), thing(90, 30)]).structure,
    ).toMatchObject({ frames: [{ cells: [0, 9] }] })
    expect(corrected(reading(0, { structure: groups(5, 0) }), [thing(10, 10)]).structure).toMatchObject({
      groups: [{ count: 1 }, { count: 1 }],
    })
  })
})
