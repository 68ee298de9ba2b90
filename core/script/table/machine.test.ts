import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readHands } from '../language/read.ts'
import { describeTable } from './description.ts'
import { drawTable, toSvg } from './drawing/table.ts'
import { play as playLines } from './play.ts'
import { emptyTable, TableError, type TableState, thingsOn } from './state.ts'

const play = (...lines: string[]): TableState => playLines(lines)
const refusal = (...lines: string[]): string => {
  try {
    play(...lines)
  } catch (error) {
    if (error instanceof TableError) return error.code
    throw error
  }
  return 'allowed'
}

describe('the table does what hands can', () => {
  test('a frame fills, turns and clears', () => {
    expect(describeTable(play('Put 7 on the frame', 'Turn over 3'))).toBe(
      'ten frame: 4 saffron, 3 blue, 3 empty',
    )
    expect(describeTable(play('Put 7 on the frame', 'Clear the frame'))).toBe('ten frame: 10 empty')
  })
  test('a part-whole splits and joins with nothing lost', () => {
    const t = play('Lay out a part-whole', 'Put 7 in the whole', 'Split into 4 and 3')
    expect(t.mats[0]!.regions.map((r) => r.things.length)).toEqual([0, 4, 3])
    expect(
      play(
        'Lay out a part-whole',
        'Put 7 in the whole',
        'Split into 4 and 3',
        'Bring them together',
      ).mats[0]!.regions.map((r) => r.things.length),
    ).toEqual([7, 0, 0])
  })
  test('a covered jar hides its number from the drawing', () => {
    const drawn = (t: TableState) => toSvg(drawTable(t, 'across'))
    expect(drawn(play('Put 5 in the jar; cover the jar'))).toBe(
      drawn(play('Put 2 in the jar; cover the jar')),
    )
    expect(drawn(play('Put 5 in the jar'))).not.toBe(drawn(play('Put 2 in the jar')))
  })
  test('hops run along a line from where the last one ended', () => {
    const line = play('Lay out a number line 0 to 10', 'Hop from 4 by 3', 'Hop back 2').mats[0]!.line!
    expect(line.hops).toEqual([
      { from: 4, to: 7 },
      { from: 7, to: 5 },
    ])
  })
  test('moving takes from one place and puts in another', () => {
    const t = play('Put 5 on the top shelf', 'Move 2 from the top shelf to the bottom shelf')
    expect(t.mats[0]!.regions.map((r) => r.things.length)).toEqual([3, 2])
  })
})

describe('the table refuses what hands cannot', () => {
  test.each([
    ['not-there', ['Put 3 on the frame', 'Take away 4']],
    ['not-there', ['Put 3 on the frame', 'Cross out 4']],
    ['not-there', ['Put 3 on the frame', 'Turn over 5']],
    ['not-there', ['Take 1']],
    ['no-room', ['Put 11 on the frame']],
    ['no-room', ['Put 7 on the frame', 'Put 4 on the frame']],
    ['not-conserved', ['Put 7 on the frame', 'Split into 4 and 4']],
    ['off-the-line', ['Lay out a number line 0 to 10', 'Hop from 8 by 5']],
    ['no-mat', ['Put 3 on the frame', 'Uncover the jar']],
  ])('%s', (code, lines) => expect(refusal(...lines)).toBe(code))
})

test('whatever is said, things are only ever put or taken: never made or lost', () => {
  const n = fc.integer({ min: 1, max: 7 })
  const place = fc.constantFrom(
    'the frame',
    'the jar',
    'the bottom shelf',
    'the top shelf',
    'plate 1',
    'the row',
  )
  const line = fc.oneof(
    fc.tuple(n, fc.constantFrom('', ' blue'), place).map(([k, face, p]) => `Put ${k}${face} on ${p}`),
    fc.tuple(n, place).map(([k, p]) => `Take ${k} from ${p}`),
    fc.tuple(n, place, place).map(([k, p, q]) => `Move ${k} from ${p} to ${q}`),
    fc.tuple(n, place).map(([k, p]) => `Turn over ${k} on ${p}`),
    n.map((k) => `Cross out ${k}`),
    n.map((k) => `Cover ${k}`),
    n.map((k) => `Take all but ${k} away`),
    fc.constantFrom(
      'Bring them together',
      'Pair them up',
      'Uncover them',
      'Swap ten ones for a ten',
      'Put them back',
    ),
  )
  fc.assert(
    fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
      let state = emptyTable
      for (const text of lines) {
        const before = thingsOn(state).length
        const { actions, after, whole } = readHands(text, state)
        state = after
        const change = actions.reduce(
          (s, a) =>
            s +
            (a.type === 'put'
              ? a.count
              : a.type === 'take'
                ? -a.keys.length
                : a.type === 'exchange'
                  ? a.count - a.keys.length
                  : 0),
          0,
        )
        expect(thingsOn(state)).toHaveLength(before + change)
        if (!whole) expect(change).toBe(0)
        for (const m of state.mats)
          for (const r of m.regions)
            if (r.slots !== null) expect(r.things.length).toBeLessThanOrEqual(r.slots)
      }
    }),
  )
})
