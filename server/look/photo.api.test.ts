import { eq } from 'drizzle-orm'
import fs from 'node:fs/promises'
import sharp from 'sharp'
import { randomUUID } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { readerVersion } from '@awlbox/core/look/photo/read'
import { JobProblem, type JobRow } from '../platform/queue.ts'
import { drawnFace } from '../platform/media/test-face.ts'
import { jobs, photos } from '../platform/schema.ts'
import { testWorld } from '../testing.ts'
import { readStale, readStoredPhoto } from './read-photo.ts'

const at = testWorld()
/** A white sheet with dark discs well apart. */
async function sheetWith(discs: number, more = ''): Promise<Blob> {
  const circles = Array.from(
    { length: discs },
    (_, i) =>
      `<circle cx="${90 + (i % 4) * 150}" cy="${120 + Math.floor(i / 4) * 160}" r="38" fill="#24508c"/>`,
  )
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="480"><rect width="640" height="480" fill="#e9e4d8"/>${circles.join('')}${more}</svg>`
  return new Blob([new Uint8Array(await sharp(Buffer.from(svg)).jpeg({ quality: 92 }).toBuffer())])
}
/** Sends a photo as a home does, with the reply it belongs to; gives its id. */
async function sendPhoto(discs: number, more = ''): Promise<string> {
  const { teacher, here, nobody } = at.world
  await teacher.call('POST', `${at.lesson}/publish`, { withFilm: false })
  const home = `/api/home/${here.tokens[0]}`
  const pack = ((await nobody.call('GET', home)).body.packs as { id: string }[])[0]!.id
  const { tasks } = (await nobody.call('GET', `${home}/packs/${pack}`)).body.pack as {
    tasks: { id: string; kind: string }[]
  }
  const form = new FormData()
  form.set('photo', await sheetWith(discs, more), 'sheet.jpg')
  const { id } = (await nobody.call('POST', `${home}/packs/${pack}/photos`, form)).body as { id: string }
  const photo = tasks.find((t) => t.kind === 'photo')!
  const answers = [{ taskId: photo.id, kind: 'photo', photoId: id }]
  const reply = { childId: here.kids[0]!.id, key: randomUUID(), answers, help: 'alone', words: '' }
  expect((await nobody.call('PUT', `${home}/packs/${pack}/reply`, reply)).status).toBe(200)
  return id
}
const jobsFor = (id: string): Promise<JobRow[]> => at.app.db.select().from(jobs).where(eq(jobs.subject, id))
const read = async (id: string): Promise<void> =>
  readStoredPhoto(at.app, {
    job: (await jobsFor(id))[0]!,
    signal: new AbortController().signal,
    progress: () => Promise.resolve(),
  })
const seen = async (id: string) => {
  const { items } = (await at.world.teacher.call('GET', `${at.lesson}/replies`)).body as {
    items: {
      photos: { id: string; reading: { count: number } | null; unread: string | null; faces: number | null }[]
    }[]
  }
  return items.flatMap((r) => r.photos).find((p) => p.id === id)
}

describe('a photo that arrives', () => {
  test('with a face in it is told apart from one without', async () => {
    const [plain, face] = [await sendPhoto(6), await sendPhoto(0, drawnFace(320, 240, 1.2))]
    for (const id of [plain, face]) await read(id)
    const rows = await at.app.db.select({ id: photos.id, faces: photos.faces }).from(photos)
    const faces = new Map(rows.map((r) => [r.id, r.faces]))
    expect([faces.get(plain), faces.get(face)]).toEqual([0, 1])
  })

  test('is asked to be read at once, and what was read is what the teacher sees', async () => {
    const id = await sendPhoto(6)
    expect(await seen(id)).toMatchObject({ reading: null, unread: null })
    expect((await jobsFor(id)).map((j) => [j.kind, j.status])).toEqual([['photo', 'queued']])
    await read(id)
    expect((await seen(id))?.reading?.count).toBe(6)
  })
  test('is read again when the reader is another, and only then', async () => {
    const id = await sendPhoto(4)
    await read(id)
    await at.app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.kind, 'photo'))
    expect(await readStale(at.app)).toBe(0)
    await at.app.db
      .update(photos)
      .set({ readerVersion: readerVersion - 1, reading: null })
      .where(eq(photos.id, id))
    expect(await readStale(at.app)).toBe(1)
    expect((await jobsFor(id)).filter((j) => j.status === 'queued')).toHaveLength(1)
    // One that waits already is not asked for twice.
    expect(await readStale(at.app)).toBe(0)
    await read(id)
    expect((await seen(id))?.reading?.count).toBe(4)
  })
  test('read by an older reader says what it can, and nothing of what that reader did not know', async () => {
    const id = await sendPhoto(2)
    const old = {
      width: 640,
      height: 480,
      count: 2,
      low: 2,
      high: 3,
      groups: [],
      places: [2],
      things: [],
      warnings: [],
    }
    await at.app.db
      .update(photos)
      .set({ reading: old as unknown as PhotoReading, readerVersion: 1 })
      .where(eq(photos.id, id))
    expect((await seen(id))?.reading).toMatchObject({
      count: 2,
      structure: null,
      rows: [],
      dice: [],
      tally: null,
    })
  })
  test('that cannot be opened any more says so, and is not tried for ever', async () => {
    const id = await sendPhoto(3)
    const [row] = await at.app.db.select().from(photos).where(eq(photos.id, id))
    await fs.writeFile(at.app.blobs.path(row!.image), 'no picture')
    await expect(read(id)).rejects.toThrow(JobProblem)
    await at.app.db.update(jobs).set({ status: 'failed' }).where(eq(jobs.subject, id))
    expect(await readStale(at.app)).toBe(0)
    expect(await seen(id)).toMatchObject({
      reading: null,
      unread: expect.stringContaining('cannot be opened') as string,
    })
  })
  test('that its family took back meanwhile is no problem', async () => {
    const id = await sendPhoto(5)
    const [job] = await jobsFor(id)
    await at.app.db.delete(photos).where(eq(photos.id, id))
    await expect(
      readStoredPhoto(at.app, {
        job: job!,
        signal: new AbortController().signal,
        progress: () => Promise.resolve(),
      }),
    ).resolves.toBeUndefined()
  })
})
