// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { lessonOf } from '@awlbox/core/cut/test-words'
import { showingIn } from '../../testing/parts.tsx'
import LookPage from './look-page.tsx'

afterEach(cleanup)
const lesson = lessonOf('# Parcels\n\n## Send {home task}\nAsk: How many?')
const reply = (child: string, more: Partial<ReplyRecord> = {}): ReplyRecord =>
  ({
    id: `reply-${child}`,
    childId: child,
    child,
    answers: [{ taskId: 'n', text: '6', choice: null, photoId: null }],
    help: 'nudged',
    words: 'He used his fingers.',
    receivedAt: '2026-11-26T18:42:00Z',
    updatedAt: '2026-11-26T18:42:00Z',
    publicationId: 'p',
    tasks: [
      {
        id: 'n',
        prompt: 'How many parcels?',
        kind: 'number',
        choices: [],
        spec: { kind: 'number', answer: 7 },
        expected: null,
      },
    ],
    photos: [],
    recordings: [],
    gave: null,
    chose: null,
    why: '',
    judgements: [],
    ...more,
  }) as unknown as ReplyRecord
const page = (replies: ReplyRecord[], more: Parameters<typeof showingIn>[2] = {}) =>
  showingIn(lesson, <LookPage />, {
    answer: ({ method, path }) =>
      path.endsWith('/replies')
        ? { body: { items: replies, next: null } }
        : method === 'POST'
          ? { body: { id: 'j' } }
          : undefined,
    ...more,
  })

test('a reply shows the answer against what is right, the help and the home’s words', async () => {
  page([reply('Kofi')])
  const answers = await screen.findByRole('region', { name: 'Answers' })
  expect(answers.textContent).toContain('How many parcels?')
  expect(within(answers).getByText('6')).toBeTruthy()
  expect(answers.textContent).toMatch(/7/)
  expect(document.body.textContent).toContain('He used his fingers.')
  expect(screen.getByText('Help:').parentElement!.textContent).toContain('nudged')
})
test('judged by three keys it is sent as a person’s decision', async () => {
  const { user, asked } = page([reply('Kofi'), reply('Suri')])
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('2n7')
  expect(asked.find((a) => a.method === 'POST')).toMatchObject({
    path: '/api/replies/reply-Kofi/judgements',
    body: { level: 'nearly', help: 'nudged', rung: 'things' },
  })
})
test('a refused judgement is told, and nothing moves on', async () => {
  const { user } = page([reply('Kofi'), reply('Suri')], {
    answer: ({ method, path }) =>
      path.endsWith('/replies')
        ? { body: { items: [reply('Kofi'), reply('Suri')], next: null } }
        : method === 'POST'
          ? { status: 403, body: { title: 'No', detail: 'You can look, not judge.' } }
          : undefined,
  })
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('2n7')
  expect((await screen.findByRole('alert')).textContent).toBe('You can look, not judge.')
  expect(screen.getByRole('button', { name: /Kofi/ }).getAttribute('aria-current')).toBe('true')
})
test('arrows go from reply to reply', async () => {
  const { user } = page([reply('Kofi'), reply('Suri')])
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('{ArrowRight}')
  expect(screen.getByRole('button', { name: /Suri/ }).getAttribute('aria-current')).toBe('true')
})
test('with nothing back it says whether anything was sent', async () => {
  page([])
  expect(await screen.findByText(/Nothing has been sent yet/)).toBeTruthy()
})
