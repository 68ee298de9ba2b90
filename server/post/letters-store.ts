import { and, asc, desc, eq, gte, inArray, isNull, lte, or, sql } from 'drizzle-orm'
import type { LetterKind, LetterState, PostRules } from '@awlbox/core/contracts/post'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { livesIn } from '../platform/access.ts'
import { type Db, moment } from '../platform/db.ts'
import {
  children,
  classes,
  households,
  lessons,
  letters,
  publications,
  replies,
  settings,
} from '../platform/schema.ts'

/** The clock, the name and the rules of a setting that writes. */
export async function writerOf(
  db: Db,
  settingId: string,
): Promise<{ name: string; timeZone: string; post: Partial<PostRules> }> {
  const [row] = await db
    .select({ name: settings.name, timeZone: settings.timeZone, post: settings.post })
    .from(settings)
    .where(eq(settings.id, settingId))
    .limit(1)
  return row!
}
export const savePostRules = (db: Db, settingId: string, rules: PostRules) =>
  db.update(settings).set({ post: rules }).where(eq(settings.id, settingId))

/** The homes of a lesson's class with an open link, and what one needs to write to them. */
export const homesToWriteTo = (db: Db, lessonId: string) =>
  db
    .selectDistinct({
      householdId: households.id,
      settingId: households.settingId,
      name: households.name,
      youngerChild: households.youngerChild,
      email: households.email,
      language: households.language,
      linkVersion: households.linkVersion,
    })
    .from(lessons)
    .innerJoin(children, eq(children.classId, lessons.classId))
    .innerJoin(
      households,
      or(eq(households.id, children.householdId), eq(households.id, children.secondHouseholdId)),
    )
    .where(
      and(
        eq(lessons.id, lessonId),
        sql`exists (select 1 from home_links k where k.household_id = households.id and k.revoked_at is null)`,
      ),
    )

/** Children of a home in the class of a sending, and whether each has replied to it. */
export const repliedIn = (db: Db, publicationId: string, householdId: string) =>
  db
    .select({ id: children.id, name: children.given, replied: sql<boolean>`${replies.id} is not null` })
    .from(publications)
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(children, and(eq(children.classId, lessons.classId), livesIn(householdId)))
    .leftJoin(replies, and(eq(replies.publicationId, publications.id), eq(replies.childId, children.id)))
    .where(eq(publications.id, publicationId))

/** Moments from `since` on at which letters went to a home, or are to go. */
export async function momentsOf(db: Db, householdId: string, since: Date): Promise<Date[]> {
  const at = sql<Date>`coalesce(${letters.goneAt}, ${letters.after})`.mapWith(moment)
  const rows = await db
    .select({ at })
    .from(letters)
    .where(
      and(
        eq(letters.householdId, householdId),
        inArray(letters.state, ['waiting', 'sent']),
        sql`coalesce(${letters.goneAt}, ${letters.after}) >= ${since.toISOString()}::timestamptz`,
      ),
    )
  return rows.map((r) => r.at)
}
/** A home hears once of each thing: one that is written already stays as it is. Gives how many were new. */
export async function addLetter(db: Db, row: typeof letters.$inferInsert): Promise<boolean> {
  const made = await db.insert(letters).values(row).onConflictDoNothing().returning({ id: letters.id })
  return made.length > 0
}
export interface OutboxRow {
  id: string
  householdId: string
  home: string
  kind: LetterKind
  subject: string
  body: string
  linkVersion: number
  language: HomeLanguage
  state: LetterState
  after: Date
  tries: number
  problem: string | null
  goneAt: Date | null
}
const outboxColumns = {
  id: letters.id,
  householdId: letters.householdId,
  home: households.name,
  kind: letters.kind,
  subject: letters.subject,
  body: letters.body,
  linkVersion: households.linkVersion,
  language: letters.language,
  state: letters.state,
  after: letters.after,
  tries: letters.tries,
  problem: letters.problem,
  goneAt: letters.goneAt,
}
/** The letters of a lesson's sendings, by home, the newest first. */
export const lettersOfLesson = (db: Db, lessonId: string): Promise<OutboxRow[]> =>
  db
    .select(outboxColumns)
    .from(letters)
    .innerJoin(households, eq(households.id, letters.householdId))
    .innerJoin(publications, eq(publications.id, letters.publicationId))
    .where(eq(publications.lessonId, lessonId))
    .orderBy(desc(letters.createdAt), asc(households.name))
    .limit(600)
export async function letterById(db: Db, id: string) {
  const [row] = await db.select().from(letters).where(eq(letters.id, id)).limit(1)
  return row
}
export const setLetter = (db: Db, id: string, change: Partial<typeof letters.$inferInsert>) =>
  db.update(letters).set(change).where(eq(letters.id, id))

/** One letter whose hour has come, held until the work with it is done: several workers never send one twice. */
export async function withDueLetter(
  db: Db,
  now: Date,
  work: (
    tx: Db,
    letter: typeof letters.$inferSelect & {
      email: string | null
      linkVersion: number
      timeZone: string
      post: Partial<PostRules>
    },
  ) => Promise<void>,
): Promise<boolean> {
  return db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    const [row] = await tx
      .select({
        letter: letters,
        email: households.email,
        linkVersion: households.linkVersion,
        timeZone: settings.timeZone,
        post: settings.post,
      })
      .from(letters)
      .innerJoin(households, eq(households.id, letters.householdId))
      .innerJoin(settings, eq(settings.id, letters.settingId))
      .where(and(eq(letters.state, 'waiting'), lte(letters.after, now)))
      .orderBy(asc(letters.after))
      .limit(1)
      .for('update', { of: letters, skipLocked: true })
    if (!row) return false
    const { letter, ...more } = row
    await work(tx, { ...letter, ...more })
    return true
  })
}

/** Sendings old enough for a reminder, the newest of their lessons, open still, and young enough that one makes sense. */
export const toNudge = (db: Db, now: Date) =>
  db
    .select({
      publicationId: publications.id,
      lessonId: publications.lessonId,
      settingId: classes.settingId,
      sentAt: publications.sentAt,
      post: settings.post,
    })
    .from(publications)
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .innerJoin(settings, eq(settings.id, classes.settingId))
    .where(
      and(
        gte(publications.sentAt, new Date(now.getTime() - 15 * 86_400_000)),
        or(
          isNull(publications.closes),
          sql`${publications.closes} >= ${now.toISOString().slice(0, 10)}::date`,
        ),
        sql`not exists (select 1 from publications p where p.lesson_id = publications.lesson_id and p.sent_at > publications.sent_at)`,
      ),
    )
