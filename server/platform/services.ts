import type { Pool } from 'pg'
import type { Config } from './config.ts'
import type { Blobs } from './blobs.ts'
import type { Db } from './db.ts'
import type { Events } from './events.ts'
import type { Queue } from './queue.ts'

/** What every station is handed. */
export interface Services {
  db: Db
  pool: Pool
  blobs: Blobs
  queue: Queue
  events: Events
  secret: string
  config: Config
  /** Whether every answer is held against its contract before it is sent: in tests. */
  checkAnswers: boolean
}
