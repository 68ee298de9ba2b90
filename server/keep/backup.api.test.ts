import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { folderBlobs } from '../platform/blobs.ts'
import { withDb } from '../platform/db.ts'
import { testWorld } from '../testing.ts'
import { addTake } from '../film/store.ts'
import { sampleLesson } from '../testing.ts'
import { backUp, backUpToFile, type Kept } from './backup.ts'
import { check, isWhole } from './check.ts'
import { otherDatabase, rowsIn, withClient } from './database-store.ts'
import { restore } from './restore.ts'

const at = testWorld()
const root = fs.mkdtempSync(path.join(os.tmpdir(), 'keep-'))
afterAll(() => fs.rmSync(root, { recursive: true, force: true }))
const folder = (name: string): string => path.join(root, name)
const here = (): Kept => ({ databaseUrl: at.app.url, blobs: at.app.config.blobs })
/** An Awlbox with nothing in it: a database of its own and a folder of its own. */
function empty(): Kept {
  const name = randomBytes(4).toString('hex')
  return { databaseUrl: otherDatabase(at.app.url, `r_${name}`), blobs: path.join(folder(name), 'blobs') }
}
const provedIn = (kept: Kept) => withDb(kept.databaseUrl, (db) => check(db, folderBlobs(kept.blobs)))
const rows = (kept: Kept) => withClient(kept.databaseUrl, rowsIn)
const setsOf = (dir: string): string[] => fs.readdirSync(path.join(dir, 'sets')).sort()

beforeAll(async () => {
  const { here: mine, teacher } = at.world
  for (let i = 0; i < 12; i++) {
    const original = await at.app.blobs.put(at.app.db, randomBytes(2000 + i), 'video/mp4')
    await addTake(at.app.db, {
      lessonId: mine.lessonId,
      segmentId: sampleLesson().segments[0]!.id,
      source: 'uploaded',
      original,
    })
  }
  const saved = await teacher.call('PUT', `/api/lessons/${mine.lessonId}/doc`, {
    revision: 1,
    doc: sampleLesson('Changed once'),
  })
  expect(saved.status).toBe(200)
  fs.writeFileSync(path.join(at.app.config.blobs, '..', 'secret'), 'the secret of the links, for tests')
})

describe('a backup while Awlbox runs', () => {
  test('restored elsewhere is the same, row for row and file for file', async () => {
    const made = await backUp(here(), folder('whole'))
    expect(made.copied).toBe(made.blobs)
    const there = empty()
    const done = await restore(there, folder('whole'), null)
    expect(done.rows).toEqual(await rows(here()))
    expect(await rows(there)).toEqual(done.rows)
    const proved = await provedIn(there)
    expect([isWhole(proved), proved.blobs, proved.revisions.lessons]).toEqual([true, made.blobs, 2])
    expect(fs.readFileSync(path.join(there.blobs, '..', 'secret'), 'utf8')).toContain(
      'the secret of the links',
    )
    expect(fs.statSync(path.join(there.blobs, '..', 'secret')).mode & 0o77).toBe(0)
  })
  test('is of one moment: what is written while it is made is in it wholly, or not at all', async () => {
    let writing = true
    const writer = (async () => {
      for (let i = 0; writing; i++) {
        const original = await at.app.blobs.put(at.app.db, Buffer.from(`while ${i}`), 'video/mp4')
        await addTake(at.app.db, {
          lessonId: at.world.here.lessonId,
          segmentId: sampleLesson().segments[0]!.id,
          source: 'uploaded',
          original,
        })
      }
    })()
    await backUp(here(), folder('busy'))
    writing = false
    await writer
    const there = empty()
    await restore(there, folder('busy'), null)
    expect(isWhole(await provedIn(there))).toBe(true)
  })
  test('made again copies only what is new', async () => {
    const dir = folder('again')
    await backUp(here(), dir, { now: new Date('2026-03-01T20:00:00Z') })
    await at.app.blobs.put(at.app.db, Buffer.from('one more'), 'video/mp4')
    const second = await backUp(here(), dir, { now: new Date('2026-03-02T20:00:00Z') })
    expect([second.copied, setsOf(dir).length]).toEqual([1, 2])
  })
  test('into one file, encrypted, opens with its pass phrase and with no other', async () => {
    const file = folder('night.tar.gpg')
    await backUpToFile(here(), file, 'parcels by bicycle')
    expect(fs.readFileSync(file).includes('manifest.json')).toBe(false)
    expect(fs.statSync(file).mode & 0o77).toBe(0)
    const there = empty()
    await expect(restore(there, file, 'another')).rejects.toThrow(/cannot be opened/)
    await expect(restore(there, file, null)).rejects.toThrow(/pass phrase/)
    await restore(there, file, 'parcels by bicycle')
    expect(isWhole(await provedIn(there))).toBe(true)
    const plain = folder('plain.tar')
    await backUpToFile(here(), plain, null)
    expect(execFileSync('tar', ['-tf', plain], { encoding: 'utf8' })).toMatch(/sets\/.*manifest\.json/)
    await expect(backUpToFile(here(), plain, null)).rejects.toThrow(/there already/)
    const other = empty()
    await restore(other, plain, null)
    expect(isWhole(await provedIn(other))).toBe(true)
  })
})

