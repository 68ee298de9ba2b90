import path from 'node:path'
import { folderBlobs } from '../platform/blobs.ts'
import { readConfig } from '../platform/config.ts'
import { migrateDb, withDb } from '../platform/db.ts'
import { hasOwner, newLink } from '../setting/store.ts'
import { forLog } from '../platform/log.ts'
import { addressOn } from '../platform/reach.ts'
import { backUp, backUpToFile, CannotKeep } from './backup.ts'
import { check, isWhole } from './check.ts'
import { compareFiles } from './daily.ts'
import { restore } from './restore.ts'

/** ./awlbox backup TARGET [--encrypt] · restore SOURCE · check · sweep [--check] · owner. Exit 0 well, 1 something is not whole, 2 it could not be done. */
process.umask(0o077)
const config = readConfig()
const kept = { databaseUrl: config.databaseUrl, blobs: config.blobs }
const from = process.env.AWLBOX_FROM ?? process.cwd()
const [command, ...rest] = process.argv.slice(2)
const target = rest.find((x) => !x.startsWith('--'))
const passphrase = process.env.AWLBOX_PASSPHRASE ?? null
const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`
const began = Date.now()
const took = (): string => `${((Date.now() - began) / 1000).toFixed(1)} s`

async function checkAll(): Promise<string> {
  const c = await withDb(config.databaseUrl, (db) => check(db, folderBlobs(config.blobs)))
  process.exitCode = isWhole(c) ? 0 : 1
  return [
    `${c.blobs} files: ${c.missing.length} missing, ${c.changed.length} changed`,
    ...[...c.missing, ...c.changed].slice(0, 20).map((x) => `  ${x}`),
    `${c.revisions.lessons} lessons: ${c.revisions.wrong} not as their newest revision`,
    `${c.judgements.all} judgements: ${c.judgements.homeless} without their reply`,
    isWhole(c)
      ? `Everything is whole (${took()}).`
      : 'Not everything is whole: restore what is missing from a backup.',
  ].join('\n')
}
async function sweep(): Promise<string> {
  const look = rest.includes('--check')
  const blobs = folderBlobs(config.blobs)
  // What was written within the hour may be named in a moment: an upload that is being finished.
  const { strays, missing } = await withDb(config.databaseUrl, (db) =>
    compareFiles({ db, blobs, config }, { days: 1 / 24, look }),
  )
  process.exitCode = missing.length || (look && strays) ? 1 : 0
  return [
    `${strays} files that no row names${look ? '' : ', removed'}`,
    `${missing.length} rows whose file is not there`,
    ...missing.slice(0, 20).map((x) => `  ${x}`),
    process.exitCode ? 'Files and rows do not match.' : `Files and rows match (${took()}).`,
  ].join('\n')
}
const ownerLink = (): Promise<string> =>
  withDb(config.databaseUrl, async (db) => {
    await migrateDb(db)
    const kind = (await hasOwner(db)) ? 'owner' : 'first'
    const address = config.origin || addressOn(config)
    return `Within an hour, and once, while Awlbox runs:\n  ${address}/set-up/${await newLink(db, kind)}`
  })
async function run(): Promise<string> {
  const simple = { check: checkAll, sweep, owner: ownerLink }[command ?? '']
  if (simple) return simple()
  if (!target) throw new CannotKeep(`Say where: ./awlbox ${command ?? 'backup'} FOLDER or FILE.tar`)
  const place = path.resolve(from, target)
  if (command === 'restore') {
    const r = await restore(kept, place, passphrase)
    return `Restored the backup of ${r.made}: ${r.blobs} files, ${r.rows.lessons ?? 0} lessons, ${r.rows.replies ?? 0} replies, ${r.rows.judgements ?? 0} judgements (${took()}).`
  }
  const encrypt = rest.includes('--encrypt')
  if (encrypt && !passphrase)
    throw new CannotKeep('Give the pass phrase in AWLBOX_PASSPHRASE; it is not kept anywhere.')
  const isFile = /\.(tar|gpg)$/.test(place)
  if (encrypt && !isFile) throw new CannotKeep('Only a file is encrypted: name one that ends in .tar.gpg')
  const made = isFile
    ? await backUpToFile(kept, place, encrypt ? passphrase : null)
    : await backUp(kept, place)
  return `Backed up to ${made.folder}: ${made.blobs} files, ${made.copied} of them new, ${megabytes(made.bytes)} in all (${took()}).`
}
try {
  console.log(await run())
} catch (error) {
  console.error(
    error instanceof CannotKeep ? error.message : `It could not be done: ${forLog(error).split('\n')[0]}`,
  )
  process.exitCode = 2
}
