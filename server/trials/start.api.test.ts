import { type ChildProcess, fork } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { Client } from 'pg'
import { afterAll, expect, test } from 'vitest'
import { freePort } from '../platform/free-port.ts'
import { projectRoot } from '../platform/root.ts'
import { program } from '../testing-programs.ts'
import { until } from '../testing.ts'

const left: ChildProcess[] = []
afterAll(() => left.forEach((child) => child.kill('SIGKILL')))

/** The processes a process has begun, by what they run. */
const begunBy = (pid: number): { pid: number; runs: string }[] =>
  fs
    .readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
    .split(' ')
    .filter(Boolean)
    // One may be gone before it is asked what it runs.
    .map((child) => `/proc/${child}/cmdline`)
    .filter((told) => fs.existsSync(told))
    .map((told) => ({ pid: Number(told.split('/')[2]), runs: fs.readFileSync(told, 'utf8') }))

test('a web that falls before it is ready is begun again, and Awlbox is there all the same', async () => {
  const base = process.env.AWLBOX_TEST_PG!
  const name = `start_${randomBytes(4).toString('hex')}`
  const admin = new Client({ connectionString: `${base}/postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const blobs = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-start-'))
  const port = await freePort()
  const { file, execArgv } = program('start')
  const child = fork(file, [], {
    cwd: projectRoot,
    execArgv,
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    env: { ...process.env, DATABASE_URL: `${base}/${name}`, PORT: String(port), AWLBOX_BLOBS: blobs },
  })
  left.push(child)
  let ready = false
  child.on('message', (m) => (ready ||= m === 'ready'))
  const web = () => begunBy(child.pid!).find((p) => /server\/web\./.test(p.runs))
  await until('the web has begun', () => Promise.resolve(web() !== undefined))
  expect(ready).toBe(false)
  process.kill(web()!.pid, 'SIGKILL')
  await until('it is ready', () => Promise.resolve(ready))
  expect((await fetch(`http://127.0.0.1:${port}/`)).status).toBe(200)
  const ended = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGTERM')
  expect(await ended).toBe(0)
  fs.rmSync(blobs, { recursive: true, force: true })
})
