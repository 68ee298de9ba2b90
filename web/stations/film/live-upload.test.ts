import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { KeptRecording } from './keep-recording.ts'
import { liveUpload, Refused } from './live-upload.ts'

/** A server that takes uploads, loses connections and answers as told. */
class Server {
  data = ''
  length: number | null = null
  open = false
  /** How many of the next pieces are lost: before they arrive, or after. */
  lost: ('before' | 'after')[] = []
  refuse: { status: number; detail: string } | null = null
  /** How many of the next pieces it is too busy for. */
  busy = 0
  /** Whether it takes away a place once all has arrived there. */
  sweeps = false
  /** What has arrived whole. */
  whole: string[] = []
  metadata = ''
  asked: string[] = []
  /** How often it will answer that all is there without its being a take yet. */
  takeless = 0
  isTake(): boolean {
    return this.length === this.data.length && this.takeless === 0
  }
  readonly fetch = async (
    _url: string,
    init: { method: string; headers: Record<string, string>; body?: Blob },
  ): Promise<Response> => {
    this.asked.push(init.method)
    if (init.method === 'POST') {
      if (this.sweeps) Object.assign(this, { data: '', length: null })
      this.open = true
      this.metadata = init.headers['Upload-Metadata']!
      return new Response(null, { status: 201, headers: { Location: '/api/uploads/one' } })
    }
    if (init.method === 'HEAD')
      return new Response(
        null,
        this.open
          ? {
              status: 200,
              headers: {
                'Upload-Offset': String(this.data.length),
                ...(this.isTake() ? { 'Awlbox-Take': 'take-1' } : {}),
              },
            }
          : { status: 404 },
      )
    if (!this.open) return new Response(null, { status: 404 })
    if (this.refuse) return Response.json({ detail: this.refuse.detail }, { status: this.refuse.status })
    if (this.busy > 0) return new Response(null, { status: [503, 423, 429][--this.busy % 3]! })
    const lost = this.lost.shift()
    if (lost === 'before') throw new TypeError('no connection')
    if (Number(init.headers['Upload-Offset']) !== this.data.length) return new Response(null, { status: 409 })
    this.data += await init.body!.text()
    if (init.headers['Upload-Length']) this.length = Number(init.headers['Upload-Length'])
    if (this.sweeps && this.length === this.data.length) {
      this.whole.push(this.data)
      this.open = false
    }
    if (lost === 'after') throw new TypeError('no connection')
    const headers: Record<string, string> = this.isTake() ? { 'Awlbox-Take': 'take-1' } : {}
    if (this.length === this.data.length) this.takeless = Math.max(0, this.takeless - 1)
    return new Response(null, { status: 204, headers })
  }
}
let server: Server
let remembered: string[]
const recording = (more: Partial<KeptRecording> = {}): KeptRecording => ({
  id: 'r',
  lessonId: 'l',
  segmentId: 's',
  title: 'Show',
  mime: 'video/webm',
  startedAt: 0,
  ...more,
})
const sending = (more: Partial<KeptRecording> = {}, rest: string | null = null, patience = 3) =>
  liveUpload(recording(more), {
    rest: rest === null ? null : new Blob([rest]),
    patience,
    pause: () => Promise.resolve(),
    opened: (url) => Promise.resolve(void remembered.push(url)),
  })

beforeEach(() => {
  server = new Server()
  remembered = []
  vi.stubGlobal('fetch', server.fetch)
})
afterEach(() => vi.unstubAllGlobals())

