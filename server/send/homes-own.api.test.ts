import { randomUUID } from 'node:crypto'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { probe } from '../platform/media/ffmpeg.ts'
import { photos, recordings } from '../platform/schema.ts'
import { homeToken } from '../platform/tokens.ts'
import { homesOf } from './store.ts'
import { caller, openTestApp, populate, type Caller, type TestApp } from '../testing.ts'

let app: TestApp
let world: Awaited<ReturnType<typeof populate>>
let home: Caller
let packId: string
let dir: string
const token = () => world.here.tokens[0]!
const H = () => `/api/home/${token()}`
const L = () => `/api/lessons/${world.here.lessonId}`
const kid = () => world.here.kids[0]!.id
interface Shown {
  pack: {
    title: string
    aim: string
    tasks: { id: string; kind: string }[]
    needs: { line: string }[]
    ways: string[]
  }
  children: { photos: boolean; sound: boolean; level: string | null }[]
  replies: { chose: string | null }[]
}
const shown = async (as = home, at = H()) =>
  (await as.call('GET', `${at}/packs/${packId}`)).body as unknown as Shown

beforeAll(async () => {
  app = await openTestApp()
  world = await populate(app)
  home = caller(app.address)
  dir = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-homes-'))
  await world.teacher.call('POST', `${L()}/publish`, { withFilm: false, due: '2099-01-08' })
  packId = ((await home.call('GET', H())).body.packs as { id: string }[])[0]!.id
})
afterAll(() => {
  fs.rmSync(dir, { recursive: true, force: true })
  return app.close()
})
const agree = (kind: string, given: boolean) =>
  home.call('POST', `${H()}/children/${kid()}/consents`, { kind, given, giver: 'grandad' })
const b64 = (x: string) => Buffer.from(x).toString('base64')
const tus = { 'tus-resumable': '1.0.0' }
const begin = (kind: string, size: number, more: { id?: string; at?: string; childId?: string } = {}) =>
  home.call('POST', `${more.at ?? H()}/uploads`, undefined, {
    ...tus,
    'upload-length': String(size),
    'upload-metadata': Object.entries({
      id: more.id ?? randomUUID(),
      packId,
      kind,
      childId: more.childId ?? kid(),
    })
      .map(([k, v]) => `${k} ${b64(v)}`)
      .join(','),
  })
const piece = (address: string, bytes: Uint8Array, from: number) =>
  home.call('PATCH', new URL(address, app.address).pathname, new Uint8Array(bytes), {
    ...tus,
    'content-type': 'application/offset+octet-stream',
    'upload-offset': String(from),
  })
async function send(kind: string, file: string | Uint8Array, id: string = randomUUID()) {
  const bytes = typeof file === 'string' ? fs.readFileSync(file) : file
  const made = await begin(kind, bytes.length, { id })
  if (made.status !== 201) return { id, status: made.status, body: made.body }
  const r = await piece(made.headers.get('location')!, bytes, 0)
  return { id, status: r.status, body: r.body }
}
const media = (name: string, args: string[]) => {
  const file = path.join(dir, name)
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args, file])
  return file
}
const jpeg = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#b96' } })
    .jpeg()
    .toBuffer()
const reply = (answers: object[], more: object = {}) =>
  home.call('PUT', `${H()}/packs/${packId}/reply`, {
    childId: kid(),
    key: randomUUID(),
    answers,
    help: 'alone',
    words: '',
    ...more,
  })

