import { eq, sql } from 'drizzle-orm'
import type { KeptFor, KeptKind } from '@awlbox/core/contracts/kept-for'
import { type Db, moment } from '../platform/db.ts'
import { settings } from '../platform/schema.ts'
import { among, forgetMedia } from './store.ts'

export async function keptForIn(db: Db, settingId: string): Promise<Partial<KeptFor>> {
  const [row] = await db
    .select({ keptFor: settings.keptFor })
    .from(settings)
    .where(eq(settings.id, settingId))
    .limit(1)
  return row?.keptFor ?? {}
}
export const saveKeptFor = (db: Db, settingId: string, change: Partial<KeptFor>) =>
  db
    .update(settings)
    .set({ keptFor: sql`${settings.keptFor} || ${JSON.stringify(change)}::jsonb` })
    .where(eq(settings.id, settingId))
export const allSettings = (db: Db) =>
  db.select({ id: settings.id, keptFor: settings.keptFor }).from(settings)

/**
 * Of each kind what counts as one of it, and when its time begins: photos, replies and sound when they came, films when
 * they were made (those in use keep what is shown), standings when the child left, the record when it was written.
 * `due` takes the setting's id and the days; one row a thing, with its id.
 */
const kinds: Record<KeptKind, (settingId: string) => ReturnType<typeof sql>> = {
  photos: (id) => sql`
    select p.id::text, p.created_at as since from photos p
    join households h on h.id = p.household_id where h.setting_id = ${id}
    union all select r.id::text, r.created_at from recordings r
    join households h on h.id = r.household_id where h.setting_id = ${id} and r.kind = 'clip'`,
  sound: (id) => sql`
    select t.id::text, t.created_at as since from takes t
    join lessons l on l.id = t.lesson_id join classes c on c.id = l.class_id
    where c.setting_id = ${id} and t.status = 'ready' and t.film is not null and t.original <> t.film
    union all select r.id::text, r.created_at from recordings r
    join households h on h.id = r.household_id where h.setting_id = ${id} and r.kind = 'sound'`,
  films: (id) => sql`
    select r.id::text, coalesce(
      greatest((select max(p.sent_at) from publications p where p.render_id = r.id),
               (select max(f.at) from film_replacements f where f.render_id = r.id)), r.created_at) as since
    from renders r join lessons l on l.id = r.lesson_id join classes c on c.id = l.class_id
    where c.setting_id = ${id}`,
  replies: (id) => sql`
    select r.id::text, r.updated_at as since from replies r
    join children k on k.id = r.child_id join households h on h.id = k.household_id where h.setting_id = ${id} and (r.answers <> '[]' or r.words <> '' or r.why <> '')`,
  standings: (id) => sql`
    select k.id::text, k.left_at as since from children k
    join households h on h.id = k.household_id where h.setting_id = ${id} and k.left_at is not null`,
  record: (id) => sql`select r.id::text, r.at as since from record r where r.setting_id = ${id}`,
}

/** How much there is of a kind, since when, and how much is due within some days. */
export async function tallyOf(
  db: Db,
  settingId: string,
  kind: KeptKind,
  days: number | null,
): Promise<{ count: number; oldest: Date | null; soon: number }> {
  const { rows } = await db.execute<{ count: string; oldest: string | null; soon: string }>(sql`
    select count(*) as count, min(since) as oldest,
      ${days === null ? sql`0` : sql`count(*) filter (where since < now() - make_interval(days => ${days - 30}))`} as soon
    from (${kinds[kind](settingId)}) x`)
  const [r] = rows
  return {
    count: Number(r!.count),
    oldest: r!.oldest === null ? null : moment(r!.oldest),
    soon: Number(r!.soon),
  }
}
/** Ids of what is older than it is kept, of one kind. */
export async function dueOf(
  db: Db,
  settingId: string,
  kind: Exclude<KeptKind, 'record'>,
  days: number,
): Promise<string[]> {
  const { rows } = await db.execute<{ id: string }>(sql`
    select id from (${kinds[kind](settingId)}) x where since < now() - make_interval(days => ${days}) limit 10000`)
  return rows.map((r) => r.id)
}
/**
 * Lets things of a kind go. A photo that a reply names leaves the answer without it; a reply leaves its judgements, which
 * are the standing's, with no words in it; a take keeps the film made of it; a film that was sent leaves the sending.
 */
export async function letGo(
  db: Db,
  kind: Exclude<KeptKind, 'record' | 'standings'>,
  ids: readonly string[],
): Promise<void> {
  if (!ids.length) return
  const list = among(ids)
  if (kind === 'photos') {
    await forgetMedia(db, ids)
    await db.execute(sql`delete from photos where id::text in (${list})`)
  }
  if (kind === 'sound') await forgetMedia(db, ids)
  if (kind === 'photos' || kind === 'sound')
    await db.execute(sql`delete from recordings where id::text in (${list})`)
  if (kind === 'sound')
    await db.execute(
      sql`update takes set original = film where film is not null and status = 'ready' and id::text in (${list})`,
    )
  if (kind === 'replies')
    await db.execute(sql`update replies set answers = '[]', words = '', why = '' where id::text in (${list})`)
  if (kind === 'films') {
    await db.execute(sql`delete from film_replacements where render_id::text in (${list})`)
    await db.execute(sql`update publications set render_id = null where render_id::text in (${list})`)
    await db.execute(sql`delete from renders where id::text in (${list})`)
  }
}
