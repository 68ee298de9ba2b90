import { eq, inArray, or, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import { children, households, jobs, photos, recordings, replies } from '../platform/schema.ts'
import { among, blobColumns, forgetMedia, names } from './store.ts'

/** What belongs to a child, by id: gathered before it goes, so that afterwards each can be looked for. */
export interface Belongings {
  children: string[]
  households: string[]
  replies: string[]
  photos: string[]
  recordings: string[]
  judgements: string[]
  blobs: string[]
  jobs: string[]
}
const listOf = async (db: Db, query: ReturnType<typeof sql>): Promise<string[]> =>
  (await db.execute<{ id: string }>(query)).rows.map((r) => r.id)

/** Photos and recordings that one of these children's replies names; of homes that go whole, all of them. */
export async function belongingsOf(
  db: Db,
  childIds: readonly string[],
  homes: readonly string[],
): Promise<Belongings> {
  const mine = await listOf(db, sql`select id from replies where child_id::text in (${among(childIds)})`)
  const sentIn = (table: 'photos' | 'recordings') =>
    listOf(
      db,
      sql`select p.id from ${sql.raw(table)} p where p.household_id::text in (${among(homes)})
      or exists (select 1 from replies r, jsonb_array_elements(r.answers) a
        where r.child_id::text in (${among(childIds)}) and ${names('a', sql`p.id::text`)}
          and not exists (select 1 from replies o, jsonb_array_elements(o.answers) b
            where o.child_id::text not in (${among(childIds)}) and ${names('b', sql`p.id::text`)}))
      or exists (select 1 from live_answers l
        where l.child_id::text in (${among(childIds)}) and l.answer->>'photoId' = p.id::text)`,
    )
  const photoIds = await sentIn('photos')
  const recordingIds = await sentIn('recordings')
  return {
    children: [...childIds],
    households: [...homes],
    replies: mine,
    photos: photoIds,
    recordings: recordingIds,
    judgements: await listOf(db, sql`select id from judgements where child_id::text in (${among(childIds)})`),
    blobs: await listOf(
      db,
      sql`select distinct x.sha as id from photos p, lateral (values (p.image), (p.small)) x(sha) where p.id::text in (${among(photoIds)})
        union select r.file from recordings r where r.id::text in (${among(recordingIds)})`,
    ),
    jobs: await listOf(db, sql`select id from jobs where kind = 'photo' and subject in (${among(photoIds)})`),
  }
}
/** What people said of a child and wrote back on its replies, beside judgements: for its folder. */
export async function saidOfChild(db: Db, childId: string) {
  const rows = async (query: ReturnType<typeof sql>) => (await db.execute(query)).rows
  return {
    overrides: await rows(
      sql`select o.idea_id as idea, o.level, o.note, o.at, p.name as by from overrides o join people p on p.id = o.by_id where o.child_id = ${childId} order by o.at`,
    ),
    feedback: await rows(
      sql`select f.reply_id as reply, f.body, f.sent_at as sent from feedback f join replies r on r.id = f.reply_id where r.child_id = ${childId} order by f.updated_at`,
    ),
    askedAgain: await rows(
      sql`select a.reply_id as reply, a.task_id as task, a.words, a.at, a.answered_at as answered from askings a join replies r on r.id = a.reply_id where r.child_id = ${childId} order by a.at`,
    ),
  }
}
/** Readings of photos that people put right. */
export const correctionsOf = async (db: Db, photoIds: readonly string[]) =>
  photoIds.length
    ? (
        await db.execute<{ photo: string; reading: unknown; at: Date }>(
          sql`select photo_id as photo, reading, at from corrections where photo_id::text in (${among(photoIds)}) order by at`,
        )
      ).rows
    : []
/** Homes in which no child lives but these. */
export const homesLeftEmpty = (db: Db, childIds: readonly string[]): Promise<string[]> =>
  listOf(
    db,
    sql`select h.id from households h
      where exists (select 1 from children c where c.id::text in (${among(childIds)}) and h.id in (c.household_id, c.second_household_id))
        and not exists (select 1 from children c where c.id::text not in (${among(childIds)}) and h.id in (c.household_id, c.second_household_id))`,
  )

/** Deletes all of it in one go; gives the files nothing names any more. */
export const deleteBelongings = (db: Db, b: Belongings): Promise<string[]> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    // As a reply does that comes meanwhile: the child first, then what is its own.
    if (b.children.length)
      await tx
        .select({ id: children.id })
        .from(children)
        .where(inArray(children.id, b.children))
        .for('update')
    if (b.jobs.length) {
      await tx.execute(sql`delete from pgboss.job where data->>'jobId' in (${among(b.jobs)})`)
      await tx.delete(jobs).where(inArray(jobs.id, b.jobs))
    }
    if (b.photos.length || b.recordings.length) await forgetMedia(tx, [...b.photos, ...b.recordings])
    if (b.photos.length) await tx.delete(photos).where(inArray(photos.id, b.photos))
    if (b.recordings.length) await tx.delete(recordings).where(inArray(recordings.id, b.recordings))
    // Children first: a home that goes would take them along, and those of another home with them.
    if (b.children.length) await tx.delete(children).where(inArray(children.id, b.children))
    if (b.households.length) await tx.delete(households).where(inArray(households.id, b.households))
    if (!b.blobs.length) return []
    const named = (await blobColumns(tx)).map(
      ({ table, column }) =>
        sql`not exists (select 1 from ${sql.raw(table)} t where t.${sql.raw(column)} = b.sha256)`,
    )
    return listOf(
      tx,
      sql`delete from blobs b where b.sha256 in (${among(b.blobs)}) and ${sql.join(named, sql` and `)} returning b.sha256 as id`,
    )
  })

