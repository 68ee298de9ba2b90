import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { eq } from 'drizzle-orm'
import { mailSink } from '@awlbox/standins/post/sink'
import { households, letters, settings } from '../platform/schema.ts'
import { caller, openTestApp, populate, type TestApp } from '../testing.ts'
import { deliver, nudge, writeToHomes } from './letters.ts'

let app: TestApp
let world: Awaited<ReturnType<typeof populate>>
let sink: Awaited<ReturnType<typeof mailSink>>
let refused = ''
let sentId: string
const origin = 'https://awlbox.example'
const L = () => `/api/lessons/${world.here.lessonId}`
const day = (text: string) => new Date(text)

beforeAll(async () => {
  app = await openTestApp()
  world = await populate(app)
  sink = await mailSink({ refuses: (to) => to === refused })
  Object.assign(app.config, { smtp: sink.url, mailFrom: 'post@cobblegate.example' })
  const [home] = world.here.homes
  await app.db.update(households).set({ email: 'weir@lane.example' }).where(eq(households.id, home!.id))
  sentId = String(
    (await world.teacher.call('POST', `${L()}/publish`, { withFilm: false, due: '2026-12-02' })).body.id,
  )
  // Sent in the morning of the day these tests live in, whatever day it is outside: what was sent is not changed otherwise.
  await app.pool.query(`alter table publications disable trigger user`)
  await app.pool.query('update publications set sent_at = $1', [sentAt])
  await app.pool.query(`alter table publications enable trigger user`)
})
afterAll(async () => {
  await sink.close()
  await app.close()
})
beforeEach(async () => {
  await app.db.delete(letters)
  sink.posted.length = 0
  refused = ''
})
const all = () => app.db.select().from(letters)
const sentAt = day('2026-11-28T08:00:00Z')
const write = (kind: 'new' | 'nudge' | 'thanks', now: Date) =>
  writeToHomes(app, sentId, kind, { origin, now })
const noon = day('2026-11-28T12:00:00Z')
const night = day('2026-11-28T22:00:00Z')

describe('a letter', () => {
  test('goes to the home with its facts in it, in its language, by the mail server', async () => {
    await app.db.update(households).set({ language: 'es' }).where(eq(households.id, world.here.homes[0]!.id))
    expect(await write('new', noon)).toBe(1)
    expect(await deliver(app, noon)).toBe(1)
    await app.db.update(households).set({ language: null }).where(eq(households.id, world.here.homes[0]!.id))
    const [letter] = await all()
    expect(letter).toMatchObject({ state: 'sent', language: 'es', kind: 'new' })
    expect(letter!.body).toMatch(/Hace falta: fichas de dos caras: 7/)
    // What is kept holds no link; what is posted does.
    expect(letter!.body).not.toContain(world.here.tokens[0])
    const raw = sink.posted[0]!.raw.replace(/=\r?\n/g, '')
    expect(raw).toContain(`${origin}/h/${world.here.tokens[0]}`)
    expect(letter!.body).toMatch(/miércoles, 2 de diciembre/)
    expect(sink.posted.map((p) => p.to)).toEqual([['weir@lane.example']])
    expect(sink.posted[0]!.raw).toMatch(/Subject: /)
  })
  test('of one kind goes once, however often it is asked for', async () => {
    await write('new', noon)
    expect(await write('new', noon)).toBe(0)
    await deliver(app, noon)
    expect(await deliver(app, noon)).toBe(0)
    expect(sink.posted.length).toBe(1)
  })
  test('two workers at once post it once', async () => {
    await write('new', noon)
    await Promise.all([deliver(app, noon), deliver(app, noon), deliver(app, noon)])
    expect(sink.posted.length).toBe(1)
  })
  test('in quiet hours waits for the morning', async () => {
    await write('new', night)
    expect(await deliver(app, night)).toBe(0)
    const [letter] = await all()
    expect(letter!.after.toISOString()).toBe('2026-11-29T07:00:00.000Z')
    expect(await deliver(app, day('2026-11-29T07:00:00Z'))).toBe(1)
  })
  test('a second one waits for another day', async () => {
    await write('new', noon)
    await deliver(app, noon)
    await write('thanks', day('2026-11-28T13:00:00Z'))
    expect(await deliver(app, day('2026-11-28T15:00:00Z'))).toBe(0)
    expect(await deliver(app, day('2026-11-29T09:00:00Z'))).toBe(1)
  })
  test('no server takes is tried again later, and less and less often; then it is told', async () => {
    Object.assign(app.config, { smtp: 'smtp://127.0.0.1:9' })
    try {
      await write('new', noon)
      let now = noon
      for (let n = 0; n < 8; n++) {
        await deliver(app, now)
        now = new Date(now.getTime() + 24 * 3_600_000)
      }
      const [letter] = await all()
      expect(letter).toMatchObject({ state: 'failed', tries: 5 })
      expect(letter!.problem).toMatch(/did not take it/)
    } finally {
      Object.assign(app.config, { smtp: sink.url })
    }
    const id = (await all())[0]!.id
    await world.teacher.call('POST', `/api/letters/${id}/again`)
    expect((await all())[0]).toMatchObject({ state: 'waiting', tries: 0 })
  })
  test('to an address that takes none bounces at once, and is not tried again', async () => {
    refused = 'weir@lane.example'
    await write('new', noon)
    await deliver(app, noon)
    const [letter] = await all()
    expect(letter).toMatchObject({ state: 'refused', tries: 1 })
    expect(letter!.problem).toMatch(/Nobody of this name/)
  })
})

