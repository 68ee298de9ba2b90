import { randomUUID } from 'node:crypto'
import fs from 'node:fs'
import path from 'node:path'
import { eq, sql } from 'drizzle-orm'
import sharp from 'sharp'
import { describe, expect, test } from 'vitest'
import { addRender } from '../cut/store.ts'
import { addTake, setTake } from '../film/store.ts'
import { blobs, children, photos, publications, renders, replies, takes } from '../platform/schema.ts'
import { usuallyKept } from '@awlbox/core/contracts/kept-for'
import { caller, sampleLesson, testWorld } from '../testing.ts'
import { keptFor, tidy as tidyOrNot } from './daily.ts'

const at = testWorld()
const tidy = async (app: typeof at.app) => (await tidyOrNot(app))!
const blob = (what: string) => at.app.blobs.put(at.app.db, Buffer.from(what), 'text/plain')
const file = (sha: string) => fs.existsSync(at.app.blobs.path(sha))
/** Makes what is in a table as old as so many days. */
const age = (table: string, id: string, days: number, key = 'id') =>
  at.app.db.execute(
    sql`update ${sql.raw(table)} set created_at = now() - make_interval(days => ${days}) where ${sql.raw(key)} = ${id}`,
  )
async function sent() {
  const { here, teacher } = at.world
  await teacher.call('POST', `/api/lessons/${here.lessonId}/publish`, { withFilm: false })
  const [p] = await at.app.db
    .select()
    .from(publications)
    .where(eq(publications.lessonId, here.lessonId))
    .limit(1)
  return { packId: p!.id, householdId: here.homes[0]!.id, token: here.tokens[0]! }
}
async function photoOf(days: number, what: string) {
  const { packId, householdId } = await sent()
  const image = await blob(what)
  const [row] = await at.app.db
    .insert(photos)
    .values({ publicationId: packId, householdId, image, small: image, width: 9, height: 9 })
    .returning()
  await age('photos', row!.id, days)
  await age('blobs', image, days, 'sha256')
  return { id: row!.id, image, packId }
}

describe('once a day', () => {
  test('photos in no reply go after their time, with their files; those in a reply, and new ones, stay', async () => {
    const [old, used, fresh] = [
      await photoOf(keptFor.loosePhotos + 1, 'old'),
      await photoOf(usuallyKept.photos! - 1, 'used'),
      await photoOf(keptFor.loosePhotos - 1, 'fresh'),
    ]
    await at.app.db.insert(replies).values({
      publicationId: used.packId,
      childId: at.world.here.kids[0]!.id,
      key: randomUUID(),
      answers: [{ taskId: 't', kind: 'photo', photoId: used.id }] as never,
      help: null,
      words: '',
    })
    const done = await tidy(at.app)
    expect([done.photos, done.missing]).toEqual([1, []])
    const left = (await at.app.db.select({ id: photos.id }).from(photos)).map((p) => p.id)
    expect([left.includes(old.id), left.includes(used.id), left.includes(fresh.id)]).toEqual([
      false,
      true,
      true,
    ])
    expect([file(old.image), file(used.image), file(fresh.image)]).toEqual([false, true, true])
    // Done again it finds nothing more.
    expect(await tidy(at.app)).toMatchObject({ photos: 0, blobs: 0, strays: 0 })
  })
  test('films that were never sent go when they are old, but for the newest three; what was sent stays', async () => {
    const made: string[] = []
    for (let i = 0; i < 5; i++) {
      const b = await blob(`film ${i}`)
      await addRender(at.app.db, {
        lessonId: at.world.here.lessonId,
        cutRevision: 1,
        film: b,
        captions: b,
        poster: b,
        seconds: 1,
        bytes: 1,
      })
      const [row] = await at.app.db.select().from(renders).where(eq(renders.film, b))
      await age('renders', row!.id, keptFor.renders + 10 - i)
      made.push(row!.id)
    }
    const { packId } = await sent()
    const [before] = await at.app.db.select().from(publications).where(eq(publications.id, packId))
    await at.app.db.insert(publications).values({ ...before!, id: randomUUID(), renderId: made[0]! })
    expect((await tidy(at.app)).renders).toBe(1)
    const left = (await at.app.db.select({ id: renders.id }).from(renders)).map((r) => r.id)
    expect(made.map((id) => left.includes(id))).toEqual([true, false, true, true, true])
  })
  test('an original past its time gives way to the film made of it, which plays on', async () => {
    const [original, film] = [await blob('as it was filmed'), await blob('as it is played')]
    const id = await addTake(at.app.db, {
      lessonId: at.world.here.lessonId,
      segmentId: sampleLesson().segments[0]!.id,
      source: 'uploaded',
      original,
    })
    await setTake(at.app.db, id, { film, status: 'ready', seconds: 1 })
    await age('blobs', original, 300, 'sha256')
    expect((await tidy(at.app)).due).toBe(0)
    await age('takes', id, usuallyKept.sound! + 1)
    expect((await tidy(at.app)).due).toBe(1)
    const [take] = await at.app.db.select().from(takes).where(eq(takes.id, id))
    expect([take!.original, file(original), file(film)]).toEqual([film, false, true])
  })
  test('files that nothing names go when they are a day old, and one that is named and gone is told', async () => {
    const day = keptFor.temporary * 86_400_000
    const stray = path.join(at.app.config.blobs, 'ab', `ab${'0'.repeat(62)}`)
    fs.mkdirSync(path.dirname(stray), { recursive: true })
    fs.writeFileSync(stray, 'nobody’s')
    expect((await tidy(at.app)).strays).toBe(0)
    fs.utimesSync(stray, new Date(Date.now() - 2 * day), new Date(Date.now() - 2 * day))
    expect((await tidy(at.app)).strays).toBe(1)
    expect(fs.existsSync(stray)).toBe(false)
    const lost = await blob('about to be lost')
    fs.rmSync(at.app.blobs.path(lost))
    expect((await tidy(at.app)).missing).toEqual([lost])
    await at.app.db.delete(blobs).where(eq(blobs.sha256, lost))
  })
})

