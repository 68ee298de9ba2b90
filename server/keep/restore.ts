import fs from 'node:fs/promises'
import path from 'node:path'
import { BackupManifest } from '@awlbox/core/contracts/backup'
import { roomLeft } from '../platform/blobs.ts'
import { migrateDb, withDb } from '../platform/db.ts'
import { inFolder } from '../platform/temporary.ts'
import { CannotKeep, type Kept, setsIn, unpack } from './backup.ts'
import { migrationsIn, nameIn, otherDatabase, rowsIn, undump, withClient } from './database-store.ts'
import { dbCodeOf, noted } from '../platform/log.ts'
import { namesIn, statOf } from './files.ts'
import { hashOf } from './hash.ts'

/** The newest whole backup of a folder. @throws CannotKeep where there is none. */
async function newestSet(folder: string): Promise<string> {
  const names = (await namesIn(setsIn(folder))).filter((n) => !n.endsWith('.partly')).sort()
  const last = names.at(-1)
  if (!last) throw new CannotKeep(`There is no backup in ${folder}.`)
  return path.join(setsIn(folder), last)
}
async function readManifest(set: string): Promise<BackupManifest> {
  const file = path.join(set, 'manifest.json')
  if (!(await statOf(file))) throw new CannotKeep(`${set} is no whole backup: it was broken off.`)
  try {
    return BackupManifest.parse(JSON.parse(await fs.readFile(file, 'utf8')))
  } catch {
    throw new CannotKeep(`${set} is no backup of this Awlbox: its manifest cannot be read.`)
  }
}
/** Every file of a backup against its hash. @throws CannotKeep naming what is missing or changed. */
async function prove(folder: string, set: string, m: BackupManifest): Promise<void> {
  const wrong: string[] = []
  if ((await hashOf(path.join(set, 'database.dump'))) !== m.dump.sha256) wrong.push('the database')
  for (const { sha256 } of m.blobs) {
    const found = await hashOf(path.join(folder, 'blobs', sha256.slice(0, 2), sha256))
    if (found !== sha256) wrong.push(`${sha256.slice(0, 12)}… (${found === null ? 'missing' : 'changed'})`)
  }
  if (wrong.length)
    throw new CannotKeep(
      `This backup is not whole: ${wrong.slice(0, 5).join(', ')}${wrong.length > 5 ? ` and ${wrong.length - 5} more` : ''}. Nothing was changed here; try an older one.`,
    )
}

/**
 * Puts a backup, a folder or a file, in place of an empty Awlbox. Everything is proved before anything is touched; the
 * database is filled beside the present one and takes its place in one step. @throws CannotKeep
 */
export async function restore(
  kept: Kept,
  source: string,
  passphrase: string | null,
): Promise<{ made: string; blobs: number; rows: Record<string, number> }> {
  const info = await statOf(source)
  if (!info) throw new CannotKeep(`${source} is not there.`)
  if (info.isDirectory()) return fromFolder(kept, source)
  return inFolder('restore', async (folder) => {
    await unpack(source, folder, passphrase)
    return fromFolder(kept, folder)
  })
}
async function fromFolder(kept: Kept, folder: string) {
  const set = await newestSet(folder)
  const m = await readManifest(set)
  await mustBeEmpty(kept.databaseUrl)
  await prove(folder, set, m)
  const needed = m.blobs.reduce((n, b) => n + b.size, 0) + m.dump.size * 4
  await fs.mkdir(kept.blobs, { recursive: true })
  if (needed > (await roomLeft(kept.blobs, 64 << 20)))
    throw new CannotKeep('There is not enough room here for what the backup holds. Nothing was changed.')
  const name = nameIn(kept.databaseUrl)
  const fresh = `${name}_restored`
  const server = otherDatabase(kept.databaseUrl, 'postgres')
  await withClient(server, async (c) => {
    await c.query(`drop database if exists "${fresh}"`)
    await c.query(`create database "${fresh}"`)
  })
  const url = otherDatabase(kept.databaseUrl, fresh)
  try {
    await undump(url, path.join(set, 'database.dump'))
    await mustBeAsWritten(url, m)
    // The queue is not part of a backup: what waited in it is posted anew.
    await withClient(url, (c) => c.query(`update jobs set boss_id = null where status = 'queued'`))
    await withDb(url, migrateDb)
    for (const { sha256 } of m.blobs) await bringBlob(folder, kept.blobs, sha256)
    await bringSecret(set, kept)
    await withClient(server, async (c) => {
      await c.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
      const there = await c.query('select 1 from pg_database where datname = $1', [name])
      if (there.rowCount) await c.query(`alter database "${name}" rename to "${name}_before_${Date.now()}"`)
      await c.query(`alter database "${fresh}" rename to "${name}"`)
    })
  } catch (error) {
    await withClient(server, (c) => c.query(`drop database if exists "${fresh}" with (force)`)).catch(
      noted('a database half restored could not be dropped'),
    )
    throw error
  }
  return { made: m.made, blobs: m.blobs.length, rows: m.rows }
}
/** A restore goes over nobody's work. */
async function mustBeEmpty(url: string): Promise<void> {
  const rows = await withClient(url, rowsIn).catch((error: unknown): Record<string, number> => {
    // No such database: as empty as can be.
    if (dbCodeOf(error) === '3D000') return {}
    throw error
  })
  if ((rows.settings ?? 0) > 0 || (rows.lessons ?? 0) > 0)
    throw new CannotKeep(
      'There is a setting here already, with work in it. A backup is restored only into an empty Awlbox: give another folder with AWLBOX_DATA=…, or move this one away first.',
    )
}
async function mustBeAsWritten(url: string, m: BackupManifest): Promise<void> {
  const ours = await knownMigrations()
  if (m.migrations > ours)
    throw new CannotKeep(
      'This backup was made by a newer Awlbox. Update this one first; nothing was changed.',
    )
  await withClient(url, async (c) => {
    if ((await migrationsIn(c)) !== m.migrations)
      throw new CannotKeep(
        'The database of this backup is not the one its manifest speaks of. Nothing was changed.',
      )
    const rows = await rowsIn(c)
    for (const [table, n] of Object.entries(m.rows))
      if (rows[table] !== n)
        throw new CannotKeep(
          `The backup promises ${n} rows of ${table} and holds ${rows[table] ?? 0}. Nothing was changed.`,
        )
  })
}
const knownMigrations = async (): Promise<number> => {
  const { projectRoot } = await import('../platform/root.ts')
  const journal = JSON.parse(
    await fs.readFile(path.join(projectRoot, 'server/platform/migrations/meta/_journal.json'), 'utf8'),
  ) as { entries: unknown[] }
  return journal.entries.length
}
async function bringBlob(folder: string, blobs: string, sha: string): Promise<void> {
  const to = path.join(blobs, sha.slice(0, 2), sha)
  if ((await hashOf(to)) === sha) return
  await fs.mkdir(path.dirname(to), { recursive: true, mode: 0o700 })
  const partly = path.join(blobs, `${sha}.partly`)
  await fs.copyFile(path.join(folder, 'blobs', sha.slice(0, 2), sha), partly)
  await fs.chmod(partly, 0o600)
  await fs.rename(partly, to)
}
/** The secret that home links are signed with: the backup's, unless one is set by the environment. */
async function bringSecret(set: string, kept: Kept): Promise<void> {
  const from = path.join(set, 'secret')
  if (!(await statOf(from))) return
  const to = path.join(kept.blobs, '..', 'secret')
  await fs.copyFile(from, to)
  await fs.chmod(to, 0o600)
}
