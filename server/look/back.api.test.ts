import { randomUUID } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import { beforeAll, describe, expect, test } from 'vitest'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import type { ClassStanding } from '@awlbox/core/contracts/api/next'
import { emptyReading, type PhotoReading } from '@awlbox/core/contracts/reading'
import { children, corrections, households, photos, standings } from '../platform/schema.ts'
import { homeToken } from '../platform/tokens.ts'
import { openLinks } from '../send/store.ts'
import { testWorld } from '../testing.ts'

const at = testWorld()
interface Task {
  id: string
  kind: string
  slots: string[]
}
let tasks: Task[]
let pack: string
/** Three children of one class, each in a home of its own. */
let kids: { id: string; name: string; token: string }[]
const home = (n: number) => `/api/home/${kids[n]!.token}`
const send = (n: number, answers: object[], more: object = {}) =>
  at.world.nobody.call('PUT', `${home(n)}/packs/${pack}/reply`, {
    childId: kids[n]!.id,
    key: randomUUID(),
    answers,
    help: 'alone',
    way: 'things',
    words: '',
    ...more,
  })
const replies = async (query = ''): Promise<ReplyRecord[]> =>
  (await at.world.teacher.call('GET', `${at.lesson}/replies${query}`)).body.items as ReplyRecord[]
const of = async (n: number): Promise<ReplyRecord> =>
  (await replies()).find((r) => r.childId === kids[n]!.id)!
const judged = { level: 'secure', help: 'alone', rung: 'things' }
const standing = async (): Promise<ClassStanding> =>
  (await at.world.teacher.call('GET', `/api/classes/${at.world.here.classId}/standing`))
    .body as unknown as ClassStanding

beforeAll(async () => {
  const { teacher, nobody, here } = at.world
  const { db, secret } = at.app
  const homes = await db
    .insert(households)
    .values(['Tanner Row', 'Quay Street'].map((name) => ({ settingId: here.setting.id, name })))
    .returning()
  const more = await db
    .insert(children)
    .values(
      homes.map((h, i) => ({
        classId: here.classId,
        householdId: h.id,
        given: ['Otis', 'Zuri'][i]!,
        name: ['Otis', 'Zuri'][i]!,
      })),
    )
    .returning()
  await openLinks(
    db,
    secret,
    homes.map((h) => h.id),
  )
  kids = [
    { ...here.kids[0]!, token: here.tokens[0]! },
    ...more.map((c) => ({ id: c.id, name: c.name, token: homeToken(secret, c.householdId, 1) })),
  ]
  await teacher.call('POST', `${at.lesson}/publish`, { withFilm: false })
  pack = ((await nobody.call('GET', home(0))).body.packs as { id: string }[])[0]!.id
  tasks = ((await nobody.call('GET', `${home(0)}/packs/${pack}`)).body.pack as { tasks: Task[] }).tasks
  for (const n of [0, 1]) expect((await send(n, [])).status).toBe(200)
})

describe('a question sent back', () => {
  test('opens what was looked at for another answer, stands on the home’s page, and closes when it is answered', async () => {
    const { teacher, nobody } = at.world
    const reply = await of(0)
    expect((await teacher.call('POST', `/api/replies/${reply.id}/judgements`, judged)).status).toBe(200)
    expect((await send(0, [], { words: 'changed' })).status).toBe(409)
    const taskId = tasks[0]!.id
    expect(
      (
        await teacher.call('POST', `/api/replies/${reply.id}/askings`, {
          taskId,
          words: 'From above, please?',
        })
      ).status,
    ).toBe(200)
    const seen = async () =>
      (
        (await nobody.call('GET', `${home(0)}/packs/${pack}`)).body.replies as {
          looked: boolean
          asked: { taskId: string; words: string }[]
        }[]
      )[0]!
    expect(await seen()).toMatchObject({ looked: false, asked: [{ taskId, words: 'From above, please?' }] })
    expect((await send(0, [{ taskId, kind: tasks[0]!.kind, text: '7' }])).status).toBe(200)
    expect(await seen()).toMatchObject({ looked: true, asked: [] })
    expect((await of(0)).askings).toMatchObject([{ taskId, answered: true }])
    // Looked at once more: it no longer changes.
    expect((await send(0, [])).status).toBe(409)
  })
})

