import { describe, expect, test } from 'vitest'
import { type Gesture, gestureText, mergedWith, readyLines, type Spot } from './gesture.ts'
import { play } from './table/play.ts'
import { describeTable } from './table/description.ts'
import { type MatKind, thingsOn } from './table/state.ts'

const spots: Spot[] = [
  { mat: 'frame', region: 0 },
  { mat: 'row', region: 0 },
  { mat: 'table', region: 0 },
  { mat: 'jar', region: 0 },
  { mat: 'pairs', region: 0 },
  { mat: 'rail', region: 0 },
  { mat: 'tower', region: 0 },
  { mat: 'coins', region: 0 },
  { mat: 'parts', region: -1 },
  { mat: 'parts', region: 0 },
  { mat: 'parts', region: 1 },
  { mat: 'bar', region: -1 },
  { mat: 'bar', region: 1 },
  { mat: 'shelves', region: 0 },
  { mat: 'shelves', region: 1 },
  { mat: 'plates', region: 0 },
  { mat: 'plates', region: 1 },
  { mat: 'dots', region: 0 },
  { mat: 'dots', region: 1 },
  { mat: 'hands', region: 0 },
  { mat: 'hands', region: 1 },
]
describe('what a hand does is a line the table reads back', () => {
  test.each(readyLines)('%s laid out whole', (_, line) => {
    const table = play([gestureText({ type: 'ready', line })])
    expect(table.mats.length).toBeGreaterThan(0)
  })
  test.each(spots)('put on $mat $region', (at) => {
    const blue = play([gestureText({ type: 'put', at, count: 3, face: 'blue' })])
    expect(blue.mats.map((m) => m.kind)).toEqual([at.mat])
    expect(thingsOn(blue).map((t) => t.face)).toEqual(['blue', 'blue', 'blue'])
    const table = play([gestureText({ type: 'put', at, count: 3, face: 'saffron' })])
    const offset = at.mat === 'parts' || at.mat === 'bar' ? 1 : 0
    expect(table.mats[0]!.regions[at.region + offset]!.things).toHaveLength(3)
    expect(
      play([gestureText({ type: 'take', at, count: 2 })], table).mats[0]!.regions[at.region + offset]!.things,
    ).toHaveLength(1)
  })
  test('move, turn, cross, cover, hop and mark', () => {
    const t = play([
      gestureText({ type: 'put', at: { mat: 'shelves', region: 0 }, count: 4, face: 'saffron' }),
      gestureText({
        type: 'move',
        from: { mat: 'shelves', region: 0 },
        to: { mat: 'shelves', region: 1 },
        count: 1,
      }),
      gestureText({ type: 'turn', at: { mat: 'shelves', region: 0 }, count: 1 }),
      gestureText({ type: 'cross', at: { mat: 'shelves', region: 1 }, count: 1 }),
    ])
    expect(describeTable(t)).toBe(
      'shelves: the top shelf 2 saffron, 1 blue; the bottom shelf 1 saffron, 1 crossed out',
    )
    expect(
      describeTable(
        play([
          gestureText({ type: 'hop', from: 3, to: 7 }),
          gestureText({ type: 'mark', number: 9, square: false }),
        ]),
      ),
    ).toBe('number line 0 to 10: marked: 9, a hop from 3 to 7')
  })
  test.each<[MatKind, number]>([
    ['frame', 2],
    ['frame', 3],
    ['plates', 4],
    ['parts', 5],
    ['bar', 3],
    ['plates', 2],
    ['parts', 2],
    ['square', 1],
    ['dots', 1],
    ['hands', 1],
    ['skittles', 10],
    ['rail', 1],
    ['line', 1],
  ])('laying out %s with %i', (mat, parts) => {
    const t = play([gestureText({ type: 'lay', mat, parts })])
    expect(t.mats[0]!.kind).toBe(mat)
    if (mat === 'plates') expect(t.mats[0]!.regions).toHaveLength(parts)
    if (mat === 'parts' || mat === 'bar') expect(t.mats[0]!.regions).toHaveLength(parts + 1)
  })
})
describe('one more of the same grows the line', () => {
  const put: Gesture = { type: 'put', at: { mat: 'frame', region: 0 }, count: 1, face: 'saffron' }
  test('the same place and face', () =>
    expect(mergedWith('Put 3 on the frame', put)).toBe('Put 4 on the frame'))
  test.each([
    'Put 3 blue on the frame',
    'Put 3 on the row',
    'Take 3 from the frame',
    'Put 3 on the frame; cover the frame',
    'sing',
  ])('not after “%s”', (line) => expect(mergedWith(line, put)).toBeNull())
})
