import { describe, expect, test } from 'vitest'
import { caller, testWorld } from '../testing.ts'
import { households } from './schema.ts'
import { openLinks } from '../send/store.ts'
import { homeToken } from './tokens.ts'

const at = testWorld()
const signIn = (email: string, password: string, headers: Record<string, string> = {}) =>
  caller(at.app.address).call('POST', '/api/sign-in', { email, password }, headers)

describe('homes', () => {
  test('three hundred behind one address are all answered', async () => {
    const made = await at.app.db
      .insert(households)
      .values(
        Array.from({ length: 300 }, (_, i) => ({ settingId: at.world.here.setting.id, name: `Row ${i}` })),
      )
      .returning({ id: households.id })
    await openLinks(
      at.app.db,
      at.app.secret,
      made.map((h) => h.id),
    )
    const answers = await Promise.all(
      made.map((h) => caller(at.app.address).call('GET', `/api/home/${homeToken(at.app.secret, h.id, 1)}`)),
    )
    expect(answers.filter((a) => a.status !== 200)).toEqual([])
  })
  test('who guesses links is turned away, and a family at the same address is not', async () => {
    const guess = (i: number) => caller(at.app.address).call('GET', `/api/home/guess-number-${i}`)
    const guesses = []
    for (let i = 0; i < 130; i++) guesses.push((await guess(i)).status)
    expect([guesses[0], guesses.at(-1)]).toEqual([404, 429])
    for (const path of ['', '/kit'])
      expect(
        (await caller(at.app.address).call('GET', `/api/home/${at.world.here.tokens[0]}${path}`)).status,
      ).toBe(200)
  })
  test('one link that asks without end is turned away, on every route, and others go on', async () => {
    const [mine, other] = [at.world.there.tokens[0]!, at.world.there.tokens[1]!]
    let last = 200
    for (let i = 0; i < 260 && last === 200; i++)
      last = (await caller(at.app.address).call('GET', `/api/home/${mine}/kit`)).status
    expect(last).toBe(429)
    expect((await caller(at.app.address).call('GET', `/api/home/${mine}`)).status).toBe(429)
    expect((await caller(at.app.address).call('GET', `/api/home/${other}`)).status).toBe(200)
  })
})

describe('signing in', () => {
  test('many wrong passwords for one account slow that account down, whatever address they claim; others sign in', async () => {
    const tries = []
    for (let i = 0; i < 14; i++)
      tries.push(
        (await signIn('colleague@cobblegate.example', `guess ${i}`, { 'x-forwarded-for': `10.0.0.${i}` }))
          .status,
      )
    expect(tries.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401))
    // Then one in ten seconds is looked at.
    expect(tries.slice(11)).toEqual([429, 429, 429])
    expect((await signIn('Colleague@Cobblegate.example ', 'right')).status).toBe(429)
    expect((await signIn('teacher@cobblegate.example', 'right')).status).toBe(200)
  })
  test('right passwords cost nothing, however many there are', async () => {
    for (let i = 0; i < 14; i++) expect((await signIn('owner@cobblegate.example', 'right')).status).toBe(200)
  })
})

describe('what browsers keep', () => {
  test('nothing with names is stored, films are asked about before they are shown again', async () => {
    const { teacher, nobody, here } = at.world
    const lesson = await teacher.call('GET', `/api/lessons/${here.lessonId}`)
    expect(lesson.headers.get('cache-control')).toBe('no-store')
    expect((await nobody.call('GET', '/api/me')).headers.get('cache-control')).toBe('no-store')
    expect((await nobody.call('GET', `/api/home/${here.tokens[0]}`)).headers.get('cache-control')).toBe(
      'no-store',
    )
  })
  test('signing out has the browser let go of what it kept, and ends the streams of that session and of no other', async () => {
    const email = 'teacher@cobblegate.example'
    const sessions = await Promise.all(
      [0, 1].map(async () => (await signIn(email, 'right')).headers.getSetCookie()[0]!.split(';')[0]!),
    )
    const streams = await Promise.all(
      sessions.map(async (cookie) => {
        const r = await fetch(`${at.app.address}/api/events`, { headers: { cookie } })
        const reader = r.body!.getReader()
        await reader.read()
        return reader
      }),
    )
    const out = await caller(at.app.address, sessions[0]).call('POST', '/api/sign-out')
    expect(out.headers.get('clear-site-data')).toBe('"cache"')
    for (;;) if ((await streams[0]!.read()).done) break
    // The other one is told of what happens next.
    await at.app.pool.query(`select pg_notify('awlbox', $1)`, [
      JSON.stringify({ kind: 'lessons', setting: at.world.here.setting.id, lesson: at.world.here.lessonId }),
    ])
    const next = await streams[1]!.read()
    expect([next.done, new TextDecoder().decode(next.value)]).toEqual([
      false,
      expect.stringContaining('lessons'),
    ])
    await streams[1]!.cancel()
  })
})
