import { randomUUID } from 'node:crypto'
import fs from 'node:fs/promises'
import { crc32, deflateSync } from 'node:zlib'
import { eq } from 'drizzle-orm'
import sharp, { type Sharp } from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { type CutList, plainList } from '@awlbox/core/contracts/cut'
import { checkAnswer } from '@awlbox/core/look/answers'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { addRender, addRenderFile, saveCut } from '../cut/store.ts'
import { people, photos } from '../platform/schema.ts'
import { caller, openTestApp, populate, type Caller, type TestApp } from '../testing.ts'

let app: TestApp
let world: Awaited<ReturnType<typeof populate>>
let home: Caller
let pack: { id: string; tasks: { id: string; kind: string }[] }
const L = () => `/api/lessons/${world.here.lessonId}`
const H = () => `/api/home/${world.here.tokens[0]}/packs/${pack.id}`
const kid = () => world.here.kids[0]!.id

beforeAll(async () => {
  app = await openTestApp()
  world = await populate(app)
  home = caller(app.address)
  await world.teacher.call('POST', `${L()}/publish`, { withFilm: false })
  const id = (
    (await home.call('GET', `/api/home/${world.here.tokens[0]}`)).body.packs as { id: string }[]
  )[0]!.id
  const page = (await home.call('GET', `/api/home/${world.here.tokens[0]}/packs/${id}`)).body as {
    pack: { tasks: { id: string; kind: string }[] }
  }
  pack = { id, tasks: page.pack.tasks }
})
afterAll(() => app.close())

const photo = async (bytes: Uint8Array, name = 'photo.jpg') => {
  const form = new FormData()
  form.set('photo', new Blob([new Uint8Array(bytes)]), name)
  return home.call('POST', `${H()}/photos`, form)
}
const jpeg = (width: number, height: number, orientation?: number) => {
  const p = sharp({ create: { width, height, channels: 3, background: '#b96' } }).withExif({
    IFD0: { Make: 'Stand-in' },
    IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' },
  })
  return (orientation ? p.withMetadata({ orientation }) : p).jpeg().toBuffer()
}
const jpegOf = (as: (p: Sharp) => Sharp) =>
  as(sharp({ create: { width: 300, height: 200, channels: 3, background: '#b96' } })).toBuffer()
/** Three pictures in one file, as a phone's moving photo. */
async function moving(): Promise<Buffer> {
  const frames = await Promise.all(
    ['#b96', '#69b', '#9b6'].map((background) =>
      sharp({ create: { width: 60, height: 40, channels: 3, background } })
        .png()
        .toBuffer(),
    ),
  )
  return sharp(frames, { join: { animated: true } })
    .webp({ loop: 0, delay: [80, 80, 80] })
    .toBuffer()
}
/** A PNG that says it is so many dots each way, and holds next to nothing: unpacked it would fill any memory. */
function hugePng(side: number): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data])
    const [length, crc] = [Buffer.alloc(4), Buffer.alloc(4)]
    length.writeUInt32BE(data.length)
    crc.writeUInt32BE(crc32(body))
    return Buffer.concat([length, body, crc])
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(side, 0)
  head.writeUInt32BE(side, 4)
  head[8] = 1
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(1_000_000))),
    chunk('IEND', Buffer.alloc(0)),
  ])
}
const reply = (over: Record<string, unknown> = {}) =>
  home.call('PUT', `${H()}/reply`, {
    childId: kid(),
    key: randomUUID(),
    answers: [],
    help: 'alone',
    words: '',
    ...over,
  })
const replies = async () =>
  (await world.teacher.call('GET', `${L()}/replies`)).body.items as {
    id: string
    answers: { text?: string }[]
    help: string
    photos: { id: string; width: number; height: number }[]
  }[]

describe('what a home receives', () => {
  test('holds no answer in its tasks', async () => {
    const { tasks, needs } = (await home.call('GET', H())).body.pack as Record<string, unknown>
    expect(JSON.stringify(tasks)).not.toMatch(/answer|right|"things":/)
    expect(JSON.stringify(needs)).toMatch(/swap/)
  })
  test('stays as it was sent when the script changes afterwards', async () => {
    const before = (await home.call('GET', H())).body.pack
    const lesson = (await world.teacher.call('GET', L())).body as { revision: number; doc: { title: string } }
    await world.teacher.call('PUT', `${L()}/doc`, {
      revision: lesson.revision,
      doc: { ...lesson.doc, title: 'Changed' },
    })
    expect((await home.call('GET', H())).body.pack).toEqual(before)
  })
})

