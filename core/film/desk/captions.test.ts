import { describe, expect, test } from 'vitest'
import { plainCodes } from '../../contracts/heard.ts'
import { captionWords, readCaptions } from './captions.ts'
import { hearFree } from '../judge/free.ts'

const words = (text: string) =>
  captionWords(readCaptions(text))
    .map((w) => w.word)
    .join(' ')
const srt = (...cues: string[]) =>
  cues
    .map(
      (c, i) =>
        `${i + 1}\n00:00:${String(i * 3).padStart(2, '0')},000 --> 00:00:${String(i * 3 + 3).padStart(2, '0')},000\n${c}\n`,
    )
    .join('\n')

describe('captions as they come', () => {
  test('digits, signs and commas are words', () =>
    expect(words(srt('1,2,3. 4+3=7', '10 - 2 = 8'))).toBe(
      'one two three four add three equals seven ten take away two equals eight',
    ))
  test('who speaks, sounds, notes and entities are not said', () =>
    expect(
      words(srt('>> MARNIE: Hello [MUSIC] you', '- So (laughs) five &amp; two', '♪ la la ♪ <i>ten</i>')),
    ).toBe('hello you so five two ten'))
  test('a dash between words is a pause, not a take-away', () =>
    expect(words(srt('Seven - that is a lot - and two'))).toBe('seven that is a lot and two'))
  test('rolling captions are read once, at the time each word has in them', () => {
    const rolling = `WEBVTT

00:00:00.000 --> 00:00:02.000
 
one<00:00:00.800><c> two</c>

00:00:02.000 --> 00:00:02.010
one two
 

00:00:02.010 --> 00:00:04.000
one two
three<00:00:03.000><c> five</c>

00:00:04.000 --> 00:00:04.010
three five
 
`
    const w = captionWords(readCaptions(rolling))
    expect(w.map((x) => x.word)).toEqual(['one', 'two', 'three', 'five'])
    expect(w[3]!.start).toBeCloseTo(3)
  })
  test('captions that grow word by word are read once', () =>
    expect(words(srt('one', 'one two', 'one two three', 'one two three four'))).toBe('one two three four'))
  test('a line really said twice is kept twice', () =>
    expect(words(srt('Ten.', 'Ten. Altogether ten.', 'And one more.', 'Eleven.'))).toBe(
      'ten ten altogether ten and one more eleven',
    ))
  test('cue names, notes and styles are no words; Windows line ends and short times are read', () =>
    expect(
      words(
        'WEBVTT\r\n\r\nSTYLE\r\n::cue {}\r\n\r\nNOTE by hand\r\n\r\nfirst\r\n00:01.000 --> 00:02.5\r\nHello\r\n\r\nsecond\r\n00:03.000 --> 00:04.000\r\nBobbin\r\n',
      ),
    ).toBe('hello bobbin'))
  test('punctuation stays with its word, and words lie in their cue', () => {
    const w = captionWords(readCaptions(srt('How many? Five.')))
    expect(w.map((x) => x.mark)).toEqual(['', '?', '.'])
    expect(w.every((x) => x.start >= 0 && x.end <= 3.001 && x.end > x.start)).toBe(true)
  })
  test('no captions at all is an error that says what is read', () =>
    expect(() => readCaptions('a shopping list')).toThrow(/WebVTT or SRT/))
})

describe('what is said in captions, judged with no script', () => {
  const codes = (text: string) =>
    hearFree(captionWords(readCaptions(srt(...text.split(/(?<=[.!?])\s+/)))))
      .filter((f) => !plainCodes.has(f.code))
      .map((f) => f.code)
  test.each([
    'Let’s count them together. One, two, three, four, five, six. Six parcels!',
    'What is eleven take away four? Pause the film now. Did you get seven? Well done.',
    'We can count in tens. Ten, twenty, thirty, forty, fifty.',
    'Double four is eight, and double five is ten.',
    'Is five plus two eight? No! Five plus two is seven.',
    'It’s 9:30 on page 12, and I will show you 3 ways. Way 1 is to count on.',
    'For this one, go to the kitchen and find two things. Too many? Four is fine.',
    'Oh no, I said one, two, four. I missed three! Let’s do it again. One, two, three, four.',
    'Count on from six. Six... seven, eight, nine. So six add three is nine.',
    'One, one. Two, two. Three, three. Four, four. Good copying!',
    'There were five in the box and one rolled out. So there were four in the box.',
    'Six is two more than four.',
  ])('nothing wrong: %s', (text) => expect(codes(text)).toEqual([]))
  test.each([
    ['Let’s count. One, two, three, four, six, seven, eight.', 'count-skip'],
    ['Ten, nine, eight, seven, five, four, three, two, one, off we go!', 'count-skip'],
    ['Ten, twenty, thirty, forty, sixty, seventy.', 'count-skip'],
    ['One, two, three, three, four, five. Five parcels.', 'count-repeat'],
    ['How many have we got? One, two, three, four, five. So we’ve got six altogether.', 'total-mismatch'],
    ['So three and two is six.', 'false-sentence'],
    ['Eleven take away four. Let’s work it out. Eleven take away four equals six.', 'false-sentence'],
    ['Double three equals seven.', 'false-sentence'],
    ['Half of six is two.', 'false-sentence'],
    ['One less than nine is seven.', 'false-sentence'],
    ['Three groups of two is five.', 'false-sentence'],
    ['7 + 3 = 10, 6 + 5 = 10', 'false-sentence'],
  ])('%s → %s', (text, code) => expect(codes(text)).toEqual([code]))
  test('pause cues and waits are told as plain information', () => {
    const found = hearFree(
      captionWords(
        readCaptions(
          'WEBVTT\n\n00:00.000 --> 00:03.000\nPause the video here.\n\n00:03.000 --> 00:05.000\nHow many are there?\n\n00:11.000 --> 00:13.000\nThere are five.\n',
        ),
      ),
    ).map((f) => f.code)
    expect(found).toEqual(expect.arrayContaining(['pause-cue', 'wait']))
  })
})
