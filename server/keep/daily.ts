import fs from 'node:fs/promises'
import path from 'node:path'
import { type KeptKind, keptForOf, keptKinds } from '@awlbox/core/contracts/kept-for'
import { log } from '../platform/log.ts'
import { letLinesGo, writeLine } from '../platform/record-store.ts'
import type { Services } from '../platform/services.ts'
import { deleteAll } from './child.ts'
import { namesIn, statOf } from './files.ts'
import { allSettings, dueOf, letGo } from './times-store.ts'
import { keepingLock, withClient } from './database-store.ts'
import { uploadStore } from '../film/uploads.ts'
import { tidyLive } from '../live/afterwards.ts'
import { homeUploadStore } from '../send/home-uploads.ts'
import {
  blobNames,
  removeLooseMedia,
  removeOldRenders,
  removeOldSegmentFiles,
  removeUnnamedBlobs,
} from './store.ts'

/** How long what nobody needs is kept, in days. */
export const keptFor = {
  loosePhotos: 7,
  renders: 60,
  segmentFiles: 30,
  temporary: 1,
} as const
/** Minutes a blob may be named by nothing: it is written before what names it. */
const grace = 60

export interface Tidied {
  uploads: number
  photos: number
  renders: number
  segmentFiles: number
  /** What was due by the times of its setting. */
  due: number
  blobs: number
  strays: number
  /** Files that are named and not there: nothing here mends that. */
  missing: string[]
}

/** Lets go of what nobody needs any more. Done once a day; done twice it does nothing more. Null while a backup is made. */
export async function tidy(s: Services): Promise<Tidied | null> {
  // Not while a backup copies what it was told is there.
  return withClient(s.config.databaseUrl, async (c) => {
    const { rows } = await c.query<{ got: boolean }>('select pg_try_advisory_lock($1) as got', [keepingLock])
    return rows[0]!.got ? tidied(s) : null
  })
}
async function tidied(s: Services): Promise<Tidied> {
  let uploads = 0
  for (const store of [uploadStore(s), homeUploadStore(s)]) {
    await fs.mkdir(store.directory, { recursive: true })
    uploads += await store.deleteExpired()
  }
  const photos = await removeLooseMedia(s.db, keptFor.loosePhotos)
  const renders = await removeOldRenders(s.db, keptFor.renders)
  const segmentFiles = await removeOldSegmentFiles(s.db, keptFor.segmentFiles)
  await tidyLive(s)
  const due = await letDueGo(s)
  const gone = await removeUnnamedBlobs(s.db, grace)
  for (const sha of gone) await fs.rm(s.blobs.path(sha), { force: true })
  const { strays, missing } = await compareFiles(s)
  const done = { uploads, photos, renders, segmentFiles, due, blobs: gone.length, strays, missing }
  if (missing.length) log.error({ missing: missing.length, first: missing[0] }, 'files are missing')
  log.info({ ...done, missing: missing.length }, 'tidied')
  return done
}

/** Lets go of what is kept no longer, by the times each setting chose, and writes what it did into its record. */
async function letDueGo(s: Services): Promise<number> {
  let all = 0
  for (const setting of await allSettings(s.db)) {
    const times = keptForOf(setting.keptFor)
    const done: string[] = []
    for (const kind of keptKinds) {
      const days = times[kind]
      if (days === null) continue
      const n = await letKindGo(s, setting.id, kind, days)
      all += n
      if (n) done.push(`${n} ${words[kind]}`)
    }
    if (done.length)
      await writeLine(s.db, {
        settingId: setting.id,
        act: 'tidied',
        words: `Deleted what was due: ${done.join(', ')}`,
      })
  }
  return all
}
const words: Record<KeptKind, string> = {
  photos: 'photos',
  sound: 'recordings as they were filmed',
  films: 'films',
  replies: 'replies',
  standings: 'children who left, with everything of theirs',
  record: 'lines of the record of use',
}
async function letKindGo(s: Services, settingId: string, kind: KeptKind, days: number): Promise<number> {
  if (kind === 'record') return letLinesGo(s.db, settingId, days)
  const ids = await dueOf(s.db, settingId, kind, days)
  if (kind === 'standings') {
    if (ids.length) await deleteAll(s, ids, [])
  } else await letGo(s.db, kind, ids)
  return ids.length
}

/**
 * Files nothing names are removed once they are a day old; names without a file are given. `days` 0 takes those just
 * written too: while nobody works. `look` only looks.
 */
export async function compareFiles(
  s: Pick<Services, 'db' | 'blobs'> & { config: Pick<Services['config'], 'blobs'> },
  { days = keptFor.temporary, look = false }: { days?: number; look?: boolean } = {},
): Promise<{ strays: number; missing: string[] }> {
  const folder = s.config.blobs
  const old = async (file: string): Promise<boolean> =>
    Date.now() - ((await statOf(file))?.mtimeMs ?? Date.now()) >= days * 86_400_000
  const remove = async (file: string): Promise<void> => {
    if (!look) await fs.rm(file, { force: true })
  }
  let strays = 0
  const there = new Set<string>()
  for (const room of await namesIn(folder)) {
    if (!/^[0-9a-f]{2}$/.test(room)) continue
    for (const name of await fs.readdir(path.join(folder, room))) there.add(name)
  }
  const named = new Set((await blobNames(s.db)).map((b) => b.sha256))
  for (const name of there) {
    if (named.has(name) || !/^[0-9a-f]{64}$/.test(name) || !(await old(s.blobs.path(name)))) continue
    await remove(s.blobs.path(name))
    strays++
  }
  for (const name of await namesIn(path.join(folder, 'tmp'))) {
    const file = path.join(folder, 'tmp', name)
    if (!(await old(file))) continue
    await remove(file)
    strays++
  }
  return { strays, missing: [...named].filter((n) => !there.has(n)) }
}
