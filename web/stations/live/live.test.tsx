// @vitest-environment jsdom
import { act, cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { LiveChild, LiveDesk, LiveRecord, LiveTally } from '@awlbox/core/contracts/api/live'
import type { LiveRound, LiveState } from '@awlbox/core/contracts/live'
import { startState } from '@awlbox/core/live/state'
import { lessonOf, stepsOf } from '@awlbox/core/live/testing'
import DeskPage from './desk-page.tsx'
import WindowPage from './window-page.tsx'

const doc = lessonOf([
  { id: 'a', title: 'Hello', steps: stepsOf('a', ['say: Hello from Bobbin.']) },
  {
    id: 'b',
    title: 'Parcels',
    kind: 'together',
    steps: stepsOf('b', ['do: Put 7 on the frame', 'ask: How many?']),
  },
])
const id = (n: number): string => `00000000-0000-4000-8000-00000000000${n}`
const kid = (n: number, name: string, more: Partial<LiveChild> = {}): LiveChild => ({
  id: id(n),
  name,
  home: 'Mill Row',
  householdId: id(n + 4),
  here: true,
  came: true,
  photos: true,
  named: false,
  ...more,
})
const kids = [kid(1, 'Anouk', { named: true }), kid(2, 'Bram'), kid(3, 'Fenn', { here: false })]
const round: LiveRound = {
  id: 'r1',
  stepId: 'b-2',
  segmentId: 'b',
  prompt: 'How many?',
  spec: { kind: 'number', answer: 7 },
  show: 'card',
  parts: [],
  game: false,
  began: 1000,
  opens: 2000,
  shows: null,
  closed: null,
  undone: false,
}
const tally = (more: Partial<LiveTally> = {}): LiveTally => ({
  roundId: 'r1',
  shown: false,
  sent: [id(1), id(2)],
  late: [],
  silent: [id(3)],
  rows: [],
  right: 0,
  wrong: 0,
  photos: [],
  took: [],
  before: null,
  ...more,
})
let record: LiveRecord
let asked: { method: string; url: string; body: unknown }[]
/** How the lesson stands when the page asks. */
function standing(
  state: Partial<LiveState>,
  news: Partial<LiveDesk> = {},
  more: Partial<LiveRecord> = {},
): void {
  record = {
    id: id(9),
    lessonId: id(8),
    className: 'Wagtails',
    title: 'Seven parcels',
    startsAt: new Date(0).toISOString(),
    minutes: 20,
    rehearsal: false,
    calledOff: false,
    doc,
    style: defaultHouseStyle,
    pace: null,
    revision: 1,
    newest: 1,
    publicationId: null,
    mayLead: true,
    standIns: false,
    now: 10_000,
    state: { ...startState(doc), phase: 'on', startedAt: 0, line: 2, ...state },
    children: kids,
    tally: null,
    last: null,
    ...news,
    ...more,
  }
}
class Line extends EventTarget {
  onmessage = null
  onerror = null
  onopen = null
  close(): void {
    // Nothing was opened.
  }
}
beforeEach(() => {
  asked = []
  vi.stubGlobal('EventSource', Line)
  Object.assign(document, { fonts: { load: () => Promise.resolve([]) } })
  vi.stubGlobal('fetch', (url: string, init: { method: string; body?: string }) => {
    asked.push({ method: init.method, url, body: init.body ? (JSON.parse(init.body) as unknown) : null })
    return Promise.resolve(new Response(JSON.stringify(init.method === 'GET' ? record : { seq: 1 })))
  })
  Element.prototype.scrollIntoView = () => undefined
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
  sessionStorage.clear()
})
async function open(page: 'desk' | 'window'): Promise<void> {
  const router = createMemoryRouter(
    [{ path: '/live/:liveId', element: page === 'desk' ? <DeskPage /> : <WindowPage /> }],
    { initialEntries: [`/live/${id(9)}`] },
  )
  await act(async () => {
    render(<RouterProvider router={router} />)
    await Promise.resolve()
  })
  await screen.findByRole('main', { name: page === 'window' ? 'What homes see' : undefined! })
}
const acts = (): unknown[] =>
  asked.filter((a) => a.method === 'POST').map((a) => (a.body as { act: unknown }).act)

test('the shared window names nobody unless it is switched on, and then only whose home agreed', async () => {
  standing({ rounds: [round] }, { tally: tally() })
  await open('window')
  expect(screen.getByText('How many?')).toBeTruthy()
  expect(screen.getByText('2 of 2 ready')).toBeTruthy()
  expect(screen.queryByText(/Anouk|Bram|Fenn/)).toBeNull()
  cleanup()
  standing({ rounds: [round], window: { names: true, words: false, tally: false } }, { tally: tally() })
  await open('window')
  expect(screen.getByText('Ready: Anouk')).toBeTruthy()
})
test('what was given is in the shared window only once all have shown, and only where that is wanted', async () => {
  const rows = [{ shown: '7', verdict: 'right' as const, children: [id(1)], perhaps: null }]
  const shownRound = { ...round, shows: 5000 }
  standing({ rounds: [shownRound] }, { tally: tally({ shown: true, rows }) })
  await open('window')
  expect(screen.queryByText('7')).toBeNull()
  cleanup()
  standing(
    { rounds: [shownRound], window: { names: false, words: false, tally: true } },
    { tally: tally({ shown: true, rows }) },
  )
  await open('window')
  expect(screen.getByText('7')).toBeTruthy()
})
test('the desk tells who is ready, who is away and what came, with why it may be wrong; silence of who is away is none', async () => {
  const rows = [
    { shown: '7', verdict: 'right' as const, children: [id(1)], perhaps: null },
    { shown: '6', verdict: 'wrong' as const, children: [id(2)], perhaps: 'one thing left out in counting' },
  ]
  standing({ rounds: [{ ...round, shows: 5000 }] }, { tally: tally({ shown: true, rows }) })
  await open('desk')
  const side = screen.getByRole('region', { name: 'The round' })
  expect(within(side).getByText('ready 2 · away 1')).toBeTruthy()
  expect(within(side).getByText('perhaps one thing left out in counting')).toBeTruthy()
  expect(within(side).queryByText(/Nothing yet from/)).toBeNull()
  await userEvent.click(within(side).getByRole('button', { name: /^6/ }))
  expect(within(side).getAllByText('Bram').length).toBeGreaterThan(1)
})
test('Space goes on, and a lesson is not ended by one press', async () => {
  standing({ line: 0 })
  await open('desk')
  await userEvent.keyboard(' ')
  expect(acts()).toEqual([{ do: 'go', line: 1 }])
  await userEvent.click(screen.getByRole('button', { name: 'End' }))
  expect(acts()).toHaveLength(1)
  await userEvent.click(screen.getByRole('button', { name: 'End it' }))
  expect(acts().at(-1)).toEqual({ do: 'end' })
})
test('a box that was clicked and a list that was closed leave the keyboard to the desk, so that Space goes on', async () => {
  standing({ line: 0 })
  await open('desk')
  await userEvent.click(screen.getByLabelText('the words being said'))
  await waitFor(() => expect(document.activeElement).toBe(document.body))
  cleanup()
  standing({ line: 2 })
  await open('desk')
  screen.getByRole('combobox', { name: /They show it with/ }).focus()
  await userEvent.keyboard('{Enter}')
  await userEvent.keyboard('{ArrowDown}{Enter}')
  await waitFor(() => expect(document.activeElement).toBe(document.body))
  await userEvent.keyboard(' ')
  expect(acts().at(-1)).toMatchObject({ do: 'round', show: 'fingers' })
})
test('who only watches changes nothing, and sees who leads', async () => {
  standing({ lead: { id: id(7), name: 'Desh', desk: 'elsewhere' } })
  await open('desk')
  expect(screen.getByText(/Desh leads from another desk/)).toBeTruthy()
  await userEvent.keyboard(' ')
  expect(acts()).toEqual([])
  await userEvent.click(screen.getByRole('button', { name: 'Take over' }))
  expect(acts()).toEqual([{ do: 'lead' }])
})
