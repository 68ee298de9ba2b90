import { noted } from '../platform/log.ts'
import { describe, expect, test } from 'vitest'
import { makeApp } from '../app.ts'
import { openDb } from '../platform/db.ts'
import { caller, sampleLesson, testWorld } from '../testing.ts'

const t = testWorld()
const open = async () =>
  (await t.world.teacher.call('GET', t.lesson)).body as {
    revision: number
    doc: ReturnType<typeof sampleLesson>
  }

describe('a lesson', () => {
  test('is saved over the revision it was made from; every revision is kept', async () => {
    const { revision, doc } = await open()
    const saved = await t.world.teacher.call('PUT', `${t.lesson}/doc`, {
      revision,
      doc: { ...doc, title: 'Seven, again' },
    })
    expect(saved.body.revision).toBe(revision + 1)
    const list = (await t.world.teacher.call('GET', `${t.lesson}/revisions`)).body.items as {
      revision: number
      by: string
    }[]
    expect(list.map((r) => r.revision)).toEqual([revision + 1, revision])
    expect(list[0]!.by).toBe('Marnie')
    expect(
      ((await t.world.teacher.call('GET', `${t.lesson}/revisions/${revision}`)).body.doc as { title: string })
        .title,
    ).toBe(doc.title)
  })
  test('a stale save gets 409 with both versions and what they grew from, and changes nothing', async () => {
    const { revision, doc } = await open()
    await t.world.teacher.call('PUT', `${t.lesson}/doc`, { revision, doc: { ...doc, title: 'Theirs' } })
    const stale = await t.world.teacher.call('PUT', `${t.lesson}/doc`, {
      revision,
      doc: { ...doc, title: 'Mine' },
    })
    expect(stale.status).toBe(409)
    expect(stale.body).toMatchObject({
      revision: revision + 1,
      doc: { title: 'Theirs' },
      base: { title: doc.title },
    })
    expect((await open()).doc.title).toBe('Theirs')
  })
  test('twenty saves at once of one revision: one holds', async () => {
    const { revision, doc } = await open()
    const all = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        t.world.teacher.call('PUT', `${t.lesson}/doc`, { revision, doc: { ...doc, title: `Race ${i}` } }),
      ),
    )
    expect(all.filter((r) => r.status === 200)).toHaveLength(1)
    expect(all.filter((r) => r.status === 409)).toHaveLength(19)
    expect((await open()).revision).toBe(revision + 1)
  })
  test.each([
    [
      'a wrong verb',
      (d: Record<string, unknown>) => ({
        ...d,
        segments: [
          {
            id: 'a',
            title: 'A',
            kind: 'show',
            audience: 'children',
            steps: [{ id: 'b', verb: 'shout', text: '' }],
          },
        ],
      }),
    ],
    ['an age of 40', (d: Record<string, unknown>) => ({ ...d, age: 40 })],
    ['no title', (d: Record<string, unknown>) => ({ ...d, title: ' ' })],
  ])('a document with %s is refused with words, and nothing changes', async (_, spoil) => {
    const { revision, doc } = await open()
    const r = await t.world.teacher.call('PUT', `${t.lesson}/doc`, { revision, doc: spoil(doc) })
    expect(r.status).toBe(400)
    expect(r.body.detail).toMatch(/Nothing was changed/)
    expect((await open()).revision).toBe(revision)
  })
  test('a body that is no JSON, and one far too large, are refused in words', async () => {
    expect(
      (
        await t.world.teacher.call('PUT', `${t.lesson}/doc`, new TextEncoder().encode('{oops'), {
          'content-type': 'application/json',
        })
      ).body,
    ).toMatchObject({ status: 400 })
    expect(
      (await t.world.teacher.call('PUT', `${t.lesson}/doc`, { revision: 1, doc: 'x'.repeat(5_000_000) }))
        .status,
    ).toBe(413)
  })
  test('history cannot be rewritten', async () => {
    await expect(t.app.pool.query("update lesson_revisions set doc = '{}'")).rejects.toThrow(/append-only/)
  })
})

describe('while the database is away', () => {
  test('a request says so and what is kept', async () => {
    const { db, pool } = openDb('postgres://awlbox@127.0.0.1:1/none')
    const server = makeApp({ ...t.app, db, pool }).listen(0, '127.0.0.1')
    await new Promise((resolve) => server.once('listening', resolve))
    const r = await caller(
      `http://127.0.0.1:${(server.address() as { port: number }).port}`,
      t.world.teacher.cookie,
    ).call('GET', t.lesson)
    expect(r.status).toBe(503)
    expect(r.body.detail).toMatch(/kept here and saved when it is back/)
    server.close()
    await pool.end()
  })
  test('lost connections are opened again by the next request', async () => {
    await t.app.pool
      .query(
        'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
      )
      .catch(noted('our own connection is cut off too'))
    const again = async () => (await t.world.teacher.call('GET', t.lesson)).status
    expect([await again(), await again(), await again()]).toContain(200)
  })
})

test('the shelf orders tonight by what is due and says why', async () => {
  const shelf = (await t.world.teacher.call('GET', '/api/shelf')).body as {
    lessons: unknown[]
    tonight: { label: string; minutes: number; reason: string }[]
  }
  expect(shelf.lessons).toHaveLength(1)
  expect(shelf.tonight[0]).toMatchObject({ label: expect.stringMatching(/^Film \d segments$/) as string })
  expect(shelf.tonight[0]!.minutes).toBeGreaterThan(0)
  expect(shelf.tonight[0]!.reason.length).toBeGreaterThan(5)
})
