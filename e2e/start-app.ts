import { execFileSync, fork, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import fs from 'node:fs'
import path from 'node:path'
import { Client } from 'pg'
import { program } from '../server/testing-programs.ts'
import { prepareDay } from './prepared-day.ts'

const root = path.resolve(import.meta.dirname, '..')
const port = 4299

/** Starts web, worker and stand-in camera on a database of their own with the demo people, and ends them afterwards. */
export default async function start(): Promise<() => Promise<void>> {
  const base = process.env.AWLBOX_TEST_PG
  if (!base) throw new Error('Run ./awlbox test: it starts the PostgreSQL these tests need')
  const media = path.join(root, 'test-results', 'media')
  fs.mkdirSync(media, { recursive: true })
  execFileSync('flite', [
    '-voice',
    'rms',
    '-t',
    'Hello. Bobbin the postie has parcels to sort, and he needs your help.',
    '-o',
    path.join(media, 'voice.wav'),
  ])
  const name = `e2e_${randomBytes(4).toString('hex')}`
  const admin = new Client({ connectionString: `${base}/postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const { file, execArgv } = program('start')
  const child: ChildProcess = fork(file, ['--demo'], {
    cwd: root,
    execArgv,
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: `${base}/${name}`,
      PORT: String(port),
      AWLBOX_DEMO_DAY: '0',
      AWLBOX_LOG: 'error',
    },
  })
  // What it says is shown, and kept for the end of a long run: a program that was started again explains what failed.
  const said = fs.createWriteStream(path.join(root, 'test-results', 'app.log'))
  for (const [from, to] of [
    [child.stdout!, process.stdout],
    [child.stderr!, process.stderr],
  ] as const)
    from.on('data', (text: Buffer) => {
      to.write(text)
      said.write(text)
    })
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve())
    child.once('exit', (code) => reject(new Error(`The app ended with ${code}`)))
  })
  process.env.AWLBOX_E2E_DB = `${base}/${name}`
  const stop = (): Promise<void> =>
    new Promise((resolve) => {
      child.once('exit', () => resolve())
      child.kill('SIGTERM')
    })
  try {
    await prepareDay(`http://127.0.0.1:${port}`)
  } catch (error) {
    await stop()
    throw error
  }
  return stop
}
