import { sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'

/** Photos and recordings that were sent and belong to no reply after so many days: chosen, and never sent off. */
export async function removeLooseMedia(db: Db, days: number): Promise<number> {
  let gone = 0
  for (const table of ['photos', 'recordings'])
    gone +=
      (
        await db.execute(sql`
      delete from ${sql.raw(table)} p
      where p.created_at < now() - make_interval(days => ${days})
        and not exists (
          select 1 from replies r, jsonb_array_elements(r.answers) a
          where r.publication_id = p.publication_id
            and ${names('a', sql`p.id::text`)})`)
      ).rowCount ?? 0
  return gone
}
/** Further photos of an answer; none where it has no such list. */
const moreOf = (answer: string) =>
  sql.raw(`case jsonb_typeof(${answer}->'more') when 'array' then ${answer}->'more' else '[]'::jsonb end`)
/** Whether an answer names a photo or a recording: `id` is one as text, or a list of them. */
export const names = (answer: 'a' | 'b', id: ReturnType<typeof sql>) => {
  const a = sql.raw(answer)
  return sql`(${a}->>'photoId' in (${id}) or ${a}->>'recordingId' in (${id})
    or exists (select 1 from jsonb_array_elements(${moreOf(answer)}) m where m->>'photoId' in (${id})))`
}

/** Films that were never sent, older than so many days, but for the newest three of each lesson. */
export const removeOldRenders = async (db: Db, days: number): Promise<number> =>
  (
    await db.execute(sql`
      delete from renders r
      where r.created_at < now() - make_interval(days => ${days})
        and not exists (select 1 from publications p where p.render_id = r.id)
        and not exists (select 1 from film_replacements f where f.render_id = r.id)
        and r.id not in (
          select id from (select id, row_number() over (partition by lesson_id order by created_at desc) as n from renders) x
          where n <= 3)`)
  ).rowCount ?? 0

/** Segment files nobody has used for so many days: they are made anew when they are needed. */
export const removeOldSegmentFiles = async (db: Db, days: number): Promise<number> =>
  (await db.execute(sql`delete from segment_files where created_at < now() - make_interval(days => ${days})`))
    .rowCount ?? 0

/** Ids as a list of the query's own; none matches nothing. */
export const among = (ids: readonly string[]) =>
  sql.join(ids.length ? ids.map((i) => sql`${i}`) : [sql`null`], sql`, `)

/** Photos and recordings that go: answers that name them say so no longer. */
export const forgetMedia = (db: Db, ids: readonly string[]) => {
  const list = among(ids)
  const without = sql`
    a || case when a->>'photoId' in (${list}) then '{"photoId": null}'::jsonb else '{}'::jsonb end
      || case when a->>'recordingId' in (${list}) then '{"recordingId": null}'::jsonb else '{}'::jsonb end
      || case when jsonb_typeof(a->'more') = 'array' then jsonb_build_object('more',
           coalesce((select jsonb_agg(m) from jsonb_array_elements(${moreOf('a')}) m where m->>'photoId' not in (${list})), '[]'::jsonb))
         else '{}'::jsonb end`
  const named = names('a', list)
  return db.execute(sql`
    update replies r set answers = (
      select jsonb_agg(case when ${named} then ${without} else a end) from jsonb_array_elements(r.answers) a)
    where exists (select 1 from jsonb_array_elements(r.answers) a where ${named})`)
}

/** Every column that names a blob, as the database knows them: a new one is looked after without anybody thinking of it. */
export async function blobColumns(db: Db): Promise<{ table: string; column: string }[]> {
  const { rows } = await db.execute<{ table: string; column: string }>(sql`
    select con.conrelid::regclass::text as "table", a.attname as "column"
    from pg_constraint con
    join pg_attribute a on a.attrelid = con.conrelid and a.attnum = con.conkey[1]
    where con.contype = 'f' and con.confrelid = 'blobs'::regclass`)
  return rows
}
/** Blobs that nothing names any more, an hour after they came: their rows go, and their names are given. */
export async function removeUnnamedBlobs(db: Db, minutes: number): Promise<string[]> {
  const named = (await blobColumns(db)).map(
    ({ table, column }) =>
      sql`not exists (select 1 from ${sql.raw(table)} t where t.${sql.raw(column)} = b.sha256)`,
  )
  const { rows } = await db.execute<{ sha256: string }>(sql`
    delete from blobs b
    where b.created_at < now() - make_interval(mins => ${minutes}) and ${sql.join(named, sql` and `)}
    returning b.sha256`)
  return rows.map((r) => r.sha256)
}
export const blobNames = async (db: Db): Promise<{ sha256: string; size: number }[]> =>
  (await db.execute<{ sha256: string; size: string }>(sql`select sha256, size from blobs`)).rows.map((r) => ({
    sha256: r.sha256,
    size: Number(r.size),
  }))

/** Lessons and judgements, and how many of them do not hold together. */
export async function tallies(db: Db): Promise<{
  revisions: { lessons: number; wrong: number }
  judgements: { all: number; homeless: number }
}> {
  const one = async (query: ReturnType<typeof sql>): Promise<number> =>
    Number((await db.execute<{ n: string }>(query)).rows[0]!.n)
  return {
    revisions: {
      lessons: await one(sql`select count(*) as n from lessons`),
      wrong: await one(sql`
        select count(*) as n from lessons l
        where not exists (select 1 from lesson_revisions r where r.lesson_id = l.id and r.revision = l.revision and r.doc = l.doc)
           or exists (select 1 from lesson_revisions r where r.lesson_id = l.id and r.revision > l.revision)`),
    },
    judgements: {
      all: await one(sql`select count(*) as n from judgements`),
      homeless: await one(
        sql`select count(*) as n from judgements j where not exists (select 1 from replies r where r.id = j.reply_id)`,
      ),
    },
  }
}
