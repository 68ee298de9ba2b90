import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import { testWorld } from '../testing.ts'
import { backUp, setsIn } from './backup.ts'
import { backUpWhenDue, prune } from './nightly.ts'
import { setNightly } from './nightly-store.ts'

const at = testWorld()
const root = fs.mkdtempSync(path.join(os.tmpdir(), 'nightly-'))
afterAll(() => fs.rmSync(root, { recursive: true, force: true }))
function folder(name: string, holds: string[] = []): string {
  const made = path.join(root, name)
  fs.mkdirSync(made)
  for (const f of holds) fs.writeFileSync(path.join(made, f), '')
  return made
}
const save = (on: boolean, to: string) => at.world.owner.call('PUT', '/api/keeping', { on, folder: to })
const shelf = async () => (await at.world.teacher.call('GET', '/api/shelf')).body.backupLate

describe('the owner’s nightly backup', () => {
  test('goes where she says, by night or when she asks, and is shown with its date and size', async () => {
    const to = folder('good')
    expect((await save(true, to)).body).toMatchObject({ on: true, folder: to, lastGood: null })
    expect(await backUpWhenDue(at.app)).toBe('made')
    const shown = (await at.world.owner.call('GET', '/api/keeping')).body
    expect(shown).toMatchObject({ on: true, problem: null, waiting: false, mayChange: true })
    expect(Number(shown.lastBytes)).toBeGreaterThan(1000)
    // Not again in the same hour, unless it is asked for.
    expect(await backUpWhenDue(at.app)).toBeNull()
    expect((await at.world.owner.call('POST', '/api/keeping/backup')).status).toBe(200)
    expect((await at.world.owner.call('GET', '/api/keeping')).body.waiting).toBe(true)
    expect(await backUpWhenDue(at.app)).toBe('made')
    expect(fs.readdirSync(setsIn(to))).toHaveLength(2)
  })
  test.each([
    ['among other files', () => folder('others', ['holiday.jpg'])],
    ['where there is no folder', () => path.join(root, 'nowhere')],
    ['in Awlbox’s own', () => at.app.config.blobs],
    ['named from here', () => 'backups'],
  ])('goes nowhere %s', async (_, to) => {
    const r = await save(true, to())
    expect([r.status, r.body.detail]).toEqual([422, expect.stringContaining('Nothing was changed')])
  })
  test('that fails says why, keeps its last good date, and after three days the Shelf says so', async () => {
    const to = folder('later')
    await save(true, to)
    const day = 86_400_000
    const good = new Date(Date.now() - 4.5 * day)
    await setNightly(at.app.db, { lastGood: good, lastTried: good })
    fs.rmSync(to, { recursive: true })
    fs.writeFileSync(to, 'now a file')
    expect(await shelf()).toBe(4)
    expect(await backUpWhenDue(at.app)).toBe('failed')
    const shown = (await at.world.owner.call('GET', '/api/keeping')).body
    expect([shown.lastGood, shown.problem]).toEqual([
      good.toISOString(),
      expect.stringContaining('cannot be written'),
    ])
    await save(false, '')
    expect(await shelf()).toBeNull()
  })
  test('is seen by teachers, and neither changed by them nor told where it goes', async () => {
    await save(true, folder('hers'))
    const { teacher } = at.world
    expect((await teacher.call('GET', '/api/keeping')).body).toMatchObject({
      on: true,
      folder: '',
      mayChange: false,
    })
    expect((await teacher.call('PUT', '/api/keeping', { on: false, folder: '' })).status).toBe(403)
    expect((await teacher.call('POST', '/api/keeping/backup')).status).toBe(403)
  })
})
test('of many nights the newest stay, with every file they name and no other', async () => {
  const to = folder('many')
  const kept = { databaseUrl: at.app.url, blobs: at.app.config.blobs }
  const gone = await at.app.blobs.put(at.app.db, Buffer.from('only in the first'), 'video/mp4')
  const stays = await at.app.blobs.put(at.app.db, Buffer.from('in all of them'), 'video/mp4')
  const night = (n: number) => new Date(Date.UTC(2026, 2, n, 2))
  await backUp(kept, to, { now: night(1) })
  await at.app.pool.query('delete from blobs where sha256 = $1', [gone])
  for (let n = 2; n <= 5; n++) await backUp(kept, to, { now: night(n) })
  expect(await prune(to, 3)).toBe(2)
  const file = (sha: string) => fs.existsSync(path.join(to, 'blobs', sha.slice(0, 2), sha))
  expect([fs.readdirSync(setsIn(to)).length, file(gone), file(stays)]).toEqual([3, false, true])
})