describe('a reply', () => {
  test('sent twice is one reply; changed, it is changed', async () => {
    const key = randomUUID()
    const number = pack.tasks.find((t) => t.kind === 'number')!
    const first = await reply({ key, answers: [{ taskId: number.id, kind: 'number', text: '4' }] })
    const second = await reply({ key, answers: [{ taskId: number.id, kind: 'number', text: '4' }] })
    expect([first.body.again, second.body.again]).toEqual([false, true])
    await reply({ answers: [{ taskId: number.id, kind: 'number', text: '5' }], help: 'nudged' })
    const all = await replies()
    expect(all).toHaveLength(1)
    expect(all[0]).toMatchObject({ help: 'nudged', answers: [{ text: '5' }] })
  })
  test('ten at once are one reply', async () => {
    await Promise.all(Array.from({ length: 10 }, () => reply()))
    expect(await replies()).toHaveLength(1)
  })
  test.each(['seven', '7 ', '٧', '-3', '1e9', '🙂'])(
    'an answer of %j is kept as it was given',
    async (text) => {
      const number = pack.tasks.find((t) => t.kind === 'number')!
      expect((await reply({ answers: [{ taskId: number.id, kind: 'number', text }] })).status).toBe(200)
      expect((await replies())[0]!.answers[0]!.text).toBe(text)
    },
  )
  test('for another home’s child, or a task that is not there, is refused', async () => {
    expect((await reply({ childId: world.here.kids[1]!.id })).status).toBe(404)
    expect((await reply({ answers: [{ taskId: 'gone', kind: 'number', text: '1' }] })).status).toBe(409)
  })
  test('that has been looked at cannot be changed under the judgement, but sending the same again is harmless', async () => {
    const key = randomUUID()
    await reply({ key })
    const [r] = await replies()
    await world.teacher.call('POST', `/api/replies/${r!.id}/judgements`, {
      level: 'secure',
      help: 'alone',
      rung: 'things',
    })
    expect((await reply()).status).toBe(409)
    expect((await reply({ key })).status).toBe(200)
    await world.colleague.call('POST', `/api/replies/${r!.id}/judgements`, {
      level: 'nearly',
      help: 'alone',
      rung: 'things',
    })
    const judged = (await replies())[0] as unknown as { judgements: { level: string; by: string }[] }
    expect(judged.judgements.map((j) => [j.level, j.by])).toEqual([
      ['nearly', 'Desh'],
      ['secure', 'Marnie'],
    ])
    await expect(app.pool.query("update judgements set level = 'secure'")).rejects.toThrow(/append-only/)
  })
})

