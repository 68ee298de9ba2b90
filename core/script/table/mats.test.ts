import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readHands } from '../language/read.ts'
import { describeTable, inHand } from './description.ts'
import { drawTable, layTable, toSvg } from './drawing/table.ts'
import { layMat, matName } from './mats.ts'
import { play } from './play.ts'
import {
  emptyTable,
  matKinds,
  partitionsOn,
  TableError,
  type TableState,
  thingsOn,
  visibleThings,
  worthOn,
} from './state.ts'

const refusal = (...lines: string[]): string => {
  try {
    play(lines)
  } catch (error) {
    if (error instanceof TableError) return error.code
    throw error
  }
  return 'allowed'
}
const total = (s: TableState) => s.mats.flatMap((m) => m.regions.flatMap((r) => r.things)).length

describe('every mat and what is said of it', () => {
  test.each<[string[], string]>([
    [['Put 5 on the open table'], 'open table: 5 saffron'],
    [['Put 6 on the row', 'Slide the divider to 4'], 'row: 6 saffron; parted 4 and 2'],
    [['Put 6 on the row', 'Ring 4'], 'row: 6 saffron; ringed: 4'],
    [
      ['Lay out three ten frames', 'Put 25 on the frame', 'Cross out 18'],
      'ten frame: 25 saffron, 18 crossed out, 5 empty',
    ],
    [
      ['Lay out two shelves', 'Put 2 on the top shelf'],
      'shelves: the top shelf 2 saffron; the bottom shelf empty',
    ],
    [
      ['Lay out a part-whole with five parts', 'Put 5 in the whole', 'Split into 1, 1, 1, 1 and 1'],
      'part-whole: the whole empty; part 1 1 saffron; part 2 1 saffron; part 3 1 saffron; part 4 1 saffron; part 5 1 saffron',
    ],
    [
      ['Lay out a bar with 2 parts', 'Write 7 in part 1 of the bar'],
      'bar: the whole empty; part 1 marked 7; part 2 empty',
    ],
    [
      ['Share 9 among 4 plates'],
      'plates: plate 1 2 saffron; plate 2 2 saffron; plate 3 2 saffron; plate 4 2 saffron. open table: 1 saffron',
    ],
    [['Put 5 in the jar and cover it'], 'jar, covered'],
    [['Lay out an empty line 0 to 100', 'Mark 37 on the line'], 'number line 0 to 100, empty: marked: 37'],
    [
      ['Lay out a number line 0 to 20 in fives', 'Hop 5 on from 5'],
      'number line 0 to 20: a hop from 5 to 10',
    ],
    [
      ['Lay out a hundred square', 'Shade 10, 20 and 30', 'Jump 2 tens from 34'],
      'hundred square 1 to 100: shaded: 10, 20, 30, a hop from 34 to 44, a hop from 44 to 54',
    ],
    [['Lay out a hundred square from 0', 'Mark 99 on the square'], 'hundred square 0 to 99: shaded: 99'],
    [
      ['Lay out a dot card', 'Put 3 and 4 on the dot card', 'Turn the card round'],
      'dot card: the left square 4 saffron; the right square 3 saffron',
    ],
    [['Put 7 on the row', 'Pair them up'], 'row: empty. pair plate: 7, one on its own'],
    [['Put 10 pegs on the rail', 'Slide 6 pegs'], 'rail of pegs: 10 saffron; parted 6 and 4'],
    [['Show the cards 3 and 5', 'Show the card 8 face down'], 'cards: 3, 5, one face down'],
    [['Put 7 fingers up'], 'hands: 7 fingers up (5 left, 2 right)'],
    [['Put 3 fingers up', 'Fold down 1 finger'], 'hands: 2 fingers up (2 left, 0 right)'],
    [['Build a tower of 6'], 'tower of 6'],
    [['Put a coin worth 5', 'Put a coin worth 2'], 'coins: 2 saffron, 2 of them worth 5 or 2'],
    [['Set up ten skittles', 'Knock down 4'], 'skittles: 6 standing, 4 knocked over'],
    [['Lay out a picture: 3 letters, 2 birds and no cats'], 'picture: 3 letters, 2 birds, no cats'],
    [['Roll 4 and 3'], 'dice: 4 and 3'],
    [['Roll the die'], 'dice: not thrown'],
    [['Lay out a spinner with 1, 1, 2', 'Spin a 2'], 'spinner: 2'],
    [['Lay out a bowl with digits 0 to 3', 'Draw 2 from the bowl'], 'bowl with 3 slips: 0, 1, 3. cards: 2'],
    [
      ['Lay out a bowl with digits 0 to 3', 'Draw 2 from the bowl and put it back'],
      'bowl with 4 slips: 0, 1, 2, 3. cards: none yet',
    ],
    [['Put 12 on the open table', 'Swap ten ones for a ten'], 'open table: 3 saffron, 1 of them worth 10'],
    [['Put 7 on the row', 'Cover 3'], 'row: 7 saffron, 3 covered'],
    [['Put 3 saffron and 4 blue on the frame'], 'ten frame: 3 saffron, 4 blue, 3 empty'],
    [[], 'The table is bare'],
  ])('%j', (lines, words) => expect(describeTable(play(lines))).toBe(words))
  test('each kind can be laid, has a name and draws', () => {
    for (const kind of matKinds) {
      expect(matName(kind)).not.toBe('')
      const svg = toSvg(
        drawTable(
          {
            ...emptyTable,
            mats: [
              layMat(
                kind,
                {
                  parts: 2,
                  items: [
                    { text: '1', count: 1 },
                    { text: 'cats', count: 2 },
                  ],
                },
                1,
              ),
            ],
          },
          'across',
        ),
      )
      expect(svg).not.toMatch(/NaN|undefined|Infinity/)
    }
  })
  test('a ten is worth ten, and two tens and four ones are twenty-four', () =>
    expect(worthOn(play(['Put 2 tens and 4 ones on the table']))).toBe(24))
  test('what is covered is there and not seen', () => {
    const t = play(['Put 7 on the row', 'Cover 3'])
    expect([
      thingsOn(t).length,
      visibleThings(t).length,
      visibleThings(play(['Uncover them'], t)).length,
    ]).toEqual([7, 4, 7])
  })
  test('skittles stand again when the table is cleared', () =>
    expect(inHand(play(['Set up ten skittles', 'Knock down 4', 'Clear the table']))).toBe('10 skittles'))
})

