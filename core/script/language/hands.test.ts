import { describe, expect, test } from 'vitest'
import { emptyTable, type TableState } from '../table/state.ts'
import { describeTable } from '../table/description.ts'
import cases from './cases/hands.json' with { type: 'json' }
import { type Expected, seen } from './cases/seen.ts'
import { readHands } from './read.ts'
import { sayActions } from './say.ts'

const after = (lines: readonly string[]): TableState =>
  lines.reduce((t, l) => {
    const r = readHands(l, t)
    if (!r.whole) throw new Error(`${l}: ${r.error?.code ?? r.unread.join(' / ')}`)
    return r.after
  }, emptyTable)

describe('lines of hands as teachers wrote them', () => {
  test.each(cases as { setup: string[]; line: string; expect: Expected }[])(
    '$line',
    ({ setup, line, expect: want }) => expect(seen(after([...setup, line]), want)).toEqual(want),
  )
})

describe('a reading says itself back as a line that is read as the same', () => {
  test.each(cases as { setup: string[]; line: string }[])('$line', ({ setup, line }) => {
    const table = after(setup)
    const read = readHands(line, table)
    const said = sayActions(read.actions, table)
    const again = said ? readHands(said, table) : read
    expect(again.whole, said).toBe(true)
    expect(describeTable(again.after)).toBe(describeTable(read.after))
  })
})

describe('what lines of colour and shape come to says itself back too', () => {
  test.each<[string[], string]>([
    [['Lay a ten frame'], 'Shade 4 squares red, 3 blue and 2 green'],
    [['Lay a hundred square'], 'Shade 5 and 10 in green'],
    [[], 'Show the number shape for 5'],
    [[], 'Put 3 green and 2 blue on the frame'],
  ])('%j %s', (setup, line) => {
    const table = after(setup)
    const read = readHands(line, table)
    const again = readHands(sayActions(read.actions, table), table)
    expect(again.whole).toBe(true)
    expect(describeTable(again.after)).toBe(describeTable(read.after))
  })
  test.each([
    [['Lay a bar'], 'Shade 4 red'],
    [['Lay a hundred square'], 'Shade 4 squares red'],
    [[], 'Show the number shapes for 4 and 3'],
  ])('%j %s is not guessed at', (setup, line) => expect(readHands(line, after(setup)).whole).toBe(false))
})

