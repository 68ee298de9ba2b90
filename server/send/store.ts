import { and, asc, desc, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import type { Pack } from '@awlbox/core/contracts/pack'
import type { ReplyInput } from '@awlbox/core/contracts/reply'
import { livesIn } from '../platform/access.ts'
import { type Db, moment } from '../platform/db.ts'
import {
  children,
  classes,
  filmReplacements,
  homeLinks,
  households,
  lessons,
  photos,
  publications,
  renderFiles,
  renders,
  replies,
} from '../platform/schema.ts'
import { hashToken, homeToken } from '../platform/tokens.ts'

export const publish = async (
  db: Db,
  input: {
    lessonId: string
    renderId: string | null
    lessonRevision: number
    pack: Pack
    byId: string
    knowingly?: string[]
    sentAt?: Date
  },
): Promise<string> => (await db.insert(publications).values(input).returning({ id: publications.id }))[0]!.id

/** The film a sending shows now: the latest that took its place, or the one it was sent with. */
const shownRender = sql<
  string | null
>`coalesce((select r.render_id from film_replacements r where r.publication_id = ${publications.id} order by r.at desc, r.id limit 1), ${publications.renderId})`

export const publicationsOf = (db: Db, lessonId: string) =>
  db
    .select({
      id: publications.id,
      lessonId: publications.lessonId,
      sentAt: publications.sentAt,
      lessonRevision: publications.lessonRevision,
      knowingly: publications.knowingly,
      renderId: renders.id,
      cutRevision: renders.cutRevision,
      seconds: renders.seconds,
      replacedAt:
        sql<Date | null>`(select max(r.at) from film_replacements r where r.publication_id = ${publications.id})`.mapWith(
          moment,
        ),
    })
    .from(publications)
    .leftJoin(renders, eq(renders.id, shownRender))
    .where(eq(publications.lessonId, lessonId))
    .orderBy(desc(publications.sentAt))
    .limit(20)

/** The homes of a lesson's class, with their children and whether each has replied to the latest sending. */
export async function homesOf(db: Db, lessonId: string) {
  return db
    .select({
      householdId: households.id,
      home: households.name,
      youngerChild: households.youngerChild,
      linkVersion: households.linkVersion,
      childId: children.id,
      child: children.name,
      replied: sql<Date | null>`max(${replies.updatedAt})`.mapWith(moment),
      open: sql<boolean>`exists (select 1 from home_links k where k.household_id = ${households.id} and k.revoked_at is null)`,
    })
    .from(lessons)
    .innerJoin(children, eq(children.classId, lessons.classId))
    .innerJoin(
      households,
      or(eq(households.id, children.householdId), eq(households.id, children.secondHouseholdId)),
    )
    .leftJoin(publications, eq(publications.lessonId, lessons.id))
    .leftJoin(replies, and(eq(replies.publicationId, publications.id), eq(replies.childId, children.id)))
    .where(eq(lessons.id, lessonId))
    .groupBy(households.id, children.id)
    .orderBy(asc(children.name))
}

/** Makes sure each household has an open link of its current version. Ended links stay ended until renewed. */
export async function openLinks(db: Db, secret: string, householdIds: readonly string[]): Promise<void> {
  if (!householdIds.length) return
  const rows = await db
    .select({ id: households.id, version: households.linkVersion })
    .from(households)
    .where(inArray(households.id, [...householdIds]))
  await db
    .insert(homeLinks)
    .values(
      rows.map((h) => ({ tokenHash: hashToken(homeToken(secret, h.id, h.version)), householdId: h.id })),
    )
    .onConflictDoNothing()
}
export async function revokeLink(db: Db, householdId: string): Promise<void> {
  await db
    .update(homeLinks)
    .set({ revokedAt: new Date() })
    .where(and(eq(homeLinks.householdId, householdId), isNull(homeLinks.revokedAt)))
}
/** Ends the old link and opens a new one; returns its token. */
export async function renewLink(db: Db, secret: string, householdId: string): Promise<string> {
  await revokeLink(db, householdId)
  const [row] = await db
    .update(households)
    .set({ linkVersion: sql`${households.linkVersion} + 1` })
    .where(eq(households.id, householdId))
    .returning({ version: households.linkVersion })
  await openLinks(db, secret, [householdId])
  return homeToken(secret, householdId, row!.version)
}

export const packsFor = (db: Db, householdId: string) =>
  db
    .selectDistinctOn([publications.id], {
      id: publications.id,
      pack: publications.pack,
      sentAt: publications.sentAt,
      renderId: publications.renderId,
      seconds: renders.seconds,
      bytes: renders.bytes,
      className: classes.name,
    })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .innerJoin(lessons, eq(lessons.classId, classes.id))
    .innerJoin(publications, eq(publications.lessonId, lessons.id))
    .leftJoin(renders, eq(renders.id, shownRender))
    .where(livesIn(householdId))
    .orderBy(publications.id, desc(publications.sentAt))
    .limit(200)
    .then((rows) => rows.sort((a, b) => +b.sentAt - +a.sentAt).slice(0, 30))

export async function packById(db: Db, id: string) {
  const [row] = await db
    .select({
      id: publications.id,
      lessonId: publications.lessonId,
      pack: publications.pack,
      sentAt: publications.sentAt,
      renderId: renders.id,
      film: renders.film,
      captions: renders.captions,
      poster: renders.poster,
      seconds: renders.seconds,
      bytes: renders.bytes,
      className: classes.name,
      classId: classes.id,
    })
    .from(publications)
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .leftJoin(renders, eq(renders.id, shownRender))
    .where(eq(publications.id, id))
    .limit(1)
  return row
}
/** Puts another film in the place of a sending's; what was sent before stays on record. */
export const replaceFilm = (db: Db, input: typeof filmReplacements.$inferInsert) =>
  db.insert(filmReplacements).values(input)
/** When and how a sending's film was last replaced; null when it never was. */
export async function replacementOf(
  db: Db,
  publicationId: string,
): Promise<{ at: Date; changes: string[] } | null> {
  const [row] = await db
    .select({ at: filmReplacements.at, changes: filmReplacements.changes })
    .from(filmReplacements)
    .where(eq(filmReplacements.publicationId, publicationId))
    .orderBy(desc(filmReplacements.at))
    .limit(1)
  return row ?? null
}
/** Other versions of a film a home may have, with their bytes. */
export const homeVersions = (db: Db, renderId: string) =>
  db
    .select({ kind: renderFiles.kind, bytes: renderFiles.bytes })
    .from(renderFiles)
    .where(eq(renderFiles.renderId, renderId))
export const childrenHere = (db: Db, householdId: string, classId: string) =>
  db
    .select({ id: children.id, name: children.given })
    .from(children)
    .where(and(livesIn(householdId), eq(children.classId, classId)))
    .orderBy(asc(children.name))

export const repliesFrom = (db: Db, publicationId: string, householdId: string) =>
  db
    .select({
      childId: replies.childId,
      answers: replies.answers,
      help: replies.help,
      way: replies.way,
      feeling: replies.feeling,
      couldNot: replies.couldNot,
      words: replies.words,
      updatedAt: replies.updatedAt,
      looked: sql<boolean>`exists (select 1 from judgements j where j.reply_id = ${replies.id})`,
    })
    .from(replies)
    .innerJoin(children, eq(children.id, replies.childId))
    .where(and(eq(replies.publicationId, publicationId), livesIn(householdId)))

/** Keeps one reply a child and sending: a second one changes the first until it has been looked at. */
export async function saveReply(
  db: Db,
  publicationId: string,
  input: ReplyInput,
): Promise<{ id: string; updatedAt: Date; again: boolean } | 'looked' | 'gone'> {
  return db.transaction(async (tx) => {
    const [made] = await tx
      .insert(replies)
      .values({
        publicationId,
        childId: input.childId,
        key: input.key,
        answers: input.answers,
        help: input.help,
        way: input.way,
        feeling: input.feeling,
        couldNot: input.couldNot,
        words: input.words,
      })
      .onConflictDoNothing()
      .returning({ id: replies.id, updatedAt: replies.updatedAt })
    if (made) return { ...made, again: false }
    const [before] = await tx
      .select({
        id: replies.id,
        key: replies.key,
        updatedAt: replies.updatedAt,
        looked: sql<boolean>`exists (select 1 from judgements j where j.reply_id = replies.id)`,
      })
      .from(replies)
      .where(and(eq(replies.publicationId, publicationId), eq(replies.childId, input.childId)))
      .for('update')
      .limit(1)
    // Its child was deleted as it came.
    if (!before) return 'gone'
    if (before.looked)
      return before.key === input.key ? { id: before.id, updatedAt: before.updatedAt, again: true } : 'looked'
    const [row] = await tx
      .update(replies)
      .set({
        answers: input.answers,
        help: input.help,
        way: input.way,
        feeling: input.feeling,
        couldNot: input.couldNot,
        words: input.words,
        key: input.key,
        updatedAt: new Date(),
      })
      .where(eq(replies.id, before.id))
      .returning({ id: replies.id, updatedAt: replies.updatedAt })
    return { ...row!, again: true }
  })
}
export const addPhoto = async (db: Db, row: typeof photos.$inferInsert): Promise<string> =>
  (await db.insert(photos).values(row).returning({ id: photos.id }))[0]!.id
/** How many of these photos belong to the household and the sending. */
export async function ownPhotos(
  db: Db,
  ids: readonly string[],
  householdId: string,
  publicationId: string,
): Promise<number> {
  if (!ids.length) return 0
  const rows = await db
    .select({ id: photos.id })
    .from(photos)
    .where(
      and(
        inArray(photos.id, [...ids]),
        eq(photos.householdId, householdId),
        eq(photos.publicationId, publicationId),
      ),
    )
  return rows.length
}
