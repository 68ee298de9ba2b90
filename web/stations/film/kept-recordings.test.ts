// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import * as real from 'node:buffer'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import {
  forget,
  keepChunk,
  keepRecording,
  keptFile,
  type KeptRecording,
  keptRecordings,
} from './keep-recording.ts'
import { type LiveUpload, Refused } from './live-upload.ts'
import { useKeptRecordings } from './use-kept-recordings.ts'

const recording = (id: string, more: Partial<KeptRecording> = {}): KeptRecording => ({
  id,
  lessonId: 'l',
  segmentId: 's',
  title: 'Show',
  mime: 'video/webm',
  startedAt: 0,
  ...more,
})
const keep = async (r: KeptRecording, ...parts: string[]): Promise<void> => {
  await keepRecording(r)
  // As they may be written: the order they are asked for in does not matter.
  for (const [n, part] of [...parts.entries()].reverse()) await keepChunk(r.id, n, new Blob([part]))
}
const upload = (finish: () => Promise<{ takeId: string }>): LiveUpload => ({
  add: () => undefined,
  sent: () => 0,
  finish,
})
/** What was sent beside recordings, and how it is answered. */
let sent: string[]
let status: number
beforeEach(() => {
  // Those of this environment cannot be stored.
  vi.stubGlobal('Blob', real.Blob)
  vi.stubGlobal('File', real.File)
  sent = []
  status = 204
  vi.stubGlobal('fetch', async (path: string, init: { method: string; body?: Blob | string }) => {
    sent.push(`${init.method} ${path}`)
    if (init.method === 'POST')
      return new Response(null, { status: 201, headers: { Location: '/api/uploads/one' } })
    return new Response(null, { status, headers: { 'Awlbox-Take': 'take-1' } })
  })
})
afterEach(async () => {
  cleanup()
  for (const r of await keptRecordings('l')) await forget(r.id)
  vi.unstubAllGlobals()
})

describe('what this device keeps of a recording', () => {
  test('is put together in the order it was filmed', async () => {
    await keep(recording('r'), 'one ', 'two ', 'three')
    expect((await keptFile(recording('r')))!.size).toBe('one two three'.length)
    expect((await keptFile(recording('r')))!.type).toBe('video/webm')
  })
  test('is nothing where no second was kept', async () =>
    expect(await keptFile(recording('none'))).toBeNull())
  test('is of one recording only, and of one lesson', async () => {
    await keep(recording('r'), 'abc')
    await keep(recording('r2', { lessonId: 'other' }), 'defgh')
    expect((await keptFile(recording('r')))!.size).toBe(3)
    expect((await keptRecordings('l')).map((r) => r.id)).toEqual(['r'])
    expect((await keptRecordings('other')).map((r) => r.id)).toEqual(['r2'])
    await forget('r2')
  })
  test('is gone once it is forgotten, and leaves others alone', async () => {
    await keep(recording('r'), 'abc')
    await keep(recording('s'), 'defg')
    await forget('r')
    expect([await keptFile(recording('r')), (await keptFile(recording('s')))!.size]).toEqual([null, 4])
    expect((await keptRecordings('l')).map((r) => r.id)).toEqual(['s'])
  })
})

describe('recordings that are not wholly sent', () => {
  const page = (arrived: () => void = () => undefined) =>
    renderHook(() => useKeptRecordings('l', arrived)).result
  test('are listed when the page is opened', async () => {
    await keep(recording('r'), 'abc')
    const at = page()
    await waitFor(() => expect(at.current.kept.map((k) => k.id)).toEqual(['r']))
  })
  test('one that arrives is forgotten, and the page is told', async () => {
    await keep(recording('r'), 'abc')
    let told = 0
    const at = page(() => told++)
    await act(() =>
      at.current.deliver(
        recording('r'),
        upload(() => Promise.resolve({ takeId: 't' })),
      ),
    )
    expect([await keptRecordings('l'), at.current.kept, at.current.problem, told]).toEqual([[], [], null, 1])
  })
  test('while it is on its way it is not offered again', async () => {
    await keep(recording('r'), 'abc')
    const at = page()
    await waitFor(() => expect(at.current.kept).toHaveLength(1))
    let arrive = (_: { takeId: string }): void => undefined
    const going = upload(() => new Promise((resolve) => (arrive = resolve)))
    let done: Promise<void> = Promise.resolve()
    act(() => {
      done = at.current.deliver(recording('r'), going)
    })
    expect([at.current.sending, at.current.kept]).toEqual([true, []])
    await act(async () => {
      arrive({ takeId: 't' })
      await done
    })
    expect(at.current.sending).toBe(false)
  })
  test.each([
    [
      'a connection that is lost',
      new TypeError('no connection'),
      /does not answer\. It is kept on this device/,
    ],
    ['a server that refuses', new Refused('The disk is full.'), /^The disk is full\.$/],
  ])('with %s it is kept, and the words say so', async (_, error, words) => {
    await keep(recording('r'), 'abc')
    let told = 0
    const at = page(() => told++)
    await act(() =>
      at.current.deliver(
        recording('r'),
        upload(() => Promise.reject(error)),
      ),
    )
    expect(at.current.problem).toMatch(words)
    expect([at.current.kept.map((k) => k.id), (await keptFile(recording('r')))!.size, told]).toEqual([
      ['r'],
      3,
      0,
    ])
  })
  test('what was marked while filming follows the take', async () => {
    await keep(recording('r'), 'abc')
    const at = page()
    await act(() =>
      at.current.deliver(
        recording('r', { marks: [{ kind: 'slip', at: 2, by: 'key' } as never] }),
        upload(() => Promise.resolve({ takeId: 't9' })),
      ),
    )
    expect(sent).toEqual(['PUT /api/takes/t9/marks'])
  })
  test('sent again it goes from this device, and is forgotten once it is there', async () => {
    await keep(recording('r'), 'abc', 'def')
    const at = page()
    await waitFor(() => expect(at.current.kept).toHaveLength(1))
    await act(() => at.current.sendAgain(at.current.kept[0]!))
    expect(sent).toEqual(['POST /api/uploads', 'PATCH /api/uploads/one'])
    expect([await keptRecordings('l'), at.current.kept]).toEqual([[], []])
  })
  test('one of which nothing was kept is no longer offered', async () => {
    await keepRecording(recording('empty'))
    const at = page()
    await waitFor(() => expect(at.current.kept).toHaveLength(1))
    await act(() => at.current.sendAgain(at.current.kept[0]!))
    expect([at.current.kept, sent]).toEqual([[], []])
  })
  test('thrown away it is gone from this device', async () => {
    await keep(recording('r'), 'abc')
    const at = page()
    await waitFor(() => expect(at.current.kept).toHaveLength(1))
    act(() => at.current.drop(at.current.kept[0]!))
    await waitFor(() => expect(at.current.kept).toEqual([]))
    expect(await keptFile(recording('r'))).toBeNull()
  })
})