describe('neighbours of those lines', () => {
  test.each<[string[], string]>([
    [['Draw tally marks for 14'], 'open table: 14 saffron'],
    [['Put an apple on the table', 'Cut the apple in half'], 'open table: 2 saffron, 2 of them worth 0.5'],
    [
      [
        'Lay out a dot card',
        'Draw 3 dots on the left square in blue pen, one at a time',
        'Draw 4 dots on the right square with a red pen',
      ],
      'dot card: the left square 3 blue; the right square 4 saffron',
    ],
    [['Put 4 in green on the frame'], 'ten frame: 4 green, 6 empty'],
    [['Draw 3 red circles, 4 blue circles and 2 green circles'], 'open table: 3 saffron, 4 blue, 2 green'],
    [
      ['Lay a ten frame', 'Shade 4 squares red', 'Colour 3 more blue', 'Shade 2 green'],
      'ten frame: 4 saffron, 3 blue, 2 green, 1 empty',
    ],
    [['Lay a ten frame', 'Colour 5 boxes green and 3 yellow'], 'ten frame: 3 saffron, 5 green, 2 empty'],
    [
      ['Lay a hundred square', 'Shade 5, 10 and 15 in blue', 'Shade 20 green'],
      'hundred square 1 to 100: shaded: 5 in blue, 10 in blue, 15 in blue, 20 in green',
    ],
    [
      ['Put 3 green and 2 blue on the frame', 'Turn over the blue ones'],
      'ten frame: 2 saffron, 3 green, 5 empty',
    ],
    [['Lay out a ten frame with 6 counters on it'], 'ten frame: 6 saffron, 4 empty'],
    [['Show a ten frame with 4 red and 3 blue'], 'ten frame: 4 saffron, 3 blue, 3 empty'],
    [['Get out a jar with 8 beans'], 'jar: 8 saffron'],
    [['Lay out two plates with 3 plums on each'], 'plates: plate 1 3 saffron; plate 2 3 saffron'],
    [['Show the number shape for 5'], 'pair plate: 5, one on its own'],
    [['Lay out a bowl with digits 0 to 3'], 'bowl with 4 slips: 0, 1, 2, 3'],
    [
      ['Lay out a part-whole', 'Name the first part plates', 'Write “cups” in part 2'],
      'part-whole: the whole empty; part 1 marked plates; part 2 marked cups',
    ],
    [['Lay out a ring'], 'plates: empty'],
    [['Draw 8 red circles on the frame'], 'ten frame: 8 saffron, 2 empty'],
    [
      ['Lay out two plates', 'Put 3 saffron and 4 blue on the table', 'Move 2 blue to the first plate'],
      'plates: plate 1 2 blue; plate 2 empty. open table: 3 saffron, 2 blue',
    ],
    [
      ['Share 12 among 4 parts'],
      'part-whole: the whole empty; part 1 3 saffron; part 2 3 saffron; part 3 3 saffron; part 4 3 saffron',
    ],
    [
      ['Lay out a bowl with digits 0 to 5', 'Draw 3 and 5 from the bowl', 'Put them back in the bowl'],
      'bowl with 6 slips: 0, 1, 2, 3, 4, 5. cards: none yet',
    ],
    [
      ['Put 9 shells on the table', 'Take 4 from the table', 'Put the rest in the jar'],
      'open table: empty. jar: 5 saffron',
    ],
    [['Lay out two rings'], 'plates: ring 1 empty; ring 2 empty'],
    [['Put 14 in pairs'], 'pair plate: 14, all in pairs'],
    [['Hold up 3 fingers; fold one down'], 'hands: 2 fingers up (2 left, 0 right)'],
    [['Hold up all ten fingers', 'Put three down'], 'hands: 7 fingers up (5 left, 2 right)'],
    [['Show seven fingers: five and two'], 'hands: 7 fingers up (5 left, 2 right)'],
    [
      ['Set up ten skittles', 'Roll the ball: five fall down', 'Stand them up again'],
      'skittles: 10 standing, 0 knocked over',
    ],
    [['Lay out a ten frame', 'Put 8 on the frame', 'Wipe off 3 dots'], 'ten frame: 5 saffron, 5 empty'],
    [['Lay out a ten frame', 'Put 10 on the frame', 'Eat the bottom row'], 'ten frame: 5 saffron, 5 empty'],
    [
      ['Lay out a ten frame', 'Put 6 on the frame', 'Add blue ones until the frame is full'],
      'ten frame: 6 saffron, 4 blue',
    ],
    [['Lay out a ten frame', 'Put 6 on the frame', 'Put 4 more, in blue'], 'ten frame: 6 saffron, 4 blue'],
    [['Lay out a number line 0 to 100', 'Jump 1 ten from 36'], 'number line 0 to 100: a hop from 36 to 46'],
    [
      ['Lay out a number line 0 to 20', 'Make two jumps of five from 5'],
      'number line 0 to 20: a hop from 5 to 10, a hop from 10 to 15',
    ],
    [
      ['Lay out a number line 0 to 20', 'Bobbin walks from door 4 to door 9'],
      'number line 0 to 20: a hop from 4 to 9',
    ],
    [
      ['Lay out a hundred square', 'Put a counter on 34', 'Move it down one row'],
      'hundred square 1 to 100: shaded: 34, a hop from 34 to 44',
    ],
    [
      ['Lay out a hundred square', 'Shade the twos up to 10'],
      'hundred square 1 to 100: shaded: 2, 4, 6, 8, 10',
    ],
    [['Put 12 dried pasta in the jar', 'Shake three out'], 'jar: 9 saffron. open table: 3 saffron'],
    [
      [
        'Lay out a part-whole',
        'Put 8 in the whole',
        'Move five of them into one part and the rest into the other',
      ],
      'part-whole: the whole empty; part 1 5 saffron; part 2 3 saffron',
    ],
    [
      ['Put 7 parcels on the top shelf', 'Move three parcels down'],
      'shelves: the top shelf 4 saffron; the bottom shelf 3 saffron',
    ],
    [['Put 10 counters on the table', 'Take half of them away'], 'open table: 5 saffron'],
    [['Put 10 counters on the table', 'Ring groups of 5'], 'open table: 10 saffron; ringed: 5, 5'],
    [['Put 5 plums on the table', 'A bird carries two away'], 'open table: 3 saffron'],
    [['Put 5 plums on the table', 'Two more plums roll in'], 'open table: 7 saffron'],
    [['Show the cards 1 to 5', 'Turn the 4 face down'], 'cards: 1, 2, 3, one face down, 5'],
    [['Show the cards 1 to 4', 'Take away the 3'], 'cards: 1, 2, 4'],
    [
      ['Put 5 and 2 on the dot card', 'Turn it round'],
      'dot card: the left square 2 saffron; the right square 5 saffron',
    ],
    [
      ['Put a coin worth 5 and a coin worth 2 on the table', 'Take the 2 away'],
      'coins: 1 saffron, 1 of them worth 5',
    ],
    [['Put three counters blue side up on the row'], 'row: 3 blue'],
    [['Put 3 on the row', 'Put the row away'], 'The table is bare'],
    [['Put 6 pebbles on the table', 'Hide 2 under the cup', 'Lift the cup'], 'open table: 6 saffron'],
    [['Roll the die, it shows a 6'], 'dice: 6'],
    [['Put 3 saffron and 4 blue on the frame'], 'ten frame: 3 saffron, 4 blue, 3 empty'],
    [['Lay out a number line 0 to 20 in fives'], 'number line 0 to 20'],
    [['Lay out a spinner with 1, 1, 2', 'Spin a 2'], 'spinner: 2'],
    [
      ['Share 9 among 4 plates, one at a time'],
      'plates: plate 1 2 saffron; plate 2 2 saffron; plate 3 2 saffron; plate 4 2 saffron. open table: 1 saffron',
    ],
    [['Put 5 in the jar; cover the jar, then put 2 on the row'], 'jar, covered. row: 2 saffron'],
    [
      ['Draw 4 from the bowl and put it back'],
      'bowl with 10 slips: 0, 1, 2, 3, 4, 5, 6, 7, 8, 9. cards: none yet',
    ],
  ])('%j', (lines, words) => expect(describeTable(after(lines))).toBe(words))
})

describe('what was not said is not drawn', () => {
  test.each([
    'Sing the parcel song',
    'Take your time',
    'Wave',
    'Smile at the camera',
    'Lay out the washing',
    'Shade 4 squares red, 3 blue and 2 yellow',
    'Put your hands on your head',
    'Put a fork under each spoon',
    'Put 8 stamps on the table. Give four stamps to each house',
    'Put 8 pegs on the row. Take one away from each end',
    'Build two towers, one of 3 and one of 5',
    'Put two fewer on the bottom shelf',
    'Put five in your hand',
    'Share fairly',
    'Turn',
    'Put some on the frame',
    'Think about parcels',
    '',
  ])('“%s”', (line) => {
    const r = readHands(line, emptyTable)
    expect(r.whole).toBe(false)
    expect(r.actions).toEqual([])
    expect(r.after).toBe(emptyTable)
  })
  test('a line read in part offers what it may mean, and draws none of it', () => {
    const table = after(['Put 5 spoons on the row'])
    const r = readHands('Put a fork under each spoon', table)
    expect(r.unread).toContain('each spoon')
    expect(r.offers.length).toBeGreaterThan(0)
    expect(r.after).toBe(table)
  })
})
