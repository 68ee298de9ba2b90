import fs from 'node:fs/promises'
import path from 'node:path'
import { randomBytes } from 'node:crypto'
import { folderBlobs } from './platform/blobs.ts'
import type { Config } from './platform/config.ts'
import { openDb } from './platform/db.ts'
import { listen } from './platform/events.ts'
import { openQueue } from './platform/queue.ts'
import type { Services } from './platform/services.ts'

const isCode = (error: unknown, code: string): boolean => (error as NodeJS.ErrnoException).code === code
/** The secret from the environment, or one made once and kept beside the blobs. */
async function readSecret(config: Pick<Config, 'secret' | 'blobs'>): Promise<string> {
  if (config.secret) return config.secret
  const file = path.join(config.blobs, '..', 'secret')
  try {
    return (await fs.readFile(file, 'utf8')).trim()
  } catch (error) {
    if (!isCode(error, 'ENOENT')) throw error
    await fs.mkdir(path.dirname(file), { recursive: true })
    try {
      await fs.writeFile(file, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' })
    } catch (made) {
      // Another process of ours made it first: theirs is read.
      if (!isCode(made, 'EEXIST')) throw made
    }
    return (await fs.readFile(file, 'utf8')).trim()
  }
}

export async function openServices(config: Config): Promise<Services & { close: () => Promise<void> }> {
  // Files of children’s homes are for this program alone.
  process.umask(0o077)
  const { db, pool } = openDb(config.databaseUrl)
  const queue = await openQueue(db, config.databaseUrl)
  const events = listen(config.databaseUrl)
  const blobs = folderBlobs(config.blobs)
  return {
    db,
    pool,
    queue,
    events,
    blobs,
    secret: await readSecret(config),
    config,
    checkAnswers: false,
    async close() {
      await queue.close()
      await events.close()
      await pool.end()
    },
  }
}