describe('what cannot be restored changes nothing', () => {
  const untouched = async (kept: Kept) => await expect(rows(kept)).rejects.toThrow(/does not exist/)
  const spoilt = async (name: string, spoil: (dir: string) => void) => {
    const dir = folder(name)
    await backUp(here(), dir)
    spoil(dir)
    return dir
  }
  const manifestIn = (dir: string): string => path.join(dir, 'sets', setsOf(dir)[0]!, 'manifest.json')
  const firstBlob = (dir: string): string => {
    const { blobs } = JSON.parse(fs.readFileSync(manifestIn(dir), 'utf8')) as { blobs: { sha256: string }[] }
    return path.join(dir, 'blobs', blobs[0]!.sha256.slice(0, 2), blobs[0]!.sha256)
  }
  test.each([
    ['a film is missing', (dir: string) => fs.rmSync(firstBlob(dir)), /not whole.*missing/],
    ['a film was changed', (dir: string) => fs.appendFileSync(firstBlob(dir), 'x'), /not whole.*changed/],
    [
      'the database was cut off',
      (dir: string) => {
        const dump = path.join(path.dirname(manifestIn(dir)), 'database.dump')
        fs.truncateSync(dump, fs.statSync(dump).size - 50)
      },
      /not whole: the database/,
    ],
    ['it was broken off', (dir: string) => fs.rmSync(manifestIn(dir)), /broken off/],
    [
      'its manifest is something else',
      (dir: string) => fs.writeFileSync(manifestIn(dir), '{"format":"other"}'),
      /manifest/,
    ],
    [
      'it is of a newer Awlbox',
      (dir: string) => {
        const m = JSON.parse(fs.readFileSync(manifestIn(dir), 'utf8')) as { migrations: number }
        fs.writeFileSync(manifestIn(dir), JSON.stringify({ ...m, migrations: m.migrations + 1 }))
      },
      /newer Awlbox/,
    ],
  ])('%s', async (name, spoil, words) => {
    const there = empty()
    await expect(restore(there, await spoilt(name, spoil), null)).rejects.toThrow(words)
    await untouched(there)
  })
  test('over work that is there already', async () => {
    const dir = folder('over')
    await backUp(here(), dir)
    const before = await rows(here())
    await expect(restore(here(), dir, null)).rejects.toThrow(/setting here already/)
    expect(await rows(here())).toEqual(before)
  })
  test('a folder that is none, and a file that is none', async () => {
    await expect(restore(empty(), folder('nowhere'), null)).rejects.toThrow(/not there/)
    fs.mkdirSync(folder('bare'))
    await expect(restore(empty(), folder('bare'), null)).rejects.toThrow(/no backup/)
    fs.writeFileSync(folder('text.tar'), 'a shopping list')
    await expect(restore(empty(), folder('text.tar'), null)).rejects.toThrow(/encrypted, or no backup/)
  })
})

test('a backup of an Awlbox with a lost file says so and leaves the older one as it was', async () => {
  const dir = folder('lost')
  await backUp(here(), dir)
  const lost = await at.app.blobs.put(at.app.db, Buffer.from('soon lost'), 'video/mp4')
  fs.rmSync(at.app.blobs.path(lost))
  await expect(backUp(here(), dir)).rejects.toThrow(/missing here/)
  expect(setsOf(dir)).toHaveLength(1)
  const proved = await check(at.app.db, at.app.blobs)
  expect([isWhole(proved), proved.missing]).toEqual([false, [lost]])
  await at.app.pool.query('delete from blobs where sha256 = $1', [lost])
})
