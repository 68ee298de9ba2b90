import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import type { Card, Clip, CutItem, Why } from '@awlbox/core/contracts/cut'
import { wavOf } from '@awlbox/core/film/ear/wav'
import { peaksIn, peaksPerSecond } from '../film/peaks.ts'
import { framesOf, segmentKey } from '../cut/render.ts'
import { forLog } from './log.ts'
import { isDbAway } from './problem.ts'
import { hashToken, homeToken, newSessionToken } from './tokens.ts'

describe('tokens', () => {
  const secret = 'a secret that is long enough to be one'
  test('a home’s link is 128 bits, the same each time, another for another home or version', () => {
    const a = homeToken(secret, 'home-a', 1)
    expect(Buffer.from(a, 'base64url')).toHaveLength(16)
    expect(homeToken(secret, 'home-a', 1)).toBe(a)
    expect(
      new Set([
        a,
        homeToken(secret, 'home-a', 2),
        homeToken(secret, 'home-b', 1),
        homeToken(`${secret}!`, 'home-a', 1),
      ]).size,
    ).toBe(4)
  })
  test('a short secret is refused', () => expect(() => homeToken('short', 'home', 1)).toThrow(/32/))
  test('session tokens differ and are kept hashed', () => {
    const [a, b] = [newSessionToken(), newSessionToken()]
    expect(a).not.toBe(b)
    expect(hashToken(a).toString('utf8')).not.toContain(a)
  })
})

describe('the log', () => {
  test('keeps no values of a failed query', () => {
    const text = forLog(new Error('Failed query: select 1\nparams: Suri,her words'))
    expect(text).toContain('refused a query')
    expect(text).toContain('at ')
    expect(text).not.toMatch(/Suri|her words|select/)
  })
})

describe('a database that is away', () => {
  test.each([
    [{ code: 'ECONNREFUSED' }],
    [{ cause: { code: '57P01' } }],
    [new Error('Connection terminated unexpectedly')],
    [{ message: 'x', cause: { cause: { code: 'ECONNRESET' } } }],
  ])('%o', (error) => expect(isDbAway(error)).toBe(true))
  test.each([[{ code: '23505' }], [new Error('something else')], [null]])('is not %o', (error) =>
    expect(isDbAway(error)).toBe(false),
  )
})

describe('waveforms', () => {
  const dir = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-wav-'))
  afterAll(() => fs.rmSync(dir, { recursive: true, force: true }))
  const file = (content: Uint8Array): string => {
    const at = path.join(dir, 'a.wav')
    fs.writeFileSync(at, content)
    return at
  }
  test('a loud half and a silent half show as such', async () => {
    const peaks = await peaksIn(
      file(
        wavOf(
          Int16Array.from({ length: 16_000 }, (_, i) => (i < 8000 ? (i % 2 ? 16_000 : -16_000) : 0)),
          16_000,
        ),
      ),
    )
    expect(peaks).toHaveLength(peaksPerSecond)
    expect(peaks[10]!).toBeGreaterThan(150)
    expect(peaks[40]).toBe(0)
  })
  test('two and a half minutes are read a minute at a time and give as many peaks', async () =>
    expect(await peaksIn(file(wavOf(new Int16Array(150 * 1000), 1000)))).toHaveLength(150 * peaksPerSecond))
  test('what is no WAV is refused', async () =>
    expect(peaksIn(file(Buffer.from('not a wav at all')))).rejects.toThrow(/WAV/))
})

describe('what a segment’s file is named by', () => {
  const clip = (from: number, to: number, over: Partial<Clip> = {}): Clip => ({
    kind: 'clip',
    id: `c${from}`,
    takeId: 'a',
    from,
    to,
    why: null,
    ...over,
  })
  const stop: Card = {
    kind: 'card',
    id: 'x',
    look: 'stop',
    title: 'Stop',
    lines: [],
    frames: 60,
    stepId: null,
    why: null,
  }
  const why = (state: Why['state']): Why => ({
    id: 'w',
    act: 'drop',
    kind: 'silence',
    note: '',
    sure: true,
    state,
  })
  const film = { sha: 'f', file: '/x', seconds: 10 }
  const key = (items: CutItem[], of = film) =>
    segmentKey({ fill: 'across' as const, cut: { items }, films: new Map([['a', of]]) })
  const plain = [clip(0, 150), clip(150, 300)]
  test('changes with anything that changes the film', () => {
    const others = [
      key([clip(30, 300)]),
      key([clip(0, 270)]),
      key([...plain, stop]),
      key([...plain, { ...stop, title: 'Go' }]),
      key([...plain, { kind: 'hold', id: 'h', frames: 30, stepId: null, why: null }]),
      key([plain[1]!, plain[0]!]),
      key(plain, { ...film, sha: 'g' }),
    ]
    expect(new Set([key(plain), ...others]).size).toBe(others.length + 1)
  })
  test('stays with what does not: a proposed drop, a span split in two, another path', () => {
    expect(key([clip(0, 150, { why: why('open') }), clip(150, 300)])).toBe(key(plain))
    expect(key([clip(0, 300)])).toBe(key(plain))
    expect(key(plain, { ...film, file: '/y' })).toBe(key(plain))
    expect(key([clip(0, 150), clip(150, 300, { why: why('accepted') })])).not.toBe(key(plain))
  })
  test('frames are counted from spans, holds and cards; spans of a take that is gone count nothing', () => {
    expect(
      framesOf({
        fill: 'across' as const,
        cut: { items: [...plain, stop, clip(0, 90, { takeId: 'gone' })] },
        films: new Map([['a', film]]),
      }),
    ).toBe(360)
  })
})
