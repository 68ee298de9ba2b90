import { eq } from 'drizzle-orm'
import { beforeAll, describe, expect, test } from 'vitest'
import { classes, people, personLinks, sessions } from '../platform/schema.ts'
import { mailSink } from '../../standins/post/sink.ts'
import { type Caller, caller, testWorld } from '../testing.ts'

const at = testWorld()
const id: Record<string, string> = {}
beforeAll(async () => {
  const all = await at.app.db.select().from(people).where(eq(people.settingId, at.world.here.setting.id))
  for (const p of all) id[p.name] = p.id
})
const nobody = () => caller(at.app.address)
const password = 'a sentence of hers'
async function invited(email: string, role: 'owner' | 'teacher' = 'teacher'): Promise<string> {
  const r = await at.world.owner.call('POST', '/api/people/invitations', { email, role })
  expect(r.status).toBe(200)
  return String(r.body.link).replace('/join/', '/api/join/')
}
async function joined(email: string, name: string): Promise<Caller> {
  const r = await nobody().call('POST', await invited(email), { name, password })
  expect(r.status).toBe(200)
  return caller(at.app.address, r.headers.getSetCookie()[0]!.split(';')[0])
}
const signIn = (email: string, words = password, headers: Record<string, string> = {}) =>
  nobody().call('POST', '/api/sign-in', { email, password: words }, headers)

describe('an invitation', () => {
  test('says where it leads, makes one person, once, and signs them in', async () => {
    const link = await invited('Una@Cobblegate.example', 'owner')
    expect((await nobody().call('GET', link)).body).toEqual({
      kind: 'invitation',
      setting: 'Cobblegate',
      email: 'una@cobblegate.example',
      name: '',
    })
    const both = await Promise.all([1, 2].map(() => nobody().call('POST', link, { name: 'Una', password })))
    expect(both.map((r) => r.status).sort()).toEqual([200, 410])
    const una = both.find((r) => r.status === 200)!
    const me = await caller(at.app.address, una.headers.getSetCookie()[0]!.split(';')[0]).call(
      'GET',
      '/api/me',
    )
    expect(me.body).toMatchObject({ name: 'Una', role: 'owner' })
    expect((await nobody().call('GET', link)).status).toBe(410)
  })
  test('for somebody who works here is refused; a second for the same address ends the first', async () => {
    const r = await at.world.owner.call('POST', '/api/people/invitations', {
      email: 'TEACHER@cobblegate.example',
      role: 'teacher',
    })
    expect(r.status).toBe(409)
    const first = await invited('vi@cobblegate.example')
    const second = await invited('vi@cobblegate.example')
    expect([(await nobody().call('GET', first)).status, (await nobody().call('GET', second)).status]).toEqual(
      [410, 200],
    )
  })
  test('for an address of another setting is given, and cannot take that person over', async () => {
    const link = await invited('teacher@elsewhere.example')
    expect((await nobody().call('POST', link, { name: 'X', password })).status).toBe(410)
    expect((await at.world.stranger.call('GET', '/api/me')).body).toMatchObject({ setting: 'Elsewhere' })
  })
  test('too old, taken back, with a weak password or no name is refused', async () => {
    const link = await invited('wes@cobblegate.example')
    expect((await nobody().call('POST', link, { name: 'Wes', password: 'short' })).status).toBe(400)
    expect((await nobody().call('POST', link, { name: ' ', password })).status).toBe(400)
    await at.app.db
      .update(personLinks)
      .set({ expiresAt: new Date(Date.now() - 1000) })
      .where(eq(personLinks.email, 'wes@cobblegate.example'))
    expect((await nobody().call('POST', link, { name: 'Wes', password })).status).toBe(410)
    const back = await invited('xan@cobblegate.example')
    const list = (await at.world.owner.call('GET', '/api/people')).body.invitations as {
      id: string
      email: string
    }[]
    const mine = list.find((i) => i.email === 'xan@cobblegate.example')!
    expect((await at.world.owner.call('DELETE', `/api/people/invitations/${mine.id}`)).status).toBe(200)
    expect((await nobody().call('GET', back)).status).toBe(410)
  })
})