describe('words back', () => {
  test('are drafted from facts, kept unseen until they are sent, and then stand on the home’s page', async () => {
    const { teacher, nobody } = at.world
    const reply = await of(1)
    const draft = (await teacher.call('GET', `/api/replies/${reply.id}/feedback`)).body as {
      body: string
      language: string
    }
    expect(draft.body.length).toBeGreaterThan(20)
    const onPage = async () =>
      (
        (await nobody.call('GET', `${home(1)}/packs/${pack}`)).body.replies as { feedback: string | null }[]
      )[0]!.feedback
    await teacher.call('PUT', `/api/replies/${reply.id}/feedback`, {
      body: 'You moved each one.',
      send: false,
    })
    expect(await onPage()).toBeNull()
    await teacher.call('PUT', `/api/replies/${reply.id}/feedback`, {
      body: 'You moved each one as you counted.',
      send: true,
    })
    expect(await onPage()).toBe('You moved each one as you counted.')
    expect((await of(1)).feedback?.sentAt).not.toBeNull()
    const letters = (await teacher.call('GET', `${at.lesson}/letters`)).body.items as {
      kind: string
      body: string
    }[]
    expect(letters.find((l) => l.kind === 'feedback')?.body).toContain('You moved each one as you counted.')
  })
})

describe('several judged at once', () => {
  test('only those nobody judged meanwhile; the others are named and stay', async () => {
    const { teacher } = at.world
    const [first, second] = [await of(0), await of(1)]
    const got = await teacher.call('POST', `${at.lesson}/judgements`, {
      judgements: [first, second].map((r) => ({ replyId: r.id, ...judged, level: 'nearly' })),
    })
    expect(got.body).toEqual({ judged: [second.id], left: [first.id] })
    expect((await of(0)).judgements[0]!.level).toBe('secure')
  })
})

describe('a reading put right by hand', () => {
  test('stands before the reading, is never read over, and moves the standing', async () => {
    const { teacher } = at.world
    const { db } = at.app
    const reading: PhotoReading = {
      ...emptyReading({ width: 40, height: 30 }),
      count: 3,
      low: 2,
      high: 4,
      places: [3],
      warnings: ['touching'],
    }
    const sharp = (await import('sharp')).default
    const form = new FormData()
    const jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#a96' } })
      .jpeg()
      .toBuffer()
    form.set('photo', new Blob([new Uint8Array(jpeg)]), 'a.jpg')
    const photo = (await at.world.nobody.call('POST', `${home(2)}/packs/${pack}/photos`, form)).body
      .id as string
    const task = tasks.find((t) => t.kind === 'photo')!
    expect((await send(2, [{ taskId: task.id, kind: 'photo', photoId: photo }])).status).toBe(200)
    await db.update(photos).set({ reading }).where(eq(photos.id, photo))
    await standing()
    const kept = async () =>
      (
        await db
          .select({ kept: standings.kept })
          .from(standings)
          .where(and(eq(standings.childId, kids[2]!.id)))
      )[0]!.kept
    expect(await kept()).not.toBeNull()
    const thing = (x: number) => ({ x, y: 10, r: 3, colour: 'blue', cutOff: false })
    const put = await teacher.call('POST', `/api/photos/${photo}/correction`, {
      things: [thing(5), thing(15), thing(25), thing(35)],
    })
    expect((put.body.reading as PhotoReading).count).toBe(4)
    expect(await kept()).toBeNull()
    // A newer reader reads again: what a person saw stands.
    await db
      .update(photos)
      .set({ reading: { ...reading, count: 9 } })
      .where(eq(photos.id, photo))
    const shown = (await of(2)).photos[0]!
    expect([shown.corrected, shown.reading?.count, shown.reading?.low]).toEqual([true, 4, 4])
    const counts = (await teacher.call('GET', '/api/corrections')).body as {
      corrected: number
      byKind: { kind: string; corrected: number }[]
    }
    expect(counts.corrected).toBe(1)
    expect(counts.byKind.find((k) => k.kind === 'touching')?.corrected).toBe(1)
    expect(
      (await teacher.call('POST', `/api/photos/${photo}/correction`, { things: [thing(500)] })).status,
    ).toBe(400)
    expect(await db.select().from(corrections)).toHaveLength(1)
  })
})

