import { type ChildProcess, fork, type StdioOptions } from 'node:child_process'
import { readConfig } from './platform/config.ts'
import { projectRoot } from './platform/root.ts'
import { hasOwner, newLink } from './setting/store.ts'
import { openDb, migrateDb } from './platform/db.ts'
import { browsersRefuse, freePort } from './platform/free-port.ts'
import { addressOn, unreachable } from './platform/reach.ts'
import { readPair } from './platform/tls.ts'
import { seenOf, watching } from './platform/watch.ts'

/** Starts the web, the worker and (for the demo) the stand-in camera; starts again whichever dies; stops them all together. */
const config = readConfig()
if (browsersRefuse(config.port)) {
  console.error(
    `Browsers open no page on port ${config.port}. Choose another: PORT=4180 ./awlbox ${process.argv.includes('--demo') ? 'demo' : 'start'}`,
  )
  process.exit(5)
}
const demo = process.argv.includes('--demo')
if (config.tls)
  try {
    readPair(config.tls)
  } catch (error) {
    console.error(error instanceof Error ? error.message : error)
    process.exit(6)
  }
/** Bundled programs start at once; from source they are compiled as they load. */
const bundled = import.meta.url.endsWith('.mjs')
const programs = {
  web: 'server/web.ts',
  worker: 'server/worker.ts',
  'stand-in camera': 'standins/service.ts',
  day: 'standins/demo/day.ts',
} as const
const bundles = {
  web: 'dist/server/web.mjs',
  worker: 'dist/server/worker.mjs',
  'stand-in camera': 'dist/server/camera.mjs',
  day: 'dist/server/day.mjs',
} as const
type Program = keyof typeof programs
const launch = (name: Program, env: Record<string, string>, stdio: StdioOptions): ChildProcess =>
  fork(bundled ? bundles[name] : programs[name], {
    execArgv: bundled ? ['--enable-source-maps'] : ['--import', 'tsx'],
    env: { ...process.env, ...env },
    stdio,
    cwd: projectRoot,
  })
const children = new Map<string, ChildProcess>()
let stopping = false

/** Watches a program that has turned once, and ends it where it hangs; it is then started again. */
function watched(name: Program, child: ChildProcess): { turned: () => void; end: () => void } {
  const watch = watching(() => seenOf(child.pid!))
  const timer = setInterval(() => {
    const words = stopping ? null : watch.hanging()
    if (!words) return
    console.error(`The ${name} ${words}; it is ended.`)
    child.kill('SIGKILL')
  }, 1000)
  return { turned: watch.turned, end: () => clearInterval(timer) }
}

function start(name: Program, env: Record<string, string>, ready: () => void, failures = 0): void {
  const child = launch(name, env, ['ignore', 'inherit', 'inherit', 'ipc'])
  children.set(name, child)
  const since = Date.now()
  const watch = watched(name, child)
  child.on('message', (m) => {
    if (m === 'ready') ready()
    if (m === 'turning') watch.turned()
  })
  child.on('exit', (code, signal) => {
    watch.end()
    children.delete(name)
    if (stopping) return
    if (code === 3) {
      console.error(
        `The address ${config.host}:${config.port} is taken. Stop what runs there, or choose another: PORT=${config.port + 1} ./awlbox demo`,
      )
      void stopAll(3)
      return
    }
    const quick = Date.now() - since < 3000 ? failures + 1 : 0
    if (quick > 5) {
      console.error(`The ${name} cannot start; its last words are above.`)
      void stopAll(1)
      return
    }
    console.error(`The ${name} stopped (${code ?? signal ?? 'ended'}); starting it again.`)
    // One that fell before it was ready is still waited for.
    setTimeout(() => !stopping && start(name, env, ready, quick), 300)
  })
}

async function stopAll(code: number): Promise<void> {
  if (stopping) return
  stopping = true
  await Promise.all(
    [...children.values()].map(
      (c) =>
        new Promise<void>((resolve) => {
          const kill = setTimeout(() => c.kill('SIGKILL'), 9000)
          c.once('exit', () => {
            clearTimeout(kill)
            resolve()
          })
          c.kill('SIGTERM')
        }),
    ),
  )
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void stopAll(0))

const { db, pool } = openDb(config.databaseUrl)
await migrateDb(db)
const env: Record<string, string> = {}
const ready: Promise<void>[] = []
if (demo) {
  const { seedDemo } = await import('./demo/seed.ts')
  const seeded = await seedDemo(db)
  if (seeded) console.log('Demo: Cobblegate Early Years with two classes, their lessons and replies.')
  const port = String(await freePort())
  env.AWLBOX_CAMERA = `http://127.0.0.1:${port}`
  ready.push(new Promise<void>((resolve) => start('stand-in camera', { AWLBOX_CAMERA_PORT: port }, resolve)))
}
/** The page on which an empty Awlbox is begun, once. */
const firstLink = (await hasOwner(db)) ? null : await newLink(db, 'first')
await pool.end()
await Promise.all([
  ...ready,
  new Promise<void>((resolve) => start('web', env, resolve)),
  new Promise<void>((resolve) => start('worker', env, resolve)),
])
const address = addressOn(config)
console.log(`Awlbox is at ${address}`)
if (firstLink)
  console.log(
    `\nNobody is here yet. Open this page within an hour to begin:\n  ${config.origin || address}/set-up/${firstLink}\n`,
  )
if (!demo) for (const words of unreachable(config)) console.log(words)
console.log('Ctrl-C stops it; ./awlbox stop does too.')
process.send?.('ready')
// The page is there; the stand-ins live their day behind it, to be seen on the Shelf.
if (demo && process.env.AWLBOX_DEMO_DAY !== '0') {
  const day = launch('day', { ...env, AWLBOX_ADDRESS: address }, ['inherit', 'inherit', 'inherit', 'ipc'])
  children.set('demo day', day)
  day.on('exit', (code) => {
    children.delete('demo day')
    if (code && !stopping)
      console.error(
        'Demo: the stand-ins’ day ended early; what they did is kept, and the next start goes on.',
      )
  })
}