describe('a recording sent while it is made', () => {
  test('arrives whole and in order, tells its length last, and its place is remembered first', async () => {
    const up = sending()
    for (const part of ['one ', 'two ', 'three']) up.add(new Blob([part]))
    expect(await up.finish()).toEqual({ takeId: 'take-1' })
    expect([server.data, server.length, up.sent()]).toEqual(['one two three', 13, 13])
    expect(remembered).toEqual(['/api/uploads/one'])
    expect(server.asked.filter((m) => m === 'POST')).toHaveLength(1)
  })
  test('says what it is; a recording straight through names no segment', async () => {
    const up = sending({ segmentId: '' })
    up.add(new Blob(['x']))
    await up.finish()
    expect(server.metadata.split(',')).toContain('segmentId')
    expect(
      atob(
        server.metadata
          .split(',')
          .find((m) => m.startsWith('lessonId '))!
          .slice(9),
      ),
    ).toBe('l')
  })
  test.each([[['before']], [['after']], [['before', 'after', 'before']]] as const)(
    'connections lost %s: nothing missing, nothing twice',
    async (lost) => {
      server.lost = [...lost]
      const up = sending()
      up.add(new Blob(['abc']))
      up.add(new Blob(['def']))
      expect(await up.finish()).toEqual({ takeId: 'take-1' })
      expect(server.data).toBe('abcdef')
      expect(server.asked).toContain('HEAD')
    },
  )
  test('a last answer that is lost after all has arrived: the whole of it is sent again, as the same recording', async () => {
    const up = sending()
    up.add(new Blob(['abc']))
    await vi.waitUntil(() => up.sent() === 3)
    Object.assign(server, { sweeps: true, lost: ['after'] })
    up.add(new Blob(['def']))
    expect(await up.finish()).toEqual({ takeId: 'take-1' })
    expect(new Set(server.whole)).toEqual(new Set(['abcdef']))
  })
  test('nothing filmed is nothing sent until the end', async () => {
    const up = sending()
    expect(server.asked).toEqual([])
    await up.finish()
    expect(server.data).toBe('')
  })
  test('while filming it never gives up; once it has ended it does, and says so', async () => {
    server.lost = Array.from({ length: 40 }, () => 'before' as const)
    const up = sending()
    up.add(new Blob(['abc']))
    await expect(up.finish()).rejects.toThrow()
    expect(up.sent()).toBe(0)
    // Given up is given up: nothing is sent behind the back of whoever sends it again.
    const asked = server.asked.length
    await new Promise((resolve) => setImmediate(resolve))
    await new Promise((resolve) => setImmediate(resolve))
    expect(server.asked.length).toBe(asked)
  })
  test('what the server refuses is not tried again, and its words are given', async () => {
    server.refuse = { status: 507, detail: 'The disk is full.' }
    const up = sending()
    up.add(new Blob(['abc']))
    await expect(up.finish()).rejects.toThrow(new Refused('The disk is full.'))
    expect(server.asked.filter((m) => m === 'PATCH').length).toBeLessThanOrEqual(2)
  })
  test('a server that is only busy is tried again', async () => {
    server.busy = 3
    const up = sending()
    up.add(new Blob(['abc']))
    expect(await up.finish()).toEqual({ takeId: 'take-1' })
    expect(server.busy).toBe(0)
  })
})

describe('a recording found again after the page died', () => {
  test('goes on from what the server has', async () => {
    Object.assign(server, { open: true, data: 'abc' })
    expect(await sending({ url: '/api/uploads/one' }, 'abcdef').finish()).toEqual({ takeId: 'take-1' })
    expect(server.data).toBe('abcdef')
    expect(server.asked).not.toContain('POST')
  })
  test('whose last answer was lost is asked for again, and is the same recording', async () => {
    Object.assign(server, { open: true, data: 'abc', sweeps: true, lost: ['after'] })
    expect(await sending({ url: '/api/uploads/one' }, 'abcdef').finish()).toEqual({ takeId: 'take-1' })
    expect(server.whole).toEqual(['abcdef', 'abcdef'])
  })
  test('that had arrived is the take the server says it is, and nothing is sent again', async () => {
    Object.assign(server, { open: true, data: 'abcdef', length: 6 })
    expect(await sending({ url: '/api/uploads/one' }, 'abcdef').finish()).toEqual({ takeId: 'take-1' })
    expect(server.asked).not.toContain('PATCH')
  })
  test('that is whole but no take yet is asked for again until it is one', async () => {
    Object.assign(server, { open: true, data: 'abc', takeless: 2 })
    expect(await sending({ url: '/api/uploads/one' }, 'abcdef').finish()).toEqual({ takeId: 'take-1' })
  })
  test('is sent anew where its place was swept away', async () => {
    expect(await sending({ url: '/api/uploads/gone' }, 'abcdef').finish()).toEqual({ takeId: 'take-1' })
    expect(server.data).toBe('abcdef')
    expect(remembered).toEqual(['/api/uploads/one'])
  })
})
