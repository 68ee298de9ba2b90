// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { type Answer, answering, type Asked } from '../testing/hooks.ts'
import { replyOf } from './reply.ts'
import { packWith } from '../testing/pack.ts'

const pack = packWith([
  { id: 'n', prompt: 'How many?', kind: 'number', choices: [], slots: [], numbers: [] },
  { id: 'p', prompt: 'Show it', kind: 'photo', choices: [], slots: [], numbers: [] },
])
let asked: Asked[]
let answer: (a: Asked) => Answer | Promise<Answer>
const received: Answer = { body: { receivedAt: '2026-11-26T18:42:00Z', again: false } }
beforeEach(() => {
  localStorage.clear()
  answer = ({ method }) => (method === 'POST' ? { body: { id: 'photo' } } : received)
  const stand = answering((a) => answer(a))
  asked = stand.asked
  vi.stubGlobal('fetch', stand.fetch)
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})
const sent = () => asked.filter((a) => a.method === 'PUT').map((a) => a.body)

describe('a reply', () => {
  test('is kept on the phone with every answer, and sent as one', async () => {
    const reply = replyOf({ token: 't', pack, childId: 'suri' })
    reply.edit({ answers: { n: { text: '5' } }, help: 'alone' })
    expect(replyOf({ token: 't', pack, childId: 'suri' }).state().draft).toMatchObject({
      answers: { n: { text: '5' } },
    })
    await reply.send()
    expect(sent()).toMatchObject([
      { childId: 'suri', help: 'alone', answers: [{ taskId: 'n', kind: 'number', text: '5' }] },
    ])
    expect(reply.state()).toMatchObject({ busy: false, problem: null, draft: { waiting: false } })
    expect(reply.state().draft.receivedAt).not.toBeNull()
  })
  test('with no connection waits, photo and all, and goes by itself when there is one', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    answer = () => 'away'
    const reply = replyOf({ token: 't', pack, childId: 'suri' })
    const photo = await reply.photo('p', new File(['x'], 'frame.jpg'))
    expect(photo).toEqual({ photoName: 'frame.jpg' })
    reply.edit({ answers: { p: photo } })
    await reply.send()
    expect(reply.state().draft.waiting).toBe(true)
    answer = ({ method }) => (method === 'POST' ? { body: { id: 'photo' } } : received)
    window.dispatchEvent(new Event('online'))
    await vi.waitFor(() => expect(reply.state().draft.waiting).toBe(false))
    expect(sent().at(-1)).toMatchObject({ answers: [{ taskId: 'p', kind: 'photo', photoId: 'photo' }] })
  })
  test('changed while it is on its way is not called received', async () => {
    const reply = replyOf({ token: 't', pack, childId: 'suri' })
    reply.edit({ answers: { n: { text: '5' } } })
    answer = () => {
      reply.edit({ answers: { n: { text: '6' } } })
      return received
    }
    await reply.send()
    expect(reply.state().draft).toMatchObject({ answers: { n: { text: '6' } }, receivedAt: null })
  })
  test('that is refused says why and is tried no more', async () => {
    answer = () => ({ status: 409, body: { title: 'Looked at', detail: 'Your teacher has looked at this.' } })
    const reply = replyOf({ token: 't', pack, childId: 'suri' })
    await reply.send()
    expect(reply.state()).toMatchObject({
      problem: 'Your teacher has looked at this.',
      draft: { waiting: false },
    })
  })
})
