import { execFileSync } from 'node:child_process'
import { randomBytes, randomUUID } from 'node:crypto'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { backUp } from '../server/keep/backup.ts'
import { check, isWhole } from '../server/keep/check.ts'
import { restore } from '../server/keep/restore.ts'
import { createLesson } from '../server/lessons/store.ts'
import { folderBlobs } from '../server/platform/blobs.ts'
import { openDb } from '../server/platform/db.ts'
import { judgements, photos, publications, replies } from '../server/platform/schema.ts'
import { openTestApp, populate, sampleLesson } from '../server/testing.ts'

/**
 * A year of one class kept safe: forty lessons with a film each, a thousand replies with a photo. Says how long a backup
 * takes, a second one, a restore and a check, each against plainly copying the same files. Needs AWLBOX_TEST_PG and
 * AWLBOX_BLOBS, as ./awlbox test sets them. `node --import tsx bench/keep.ts [MB a film]`
 */
const film = Number(process.argv[2] ?? 40)
const [lessons, asked, photo, small] = [40, 1000, 300_000, 12_000]
const app = await openTestApp()
const { here } = await populate(app)
const byId = here.teacher()
console.log(
  `Writing ${lessons} lessons with films of ${film} MB and ${asked} replies with photos of ${photo / 1000} kB…`,
)
const put = (bytes: number, mime: string) => app.blobs.put(app.db, randomBytes(bytes), mime)
const sent: string[] = []
for (let i = 0; i < lessons; i++) {
  await put(film * 1_000_000, 'video/mp4')
  const day = `2026-${String(1 + (i % 12)).padStart(2, '0')}-10`
  const lessonId = await createLesson(app.db, {
    classId: here.classId,
    day,
    doc: sampleLesson(`Lesson ${i}`),
    byId,
    style: defaultHouseStyle,
  })
  const [p] = await app.db
    .insert(publications)
    .values({ lessonId, lessonRevision: 1, pack: { title: `Lesson ${i}`, tasks: [] } as never, byId })
    .returning()
  sent.push(p!.id)
}
const kids = (
  await app.pool.query<{ id: string; household_id: string }>('select id, household_id from children')
).rows
for (let i = kids.length; i < asked / lessons; i++) {
  const r = await app.pool.query<{ id: string; household_id: string }>(
    'insert into children (class_id, household_id, given, name) values ($1, $2, $3, $3) returning id, household_id',
    [here.classId, here.homes[0]!.id, `Child ${i}`],
  )
  kids.push(r.rows[0]!)
}
for (let i = 0; i < asked; i++) {
  const [publicationId, child] = [sent[i % lessons]!, kids[Math.floor(i / lessons)]!]
  const [image, little] = [await put(photo, 'image/jpeg'), await put(small, 'image/jpeg')]
  const [p] = await app.db
    .insert(photos)
    .values({
      publicationId,
      householdId: child.household_id,
      image,
      small: little,
      width: 1600,
      height: 1200,
    })
    .returning()
  const [reply] = await app.db
    .insert(replies)
    .values({
      publicationId,
      childId: child.id,
      key: randomUUID(),
      answers: [{ taskId: 't', kind: 'photo', photoId: p!.id }],
      help: 'alone',
      words: 'She moved them one by one and told me each time.',
    })
    .returning()
  await app.db.insert(judgements).values({
    replyId: reply!.id,
    childId: child.id,
    ideaId: 'parts-7',
    level: 'nearly',
    help: 'alone',
    rung: 'things',
    byId,
  })
}
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-keep-'))
const kept = { databaseUrl: app.url, blobs: app.config.blobs }
const timed = async (what: () => Promise<unknown>): Promise<number> => {
  const from = performance.now()
  await what()
  return (performance.now() - from) / 1000
}
try {
  const copy = await timed(() =>
    Promise.resolve(execFileSync('cp', ['-r', app.config.blobs, path.join(folder, 'plain')])),
  )
  const say = (what: string, seconds: number): void =>
    console.log(
      `${what.padEnd(28)} ${seconds.toFixed(1).padStart(6)} s  ${(seconds / copy).toFixed(2).padStart(5)} × a plain copy`,
    )
  let made: Awaited<ReturnType<typeof backUp>> | undefined
  const to = path.join(folder, 'backup')
  say('plain copy of the files', copy)
  say('first backup', await timed(async () => (made = await backUp(kept, to))))
  say('second, nothing new', await timed(() => backUp(kept, to)))
  console.log(`${made!.blobs} files, ${(made!.bytes / 1e6).toFixed(0)} MB`)
  const empty = { databaseUrl: `${app.url}_empty`, blobs: path.join(folder, 'restored') }
  await app.pool.query(`create database "${path.basename(empty.databaseUrl)}"`)
  say('restore into an empty one', await timed(() => restore(empty, to, null)))
  const there = openDb(empty.databaseUrl)
  try {
    let proved: Awaited<ReturnType<typeof check>> | undefined
    const seconds = await timed(async () => (proved = await check(there.db, folderBlobs(empty.blobs))))
    say('check of what was restored', seconds)
    console.log(isWhole(proved!) ? 'All hashes equal, every revision and judgement in its place.' : proved)
  } finally {
    await there.pool.end()
  }
} finally {
  fs.rmSync(folder, { recursive: true, force: true })
  await app.close()
}
