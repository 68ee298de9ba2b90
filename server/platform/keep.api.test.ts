import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { eq, sql } from 'drizzle-orm'
import { Client } from 'pg'
import { describe, expect, test } from 'vitest'
import { testWorld, until } from '../testing.ts'
import { openDb } from './db.ts'
import { openLocks } from './locks.ts'
import { projectRoot } from './root.ts'
import { jobs } from './schema.ts'
import { inFolder, sweepFolders } from './temporary.ts'
import { openQueue } from './queue.ts'

const at = testWorld()
const isThere = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    // A process that has ended and was not yet collected is there in name only.
    return !/\) Z /.test(fs.readFileSync(`/proc/${pid}/stat`, 'utf8'))
  } catch {
    return false
  }
}
/** A program of a few lines in a process of its own. */
function program(source: string) {
  const file = path.join(os.tmpdir(), `awlbox-test-${process.pid}-${Math.random().toString(36).slice(2)}.ts`)
  fs.writeFileSync(file, source)
  const child = spawn(process.execPath, ['--import', 'tsx', file], {
    cwd: projectRoot,
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  child.once('exit', () => fs.rmSync(file, { force: true }))
  return child
}

/** A database with nothing in it, for as long as something is done. */
async function inNewDatabase(act: (url: string) => Promise<void>): Promise<void> {
  const base = process.env.AWLBOX_TEST_PG!
  const name = `empty_${randomBytes(4).toString('hex')}`
  const admin = new Client({ connectionString: `${base}/postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  try {
    await act(`${base}/${name}`)
  } finally {
    await admin.query(`drop database ${name} with (force)`)
    await admin.end()
  }
}
test('programs that begin together on an empty record store make its queues once, and all of them begin', async () => {
  for (let round = 0; round < 3; round++)
    await inNewDatabase(async (url) => {
      const { db, pool } = openDb(url)
      const opened = await Promise.allSettled([1, 2, 3, 4].map(() => openQueue(db, url)))
      for (const o of opened) if (o.status === 'fulfilled') await o.value.close()
      await pool.end()
      expect(opened.flatMap((o) => (o.status === 'rejected' ? [String(o.reason)] : []))).toEqual([])
    })
})

describe('a job under way', () => {
  const stale = async () => {
    const [job] = await at.app.db
      .insert(jobs)
      .values({
        settingId: at.world.here.setting.id,
        lessonId: at.world.here.lessonId,
        kind: 'render',
        subject: at.world.here.lessonId,
        data: {},
        status: 'running',
        step: 'encoding',
        share: 0.4,
        attempts: 1,
        heartbeatAt: sql`now() - interval '60 seconds'` as never,
      })
      .returning()
    return job!.id
  }
  test('whose worker is slow stays with it; whose worker is gone is begun again by another', async () => {
    const slow = openLocks(at.app.url)
    const id = await stale()
    expect(await slow.take(id)).toBe(true)
    const did: string[] = []
    const queue = await openQueue(at.app.db, at.app.url)
    const nothing = () => Promise.resolve()
    await queue.work({
      film: nothing,
      take: nothing,
      photo: nothing,
      render: (w) => Promise.resolve(void did.push(w.job.id)),
    })
    const now = async () => (await at.app.db.select().from(jobs).where(eq(jobs.id, id)))[0]!
    // It was looked after when the queue began, and left alone.
    expect([(await now()).status, (await now()).attempts, did]).toEqual(['running', 1, []])
    // Its process ends, however it ends: with it goes the connection.
    await slow.close()
    await until('it is done by another', async () => (await now()).status === 'done')
    expect([did, (await now()).attempts]).toEqual([[id], 2])
    await queue.close()
  })
  test('is held by one only, also within one process, and free again afterwards', async () => {
    const [a, b] = [openLocks(at.app.url), openLocks(at.app.url)]
    expect([await a.take('job'), await a.take('job'), await b.take('job')]).toEqual([true, false, false])
    await a.release('job')
    expect(await b.take('job')).toBe(true)
    await Promise.all([a.close(), b.close()])
  })
  test('whose connection to the record store breaks is told', async () => {
    const locks = openLocks(at.app.url)
    const lost = new Promise<string[]>((resolve) => locks.onLost(resolve))
    await locks.take('broken')
    await at.app.db.execute(
      sql`select pg_terminate_backend(pid) from pg_stat_activity where query like '%pg_try_advisory_lock%' and pid <> pg_backend_pid() and datname = current_database()`,
    )
    expect(await lost).toEqual(['broken'])
    expect(await locks.take('broken')).toBe(true)
    await locks.close()
  })
})

test('losing the record store in the middle of a transaction fails that one and nothing else', async () => {
  const broken = at.app.db.transaction(async (tx) => {
    const { rows } = await tx.execute<{ pid: number }>(sql`select pg_backend_pid() as pid`)
    await at.app.db.execute(sql`select pg_terminate_backend(${rows[0]!.pid})`)
    // The connection is told to be gone while nobody asks it anything: the moment at which a process used to end.
    await until('it is noticed', async () => {
      const r = await at.app.db.execute(sql`select 1 from pg_stat_activity where pid = ${rows[0]!.pid}`)
      return r.rows.length === 0
    })
    await new Promise((resolve) => setImmediate(resolve))
    await tx.execute(sql`select 1`)
  })
  await expect(broken).rejects.toThrow()
  expect((await at.world.nobody.call('GET', '/api/health')).status).toBe(200)
})

test('programs that a killed process had started end with it', async () => {
  const parent = program(
    `import { startBound } from ${JSON.stringify(path.join(projectRoot, 'server/platform/media/run.ts'))}
     const child = startBound('sleep', ['300'], { stdio: 'ignore' })
     console.log(child.pid)
     setInterval(() => undefined, 1000)`,
  )
  const pid = await new Promise<number>((resolve) =>
    parent.stdout.on('data', (d: Buffer) => resolve(Number(d.toString()))),
  )
  expect(isThere(pid)).toBe(true)
  parent.kill('SIGKILL')
  await until('its program ended', () => Promise.resolve(!isThere(pid)), 10_000)
})

test('folders of processes that are no more are swept, those in use stay', async () => {
  const root = fs.mkdtempSync(path.join(os.tmpdir(), 'sweep-'))
  const gone = spawn('true')
  await new Promise((resolve) => gone.once('exit', resolve))
  for (const name of [
    `awlbox-take-${gone.pid}-abcdef`,
    `awlbox-take-${process.pid}-abcdef`,
    'somebody-else',
    'awlbox-notes',
  ])
    fs.mkdirSync(path.join(root, name))
  expect(await sweepFolders(root)).toBe(1)
  expect(fs.readdirSync(root).sort()).toEqual(
    [`awlbox-take-${process.pid}-abcdef`, 'awlbox-notes', 'somebody-else'].sort(),
  )
  fs.rmSync(root, { recursive: true })
  expect(await inFolder('take', (f) => Promise.resolve(path.basename(f)))).toMatch(
    new RegExp(`^awlbox-take-${process.pid}-\\w{6}$`),
  )
})
