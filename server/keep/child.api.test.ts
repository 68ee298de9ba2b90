import fs from 'node:fs'
import { randomUUID } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { usuallyKept } from '@awlbox/core/contracts/kept-for'
import {
  blobs,
  children,
  consents,
  homeLinks,
  households,
  jobs,
  judgements,
  photos,
  publications,
  record,
  replies,
  settings,
} from '../platform/schema.ts'
import { caller, testWorld } from '../testing.ts'
import { compareFiles, tidy } from './daily.ts'
import { homeToken } from '../platform/tokens.ts'

const at = testWorld()
const there = (sha: string) => fs.existsSync(at.app.blobs.path(sha))
/** A child with a home of its own, a reply that names two photos, a judgement, a consent and a queued reading. */
async function whole(given: string, home: string, more: object = {}) {
  const { here, teacher } = at.world
  const added = await teacher.call('POST', `/api/classes/${here.classId}/children`, {
    children: [{ given, home, ...more }],
  })
  const [childId] = added.body.added as string[]
  const [row] = await at.app.db.select().from(children).where(eq(children.id, childId!))
  const householdId = row!.householdId
  await teacher.call('POST', `/api/lessons/${here.lessonId}/publish`, { withFilm: false })
  const [sent] = await at.app.db
    .select()
    .from(publications)
    .where(eq(publications.lessonId, here.lessonId))
    .limit(1)
  const files = await Promise.all(
    ['one', 'two', 'small'].map((w) =>
      at.app.blobs.put(at.app.db, Buffer.from(`${given} ${w}`), 'image/jpeg'),
    ),
  )
  const photoIds: string[] = []
  for (const image of files.slice(0, 2)) {
    const [p] = await at.app.db
      .insert(photos)
      .values({ publicationId: sent!.id, householdId, image, small: files[2]!, width: 9, height: 9 })
      .returning()
    photoIds.push(p!.id)
  }
  const [reply] = await at.app.db
    .insert(replies)
    .values({
      publicationId: sent!.id,
      childId: childId!,
      key: randomUUID(),
      answers: photoIds.map((photoId, i) => ({ taskId: `t${i}`, kind: 'photo' as const, photoId })),
      help: 'alone',
      words: `${given} did it twice`,
    })
    .returning()
  await teacher.call('POST', `/api/replies/${reply!.id}/judgements`, {
    level: 'nearly',
    help: 'alone',
    rung: 'things',
    note: `about ${given}`,
  })
  await teacher.call('POST', `/api/children/${childId!}/consents`, {
    kind: 'photos',
    given: true,
    giver: 'gran',
    day: '2026-09-01',
  })
  await at.app.queue.add({
    kind: 'photo',
    settingId: here.setting.id,
    lessonId: here.lessonId,
    subject: photoIds[0]!,
  })
  return { childId: childId!, householdId, photoIds, files, replyId: reply!.id }
}
const count = async (query: ReturnType<typeof sql>): Promise<number> =>
  Number((await at.app.db.execute<{ n: string }>(query)).rows[0]!.n)

