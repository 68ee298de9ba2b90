import { describe, expect, test } from 'vitest'
import { plainCodes } from '../../contracts/heard.ts'
import { captionWords, readCaptions } from '../desk/captions.ts'
import { hearFree } from './free.ts'

/** What is found in captions, a sentence a cue, spoken at about 130 words a minute: code, what was heard, and a "?" where it is a doubt. */
const found = (text: string): string[] => {
  let at = 0
  const stamp = (t: number): string =>
    `00:${String(Math.floor(t / 60)).padStart(2, '0')}:${String(t % 60).padStart(2, '0')}.000`
  const cues = text.split(/(?<=[.!?])\s+/).map((s) => {
    const from = at
    at += Math.max(2, Math.ceil(s.split(' ').length * 0.45))
    return `${stamp(from)} --> ${stamp(at)}\n${s}\n`
  })
  return hearFree(captionWords(readCaptions(`WEBVTT\n\n${cues.join('\n')}`)))
    .filter((f) => !plainCodes.has(f.code))
    .map((f) => `${f.code} ${f.heard || f.expected}${f.certain ? '' : '?'}`)
}

describe('nothing is wrong in captions', () => {
  test.each([
    // What stands where a result would begins a count, or a way of working.
    'Double three is one, two, three, four, five, six.',
    'Ten minus two is nine, eight.',
    'Seven take away five is seven in my head, then count back five.',
    'Nine add four is nine on my fingers, then four more.',
    'Seven take away five. Seven in my head, then six, five, four, three, two.',
    // A number said over again.
    'Five plus six. Six, I was thinking of a double.',
    'Eight take away three. Three, that is the number we take.',
    'Four plus three. I start at four: five, six, seven.',
    // Another group.
    'One, two, three red ones. And there are four blue ones.',
    'One, two, three, four, five, six spoons. There are seven forks.',
    'One, two, three, four. That makes four. And there are five over here.',
    // Totals that are right, and sentences that run on.
    'One, two, three, four, five. Five bears altogether.',
    'Two, four, six, eight. Eight socks in all.',
    'Double two is four, double three is six, double four is eight.',
    'Five add five is ten, so five add six is eleven.',
    'Two and two is, let me see, four.',
    'Ten, ten, nine, eight, seven, six.',
    'Let’s count them again together. One, two, three, four.',
    'Ninety eight, ninety nine, one hundred, one hundred and one.',
    'One hundred, two hundred, three hundred, four hundred, five hundred.',
  ])('%s', (text) => expect(found(text)).toEqual([]))
})

describe('what is wrong in captions is found', () => {
  test.each([
    ['One, two, three, four, five. Six bears altogether.', ['total-mismatch 6']],
    ['One, two, three, four, five, six. Seven pegs in total.', ['total-mismatch 7']],
    ['Five, ten, fifteen, twenty. Twenty-five fingers in all.', ['total-mismatch 25']],
    ['A hundred, a hundred, a hundred, ninety, eighty, seventy.', ['count-repeat 100']],
    ['Let me do that again. Four add two equals six.', ['false-start let me do that again']],
    ['Oh, let me start again. Bobbin has four parcels.', ['false-start let me start again']],
    ['Um, we have five parcels.', ['filler um']],
    ['Three add two equals six.', ['false-sentence 3 + 2 = 6']],
    ['Nine take away four is four.', ['false-sentence 9 − 4 = 4']],
    ['Seventy, eighty, one hundred.', []],
    ['Fifty, sixty, seventy, eighty, one hundred.', ['count-skip 90']],
  ])('%s', (text, wrong) => expect(found(text)).toEqual(wrong))
})