describe('the language of a home', () => {
  test('is its children’s, until it chooses; a phone of its own may read another', async () => {
    expect((await shown()).pack.aim).toMatch(/^This is about/)
    await home.call('PUT', `${H()}/language`, { language: 'es' })
    expect((await shown()).pack.aim).toMatch(/^Trata de/)
    const phone = await fetch(`${app.address}/h/${token()}`, { headers: { cookie: 'awlbox_language=ar' } })
    const html = await phone.text()
    // Built pages may be missing where only the API is tried.
    if (phone.status === 200) expect(html).toMatch(/<html lang="ar" dir="rtl">/)
    const other = caller(app.address)
    const arabic = await other.call('GET', `${H()}/packs/${packId}`, undefined, {
      cookie: 'awlbox_language=ar',
    })
    expect(JSON.stringify(arabic.body.pack)).toMatch(/هذا الدرس عن طرق تقسيم ٧/)
    await home.call('PUT', `${H()}/language`, { language: 'en' })
  })
  test('one it does not speak is refused', async () =>
    expect((await home.call('PUT', `${H()}/language`, { language: 'xx' })).status).toBe(400))
  test('a setting’s own wording stands in place of ours, and a lesson’s own sentences are put into it', async () => {
    const words = (key: string, text: string | null) =>
      world.teacher.call('PUT', '/api/home-words/es', { key, words: text })
    const { tasks } = (await shown()).pack
    const first = tasks[0] as unknown as { prompt: string }
    expect((await words('needs.item', '{count, number} de {thing}')).status).toBe(200)
    expect((await words(first.prompt, '¿Cuántos paquetes van abajo?')).status).toBe(200)
    const lost = await words('needs.item', 'muchas cosas')
    expect([lost.status, String(lost.body.detail)]).toEqual([
      422,
      expect.stringMatching(/count.*still stands/) as string,
    ])
    await home.call('PUT', `${H()}/language`, { language: 'es' })
    const spanish = (await shown()).pack
    expect(spanish.needs[0]!.line).toBe('7 de fichas de dos caras')
    expect((spanish.tasks[0] as unknown as { prompt: string }).prompt).toBe('¿Cuántos paquetes van abajo?')
    await words('needs.item', null)
    expect((await shown()).pack.needs[0]!.line).toBe('fichas de dos caras: 7')
    await home.call('PUT', `${H()}/language`, { language: 'en' })
  })
})

describe('what a home is shown', () => {
  test('has another way and its own things for what it said of itself', async () => {
    await home.call('PUT', `${H()}/kit`, {
      has: ['folded socks', 'egg box'],
      countable: 20,
      canPrint: false,
      ways: ['seated', 'small'],
    })
    const { pack } = await shown()
    expect(pack.ways.join(' ')).toMatch(/sitting down.*too large for a mouth: folded socks.*printed/)
    expect(JSON.stringify(pack.needs)).toMatch(/"swap":"folded socks"/)
  })
  test('is what the teacher sees before it is sent, for that home, with nothing kept', async () => {
    const at = `/see/${world.here.lessonId}/${world.here.homes[0]!.id}`
    const mine = await fetch(app.address + at, { headers: { cookie: world.teacher.cookie } })
    expect([200, 503]).toContain(mine.status)
    for (const as of [world.stranger, world.nobody, world.colleague])
      expect(
        (await fetch(app.address + at, { headers: as.cookie ? { cookie: as.cookie } : {} })).status,
      ).toBeGreaterThanOrEqual(401)
  })
  test('a set is given, and what the child took is kept beside it', async () => {
    const give = (childId: string, level: string | null) =>
      world.teacher.call('PUT', `${L()}/sets/${childId}`, { level })
    expect((await give(kid(), 'gentle')).status).toBe(200)
    expect((await give(world.here.kids[1]!.id, 'gentle')).status).toBe(404)
    expect((await shown()).children[0]!.level).toBe('gentle')
    await reply([], { chose: 'stretch' })
    const [looked] = (await world.teacher.call('GET', `${L()}/replies`)).body.items as {
      gave: string
      chose: string
    }[]
    expect([looked!.gave, looked!.chose]).toEqual(['gentle', 'stretch'])
    await give(kid(), null)
    expect((await shown()).children[0]!.level).toBeNull()
  })
})

