// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { lessonOf } from '@awlbox/core/cut/test-words'
import { madeReply } from '../../testing/made-reply.ts'
import { showingIn } from '../../testing/parts.tsx'
import LookPage from './look-page.tsx'

afterEach(cleanup)
const lesson = lessonOf('# Parcels\n\n## Send {home task}\nAsk: How many?')
const reply = madeReply
const thinking = { weighed: 0, given: 0, words: 'No answers yet.', named: [], considered: [] }
const page = (replies: ReplyRecord[], more: Parameters<typeof showingIn>[2] = {}) =>
  showingIn(lesson, <LookPage />, {
    answer: ({ method, path }) =>
      path.endsWith('/replies')
        ? { body: { items: replies, next: null } }
        : path.endsWith('/thinking')
          ? { body: thinking }
          : path.endsWith('/feedback')
            ? { body: { language: 'pl', body: 'Dobrze.', english: 'Well counted.' } }
            : method === 'POST'
              ? {
                  body:
                    path.endsWith('/judgements') && path.includes('/lessons/')
                      ? { judged: [], left: [] }
                      : { id: 'j', ok: true },
                }
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
        : path.endsWith('/thinking')
          ? { body: thinking }
          : method === 'POST'
            ? { status: 403, body: { title: 'No', detail: 'You can look, not judge.' } }
            : undefined,
  })
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('2n7')
  expect((await screen.findByRole('alert')).textContent).toBe('You can look, not judge.')
  expect(screen.getByRole('button', { name: /Kofi/ }).getAttribute('aria-current')).toBe('true')
})
test('like answers come together, the commonest first', async () => {
  const said = (child: string, text: string) => reply(child, { answers: [{ taskId: 'n', text }] as never })
  const { user } = page([said('Kofi', '6'), said('Suri', '8'), said('Maeve', '8'), said('Otis', '7')])
  await screen.findByRole('region', { name: 'Answers' })
  await user.click(screen.getByRole('combobox', { name: /^Order/ }))
  await user.click(await screen.findByRole('option', { name: 'like answers together' }))
  const queue = within(screen.getByRole('list', { name: 'Replies' }))
  expect(queue.getAllByRole('button').map((b) => b.getAttribute('title'))).toEqual([
    'Suri',
    'Maeve',
    'Kofi',
    'Otis',
  ])
})
test('arrows go from reply to reply', async () => {
  const { user } = page([reply('Kofi'), reply('Suri')])
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('{ArrowRight}')
  expect(screen.getByRole('button', { name: /Suri/ }).getAttribute('aria-current')).toBe('true')
})
const sure = (child: string) =>
  reply(child, { answers: [{ taskId: 'n', text: '7' }] as never, help: 'alone', way: 'things' })
test('where the home said help and way, one key judges; u goes back to it', async () => {
  const { user, asked } = page([sure('Kofi'), reply('Suri')])
  await screen.findByRole('region', { name: 'Answers' })
  await user.keyboard('1')
  expect(asked.find((a) => a.method === 'POST')?.body).toMatchObject({
    level: 'secure',
    help: 'alone',
    rung: 'things',
  })
  await screen.findByRole('button', { name: 'Undo (u)' })
  await user.keyboard('u')
  const queue = within(screen.getByRole('list', { name: 'Replies' }))
  expect(queue.getByRole('button', { name: /Kofi/ }).getAttribute('aria-current')).toBe('true')
})
test('what is proposed is seen before, or only after, as the house has it', async () => {
  page([sure('Kofi')])
  expect((await screen.findByText(/Proposed:/)).parentElement!.textContent).toContain('secure, alone')
  cleanup()
  page([sure('Kofi')], { style: { ...defaultHouseStyle, proposals: 'after' } })
  await screen.findByRole('region', { name: 'Answers' })
  expect(screen.queryByText(/Proposed:/)).toBeNull()
})
test('only replies of which every check agrees are judged together, and they are listed first', async () => {
  const { user, asked } = page([sure('Kofi'), sure('Maeve'), reply('Suri')])
  await user.click(await screen.findByRole('button', { name: /2 where every check agrees/ }))
  await user.click(screen.getByRole('checkbox', { name: /Maeve/ }))
  await user.click(screen.getByRole('button', { name: 'Judge these 1' }))
  expect(asked.find((a) => a.path.includes('/lessons/') && a.method === 'POST')?.body).toEqual({
    judgements: [{ replyId: 'reply-Kofi', level: 'secure', help: 'alone', rung: 'things', note: '' }],
  })
})
test('a wrong number says as if how it was thought; one question is sent back', async () => {
  const wrong = reply('Kofi', {
    answers: [{ taskId: 'n', text: '8' }] as never,
    tasks: [{ id: 'n', prompt: '11 − 4 = ?', spec: { kind: 'number', answer: 7 }, expected: null }] as never,
  })
  const { user, asked } = page([wrong])
  expect((await screen.findByText(/as if the child/)).textContent).toContain(
    'counts the number they stand on',
  )
  await user.click(screen.getByRole('button', { name: 'ask again' }))
  await user.type(screen.getByLabelText('What to say with it'), 'Once more?')
  await user.click(screen.getByRole('button', { name: 'Ask this home' }))
  expect(asked.find((a) => a.path.endsWith('/askings'))?.body).toEqual({ taskId: 'n', words: 'Once more?' })
})
test('words back are drafted, and sent only when they were seen', async () => {
  const { user, asked } = page([reply('Kofi')])
  await user.click(await screen.findByRole('button', { name: 'Write to the home' }))
  expect(await screen.findByDisplayValue('Dobrze.')).toBeTruthy()
  expect(document.body.textContent).toContain('In English: Well counted.')
  expect(asked.some((a) => a.method === 'PUT')).toBe(false)
  await user.click(screen.getByRole('button', { name: 'Send to this home' }))
  expect(asked.find((a) => a.method === 'PUT')?.body).toEqual({ body: 'Dobrze.', send: true })
})
test('with nothing back it says whether anything was sent', async () => {
  page([])
  expect(await screen.findByText(/Nothing has been sent yet/)).toBeTruthy()
})