describe('standing', () => {
  test('is kept until its evidence changes, and opens to what it rests on', async () => {
    const { teacher } = at.world
    const now = await standing()
    const idea = now.idea
    const row = now.rows.find((r) => r.childId === kids[0]!.id)!
    expect(row.ideas[idea]).toMatchObject({ word: 'secure', judged: true, ready: false })
    const opened = (await teacher.call('GET', `/api/children/${kids[0]!.id}/ideas/${idea}/evidence`))
      .body as { trail: { kind: string }[] }
    expect(opened.trail.some((t) => t.kind === 'judgement')).toBe(true)
  })
  test('what a teacher says of the child stands above what was sent, and nothing before is lost', async () => {
    const { teacher, colleague } = at.world
    const { idea } = await standing()
    const path = `/api/children/${kids[0]!.id}/ideas/${idea}`
    expect((await colleague.call('POST', `${path}/override`, { level: 'not yet' })).status).toBe(403)
    await teacher.call('POST', `${path}/override`, { level: 'not yet', note: 'lost it over the holidays' })
    const row = (await standing()).rows.find((r) => r.childId === kids[0]!.id)!
    expect(row.ideas[idea]).toMatchObject({ word: 'not yet', judged: true, ready: false })
    const { trail } = (await teacher.call('GET', `${path}/evidence`)).body as {
      trail: { kind: string; words: string }[]
    }
    expect(trail.map((t) => t.kind)).toEqual(expect.arrayContaining(['override', 'judgement']))
    await teacher.call('POST', `${path}/override`, { level: 'secure' })
    expect((await standing()).rows.find((r) => r.childId === kids[0]!.id)!.ideas[idea]).toMatchObject({
      word: 'secure',
      ready: true,
    })
  })
})

describe('two judges', () => {
  test('the second sees nothing of the first, each reply once; then both see, and settle', async () => {
    const { teacher, colleague } = at.world
    const { colleagues } = (await teacher.call('GET', `${at.lesson}/second-rounds`)).body as {
      colleagues: { id: string; name: string }[]
    }
    const secondId = colleagues.find((c) => c.name === 'Desh')!.id
    const { id } = (await teacher.call('POST', `${at.lesson}/second-rounds`, { secondId, many: 2 })).body as {
      id: string
    }
    const round = async () =>
      (
        (await colleague.call('GET', `${at.lesson}/second-rounds`)).body.items as {
          id: string
          mine: boolean
          replyIds: string[]
          result: {
            differ: { replyId: string; first: string; second: string; settled: string | null }[]
          } | null
        }[]
      ).find((r) => r.id === id)!
    const open = await round()
    expect([open.mine, open.replyIds.length, open.result]).toEqual([true, 2, null])
    type Next = { reply: { id: string; judgements: unknown[]; feedback: unknown } | null }
    const next = async () =>
      (await colleague.call('GET', `/api/second-rounds/${id}/next`)).body as unknown as Next
    expect((await teacher.call('GET', `/api/second-rounds/${id}/next`)).status).toBe(403)
    for (const replyId of open.replyIds) {
      // Nothing of the first judgement is in what the second judge is given.
      expect((await next()).reply).toMatchObject({ id: replyId, judgements: [], feedback: null })
      const said = { replyId, level: 'not yet', help: 'alone', rung: 'things' }
      expect((await teacher.call('POST', `/api/second-rounds/${id}/judgements`, said)).status).toBe(403)
      expect((await colleague.call('POST', `/api/second-rounds/${id}/judgements`, said)).status).toBe(200)
      expect((await colleague.call('POST', `/api/second-rounds/${id}/judgements`, said)).status).toBe(409)
    }
    expect((await next()).reply).toBeNull()
    const done = await round()
    expect(done.result!.differ.map((d) => d.second)).toEqual(['not yet', 'not yet'])
    const { replyId, first } = done.result!.differ[0]!
    await teacher.call('POST', `/api/second-rounds/${id}/settlements`, {
      replyId,
      level: 'nearly',
      words: 'the second photo shows it',
    })
    const again = { replyId, level: 'secure' }
    expect((await teacher.call('POST', `/api/second-rounds/${id}/settlements`, again)).status).toBe(409)
    const after = (await round()).result!.differ.find((d) => d.replyId === replyId)!
    expect([after.first, after.settled]).toEqual([first, 'nearly'])
    const reply = (await replies()).find((r) => r.id === replyId)!
    expect(reply.judgements.map((j) => j.level)).toEqual([
      'nearly',
      expect.stringMatching(/secure|nearly/) as string,
    ])
  })
})

