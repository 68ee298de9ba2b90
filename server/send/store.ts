import { and, asc, desc, eq, inArray, isNull, lte, or, sql, type SQL } from 'drizzle-orm'
import type { Pack } from '@awlbox/core/contracts/pack'
import type { TaskSet } from '@awlbox/core/contracts/lesson'
import type { Answer, ReplyInput } from '@awlbox/core/contracts/reply'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { mergedReply } from '@awlbox/core/send/two-phones'
import { livesIn } from '../platform/access.ts'
import { type Db, moment } from '../platform/db.ts'
import {
  askings,
  children,
  childSets,
  classes,
  filmReplacements,
  homeLinks,
  households,
  lessons,
  photos,
  publications,
  recordings,
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
    due?: string | null
    closes?: string | null
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
      due: publications.due,
      closes: publications.closes,
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
      level: sql<TaskSet | null>`(select k.level from child_sets k where k.lesson_id = ${lessonId} and k.child_id = ${children.id})`,
      chosen: households.language,
      spoken: children.languages,
      email: sql<boolean>`${households.email} is not null`,
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
      due: publications.due,
      seconds: renders.seconds,
      bytes: renders.bytes,
      className: classes.name,
    })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .innerJoin(lessons, eq(lessons.classId, classes.id))
    .innerJoin(publications, eq(publications.lessonId, lessons.id))
    .leftJoin(renders, eq(renders.id, shownRender))
    // What waits for its hour is not there yet.
    .where(and(livesIn(householdId), lte(publications.sentAt, sql`now()`)))
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
      settingId: classes.settingId,
      due: publications.due,
      closes: publications.closes,
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

/** Whether a reply has been looked at, so that it no longer changes: until something is asked for once more. */
const isLooked = (reply: SQL) =>
  sql<boolean>`(exists (select 1 from judgements j where j.reply_id = ${reply}) and not exists (select 1 from askings q where q.reply_id = ${reply} and q.answered_at is null))`
export const repliesFrom = (db: Db, publicationId: string, householdId: string) =>
  db
    .select({
      childId: replies.childId,
      answers: replies.answers,
      help: replies.help,
      way: replies.way,
      feeling: replies.feeling,
      couldNot: replies.couldNot,
      chose: replies.chose,
      why: replies.why,
      words: replies.words,
      updatedAt: replies.updatedAt,
      looked: isLooked(sql`${replies.id}`),
      // What was written back, once it went; and what is asked for once more.
      feedback: sql<
        string | null
      >`(select f.body from feedback f where f.reply_id = ${replies.id} and f.sent_at is not null)`,
      asked: sql<
        { taskId: string; words: string }[]
      >`coalesce((select jsonb_agg(jsonb_build_object('taskId', a.task_id, 'words', a.words) order by a.at) from askings a where a.reply_id = ${replies.id} and a.answered_at is null), '[]')`,
    })
    .from(replies)
    .innerJoin(children, eq(children.id, replies.childId))
    .where(and(eq(replies.publicationId, publicationId), livesIn(householdId)))