describe('mats come and go', () => {
  test.each<[string[], string]>([
    [['Lay out two ten frames', 'Put 12 on the frame', 'Clear the table'], 'The table is bare'],
    // Named again, a mat has the form it had.
    [
      ['Lay out two ten frames', 'Put 12 on the frame', 'Clear the table', 'Put 14 on the frame'],
      'ten frame: 14 saffron, 6 empty',
    ],
    [
      ['Lay out three plates', 'Put the plates away', 'Bring the plates back'],
      'plates: plate 1 empty; plate 2 empty; plate 3 empty',
    ],
    [
      ['Lay out three cups', 'Clear the table', 'Put 2 in the last cup'],
      'plates: cup 1 empty; cup 2 empty; cup 3 2 saffron',
    ],
    [
      ['Lay out a number line 0 to 20 in fives', 'Mark 7 on the line', 'Clear the table', 'Hop 3 on from 5'],
      'number line 0 to 20: a hop from 5 to 8',
    ],
    [
      ['Lay out a bowl with digits 3 to 6', 'Put the bowl away', 'Draw 4 from the bowl'],
      'bowl with 3 slips: 3, 5, 6. cards: 4',
    ],
    [
      ['Put 7 on the open table', 'Draw a ten frame', 'Lay out the ten frame'],
      'open table: 7 saffron. ten frame: 10 empty',
    ],
    [
      ['Lay out a part-whole', 'Add a third part', 'Draw another part'],
      'part-whole: the whole empty; part 1 empty; part 2 empty; part 3 empty; part 4 empty',
    ],
    [
      ['Lay out two cups', 'Put 3 in the first cup', 'Fetch another cup'],
      'plates: cup 1 3 saffron; cup 2 empty; cup 3 empty',
    ],
    [
      ['Lay out a bowl with digits 1 to 3', 'Draw 2 from the bowl', 'Fill the bowl again'],
      'bowl with 3 slips: 1, 2, 3. cards: none yet',
    ],
    // One that is not named stays away: a row is no row of a frame that is gone.
    [['Put 5 on the frame', 'Clear the table', 'Put 3 on the row'], 'row: 3 saffron'],
    [['Put 5 on the frame', 'Put the frame away', 'Lay out two ten frames'], 'ten frame: 20 empty'],
    [['Put 4 in the jar', 'Put 3 on the row', 'Put the jar away'], 'row: 3 saffron'],
  ])('%j: %s', (lines, want) => expect(describeTable(play(lines))).toBe(want))
})