describe('photos of homes', () => {
  const send = async (bytes: Buffer) => {
    const { packId, token } = await sent()
    const form = new FormData()
    form.append('photo', new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }), 'a.jpg')
    return caller(at.app.address).call('POST', `/api/home/${token}/packs/${packId}/photos`, form)
  }
  const jpeg = (w: number, h: number) =>
    sharp({ create: { width: w, height: h, channels: 3, background: '#c9b28c' } })
      .jpeg()
      .toBuffer()
  test('are refused while there is no room, and the answers are said to be kept', async () => {
    const { config } = at.app
    const before = config.diskReserve
    Object.assign(config, { diskReserve: Number.MAX_SAFE_INTEGER })
    const r = await send(await jpeg(40, 30)).finally(() => Object.assign(config, { diskReserve: before }))
    expect([r.status, r.body.detail]).toEqual([507, expect.stringContaining('kept')])
  })
  test('leave nothing in the folder in which they wait, whether they were good or not', async () => {
    const waiting = () => fs.readdirSync(path.join(at.app.config.blobs, 'tmp')).length
    expect((await send(await jpeg(400, 300))).status).toBe(200)
    expect((await send(Buffer.from('no photo'))).status).toBe(415)
    expect(waiting()).toBe(0)
  })
})

test('all replies are given, page after page', async () => {
  const { packId } = await sent()
  const kids = await at.app.db
    .insert(children)
    .values(
      Array.from({ length: 230 }, (_, i) => ({
        classId: at.world.here.classId,
        householdId: at.world.here.homes[0]!.id,
        given: `Child ${i}`,
        name: `Child ${i}`,
      })),
    )
    .returning({ id: children.id })
  await at.app.db.insert(replies).values(
    kids.map((kid) => ({
      publicationId: packId,
      childId: kid.id,
      key: randomUUID(),
      answers: [],
      help: null,
      words: '',
    })),
  )
  const ids = new Set<string>()
  let [after, pages]: [string | null, number] = [null, 0]
  do {
    const r = await at.world.teacher.call(
      'GET',
      `/api/lessons/${at.world.here.lessonId}/replies${after ? `?after=${after}` : ''}`,
    )
    for (const x of r.body.items as { id: string }[]) ids.add(x.id)
    after = r.body.next as string | null
    pages++
  } while (after)
  const all = await at.app.db.select({ id: replies.id }).from(replies)
  expect([ids.size, pages]).toEqual([all.length, 3])
})