describe('a photo', () => {
  test('comes out upright and with nothing but pixels in it', async () => {
    const up = await photo(await jpeg(400, 300, 6))
    expect(up.body).toMatchObject({ width: 300, height: 400 })
    const bytes = Buffer.from(
      await (
        await fetch(`${app.address}/api/photos/${String(up.body.id)}`, {
          headers: { cookie: world.teacher.cookie },
        })
      ).arrayBuffer(),
    )
    const meta = await sharp(bytes).metadata()
    expect([meta.width, meta.height, meta.exif, meta.orientation]).toEqual([300, 400, undefined, undefined])
    expect(bytes.includes('Stand-in')).toBe(false)
  })
  test('of 30 megapixels is taken and made smaller; one over the limit is refused before it is decoded', async () => {
    const large = await photo(
      await sharp({ create: { width: 6500, height: 4620, channels: 3, background: '#b96' } })
        .jpeg()
        .toBuffer(),
    )
    expect(large.body).toMatchObject({ width: 4000 })
    const huge = await photo(
      await sharp({ create: { width: 9000, height: 8000, channels: 3, background: '#b96' } })
        .png({ compressionLevel: 9 })
        .toBuffer(),
    )
    expect(huge.status).toBe(413)
    expect(huge.body.detail).toMatch(/answers are kept/)
  })
  test.each<[string, () => Promise<Uint8Array> | Uint8Array, number, RegExp]>([
    ['nothing', () => new Uint8Array(), 400, /nothing in it/],
    ['text', () => new TextEncoder().encode('hello, not a photo at all'), 415, /not a photo/],
    [
      'half a photo',
      async () => {
        const b = await jpeg(900, 700)
        return b.subarray(0, b.length / 2)
      },
      400,
      /did not arrive whole/,
    ],
    [
      'an SVG',
      () =>
        new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
      415,
      /not a photo/,
    ],
    [
      'one that says it has 3.6 thousand million dots',
      () => hugePng(60_000),
      413,
      /more than 64 million dots/,
    ],
  ])('that is %s is refused with words, and the answers are kept', async (_, bytes, status, words) => {
    const r = await photo(await bytes())
    expect(r.status).toBe(status)
    expect(r.body.detail).toMatch(words)
    expect(r.body.detail).toMatch(/answers are kept/)
  })
  test.each<[string, () => Promise<Uint8Array>]>([
    ['in printers’ colours', () => jpegOf((p) => p.toColourspace('cmyk').jpeg())],
    ['that moves', () => moving()],
    [
      'with a page of script behind it',
      async () => Buffer.concat([await jpeg(300, 200), Buffer.from('<script>alert(1)</script>')]),
    ],
  ])('%s becomes a plain one, with nothing of the rest in it', async (_, bytes) => {
    const r = await photo(await bytes())
    expect(r.status).toBe(200)
    const id = String(r.body.id)
    const [row] = await app.db.select().from(photos).where(eq(photos.id, id))
    const kept = await fs.readFile(app.blobs.path(row!.image))
    const meta = await sharp(kept).metadata()
    expect([meta.format, meta.space, meta.pages ?? 1, meta.exif]).toEqual(['jpeg', 'srgb', 1, undefined])
    expect(kept.includes('<script>')).toBe(false)
  })
  test('of another home cannot be put into a reply', async () => {
    const task = pack.tasks.find((t) => t.kind === 'photo')!
    expect(
      (await reply({ answers: [{ taskId: task.id, kind: 'photo', photoId: randomUUID() }] })).status,
    ).toBe(409)
  })
  test('what a browser says it read is not taken', async () => {
    const up = await photo(await jpeg(400, 300))
    const address = `/api/photos/${String(up.body.id)}/reading`
    expect((await world.teacher.call('PUT', address, { count: 1 })).status).toBe(404)
  })
})

describe('consent to photos', () => {
  const note = (given: boolean) =>
    world.teacher.call('POST', `/api/children/${kid()}/consents`, {
      kind: 'photos',
      given,
      giver: 'gran',
      day: '2026-11-01',
    })
  const children = async () => (await home.call('GET', H())).body.children as { photos: boolean }[]
  test('withdrawn, it is obeyed everywhere at once: none is taken in, and those sent are shown to nobody; given again, all is as before', async () => {
    const task = pack.tasks.find((t) => t.kind === 'photo')!
    // A sending of its own: the other one’s reply has been looked at.
    await world.teacher.call('POST', `${L()}/publish`, { withFilm: false })
    const packs = (await home.call('GET', `/api/home/${world.here.tokens[0]}`)).body.packs as { id: string }[]
    pack = { ...pack, id: packs[0]!.id }
    const sent = await photo(await jpeg(60, 40))
    const answers = [{ taskId: task.id, kind: 'photo', photoId: sent.body.id }]
    expect((await reply({ answers })).status).toBe(200)
    const seen = async () => (await replies()).find((r) => r.photos.length)?.photos.map((p) => p.id) ?? []
    const file = () =>
      world.teacher.call('GET', `/api/photos/${sent.body.id as string}`).then((r) => r.status)
    expect([await seen(), await file(), (await children())[0]!.photos]).toEqual([[sent.body.id], 200, true])
    await note(false)
    expect(await seen()).not.toContain(sent.body.id)
    expect([await file(), (await children())[0]!.photos]).toEqual([404, false])
    const refused = await photo(await jpeg(60, 40))
    expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('in words instead')])
    expect((await reply({ answers })).status).toBe(403)
    expect(
      (await reply({ answers: [{ taskId: task.id, kind: 'photo', text: 'Four and three' }] })).status,
    ).toBe(200)
    await note(true)
    expect((await reply({ answers })).status).toBe(200)
    expect([await seen(), await file()]).toEqual([[sent.body.id], 200])
  })
})