/** Keeps one reply a child and sending: a second one changes the first until it has been looked at; one of another phone is joined to it. */
export async function saveReply(
  db: Db,
  publicationId: string,
  input: ReplyInput,
): Promise<{ id: string; updatedAt: Date; again: boolean } | 'looked' | 'gone'> {
  const { childId, ...said } = input
  return db.transaction(async (tx) => {
    // The child first, then its reply: who deletes a child goes the same way round, so that neither waits for the other.
    const [child] = await tx
      .select({ id: children.id })
      .from(children)
      .where(eq(children.id, childId))
      .for('key share')
    if (!child) return 'gone'
    const [given] = await tx
      .select({ level: childSets.level })
      .from(childSets)
      .innerJoin(publications, eq(publications.lessonId, childSets.lessonId))
      .where(and(eq(publications.id, publicationId), eq(childSets.childId, childId)))
      .limit(1)
    const row = { ...said, gave: given?.level ?? null }
    const [made] = await tx
      .insert(replies)
      .values({ publicationId, childId, ...row })
      .onConflictDoNothing()
      .returning({ id: replies.id, updatedAt: replies.updatedAt })
    if (made) return { ...made, again: false }
    const [before] = await tx
      .select({
        id: replies.id,
        key: replies.key,
        answers: replies.answers,
        help: replies.help,
        way: replies.way,
        feeling: replies.feeling,
        couldNot: replies.couldNot,
        chose: replies.chose,
        why: replies.why,
        words: replies.words,
        updatedAt: replies.updatedAt,
        looked: isLooked(sql`replies.id`),
      })
      .from(replies)
      .where(and(eq(replies.publicationId, publicationId), eq(replies.childId, input.childId)))
      .for('update')
      .limit(1)
    // Its child was deleted as it came.
    if (!before) return 'gone'
    if (before.looked)
      return before.key === input.key ? { id: before.id, updatedAt: before.updatedAt, again: true } : 'looked'
    const [changed] = await tx
      .update(replies)
      // From another phone of theirs: what that one had sent is not lost to this one.
      .set({ ...row, ...(before.key === input.key ? {} : mergedReply(before, said)), updatedAt: new Date() })
      .where(eq(replies.id, before.id))
      .returning({ id: replies.id, updatedAt: replies.updatedAt })
    // What was asked for once more has been answered.
    await tx
      .update(askings)
      .set({ answeredAt: new Date() })
      .where(
        and(
          eq(askings.replyId, before.id),
          isNull(askings.answeredAt),
          inArray(askings.taskId, ['', ...input.answers.map((a) => a.taskId)]),
        ),
      )
    return { ...changed!, again: true }
  })
}
/** The same name twice is one: two pieces of one sending may arrive at once. */
export const addPhoto = (db: Db, row: typeof photos.$inferInsert) =>
  db.insert(photos).values(row).onConflictDoNothing()
export const addRecording = (db: Db, row: typeof recordings.$inferInsert) =>
  db.insert(recordings).values(row).onConflictDoNothing()
/** What is here under a name already; `other` where it is not this home's, or not of this sending. */
export async function mediaKnown(
  db: Db,
  kind: 'photo' | 'sound' | 'clip',
  at: { id: string; publicationId: string; householdId: string },
): Promise<{ id: string; width: number; height: number } | 'other' | null> {
  const whose = (t: typeof photos | typeof recordings) => ({
    householdId: t.householdId,
    publicationId: t.publicationId,
  })
  const [photo] = await db
    .select({ ...whose(photos), width: photos.width, height: photos.height })
    .from(photos)
    .where(eq(photos.id, at.id))
    .limit(1)
  const [recording] = await db
    .select({ ...whose(recordings), kind: recordings.kind })
    .from(recordings)
    .where(eq(recordings.id, at.id))
    .limit(1)
  const row = photo ?? recording
  if (!row) return null
  const same = (recording?.kind ?? 'photo') === kind
  if (!same || row.householdId !== at.householdId || row.publicationId !== at.publicationId) return 'other'
  return { id: at.id, width: photo?.width ?? 0, height: photo?.height ?? 0 }
}
/** How many of these photos, or recordings, belong to the household and the sending. */
async function ownOnes(
  db: Db,
  table: typeof photos | typeof recordings,
  ids: readonly string[],
  at: { householdId: string; publicationId: string },
): Promise<number> {
  if (!ids.length) return 0
  const rows = await db
    .select({ id: table.id })
    .from(table)
    .where(
      and(
        inArray(table.id, [...ids]),
        eq(table.householdId, at.householdId),
        eq(table.publicationId, at.publicationId),
      ),
    )
  return rows.length
}

/**
 * Takes a reply back that nobody has looked at: it goes with its photos and recordings, but for those of another
 * child's reply. False where there is none any more.
 */
