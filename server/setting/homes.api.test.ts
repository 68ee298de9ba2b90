import { and, eq } from 'drizzle-orm'
import { beforeEach, describe, expect, test } from 'vitest'
import type { ChildRow } from '@awlbox/core/contracts/api/homes'
import { children, classes, homeLinks, households, record, settings } from '../platform/schema.ts'
import { homeToken } from '../platform/tokens.ts'
import { caller, testWorld } from '../testing.ts'

const at = testWorld()
const rows = async (): Promise<ChildRow[]> =>
  (await at.world.owner.call('GET', '/api/homes')).body.items as ChildRow[]
const rowOf = async (id: string) => (await rows()).find((r) => r.id === id)!
const add = (list: object[], classId = at.world.here.classId, by = at.world.teacher) =>
  by.call('POST', `/api/classes/${classId}/children`, { children: list })
const one = async (given: string, home: string, more: object = {}): Promise<string> => {
  const r = await add([{ given, home, ...more }])
  expect(r.status).toBe(200)
  return (r.body.added as string[])[0]!
}
const save = (row: Pick<ChildRow, 'id' | 'revision'>, change: object, by = at.world.teacher) =>
  by.call('PUT', `/api/children/${row.id}`, { revision: row.revision, change })

describe('children and homes', () => {
  test('are added with homes made for them, each with its link; siblings share one', async () => {
    const r = await add([
      { given: 'Otis', home: 'Mill Bank', languages: ['English', 'Urdu'], printer: true },
      { given: 'Wren', home: 'Kiln Street' },
      { given: 'Jude', home: 'kiln street', metered: true },
    ])
    expect(r.body).toMatchObject({ known: 0 })
    const mine = (await rows()).filter((x) => (r.body.added as string[]).includes(x.id))
    expect(mine.map((x) => [x.given, x.home, x.printer, x.metered])).toEqual([
      ['Jude', 'Kiln Street', null, true],
      ['Otis', 'Mill Bank', true, null],
      ['Wren', 'Kiln Street', null, true],
    ])
    expect(mine[0]!.householdId).toBe(mine[2]!.householdId)
    // Mill Bank was there, with its younger child and its link.
    expect(mine[1]).toMatchObject({ householdId: at.world.here.homes[1]!.id, youngerChild: true })
    for (const m of mine)
      expect((await caller(at.app.address).call('GET', `/api/home/${m.link!.slice(3)}`)).status).toBe(200)
  })
  test('a list sent twice, or two at once, adds nobody twice', async () => {
    const list = Array.from({ length: 30 }, (_, i) => ({ given: `Twin ${i}`, home: 'Twin Street' }))
    const both = await Promise.all([add(list), add(list)])
    expect(both.map((r) => (r.body.added as string[]).length).sort((a, b) => a - b)).toEqual([0, 30])
    expect(both.map((r) => r.body.known).sort()).toEqual([0, 30])
    expect((await rows()).filter((r) => r.home === 'Twin Street')).toHaveLength(30)
  })
  test('five thousand come in one go and are read in pages, each once', async () => {
    const list = Array.from({ length: 5000 }, (_, i) => ({ given: `Many ${i}`, home: `Row ${i % 900}` }))
    const [big] = await at.app.db
      .insert(classes)
      .values({
        settingId: at.world.here.setting.id,
        teacherId: at.world.here.teacher(),
        name: 'Big',
        age: 6,
      })
      .returning()
    expect((await add(list, big!.id)).body).toMatchObject({ known: 0 })
    const seen: string[] = []
    let after: string | null = ''
    while (after !== null) {
      const page: { items: ChildRow[]; next: string | null } = (
        await at.world.owner.call('GET', `/api/homes?after=${encodeURIComponent(after)}`)
      ).body as never
      seen.push(...page.items.filter((x) => x.classId === big!.id).map((x) => x.id))
      after = page.next
    }
    expect([seen.length, new Set(seen).size]).toEqual([5000, 5000])
    expect((await add([...list, { given: 'One more', home: 'X' }], big!.id)).status).toBe(400)
    expect((await at.world.owner.call('GET', '/api/homes?after=nonsense')).status).toBe(400)
    // Out of the way of what follows.
    await at.app.db.delete(children).where(eq(children.classId, big!.id))
  })
  test('a child twice in a class is told apart everywhere; the home sees the name it uses', async () => {
    const id = await one('Suri', 'Harbour View')
    const shown = (await rows()).filter((r) => r.given === 'Suri').map((r) => r.name)
    expect(shown.sort()).toEqual(['Suri · Harbour View', 'Suri · Weir Lane'])
    const standing = await at.world.teacher.call('GET', `/api/classes/${at.world.here.classId}/standing`)
    expect(JSON.stringify(standing.body)).toContain('Suri · Harbour View')
    await at.world.teacher.call('POST', `/api/lessons/${at.world.here.lessonId}/publish`, { withFilm: false })
    const link = (await rowOf(id)).link!.slice(3)
    const packs = (await caller(at.app.address).call('GET', `/api/home/${link}`)).body.packs as {
      id: string
    }[]
    const pack = await caller(at.app.address).call('GET', `/api/home/${link}/packs/${packs[0]!.id}`)
    expect(pack.body.children).toEqual([{ id, name: 'Suri', photos: true, sound: false, level: null }])
    // Once one moves the other is plain again.
    await save(await rowOf(id), { given: 'Surinder' })
    expect((await rows()).find((r) => r.home === 'Weir Lane')!.name).toBe('Suri')
  })
})