describe('the table refuses what hands cannot', () => {
  test.each([
    ['no-room', ['Put 6 fingers on the left hand']],
    ['no-room', ['Put 11 fingers up']],
    ['no-room', ['Put 21 on the row', 'Pair them up']],
    ['not-there', ['Put 3 on the row', 'Ring 4']],
    ['not-there', ['Put 3 on the row', 'Cover 4']],
    ['not-there', ['Put 9 on the row', 'Swap ten ones for a ten']],
    ['no-mat', ['Put 8 on the row', 'Share 8 among 11']],
    ['not-there', ['Put 5 on the row', 'Share 8 among 4']],
    ['no-card', ['Lay out a spinner with 1, 2', 'Spin a 3']],
    ['no-card', ['Lay out a bowl with digits 0 to 3', 'Draw 7 from the bowl']],
    ['off-the-line', ['Lay out a hundred square', 'Mark 101 on the square']],
    ['off-the-line', ['Lay out a hundred square', 'Jump 7 tens from 50']],
    ['not-there', ['Set up six skittles', 'Knock down 7']],
    ['not-there', ['Put 3 blue on the frame', 'Take 1 saffron from the frame']],
  ])('%s: %j', (code, lines) => expect(refusal(...lines)).toBe(code))
})

const spot = fc.constantFrom(
  'the frame',
  'the row',
  'plate 2',
  'the whole',
  'the left square of the dot card',
  'the left hand',
  'the tower',
  'the open table',
)
const n = fc.integer({ min: 0, max: 12 })
const anyLine = fc.oneof(
  fc.tuple(n, fc.constantFrom('', ' blue'), spot).map(([k, face, at]) => `Put ${k}${face} on ${at}`),
  fc.tuple(n, spot).map(([k, at]) => `Take ${k} from ${at}`),
  fc.tuple(n, spot, spot).map(([k, from, to]) => `Move ${k} from ${from} to ${to}`),
  fc
    .tuple(fc.constantFrom('Turn over', 'Cross out', 'Ring', 'Cover', 'Hide', 'Knock down'), n)
    .map(([verb, k]) => `${verb} ${k}`),
  n.map((k) => `Slide the divider to ${k}`),
  fc
    .tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 2, max: 6 }))
    .map(([k, among]) => `Share ${k} among ${among} plates`),
  fc.tuple(n, n).map(([a, b]) => `Split into ${a} and ${b}`),
  fc
    .tuple(
      fc.constantFrom(
        'two ten frames',
        'a part-whole with 3 parts',
        'four plates',
        'a dot card',
        'skittles',
        'hands',
      ),
      fc.constant(''),
    )
    .map(([mat]) => `Lay out ${mat}`),
  fc.constantFrom(
    'Bring them together',
    'Pair them up',
    'Rub out the crosses',
    'Rearrange them',
    'Turn the card round',
    'Swap ten ones for a ten',
    'Break it in half',
    'Uncover them',
    'Swap the plates over',
    'Double what is there',
  ),
)
test('whatever is said: things keep their keys, fit their places, and the drawing shows them', () => {
  fc.assert(
    fc.property(fc.array(anyLine, { maxLength: 25 }), (lines) => {
      let state = emptyTable
      for (const line of lines) {
        const before = total(state)
        const { after, actions } = readHands(line, state)
        if (total(after) > 90) continue
        state = after
        const keys = state.mats.flatMap((m) => m.regions.flatMap((r) => r.things.map((t) => t.key)))
        expect(new Set(keys).size).toBe(keys.length)
        for (const m of state.mats)
          for (const r of m.regions)
            if (r.slots !== null) expect(r.things.length).toBeLessThanOrEqual(r.slots)
        if (!actions.some((a) => ['put', 'take', 'lay', 'exchange'].includes(a.type)))
          expect(total(state)).toBe(before)
      }
      for (const p of partitionsOn(state)) expect(p.every((x) => x >= 0)).toBe(true)
      const picture = layTable(state, 'across')
      expect(toSvg(drawTable(state, 'across'))).not.toMatch(/NaN|undefined|Infinity/)
      for (const t of picture.things) expect(t.x >= -5 && t.x <= 665 && t.y >= -5 && t.y <= 435).toBe(true)
      expect(describeTable(state)).not.toMatch(/NaN|undefined/)
    }),
    { numRuns: 300 },
  )
})

test('any line of words either is an action or is not: reading never fails', () => {
  const word = fc.constantFrom(
    'put',
    'take',
    'three',
    '4',
    'on',
    'the',
    'frame',
    'and',
    'then',
    'cover',
    'share',
    'among',
    'turn',
    'over',
    'jar',
    'hop',
    'from',
    'to',
    'back',
    'tens',
    'write',
    'whole',
    'slide',
    'ring',
    'draw',
    'bowl',
    ';',
    ',',
  )
  fc.assert(
    fc.property(fc.array(word, { maxLength: 12 }), (words) => {
      const table = play(['Put 7 on the frame'])
      const r = readHands(words.join(' '), table)
      if (!r.whole) expect(r.after).toBe(table)
    }),
    { numRuns: 500 },
  )
})