describe('where there is no mail, or no address', () => {
  test('the text waits to be copied, and which were copied is remembered', async () => {
    await app.db.update(households).set({ email: null }).where(eq(households.id, world.here.homes[0]!.id))
    try {
      await write('new', noon)
      expect(await deliver(app, noon)).toBe(0)
      const box = async () =>
        (await world.teacher.call('GET', `${L()}/letters`)).body as unknown as {
          items: { id: string; state: string; body: string }[]
          byMail: boolean
        }
      const [letter] = (await box()).items
      expect(letter).toMatchObject({ state: 'to copy' })
      expect(letter!.body).toContain(`/h/${world.here.tokens[0]}`)
      await world.teacher.call('PUT', `/api/letters/${letter!.id}/copied`, { copied: true })
      expect((await box()).items[0]!.state).toBe('copied')
      await world.teacher.call('PUT', `/api/letters/${letter!.id}/copied`, { copied: false })
      expect((await box()).items[0]!.state).toBe('to copy')
      expect(
        (await world.stranger.call('PUT', `/api/letters/${letter!.id}/copied`, { copied: true })).status,
      ).toBe(404)
    } finally {
      await app.db
        .update(households)
        .set({ email: 'weir@lane.example' })
        .where(eq(households.id, world.here.homes[0]!.id))
    }
  })
})

describe('reminders', () => {
  const later = (days: number) => new Date(sentAt.getTime() + days * 86_400_000)
  test('come once, days after the lesson, to homes that sent nothing', async () => {
    expect(await nudge(app, origin, later(2))).toBe(0)
    expect(await nudge(app, origin, later(3.1))).toBe(1)
    expect(await nudge(app, origin, later(4))).toBe(0)
    expect((await all()).map((l) => l.kind)).toEqual(['nudge'])
  })
  test('none where the setting wants none', async () => {
    await app.db
      .update(settings)
      .set({ post: { nudgeAfter: null } })
      .where(eq(settings.id, world.here.setting.id))
    expect(await nudge(app, origin, later(5))).toBe(0)
    await app.db.update(settings).set({ post: {} }).where(eq(settings.id, world.here.setting.id))
  })
  test('a reply that comes before one goes makes it needless; nobody who replied is reminded', async () => {
    const at = later(3.1)
    await nudge(app, origin, at)
    await caller(app.address).call('PUT', `/api/home/${world.here.tokens[0]}/packs/${sentId}/reply`, {
      childId: world.here.kids[0]!.id,
      key: randomUUID(),
      answers: [],
      couldNot: true,
      help: null,
      words: '',
    })
    await deliver(app, later(5))
    expect((await all())[0]!.state).toBe('not needed')
    await app.db.delete(letters)
    expect(await nudge(app, origin, later(6))).toBe(0)
    expect(sink.posted).toEqual([])
  })
})
