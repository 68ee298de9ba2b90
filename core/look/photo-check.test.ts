import { describe, expect, test } from 'vitest'
import type { PhotoLaid } from '../contracts/lesson.ts'
import { emptyReading, type PhotoReading, type PhotoStructure } from '../contracts/reading.ts'
import { photoSentence } from './answers.ts'
import { corrected } from './correct.ts'
import { checksOf } from './checks.ts'
import { laidOf } from './laid.ts'
import { onSheet } from './on-sheet.ts'
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
const fourOfEach = [
  { colour: 'yellow', count: 4 },
  { colour: 'blue', count: 4 },
]
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
  test('what lies beside the plates is said', () => {
    expect(checkPhoto(8, null, reading(8, { structure: groups(3, 3) })).shown).toBe(
      '8 found, 3 | 3 and 2 beside',
    )
    expect(checkPhoto(6, null, reading(6, { structure: groups(3, 3) })).shown).toBe('6 found, 3 | 3')
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
    [
      'rows as asked, though as many of each colour',
      8,
      { as: 'parts', parts: 2, split: [5, 3] },
      reading(8, {
        groups: fourOfEach,
        rows: [Array.from({ length: 5 }, () => 'yellow'), Array.from({ length: 3 }, () => 'blue')],
      }),
      'right',
      /^5 \| 3$/,
    ],
    [
      'heaps of another split, though its colours are as many as was asked',
      8,
      { as: 'parts', parts: 2, split: [4, 4] },
      reading(8, { groups: fourOfEach, places: [5, 3] }),
      'look',
      /5 \| 3 where 4 \| 4/,
    ],
    [
      'two colours in one heap are no shares',
      8,
      { as: 'shares', plates: 2 },
      reading(8, {
        groups: fourOfEach,
      }),
      'look',
      /shares were not seen/,
    ],
    [
      'as many of another colour as were to go have not gone',
      7,
      { as: 'gone', go: 2 },
      reading(7, {
        groups: [
          { colour: 'yellow', count: 5 },
          { colour: 'blue', count: 2 },
        ],
      }),
      'look',
      /which went was not seen/,
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

describe('ways of showing that are more than a count', () => {
  const crossing = (n: number, crossed: number): Partial<PhotoReading> => ({
    things: first(n).map((i) => ({
      x: i * 10,
      y: 10,
      r: 4,
      colour: 'blue',
      cutOff: false,
      ...(i < crossed ? { crossed: true } : {}),
    })),
  })
  const line = (...at: number[]): Partial<PhotoReading> => ({ line: { from: [0, 50], to: [100, 50], at } })
  const onLine: PhotoLaid = { as: 'line', from: 0, to: 100, at: [50, 10, 90] }
  const dice = (...faces: [number, boolean][]): Partial<PhotoReading> => ({
    dice: faces.map(([pips, sure]) => ({ pips, sure })),
  })
  test.each<[string, number, PhotoLaid, PhotoReading, string, RegExp]>([
    ['towers as asked', 7, { as: 'towers', heights: [3, 4] }, reading(7, { towers: [3, 4] }), 'right', /^$/],
    [
      'towers from the other side',
      7,
      { as: 'towers', heights: [3, 4] },
      reading(7, { towers: [4, 3] }),
      'right',
      /another order/,
    ],
    [
      'towers of other heights',
      7,
      { as: 'towers', heights: [3, 4] },
      reading(7, { towers: [2, 5] }),
      'look',
      /towers of 2 \| 5 where 3 \| 4/,
    ],
    [
      'a heap is no tower',
      7,
      { as: 'towers', heights: [3, 4] },
      reading(7, { towers: first(7).map(() => 1) }),
      'look',
      /no towers were seen/,
    ],
    ['sides of a rail', 8, { as: 'sides', one: 3 }, reading(8, { sides: [5, 3] }), 'right', /5 \| 3/],
    [
      'the wrong sides',
      8,
      { as: 'sides', one: 3 },
      reading(8, { sides: [4, 4] }),
      'wrong',
      /3 and 5 were asked/,
    ],
    ['no line at all', 8, { as: 'sides', one: 3 }, reading(8), 'look', /not lie along one line/],
    [
      'crossed out',
      7,
      { as: 'crossed', crossed: 2 },
      reading(7, crossing(7, 2)),
      'right',
      /2 crossed out, 5 left/,
    ],
    [
      'a stroke not seen is no proof',
      7,
      { as: 'crossed', crossed: 3 },
      reading(7, crossing(7, 2)),
      'look',
      /2 seem crossed out/,
    ],
    ['a tally', 9, { as: 'tally' }, reading(0, { tally: { count: 9, low: 9, high: 9 } }), 'right', /^$/],
    [
      'a tally one short',
      9,
      { as: 'tally' },
      reading(0, { tally: { count: 8, low: 8, high: 8 } }),
      'wrong',
      /one fewer/,
    ],
    [
      'a tally that is not clear',
      9,
      { as: 'tally' },
      reading(0, { tally: { count: 9, low: 8, high: 10 } }),
      'look',
      /look closer/,
    ],
    ['no tally', 9, { as: 'tally' }, reading(9), 'look', /no tally/],
    ['numbers on a line', 3, onLine, reading(3, line(0.11, 0.49, 0.88)), 'right', /within 1 %/],
    ['the line from across the table', 3, onLine, reading(3, line(0.12, 0.5, 0.9)), 'right', /within/],
    ['bunched up', 3, onLine, reading(3, line(0.1, 0.15, 0.25)), 'look', /90 most/],
    ['one too few on the line', 3, onLine, reading(3, line(0.1, 0.9)), 'look', /3 were asked/],
    ['dice', 2, { as: 'dice', faces: [4, 3] }, reading(2, dice([3, true], [4, true])), 'right', /3 \| 4/],
    [
      'other dice',
      2,
      { as: 'dice', faces: [4, 3] },
      reading(2, dice([3, true], [5, true])),
      'wrong',
      /was asked/,
    ],
    [
      'dice not clear',
      2,
      { as: 'dice', faces: [4, 3] },
      reading(2, dice([3, true], [4, false])),
      'look',
      /not every die/,
    ],
  ])('%s', (...[, things, laid, r, verdict, words]) => {
    const c = checkPhoto(things, laid, r)
    expect([c.verdict, words.test(c.difference), c.difference]).toEqual([verdict, true, c.difference])
  })
})

describe('the box of a reply sheet', () => {
  const box = (y: number, count: number, low = count, high = count) => ({
    count,
    low,
    high,
    inked: count > 0,
    outline: [
      [0, y],
      [100, y],
      [100, y + 30],
      [0, y + 30],
    ] as [number, number][],
  })
  const sheet = reading(7, {
    low: 7,
    high: 8,
    sheet: [box(0, 3), box(35, 4, 4, 5)],
    things: [10, 30, 50]
      .map((x) => ({ x, y: 12, r: 5, colour: 'blue', cutOff: false }))
      .concat([10, 30, 50, 70].map((x) => ({ x, y: 50, r: 5, colour: 'blue', cutOff: false }))),
  })
  test('is what its task is held against', () => {
    expect(onSheet(sheet, 0)).toMatchObject({ count: 3, low: 3, high: 3 })
    expect(onSheet(sheet, 1)).toMatchObject({ count: 4, low: 4, high: 5 })
    expect(checkPhoto(3, null, onSheet(sheet, 0)).verdict).toBe('right')
  })
  test('any other photo, and a task beyond the boxes, is held against all of it', () => {
    expect(onSheet(sheet, 4)).toBe(sheet)
    expect(onSheet(reading(5), 0)).toEqual(reading(5))
  })
  test('is what each answer of a reply is checked by', () => {
    const task = (id: string, things: number) => ({
      id,
      prompt: '',
      spec: { kind: 'photo' as const, things },
    })
    const answer = (taskId: string) => ({ taskId, kind: 'photo' as const, photoId: 'p' })
    const checks = checksOf(
      [task('a', 3), task('b', 4), task('c', 2)],
      [answer('a'), answer('b')],
      new Map([['p', sheet]]),
    )
    expect(checks.map((c) => c.check.verdict)).toEqual(['right', 'look', 'open'])
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
    ['Build towers of three and five bricks.', { as: 'towers', heights: [3, 5] }],
    ['Draw eight parcels and cross out three of them.', { as: 'crossed', crossed: 3 }],
    ['Slide the pegs so that three pegs are on one side of the rail.', { as: 'sides', one: 3 }],
    ['Make a tally of the red cars that go by.', { as: 'tally' }],
    ['Walk across the room and count eight steps with your things.', null],
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
