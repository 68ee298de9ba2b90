import { randomUUID } from 'node:crypto'
import http from 'node:http'
import { eq, inArray } from 'drizzle-orm'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { children, households, photos, publications, replies } from '../platform/schema.ts'
import { homeToken } from '../platform/tokens.ts'
import { openLinks } from '../send/store.ts'
import { caller } from '../testing.ts'
import { openSystem, randomName, type System } from './system.ts'

/**
 * A nursery replies at once: every home opens its link, sends a photo of 300 kB and its reply. A few homes here;
 * `./awlbox test trials` has three hundred within two minutes, from as many addresses and from one, and prints how long
 * requests took beside an idle machine's.
 */
const homes = Number(process.env.AWLBOX_HOMES ?? 20)
const within = Number(process.env.AWLBOX_WITHIN ?? 4)
const print = process.env.AWLBOX_HOMES !== undefined

let s: System
let photo: Buffer
beforeAll(async () => {
  s = await openSystem()
  await caller(s.address, s.world.teacher.cookie).call(
    'POST',
    `/api/lessons/${s.world.here.lessonId}/publish`,
    {
      withFilm: false,
    },
  )
  const grain = { type: 'gaussian' as const, mean: 128, sigma: 22 }
  photo = await sharp({
    create: { width: 1200, height: 900, channels: 3, background: '#c9b28c', noise: grain },
  })
    .jpeg({ quality: 62 })
    .toBuffer()
}, 120_000)
afterAll(() => s.close())

interface Timed {
  open: number[]
  photo: number[]
  reply: number[]
}
/** One request from an address of its own (any of 127.0.0.0/8 is this machine). */
function send(
  from: string,
  method: string,
  path: string,
  body?: { type: string; bytes: Buffer },
): Promise<{ status: number; json: Record<string, unknown> }> {
  return new Promise((resolve, reject) => {
    const req = http.request(
      s.address + path,
      {
        method,
        localAddress: from,
        agent: false,
        headers: body ? { 'content-type': body.type, 'content-length': body.bytes.length } : {},
      },
      (res) => {
        const parts: Buffer[] = []
        res.on('data', (d: Buffer) => parts.push(d))
        res.on('end', () => {
          const text = Buffer.concat(parts).toString()
          resolve({
            status: res.statusCode!,
            json: text.startsWith('{') ? (JSON.parse(text) as Record<string, unknown>) : {},
          })
        })
      },
    )
    req.on('error', reject)
    req.end(body?.bytes)
  })
}
const form = (bytes: Buffer): { type: string; bytes: Buffer } => {
  const edge = 'a-street-of-homes'
  const head = `--${edge}\r\nContent-Disposition: form-data; name="photo"; filename="a.jpg"\r\nContent-Type: image/jpeg\r\n\r\n`
  return {
    type: `multipart/form-data; boundary=${edge}`,
    bytes: Buffer.concat([Buffer.from(head), bytes, Buffer.from(`\r\n--${edge}--\r\n`)]),
  }
}
/** New homes with a child each; gives their links. */
async function street(n: number): Promise<{ token: string; childId: string }[]> {
  const made = await s.app.db
    .insert(households)
    .values(
      Array.from({ length: n }, () => ({ settingId: s.world.here.setting.id, name: `Row ${randomName()}` })),
    )
    .returning({ id: households.id })
  const kids = await s.app.db
    .insert(children)
    .values(
      made.map((h) => ({
        classId: s.world.here.classId,
        householdId: h.id,
        given: 'Child',
        name: `Child ${h.id.slice(0, 6)}`,
      })),
    )
    .returning({ id: children.id, householdId: children.householdId })
  await openLinks(
    s.app.db,
    s.app.secret,
    made.map((h) => h.id),
  )
  return kids.map((k) => ({ token: homeToken(s.app.secret, k.householdId, 1), childId: k.id }))
}
async function replyFrom(
  from: string,
  { token, childId }: { token: string; childId: string },
  times: Timed,
): Promise<{ photoId: string; statuses: number[] }> {
  const timed = async <T>(list: number[], work: () => Promise<T>): Promise<T> => {
    const start = performance.now()
    const made = await work()
    list.push(performance.now() - start)
    return made
  }
  const opened = await timed(times.open, () => send(from, 'GET', `/api/home/${token}`))
  const pack = (opened.json.packs as { id: string }[])[0]!.id
  const sent = await timed(times.photo, () =>
    send(from, 'POST', `/api/home/${token}/packs/${pack}/photos`, form(photo)),
  )
  const body = Buffer.from(
    JSON.stringify({ key: randomUUID(), childId, answers: [], help: 'alone', words: `From ${childId}` }),
  )
  const replied = await timed(times.reply, () =>
    send(from, 'PUT', `/api/home/${token}/packs/${pack}/reply`, { type: 'application/json', bytes: body }),
  )
  return { photoId: sent.json.id as string, statuses: [opened.status, sent.status, replied.status] }
}
const p95 = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * 0.95)]!

