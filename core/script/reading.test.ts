import { describe, expect, test } from 'vitest'
import { pauseWords, readClaps, readCount, readPauseSeconds, readSeconds } from './reading.ts'
import { inSigns, isTrue, mended, sentencesIn, shapeOf, solve } from './sentence.ts'

describe('what a count line may say', () => {
  test.each([
    ['1 to 7, touching each', [1, 2, 3, 4, 5, 6, 7], true, null],
    ['one to five', [1, 2, 3, 4, 5], false, null],
    ['on from 5 to 8', [5, 6, 7, 8], false, 5],
    ['back from 10 to 7', [10, 9, 8, 7], false, null],
    ['in twos from 2 to 10', [2, 4, 6, 8, 10], false, null],
    ['in tens to 40', [10, 20, 30, 40], false, null],
    ['1, 2, 3, 5', [1, 2, 3, 5], false, null],
    ['1 to 4, with a clap for each', [1, 2, 3, 4], false, null],
  ])('%s', (line, numbers, touching, onFrom) =>
    expect(readCount(line)).toMatchObject({ numbers, touching, onFrom }),
  )
  test.each(['together', '', 'up to the sky'])('“%s” is no count', (line) =>
    expect(readCount(line)).toBeNull(),
  )
  test('a movement is noticed', () => expect(readCount('1 to 5, jumping')!.movement).toBe(true))
})

describe('times in words', () => {
  test.each([
    ['5 s', 5],
    ['five seconds', 5],
    ['1 minute', 60],
    ['2 min', 120],
    ['', null],
    ['a while', null],
  ])('wait “%s”', (line, s) => expect(readSeconds(line)).toBe(s))
  test.each([
    ['Your turn (90 s)', 90, 'Your turn'],
    ['Your turn (2 min)', 120, 'Your turn'],
    ['Find two more (with a friend)', null, 'Find two more (with a friend)'],
    ['Go', null, 'Go'],
  ])('pause “%s”', (line, s, words) => {
    expect(readPauseSeconds(line)).toBe(s)
    expect(pauseWords(line)).toBe(words)
  })
})

describe('number sentences', () => {
  test.each([
    ['4 + 3 = 7', '4 + 3 = 7', true],
    ['7 = 4 + 3', '7 = 4 + 3', true],
    ['7 − 2 = 5', '7 − 2 = 5', true],
    ['7 - 2 = 4', '7 − 2 = 4', false],
    ['four and three make seven', '4 + 3 = 7', true],
    ['four add three equals eight', '4 + 3 = 8', false],
    ['seven take away two is five', '7 − 2 = 5', true],
    ['two plus two plus two equals six', '2 + 2 + 2 = 6', true],
    ['twenty-one take away one equals twenty', '21 − 1 = 20', true],
    ['4 + __ = 7', '4 + __ = 7', true],
    ['9 + __ = 7', '9 + __ = 7', false],
    ['5 + 2 is the same as 3 + 4', '5 + 2 = 3 + 4', true],
    ['5 + 2 equals 3 + 3', '5 + 2 = 3 + 3', false],
  ])('%s', (text, signs, truth) => {
    const [s] = sentencesIn(text)
    expect(inSigns(s!)).toBe(signs)
    expect(isTrue(s!)).toBe(truth)
  })
  test.each([
    'seven is a lucky number',
    'add your name',
    'there are two and then there are three',
    'one, two, three',
    'it is four o’clock and five are here',
    'take away the cloth',
  ])('“%s” holds none', (text) => expect(sentencesIn(text)).toEqual([]))
  test('an “and” between two sentences adds nothing', () =>
    expect(sentencesIn('double three is six and double four is eight')).toEqual([]))
  test('two in one line are both found', () =>
    expect(sentencesIn('4 + 3 = 7 and 3 + 4 = 7').map(inSigns)).toContain('3 + 4 = 7'))
  test('the unknown is worked out wherever it stands', () => {
    const unknown = (text: string) => solve(sentencesIn(text)[0]!)
    expect([
      unknown('4 + __ = 7'),
      unknown('__ = 4 + 3'),
      unknown('__ − 2 = 5'),
      unknown('7 − __ = 5'),
      unknown('9 = __ + 2'),
    ]).toEqual([3, 7, 7, 2, 7])
  })
  test('parts and whole, whichever way it is written', () => {
    expect(shapeOf(sentencesIn('7 = 4 + 3')[0]!)).toEqual({ parts: [4, 3], whole: 7, takeAway: false })
    expect(shapeOf(sentencesIn('7 − 2 = 5')[0]!)).toEqual({ parts: [2, 5], whole: 7, takeAway: true })
    expect(shapeOf(sentencesIn('4 + __ = 7')[0]!)).toBeNull()
  })
  test('mending changes the lone side only', () => {
    expect(mended(sentencesIn('4 + 3 = 8')[0]!)).toBe('4 + 3 = 7')
    expect(mended(sentencesIn('8 = 4 + 3')[0]!)).toBe('7 = 4 + 3')
    expect(mended(sentencesIn('4 + 3 = 2 + 2')[0]!)).toBeNull()
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
})