test('which way it was done, how it felt, and that it could not be done today come with a reply; what is none of these is refused', async () => {
  await world.teacher.call('POST', `${L()}/publish`, { withFilm: false })
  const packs = (await home.call('GET', `/api/home/${world.here.tokens[0]}`)).body.packs as { id: string }[]
  pack = { ...pack, id: packs[0]!.id }
  expect((await reply({ way: 'track', feeling: 'just right' })).status).toBe(200)
  expect((await reply({ way: 'fingers' })).status).toBe(400)
  const mine = async () =>
    ((await home.call('GET', H())).body.replies as { way: string; feeling: string; couldNot: boolean }[])[0]
  expect(await mine()).toMatchObject({ way: 'track', feeling: 'just right', couldNot: false })
  // A page from before, which asks none of it.
  expect((await reply({ couldNot: true })).status).toBe(200)
  // From another phone: what the first had said stays beside it.
  expect(await mine()).toMatchObject({ way: 'track', feeling: 'just right', couldNot: true })
  const seen = (await replies()) as unknown as { couldNot: boolean }[]
  expect(seen.some((r) => r.couldNot)).toBe(true)
})

test('every kind of task goes out without its answer, comes back as it was given, and is read', async () => {
  const lines = [
    'Share ten stamps between three houses. {share 10 on 3}',
    'Which are doubles? {tick 4 * | 7 | 10 *}',
    'Lay the sentence. {sentence 4 + 3 = 7}',
    'What is missing? {run 10, 20, (30), 40}',
    'In order. {order 6 | 9 | 12}',
    'What belongs together? {match 3 = three | 13 = thirteen}',
    'All the ways to part three. {ways of 3, turned count}',
    'Two doubles you like. {own 2 doubles}',
    'How did you know? {tell}',
  ]
  const { lesson } = fromMarkdown(
    `# Kinds\n\n## Home {home task, no film}\n${lines.map((l) => `Ask: ${l}`).join('\n')}`,
    () => `k${randomUUID().slice(0, 8)}`,
  )
  const made = await world.teacher.call('POST', `/api/classes/${world.here.classId}/lessons`, {
    day: '2026-12-20',
    doc: lesson,
  })
  const id = made.body.id as string
  await world.teacher.call('POST', `/api/lessons/${id}/publish`, { withFilm: false })
  const packs = (await home.call('GET', `/api/home/${world.here.tokens[0]}`)).body.packs as {
    id: string
    title: string
  }[]
  const at = `/api/home/${world.here.tokens[0]}/packs/${packs.find((p) => p.title === 'Kinds')!.id}`
  const page = await home.call('GET', at)
  expect(JSON.stringify(page.body)).not.toMatch(/"right"|"items"|"pairs"|"sentence":|"gaps":/)
  const { tasks } = page.body.pack as { tasks: { id: string; kind: string; choices: string[] }[] }
  const given: Record<string, string[]> = {
    share: ['3', '3', '3'],
    several: ['4', '10'],
    sentence: ['7', '=', '3', '+', '4'],
    gaps: ['30'],
    order: ['6', '9', '12'],
    match: ['three', 'thirteen'],
    ways: ['0+3', '1+2', '2+1', '3+0'],
    own: ['2 + 2 = 4', '5 + 5 = 10'],
  }
  const answers = tasks.map((t) => ({
    taskId: t.id,
    kind: t.kind,
    ...(t.kind === 'tell' ? { text: 'I looked.' } : { given: given[t.kind] }),
  }))
  const put = (all: object[]) =>
    home.call('PUT', `${at}/reply`, {
      childId: kid(),
      key: randomUUID(),
      answers: all,
      help: 'alone',
      words: '',
    })
  expect((await put(answers)).status).toBe(200)
  const back = (await world.teacher.call('GET', `/api/lessons/${id}/replies`)).body.items as ReplyRecord[]
  expect(
    back[0]!.tasks.map(
      (t) =>
        checkAnswer(
          t,
          back[0]!.answers.find((a) => a.taskId === t.id),
        ).verdict,
    ),
  ).toEqual([...Array.from({ length: 8 }, () => 'right'), 'look'])
  expect((await put([{ ...answers[0], given: Array.from({ length: 41 }, () => '1') }])).status).toBe(400)
  expect((await put([{ ...answers[0], kind: 'order' }])).status).toBe(409)
})