describe.each([
  ['from as many addresses', (i: number) => `127.1.${Math.floor(i / 250)}.${(i % 250) + 1}`],
  ['from one address', () => '127.0.0.1'],
])('%s', (name, address) => {
  test(
    'every home is answered, every photo and reply is kept, once',
    async () => {
      const idle: Timed = { open: [], photo: [], reply: [] }
      for (const h of await street(4)) await replyFrom('127.0.0.1', h, idle)
      const times: Timed = { open: [], photo: [], reply: [] }
      const all = await street(homes)
      const done = await Promise.all(
        all.map(async (h, i) => {
          // Evenly over the time, as families come home.
          await new Promise((resolve) => setTimeout(resolve, (i / homes) * within * 1000))
          return replyFrom(address(i), h, times)
        }),
      )
      expect(done.filter((d) => d.statuses.some((x) => x !== 200))).toEqual([])
      const ids = done.map((d) => d.photoId)
      const kept = await s.app.db.select({ id: photos.id }).from(photos).where(inArray(photos.id, ids))
      expect([new Set(ids).size, kept.length]).toEqual([homes, homes])
      const [pack] = await s.app.db
        .select()
        .from(publications)
        .where(eq(publications.lessonId, s.world.here.lessonId))
      const said = await s.app.db.select().from(replies).where(eq(replies.publicationId, pack!.id))
      const mine = said.filter((r) => all.some((h) => h.childId === r.childId))
      expect([mine.length, new Set(mine.map((r) => r.childId)).size]).toEqual([homes, homes])
      if (print)
        for (const what of ['open', 'photo', 'reply'] as const)
          console.log(
            `${homes} homes in ${within} s ${name}: ${what} p95 ${p95(times[what]).toFixed(0)} ms, ${(p95(times[what]) / p95(idle[what])).toFixed(1)} times an idle machine’s`,
          )
    },
    within * 1000 + 120_000,
  )
})

test('twenty very large photos at once are all taken in, or refused in words, and the memory stays in bounds', async () => {
  const n = print ? 20 : 3
  const large = await sharp({ create: { width: 9000, height: 7000, channels: 3, background: '#8fa58c' } })
    .jpeg({ quality: 90 })
    .toBuffer()
  const all = await street(n)
  const statuses = await Promise.all(
    all.map(async ({ token }, i) => {
      const pack = ((await send('127.0.0.1', 'GET', `/api/home/${token}`)).json.packs as { id: string }[])[0]!
        .id
      return (await send(`127.2.0.${i + 1}`, 'POST', `/api/home/${token}/packs/${pack}/photos`, form(large)))
        .status
    }),
  )
  expect(statuses).toEqual(Array.from({ length: n }, () => 200))
  if (print) {
    console.log(
      `${n} photos of 63 megapixels at once: the web process used ${s.webMemory().toFixed(0)} MB at most`,
    )
    expect(s.webMemory()).toBeLessThan(500)
  }
}, 240_000)
