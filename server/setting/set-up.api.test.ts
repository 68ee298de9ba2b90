import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { FirstStart } from '@awlbox/core/contracts/api/set-up'
import { children, people, settings, setUpLinks } from '../platform/schema.ts'
import { caller, openTestApp, type TestApp } from '../testing.ts'
import { hasOwner, newLink } from './store.ts'

let app: TestApp
beforeAll(async () => {
  app = await openTestApp()
})
afterAll(() => app.close())
const first: FirstStart = {
  setting: { name: 'Cobblegate Early Years', timeZone: 'Europe/London' },
  owner: { name: 'Petra', email: 'Petra@Cobblegate.example', password: 'ten letters at least' },
  class: { name: 'Wagtails', age: 4 },
  houseStyle: { ...defaultHouseStyle, add: 'plus' },
  children: [
    { name: 'Suri', home: 'Weir Lane' },
    { name: 'Inés', home: 'Weir Lane' },
    { name: 'Otis', home: 'Mill Bank' },
  ],
}
const begin = (token: string, body: unknown = first) =>
  caller(app.address).call('POST', `/api/set-up/${token}`, body)
const rows = async () => (await app.db.select().from(settings)).length

describe('a first start', () => {
  test('with something missing, or a weak password, makes nothing and keeps the address good', async () => {
    const token = await newLink(app.db, 'first')
    for (const wrong of [
      { ...first, owner: { ...first.owner, password: 'short' } },
      { ...first, owner: { ...first.owner, email: 'nobody' } },
      { ...first, setting: { ...first.setting, timeZone: 'Moon/Crater' } },
      { ...first, class: { name: '', age: 4 } },
    ]) {
      const r = await begin(token, wrong)
      expect([r.status, r.body.detail]).toEqual([400, expect.stringContaining('Nothing was changed')])
    }
    expect(await rows()).toBe(0)
    expect((await caller(app.address).call('GET', `/api/set-up/${token}`)).body).toEqual({
      kind: 'first',
      setting: null,
    })
  })
  test('by an address that is guessed, older than an hour, or replaced by a newer one is refused', async () => {
    const old = await newLink(app.db, 'first')
    const token = await newLink(app.db, 'first')
    expect((await begin(old)).status).toBe(410)
    expect((await begin('guessed-guessed-guessed')).status).toBe(410)
    await app.db.update(setUpLinks).set({ expiresAt: new Date(Date.now() - 1000) })
    const late = await begin(token)
    expect([late.status, late.body.detail]).toEqual([410, expect.stringContaining('./awlbox owner')])
    expect(await rows()).toBe(0)
  })
  test('by two at once makes one setting, whole, and signs in whoever was first', async () => {
    const token = await newLink(app.db, 'first')
    const both = await Promise.all([
      begin(token),
      begin(token, { ...first, owner: { ...first.owner, email: 'other@cobblegate.example' } }),
    ])
    expect(both.map((r) => r.status).sort()).toEqual([200, 410])
    expect([await rows(), await hasOwner(app.db)]).toEqual([1, true])
    const winner = both.find((r) => r.status === 200)!
    const me = caller(app.address, winner.headers.getSetCookie()[0]!.split(';')[0])
    expect((await me.call('GET', '/api/me')).body).toMatchObject({
      role: 'owner',
      setting: 'Cobblegate Early Years',
      houseStyle: { add: 'plus' },
    })
    const shelf = (await me.call('GET', '/api/shelf')).body
    expect(shelf).toMatchObject({ classes: [{ name: 'Wagtails', age: 4 }], lessons: [] })
    const kids = await app.db.select().from(children)
    expect(kids.map((k) => k.name).sort()).toEqual(['Inés', 'Otis', 'Suri'])
    // Brother and sister share a home.
    expect(new Set(kids.map((k) => k.householdId)).size).toBe(2)
  })
  test('is over once there is an owner', async () => {
    expect((await begin(await newLink(app.db, 'first'))).status).toBe(410)
    expect(await rows()).toBe(1)
  })
})

describe('an owner who is locked out', () => {
  const again = (token: string, body: object) =>
    caller(app.address).call('POST', `/api/set-up/${token}/owner`, body)
  const [email, password] = ['petra@cobblegate.example', 'another sentence of hers']
  test('gets a new password by an address from the shell; the old one and her open sessions are over', async () => {
    const [owner] = await app.db.select().from(people).where(eq(people.role, 'owner'))
    await app.db.update(people).set({ email }).where(eq(people.id, owner!.id))
    const before = await caller(app.address).call('POST', '/api/sign-in', {
      email,
      password: first.owner.password,
    })
    const old = caller(app.address, before.headers.getSetCookie()[0]!.split(';')[0])
    const token = await newLink(app.db, 'owner')
    expect((await again(token, { name: 'Petra', email, password })).status).toBe(200)
    expect((await old.call('GET', '/api/me')).status).toBe(401)
    const sign = (p: string) => caller(app.address).call('POST', '/api/sign-in', { email, password: p })
    expect([(await sign(first.owner.password)).status, (await sign(password)).status]).toEqual([401, 200])
    expect((await again(token, { name: 'Petra', email, password })).status).toBe(410)
  })
  test('cannot become a teacher by it, and may give the setting another owner', async () => {
    const [setting] = await app.db.select().from(settings)
    await app.db.insert(people).values({
      settingId: setting!.id,
      email: 'desh@cobblegate.example',
      name: 'Desh',
      role: 'teacher',
      passwordHash: 'x',
    })
    const token = await newLink(app.db, 'owner')
    expect((await again(token, { name: 'Desh', email: 'desh@cobblegate.example', password })).status).toBe(
      409,
    )
    expect((await again(token, { name: 'New', email: 'new@cobblegate.example', password })).status).toBe(200)
  })
})
