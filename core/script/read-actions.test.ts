import { describe, expect, test } from 'vitest'
import { readActions } from './read-actions.ts'
import { readClaps, readCount } from './reading.ts'

const types = (line: string) => readActions(line)?.map((a) => a.type) ?? null
const at = (mat: string | null, region: number | null = null) => ({ mat, region })

describe('every action, in the words teachers use', () => {
  test.each<[string, object[]]>([
    ['Lay out three ten frames', [{ type: 'lay', mat: 'frame', parts: 3 }]],
    ['Set out a part-whole with five parts', [{ type: 'lay', mat: 'parts', parts: 5 }]],
    ['Lay out 4 plates', [{ type: 'lay', mat: 'plates', parts: 4 }]],
    ['Lay out a number line 0 to 20 in fives', [{ type: 'lay', mat: 'line', from: 0, to: 20, every: 5 }]],
    ['Lay an empty line 0 to 100', [{ type: 'lay', mat: 'line', from: 0, to: 100, every: 0 }]],
    ['Lay out a line 40 to 70', [{ type: 'lay', mat: 'line', from: 40, to: 70, every: 10 }]],
    ['Lay out a hundred square from 0', [{ type: 'lay', mat: 'square', from: 0 }]],
    ['Draw a number line', [{ type: 'lay', mat: 'line', from: 0, to: 10 }]],
    [
      'Lay out a bowl with digits 0 to 9',
      [
        {
          type: 'lay',
          mat: 'bowl',
          items: Array.from({ length: 10 }, (_, i) => ({ text: String(i), count: 1 })),
        },
      ],
    ],
    [
      'Lay out a spinner with 1, 1, 2',
      [
        {
          type: 'lay',
          mat: 'spinner',
          items: [
            { text: '1', count: 1 },
            { text: '1', count: 1 },
            { text: '2', count: 1 },
          ],
        },
      ],
    ],
    [
      'Lay out a picture: 3 letters, two birds and no cats',
      [
        {
          type: 'lay',
          mat: 'scene',
          items: [
            { text: 'letters', count: 3 },
            { text: 'birds', count: 2 },
            { text: 'cats', count: 0 },
          ],
        },
      ],
    ],
    ['Set up the skittles', [{ type: 'lay', mat: 'skittles', parts: 10 }]],
    [
      'Put 3 saffron and 4 blue on the frame',
      [
        { type: 'put', count: 3, face: 'saffron', target: at('frame') },
        { type: 'put', count: 4, face: 'blue', target: at('frame') },
      ],
    ],
    [
      'Put 3 and 4 on the dot card',
      [
        { type: 'put', count: 3, target: at('dots', 0) },
        { type: 'put', count: 4, target: at('dots', 1) },
      ],
    ],
    [
      'Put 2 tens and 4 ones on the table',
      [
        { type: 'put', count: 2, worth: 10 },
        { type: 'put', count: 4, worth: 1 },
      ],
    ],
    ['Put a coin worth 5', [{ type: 'put', count: 1, kind: 'coins', worth: 5, target: at('coins') }]],
    [
      'Put 3 bottle tops on the bottom shelf',
      [{ type: 'put', count: 3, kind: 'bottle tops', target: at('shelves', 1) }],
    ],
    ['Put 4 in part 2 of the bar', [{ type: 'put', count: 4, target: at('bar', 1) }]],
    ['Put 7 in the whole', [{ type: 'put', count: 7, target: at('parts', -1) }]],
    ['Put 2 fingers on the left hand', [{ type: 'put', count: 2, target: at('hands', 0) }]],
    ['Show 4 fingers', [{ type: 'put', count: 4, target: at('hands') }]],
    ['Build a tower of six', [{ type: 'put', count: 6, target: at('tower') }]],
    [
      'Place 9 wooden blocks on the row',
      [{ type: 'put', count: 9, kind: 'wooden blocks', target: at('row') }],
    ],
    ['Take 2 blue from the frame', [{ type: 'take', count: 2, face: 'blue', target: at('frame') }]],
    ['Fold down 3 fingers', [{ type: 'take', count: 3, target: at('hands') }]],
    [
      'Move 2 from the top shelf to the bottom shelf',
      [{ type: 'move', count: 2, source: at('shelves', 0), target: at('shelves', 1) }],
    ],
    [
      'Move 3 from the whole to part 1',
      [{ type: 'move', count: 3, source: at('parts', -1), target: at('parts', 0) }],
    ],
    ['Turn over 3 on the frame', [{ type: 'turn', count: 3, target: at('frame') }]],
    ['Turn the dot card round', [{ type: 'turn card' }]],
    ['Turn over the card 7', [{ type: 'show card', texts: ['7'], up: true }]],
    ['Cover 3', [{ type: 'cover', count: 3 }]],
    ['Cover the jar with my hand', [{ type: 'cover', count: null, target: at('jar') }]],
    ['Lift the lid', [{ type: 'uncover' }]],
    ['Tip them out', [{ type: 'uncover' }]],
    ['Knock down 4', [{ type: 'cross', count: 4, target: at('skittles') }]],
    ['Rub out 2', [{ type: 'rub out', count: 2 }]],
    ['Rub it out', [{ type: 'rub out', count: null }]],
    ['Ring four', [{ type: 'ring', count: 4 }]],
    ['Slide the divider to 3', [{ type: 'divide', at: 3 }]],
    ['Slide 6 pegs', [{ type: 'divide', at: 6, target: at('rail') }]],
    ['Share 9 among 4 plates, one at a time', [{ type: 'share', count: 9, among: 4 }]],
    ['Share them between two', [{ type: 'share', count: null, among: 2 }]],
    ['Share 7 into 4 and 3', [{ type: 'split', parts: [4, 3] }]],
    ['Split into 2, 2 and 3', [{ type: 'split', parts: [2, 2, 3] }]],
    ['Pair them up', [{ type: 'pair' }]],
    ['Swap ten ones for a ten', [{ type: 'swap ten' }]],
    ['Hop 3 on from 5', [{ type: 'hop', from: 5, by: 3, times: 1 }]],
    ['Jump 3 tens from 34', [{ type: 'hop', from: 34, by: 10, times: 3 }]],
    ['Jump back 2 tens from 87', [{ type: 'hop', from: 87, by: -10, times: 2 }]],
    ['Hop in twos from 2 to 8', [{ type: 'hop', from: 2, by: 2, times: 3 }]],
    ['Mark 50, 25 and 75 on the line', [{ type: 'mark', numbers: [50, 25, 75], mat: 'line' }]],
    ['Shade the numbers 10 to 50 in tens', [{ type: 'mark', numbers: [10, 20, 30, 40, 50], mat: 'square' }]],
    ['Show the cards 3, 5 and 8', [{ type: 'show card', texts: ['3', '5', '8'], up: true }]],
    ['Show the cards "seven, 7"', [{ type: 'show card', texts: ['seven', '7'] }]],
    ['Lay the cards 0 to 3 face down', [{ type: 'show card', texts: ['0', '1', '2', '3'], up: false }]],
    ['Draw 3 and 7 from the bowl', [{ type: 'draw', texts: ['3', '7'], back: false, from: 'bowl' }]],
    ['Draw the 2 card', [{ type: 'draw', texts: ['2'], from: 'cards' }]],
    ['Roll 4 and 3', [{ type: 'roll', faces: [4, 3] }]],
    ['Roll two dice', [{ type: 'roll', faces: [] }]],
    ['Spin a 2', [{ type: 'spin', text: '2' }]],
    ['Write 7 in the whole', [{ type: 'label', text: '7', target: at('parts', -1) }]],
  ])('%s', (line, actions) => expect(readActions(line)).toMatchObject(actions))
  test('several in one line, joined the way people join them', () => {
    expect(types('Put 5 in the jar and cover it')).toEqual(['put', 'cover'])
    expect(types('Draw 4 from the bowl and put it back')).toEqual(['draw'])
    expect(types('Put 3 on the row, then turn over 1; cover 2')).toEqual(['put', 'turn', 'cover'])
    expect(types('Put 3 on the row. Ring 2.')).toEqual(['put', 'ring'])
  })
  test.each([
    'Sing',
    'Share',
    'Share fairly',
    'Ring the bell',
    'Slide along',
    'Show me',
    'Lay out the washing',
    'Turn round',
    'Spin',
    '',
  ])('“%s” moves nothing, or is no action', (line) => {
    const read = readActions(line)
    if (read !== null) expect(read).toEqual([{ type: 'spin', text: null }])
  })
})

describe('sounds and counts', () => {
  test.each([
    ['Clap 4 times', 4, false],
    ['Knock 3 times, behind the door', 3, true],
    ['Tap twice', 2, false],
    ['Ring the bell once', 1, false],
    ['Clap six, eyes closed', 6, true],
  ])('%s', (line, count, unseen) => expect(readClaps(line)).toEqual({ count, unseen }))
  test.each(['A song plays', 'Clap', 'Clap 99 times'])('“%s” has no number of claps', (line) =>
    expect(readClaps(line)).toBeNull(),
  )
  test.each<[string, number[]]>([
    ['in fives from 5 to 20', [5, 10, 15, 20]],
    ['back from 20 to 17', [20, 19, 18, 17]],
    ['in tens from 10 to 50, with a clap for each', [10, 20, 30, 40, 50]],
    ['ninety-eight to one hundred and one', [98, 99, 100, 101]],
  ])('count %s', (line, numbers) => expect(readCount(line)!.numbers).toEqual(numbers))
  test('“on the table” is where they are touched, not a mat', () =>
    expect(readCount('1 to 5, touching the things on the table')!.target.mat).toBeNull())
})
