import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { jobs, takes as takeTable } from '../platform/schema.ts'
import type { Services } from '../platform/services.ts'
import { addTake } from './store.ts'
import { finishLeftOver, finishUpload } from './finish-upload.ts'
import { b64, show, takesWorld } from './test-takes.ts'
import { uploadStore } from './uploads.ts'

const { at, dir, takes } = takesWorld()
const tus = { 'tus-resumable': '1.0.0' }
const part = { ...tus, 'content-type': 'application/offset+octet-stream' }

let made = 0
/** A tone of its own length: each is another file. */
function tone(): Buffer {
  const file = path.join(dir, `tone-${(made += 1)}.wav`)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', `sine=d=${1 + made / 10}`, file])
  return fs.readFileSync(file)
}
async function begun(length: number | null): Promise<string> {
  const r = await at.world.teacher.call('POST', '/api/uploads', undefined, {
    ...tus,
    ...(length === null ? { 'upload-defer-length': '1' } : { 'upload-length': String(length) }),
    'upload-metadata': `lessonId ${b64(at.world.here.lessonId)},segmentId ${b64(show.id)},filename ${b64('a.wav')}`,
  })
  return new URL(r.headers.get('location')!, at.app.address).pathname
}
/** As a process leaves it that was killed after the last byte and before anything else: all pieces, no take. */
async function leftWhole(): Promise<{ url: string; id: string; bytes: Buffer }> {
  const bytes = tone()
  const url = await begun(bytes.length)
  const id = url.split('/').at(-1)!
  fs.writeFileSync(path.join(at.app.config.blobs, 'uploads', id), bytes)
  return { url, id, bytes }
}
const pieces = (id: string): boolean => fs.existsSync(path.join(at.app.config.blobs, 'uploads', id))
const head = (url: string) => at.world.teacher.call('HEAD', url, undefined, tus)
const jobsOf = (takeId: string) => at.app.db.select().from(jobs).where(eq(jobs.subject, takeId))

describe('a whole upload whose process died before it was a take', () => {
  test('becomes one when it is asked about, once, with work to prepare it, and then its pieces go', async () => {
    const { url, id, bytes } = await leftWhole()
    const before = (await takes()).length
    const [a, b] = await Promise.all([head(url), head(url)])
    const takeId = a.headers.get('awlbox-take')
    expect([a.status, a.headers.get('upload-offset')]).toEqual([200, String(bytes.length)])
    expect(takeId).toMatch(/^[0-9a-f-]{36}$/)
    expect(b.headers.get('awlbox-take')).toBe(takeId)
    expect((await takes()).length).toBe(before + 1)
    expect((await jobsOf(takeId!)).map((j) => j.kind)).toEqual(['take'])
    expect(pieces(id)).toBe(false)
    // Asked again after its pieces are gone, it is still that take.
    expect((await head(url)).headers.get('awlbox-take')).toBe(takeId)
    // And still nobody else's.
    expect((await at.world.colleague.call('HEAD', url, undefined, tus)).status).toBe(404)
  })
  test('becomes one when its last piece is sent again, with its length', async () => {
    const { url, bytes } = await leftWhole()
    const r = await at.world.teacher.call('PATCH', url, new Uint8Array(bytes.subarray(-100)), {
      ...part,
      'upload-offset': String(bytes.length - 100),
      'upload-length': String(bytes.length),
    })
    expect([r.status, r.headers.get('upload-offset')]).toEqual([204, String(bytes.length)])
    expect(r.headers.get('awlbox-take')).toMatch(/^[0-9a-f-]{36}$/)
  })
  test('becomes one when Awlbox starts', async () => {
    const { id } = await leftWhole()
    const before = (await takes()).length
    await finishLeftOver(at.app, uploadStore(at.app))
    expect((await takes()).length).toBe(before + 1)
    expect(pieces(id)).toBe(false)
    await finishLeftOver(at.app, uploadStore(at.app))
    expect((await takes()).length).toBe(before + 1)
  })
})

test('a recording whose length was told and whose last piece broke off may tell it again', async () => {
  const bytes = tone()
  const url = await begun(null)
  const send = (from: number, to: number, length: boolean) =>
    at.world.teacher.call('PATCH', url, new Uint8Array(bytes.subarray(from, to)), {
      ...part,
      'upload-offset': String(from),
      ...(length ? { 'upload-length': String(bytes.length) } : {}),
    })
  expect((await send(0, 1000, false)).status).toBe(204)
  // Its length arrives, and of the piece only a part.
  expect((await send(1000, 3000, true)).status).toBe(204)
  const last = await send(3000, bytes.length, true)
  expect([last.status, last.body]).toEqual([204, { text: '' }])
  expect(last.headers.get('awlbox-take')).toMatch(/^[0-9a-f-]{36}$/)
})

test('a take that was written down and never given to anybody to prepare is prepared when Awlbox starts', async () => {
  const original = await at.app.blobs.put(at.app.db, tone(), 'audio/wav')
  const id = await addTake(at.app.db, {
    lessonId: at.world.here.lessonId,
    segmentId: show.id,
    source: 'uploaded',
    original,
  })
  await at.app.db.update(takeTable).set({ status: 'preparing' }).where(eq(takeTable.id, id))
  await finishLeftOver(at.app, uploadStore(at.app))
  expect(await jobsOf(id)).toHaveLength(1)
})

test('while the record store is away nothing of an upload is lost', async () => {
  const { url, id } = await leftWhole()
  const store = uploadStore(at.app)
  const gone = Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' })
  const away: Services = {
    ...at.app,
    db: new Proxy(at.app.db, {
      get: (db, name) =>
        name === 'transaction' ? () => Promise.reject(gone) : (Reflect.get(db, name) as unknown),
    }),
  }
  await expect(finishUpload(away, store, await store.getUpload(id))).rejects.toThrow('ECONNREFUSED')
  expect(pieces(id)).toBe(true)
  expect((await head(url)).headers.get('awlbox-take')).toMatch(/^[0-9a-f-]{36}$/)
})

test('what is refused is refused as a problem, in words', async () => {
  const url = await begun(500)
  const refusals = [
    await at.world.teacher.call('PATCH', url, new Uint8Array(10), { ...part, 'upload-offset': '77' }),
    await at.world.teacher.call('PATCH', `${url}0`, new Uint8Array(10), { ...part, 'upload-offset': '0' }),
    await at.world.teacher.call('POST', '/api/uploads', undefined, { ...tus, 'upload-length': 'many' }),
    await at.world.teacher.call('POST', '/api/uploads', undefined, { 'upload-length': '5' }),
    await at.world.nobody.call('POST', '/api/uploads', undefined, { ...tus, 'upload-length': '5' }),
    await at.world.teacher.call('GET', url, undefined, tus),
  ]
  expect(
    refusals.map((r) => [r.status, r.headers.get('content-type')?.split(';')[0], typeof r.body.detail]),
  ).toEqual([409, 404, 400, 412, 401, 405].map((s) => [s, 'application/problem+json', 'string']))
})
