import { describe, expect, test } from 'vitest'
import type { PhotoLaid } from '../contracts/lesson.ts'
import { expectedTable } from './expected.ts'

const lesson = { aim: { structure: 'parts' }, examples: [] } as unknown as Parameters<typeof expectedTable>[0]
const asked = (things: number, laid?: PhotoLaid, prompt = '') =>
  expectedTable(lesson, { prompt, spec: { kind: 'photo', things, ...(laid && { laid }) } })
/** What lies where: mats with the numbers of their places. */
const seen = (...given: Parameters<typeof asked>): string =>
  asked(...given)
    .mats.map((m) => `${m.kind} ${m.regions.map((r) => r.things.length).join(' ')}`)
    .join(', ')

describe('the table a photo task asks for', () => {
  test.each<[string, Parameters<typeof asked>, string]>([
    ['as the lesson’s mat', [7], 'frame 7'],
    ['in a frame', [7, { as: 'frame' }], 'frame 7'],
    ['in two frames', [13, { as: 'frame' }], 'frame 13'],
    ['shared out', [8, { as: 'shares', plates: 4 }], 'plates 2 2 2 2'],
    ['moved away', [10, { as: 'gone', go: 3 }], 'plates 7 3'],
    [
      'in rows, as the words have it',
      [8, { as: 'parts', parts: 2, split: [5, 3] }, 'five in one row and three in another'],
      'shelves 5 3',
    ],
    ['in rings, any split', [7, { as: 'parts', parts: 3 }], 'plates 3 3 1'],
    ['in a row', [9, { as: 'row', colours: [] }], 'row 9'],
    ['along a rail', [10, { as: 'sides', one: 4 }], 'rail 10'],
  ])('%s', (_, given, table) => expect(seen(...given)).toBe(table))
  test('crossed out, on towers, on a line', () => {
    const crossed = asked(7, { as: 'crossed', crossed: 2 }).mats[0]!.regions[0]!.things
    expect(crossed.filter((t) => t.crossed)).toHaveLength(2)
    expect(seen(7, { as: 'towers', heights: [7] })).toBe('tower 7')
    const line = asked(3, { as: 'line', from: 0, to: 100, at: [10, 50, 90] }).mats[0]!.line!
    expect([line.from, line.to]).toEqual([0, 100])
    expect(line.marks).toEqual([10, 50, 90])
  })
  test('what is left over of a share lies beside the plates', () =>
    expect(seen(9, { as: 'shares', plates: 2 })).toMatch(/plates 4 4/))
  test('more moved away than there are is laid as all of them', () =>
    expect(seen(5, { as: 'gone', go: 9 })).toBe('frame 5'))
  test('more than a mat holds, and what no mat shows, is laid as the lesson’s own', () => {
    expect(seen(25, { as: 'frame' })).toBe('row 20')
    expect(seen(5, { as: 'tally' })).toBe('frame 5')
  })
  test.each<[number, PhotoLaid]>([
    [5, { as: 'crossed', crossed: 9 }],
    [5, { as: 'gone', go: 9 }],
    [5, { as: 'sides', one: 9 }],
    [5, { as: 'line', from: 10, to: 10, at: [3] }],
    [5, { as: 'line', from: 0, to: 10, at: [300] }],
    [0, { as: 'frame' }],
    [0, { as: 'shares', plates: 6 }],
    [1, { as: 'parts', parts: 6 }],
    [5, { as: 'parts', parts: 2, split: [40, 0] }],
  ])('%i things, and a way of lying that cannot be (%j), still give a table', (things, laid) =>
    expect(asked(things, laid).mats.length).toBeGreaterThan(0),
  )
})