export async function takeBack(
  db: Db,
  at: { publicationId: string; childId: string; householdId: string },
): Promise<'gone' | 'looked' | 'taken'> {
  return db.transaction(async (tx) => {
    const [reply] = await tx
      .select({
        id: replies.id,
        answers: replies.answers,
        looked: isLooked(sql`replies.id`),
      })
      .from(replies)
      .where(and(eq(replies.publicationId, at.publicationId), eq(replies.childId, at.childId)))
      .for('update')
      .limit(1)
    if (!reply) return 'gone'
    if (reply.looked) return 'looked'
    await tx.delete(replies).where(eq(replies.id, reply.id))
    const others = await tx
      .select({ answers: replies.answers })
      .from(replies)
      .where(eq(replies.publicationId, at.publicationId))
    const kept = new Set(others.flatMap((r) => r.answers.flatMap(mediaOf)))
    const mine = reply.answers.flatMap(mediaOf).filter((id) => !kept.has(id))
    if (mine.length)
      for (const table of [photos, recordings])
        await tx.delete(table).where(and(inArray(table.id, mine), eq(table.publicationId, at.publicationId)))
    return 'taken'
  })
}
/** The photos and recordings an answer names. */
export const mediaOf = (a: Answer): string[] => [...photosOf(a), ...(a.recordingId ? [a.recordingId] : [])]
export const photosOf = (a: Answer): string[] => [
  ...(a.photoId ? [a.photoId] : []),
  ...(a.more ?? []).map((m) => m.photoId),
]

/** The set of a lesson's tasks each of these children was given. */
export async function setsGiven(
  db: Db,
  lessonId: string,
  childIds: readonly string[],
): Promise<ReadonlyMap<string, TaskSet>> {
  if (!childIds.length) return new Map()
  const rows = await db
    .select({ childId: childSets.childId, level: childSets.level })
    .from(childSets)
    .where(and(eq(childSets.lessonId, lessonId), inArray(childSets.childId, [...childIds])))
  return new Map(rows.map((r) => [r.childId, r.level]))
}
/** Null lets the child choose. */
export async function giveSet(
  db: Db,
  lessonId: string,
  childId: string,
  level: TaskSet | null,
): Promise<void> {
  if (level === null)
    await db.delete(childSets).where(and(eq(childSets.lessonId, lessonId), eq(childSets.childId, childId)))
  else
    await db
      .insert(childSets)
      .values({ lessonId, childId, level })
      .onConflictDoUpdate({ target: [childSets.lessonId, childSets.childId], set: { level } })
}
/** The language a home chose, and the languages of its children as a teacher typed them. */
export async function languagesOfHome(
  db: Db,
  householdId: string,
): Promise<{ chosen: HomeLanguage | null; typed: string[] }> {
  const [home] = await db
    .select({ language: households.language })
    .from(households)
    .where(eq(households.id, householdId))
    .limit(1)
  if (home?.language) return { chosen: home.language, typed: [] }
  const kids = await db.select({ languages: children.languages }).from(children).where(livesIn(householdId))
  return { chosen: null, typed: kids.flatMap((k) => k.languages) }
}
export const saveLanguage = (db: Db, householdId: string, language: HomeLanguage) =>
  db.update(households).set({ language }).where(eq(households.id, householdId))

/** The homes of a class, each once, with the children they have in it. */
export async function homesOfClass(db: Db, classId: string) {
  const [room] = await db.select({ name: classes.name }).from(classes).where(eq(classes.id, classId)).limit(1)
  const rows = await db
    .select({
      householdId: households.id,
      settingId: households.settingId,
      name: households.name,
      youngerChild: households.youngerChild,
      linkVersion: households.linkVersion,
      child: children.given,
      open: sql<boolean>`exists (select 1 from home_links k where k.household_id = ${households.id} and k.revoked_at is null)`,
    })
    .from(children)
    .innerJoin(
      households,
      or(eq(households.id, children.householdId), eq(households.id, children.secondHouseholdId)),
    )
    .where(eq(children.classId, classId))
    .orderBy(asc(households.name), asc(children.given))
  const homes = new Map<string, Omit<(typeof rows)[number], 'child'> & { children: string[] }>()
  for (const { child, ...h } of rows) {
    const known = homes.get(h.householdId)
    if (known) known.children.push(child)
    else homes.set(h.householdId, { ...h, children: [child] })
  }
  return { className: room?.name ?? '', homes: [...homes.values()] }
}
/** Whether all of these photos and recordings belong to the household and the sending. */
export async function allTheirs(
  db: Db,
  media: { photos: readonly string[]; recordings: readonly string[] },
  at: { householdId: string; publicationId: string },
): Promise<boolean> {
  return (
    (await ownOnes(db, photos, media.photos, at)) === media.photos.length &&
    (await ownOnes(db, recordings, media.recordings, at)) === media.recordings.length
  )
}