describe('comparing pairs', () => {
  test('gives pairs until the scale stands, and takes none that are not of this lesson', async () => {
    const { teacher } = at.world
    type Pairs = { pair: [string, string] | null; scale: { replyId: string; place: number }[] }
    const pairs = async () => (await teacher.call('GET', `${at.lesson}/pairs`)).body as unknown as Pairs
    const best = [...(await replies()).map((r) => r.id)].sort()[0]!
    for (let k = 0; k < 10; k++) {
      const { pair } = await pairs()
      if (!pair) break
      const [better, other] = [...pair].sort()
      expect(
        (await teacher.call('POST', `${at.lesson}/pairs`, { betterId: better, otherId: other })).status,
      ).toBe(200)
    }
    const done = await pairs()
    expect([done.pair, done.scale[0]!.replyId]).toEqual([null, best])
    expect(
      (await teacher.call('POST', `${at.lesson}/pairs`, { betterId: best, otherId: randomUUID() })).status,
    ).toBe(404)
  })
})

describe('what is taken along, and what comes next', () => {
  test('tables and statements hold what was judged and answered; formulas are taken for words', async () => {
    const { teacher, here } = at.world
    const get = async (what: string) =>
      String((await teacher.call('GET', `/api/classes/${here.classId}/${what}`)).body.text)
    expect(await get('judgements.csv')).toMatch(/^at,child,lesson,idea/)
    expect((await get('standings.csv')).split('\n').length).toBeGreaterThan(2)
    const lines = (await get('statements.jsonl'))
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as { actor: { account: { name: string } }; verb: { id: string } })
    expect(lines.length).toBeGreaterThan(1)
    // No name of a child leaves in a statement.
    expect(JSON.stringify(lines)).not.toContain(kids[0]!.name)
  })
  test('the next lesson is drafted whole, in one call', async () => {
    const { teacher, here } = at.world
    const { idea } = await standing()
    const { id } = (
      await teacher.call('POST', `/api/classes/${here.classId}/next-lesson`, {
        ideaId: idea,
        day: '2026-12-03',
      })
    ).body as { id: string }
    const { doc } = (await teacher.call('GET', `/api/lessons/${id}`)).body as {
      doc: { ideaId: string; segments: unknown[]; carried: string[] }
    }
    expect([doc.ideaId, doc.segments.length > 3, Array.isArray(doc.carried)]).toEqual([idea, true, true])
    expect(
      (
        await teacher.call('POST', `/api/classes/${here.classId}/next-lesson`, {
          ideaId: 'no-such-idea',
          day: '2026-12-03',
        })
      ).status,
    ).toBe(404)
  })
  test('a report is a PDF', async () => {
    const { teacher } = at.world
    const got = await teacher.call('GET', `/api/children/${kids[0]!.id}/report`)
    expect(got.status).toBe(200)
  })
})
