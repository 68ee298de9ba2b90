import { describe, expect, test } from 'vitest'
import { captionWords, readCaptions } from '../desk/captions.ts'
import { pauseCues } from './cues.ts'

/** Cues in captions, a sentence a cue of three seconds. */
const cuesIn = (text: string): string[] => {
  const sentences = text.split(/(?<=[.!?])\s+/)
  const stamp = (t: number): string =>
    `00:${String(Math.floor(t / 60)).padStart(2, '0')}:${String(t % 60).padStart(2, '0')}.000`
  const vtt = `WEBVTT\n\n${sentences.map((s, i) => `${stamp(i * 3)} --> ${stamp(i * 3 + 3)}\n${s}\n`).join('\n')}`
  return pauseCues(captionWords(readCaptions(vtt))).map((f) => f.heard)
}

describe('viewers are told to stop the film', () => {
  test.each([
    'Pause the video.',
    'Now pause the film and have a go.',
    'Why don’t you pause the video and fetch some pegs?',
    'Why not pause here and try it?',
    'Let’s have a pause while you count them.',
    'Take a little pause and draw your own.',
    'You will need a plate and a spoon. Pause the video while you get them.',
    'Press pause when you are ready.',
    'Hit the pause button and build it.',
    'You can pause me at any time.',
    'Don’t forget to pause the recording here.',
    'If you need to pause the video, that is fine.',
    'Could you pause the clip for me?',
    'I would like you to pause the video.',
    'Time for a pause.',
    'Stop the video here and have a think.',
    'Stop me now and show your grown-up.',
    'Press stop and find ten buttons.',
    'Pause.',
    'Okay, pause, and see how many you have.',
    'Try pausing the video here.',
    'Freeze the screen and count the stamps.',
    'Stop here until you have laid five.',
    'Go and get seven spoons and press play when you are back.',
    'When you have finished, hit play.',
    'We’ll wait for you. Click play once you are done.',
    'Please put the video on hold and set your table.',
    'And then I want you to pause it and have a go yourself.',
  ])('%s', (text) => expect(cuesIn(text)).toHaveLength(1))
  test('once for "pause" and the "press play" that belongs to it', () =>
    expect(cuesIn('Pause the film now. Fetch your pegs. Press play when you are back.')).toHaveLength(1))
})

describe('viewers are not told to stop the film', () => {
  test.each([
    'Don’t pause the video yet.',
    'There is no need to pause.',
    'You don’t have to pause for this one.',
    'After the pause we counted on.',
    'Did you pause the video?',
    'There was a short pause.',
    'When you pause, the picture stays.',
    'Keep going without a pause.',
    'I will pause for a moment so you can think.',
    'That was a dramatic pause.',
    'Before we pause, look at the plate.',
    'Never pause in the middle of a count.',
    'Can you stop counting at seven?',
    'We stop at ten.',
    'The bus comes to a stop here.',
    'Now let us play a game.',
    'You can play it again with your grown-up.',
    'Bobbin likes to play.',
    'After pausing the film, they went on.',
    'Don’t press pause just yet.',
    'She did not stop the film.',
    'Hold on to your parcels.',
    'Use the play dough to make five.',
    'Push play people along the street.',
  ])('%s', (text) => expect(cuesIn(text)).toEqual([]))
})
