import { randomUUID } from 'node:crypto'
import { expect, test } from 'vitest'
import type { LiveDesk, LiveSeen } from '@awlbox/core/contracts/api/live'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import type { LiveAct } from '@awlbox/core/contracts/live'
import { grace } from '@awlbox/core/live/state'
import { eventsOf } from '../../standins/events.ts'
import { makeApp } from '../app.ts'
import { createLesson } from '../lessons/store.ts'
import { children, households } from '../platform/schema.ts'
import { homeToken } from '../platform/tokens.ts'
import { openLinks } from '../send/store.ts'
import { type Caller, caller, sampleLesson, testWorld, until } from '../testing.ts'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { AddressInfo } from 'node:net'

const w = testWorld()

/** A lesson with one question, a stop, and a task for home. */
const doc: Lesson = {
  ...sampleLesson('Parcels, live'),
  segments: [
    {
      id: 'hello',
      title: 'Hello',
      kind: 'hook',
      audience: 'children',
      steps: [{ id: 'h1', verb: 'say', text: 'Hello from Bobbin.' }],
    },
    {
      id: 'ask',
      title: 'How many',
      kind: 'show',
      audience: 'children',
      steps: [
        { id: 'a1', verb: 'do', text: 'Put 7 on the frame' },
        { id: 'a2', verb: 'ask', text: 'How many parcels?', task: { kind: 'number', answer: 7 } },
        { id: 'a3', verb: 'say', text: 'Seven.' },
      ],
    },
    {
      id: 'home',
      title: 'At home',
      kind: 'home task',
      audience: 'children',
      steps: [{ id: 't1', verb: 'ask', text: 'Put out seven spoons.', task: { kind: 'photo', things: 7 } }],
    },
  ],
}
interface Joined {
  liveId: string
  homes: { token: string; childId: string; householdId: string }[]
  /** Does acts one after another, as the desk that leads. */
  act: (...acts: LiveAct[]) => Promise<number>
}
/** A live lesson of a class of its own, with so many homes, at its hour. */
async function liveWith(
  count: number,
  change: Record<string, unknown> = {},
  by: Caller = w.world.teacher,
): Promise<Joined> {
  const { here } = w.world
  const cls = (
    await w.world.owner.call('POST', '/api/classes', {
      name: `Live ${randomUUID().slice(0, 8)}`,
      age: 4,
      teacherId: here.teacher(),
    })
  ).body.id as string
  const homes = count
    ? await w.app.db
        .insert(households)
        .values(
          Array.from({ length: count }, (_, i) => ({
            settingId: here.setting.id,
            name: `${cls.slice(0, 6)} ${i + 1} Mill Row`,
          })),
        )
        .returning()
    : []
  const kids = count
    ? await w.app.db
        .insert(children)
        .values(
          homes.map((h, i) => ({
            classId: cls,
            householdId: h.id,
            given: `Child ${i + 1}`,
            name: `Child ${i + 1}`,
          })),
        )
        .returning()
    : []
  await openLinks(
    w.app.db,
    w.app.secret,
    homes.map((h) => h.id),
  )
  const lessonId = await createLesson(w.app.db, {
    classId: cls,
    day: '2026-11-28',
    doc,
    byId: here.teacher(),
    style: defaultHouseStyle,
  })
  const made = await by.call('POST', `/api/lessons/${lessonId}/live`, {
    startsAt: new Date().toISOString(),
    minutes: 20,
    ...change,
  })
  const liveId = made.body.id as string
  let seq = 0
  return {
    liveId,
    homes: homes.map((h, i) => ({
      token: homeToken(w.app.secret, h.id, 1),
      childId: kids[i]!.id,
      householdId: h.id,
    })),
    async act(...acts) {
      for (const one of acts) {
        const r = await by.call('POST', `/api/live/${liveId}/acts`, { seq, desk: 'one', act: one })
        if (r.status !== 200) throw new Error(JSON.stringify(r.body))
        seq = r.body.seq as number
      }
      return seq
    },
  }
}
/** What comes over a stream of events, until it is closed. */
function following<T>(path: string, { cookie = '', address = w.app.address } = {}) {
  const stop = new AbortController()
  const news: T[] = []
  const ended = (async () => {
    for await (const one of eventsOf<T>(address + path, { cookie, signal: stop.signal })) news.push(one)
    return 'closed'
  })().catch((error: unknown) => String(error))
  return { news, close: () => stop.abort(), ended }
}
const homePath = (l: Joined, i: number): string => `/api/home/${l.homes[i]!.token}/live/${l.liveId}`
const answer = (
  l: Joined,
  i: number,
  round: string,
  { text, ...more }: { text: string } & Record<string, unknown>,
) =>
  caller(w.app.address).call('PUT', `${homePath(l, i)}/rounds/${round}`, {
    childId: l.homes[i]!.childId,
    key: randomUUID(),
    answer: { taskId: round, kind: 'number', text },
    ...more,
  })