describe('files in pieces', () => {
  test('a photo that was cut off goes on where it stopped, and sent again under its name it is one', async () => {
    const bytes = await jpeg()
    const id = randomUUID()
    const made = await begin('photo', bytes.length, { id })
    const address = made.headers.get('location')!
    await piece(address, bytes.subarray(0, 100), 0)
    const head = await home.call('HEAD', new URL(address, app.address).pathname, undefined, tus)
    expect(head.headers.get('upload-offset')).toBe('100')
    expect((await piece(address, bytes.subarray(100), 100)).status).toBe(204)
    expect((await send('photo', bytes, id)).status).toBe(204)
    const rows = await app.db.select().from(photos)
    expect(rows.filter((p) => p.id === id).length).toBe(1)
  })
  test('what a phone saves as HEIC becomes a photo like any other; half of one is refused', async () => {
    const heic = fs.readFileSync(path.join(import.meta.dirname, '../../standins/homes/table.heic'))
    const { id, status } = await send('photo', heic)
    expect(status).toBe(204)
    const row = (await app.db.select().from(photos)).find((p) => p.id === id)!
    expect([row.width, row.height]).toEqual([800, 600])
    const { dominant } = await sharp(app.blobs.path(row.image)).stats()
    expect(Math.min(dominant.r, dominant.g, dominant.b)).toBeGreaterThan(60)
    expect((await send('photo', heic.subarray(0, heic.length / 2))).status).toBe(400)
  })
  test('nobody else’s link goes on with it', async () => {
    const made = await begin('photo', 100)
    const id = made.headers.get('location')!.split('/').at(-1)!
    const other = `/api/home/${world.here.tokens[1]}/uploads/${id}`
    expect((await home.call('HEAD', other, undefined, tus)).status).toBe(404)
    expect(
      (await home.call('HEAD', `/api/home/${'A'.repeat(22)}/uploads/${id}`, undefined, tus)).status,
    ).toBe(404)
  })
  test('what is no photo is refused once it is whole, and nothing is kept', async () => {
    const r = await send('photo', new TextEncoder().encode('a shopping list\n'.repeat(50)))
    expect(r.status).toBe(415)
    expect((await app.db.select().from(photos)).some((p) => p.id === r.id)).toBe(false)
  })
  test('one that says no lesson, a strange kind or another’s child is never begun', async () => {
    const bad = await home.call('POST', `${H()}/uploads`, undefined, { ...tus, 'upload-length': '10' })
    expect(bad.status).toBe(400)
    expect((await begin('poem', 10)).status).toBe(400)
    expect((await begin('photo', 10, { childId: world.here.kids[1]!.id })).status).toBe(404)
    expect((await begin('photo', 10_000_000_000)).status).toBe(413)
  })
})