describe('post', () => {
  test('an invitation is posted where there is a mail server, with the link that is shown; refused or away, the link is still there', async () => {
    const sink = await mailSink({ refuses: (to) => to.startsWith('gone') })
    const invite = (email: string) =>
      at.world.owner.call('POST', '/api/people/invitations', { email, role: 'teacher' })
    Object.assign(at.app.config, { smtp: sink.url, mailFrom: 'Cobblegate <post@cobblegate.example>' })
    try {
      const made = await invite('ida@cobblegate.example')
      expect(made.body.mailed).toBe(true)
      expect(sink.posted.map((p) => p.to)).toEqual([['ida@cobblegate.example']])
      const letter = sink.posted[0]!.raw.replace(/=\r?\n/g, '').replace(/=3D/g, '=')
      expect(letter).toContain(String(made.body.link))
      expect(letter).toMatch(/From: Cobblegate <post@cobblegate\.example>/)
      expect((await invite('gone@cobblegate.example')).body).toMatchObject({ mailed: false })
      const reset = await at.world.owner.call('POST', `/api/people/${id.Desh}/password-link`)
      expect([reset.body.mailed, sink.posted.at(-1)!.to]).toEqual([true, ['colleague@cobblegate.example']])
    } finally {
      await sink.close()
    }
    const away = await invite('late@cobblegate.example')
    expect([away.status, away.body.mailed]).toEqual([200, false])
    expect((await nobody().call('GET', String(away.body.link).replace('/join/', '/api/join/'))).status).toBe(
      200,
    )
    Object.assign(at.app.config, { smtp: '', mailFrom: '' })
  })
})

describe('somebody who stops working here', () => {
  test('with classes is refused until somebody takes them over; then signed out everywhere, and what they made stays', async () => {
    const yara = await joined('yara@cobblegate.example', 'Yara')
    const [row] = await at.app.db.select().from(people).where(eq(people.email, 'yara@cobblegate.example'))
    const [cls] = await at.app.db
      .insert(classes)
      .values({ settingId: at.world.here.setting.id, teacherId: row!.id, name: 'Wrens', age: 5 })
      .returning()
    const end = (classesTo: string | null) =>
      at.world.owner.call('POST', `/api/people/${row!.id}/end`, { classesTo })
    expect((await end(null)).status).toBe(409)
    expect((await end(row!.id)).status).toBe(400)
    expect((await yara.call('GET', '/api/me')).status).toBe(200)
    expect((await end(id.Desh!)).status).toBe(200)
    const [now] = await at.app.db.select().from(classes).where(eq(classes.id, cls!.id))
    expect(now!.teacherId).toBe(id.Desh)
    expect((await yara.call('GET', '/api/me')).status).toBe(401)
    expect((await signIn('yara@cobblegate.example')).status).toBe(401)
    // Invited again the same person is back, with a new password.
    const again = await nobody().call('POST', await invited('yara@cobblegate.example'), {
      name: 'Yara',
      password: 'another sentence',
    })
    expect(again.status).toBe(200)
    const all = await at.app.db.select().from(people).where(eq(people.email, 'yara@cobblegate.example'))
    expect(all.map((p) => [p.id, p.endedAt])).toEqual([[row!.id, null]])
  })
  test('the last owner can neither be ended nor made a teacher, by two at once either', async () => {
    const { owner } = at.world
    const role = (who: string, to: string) => owner.call('PUT', `/api/people/${who}/role`, { role: to })
    const [una] = await at.app.db.select().from(people).where(eq(people.email, 'una@cobblegate.example'))
    const both = await Promise.all([role(una!.id, 'teacher'), role(id.Petra!, 'teacher')])
    // Whoever came second was no longer an owner, or would have been the last.
    expect(both.filter((r) => r.status === 200)).toHaveLength(1)
    const owners = await at.app.db.select().from(people).where(eq(people.role, 'owner'))
    expect(owners.filter((o) => o.settingId === at.world.here.setting.id)).toHaveLength(1)
    await at.app.db.update(people).set({ role: 'owner' }).where(eq(people.id, id.Petra!))
    await at.app.db.update(people).set({ role: 'teacher' }).where(eq(people.id, una!.id))
    expect((await role(id.Petra!, 'teacher')).status).toBe(409)
    expect((await owner.call('POST', `/api/people/${id.Petra}/end`, { classesTo: null })).status).toBe(409)
    // Ownership is passed on: first another, then oneself no longer.
    expect((await role(una!.id, 'owner')).status).toBe(200)
    expect((await role(id.Petra!, 'teacher')).status).toBe(200)
    await at.app.db.update(people).set({ role: 'owner' }).where(eq(people.id, id.Petra!))
  })
})

describe('cover', () => {
  test('lets a colleague change a class on its days, and not on others', async () => {
    const { owner, colleague, here } = at.world
    const path = `/api/lessons/${here.lessonId}/dates`
    const dates = { day: '2026-12-01', filmBy: null, sendBy: null }
    const tries = () => colleague.call('PUT', path, dates).then((r) => r.status)
    const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10)
    const cover = (from: string, until: string) =>
      owner.call('POST', `/api/classes/${here.classId}/covers`, { personId: id.Desh, from, until })
    expect(await tries()).toBe(403)
    expect((await cover(day(3), day(1))).status).toBe(400)
    await cover(day(2), day(5))
    await cover(day(-9), day(-2))
    expect(await tries()).toBe(403)
    const now = await cover(day(-1), day(1))
    expect(await tries()).toBe(200)
    const week = await colleague.call('GET', '/api/week?from=2026-11-30')
    expect(JSON.stringify(week.body)).toContain(here.lessonId)
    expect((await owner.call('DELETE', `/api/covers/${now.body.id as string}`)).status).toBe(200)
    expect(await tries()).toBe(403)
  })
})

