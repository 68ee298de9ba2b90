import { once } from 'node:events'
import net from 'node:net'
import os from 'node:os'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { allRoutes } from '@awlbox/core/contracts/api/all'
import { addTake } from './film/store.ts'
import { projectRoot } from './platform/root.ts'
import { children, households, takes } from './platform/schema.ts'
import { homeToken } from './platform/tokens.ts'
import { openLinks } from './send/store.ts'
import { eq } from 'drizzle-orm'
import { shotsAt } from './fuzz.ts'
import { type Caller, caller, sampleLesson, testWorld } from './testing.ts'

const at = testWorld()
/** What no answer may tell: how it is stored, where, or by what. */
const tells = new RegExp(
  [
    /\bselect\b.*\bfrom\b|insert into|update .* set|violates|syntax error at|DrizzleQueryError/,
    /\bat \w+ \(|node_modules|\.ts:\d/,
  ]
    .map((r) => r.source)
    .concat([projectRoot, os.tmpdir()].map((folder) => `${folder}/`))
    .join('|'),
  'i',
)

async function ids(): Promise<Record<string, string>> {
  const { here, teacher } = at.world
  const blob = await at.app.blobs.put(at.app.db, Buffer.from('film'), 'video/mp4')
  const segmentId = sampleLesson().segments[0]!.id
  const takeId = await addTake(at.app.db, {
    lessonId: here.lessonId,
    segmentId,
    source: 'uploaded',
    original: blob,
  })
  await at.app.db.update(takes).set({ film: blob, seconds: 2, status: 'ready' }).where(eq(takes.id, takeId))
  await teacher.call('POST', `/api/lessons/${here.lessonId}/publish`, { withFilm: false })
  const home = caller(at.app.address)
  const packs = (await home.call('GET', `/api/home/${here.tokens[0]}`)).body.packs as { id: string }[]
  return {
    lessonId: here.lessonId,
    classId: here.classId,
    childId: here.kids[0]!.id,
    takeId,
    token: here.tokens[0]!,
    packId: packs[0]!.id,
    segmentId,
    revision: '1',
  }
}
/** Links of homes with a child in the class: one alone would soon be told that it asks too often. */
async function street(n: number): Promise<{ token: string; childId: string }[]> {
  const { app, world } = at
  const made = await app.db
    .insert(households)
    .values(
      Array.from({ length: n }, (_, i) => ({ settingId: world.here.setting.id, name: `Hostile Row ${i}` })),
    )
    .returning({ id: households.id })
  const kids = await app.db
    .insert(children)
    .values(
      made.map((h, i) => ({
        classId: world.here.classId,
        householdId: h.id,
        given: `Child ${i}`,
        name: `Child ${i}`,
      })),
    )
    .returning({ id: children.id, householdId: children.householdId })
  await openLinks(
    app.db,
    app.secret,
    made.map((h) => h.id),
  )
  return kids.map((k) => ({ token: homeToken(app.secret, k.householdId, 1), childId: k.id }))
}
/** How many requests each route gets here; all trials send many more. */
const each = Number(process.env.AWLBOX_FUZZ ?? 8)
const seed = Number(process.env.AWLBOX_SEED ?? 20_261)

test(`no request that is not meant makes a 500, or an answer that tells of the inside (seed ${seed})`, async () => {
  const known = await ids()
  const { teacher, nobody } = at.world
  const homes = await street(12)
  let n = 0
  const wrong: string[] = []
  const statuses = new Map<number, number>()
  // Not what ends the session, or streams for ever.
  for (const { route } of allRoutes.filter((r) => !/sign-out|\/events$|me\/sessions$/.test(r.route.path))) {
    const callers: Record<string, Caller> = { person: teacher, anyone: nobody, home: nobody }
    const home = homes[(n += 1) % homes.length]!
    for (const shot of fc.sample(shotsAt(route, { ...known, ...home }), { numRuns: each, seed })) {
      const r = await callers[shot.who]!.call(shot.method, shot.path, shot.body)
      statuses.set(r.status, (statuses.get(r.status) ?? 0) + 1)
      const text = JSON.stringify(r.body)
      if (r.status >= 500 || (r.status >= 400 && tells.test(text)))
        wrong.push(
          `${r.status} ${shot.method} ${shot.path} ${JSON.stringify(shot.body)?.slice(0, 300)} → ${text.slice(0, 200)}`,
        )
      if (r.status >= 400 && !/problem\+json/.test(r.headers.get('content-type') ?? ''))
        wrong.push(`${r.status} ${shot.method} ${shot.path}: not a problem: ${text.slice(0, 100)}`)
    }
  }
  expect(wrong.slice(0, 12)).toEqual([])
  // It got through: some were answered, some refused.
  expect([...statuses.keys()].sort()).toEqual(expect.arrayContaining([200, 400, 404]))
})

/** A request written out by hand, for what no client library would send. */
async function raw(text: string | Buffer): Promise<{ status: number; text: string }> {
  const { port, hostname } = new URL(at.app.address)
  const socket = net.connect(Number(port), hostname)
  socket.write(text)
  const parts: Buffer[] = []
  socket.on('data', (d: Buffer) => parts.push(d))
  await once(socket, 'close')
  const all = Buffer.concat(parts).toString()
  return { status: Number(all.match(/^HTTP\/1\.1 (\d+)/)?.[1] ?? 0), text: all }
}
const post = (
  path: string,
  headers: Record<string, string>,
  body: Buffer | string,
  cookie = at.world.teacher.cookie,
) => {
  const bytes = Buffer.from(body)
  const lines = Object.entries({
    Host: new URL(at.app.address).host,
    Cookie: cookie,
    Connection: 'close',
    'Content-Length': String(bytes.length),
    ...headers,
  })
  return raw(
    Buffer.concat([
      Buffer.from(`POST ${path} HTTP/1.1\r\n${lines.map(([k, v]) => `${k}: ${v}\r\n`).join('')}\r\n`),
      bytes,
    ]),
  )
}

describe('what a client does wrong is told as that', () => {
  const json = { 'Content-Type': 'application/json' }
  test.each([
    ['an encoding nobody knows', { ...json, 'Content-Encoding': 'squash' }, '{}', 415],
    ['a broken gzip', { ...json, 'Content-Encoding': 'gzip' }, 'not gzip at all', 400],
    ['letters of another kind', { 'Content-Type': 'application/json; charset=klingon' }, '{}', 415],
    ['no JSON', json, '{oops', 400],
    ['a form where JSON is meant', { 'Content-Type': 'application/x-www-form-urlencoded' }, 'a=1', 415],
    ['lists within lists', json, '['.repeat(60_000) + ']'.repeat(60_000), 400],
  ])('%s', async (_, headers, body, status) => {
    const r = await post(`/api/classes/${at.world.here.classId}/lessons`, headers, body)
    expect([r.status, r.text]).toEqual([status, expect.stringContaining('problem+json') as string])
    expect(tells.test(r.text)).toBe(false)
  })
  test.each([
    ['/api/lessons/%E0%A4%A', 400],
    ['/api/lessons/%00', 404],
    ['/api/classes/7/children', 404],
    ['/assets/not-there.js', 404],
    ['/assets/%E0%A4%A.js', 400],
    ['/assets/..%2f..%2fpackage.json', 400],
  ])('GET %s: %i', async (path, status) => {
    const r = await at.world.teacher.call('GET', path)
    expect([r.status, r.headers.get('content-type')]).toEqual([
      status,
      expect.stringContaining('problem+json'),
    ])
  })
  test('a part of a film that is not there', async () => {
    const { takeId } = await ids()
    const r = await at.world.teacher.call('GET', `/api/takes/${takeId}/film`, undefined, {
      range: 'bytes=900-1000',
    })
    expect([r.status, r.headers.get('content-type')]).toEqual([416, expect.stringContaining('problem+json')])
  })
  test('a photo in a field of another name, no form at all, and a form cut off', async () => {
    const { token, packId } = await ids()
    const path = `/api/home/${token}/packs/${packId}/photos`
    const form = new FormData()
    form.append('picture', new Blob(['x']), 'x.jpg')
    const other = await caller(at.app.address).call('POST', path, form)
    expect([other.status, other.body.title]).toEqual([400, 'No photo'])
    const none = await post(path, { 'Content-Type': 'text/plain' }, 'hello', '')
    expect(none.status).toBe(400)
    const cut = await post(
      path,
      { 'Content-Type': 'multipart/form-data; boundary=xx' },
      '--xx\r\nContent-Disposition: form-data; name="photo"; filename="a.jpg"\r\n\r\nabc',
      '',
    )
    expect([cut.status, cut.text]).toEqual([400, expect.stringContaining('kept')])
  })
  test('words of a home with signs no database keeps are kept without them', async () => {
    const { token, packId, childId } = await ids()
    const r = await caller(at.app.address).call('PUT', `/api/home/${token}/packs/${packId}/reply`, {
      key: 'fuzz-key-1234567890',
      childId,
      set: 'given',
      help: 'alone',
      answers: [],
      words: 'We did it\0 twice \ud800!',
      name: 'x',
    })
    expect(r.status, JSON.stringify(r.body)).toBeLessThan(500)
  })
})

describe('nothing is read before it is known who sends it', () => {
  test('four megabytes from nobody are refused at once, whatever they are', async () => {
    const body = Buffer.from(`{"doc":"${'x'.repeat(3_900_000)}"}`)
    const r = await post(
      `/api/classes/${at.world.here.classId}/lessons`,
      { 'Content-Type': 'application/json' },
      body,
      '',
    )
    expect(r.status).toBe(401)
  })
  test('no route reads more than it needs', async () => {
    const r = await at.world.teacher.call('POST', '/api/sign-in', {
      email: 'x'.repeat(300_000),
      password: 'x',
    })
    expect([r.status, r.body.title]).toEqual([413, 'Too large'])
  })
  test.each([
    ['< without end', `one two three ${'<'.repeat(60_000)}`, 200],
    ['two megabytes in one line', 'one '.repeat(490_000), 422],
    ['brackets without end', '('.repeat(200_000), 200],
    ['a time of a million figures', `${'1'.repeat(1_000_000)} --> 00:02.000`, 200],
    ['every mark there is', '♪#*'.repeat(200_000), 422],
  ])('captions with %s: the others are answered meanwhile', async (_, text, status) => {
    const { takeId } = await ids()
    const asked = at.world.teacher.call('POST', `/api/takes/${takeId}/captions`, {
      text: `WEBVTT\n\n00:01.000 --> 00:02.000\n${text}\n`,
    })
    let [ended, slowest] = [false, 0]
    const whole = asked.finally(() => (ended = true))
    while (!ended) {
      const from = performance.now()
      await at.world.nobody.call('GET', '/api/health')
      slowest = Math.max(slowest, performance.now() - from)
    }
    expect((await whole).status).toBe(status)
    // Far from what it took when the captions were read here: minutes.
    expect(slowest).toBeLessThan(5000)
  })
})
