import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm'
import { emptyReading, type PhotoReading } from '@awlbox/core/contracts/reading'
import type { JudgementInput } from '@awlbox/core/contracts/reply'
import type { Db } from '../platform/db.ts'
import {
  children,
  classes,
  corrections,
  jobs,
  judgements,
  lessonRevisions,
  lessons,
  liveLessons,
  people,
  photos,
  publications,
  recordings,
  replies,
} from '../platform/schema.ts'
import { mediaOf } from '../send/store.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'

/** Replies of a lesson in the order they came, from the one after the reply given on. */
export const repliesOf = (
  db: Db,
  lessonId: string,
  { after, only, limit }: { after: string | null; only?: string; limit: number },
) =>
  db
    .select({
      id: replies.id,
      childId: children.id,
      child: children.name,
      answers: replies.answers,
      help: replies.help,
      way: replies.way,
      feeling: replies.feeling,
      couldNot: replies.couldNot,
      gave: replies.gave,
      chose: replies.chose,
      why: replies.why,
      words: replies.words,
      live: replies.live,
      receivedAt: replies.receivedAt,
      updatedAt: replies.updatedAt,
      publicationId: publications.id,
      pack: publications.pack,
      doc: lessonRevisions.doc,
    })
    .from(publications)
    .innerJoin(replies, eq(replies.publicationId, publications.id))
    .innerJoin(children, eq(children.id, replies.childId))
    .innerJoin(
      lessonRevisions,
      sql`${lessonRevisions.lessonId} = ${publications.lessonId} and ${lessonRevisions.revision} = ${publications.lessonRevision}`,
    )
    .where(
      and(
        eq(publications.lessonId, lessonId),
        ...(only === undefined ? [] : [eq(replies.id, only)]),
        ...(after === null
          ? []
          : [
              sql`(${replies.receivedAt}, ${replies.id}) > (select x.received_at, x.id from replies x where x.id = ${after})`,
            ]),
      ),
    )
    .orderBy(asc(replies.receivedAt), asc(replies.id))
    .limit(limit)

/** What readings of an older reader do not say yet. */
const asRead = (r: PhotoReading | null): PhotoReading | null => r && { ...emptyReading(r), ...r }
export async function photosIn(db: Db, ids: readonly string[]) {
  if (!ids.length) return []
  const rows = await db
    .select({
      id: photos.id,
      width: photos.width,
      height: photos.height,
      // What a person saw stands before what was read.
      reading: sql<PhotoReading | null>`coalesce((select c.reading from ${corrections} c where c.photo_id = "photos"."id" order by c.at desc limit 1), ${photos.reading})`,
      corrected: sql<boolean>`exists (select 1 from ${corrections} c where c.photo_id = "photos"."id")`,
      unread: photos.unread,
      faces: photos.faces,
    })
    .from(photos)
    .where(inArray(photos.id, [...ids]))
  return rows.map((p) => ({ ...p, reading: asRead(p.reading) }))
}

export const judgementsOn = (db: Db, replyIds: readonly string[]) =>
  replyIds.length
    ? db
        .select({
          id: judgements.id,
          replyId: judgements.replyId,
          level: judgements.level,
          help: judgements.help,
          rung: judgements.rung,
          note: judgements.note,
          at: judgements.at,
          by: people.name,
        })
        .from(judgements)
        .innerJoin(people, eq(people.id, judgements.byId))
        .where(inArray(judgements.replyId, [...replyIds]))
        .orderBy(desc(judgements.at))
    : Promise.resolve([])

export const recordingsIn = (db: Db, ids: readonly string[]) =>
  ids.length
    ? db
        .select({ id: recordings.id, kind: recordings.kind, seconds: recordings.seconds })
        .from(recordings)
        .where(inArray(recordings.id, [...ids]))
    : Promise.resolve([])
export async function recordingById(db: Db, id: string) {
  const [row] = await db.select().from(recordings).where(eq(recordings.id, id)).limit(1)
  return row
}
/** Children a photo or a recording was sent for. */
async function sentFor(db: Db, media: { id: string; publicationId: string | null }): Promise<string[]> {
  if (media.publicationId === null) return []
  const rows = await db
    .select({ childId: replies.childId, answers: replies.answers })
    .from(replies)
    .where(eq(replies.publicationId, media.publicationId))
  return rows.filter((r) => r.answers.some((a) => mediaOf(a).includes(media.id))).map((r) => r.childId)
}
/** Whether every child a photo or film was sent for is one whose grown-up no longer wants photos kept. */
export async function isWithheld(
  db: Db,
  photo: { id: string; publicationId: string | null },
): Promise<boolean> {
  const ids = await sentFor(db, photo)
  return ids.length > 0 && (await refusing(db, 'photos', ids)).size === ids.length
}
/** Whether no grown-up of those a voice was sent for agrees to it any more. */
export async function isSilenced(db: Db, sound: { id: string; publicationId: string }): Promise<boolean> {
  const ids = await sentFor(db, sound)
  return ids.length > 0 && (await agreeing(db, 'sound', ids)).size === 0
}
export async function photoById(db: Db, id: string) {
  const [row] = await db.select().from(photos).where(eq(photos.id, id)).limit(1)
  return row
}
export const saveReading = (
  db: Db,
  id: string,
  read: {
    reading: PhotoReading | null
    unread: string | null
    readerVersion: number
    faces?: number | null
  },
) => db.update(photos).set(read).where(eq(photos.id, id))
/** Photos with the lesson and setting they were sent for. */
export const photoOwners = (db: Db, ids: readonly string[]) =>
  ids.length
    ? db
        .select({ id: photos.id, lessonId: lessons.id, settingId: classes.settingId })
        .from(photos)
        .leftJoin(publications, eq(publications.id, photos.publicationId))
        .leftJoin(liveLessons, eq(liveLessons.id, photos.liveId))
        .innerJoin(lessons, sql`${lessons.id} = coalesce(${publications.lessonId}, ${liveLessons.lessonId})`)
        .innerJoin(classes, eq(classes.id, lessons.classId))
        .where(inArray(photos.id, [...ids]))
    : Promise.resolve([])
/** At most this many photos are asked for at once, so that new ones need not wait behind a year of old ones. */
const readAtOnce = 50
/** Photos not read by this reader and not waiting to be, newest first. */
export const unreadPhotos = async (db: Db, readerVersion: number): Promise<string[]> =>
  (
    await db
      .select({ id: photos.id })
      .from(photos)
      .where(
        and(
          sql`${photos.readerVersion} is distinct from ${readerVersion}`,
          sql`not exists (select 1 from ${jobs} j where j.kind = 'photo' and j.subject = ${photos.id}::text and j.status in ('queued', 'running'))`,
        ),
      )
      .orderBy(desc(photos.createdAt))
      .limit(readAtOnce)
  ).map((p) => p.id)

export async function judge(db: Db, replyId: string, byId: string, input: JudgementInput): Promise<string> {
  const [r] = await db
    .select({ childId: replies.childId, pack: publications.pack })
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .where(eq(replies.id, replyId))
    .limit(1)
  const [row] = await db
    .insert(judgements)
    .values({ replyId, childId: r!.childId, ideaId: r!.pack.ideaId, byId, ...input })
    .returning({ id: judgements.id })
  return row!.id
}

export async function classById(db: Db, id: string) {
  const [row] = await db
    .select({ id: classes.id, name: classes.name })
    .from(classes)
    .where(eq(classes.id, id))
    .limit(1)
  return row
}