const readDesk = async (l: Joined) =>
  (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body as unknown as LiveDesk
const begin = [
  { do: 'start' },
  { do: 'go', line: 2 },
  { do: 'round', line: 2, show: 'card', think: 0 },
] as const satisfies LiveAct[]

test('three homes and a desk: asked, answered, shown all at once, told by answer, and left to be looked at', async () => {
  const l = await liveWith(3)
  const pages = l.homes.map((_, i) => following<LiveSeen>(`${homePath(l, i)}/follow?device=d${i}`))
  const desk = following<LiveDesk>(`/api/live/${l.liveId}/follow`, { cookie: w.world.teacher.cookie })
  await until('all three here', async () => desk.news.at(-1)?.children.filter((c) => c.here).length === 3)
  await l.act(...begin)
  for (const p of pages)
    await until('the question', async () => p.news.at(-1)?.round?.prompt === 'How many parcels?')
  expect(JSON.stringify(pages[0]!.news)).not.toContain('"answer"')
  expect((await answer(l, 0, 'r1', { text: '7' })).body).toEqual({ late: false, kept: 'this' })
  await answer(l, 1, 'r1', { text: '6' })
  await until('two have sent', async () => desk.news.at(-1)?.tally?.sent.length === 2)
  // What they gave stays shut until all is shown.
  expect(desk.news.at(-1)!.tally!.rows).toEqual([])
  expect(JSON.stringify((await readDesk(l)).tally)).not.toContain('"shown":"7"')
  await l.act({ do: 'show' })
  const told = await until('the tally', async () => desk.news.at(-1)?.tally?.shown && desk.news.at(-1)!.tally)
  expect(told.rows.map((r) => [r.shown, r.verdict, r.children.length])).toEqual([
    ['6', 'wrong', 1],
    ['7', 'right', 1],
  ])
  expect(told.rows[0]!.perhaps).toBeTruthy()
  expect(told.silent).toEqual([l.homes[2]!.childId])
  await l.act({ do: 'note', text: 'Counted on his fingers' }, { do: 'end' })
  for (const p of pages) await until('over', async () => p.news.at(-1)?.phase === 'over')
  for (const p of [...pages, desk]) p.close()

  const afterwards = (await w.world.teacher.call('GET', `/api/live/${l.liveId}/after`)).body
  expect(afterwards.attendance).toHaveLength(3)
  expect(afterwards.missed).toEqual([])
  const record = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  const replies = (await w.world.teacher.call('GET', `/api/lessons/${record.lessonId as string}/replies`))
    .body.items as {
    tasks?: unknown
    checks?: { check: { shown: string; verdict: string } }[]
    child: string
  }[]
  expect(replies.map((r) => r.child).sort()).toEqual(['Child 1', 'Child 2'])
  // The task that was kept for home waits on their pages.
  const pack = (
    await caller(w.app.address).call(
      'GET',
      `/api/home/${l.homes[2]!.token}/packs/${record.publicationId as string}`,
    )
  ).body
  expect((pack.pack as { tasks: { prompt: string }[] }).tasks.map((t) => t.prompt)).toEqual([
    'How many parcels?',
    'Put out seven spoons.',
  ])
  const standing = (
    await w.world.teacher.call('GET', `/api/children/${l.homes[0]!.childId}/ideas/parts-7/evidence`)
  ).body
  expect(JSON.stringify(standing)).toContain('How many parcels?')
})
test('before the thinking is over nothing is taken; after all at once it is late and kept; twice is once; what was taken back is told', async () => {
  const l = await liveWith(2)
  await l.act({ do: 'start' }, { do: 'go', line: 2 }, { do: 'round', line: 2, show: 'card', think: 60 })
  const early = await answer(l, 0, 'r1', { text: '7' })
  expect([early.status, early.body.title]).toEqual([425, 'Still thinking'])
  await l.act({ do: 'undo' }, { do: 'round', line: 2, show: 'card', think: 0 })
  expect((await answer(l, 0, 'r1', { text: '7' })).status).toBe(409)
  const key = randomUUID()
  const once = await answer(l, 0, 'r2', { text: '7', key })
  const twice = await answer(l, 0, 'r2', { text: '7', key })
  expect([once.body, twice.body]).toEqual([
    { late: false, kept: 'this' },
    { late: false, kept: 'this' },
  ])
  // Another device of the home: the newest stands while it is open.
  await answer(l, 0, 'r2', { text: '5' })
  await l.act({ do: 'go', line: 3 })
  const { closed } = (await readDesk(l)).state.rounds[1]!
  await until('past what a slow connection is allowed', () => Promise.resolve(Date.now() > closed! + grace))
  expect((await answer(l, 1, 'r2', { text: '6' })).body).toEqual({ late: true, kept: 'this' })
  // What came in time and is sent again is as it was.
  expect((await answer(l, 1, 'r2', { text: '6' })).body.kept).toBe('first')
  expect((await answer(l, 0, 'r2', { text: '9' })).body).toEqual({ late: true, kept: 'first' })
  const { tally } = await readDesk(l)
  expect(tally!.rows.map((r) => r.shown).sort()).toEqual(['5', '6'])
  expect(tally!.late).toEqual([l.homes[1]!.childId])
  // And when all is over, what a phone still held joins its reply.
  await l.act({ do: 'round', line: 2, show: 'card', think: 0 }, { do: 'end' })
  expect((await answer(l, 0, 'r3', { text: '7' })).body.kept).toBe('this')
  const record = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  const { items } = (await w.world.teacher.call('GET', `/api/lessons/${record.lessonId as string}/replies`))
    .body as {
    items: { childId: string; answers: { taskId: string }[] }[]
  }
  expect(items.find((r) => r.childId === l.homes[0]!.childId)!.answers.map((a) => a.taskId)).toEqual([
    'r2',
    'r3',
  ])
})
test('a home sees its own child alone, and answers for no other; another class’s home does not come in', async () => {
  const l = await liveWith(2)
  await l.act(...begin)
  await answer(l, 0, 'r1', { text: '7' })
  const own = (await caller(w.app.address).call('GET', homePath(l, 0))).body as {
    children: { name: string }[]
    mine: unknown[]
  }
  const other = (await caller(w.app.address).call('GET', homePath(l, 1))).body as { mine: unknown[] }
  expect([own.children.map((c) => c.name), own.mine.length, other.mine]).toEqual([['Child 1'], 1, []])
  expect((await answer(l, 0, 'r1', { text: '7', childId: l.homes[1]!.childId })).status).toBe(404)
  const stranger = w.world.here.tokens[0]!
  expect((await caller(w.app.address).call('GET', `/api/home/${stranger}/live/${l.liveId}`)).status).toBe(404)
})
test('it opens five minutes before its hour; a link that is ended is closed in the middle; what is called off is gone', async () => {
  const far = await liveWith(1, { startsAt: new Date(Date.now() + 3_600_000).toISOString() })
  const before = (await caller(w.app.address).call('GET', homePath(far, 0))).body.live as {
    open: boolean
    opensIn: number
  }
  expect(before.open).toBe(false)
  expect(Math.abs(before.opensIn - 55 * 60_000)).toBeLessThan(60_000)
  expect((await caller(w.app.address).call('GET', `${homePath(far, 0)}/follow`)).status).toBe(409)
  await w.world.teacher.call('PUT', `/api/live/${far.liveId}`, {
    startsAt: new Date(Date.now() + 200_000).toISOString(),
  })
  expect(
    ((await caller(w.app.address).call('GET', homePath(far, 0))).body.live as { open: boolean }).open,
  ).toBe(true)
  await w.world.teacher.call('PUT', `/api/live/${far.liveId}`, { calledOff: true })
  expect((await caller(w.app.address).call('GET', homePath(far, 0))).status).toBe(410)
  const calendar = (await w.world.teacher.call('GET', `/api/live/${far.liveId}/calendar.ics`)).body
    .text as string
  expect(calendar).toContain('STATUS:CANCELLED')

  const l = await liveWith(2)
  await l.act(...begin)
  const page = following<LiveSeen>(`${homePath(l, 0)}/follow`)
  await until('here', async () => page.news.length > 0)
  await w.world.owner.call('DELETE', `/api/households/${l.homes[0]!.householdId}/link`)
  expect((await answer(l, 0, 'r1', { text: '7' })).status).toBe(404)
  expect(await page.ended).toBe('closed')
  expect((await answer(l, 1, 'r1', { text: '7' })).status).toBe(200)
})
test('two desks: the second watches, is told why it cannot lead, and takes over; an act that saw an older state does nothing', async () => {
  const l = await liveWith(1)
  await l.act(...begin)
  const second = (seq: number, act: LiveAct, as = w.world.owner) =>
    as.call('POST', `/api/live/${l.liveId}/acts`, { seq, desk: 'two', act })
  const refused = await second(3, { do: 'go', line: 3 })
  expect([refused.status, refused.body.title]).toEqual([409, 'Another desk leads'])
  expect((await second(0, { do: 'lead' })).body.seq).toBe(4)
  expect((await second(3, { do: 'go', line: 3 })).body.title).toBe('Another desk was quicker')
  expect((await second(4, { do: 'go', line: 3 })).body.seq).toBe(5)
  await expect(l.act({ do: 'go', line: 1 })).rejects.toThrow('Another desk leads')
  expect((await readDesk(l)).state.line).toBe(3)
  expect((await second(5, { do: 'go', line: 2 }, w.world.colleague)).status).toBe(403)
})
test('two web processes behind one database are one: what is done at one reaches pages at the other, and answers count at both', async () => {
  const l = await liveWith(2)
  const other = makeApp(w.app).listen(0, '127.0.0.1')
  await new Promise((resolve) => other.once('listening', resolve))
  const address = `http://127.0.0.1:${(other.address() as AddressInfo).port}`
  try {
    const far = following<LiveSeen>(`${homePath(l, 1)}/follow`, { address })
    await until('the page there', async () => far.news.length > 0)
    await l.act(...begin)
    await until('the question over there', async () => far.news.at(-1)?.round?.id === 'r1')
    const sent = await caller(address).call('PUT', `${homePath(l, 1)}/rounds/r1`, {
      childId: l.homes[1]!.childId,
      key: randomUUID(),
      answer: { taskId: 'r1', kind: 'number', text: '7' },
    })
    expect(sent.status).toBe(200)
    expect((await readDesk(l)).tally!.sent).toEqual([l.homes[1]!.childId])
    // And over there it leads on where it stood here.
    const led = await caller(address, w.world.teacher.cookie).call('POST', `/api/live/${l.liveId}/acts`, {
      seq: 3,
      desk: 'one',
      act: { do: 'show' },
    })
    expect(led.body.seq).toBe(4)
    far.close()
  } finally {
    other.closeAllConnections()
    other.close()
  }
})
test('a script that changes while it is live stays as it was there; before it begins the newer one can be taken', async () => {
  const l = await liveWith(1)
  const record = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  const lessonId = record.lessonId as string
  const changed: Lesson = { ...doc, segments: doc.segments.map((s) => ({ ...s, title: `${s.title}, anew` })) }
  expect(
    (await w.world.teacher.call('PUT', `/api/lessons/${lessonId}/doc`, { revision: 1, doc: changed })).status,
  ).toBe(200)
  const was = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  expect([(was.doc as Lesson).segments[0]!.title, was.revision, was.newest]).toEqual(['Hello', 1, 2])
  await w.world.teacher.call('PUT', `/api/live/${l.liveId}`, { renew: true })
  const now = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  expect([(now.doc as Lesson).segments[0]!.title, now.revision]).toEqual(['Hello, anew', 2])
  const seq = (now.state as { seq: number }).seq
  expect(
    (
      await w.world.teacher.call('POST', `/api/live/${l.liveId}/acts`, {
        seq,
        desk: 'one',
        act: { do: 'start' },
      })
    ).status,
  ).toBe(200)
  expect((await w.world.teacher.call('PUT', `/api/live/${l.liveId}`, { renew: true })).status).toBe(409)
})
test('a class of none can be rehearsed alone: rounds are asked, nobody answers, and nothing is left', async () => {
  const l = await liveWith(0, { rehearsal: true })
  await l.act(...begin, { do: 'show' }, { do: 'end' })
  const record = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  expect([record.publicationId, (record.children as unknown[]).length]).toEqual([null, 0])
  expect(
    (await w.world.teacher.call('GET', `/api/lessons/${record.lessonId as string}/replies`)).body.items,
  ).toEqual([])
})
test('a rehearsal with answers leaves no reply of any child', async () => {
  const l = await liveWith(1, { rehearsal: true })
  await l.act(...begin)
  expect((await answer(l, 0, 'r1', { text: '7' })).status).toBe(200)
  expect(
    ((await caller(w.app.address).call('GET', `/api/home/${l.homes[0]!.token}/live`)).body.items as unknown[])
      .length,
  ).toBe(0)
  await l.act({ do: 'end' })
  const record = (await w.world.teacher.call('GET', `/api/live/${l.liveId}`)).body
  expect(
    (await w.world.teacher.call('GET', `/api/lessons/${record.lessonId as string}/replies`)).body.items,
  ).toEqual([])
})
test('a game at the desk: the device throws what can come, homes answer it, a real throw is taken as it was', async () => {
  const l = await liveWith(1)
  await l.act({ do: 'start' }, { do: 'game', game: { kind: 'to and fro', total: 7 } })
  const thrown = await w.world.teacher.call('POST', `/api/live/${l.liveId}/throw`, {
    seq: 2,
    desk: 'one',
    show: 'card',
    think: 0,
  })
  const said = (thrown.body.thrown as number[])[0]!
  expect((await answer(l, 0, 'r1', { text: String(7 - said) })).status).toBe(200)
  const next = await w.world.teacher.call('POST', `/api/live/${l.liveId}/acts`, {
    seq: 3,
    desk: 'one',
    act: { do: 'play', thrown: [2], real: true, show: 'card', think: 0 },
  })
  expect(next.status).toBe(200)
  const desk = await readDesk(l)
  expect(desk.state.rounds[1]).toMatchObject({ prompt: 'I say 2. What goes with it to make 7?' })
  expect(desk.last!.rows).toMatchObject([{ shown: String(7 - said), verdict: 'right' }])
  const bad = await w.world.teacher.call('POST', `/api/live/${l.liveId}/acts`, {
    seq: 4,
    desk: 'one',
    act: { do: 'play', thrown: [9], real: true, show: 'card', think: 0 },
  })
  expect([bad.status, bad.body.detail]).toEqual([409, 'That cannot come up in this game.'])
})