describe('one child', () => {
  test('what is kept is shown with its times, and taken away as a folder with its pictures', async () => {
    const one = await whole('Anouk', 'Signal Terrace')
    const kept = await at.world.teacher.call('GET', `/api/children/${one.childId}/kept`)
    const lines = kept.body.kept as { what: string; count: number; until: string | null }[]
    expect(lines.map((k) => [k.what, k.count])).toEqual([
      ['replies', 1],
      ['photos', 2],
      ['recordings', 0],
      ['judgements', 1],
      ['consents', 1],
      ['note', 0],
    ])
    const days = (until: string) => Math.round((Date.parse(until) - Date.now()) / 86_400_000)
    expect(days(lines[1]!.until!)).toBe(usuallyKept.photos)
    expect(lines[2]!.until).toBeNull()
    const r = await fetch(`${at.app.address}/api/children/${one.childId}/export`, {
      headers: { cookie: at.world.teacher.cookie },
    })
    const zip = Buffer.from(await r.arrayBuffer())
    expect([r.status, zip.subarray(0, 2).toString()]).toEqual([200, 'PK'])
    // Names stand uncompressed in an archive's own table.
    for (const name of ['child.json', 'replies.json', 'judgements.csv', `photos/${one.photoIds[0]}.jpg`])
      expect(zip.includes(name)).toBe(true)
  })
  test('deleted, nothing of it is left in any table, folder or queue; others keep what is theirs', async () => {
    const gone = await whole('Rafe', 'Ropewalk')
    const stays = await whole('Zuri', 'Plum Lane')
    // A photo two children's replies name belongs to the other still.
    await at.app.db
      .update(replies)
      .set({
        answers: [
          { taskId: 't', kind: 'photo', photoId: stays.photoIds[0]! },
          { taskId: 'u', kind: 'photo', photoId: gone.photoIds[1]! },
        ],
      })
      .where(eq(replies.id, stays.replyId))
    await at.app.db
      .update(photos)
      .set({ householdId: stays.householdId })
      .where(eq(photos.id, gone.photoIds[1]!))
    const link = homeToken(at.app.secret, gone.householdId, 1)
    const receipt = await at.world.teacher.call('DELETE', `/api/children/${gone.childId}`)
    expect(receipt.body).toEqual({ replies: 1, photos: 1, recordings: 0, judgements: 1, files: 1, left: 0 })
    expect([there(gone.files[0]!), there(gone.files[1]!), there(stays.files[0]!)]).toEqual([
      false,
      true,
      true,
    ])
    for (const [table, column, id] of [
      ['children', 'id', gone.childId],
      ['households', 'id', gone.householdId],
      ['home_links', 'household_id', gone.householdId],
      ['replies', 'child_id', gone.childId],
      ['judgements', 'child_id', gone.childId],
      ['consents', 'child_id', gone.childId],
      ['photos', 'id', gone.photoIds[0]!],
      ['jobs', 'subject', gone.photoIds[0]!],
    ] as const)
      expect([
        table,
        await count(sql`select count(*) as n from ${sql.raw(table)} where ${sql.raw(column)}::text = ${id}`),
      ]).toEqual([table, 0])
    expect(
      await count(sql`select count(*) as n from pgboss.job where data::text like ${`%${gone.photoIds[0]}%`}`),
    ).toBe(0)
    expect((await caller(at.app.address).call('GET', `/api/home/${link}`)).status).toBe(404)
    const dump = JSON.stringify(
      (
        await Promise.all(
          [children, households, replies, judgements, consents, photos, jobs, record, homeLinks].map((t) =>
            at.app.db.select().from(t),
          ),
        )
      ).flat(),
    )
    expect(dump).not.toMatch(/Rafe|Ropewalk/)
    const [line] = await at.app.db.select().from(record).where(eq(record.act, 'deleted')).limit(1)
    expect(line!.words).toMatch(/Deleted a child: 1 replies, 1 photos.*nothing of it is left/)
    expect(await compareFiles(at.app, { days: 0, look: true })).toEqual({ strays: 0, missing: [] })
  })
  test('brother and sister keep the home and its link; a second home keeps the child', async () => {
    const a = await whole('Bram', 'Tannery Row')
    await whole('Ines', 'Tannery Row')
    await at.world.teacher.call('DELETE', `/api/children/${a.childId}`)
    const homes = await at.app.db.select().from(households).where(eq(households.name, 'Tannery Row'))
    expect(homes).toHaveLength(1)
    const b = await whole('Leyla', 'Ferry Steps', { second: 'Moon Row' })
    const done = await at.world.teacher.call('DELETE', `/api/households/${b.householdId}`)
    expect(done.body).toMatchObject({ left: 0, photos: 2 })
    const [child] = await at.app.db.select().from(children).where(eq(children.id, b.childId))
    const [moon] = await at.app.db.select().from(households).where(eq(households.name, 'Moon Row'))
    expect([child!.householdId, child!.secondHouseholdId]).toEqual([moon!.id, null])
  })
  test('a home deleted while it replies: the reply is refused with words, nothing of it stays', async () => {
    const { here } = at.world
    const one = await whole('Teodor', 'Kiln Street')
    const link = homeToken(at.app.secret, one.householdId, 1)
    const home = caller(at.app.address)
    const [pack] = (await home.call('GET', `/api/home/${link}`)).body.packs as { id: string }[]
    const reply = () =>
      home.call('PUT', `/api/home/${link}/packs/${pack!.id}/reply`, {
        childId: one.childId,
        key: randomUUID(),
        answers: [],
        help: null,
        words: 'late words of theirs',
      })
    const all = await Promise.all([
      ...Array.from({ length: 6 }, reply),
      at.world.teacher.call('DELETE', `/api/households/${one.householdId}`),
      ...Array.from({ length: 6 }, reply),
    ])
    expect(all[6]!.status).toBe(200)
    for (const r of all.filter((_, i) => i !== 6)) expect([200, 404, 409]).toContain(r.status)
    expect((await reply()).status).toBe(404)
    expect(await count(sql`select count(*) as n from replies where words = 'late words of theirs'`)).toBe(0)
    expect(
      await count(
        sql`select count(*) as n from children where class_id = ${here.classId} and given = 'Teodor'`,
      ),
    ).toBe(0)
  })
})

