import { spawn } from 'node:child_process'
import fs from 'node:fs/promises'
import path from 'node:path'
import { BackupManifest } from '@awlbox/core/contracts/backup'
import { roomLeft } from '../platform/blobs.ts'
import { inFolder } from '../platform/temporary.ts'
import { dump, keepingLock, migrationsIn, rowsIn, withClient } from './database-store.ts'
import { statOf } from './files.ts'
import { hashOf } from './hash.ts'

/** What keeps a backup, a restore or a check from being made; its message is for people. */
export class CannotKeep extends Error {}

export interface Kept {
  databaseUrl: string
  /** Folder of films and photos. */
  blobs: string
}
export interface Made {
  folder: string
  blobs: number
  /** Files that were not in the folder before. */
  copied: number
  bytes: number
}
/** One backup's own folder in a folder of backups; their films and photos lie side by side in `blobs`, each once. */
export const setsIn = (folder: string): string => path.join(folder, 'sets')
const blobIn = (folder: string, sha: string): string => path.join(folder, 'blobs', sha.slice(0, 2), sha)

/**
 * Backs up into a folder while Awlbox runs: the database as it is at one moment, and every file it names then. Files
 * that are there from before are not copied again. @throws CannotKeep
 */
export async function backUp(
  kept: Kept,
  folder: string,
  { link = false, now = new Date() }: { link?: boolean; now?: Date } = {},
): Promise<Made> {
  await fs.mkdir(setsIn(folder), { recursive: true, mode: 0o700 })
  const stamp = now.toISOString().replace(/[:.]/g, '-')
  const set = path.join(setsIn(folder), stamp)
  const partly = `${set}.partly`
  await fs.mkdir(partly, { mode: 0o700 })
  try {
    const made = await withClient(kept.databaseUrl, async (c) => {
      if (
        !(await c.query<{ got: boolean }>('select pg_try_advisory_lock($1) as got', [keepingLock])).rows[0]!
          .got
      )
        throw new CannotKeep('Another backup, or the daily tidying, is under way. Try again in a while.')
      await c.query('begin isolation level repeatable read read only')
      const snapshot = (await c.query<{ id: string }>('select pg_export_snapshot() as id')).rows[0]!.id
      const file = path.join(partly, 'database.dump')
      await dump(kept.databaseUrl, snapshot, file)
      const blobs = (
        await c.query<{ sha256: string; size: string }>('select sha256, size from blobs order by 1')
      ).rows.map((b) => ({ sha256: b.sha256, size: Number(b.size) }))
      const manifest: BackupManifest = {
        format: 'awlbox-backup',
        version: 1,
        made: now.toISOString(),
        migrations: await migrationsIn(c),
        rows: await rowsIn(c),
        dump: { sha256: (await hashOf(file))!, size: (await fs.stat(file)).size },
        blobs,
      }
      const copied = await copyBlobs(kept, folder, blobs, link)
      await c.query('commit')
      return { manifest, copied }
    })
    // Home links are signed with it: without it every family would need a new one.
    await fs
      .copyFile(path.join(kept.blobs, '..', 'secret'), path.join(partly, 'secret'))
      .catch((error: NodeJS.ErrnoException) => {
        if (error.code !== 'ENOENT') throw error
      })
    await fs.writeFile(path.join(partly, 'manifest.json'), JSON.stringify(made.manifest))
    await fs.rename(partly, set)
    return {
      folder: set,
      blobs: made.manifest.blobs.length,
      copied: made.copied,
      bytes: made.manifest.dump.size + made.manifest.blobs.reduce((n, b) => n + b.size, 0),
    }
  } catch (error) {
    await fs.rm(partly, { recursive: true, force: true })
    throw (error as NodeJS.ErrnoException).code === 'ENOSPC' ? new CannotKeep(noRoom(folder)) : error
  }
}
const noRoom = (folder: string): string =>
  `There is not enough room in ${folder}. Backups made before are as they were; what was copied is used by the next one.`

