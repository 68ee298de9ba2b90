// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { showing } from '../testing/parts.tsx'
import { HomePage } from './home-page.tsx'
import { packWith } from '../testing/pack.ts'

const pack = packWith([
  { id: 'n', prompt: 'How many parcels?', kind: 'number', choices: [], slots: [], numbers: [] },
  { id: 'c', prompt: 'Which is more?', kind: 'choice', choices: ['three', 'four'], slots: [], numbers: [] },
])
const packs = [{ id: 'pack', title: 'Seven parcels', sentAt: pack.sentAt }]
const home = (first: Partial<Parameters<typeof HomePage>[0]['first']> = {}) =>
  showing(
    <HomePage
      first={{ token: 't', packs, pack, problem: null, ...first } as Parameters<typeof HomePage>[0]['first']}
    />,
    {
      answer: ({ method }) =>
        method === 'PUT'
          ? { body: { receivedAt: '2026-11-26T18:42:00Z', again: false } }
          : { body: { packs, things: [], can: {}, words: {} } },
    },
  )
beforeEach(() => localStorage.clear())
afterEach(cleanup)

describe('what a home sees', () => {
  test('is the lesson, its tasks and how to answer, with no word of a film where there is none', () => {
    home()
    expect(screen.getByRole('heading', { name: 'Seven parcels' })).toBeTruthy()
    expect(screen.getByText('How many parcels?')).toBeTruthy()
    expect(document.querySelector('video')).toBeNull()
    expect(screen.queryByRole('region', { name: 'You need' })).toBeNull()
  })
  test('answers, help and sending: what is sent is what was answered, and when it arrived is said', async () => {
    const { user, asked } = home()
    await user.type(screen.getByRole('textbox', { name: /How many parcels/ }), '7')
    await user.click(screen.getByRole('radio', { name: 'four' }))
    await user.click(screen.getByRole('button', { name: 'With a nudge' }))
    await user.click(screen.getByRole('button', { name: /^Send/ }))
    expect(await screen.findByText(/Received/)).toBeTruthy()
    expect(asked.findLast((a) => a.method === 'PUT')?.body).toMatchObject({
      help: 'nudged',
      answers: [
        { taskId: 'n', text: '7' },
        { taskId: 'c', choice: 1 },
      ],
    })
  })
  test('which way, how it felt, and that it could not be done: one tap each, sent as they are', async () => {
    const { user, asked } = home()
    const tap = (name: string) => user.click(screen.getByRole('button', { name, hidden: true }))
    await tap('With a drawing')
    await tap('hard')
    await tap('hard')
    await tap('just right')
    await tap('We couldn’t do it today')
    await tap('Send')
    expect(await screen.findByText(/Received/)).toBeTruthy()
    expect(asked.findLast((a) => a.method === 'PUT')?.body).toMatchObject({
      way: 'picture',
      feeling: 'just right',
      couldNot: true,
      answers: [],
    })
  })
  test('nothing sent yet: the link is worth keeping', () => {
    home({ packs: [], pack: null })
    expect(screen.getByText(/Keep this link/)).toBeTruthy()
  })
  test('a link that is closed says what to do, and shows no lesson', () => {
    home({
      packs: null,
      pack: null,
      problem: 'This link is no longer in use. Ask the setting for a new one.',
    })
    expect(screen.getByRole('alert').textContent).toMatch(/Ask the setting/)
    expect(screen.queryByRole('heading', { name: 'Seven parcels' })).toBeNull()
  })
})