describe('voices and films of hands', () => {
  const beep = () =>
    media('beep.webm', ['-f', 'lavfi', '-i', 'sine=330:d=3', '-metadata', 'title=At home', '-c:a', 'libopus'])
  test('a voice needs a yes; then it comes, with nothing hidden in it; withdrawn, nobody hears it', async () => {
    const file = beep()
    expect((await begin('sound', 1000)).status).toBe(403)
    await agree('sound', true)
    expect((await shown()).children[0]!.sound).toBe(true)
    const { id, status } = await send('sound', file)
    expect(status).toBe(204)
    const row = (await app.db.select().from(recordings)).find((r) => r.id === id)!
    const kept = app.blobs.path(row.file)
    expect(fs.readFileSync(kept).includes(Buffer.from('At home'))).toBe(false)
    expect((await probe(kept))!.seconds).toBeCloseTo(3, 0)
    const { tasks } = (await shown()).pack
    await reply([{ taskId: tasks[0]!.id, kind: tasks[0]!.kind, recordingId: id }])
    const heard = () => world.teacher.call('GET', `/api/recordings/${id}`)
    expect((await heard()).status).toBe(200)
    await agree('sound', false)
    expect((await heard()).status).toBe(404)
    const [r] = (await world.teacher.call('GET', `${L()}/replies`)).body.items as { recordings: unknown[] }[]
    expect(r!.recordings).toEqual([])
    await agree('sound', true)
    expect((await heard()).status).toBe(200)
    for (const as of [world.stranger, world.nobody])
      expect((await as.call('GET', `/api/recordings/${id}`)).status).not.toBe(200)
  })
  test('one of ten minutes is refused with its length', async () => {
    const r = await send(
      'sound',
      media('long.mp3', ['-f', 'lavfi', '-i', 'sine=330:d=600:r=8000', '-b:a', '8k']),
    )
    expect([r.status, r.body.detail]).toEqual([413, expect.stringMatching(/600 seconds/) as string])
  })
  test('a film of hands loses its sound and its place', async () => {
    const clip = media('hands.mp4', [
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=1280x720:r=15:d=2',
      '-f',
      'lavfi',
      '-i',
      'sine=330:d=2',
      '-metadata',
      'location=+51.5+000.1/',
      '-pix_fmt',
      'yuv420p',
      '-shortest',
    ])
    const { id, status } = await send('clip', clip)
    expect(status).toBe(204)
    const kept = app.blobs.path((await app.db.select().from(recordings)).find((r) => r.id === id)!.file)
    const p = (await probe(kept))!
    expect([p.audio, p.video]).toEqual([false, { width: 640, height: 360 }])
    expect(fs.readFileSync(kept).includes(Buffer.from('+51.5'))).toBe(false)
  })
  test('a photo under the name of a voice is another thing', async () => {
    const { id } = await send('sound', beep())
    expect((await send('photo', await jpeg(), id)).status).toBe(409)
  })
})

describe('what a home agrees to', () => {
  test('each by itself, dated and with who said so; it counts at once, also at the door of files', async () => {
    await agree('photos', false)
    expect((await begin('photo', 100)).status).toBe(403)
    expect((await shown()).children[0]!.photos).toBe(false)
    const { children, kept } = (await home.call('GET', `${H()}/consents`)).body as unknown as {
      children: {
        name: string
        consents: { kind: string; given: boolean | null; giver: string | null; day: string }[]
      }[]
      kept: Record<string, number | null>
    }
    expect(children[0]!.consents.find((c) => c.kind === 'photos')).toMatchObject({
      given: false,
      giver: 'grandad',
      day: new Date().toISOString().slice(0, 10),
    })
    expect(children[0]!.consents.find((c) => c.kind === 'showing')).toMatchObject({ given: null })
    expect(kept.photos).toBeGreaterThan(29)
    await agree('photos', true)
    expect((await begin('photo', 100)).status).toBe(201)
  })
  test('for its own children alone, and never without a name', async () => {
    const other = world.here.kids[1]!.id
    const said = (childId: string, giver: string) =>
      home.call('POST', `${H()}/children/${childId}/consents`, { kind: 'photos', given: false, giver })
    expect([(await said(other, 'mum')).status, (await said(kid(), ' ')).status]).toEqual([404, 400])
  })
})

describe('taking back', () => {
  test('takes the reply and what came with it, until it has been looked at', async () => {
    const { id } = await send('photo', await jpeg())
    const { tasks } = (await shown()).pack
    const photoTask = tasks.find((t) => t.kind === 'photo')!
    await reply([{ taskId: photoTask.id, kind: 'photo', photoId: id }])
    const back = () => home.call('DELETE', `${H()}/packs/${packId}/children/${kid()}/reply`)
    expect((await back()).status).toBe(200)
    expect((await shown()).replies).toEqual([])
    expect((await app.db.select().from(photos)).some((p) => p.id === id)).toBe(false)
    expect((await back()).status).toBe(200)
    await reply([])
    const [r] = (await world.teacher.call('GET', `${L()}/replies`)).body.items as { id: string }[]
    await world.teacher.call('POST', `/api/replies/${r!.id}/judgements`, {
      level: 'nearly',
      help: 'alone',
      rung: 'things',
    })
    expect((await back()).status).toBe(409)
  })
})