describe('of oneself', () => {
  test('a name is changed at once; e-mail and password with the present one, which ends other sessions', async () => {
    const zoe = await joined('zoe@cobblegate.example', 'Zoe')
    const phone = (
      await signIn('zoe@cobblegate.example', password, {
        'user-agent': 'Mozilla/5.0 (Android 13; Mobile; rv:120.0) Gecko/120.0 Firefox/120.0',
      })
    ).headers
      .getSetCookie()[0]!
      .split(';')[0]!
    const account = (await zoe.call('GET', '/api/me/account')).body as {
      name: string
      sessions: { id: string; device: string; here: boolean }[]
    }
    expect(account.sessions.map((x) => [x.device, x.here]).sort()).toEqual([
      ['', true],
      ['Firefox on Android', false],
    ])
    const save = (body: object) => zoe.call('PUT', '/api/me/account', body).then((r) => r.status)
    expect(await save({ name: 'Zoë' })).toBe(200)
    expect(await save({ email: 'zoe2@cobblegate.example' })).toBe(403)
    expect(await save({ password: 'the next sentence', current: 'wrong' })).toBe(403)
    expect(await save({ email: 'teacher@cobblegate.example', current: password })).toBe(409)
    expect(
      await save({ email: 'Zoe2@Cobblegate.example', password: 'the next sentence', current: password }),
    ).toBe(200)
    expect((await zoe.call('GET', '/api/me')).body).toMatchObject({ name: 'Zoë' })
    expect((await caller(at.app.address, phone).call('GET', '/api/me')).status).toBe(401)
    expect((await signIn('zoe2@cobblegate.example', 'the next sentence')).status).toBe(200)
  })
  test('one session is ended from another, never somebody else’s; all at once signs out here too', async () => {
    const abe = await joined('abe@cobblegate.example', 'Abe')
    const other = (await signIn('abe@cobblegate.example')).headers.getSetCookie()[0]!.split(';')[0]!
    const list = (await abe.call('GET', '/api/me/account')).body.sessions as { id: string; here: boolean }[]
    const there = list.find((x) => !x.here)!
    expect((await at.world.teacher.call('DELETE', `/api/me/sessions/${there.id}`)).status).toBe(404)
    expect((await abe.call('DELETE', `/api/me/sessions/${there.id}`)).status).toBe(200)
    expect((await caller(at.app.address, other).call('GET', '/api/me')).status).toBe(401)
    expect((await abe.call('DELETE', '/api/me/sessions')).status).toBe(200)
    expect((await abe.call('GET', '/api/me')).status).toBe(401)
  })
  test('a forgotten password: a link of the owner’s, once, which ends every session', async () => {
    const bea = await joined('bea@cobblegate.example', 'Bea')
    const [row] = await at.app.db.select().from(people).where(eq(people.email, 'bea@cobblegate.example'))
    const link = String(
      (await at.world.owner.call('POST', `/api/people/${row!.id}/password-link`)).body.link,
    ).replace('/join/', '/api/join/')
    expect((await nobody().call('GET', link)).body).toMatchObject({ kind: 'password', name: 'Bea' })
    const done = await nobody().call('POST', link, { name: 'ignored', password: 'quite another one' })
    expect(done.status).toBe(200)
    expect((await bea.call('GET', '/api/me')).status).toBe(401)
    const [now] = await at.app.db.select().from(people).where(eq(people.id, row!.id))
    expect(now!.name).toBe('Bea')
    expect([
      (await signIn('bea@cobblegate.example')).status,
      (await signIn('bea@cobblegate.example', 'quite another one')).status,
    ]).toEqual([401, 200])
    expect((await nobody().call('POST', link, { name: 'Bea', password })).status).toBe(410)
  })
  test('when a session was last used is known, and not written at every call', async () => {
    const cai = await joined('cai@cobblegate.example', 'Cai')
    const [row] = await at.app.db.select().from(people).where(eq(people.email, 'cai@cobblegate.example'))
    const used = async () =>
      +(await at.app.db.select().from(sessions).where(eq(sessions.personId, row!.id)))[0]!.lastUsedAt
    const before = await used()
    await cai.call('GET', '/api/me')
    expect(await used()).toBe(before)
    await at.app.db
      .update(sessions)
      .set({ lastUsedAt: new Date(Date.now() - 600_000) })
      .where(eq(sessions.personId, row!.id))
    await cai.call('GET', '/api/me')
    expect(await used()).toBeGreaterThan(Date.now() - 60_000)
  })
})