test('a link that was ended or changed opens nothing, and says what to do', async () => {
  const household = world.here.homes[0]!.id
  const renewed = await world.teacher.call('POST', `/api/households/${household}/link`)
  const old = await home.call('GET', `/api/home/${world.here.tokens[0]}`)
  expect(old.status).toBe(404)
  expect(old.body.detail).toMatch(/Ask your teacher for the new one/)
  const fresh = String(renewed.body.link).slice(3)
  expect(fresh).toMatch(/^[\w-]{22}$/)
  expect((await home.call('GET', `/api/home/${fresh}`)).status).toBe(200)
  await world.teacher.call('DELETE', `/api/households/${household}/link`)
  expect((await home.call('GET', `/api/home/${fresh}`)).status).toBe(404)
})
test('standing follows the newest judgement and opens to its evidence', async () => {
  const r = (await world.teacher.call('GET', `/api/classes/${world.here.classId}/standing?idea=parts-7`))
    .body as {
    rows: { childId: string; name: string; ideas: Record<string, { word: string; judged: boolean }> }[]
  }
  expect(r.rows[0]).toMatchObject({ name: 'Suri', ideas: { 'parts-7': { word: 'nearly', judged: true } } })
  const { trail } = (
    await world.teacher.call('GET', `/api/children/${r.rows[0]!.childId}/ideas/parts-7/evidence`)
  ).body as { trail: { kind: string }[] }
  expect(trail.filter((t) => t.kind === 'judgement')).toHaveLength(2)
})