describe('another device', () => {
  const open = (code: string) =>
    fetch(`${app.address}/code`, {
      method: 'POST',
      redirect: 'manual',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ code }),
    })
  const fresh = async () => String((await home.call('POST', `${H()}/code`)).body.code)
  test('a code opens the page once, however it is typed', async () => {
    const code = await fresh()
    expect(code).toMatch(/^[A-Z0-9]{8}$/)
    const r = await open(` ${code.slice(0, 4).toLowerCase()}-${code.slice(4)}`)
    expect([r.status, r.headers.get('location')]).toEqual([303, `/h/${token()}`])
    expect((await open(code)).status).toBe(404)
  })
  test('a new one ends the one before; none opens an ended link', async () => {
    const [one, two] = [await fresh(), await fresh()]
    expect((await open(one)).status).toBe(404)
    await world.teacher.call('DELETE', `/api/households/${world.here.homes[0]!.id}/link`)
    expect((await open(two)).status).toBe(404)
    const again = await world.teacher.call('POST', `/api/households/${world.here.homes[0]!.id}/link`)
    world.here.tokens[0] = String(again.body.link).slice(3)
  })
  test('guessing is slowed down', async () => {
    const tries: number[] = []
    for (let i = 0; i < 14; i++) tries.push((await open(`AAAA${String(i).padStart(4, '3')}`)).status)
    expect(tries.at(-1)).toBe(429)
  })
  test('lessons are a calendar to subscribe to, with the day they are wanted by', async () => {
    const r = await fetch(`${app.address}${H()}/lessons.ics`)
    const text = await r.text()
    expect(r.headers.get('content-type')).toContain('text/calendar')
    expect(text).toMatch(/DTSTART;VALUE=DATE:20990108/)
    expect(text).toContain('Seven parcels')
  })
  test('letters for a class: a page for each home with its link', async () => {
    const r = await fetch(`${app.address}/api/classes/${world.here.classId}/letters.pdf`, {
      headers: { cookie: world.teacher.cookie },
    })
    const pdf = Buffer.from(await r.arrayBuffer()).toString('latin1')
    expect(pdf.startsWith('%PDF')).toBe(true)
    expect(pdf.match(/\/Type \/Page\b/g)!.length).toBe(1)
  })
})

test('a lesson that waits for its hour is not there before it, and its letters wait with it', async () => {
  const packs = async () => ((await home.call('GET', H())).body.packs as { id: string }[]).map((p) => p.id)
  const before = await packs()
  const send = (release: string) =>
    world.teacher.call('POST', `${L()}/publish`, { withFilm: false, release, write: true })
  const hour = new Date(Date.now() + 3_600_000)
  const waiting = await send(hour.toISOString())
  expect(waiting.status).toBe(200)
  expect(await packs()).toEqual(before)
  expect((await home.call('GET', `${H()}/packs/${String(waiting.body.id)}`)).status).toBe(404)
  const { items } = (await world.teacher.call('GET', `${L()}/letters`)).body as unknown as {
    items: { kind: string; after: string }[]
  }
  expect(items.filter((l) => new Date(l.after) >= hour).length).toBe(1)
  for (const wrong of ['2020-01-01T00:00:00Z', '2099-01-01T00:00:00Z', 'soon'])
    expect((await send(wrong)).status).toBe(400)
})

