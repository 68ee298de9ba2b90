// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { Round } from '@awlbox/core/contracts/api/agreement'
import { lessonOf } from '@awlbox/core/cut/test-words'
import { madeReply } from '../../testing/made-reply.ts'
import { showingIn } from '../../testing/parts.tsx'
import SecondPage from './second-page.tsx'

afterEach(cleanup)
const lesson = lessonOf('# Parcels\n\n## Send {home task}\nAsk: How many?')
const round = (more: Partial<Round> = {}): Round => ({
  id: 'round',
  at: '2026-11-27T20:00:00Z',
  first: 'Desh Pellow',
  second: 'Marnie Lund',
  mine: true,
  replyIds: ['reply-Kofi', 'reply-Suri'],
  done: 1,
  result: null,
  ...more,
})
const page = (items: Round[], colleagues = [{ id: 'desh', name: 'Desh Pellow' }], status = 200) =>
  showingIn(lesson, <SecondPage />, {
    answer: ({ method, path }) =>
      method === 'POST'
        ? {
            status,
            body: status === 200 ? { id: 'new', ok: true } : { title: 'No', detail: 'Judged already.' },
          }
        : path.endsWith('/second-rounds')
          ? { body: { items, colleagues } }
          : path.endsWith('/next')
            ? { body: { reply: madeReply('Kofi') } }
            : undefined,
  })

test('without a colleague it says who could be one', async () => {
  page([], [])
  expect(await screen.findByText(/a colleague with a sign-in of their own/)).toBeTruthy()
})
test('a sample is drawn for a colleague, as many as wanted', async () => {
  const { user, asked } = page([])
  const many = await screen.findByRole('spinbutton', { name: 'Replies' })
  await user.clear(many)
  await user.type(many, '12')
  await user.click(screen.getByRole('button', { name: 'Draw them' }))
  expect(asked.find((a) => a.method === 'POST')).toMatchObject({
    path: '/api/lessons/lesson/second-rounds',
    body: { secondId: 'desh', many: 12 },
  })
})
test('whoever judges second sees the reply and nothing of the first; the judgement is theirs', async () => {
  const { user, asked } = page([round()])
  const answers = await screen.findByRole('region', { name: 'Answers' })
  expect(within(answers).getByText('6')).toBeTruthy()
  expect(document.body.textContent).toContain('2 of 3, drawn by Desh Pellow')
  expect(document.body.textContent).not.toMatch(/Proposed|Looked at:/)
  await user.keyboard('2n7')
  expect(asked.find((a) => a.method === 'POST')).toMatchObject({
    path: '/api/second-rounds/round/judgements',
    body: { replyId: 'reply-Kofi', level: 'nearly', help: 'nudged', rung: 'things' },
  })
})
test('a judgement that is refused says so', async () => {
  const { user } = page([round()], [], 409)
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('2n7')
  expect(await screen.findByText('Judged already.')).toBeTruthy()
})
test('when all are judged the result stands there; a difference is settled once, with words', async () => {
  const differ = {
    replyId: 'reply-Kofi',
    child: 'Kofi',
    first: 'secure' as const,
    second: 'nearly' as const,
    settled: null,
    words: '',
  }
  const result = { words: 'You agreed on 3 of 5.', agreed: 0.6, kappa: 0.4, low: 0, high: 0.8 }
  const { user, asked } = page([
    round({
      replyIds: [],
      done: 5,
      result: {
        ...result,
        differ: [
          differ,
          { ...differ, replyId: 'reply-Suri', child: 'Suri', settled: 'secure', words: 'we looked' },
        ],
      },
    }),
  ])
  expect(await screen.findByText('You agreed on 3 of 5.')).toBeTruthy()
  expect(screen.getByText(/“we looked”/)).toBeTruthy()
  expect(screen.queryByLabelText('Why, for Suri')).toBeNull()
  await user.type(screen.getByLabelText('Why, for Kofi'), 'the photo shows it')
  await user.click(screen.getByRole('button', { name: 'Nearly' }))
  expect(asked.find((a) => a.method === 'POST')).toMatchObject({
    path: '/api/second-rounds/round/settlements',
    body: { replyId: 'reply-Kofi', level: 'nearly', words: 'the photo shows it' },
  })
})
test('a round that waits for the other says how far it is', async () => {
  page([round({ mine: false })])
  expect(await screen.findByText(/1 of 3 judged by Marnie Lund/)).toBeTruthy()
})