describe('a corrected film', () => {
  let token = ''
  const film = async (bytes: string, cutRevision: number) =>
    addRender(app.db, {
      lessonId: world.here.lessonId,
      cutRevision,
      seconds: 1,
      bytes: bytes.length,
      film: await app.blobs.put(app.db, Buffer.from(bytes), 'video/mp4'),
      captions: await app.blobs.put(app.db, Buffer.from('WEBVTT'), 'text/vtt'),
      poster: await app.blobs.put(app.db, Buffer.from('jpg'), 'image/jpeg'),
    })
  const cut = (frames: number): CutList => ({
    ...plainList,
    segments: [
      {
        segmentId: 'x1',
        takeId: null,
        items: [
          {
            kind: 'card',
            id: 'k',
            look: 'aim',
            title: 'Parts of seven',
            lines: [],
            frames,
            stepId: null,
            why: null,
          },
        ],
        overlays: [],
        byHand: true,
      },
    ],
  })
  const at = async () => {
    const sent = (await world.teacher.call('GET', `${L()}/send`)).body as {
      sent: { id: string; replacedAt: string | null }[]
      replacement: { publicationId: string; renderId: string; changes: string[] } | null
    }
    return {
      ...sent,
      shown: async (id: string) => (await home.call('GET', `/api/home/${token}/packs/${id}/film`)).body.text,
    }
  }
  const read = async () =>
    (await world.teacher.call('GET', `${L()}/send`)).body as {
      sent: { id: string; knowingly: string[] }[]
      concerns: { key: string; what: string }[]
      replacement: { publicationId: string; renderId: string; changes: string[] } | null
    }
  test('tasks that went without a film get theirs on the same page, and what was not in order is kept with the sending', async () => {
    token = String(
      (await world.teacher.call('POST', `/api/households/${world.here.homes[0]!.id}/link`)).body.link,
    ).slice(3)
    const before = await read()
    expect(before.concerns.map((c) => c.key)).toContain('film:none')
    // A page that has not read all of it is told what came up since.
    const stale = await world.teacher.call('POST', `${L()}/publish`, { withFilm: false, knowing: [] })
    expect(stale.status).toBe(409)
    expect(String(stale.body.detail)).toContain('send it all the same')
    const knowing = before.concerns.map((c) => c.key)
    expect((await world.teacher.call('POST', `${L()}/publish`, { withFilm: false, knowing })).status).toBe(
      200,
    )
    const sent = (await read()).sent[0]!
    expect(sent.knowingly).toEqual(before.concerns.map((c) => c.what))
    const first = await film('the film of the same page', 0)
    const offered = (await read()).replacement!
    expect(offered).toMatchObject({ publicationId: sent.id, renderId: first, changes: [] })
    await world.teacher.call('POST', `/api/publications/${sent.id}/film`, { renderId: first, changes: [] })
    const packs = (await home.call('GET', `/api/home/${token}`)).body.packs as { id: string }[]
    expect(packs.filter((p) => p.id === sent.id)).toHaveLength(1)
    expect((await home.call('GET', `/api/home/${token}/packs/${sent.id}/film`)).body.text).toBe(
      'the film of the same page',
    )
  })
  test('takes the old one’s place where homes look, with what changed; tasks and replies stay', async () => {
    // Links were ended and renewed by the tests before.
    token = String(
      (await world.teacher.call('POST', `/api/households/${world.here.homes[0]!.id}/link`)).body.link,
    ).slice(3)
    const person = (await app.db.select({ id: people.id }).from(people))[0]!.id
    await saveCut(app.db, { lessonId: world.here.lessonId, revision: 0, doc: cut(90), byId: person })
    await film('first film', 1)
    await world.teacher.call('POST', `${L()}/publish`, { withFilm: true })
    const id = (await at()).sent[0]!.id
    expect((await at()).replacement).toBeNull()
    await saveCut(app.db, { lessonId: world.here.lessonId, revision: 1, doc: cut(30), byId: person })
    const second = await film('second film', 2)
    await addRenderFile(app.db, {
      renderId: second,
      kind: 'small',
      bytes: 5,
      file: await app.blobs.put(app.db, Buffer.from('small'), 'video/mp4'),
    })
    const offered = (await at()).replacement!
    expect(offered).toMatchObject({ publicationId: id, renderId: second })
    expect(offered.changes[0]).toMatch(/^Cut anew: .*, 2 s shorter\.$/)
    expect(await (await at()).shown(id)).toBe('first film')
    const page = (await home.call('GET', `/api/home/${token}/packs/${id}`)).body as { pack: unknown }
    expect(
      (
        await world.teacher.call('POST', `/api/publications/${id}/film`, {
          renderId: second,
          changes: ['The count is whole now.'],
        })
      ).status,
    ).toBe(200)
    expect(await (await at()).shown(id)).toBe('second film')
    const after = (await home.call('GET', `/api/home/${token}/packs/${id}`)).body as {
      pack: unknown
      film: { replaced: { changes: string[] }; versions: { kind: string }[] }
    }
    expect(after.pack).toEqual(page.pack)
    expect(after.film.replaced.changes).toEqual(['The count is whole now.'])
    expect(after.film.versions.map((v) => v.kind)).toEqual(['small'])
    expect((await home.call('GET', `/api/home/${token}/packs/${id}/files/small`)).body.text).toBe('small')
    expect((await at()).replacement).toBeNull()
    expect((await at()).sent[0]!.replacedAt).not.toBeNull()
    expect(
      (await world.teacher.call('POST', `/api/publications/${id}/film`, { renderId: second, changes: [] }))
        .status,
    ).toBe(409)
  })
  test('of another lesson, or by someone else, is refused', async () => {
    const id = (await at()).sent[0]!.id
    const other = await addRender(app.db, {
      lessonId: world.there.lessonId,
      cutRevision: 1,
      seconds: 1,
      bytes: 1,
      film: await app.blobs.put(app.db, Buffer.from('other'), 'video/mp4'),
      captions: await app.blobs.put(app.db, Buffer.from('WEBVTT'), 'text/vtt'),
      poster: await app.blobs.put(app.db, Buffer.from('jpg'), 'image/jpeg'),
    })
    expect(
      (await world.teacher.call('POST', `/api/publications/${id}/film`, { renderId: other, changes: [] }))
        .status,
    ).toBe(404)
    expect(
      (await world.stranger.call('POST', `/api/publications/${id}/film`, { renderId: other, changes: [] }))
        .status,
    ).toBe(404)
  })
})