test('a child of two homes: the second goes on with the first one’s photo, and sends none of its own', async () => {
  const added = await world.teacher.call('POST', `/api/classes/${world.here.classId}/children`, {
    children: [{ given: 'Leyla', home: 'Ferry Steps', second: 'Signal Terrace' }],
  })
  const childId = (added.body.added as string[])[0]!
  const homes = await homesOf(app.db, world.here.lessonId)
  const [first, second] = homes
    .filter((h) => h.childId === childId)
    .map((h) => `/api/home/${homeToken(app.secret, h.householdId, h.linkVersion)}`)
  const form = new FormData()
  form.set('photo', new Blob([new Uint8Array(await jpeg())]), 'a.jpg')
  const photoId = (await home.call('POST', `${first}/packs/${packId}/photos`, form)).body.id as string
  const { tasks } = (await shown(home, first)).pack
  const task = tasks.find((t) => t.kind === 'photo')!
  const answer = { taskId: task.id, kind: 'photo', photoId }
  const put = (at: string, answers: object[], words: string) =>
    home.call('PUT', `${at}/packs/${packId}/reply`, {
      childId,
      key: randomUUID(),
      answers,
      help: null,
      words,
    })
  // Not before the child's reply holds it: then it would be somebody else's.
  expect((await put(second!, [answer], 'too soon')).status).toBe(409)
  expect((await put(first!, [answer], 'with mum')).status).toBe(200)
  expect((await put(second!, [answer], 'and with dad')).status).toBe(200)
  const came = (
    (await world.teacher.call('GET', `${L()}/replies`)).body.items as {
      childId: string
      words: string
      photos: unknown[]
    }[]
  ).find((r) => r.childId === childId)!
  expect([came.words, came.photos.length]).toEqual(['with mum\nand with dad', 1])
})

test('a child that is deleted takes its voice along: no row, no file', async () => {
  const [cls] = [world.here.classId]
  const added = await world.teacher.call('POST', `/api/classes/${cls}/children`, {
    children: [{ given: 'Rafe', home: 'Ropewalk' }],
  })
  const childId = (added.body.added as string[])[0]!
  const rows = (await world.teacher.call('GET', '/api/homes')).body.items as { id: string; link: string }[]
  const at = `/api/home/${rows.find((r) => r.id === childId)!.link.slice(3)}`
  await home.call('POST', `${at}/children/${childId}/consents`, { kind: 'sound', given: true, giver: 'gran' })
  const bytes = fs.readFileSync(media('gone.webm', ['-f', 'lavfi', '-i', 'sine=220:d=2', '-c:a', 'libopus']))
  const id = randomUUID()
  const made = await begin('sound', bytes.length, { id, at, childId })
  await piece(made.headers.get('location')!, bytes, 0)
  const { tasks } = (await shown(home, at)).pack
  await home.call('PUT', `${at}/packs/${packId}/reply`, {
    childId,
    key: randomUUID(),
    answers: [{ taskId: tasks[0]!.id, kind: tasks[0]!.kind, recordingId: id }],
    help: null,
    words: '',
  })
  const file = app.blobs.path((await app.db.select().from(recordings)).find((r) => r.id === id)!.file)
  expect(fs.existsSync(file)).toBe(true)
  const receipt = await world.teacher.call('DELETE', `/api/children/${childId}`)
  expect(receipt.body).toMatchObject({ replies: 1, recordings: 1, left: 0 })
  expect(fs.existsSync(file)).toBe(false)
  expect((await app.db.select().from(recordings)).some((r) => r.id === id)).toBe(false)
})

test('a lesson that closed takes no more replies, and says that what was done counts', async () => {
  await world.teacher.call('POST', `${L()}/publish`, {
    withFilm: false,
    due: '2020-01-01',
    closes: '2020-01-02',
  })
  const packs = (await home.call('GET', H())).body.packs as { id: string }[]
  const r = await home.call('PUT', `${H()}/packs/${packs[0]!.id}/reply`, {
    childId: kid(),
    key: randomUUID(),
    answers: [],
    help: null,
    words: '',
  })
  expect([r.status, r.body.title]).toEqual([409, 'Closed'])
  expect(
    (
      await world.teacher.call('POST', `${L()}/publish`, {
        withFilm: false,
        due: '2020-01-03',
        closes: '2020-01-02',
      })
    ).status,
  ).toBe(400)
})
