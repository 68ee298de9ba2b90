// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { Pairing } from '@awlbox/core/contracts/api/agreement'
import { lessonOf } from '@awlbox/core/cut/test-words'
import { madeReply } from '../../testing/made-reply.ts'
import { showingIn } from '../../testing/parts.tsx'
import PairsPage from './pairs-page.tsx'

afterEach(cleanup)
const lesson = lessonOf('# Parcels\n\n## Send {home task}\nAsk: How many?')
const pairing = (more: Partial<Pairing> = {}): Pairing => ({
  pair: ['reply-Kofi', 'reply-Suri'],
  compared: 0,
  scale: [],
  words: '0 compared. Go on until it says to stop.',
  ...more,
})
const page = (data: Pairing) =>
  showingIn(lesson, <PairsPage />, {
    answer: ({ method, path }) =>
      method === 'POST'
        ? { body: { ok: true } }
        : path.endsWith('/pairs')
          ? { body: data }
          : path.includes('/replies')
            ? {
                body: { items: [madeReply('Kofi'), madeReply('Suri', { words: 'By herself.' })], next: null },
              }
            : undefined,
  })

test('two replies stand beside each other, with answers and words, and no name', async () => {
  page(pairing())
  const left = await screen.findByRole('region', { name: 'On the left' })
  expect(within(left).getByText('6')).toBeTruthy()
  expect(within(screen.getByRole('region', { name: 'On the right' })).getByText('“By herself.”')).toBeTruthy()
  expect(left.textContent).not.toContain('Kofi')
})
test.each([
  ['l', 'reply-Kofi', 'reply-Suri', false],
  ['r', 'reply-Suri', 'reply-Kofi', false],
  ['s', 'reply-Kofi', 'reply-Suri', true],
])('the key %s says which shows more', async (key, betterId, otherId, same) => {
  const { user, asked } = page(pairing())
  await screen.findByRole('region', { name: 'On the left' })
  await user.keyboard(key)
  expect(asked.find((a) => a.method === 'POST')).toMatchObject({
    path: '/api/lessons/lesson/pairs',
    body: { betterId, otherId, same },
  })
})
test('when the scale stands it is shown with how often each was compared, and nothing is asked', async () => {
  page(
    pairing({
      pair: null,
      compared: 3,
      words: 'The scale stands: more comparing would change little.',
      scale: [
        { replyId: 'reply-Suri', place: -0.6, error: 0.4, compared: 3 },
        { replyId: 'reply-Kofi', place: 0.6, error: null, compared: 3 },
      ],
    }),
  )
  const scale = await screen.findByRole('region', { name: 'The scale so far' })
  expect(
    within(scale)
      .getAllByRole('link')
      .map((l) => l.textContent),
  ).toEqual(['Suri', 'Kofi'])
  expect(within(scale).getByRole('img', { name: '-0.6, compared 3 times' })).toBeTruthy()
  expect(screen.queryByRole('button', { name: /shows more/ })).toBeNull()
})
