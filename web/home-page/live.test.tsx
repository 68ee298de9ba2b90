// @vitest-environment jsdom
import { act, cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { LiveRoundSeen } from '@awlbox/core/contracts/api/live'
import type { DraftAnswer } from './drafts.ts'
import { liveAnswers } from './live-answers.ts'
import { ShowNumber } from './show-number.tsx'
import { spokenFrom, Words } from './words.ts'
import { en } from '@awlbox/core/send/words/en'

const round: LiveRoundSeen = {
  id: 'r1',
  prompt: 'How many?',
  task: {
    id: 'r1',
    prompt: 'How many?',
    kind: 'number',
    choices: [],
    slots: [],
    numbers: [],
    look: null,
    sets: [],
  },
  show: 'card',
  opens: 1000,
  shows: null,
}
const answered = { late: false, kept: 'this' }
let sent: { url: string; body: { key: string; answer: { text?: string } } }[]
let reply: () => Promise<Response>
beforeEach(() => {
  localStorage.clear()
  sent = []
  reply = () => Promise.resolve(new Response(JSON.stringify(answered)))
  vi.useFakeTimers({ shouldAdvanceTime: true })
  vi.stubGlobal('fetch', (url: string, init: { body: string }) => {
    sent.push({ url, body: JSON.parse(init.body) as (typeof sent)[number]['body'] })
    return reply()
  })
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = () => vi.advanceTimersByTimeAsync(10)

test('what is composed goes when it is given, and not before it may', async () => {
  let now = 0
  const a = liveAnswers('tok', 'live', () => now)
  const stop = a.subscribe(() => undefined)
  a.compose(round, 'c', { text: '7' })
  await settle()
  expect(sent).toEqual([])
  a.give(round, 'c')
  expect(a.of('r1', 'c')?.state).toBe('kept')
  await settle()
  expect(sent).toEqual([])
  now = 1000
  await vi.advanceTimersByTimeAsync(1000)
  expect(sent.map((s) => [s.url, s.body.answer.text])).toEqual([['/api/home/tok/live/live/rounds/r1', '7']])
  expect(a.of('r1', 'c')?.state).toBe('sent')
  stop()
})
test('with no connection it is kept, also by a page that is opened again, and goes once by the same name', async () => {
  reply = () => Promise.reject(new TypeError('no network'))
  const a = liveAnswers('tok', 'live', () => 2000)
  const stop = a.subscribe(() => undefined)
  a.compose(round, 'c', { text: '5' })
  a.give(round, 'c')
  await settle()
  expect([a.waiting(), sent.length]).toEqual([true, 1])
  stop()
  reply = () => Promise.resolve(new Response(JSON.stringify({ late: true, kept: 'this' })))
  const again = liveAnswers('tok', 'live', () => 9000)
  const end = again.subscribe(() => undefined)
  await settle()
  expect(again.of('r1', 'c')).toMatchObject({ state: 'sent', late: true })
  expect(new Set(sent.map((s) => s.body.key)).size).toBe(1)
  end()
})
test.each([
  [409, 'refused', 'undone'],
  [404, 'refused', null],
  [425, 'kept', null],
  [503, 'kept', null],
])('a %i leaves it %s', async (status, state, words) => {
  reply = () => Promise.resolve(new Response('{"detail":"x"}', { status }))
  const a = liveAnswers('tok', 'live', () => 2000)
  const stop = a.subscribe(() => undefined)
  a.compose(round, 'c', { text: '5' })
  a.give(round, 'c')
  await settle()
  expect(a.of('r1', 'c')).toMatchObject({ state, words })
  stop()
})
test('what was changed while the old one was on its way is still to be sent', async () => {
  let done: (r: Response) => void = () => undefined
  reply = () => new Promise((resolve) => (done = resolve))
  const a = liveAnswers('tok', 'live', () => 2000)
  const stop = a.subscribe(() => undefined)
  a.compose(round, 'c', { text: '5' })
  a.give(round, 'c')
  await settle()
  a.compose(round, 'c', { text: '6' })
  done(new Response(JSON.stringify(answered)))
  await settle()
  expect(a.of('r1', 'c')).toMatchObject({ state: 'open', answer: { text: '6' } })
  stop()
})

function Shown({
  way,
  onValue,
}: {
  way: 'card' | 'fingers' | 'dots' | 'frame'
  onValue: (v: DraftAnswer) => void
}) {
  const [value, setValue] = useState<DraftAnswer>({})
  return (
    <Words value={spokenFrom('en', Object.fromEntries(Object.entries(en).map(([k, v]) => [k, [v]])))}>
      <ShowNumber
        way={way}
        value={value}
        locked={false}
        onChange={(v) => {
          setValue(v)
          onValue(v)
        }}
      />
    </Words>
  )
}
async function shown(
  way: 'card' | 'fingers' | 'dots' | 'frame',
  taps: (number | RegExp | string)[],
): Promise<DraftAnswer> {
  vi.useRealTimers()
  let value: DraftAnswer = {}
  render(<Shown way={way} onValue={(v) => (value = v)} />)
  const user = userEvent.setup()
  for (const t of taps) {
    const all = screen.getAllByRole('button')
    await act(() =>
      user.click(typeof t === 'number' ? all[t]! : screen.getAllByRole('button', { name: t })[0]!),
    )
  }
  return value
}
test('a number card is typed digit by digit', async () => {
  expect((await shown('card', ['1', '4'])).text).toBe('14')
})
test('fingers up are counted over both hands, and which ones are kept', async () => {
  // Thumb of one hand, all but the thumb of the other; one put down again.
  expect(await shown('fingers', [0, 6, 7, 8, 9, 9])).toEqual({ text: '4', given: ['10000', '01110'] })
})
test('dots are one more and one fewer, never below none', async () => {
  expect((await shown('dots', [1, 1, 1, 0])).text).toBe('2')
})
test('counters in a frame are those put there; a second frame comes when the first is full', async () => {
  const value = await shown('frame', [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 0])
  expect(value.text).toBe('10')
  expect(value.given![0]!.slice(0, 11)).toBe('01111111111')
})