describe('what is typed into the table', () => {
  let id: string
  let n = 0
  beforeEach(async () => {
    n += 1
    id = await one(`Kofi${n}`, `Chandler Street ${n}`)
  })
  test('is kept, and a change of an older state is refused with the newer one', async () => {
    const before = await rowOf(id)
    const first = await save(before, { languages: ['Twi'], note: 'no nuts' })
    expect(first.body).toMatchObject({ languages: ['Twi'], note: 'no nuts', revision: before.revision + 1 })
    const stale = await save(before, { languages: ['English'] })
    expect(stale.status).toBe(409)
    expect(stale.body.row).toMatchObject({ languages: ['Twi'] })
    expect((await rowOf(id)).languages).toEqual(['Twi'])
  })
  test('a home’s facts are the siblings’ too, and make their open rows older', async () => {
    const other = await one(`Ama${n}`, `Chandler Street ${n}`)
    const [mine, theirs] = [await rowOf(id), await rowOf(other)]
    expect((await save(mine, { phone: false })).status).toBe(200)
    expect(await rowOf(other)).toMatchObject({ phone: false })
    expect((await save(theirs, { phone: true })).status).toBe(409)
  })
  test('a second home gets the lessons and may answer; taken out, it no longer does', async () => {
    await save(await rowOf(id), { second: `Signal Terrace ${n}` })
    const [home] = await at.app.db
      .select()
      .from(households)
      .where(eq(households.name, `Signal Terrace ${n}`))
    const link = homeToken(at.app.secret, home!.id, 1)
    await at.world.teacher.call('POST', `/api/lessons/${at.world.here.lessonId}/publish`, { withFilm: false })
    const page = () => caller(at.app.address).call('GET', `/api/home/${link}`)
    const [pack] = (await page()).body.packs as { id: string }[]
    const reply = await caller(at.app.address).call('PUT', `/api/home/${link}/packs/${pack!.id}/reply`, {
      childId: id,
      key: crypto.randomUUID(),
      answers: [],
      help: 'alone',
      words: 'from the second home',
    })
    expect(reply.status).toBe(200)
    await save(await rowOf(id), { second: '' })
    expect((await page()).body.packs).toEqual([])
  })
  test('a name that is empty, too long, or nothing anybody asked for is refused whole', async () => {
    const before = await rowOf(id)
    for (const change of [
      { given: ' ' },
      { given: 'x'.repeat(41) },
      { phone: 'yes' },
      { languages: Array(7).fill('a') },
    ])
      expect((await save(before, change)).status).toBe(400)
    expect(await rowOf(id)).toEqual(before)
    // Letters nobody can see are no part of a name.
    expect((await save(before, { given: `Kof\u202Ei${n}` })).status).toBe(200)
  })
  test('notes and links are for who teaches the class', async () => {
    await save(await rowOf(id), { note: 'no nuts' })
    const seen = (await at.world.colleague.call('GET', '/api/homes')).body.items as ChildRow[]
    expect(seen.find((r) => r.id === id)).toMatchObject({ note: '', link: null, mayChange: false })
    const csv = await at.world.teacher.call('GET', '/api/homes.csv')
    expect(csv.body.text).toContain(`Kofi${n}`)
    expect(String(csv.body.text)).not.toMatch(/no nuts|\/h\//)
  })
  test('a consent is added to, never changed: the latest counts, all stay to be read', async () => {
    const note = (given: boolean, day: string) =>
      at.world.teacher.call('POST', `/api/children/${id}/consents`, {
        kind: 'photos',
        given,
        giver: 'gran',
        day,
      })
    await note(true, '2026-09-01')
    await note(false, '2026-10-01')
    expect((await note(true, 'yesterday')).status).toBe(400)
    expect((await rowOf(id)).consents).toEqual({
      photos: { given: false, giver: 'gran', day: '2026-10-01' },
      sound: null,
      showing: null,
      naming: null,
    })
    // Noted with the clock set back by a month, the last still counts.
    await at.app.pool.query("update consents set at = now() + interval '30 days' where child_id = $1", [id])
    await note(false, '2026-10-02')
    expect((await rowOf(id)).consents.photos).toMatchObject({ given: false, day: '2026-10-02' })
    const history = (await at.world.teacher.call('GET', `/api/children/${id}/consents`)).body
      .items as object[]
    expect(history).toMatchObject([{ given: false, by: 'Marnie' }, { given: false }, { given: true }])
  })
})

describe('a child that moves', () => {
  test('takes replies and judgements along; left, it is on no page, and comes back', async () => {
    const { here, teacher, owner } = at.world
    const id = await one('Maeve', 'Larch Close')
    const [other] = await at.app.db
      .select()
      .from(classes)
      .where(and(eq(classes.settingId, here.setting.id), eq(classes.name, 'Goldcrests')))
    const move = (classId: string | null) => teacher.call('POST', `/api/children/${id}/move`, { classId })
    expect((await move(other!.id)).status).toBe(200)
    expect((await rowOf(id)).classId).toBe(other!.id)
    expect((await move(null)).status).toBe(200)
    expect(await rowOf(id)).toBeUndefined()
    const left = (await owner.call('GET', '/api/classes')).body.left as { id: string; className: string }[]
    expect(left.find((c) => c.id === id)).toMatchObject({ name: 'Maeve', className: 'Goldcrests' })
    // Its link still opens, and shows nothing of the class.
    const [row] = await at.app.db.select().from(children).where(eq(children.id, id))
    const link = homeToken(at.app.secret, row!.householdId, 1)
    expect((await caller(at.app.address).call('GET', `/api/home/${link}`)).body.packs).toEqual([])
    expect((await move(here.classId)).status).toBe(200)
    expect((await rowOf(id)).classId).toBe(here.classId)
    expect((await move(at.world.there.classId)).status).toBe(404)
  })
})

describe('a new school year', () => {
  test('is done whole as it was shown, refused where something moved since, and taken back', async () => {
    const { here, owner, teacher } = at.world
    const [gold] = await at.app.db
      .select()
      .from(classes)
      .where(and(eq(classes.settingId, here.setting.id), eq(classes.name, 'Goldcrests')))
    const [a, b] = [await one('Year A', 'A Row'), await one('Year B', 'B Row')]
    const moves = [
      { childId: a, from: here.classId, to: gold!.id },
      { childId: b, from: here.classId, to: null },
    ]
    await teacher.call('POST', `/api/children/${a}/move`, { classId: gold!.id })
    const stale = await owner.call('POST', '/api/year', { moves })
    expect([stale.status, (await rowOf(b)).classId]).toEqual([409, here.classId])
    await teacher.call('POST', `/api/children/${a}/move`, { classId: here.classId })
    const done = await owner.call('POST', '/api/year', { moves })
    expect(done.status).toBe(200)
    expect([(await rowOf(a)).classId, await rowOf(b)]).toEqual([gold!.id, undefined])
    expect((await owner.call('GET', '/api/classes')).body.year).toMatchObject({
      moved: 1,
      left: 1,
      by: 'Petra',
    })
    // One of them was moved on by hand meanwhile: it stays where it is.
    await teacher.call('POST', `/api/children/${a}/move`, { classId: here.classId })
    const back = await owner.call('POST', `/api/year/${done.body.id as string}/undo`)
    expect(back.body).toEqual({ back: 1, elsewhere: 1 })
    expect((await rowOf(b)).classId).toBe(here.classId)
    expect((await owner.call('POST', `/api/year/${done.body.id as string}/undo`)).status).toBe(409)
  })
  test('after thirty days it stays done', async () => {
    const { here, owner } = at.world
    const id = await one('Year C', 'C Row')
    const done = await owner.call('POST', '/api/year', {
      moves: [{ childId: id, from: here.classId, to: null }],
    })
    await at.app.pool.query("update year_turns set at = now() - interval '31 days'")
    expect((await owner.call('POST', `/api/year/${done.body.id as string}/undo`)).status).toBe(409)
    expect((await owner.call('GET', '/api/classes')).body.year).toMatchObject({ undoUntil: null })
  })
})

describe('classes', () => {
  test('are made, renamed, closed and opened again; two open ones never share a name', async () => {
    const { owner, here } = at.world
    const teacherId = here.teacher()
    const make = (name: string) => owner.call('POST', '/api/classes', { name, age: 5, teacherId })
    const made = await make('Siskins')
    expect(made.status).toBe(200)
    expect((await make('siskins')).status).toBe(409)
    const change = (body: object) => owner.call('PUT', `/api/classes/${made.body.id as string}`, body)
    expect((await change({ closed: true })).status).toBe(200)
    const shelf = (await owner.call('GET', '/api/shelf')).body.classes as { name: string }[]
    expect(shelf.map((c) => c.name)).not.toContain('Siskins')
    expect((await make('Siskins')).status).toBe(200)
    expect((await change({ closed: false })).status).toBe(409)
    expect((await change({ closed: false, name: 'Old Siskins' })).status).toBe(200)
    expect((await change({ age: 9 })).status).toBe(400)
    expect(
      (await owner.call('POST', '/api/classes', { name: 'X', age: 4, teacherId: at.world.there.teacher() }))
        .status,
    ).toBe(404)
  })
  test('a lesson is copied for another class, its script and nothing else', async () => {
    const { teacher, here } = at.world
    const copied = await teacher.call('POST', `/api/lessons/${here.lessonId}/carry`, {
      classId: here.classId,
      day: '2026-12-07',
    })
    const [was, now] = [
      await teacher.call('GET', `/api/lessons/${here.lessonId}`),
      await teacher.call('GET', `/api/lessons/${copied.body.id as string}`),
    ]
    expect(now.body.doc).toEqual(was.body.doc)
    expect(now.body).toMatchObject({ day: '2026-12-07', revision: 1, facts: { sent: false } })
    const elsewhere = { classId: at.world.there.classId, day: '2026-12-07' }
    expect((await teacher.call('POST', `/api/lessons/${here.lessonId}/carry`, elsewhere)).status).toBe(404)
  })
})

describe('the record of use', () => {
  const lines = async (query = '') =>
    (await at.world.owner.call('GET', `/api/record${query}`)).body.items as {
      act: string
      words: string
      who: string
    }[]
  test('tells who saw, changed and sent what, a page that saves itself once, refused sign-ins too', async () => {
    const id = await one('Recorded', 'Record Row')
    for (let i = 0; i < 3; i++) await save(await rowOf(id), { note: `note ${i}` })
    await caller(at.app.address).call('POST', '/api/sign-in', {
      email: 'teacher@cobblegate.example',
      password: 'wrong',
    })
    const all = await lines()
    expect(
      all.filter((l) => l.words === 'Changed a child or its home' && l.who === 'Marnie').length,
    ).toBeGreaterThan(0)
    const [mine] = await at.app.db.select().from(record).where(eq(record.subject, id))
    expect(mine).toMatchObject({ words: 'Changed a child or its home' })
    expect(await at.app.db.select().from(record).where(eq(record.subject, id))).toHaveLength(1)
    expect(all[0]).toMatchObject({ act: 'refused', who: 'Marnie' })
    expect(JSON.stringify(all)).not.toMatch(/Recorded|note 0/)
    const refused = await lines('?act=refused')
    expect(new Set(refused.map((l) => l.act))).toEqual(new Set(['refused']))
    expect(await lines('?from=2099-01-01')).toEqual([])
    const today = new Date().toISOString().slice(0, 10)
    expect((await lines(`?until=${today}`)).length).toBeGreaterThan(0)
    const csv = String((await at.world.owner.call('GET', '/api/record.csv?act=refused')).body.text)
    expect(csv.split('\n')[0]).toContain('at,who,act,what,concerning')
  })
  test('a request that was refused leaves no line of having been done', async () => {
    const before = (await lines('?act=changed')).length
    await at.world.colleague.call('PUT', '/api/keeping/times', { photos: 60 })
    expect((await lines('?act=changed')).length).toBe(before)
  })
  test('is only added to, by whoever asks the database', async () => {
    await lines()
    await expect(at.app.pool.query("update record set words = 'nothing happened'")).rejects.toThrow(
      /only added to/,
    )
    await expect(at.app.pool.query('delete from record')).rejects.toThrow(/only added to/)
  })
  test('belongs to its setting', async () => {
    const theirs = await at.app.db
      .select({ id: settings.id })
      .from(settings)
      .where(eq(settings.name, 'Elsewhere'))
    await at.world.stranger.call('GET', '/api/homes')
    const [line] = await at.app.db.select().from(record).where(eq(record.settingId, theirs[0]!.id)).limit(1)
    expect(line).toBeDefined()
    expect((await lines()).every((l) => l.who !== 'stranger')).toBe(true)
    const mine = await at.app.db
      .select({ id: record.id })
      .from(record)
      .where(eq(record.settingId, at.world.here.setting.id))
    expect(mine.length).toBeGreaterThanOrEqual((await lines()).length)
  })
})
test('a home’s link that was renewed on the table opens, the old one does not', async () => {
  const id = await one('Linked', 'Link Row')
  const row = await rowOf(id)
  const r = await at.world.teacher.call('POST', `/api/households/${row.householdId}/link`)
  const open = (link: string) =>
    caller(at.app.address)
      .call('GET', `/api/home/${link.slice(3)}`)
      .then((x) => x.status)
  expect([await open(row.link!), await open(String(r.body.link))]).toEqual([404, 200])
  expect((await rowOf(id)).link).toBe(r.body.link)
  await at.app.db.delete(homeLinks).where(eq(homeLinks.householdId, row.householdId))
  expect((await rowOf(id)).link).toBeNull()
})
