import path from 'node:path'
import { Client } from 'pg'
import { run } from '../platform/media/run.ts'

/** Programs of the PostgreSQL that is used, where the launcher says which. */
const program = (name: string): string =>
  process.env.AWLBOX_PG_BIN ? path.join(process.env.AWLBOX_PG_BIN, name) : name
/** How they are told where the database is: the password goes by the environment, where no list of programs shows it. */
function reach(url: string): { args: string[]; env: Record<string, string>; name: string } {
  const u = new URL(url)
  return {
    args: ['-h', u.hostname, '-p', u.port || '5432', '-U', decodeURIComponent(u.username)],
    env: u.password ? { PGPASSWORD: decodeURIComponent(u.password) } : {},
    name: u.pathname.slice(1),
  }
}
export const nameIn = (url: string): string => reach(url).name
/** The same server, another database. */
export function otherDatabase(url: string, name: string): string {
  const u = new URL(url)
  u.pathname = `/${name}`
  return u.toString()
}
const hours = 6 * 3600_000
export async function dump(url: string, snapshot: string, file: string): Promise<void> {
  const { args, env, name } = reach(url)
  // The queue's own tables are not kept: what was under way is begun anew from what is.
  await run(
    program('pg_dump'),
    [
      ...args,
      '-Fc',
      '-Z',
      '6',
      '--no-owner',
      '--exclude-schema=pgboss',
      `--snapshot=${snapshot}`,
      '-f',
      file,
      name,
    ],
    { env, limit: hours },
  )
}
export async function undump(url: string, file: string): Promise<void> {
  const { args, env, name } = reach(url)
  await run(program('pg_restore'), [...args, '--no-owner', '--exit-on-error', '-d', name, file], {
    env,
    limit: hours,
  })
}
export async function withClient<T>(url: string, work: (c: Client) => Promise<T>): Promise<T> {
  const client = new Client({ connectionString: url, connectionTimeoutMillis: 8000 })
  client.on('error', () => undefined)
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}
/** How many changes of form a database has had. */
export const migrationsIn = async (c: Client): Promise<number> => {
  const there = await c.query<{ t: string | null }>(
    `select to_regclass('drizzle.__drizzle_migrations')::text as t`,
  )
  if (!there.rows[0]?.t) return 0
  return Number(
    (await c.query<{ n: string }>('select count(*) as n from drizzle.__drizzle_migrations')).rows[0]!.n,
  )
}
/** Rows of each of our tables. */
export async function rowsIn(c: Client): Promise<Record<string, number>> {
  const { rows } = await c.query<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = 'public' order by 1`,
  )
  const out: Record<string, number> = {}
  for (const { name } of rows)
    out[name] = Number((await c.query<{ n: string }>(`select count(*) as n from "${name}"`)).rows[0]!.n)
  return out
}
/** Held while files are copied or tidied away, so that neither happens during the other. */
export const keepingLock = 771_204
