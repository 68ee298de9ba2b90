import { randomBytes } from 'node:crypto'
import path from 'node:path'
import type { AddressInfo } from 'node:net'
import { hash } from '@node-rs/argon2'
import { Client } from 'pg'
import { afterAll, beforeAll } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { findExamples } from '@awlbox/core/plan/examples'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { makeApp } from './app.ts'
import { createLesson } from './lessons/store.ts'
import { folderBlobs } from './platform/blobs.ts'
import { type Config, readConfig } from './platform/config.ts'
import { migrateDb, openDb } from './platform/db.ts'
import { listen } from './platform/events.ts'
import { openQueue } from './platform/queue.ts'
import { children, classes, households, people, settings } from './platform/schema.ts'
import type { Services } from './platform/services.ts'
import { openLinks } from './send/store.ts'
import { homeToken } from './platform/tokens.ts'

/** An application on a database of its own in the PostgreSQL that ./awlbox test started. */
export interface TestApp extends Services {
  url: string
  address: string
  close: () => Promise<void>
}
export async function openTestApp(): Promise<TestApp> {
  const base = process.env.AWLBOX_TEST_PG
  if (!base) throw new Error('Run ./awlbox test: it starts the PostgreSQL these tests need')
  const name = `t_${randomBytes(6).toString('hex')}`
  const admin = new Client({ connectionString: `${base}/postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const url = `${base}/${name}`
  // A test may change what its own application was told; nobody else's.
  const told = readConfig()
  const config: Config = { ...told, databaseUrl: url, blobs: path.join(told.blobs, name) }
  const { db, pool } = openDb(url)
  await migrateDb(db)
  const services: Services = {
    db,
    pool,
    blobs: folderBlobs(config.blobs),
    config,
    queue: await openQueue(db, url),
    events: listen(url),
    secret: 'a secret for tests only, 32 letters',
    checkAnswers: true,
  }
  const server = makeApp(services).listen(0, '127.0.0.1')
  server.keepAliveTimeout = 120_000
  await new Promise((resolve) => server.once('listening', resolve))
  return {
    ...services,
    url,
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    async close() {
      server.close()
      server.closeAllConnections()
      await services.queue.close()
      await services.events.close()
      await pool.end()
    },
  }
}

interface Answered {
  status: number
  body: Record<string, unknown>
  headers: Headers
}
/** A caller with or without a session. */
export interface Caller {
  cookie: string
  call: (method: string, path: string, body?: unknown, headers?: Record<string, string>) => Promise<Answered>
}
export function caller(address: string, cookie = ''): Caller {
  return {
    cookie,
    async call(method, path, body, headers = {}) {
      const raw = body instanceof FormData || body instanceof Uint8Array
      const response = await fetch(address + path, {
        method,
        headers: {
          ...(cookie ? { cookie } : {}),
          ...(body !== undefined && !raw ? { 'content-type': 'application/json' } : {}),
          ...headers,
        },
        ...(body !== undefined ? { body: raw ? (body as FormData) : JSON.stringify(body) } : {}),
        redirect: 'manual',
      })
      const text = await response.text()
      let parsed: Record<string, unknown>
      try {
        parsed = JSON.parse(text) as Record<string, unknown>
      } catch {
        parsed = { text }
      }
      return { status: response.status, body: parsed, headers: response.headers }
    },
  }
}
async function signIn(address: string, email: string): Promise<Caller> {
  const r = await caller(address).call('POST', '/api/sign-in', { email, password: 'right' })
  if (r.status !== 200) throw new Error(`sign-in: ${r.status}`)
  return caller(address, r.headers.getSetCookie()[0]!.split(';')[0])
}

export function sampleLesson(title = 'Seven parcels', upTo = 7): Lesson {
  const aim = aimOf({ structure: 'parts', upTo, count: 3 })
  const found = findExamples(aim, { zero: false, seed: 1 })
  if (!found.ok) throw new Error(found.conflict)
  let n = 0
  return fromTemplate({
    title,
    ideaId: 'parts-7',
    age: 4,
    aim,
    examples: found.sets[0]!.examples,
    style: defaultHouseStyle,
    newId: () => `x${(n += 1)}`,
  })
}

/** Two settings, so that every rule has somebody it keeps out. */
export async function populate(app: TestApp) {
  const passwordHash = await hash('right', { memoryCost: 4096, timeCost: 1 })
  const make = async (name: string) => {
    const [setting] = await app.db
      .insert(settings)
      .values({ name, houseStyle: defaultHouseStyle })
      .returning()
    const at = name.toLowerCase()
    const staff = await app.db
      .insert(people)
      .values([
        {
          settingId: setting!.id,
          email: `owner@${at}.example`,
          name: 'Petra',
          role: 'owner' as const,
          passwordHash,
        },
        {
          settingId: setting!.id,
          email: `teacher@${at}.example`,
          name: 'Marnie',
          role: 'teacher' as const,
          passwordHash,
        },
        {
          settingId: setting!.id,
          email: `colleague@${at}.example`,
          name: 'Desh',
          role: 'teacher' as const,
          passwordHash,
        },
      ])
      .returning()
    const [cls] = await app.db
      .insert(classes)
      .values({ settingId: setting!.id, teacherId: staff[1]!.id, name: 'Wagtails', age: 4 })
      .returning()
    const [cls2] = await app.db
      .insert(classes)
      .values({ settingId: setting!.id, teacherId: staff[1]!.id, name: 'Goldcrests', age: 3 })
      .returning()
    const homes = await app.db
      .insert(households)
      .values([
        { settingId: setting!.id, name: 'Weir Lane' },
        { settingId: setting!.id, name: 'Mill Bank', youngerChild: true },
      ])
      .returning()
    const kids = await app.db
      .insert(children)
      .values([
        { classId: cls!.id, householdId: homes[0]!.id, given: 'Suri', name: 'Suri' },
        { classId: cls2!.id, householdId: homes[1]!.id, given: 'Pia', name: 'Pia' },
      ])
      .returning()
    await openLinks(
      app.db,
      app.secret,
      homes.map((h) => h.id),
    )
    const lessonId = await createLesson(app.db, {
      classId: cls!.id,
      day: '2026-11-26',
      doc: sampleLesson(),
      byId: staff[1]!.id,
      style: defaultHouseStyle,
    })
    return {
      setting: setting!,
      classId: cls!.id,
      lessonId,
      teacher: () => staff[1]!.id,
      homes,
      kids,
      tokens: homes.map((h) => homeToken(app.secret, h.id, 1)),
    }
  }
  const [here, there] = [await make('Cobblegate'), await make('Elsewhere')]
  const [owner, teacher, colleague, stranger] = await Promise.all(
    ['owner@cobblegate', 'teacher@cobblegate', 'colleague@cobblegate', 'teacher@elsewhere'].map((e) =>
      signIn(app.address, `${e}.example`),
    ),
  )
  return {
    here,
    there,
    owner: owner!,
    teacher: teacher!,
    colleague: colleague!,
    stranger: stranger!,
    nobody: caller(app.address),
  }
}
/** A test file's own application and its two settings: opened before its tests, closed after them. */
export function testWorld(): {
  readonly app: TestApp
  readonly world: Awaited<ReturnType<typeof populate>>
  readonly lesson: string
} {
  let app: TestApp
  let world: Awaited<ReturnType<typeof populate>>
  beforeAll(async () => {
    app = await openTestApp()
    world = await populate(app)
  })
  afterAll(() => app.close())
  return {
    get app() {
      return app
    },
    get world() {
      return world
    },
    /** Path of the lesson that stands ready in the first setting. */
    get lesson() {
      return `/api/lessons/${world.here.lessonId}`
    },
  }
}
/** Waits until something holds, asking often; fails after the limit instead of hanging. */
export async function until<T>(
  what: string,
  ask: () => Promise<T | null | undefined | false>,
  limit = 60_000,
): Promise<T> {
  const end = Date.now() + limit
  for (;;) {
    const found = await ask()
    if (found) return found
    if (Date.now() > end) throw new Error(`Not within ${limit} ms: ${what}`)
    await new Promise((resolve) => setImmediate(resolve))
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
}
