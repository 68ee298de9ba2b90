import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import path from 'node:path'
import { Pool } from 'pg'
import { projectRoot } from './root.ts'
import { log } from './log.ts'
import * as schema from './schema.ts'

export type Db = NodePgDatabase<typeof schema>

/** A moment that a query works out: the driver gives what it cannot place as text. */
export const moment = (text: string): Date => new Date(text)

/** A pool that outlives the database: a lost connection is logged, and the next query opens a new one. */
export function openDb(url: string): { db: Db; pool: Pool } {
  const pool = new Pool({
    connectionString: url,
    max: 12,
    connectionTimeoutMillis: 4000,
    idleTimeoutMillis: 30_000,
  })
  pool.on('error', (error) => log.warn({ error: error.message }, 'database connection lost'))
  // One that is lost while somebody holds it, as between two queries of a transaction, is told to nobody else.
  pool.on('connect', (client) =>
    client.on('error', (error) => log.warn({ error: error.message }, 'database connection lost')),
  )
  return { db: drizzle(pool, { schema }), pool }
}
/** Does one thing with a database of its own, which is closed after it however it ends. */
export async function withDb<T>(url: string, use: (db: Db) => Promise<T>): Promise<T> {
  const { db, pool } = openDb(url)
  try {
    return await use(db)
  } finally {
    await pool.end()
  }
}
export const migrateDb = (db: Db): Promise<void> =>
  migrate(db, { migrationsFolder: path.join(projectRoot, 'server/platform/migrations') })
