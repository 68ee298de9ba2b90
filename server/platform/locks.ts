import { Client } from 'pg'
import { log, noted } from './log.ts'

/**
 * Says of a job who is at it: a lock that PostgreSQL lets go of by itself when the process that holds it is no more,
 * and only then. A worker that is merely slow, on a machine busy with other things, keeps its jobs.
 */
export interface Locks {
  /** Whether it was free, and is held now. */
  take: (id: string) => Promise<boolean>
  release: (id: string) => Promise<void>
  /** Calls back with what was held when the connection is lost: it may be somebody else's from now on. */
  onLost: (lost: (ids: string[]) => void) => void
  offLost: (lost: (ids: string[]) => void) => void
  close: () => Promise<void>
}
const key = 'hashtextextended($1, 7)'

/** Does something that no two processes may do at once, such as making tables: the second waits for the first. */
export async function oneAtATime<T>(url: string, what: string, act: () => Promise<T>): Promise<T> {
  const client = new Client({ connectionString: url, connectionTimeoutMillis: 4000 })
  await client.connect()
  try {
    await client.query(`select pg_advisory_lock(${key})`, [what])
    return await act()
  } finally {
    // Its end lets go of the lock.
    await client.end().catch(noted('a lock did not end well'))
  }
}

export function openLocks(url: string): Locks {
  let client: Client | null = null
  let opening: Promise<Client> | null = null
  const held = new Set<string>()
  const lostTo = new Set<(ids: string[]) => void>()
  const open = async (): Promise<Client> => {
    const c = new Client({ connectionString: url, connectionTimeoutMillis: 4000 })
    const gone = () => {
      if (client !== c) return
      client = null
      const ids = [...held]
      held.clear()
      if (!ids.length) return
      log.warn({ jobs: ids.length }, 'the record store went away while jobs were under way')
      lostTo.forEach((f) => f(ids))
    }
    c.on('error', gone)
    c.on('end', gone)
    await c.connect()
    return c
  }
  const connected = async (): Promise<Client> => {
    if (client) return client
    opening ??= open().finally(() => (opening = null))
    return (client = await opening)
  }
  return {
    async take(id) {
      const r = await (
        await connected()
      ).query<{ got: boolean }>(`select pg_try_advisory_lock(${key}) as got`, [id])
      const got = r.rows[0]?.got === true
      // The same process may take a lock twice: for it too the second is one too many.
      if (got && held.has(id)) {
        await client?.query(`select pg_advisory_unlock(${key})`, [id])
        return false
      }
      if (got) held.add(id)
      return got
    },
    async release(id) {
      if (held.delete(id))
        await client?.query(`select pg_advisory_unlock(${key})`, [id]).catch(noted('a lock'))
    },
    onLost: (f) => void lostTo.add(f),
    offLost: (f) => void lostTo.delete(f),
    async close() {
      const c = client
      client = null
      await c?.end().catch(noted('the locks did not end well'))
    },
  }
}