describe('what is due', () => {
  const old = (table: string, column: string, id: string, days: number) =>
    at.app.db.execute(
      sql`update ${sql.raw(table)} set ${sql.raw(column)} = now() - make_interval(days => ${days}) where id = ${id}`,
    )
  const lines = () => at.app.db.select().from(record).where(eq(record.act, 'tidied'))
  test('goes once a day by the setting’s own times, with a line of what was done', async () => {
    const { owner } = at.world
    const one = await whole('Fenn', 'Orchard Rise')
    const two = await whole('Otis', 'Cooper Yard')
    expect(
      (await owner.call('PUT', '/api/keeping/times', { photos: 40, replies: 50, record: null })).status,
    ).toBe(200)
    await old('photos', 'created_at', one.photoIds[0]!, 41)
    await old('photos', 'created_at', one.photoIds[1]!, 39)
    await old('replies', 'updated_at', two.replyId, 51)
    const before = (await lines()).length
    expect((await tidy(at.app))!.due).toBe(2)
    expect((await lines()).slice(before).map((l) => l.words)).toEqual([
      'Deleted what was due: 1 photos, 1 replies',
    ])
    const left = (await at.app.db.select().from(photos)).map((p) => p.id)
    expect([left.includes(one.photoIds[0]!), left.includes(one.photoIds[1]!)]).toEqual([false, true])
    const [reply] = await at.app.db.select().from(replies).where(eq(replies.id, two.replyId))
    expect([reply!.answers, reply!.words]).toEqual([[], ''])
    expect(await at.app.db.select().from(judgements).where(eq(judgements.replyId, two.replyId))).toHaveLength(
      1,
    )
    // Done twice it does nothing more.
    expect((await tidy(at.app))!.due).toBe(0)
  })
  test('of a child who left everything goes after its time, and not before', async () => {
    const one = await whole('Saskia', 'Meadow End')
    await at.world.teacher.call('POST', `/api/children/${one.childId}/move`, { classId: null })
    await old('children', 'left_at', one.childId, usuallyKept.standings! - 1)
    await tidy(at.app)
    const here = async () =>
      (await at.app.db.select().from(children).where(eq(children.id, one.childId))).length
    expect(await here()).toBe(1)
    await old('children', 'left_at', one.childId, usuallyKept.standings! + 1)
    await tidy(at.app)
    expect([await here(), there(one.files[0]!)]).toEqual([0, false])
  })
  test('lines of the record go when they are older than they are kept, and only then', async () => {
    const { here, owner } = at.world
    await owner.call('PUT', '/api/keeping/times', { record: 30 })
    await at.app.pool.query('alter table record disable trigger record_stays')
    const [mine] = await at.app.db
      .insert(record)
      .values({ settingId: here.setting.id, act: 'saw', words: 'long ago' })
      .returning()
    await at.app.pool.query("update record set at = now() - interval '31 days' where id = $1", [mine!.id])
    await at.app.pool.query('alter table record enable trigger record_stays')
    const count30 = async () => (await at.app.db.select().from(record).where(eq(record.id, mine!.id))).length
    expect(await count30()).toBe(1)
    await tidy(at.app)
    expect(await count30()).toBe(0)
    expect((await at.app.db.select().from(record)).length).toBeGreaterThan(5)
  })
  test('times under a month, or of another kind, are refused; what was not said stays as everybody’s', async () => {
    const { owner, here } = at.world
    for (const wrong of [{ photos: 29 }, { photos: 4000 }, { photos: '60' }])
      expect((await owner.call('PUT', '/api/keeping/times', wrong)).status).toBe(400)
    const [row] = await at.app.db.select().from(settings).where(eq(settings.id, here.setting.id))
    expect(Object.keys(row!.keptFor).sort()).toEqual(['photos', 'record', 'replies'])
    const times = (await owner.call('GET', '/api/keeping/times')).body as {
      keptFor: { films: null; standings: number }
      kinds: { kind: string; count: number }[]
    }
    expect([times.keptFor.films, times.keptFor.standings]).toEqual([null, usuallyKept.standings])
    expect(times.kinds.find((k) => k.kind === 'photos')!.count).toBeGreaterThan(0)
  })
})

test('a sweep that only looks changes nothing: a stray file and a lost one are told', async () => {
  const stray = at.app.blobs.path('ab'.repeat(32))
  fs.mkdirSync(stray.slice(0, -65), { recursive: true })
  fs.writeFileSync(stray, 'nobody’s')
  const lost = await at.app.blobs.put(at.app.db, Buffer.from('soon lost'), 'text/plain')
  fs.rmSync(at.app.blobs.path(lost))
  const look = await compareFiles(at.app, { days: 0, look: true })
  expect([look.strays, look.missing]).toEqual([1, [lost]])
  expect(fs.existsSync(stray)).toBe(true)
  await at.app.db.delete(blobs).where(eq(blobs.sha256, lost))
  await compareFiles(at.app, { days: 0 })
  expect(fs.existsSync(stray)).toBe(false)
})
