// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { showing } from '../testing/parts.tsx'
import { HomePage } from './home-page.tsx'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { packWith } from '../testing/pack.ts'
import { messagesIn } from '../testing/words.ts'
import type { First } from './first.ts'

const pack = packWith([
  { id: 'n', prompt: 'How many parcels?', kind: 'number' },
  { id: 'c', prompt: 'Which is more?', kind: 'choice', choices: ['three', 'four'] },
])
const packs = [{ id: 'pack', title: 'Seven parcels', className: 'Wagtails', sentAt: pack.sentAt }]
const home = (first: Partial<First> = {}, language: HomeLanguage = 'en') =>
  showing(
    <HomePage
      first={{
        token: 't',
        packs,
        pack,
        problem: null,
        language,
        messages: messagesIn(language),
        lives: [],
        liveId: null,
        preview: false,
        ...first,
      }}
    />,
    {
      answer: ({ method, path }) =>
        method === 'PUT'
          ? { body: { receivedAt: '2026-11-26T18:42:00Z', again: false } }
          : path.endsWith('/packs/pack')
            ? { body: pack }
            : path.endsWith('/consents')
              ? {
                  body: {
                    children: [
                      {
                        id: 'suri',
                        name: 'Suri',
                        consents: ['photos', 'sound', 'showing', 'naming'].map((kind) => ({
                          kind,
                          given: null,
                          giver: null,
                          day: null,
                        })),
                      },
                    ],
                    kept: { photos: 180, sound: null, replies: 1 },
                  },
                }
              : { body: { packs, things: ['bottle tops', 'jar'], kit: null } },
    },
  )
beforeEach(() => localStorage.clear())
afterEach(cleanup)
const puts = (asked: { method: string; body?: unknown }[]) => asked.findLast((a) => a.method === 'PUT')?.body

