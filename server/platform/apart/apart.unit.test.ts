import { expect, test } from 'vitest'
import { apart } from './apart.ts'

const captions = (lines: number): string =>
  `WEBVTT\n\n${Array.from(
    { length: lines },
    (_, i) => `00:00:${String(i % 60).padStart(2, '0')}.000 --> 00:00:59.900\none two three\n`,
  ).join('\n')}`

test('what takes too long is ended with words, and what loading takes is no part of it', async () => {
  // A thread opens here: compiling what it runs takes far longer than three short lines do.
  expect(await apart('captions', { text: captions(3) }, 'These captions', 1)).toEqual({ words: 9 })
  await expect(apart('captions', { text: captions(60_000) }, 'These captions', 0.001)).rejects.toMatchObject({
    status: 422,
    detail: expect.stringMatching(/^These captions took longer/) as string,
  })
  expect(await apart('captions', { text: captions(2) }, 'These captions')).toEqual({ words: 6 })
})
test('what a task says of its input comes out as it said it', async () => {
  await expect(apart('captions', { text: 'no captions' }, 'These captions')).rejects.toThrow(SyntaxError)
})
