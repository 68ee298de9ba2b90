import { spawn } from 'node:child_process'
import { readConfig } from './platform/config.ts'
import { migrateDb, openDb } from './platform/db.ts'
import { freePort } from './platform/free-port.ts'
import { projectRoot } from './platform/root.ts'
import { seedDemo } from './demo/seed.ts'

/** For developers: pages, web, worker and stand-in camera on the demo's data, each made anew when its files change. */
const config = readConfig()
const { db, pool } = openDb(config.databaseUrl)
await migrateDb(db)
await seedDemo(db)
await pool.end()
const camera = String(await freePort())
const pages = await freePort(5173)
const env = {
  ...process.env,
  AWLBOX_CAMERA: `http://127.0.0.1:${camera}`,
  AWLBOX_CAMERA_PORT: camera,
  AWLBOX_ADDRESS: `http://127.0.0.1:${config.port}`,
  AWLBOX_ORIGIN: `http://127.0.0.1:${pages}`,
}
const commands = [
  ['tsx', 'watch', '--clear-screen=false', 'server/web.ts'],
  ['tsx', 'watch', '--clear-screen=false', 'server/worker.ts'],
  ['tsx', 'watch', '--clear-screen=false', 'standins/service.ts'],
  ['vite', 'web', '--host', '127.0.0.1', '--port', String(pages), '--strictPort'],
]
const children = commands.map((c) =>
  spawn('npx', ['--no-install', ...c], { cwd: projectRoot, env, stdio: 'inherit' }),
)
const ended = children.map((c) => new Promise<void>((resolve) => c.once('exit', () => resolve())))
const stop = () => children.forEach((c) => c.kill('SIGTERM'))
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, stop)
console.log(`Pages: http://127.0.0.1:${pages}   (sign in as marnie@cobblegate.example, bobbin-parcels)`)
await Promise.all(ended)