describe('what a home sees', () => {
  test('is the lesson, its tasks and how to answer, with no word of a film where there is none', () => {
    home()
    expect(screen.getByRole('heading', { name: 'Seven parcels' })).toBeTruthy()
    expect(screen.getByText('How many parcels?')).toBeTruthy()
    expect(document.querySelector('video')).toBeNull()
    expect(document.body.textContent).not.toMatch(/film/i)
    expect(screen.queryByRole('region', { name: 'You need' })).toBeNull()
  })
  test('answers, help and sending: what is sent is what was answered, and when it arrived is said', async () => {
    const { user, asked } = home()
    await user.type(screen.getByRole('textbox', { name: /How many parcels/ }), '7')
    await user.click(screen.getByRole('radio', { name: 'four' }))
    await user.click(screen.getByRole('button', { name: 'With a nudge' }))
    await user.click(screen.getByRole('button', { name: /^Send/ }))
    expect(await screen.findByText(/Received/)).toBeTruthy()
    expect(puts(asked)).toMatchObject({
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
    expect(puts(asked)).toMatchObject({
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
  test('in another language says all of its own words in it, and leaves the teacher’s as they are', () => {
    home({}, 'pl')
    expect(screen.getByRole('button', { name: 'Wyślij' })).toBeTruthy()
    expect(screen.getByText('How many parcels?').getAttribute('lang')).toBe('en-GB')
    expect(document.body.textContent).not.toMatch(/Send|help|Mistakes/)
  })
  test('is asked what it has and what helps there, in words of its language', async () => {
    const { user, asked } = home({}, 'es')
    await user.click(screen.getByRole('button', { name: '¿Qué tenéis en casa?' }))
    await user.click(await screen.findByRole('checkbox', { name: 'tapones de botella' }))
    await user.click(screen.getByRole('checkbox', { name: 'sin cosas pequeñas' }))
    await user.click(screen.getByRole('button', { name: 'Decírselo a la maestra' }))
    expect(await screen.findByText(/^Gracias/)).toBeTruthy()
    expect(puts(asked)).toMatchObject({ has: ['bottle tops'], ways: ['small'] })
  })
  test('decides what is kept, each by itself, once it said who decides', async () => {
    const { user, asked } = home()
    await user.click(screen.getByRole('button', { name: /^What we keep/ }))
    const group = await screen.findByRole('group', { name: 'Keep recordings of Suri’s voice' })
    const yes = within(group).getByRole('button', { name: 'Yes' })
    expect(yes).toHaveProperty('disabled', true)
    await user.type(screen.getByLabelText(/Who says so/), 'grandad')
    await user.click(yes)
    expect(asked.findLast((a) => a.method === 'POST')?.body).toEqual({
      kind: 'sound',
      given: true,
      giver: 'grandad',
    })
    expect(document.body.textContent).toMatch(/Photos: 180 days.*Recordings: until you ask.*Answers: one day/)
  })
  test('with answers after trying: closed until they are asked for; none where the house gives none', () => {
    home()
    expect(screen.queryByText(/The answers/)).toBeNull()
    cleanup()
    const answered = { ...pack.pack, answers: [{ prompt: 'How many parcels?', answer: 'seven' }] }
    home({ pack: { ...pack, pack: answered } })
    const answers = screen.getByText(/The answers/).closest('details')!
    expect([answers.open, answers.textContent.includes('seven')]).toEqual([false, true])
  })
  test('a lesson that closed takes no answer, and says what was done still counts', () => {
    home({ pack: { ...pack, closed: true, due: '2026-11-20' } })
    expect(screen.queryByRole('button', { name: 'Send' })).toBeNull()
    expect(screen.getByText(/still counts at home/)).toBeTruthy()
  })
})

describe('three sets', () => {
  const sets = packWith([
    { id: 'all', prompt: 'For all', kind: 'number' },
    { id: 'g', prompt: 'The gentle one', kind: 'number', sets: ['gentle'] },
    { id: 's', prompt: 'The long one', kind: 'number', sets: ['stretch'] },
  ])
  const child = sets.children[0]!
  test('a child who chooses sees what is for all, and its set once it has chosen; the choice is sent', async () => {
    const { user, asked } = home({ pack: sets })
    expect([screen.queryByText('The gentle one'), screen.queryByText('The long one')]).toEqual([null, null])
    await user.click(screen.getByRole('radio', { name: 'A longer reach' }))
    expect(screen.getByText('The long one')).toBeTruthy()
    expect(screen.queryByText('The gentle one')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Send' }))
    await screen.findByText(/Received/)
    expect(puts(asked)).toMatchObject({ chose: 'stretch' })
  })
  test('a child who was given one has it at once; taking another is told apart from what was given', async () => {
    const { user, asked } = home({ pack: { ...sets, children: [{ ...child, level: 'gentle' }] } })
    expect(screen.getByText('The gentle one')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Send' }))
    await screen.findByText(/Received/)
    expect(puts(asked)).toMatchObject({ chose: null })
    await user.click(screen.getByRole('button', { name: 'Try another' }))
    await user.click(screen.getByRole('radio', { name: 'A longer reach' }))
    await user.click(screen.getByRole('button', { name: 'Send' }))
    await screen.findByText(/Received/)
    expect(puts(asked)).toMatchObject({ chose: 'stretch' })
  })
})

describe('the film', () => {
  const film = {
    seconds: 300,
    bytes: 9_400_000,
    versions: [{ kind: 'small' as const, bytes: 2_000_000 }],
    replaced: null,
    chapters: [
      { start: 0, end: 100, title: 'Hello', stop: false },
      { start: 100, end: 110, title: 'Stop here and have a go: Two shelves', stop: true },
      { start: 110, end: 300, title: 'Go on: Two shelves', stop: false },
    ],
  }
  /** Once the page stands: it brings a browser of its own along. */
  const watched = () => vi.spyOn(window.HTMLMediaElement.prototype, 'pause')
  let at = 0
  beforeEach(() => {
    at = 0
    const p = window.HTMLMediaElement.prototype
    Object.defineProperty(p, 'paused', { configurable: true, get: () => false })
    Object.defineProperty(p, 'currentTime', {
      configurable: true,
      get: () => at,
      set: (t: number) => void (at = t),
    })
  })
  const runTo = (to: number) => {
    const video = document.querySelector('video')!
    for (; at < to; at += 0.25) fireEvent.timeUpdate(video)
  }
  test('is loaded only when it is asked for, with its size said', async () => {
    const { user } = home({ pack: { ...pack, film } })
    expect(document.querySelector('video')).toBeNull()
    await user.click(screen.getByRole('button', { name: /Show the film · 9.4 MB/ }))
    await waitFor(() => expect(document.querySelector('video')?.getAttribute('src')).toContain('/film'))
  })
  test('stops where there is something to do, and goes on behind the stop when they are ready', async () => {
    const { user } = home({ pack: { ...pack, film } })
    const pause = watched()
    await user.click(screen.getByRole('button', { name: /Show the film/ }))
    await waitFor(() => expect(document.querySelector('video')).toBeTruthy())
    runTo(99)
    expect(screen.queryByRole('dialog')).toBeNull()
    runTo(101)
    expect(pause).toHaveBeenCalledTimes(1)
    expect(screen.getByRole('dialog').textContent).toContain('Two shelves')
    await user.click(screen.getByRole('button', { name: 'We’re ready' }))
    expect([at, screen.queryByRole('dialog')]).toEqual([110, null])
    runTo(150)
    expect(pause).toHaveBeenCalledTimes(1)
  })
  test('a jump over a stop is somebody’s own will', async () => {
    const { user } = home({ pack: { ...pack, film } })
    const pause = watched()
    await user.click(screen.getByRole('button', { name: /Show the film/ }))
    await waitFor(() => expect(document.querySelector('video')).toBeTruthy())
    runTo(20)
    at = 200
    fireEvent.seeked(document.querySelector('video')!)
    runTo(210)
    expect(pause).not.toHaveBeenCalled()
  })
  test('goes on where it was left', async () => {
    const first = home({ pack: { ...pack, film } })
    await first.user.click(screen.getByRole('button', { name: /Show the film/ }))
    await waitFor(() => expect(document.querySelector('video')).toBeTruthy())
    runTo(61)
    cleanup()
    const again = home({ pack: { ...pack, film } })
    await again.user.click(screen.getByRole('button', { name: /Show the film/ }))
    await again.user.click(await screen.findByRole('button', { name: 'Go on at 1:00' }))
    expect(at).toBeGreaterThan(50)
    expect(at).toBeLessThan(61)
  })
})
