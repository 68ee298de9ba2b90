import fs from 'node:fs/promises'
import path from 'node:path'
import { hourIn, isDue } from '@awlbox/core/keep/nightly'
import { BackupManifest } from '@awlbox/core/contracts/backup'
import { forLog, log } from '../platform/log.ts'
import type { Services } from '../platform/services.ts'
import { backUp, CannotKeep, setsIn } from './backup.ts'
import { namesIn, statOf } from './files.ts'
import { clockOf, nightlyOf, setNightly } from './nightly-store.ts'

/** Backups a folder keeps: two weeks of nights. */
const nights = 14
const underWay = new Set<string>()

/** Makes a backup where one is due, and writes down how it went. Told often; does nothing while one is being made. */
export async function backUpWhenDue(s: Services, now = new Date()): Promise<'made' | 'failed' | null> {
  if (underWay.has(s.config.databaseUrl)) return null
  underWay.add(s.config.databaseUrl)
  try {
    const n = await nightlyOf(s.db)
    if (!n.folder || !isDue(n, now, hourIn(await clockOf(s.db), now))) return null
    await setNightly(s.db, { lastTried: now })
    try {
      const made = await backUp({ databaseUrl: s.config.databaseUrl, blobs: s.config.blobs }, n.folder, {
        now,
      })
      await setNightly(s.db, { lastGood: now, lastBytes: made.bytes, problem: null, asked: false })
      await prune(n.folder)
      return 'made'
    } catch (error) {
      log.error({ error: forLog(error) }, 'the backup was not made')
      const problem =
        error instanceof CannotKeep
          ? error.message
          : `The folder ${n.folder} cannot be written to. Backups made before are as they were.`
      await setNightly(s.db, { problem, asked: false })
      return 'failed'
    }
  } catch (error) {
    log.warn({ error: forLog(error) }, 'the nightly backup could not be looked after')
    return null
  } finally {
    underWay.delete(s.config.databaseUrl)
  }
}

/** Lets go of backups older than the newest two weeks of them, and of files only those named. */
export async function prune(folder: string, keep = nights): Promise<number> {
  const sets = (await fs.readdir(setsIn(folder))).filter((n) => !n.endsWith('.partly')).sort()
  const gone = sets.slice(0, Math.max(0, sets.length - keep))
  for (const name of gone) await fs.rm(path.join(setsIn(folder), name), { recursive: true, force: true })
  if (!gone.length) return 0
  const named = new Set<string>()
  for (const name of sets.slice(gone.length)) {
    const text = await fs.readFile(path.join(setsIn(folder), name, 'manifest.json'), 'utf8')
    for (const b of BackupManifest.parse(JSON.parse(text)).blobs) named.add(b.sha256)
  }
  for (const room of await fs.readdir(path.join(folder, 'blobs')))
    for (const sha of await fs.readdir(path.join(folder, 'blobs', room)))
      if (!named.has(sha.replace(/\.partly$/, '')))
        await fs.rm(path.join(folder, 'blobs', room, sha), { force: true })
  return gone.length
}

/**
 * Whether a folder may be backed up into: it is there, can be written, and holds nothing but backups, so that nobody's
 * files are written among. @throws CannotKeep with words
 */
export async function mayBackUpTo(folder: string, blobs: string): Promise<void> {
  if (!path.isAbsolute(folder))
    throw new CannotKeep('Name the folder from the root of the disk on, as in /mnt/backups/awlbox.')
  const inside = path.relative(path.resolve(blobs, '..'), path.resolve(folder))
  if (!inside.startsWith('..') && !path.isAbsolute(inside))
    throw new CannotKeep(
      'Choose a folder outside Awlbox’s own, best on another disk: what breaks one must not break both.',
    )
  const there = await statOf(folder)
  if (!there?.isDirectory())
    throw new CannotKeep('This folder is not there, or Awlbox may not look into it. Make it first.')
  if ((await namesIn(folder)).some((n) => !['sets', 'blobs', 'lost+found'].includes(n)))
    throw new CannotKeep(
      'There is something else in this folder. Choose an empty one, or one with backups in it.',
    )
  const probe = path.join(folder, 'blobs', '.awlbox')
  try {
    await fs.mkdir(path.dirname(probe), { recursive: true, mode: 0o700 })
    await fs.writeFile(probe, '')
    await fs.rm(probe)
  } catch {
    throw new CannotKeep('Awlbox may not write into this folder.')
  }
}