async function copyBlobs(
  kept: Kept,
  folder: string,
  blobs: BackupManifest['blobs'],
  link: boolean,
): Promise<number> {
  const missing: BackupManifest['blobs'] = []
  for (const b of blobs) {
    const there = await statOf(blobIn(folder, b.sha256))
    if (there?.size !== b.size) missing.push(b)
  }
  const needed = missing.reduce((n, b) => n + b.size, 0)
  if (!link && needed > (await roomLeft(folder, 64 << 20))) throw new CannotKeep(noRoom(folder))
  for (const { sha256 } of missing) {
    const [from, to] = [path.join(kept.blobs, sha256.slice(0, 2), sha256), blobIn(folder, sha256)]
    await fs.mkdir(path.dirname(to), { recursive: true, mode: 0o700 })
    if (link) {
      await fs.symlink(from, to)
      continue
    }
    const partly = `${to}.partly`
    await fs.copyFile(from, partly).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOENT'
        ? new CannotKeep(
            `A file is missing here (${sha256.slice(0, 12)}…): ./awlbox check says which. Nothing was backed up.`,
          )
        : error
    })
    const handle = await fs.open(partly, 'r+')
    await handle.sync()
    await handle.close()
    await fs.rename(partly, to)
  }
  return missing.length
}

/** Runs programs as one pipe, the last one's output into a file. */
async function piped(commands: [string, string[]][], out: string, passphrase: string | null): Promise<void> {
  const handle = await fs.open(out, 'w', 0o600)
  try {
    const children = commands.map(([program, args], i) =>
      spawn(program, args, {
        stdio: [i ? 'pipe' : 'ignore', i === commands.length - 1 ? handle.fd : 'pipe', 'pipe', 'pipe'],
      }),
    )
    children.forEach((child, i) => {
      const next = children[i + 1]
      if (next) child.stdout!.pipe(next.stdin!)
      next?.stdin!.on('error', () => undefined)
    })
    if (passphrase !== null) (children.at(-1)!.stdio[3] as NodeJS.WritableStream).end(passphrase)
    await Promise.all(
      children.map(
        (child, i) =>
          new Promise<void>((resolve, reject) => {
            let words = ''
            child.stderr!.on('data', (d: Buffer) => (words += d.toString()))
            child.on('error', (e) => reject(new CannotKeep(`${commands[i]![0]} cannot be run: ${e.message}`)))
            child.on('close', (code) =>
              code === 0
                ? resolve()
                : reject(
                    new CannotKeep(
                      /no space left/i.test(words)
                        ? noRoom(path.dirname(out))
                        : `${commands[i]![0]} ended with ${code}: ${words.slice(-200)}`,
                    ),
                  ),
            )
          }),
      ),
    )
  } finally {
    await handle.close()
  }
}
const byPassphrase = ['--batch', '--yes', '--quiet', '--pinentry-mode', 'loopback', '--passphrase-fd', '3']
/** Backs up into one file, a tar; encrypted (GnuPG, AES-256) where there is a pass phrase. */
export async function backUpToFile(kept: Kept, file: string, passphrase: string | null): Promise<Made> {
  if (await statOf(file)) throw new CannotKeep(`${file} is there already; it was not touched.`)
  return inFolder('backup', async (folder) => {
    const made = await backUp(kept, folder, { link: true })
    const partly = `${file}.partly`
    try {
      const tar: [string, string[]] = [
        'tar',
        ['-C', folder, '-chf', '-', 'sets', 'blobs'].filter((x) => x !== 'blobs' || made.blobs > 0),
      ]
      await piped(
        passphrase === null
          ? [tar]
          : [tar, ['gpg', [...byPassphrase, '--symmetric', '--cipher-algo', 'AES256', '-o', '-']]],
        partly,
        passphrase,
      )
      await fs.rename(partly, file)
    } finally {
      await fs.rm(partly, { force: true })
    }
    return { ...made, folder: file }
  })
}
/** Unpacks a backup file into a folder. @throws CannotKeep */
export async function unpack(file: string, folder: string, passphrase: string | null): Promise<void> {
  const head = Buffer.alloc(262)
  const handle = await fs.open(file)
  await handle.read(head, 0, 262, 0)
  await handle.close()
  const isTar = head.toString('latin1', 257, 262) === 'ustar'
  if (!isTar && passphrase === null)
    throw new CannotKeep(`${file} is encrypted, or no backup. Give its pass phrase in AWLBOX_PASSPHRASE.`)
  const tar = path.join(folder, 'backup.tar')
  if (!isTar)
    await piped([['gpg', [...byPassphrase, '--decrypt', file]]], tar, passphrase).catch(() => {
      throw new CannotKeep(`${file} cannot be opened with this pass phrase. Nothing was changed.`)
    })
  await piped([['tar', ['-C', folder, '-xf', isTar ? file : tar]]], path.join(folder, 'tar.out'), null)
  await fs.rm(tar, { force: true })
}