/** Rows that still hold one of these ids, in whatever table and column: of the things themselves, or of what points to them. */
export async function stillHeld(db: Db, ids: readonly string[]): Promise<number> {
  if (!ids.length) return 0
  const { rows } = await db.execute<{ table: string; column: string; type: string }>(sql`
    select c.table_name as "table", c.column_name as "column", c.data_type as type
    from information_schema.columns c
    join information_schema.tables t on t.table_name = c.table_name and t.table_schema = c.table_schema
    where c.table_schema = 'public' and t.table_type = 'BASE TABLE'
      and (c.data_type = 'uuid' or (c.table_name, c.column_name) in (('replies', 'answers'), ('jobs', 'subject')))`)
  let held = 0
  for (const { table, column, type } of rows) {
    const at = sql.raw(`"${table}"."${column}"`)
    const found =
      type === 'jsonb'
        ? sql`exists (select 1 from jsonb_array_elements(${at}) a where ${names('a', among(ids))})`
        : sql`${at}::text in (${among(ids)})`
    const { rows: counted } = await db.execute<{ n: string }>(
      sql`select count(*) as n from ${sql.raw(`"${table}"`)} where ${found}`,
    )
    held += Number(counted[0]!.n)
  }
  return held
}

export async function childById(db: Db, childId: string) {
  const { rows } = await db.execute<{
    name: string
    given: string
    class_name: string
    left_at: string | null
    home: string
    second: string | null
    languages: string[]
    note: string
    younger_child: boolean
  }>(sql`
    select c.name, c.given, k.name as class_name, c.left_at, h.name as home, s.name as second, c.languages, c.note, h.younger_child
    from children c join classes k on k.id = coalesce(c.class_id, c.left_from)
    join households h on h.id = c.household_id left join households s on s.id = c.second_household_id
    where c.id = ${childId}`)
  return rows[0]
}
/** Replies of a child with what was asked, for the one who asks what is kept. */
export const repliesOfChild = (db: Db, childId: string) =>
  db
    .select({
      id: replies.id,
      answers: replies.answers,
      help: replies.help,
      way: replies.way,
      feeling: replies.feeling,
      couldNot: replies.couldNot,
      gave: replies.gave,
      chose: replies.chose,
      why: replies.why,
      words: replies.words,
      receivedAt: replies.receivedAt,
      updatedAt: replies.updatedAt,
      title: sql<string>`(select p.pack->>'title' from publications p where p.id = replies.publication_id)`,
      tasks: sql<unknown>`(select p.pack->'tasks' from publications p where p.id = replies.publication_id)`,
    })
    .from(replies)
    .where(eq(replies.childId, childId))
    .orderBy(replies.receivedAt)
export async function judgementsOfChild(db: Db, childId: string) {
  const { rows } = await db.execute<{
    at: string
    idea: string
    level: string
    help: string
    rung: string
    note: string
    by: string
  }>(sql`
    select j.at, j.idea_id as idea, j.level, j.help, j.rung, j.note, p.name as by
    from judgements j join people p on p.id = j.by_id where j.child_id = ${childId} order by j.at`)
  return rows
}
export const photosById = (db: Db, ids: readonly string[]) =>
  ids.length
    ? db
        .select({ id: photos.id, image: photos.image, createdAt: photos.createdAt, reading: photos.reading })
        .from(photos)
        .where(or(...ids.map((i) => eq(photos.id, i))))
    : Promise.resolve([])

export const recordingsById = (db: Db, ids: readonly string[]) =>
  ids.length
    ? db
        .select({
          id: recordings.id,
          kind: recordings.kind,
          file: recordings.file,
          createdAt: recordings.createdAt,
        })
        .from(recordings)
        .where(inArray(recordings.id, [...ids]))
    : Promise.resolve([])
