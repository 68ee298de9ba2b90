// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { ProblemError } from '../api.ts'
import { type Answer, answering, type Asked } from '../testing/hooks.ts'
import { packWith } from '../testing/pack.ts'
import { english } from '../testing/words.ts'
import { keptMedia } from './drafts.ts'
import { replyOf } from './reply.ts'

/** Stands for the sending of files in pieces, which speaks to the server by itself. */
const media = vi.hoisted(() => ({ sent: [] as { id: string; kind: string }[], fail: null as Error | null }))
vi.mock('./send-media.ts', () => ({
  sendMedia: (_file: Blob, of: { id: string; kind: string }) => {
    if (media.fail) return Promise.reject(media.fail)
    media.sent.push(of)
    return Promise.resolve()
  },
}))
const pack = packWith([
  { id: 'n', prompt: 'How many?', kind: 'number' },
  { id: 'p', prompt: 'Show it', kind: 'photo' },
  { id: 't', prompt: 'Say it', kind: 'tell' },
])
const away = new ProblemError(0, 'No connection', '', {})
const received: Answer = { body: { receivedAt: '2026-11-26T18:42:00Z', again: false } }
let asked: Asked[]
let answer: (a: Asked) => Answer | Promise<Answer>
beforeEach(() => {
  localStorage.clear()
  media.sent = []
  media.fail = null
  answer = () => received
  const stand = answering((a) => answer(a))
  asked = stand.asked
  vi.stubGlobal('fetch', stand.fetch)
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})
const replying = () => replyOf({ token: 't', pack, childId: 'suri', words: english })
const sent = () => asked.filter((a) => a.method === 'PUT').map((a) => a.body as Record<string, unknown>)
const answers = () => sent().at(-1)!.answers as Record<string, unknown>[]
const file = (name: string) => new File(['x'], name)

describe('a reply', () => {
  test('is kept on the phone with every answer, and sent as one', async () => {
    const reply = replying()
    reply.edit({ answers: { n: { text: '5' } }, help: 'alone' })
    expect(replying().state().draft).toMatchObject({ answers: { n: { text: '5' } } })
    await reply.send()
    expect(sent()).toMatchObject([
      { childId: 'suri', help: 'alone', answers: [{ taskId: 'n', kind: 'number', text: '5' }] },
    ])
    expect(reply.state()).toMatchObject({ busy: false, problem: null, draft: { waiting: false } })
    expect(reply.state().draft.receivedAt).not.toBeNull()
  })
  test('with no connection waits, photo and all, and goes by itself when there is one', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    media.fail = away
    answer = () => 'away'
    const reply = replying()
    await reply.add('p', 'photo', file('frame.jpg'))
    const [photo] = reply.state().draft.answers.p!.media!
    expect(photo).toMatchObject({ kind: 'photo', here: false })
    expect(await keptMedia(photo!.id)).toBeTruthy()
    await reply.send()
    expect([reply.state().draft.waiting, sent().length]).toEqual([true, 0])
    media.fail = null
    answer = () => received
    window.dispatchEvent(new Event('online'))
    await vi.waitFor(() => expect(reply.state().draft.waiting).toBe(false))
    expect(answers()).toMatchObject([{ taskId: 'p', kind: 'photo', photoId: photo!.id }])
    expect(media.sent.map((m) => m.id)).toEqual([photo!.id])
    expect(await keptMedia(photo!.id)).toBeUndefined()
  })
  test('sent again sends no file twice', async () => {
    const reply = replying()
    await reply.add('p', 'photo', file('a.jpg'))
    await reply.send()
    reply.edit({ words: 'and more' })
    await reply.send()
    expect([media.sent.length, sent().length]).toEqual([1, 2])
    expect(sent()[0]!.key).toBe(sent()[1]!.key)
  })
  test('holds up to four photos, each with its words, and one voice', async () => {
    const reply = replying()
    for (const n of ['1', '2', '3']) await reply.add('p', 'photo', file(`${n}.jpg`))
    const [first, second] = reply.state().draft.answers.p!.media!
    reply.describe('p', first!.id, 'the first')
    reply.describe('p', second!.id, 'the second')
    await reply.add('t', 'sound', file('a.webm'))
    await reply.add('t', 'sound', file('b.webm'))
    await reply.send()
    expect(answers()[0]).toMatchObject({
      photoId: first!.id,
      text: 'the first',
      more: [{ photoId: second!.id, text: 'the second' }, { text: '' }],
    })
    expect(answers()[1]).toMatchObject({ recordingId: reply.state().draft.answers.t!.media!.at(-1)!.id })
    expect(reply.state().draft.answers.t!.media!.length).toBe(1)
  })
  test('without a photo the server would not have, and says so', async () => {
    media.fail = new ProblemError(415, 'Not a photo', 'No photo.', {})
    const reply = replying()
    await reply.add('p', 'photo', file('list.txt'))
    expect(reply.state().draft.answers.p!.media).toEqual([])
    expect(reply.state().problem).toMatch(/not a photo/)
  })
  test('changed while it is on its way is not called received', async () => {
    const reply = replying()
    reply.edit({ answers: { n: { text: '5' } } })
    answer = () => {
      reply.edit({ answers: { n: { text: '6' } } })
      return received
    }
    await reply.send()
    expect(reply.state().draft).toMatchObject({ answers: { n: { text: '6' } }, receivedAt: null })
  })
  test('that is refused says why and is tried no more', async () => {
    answer = () => ({
      status: 409,
      body: { title: 'Already looked at', detail: 'Your teacher has looked at this.' },
    })
    const reply = replying()
    await reply.send()
    expect(reply.state()).toMatchObject({ draft: { waiting: false } })
    expect(reply.state().problem).toMatch(/has looked at this/)
  })
  test('taken back is with the teacher no longer, and still on the phone', async () => {
    const reply = replying()
    reply.edit({ answers: { n: { text: '5' } } })
    await reply.send()
    const before = reply.state().draft.key
    await reply.takeBack()
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE' })
    expect(reply.state()).toMatchObject({
      taken: true,
      draft: { receivedAt: null, answers: { n: { text: '5' } } },
    })
    expect(reply.state().draft.key).not.toBe(before)
  })
  test('on a phone with no room left is held by the page, and says so', () => {
    const set = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    const reply = replying()
    reply.edit({ answers: { n: { text: '5' } } })
    set.mockRestore()
    expect(reply.state()).toMatchObject({ full: true, draft: { answers: { n: { text: '5' } } } })
  })
  test('in a preview keeps and sends nothing', async () => {
    const reply = replyOf({ token: '', pack, childId: 'suri', words: english, preview: true })
    reply.edit({ answers: { n: { text: '5' } } })
    await reply.send()
    expect([sent(), localStorage.length]).toEqual([[], 0])
  })
})
