import { type ChildProcess, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import fs from 'node:fs'
import { Client } from 'pg'
import { freePort } from '../platform/free-port.ts'
import { projectRoot } from '../platform/root.ts'
import { program } from '../testing-programs.ts'
import { openTestApp, populate, type TestApp, until } from '../testing.ts'

/**
 * A web and a worker process of their own on a database of their own, to be killed and started again. The application
 * in this process only prepares what they work on, and looks at what was kept.
 */
export interface System {
  app: TestApp
  world: Awaited<ReturnType<typeof populate>>
  /** Where the web process answers. */
  address: string
  /** Most memory the web process has used since it began, in megabytes. */
  webMemory: () => number
  kill: (who: Victim) => Promise<void>
  /** Has everything run again that does not. */
  mend: () => Promise<void>
  close: () => Promise<void>
}
export type Victim = 'web' | 'worker' | 'database'

export async function openSystem(): Promise<System> {
  const app = await openTestApp()
  const world = await populate(app)
  const port = await freePort()
  const address = `http://127.0.0.1:${port}`
  const children = new Map<'web' | 'worker', ChildProcess>()
  const start = (who: 'web' | 'worker'): Promise<void> => {
    const { file, execArgv } = program(who)
    const child = spawn(process.execPath, [...execArgv, file], {
      cwd: projectRoot,
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      env: {
        ...process.env,
        DATABASE_URL: app.url,
        AWLBOX_BLOBS: app.config.blobs,
        AWLBOX_SECRET: app.secret,
        PORT: String(port),
      },
    })
    children.set(who, child)
    return new Promise((resolve, reject) => {
      child.on('message', (m) => m === 'ready' && resolve())
      child.once('exit', (code, signal) =>
        signal ? undefined : reject(new Error(`the ${who} ended with ${code} before it was ready`)),
      )
    })
  }
  await Promise.all([start('web'), start('worker')])
  const database = async (open: boolean): Promise<void> => {
    const name = new URL(app.url).pathname.slice(1)
    const admin = new Client({ connectionString: app.url.replace(/\/[^/]+$/, '/postgres') })
    await admin.connect()
    await admin.query(`alter database ${name} with allow_connections ${String(open)}`)
    if (!open)
      await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
    await admin.end()
  }
  const end = (child: ChildProcess): Promise<void> =>
    new Promise((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null) return resolve()
      child.once('exit', () => resolve())
      child.kill('SIGKILL')
    })
  return {
    app,
    world,
    address,
    webMemory() {
      const told = fs.readFileSync(`/proc/${children.get('web')!.pid}/status`, 'utf8')
      return Number(told.match(/VmHWM:\s+(\d+)/)![1]) / 1024
    },
    async kill(who) {
      if (who === 'database') return database(false)
      const child = children.get(who)
      children.delete(who)
      if (child) await end(child)
    },
    async mend() {
      await database(true)
      for (const who of ['web', 'worker'] as const) if (!children.has(who)) await start(who)
      await until('the web answers again', async () =>
        fetch(`${address}/api/health`).then(
          (r) => r.ok,
          () => false,
        ),
      )
    },
    async close() {
      await database(true)
      await Promise.all([...children.values()].map(end))
      await app.close()
    },
  }
}
/** A file of its own each time. */
export const randomName = (): string => randomBytes(6).toString('hex')
