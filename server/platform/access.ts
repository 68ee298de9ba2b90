import { and, eq, or, type SQL, sql } from 'drizzle-orm'
import type { Home, Person } from './actor.ts'
import type { Db } from './db.ts'
import { forbidden, notFound } from './problem.ts'
import {
  children,
  classes,
  households,
  jobs,
  lessons,
  liveLessons,
  photos,
  publications,
  recordings,
  renders,
  replies,
  takes,
} from './schema.ts'

/**
 * One authorisation function a resource. Somebody else's setting is never told that a thing exists (404).
 * Within the setting everyone may read and judge; only the class's teacher and the owner may change or send.
 */
export type Right = 'read' | 'judge' | 'change'

function decide(
  person: Person,
  row: { settingId: string; theirs: boolean } | undefined,
  right: Right,
  what: string,
): void {
  if (!row || row.settingId !== person.settingId) throw notFound(what)
  if (right === 'change' && person.role !== 'owner' && !row.theirs)
    throw forbidden(
      'Only the teacher of this class or the owner of the setting can change this. You can look and judge.',
    )
}
/** Whether a class is somebody's: as its teacher, or covering it today by the setting's own clock. */
export const teaches = (personId: string): SQL<boolean> =>
  sql<boolean>`("classes"."teacher_id" = ${personId} or exists (
    select 1 from class_covers v join settings z on z.id = "classes"."setting_id"
    where v.class_id = "classes"."id" and v.person_id = ${personId}
      and (now() at time zone z.time_zone)::date between v.from_day and v.until_day))`
const whose = (person: Person) => ({ settingId: classes.settingId, theirs: teaches(person.id) })
/** Whether a child lives in a home, or half the time. */
export const livesIn = (householdId: string) =>
  or(eq(children.householdId, householdId), eq(children.secondHouseholdId, householdId))!

export async function mayClass(db: Db, person: Person, classId: string, right: Right): Promise<void> {
  const [row] = await db.select(whose(person)).from(classes).where(eq(classes.id, classId)).limit(1)
  decide(person, row, right, 'This class')
}
export async function mayLesson(db: Db, person: Person, lessonId: string, right: Right): Promise<void> {
  const [row] = await db
    .select(whose(person))
    .from(lessons)
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(eq(lessons.id, lessonId))
    .limit(1)
  decide(person, row, right, 'This lesson')
}
/** Whoever has the lesson has what belongs to it. */
const mayOfLesson =
  (
    table: typeof takes | typeof renders | typeof liveLessons | typeof publications | typeof jobs,
    what: string,
  ) =>
  async (db: Db, person: Person, id: string, right: Right): Promise<void> => {
    const [row] = await db
      .select(whose(person))
      .from(table as typeof takes)
      .innerJoin(lessons, eq(lessons.id, table.lessonId))
      .innerJoin(classes, eq(classes.id, lessons.classId))
      .where(eq(table.id, id))
      .limit(1)
    decide(person, row, right, what)
  }
export const mayTake = mayOfLesson(takes, 'This take')
export const mayRender = mayOfLesson(renders, 'This film')
export const mayLive = mayOfLesson(liveLessons, 'This live lesson')
export const mayPublication = mayOfLesson(publications, 'This sending')
export const mayJob = mayOfLesson(jobs, 'This work')
export async function mayReply(db: Db, person: Person, replyId: string, right: Right): Promise<void> {
  const [row] = await db
    .select(whose(person))
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(classes, eq(classes.id, lessons.classId))
    .where(eq(replies.id, replyId))
    .limit(1)
  decide(person, row, right, 'This reply')
}
const maySent =
  (table: typeof photos | typeof recordings, what: string) =>
  async (db: Db, person: Person, id: string, right: Right): Promise<void> => {
    const [row] = await db
      .select(whose(person))
      .from(table)
      .innerJoin(publications, eq(publications.id, table.publicationId))
      .innerJoin(lessons, eq(lessons.id, publications.lessonId))
      .innerJoin(classes, eq(classes.id, lessons.classId))
      .where(eq(table.id, id))
      .limit(1)
    decide(person, row, right, what)
  }
export const mayPhoto = maySent(photos, 'This photo')
export const mayRecording = maySent(recordings, 'This recording')
/** Home links are changed by the owner or by a teacher with a child of that home in class. */
export async function mayHousehold(db: Db, person: Person, householdId: string, right: Right): Promise<void> {
  const [home] = await db
    .select({ settingId: households.settingId })
    .from(households)
    .where(eq(households.id, householdId))
    .limit(1)
  const [taught] = await db
    .select({ id: children.id })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .where(and(livesIn(householdId), teaches(person.id)))
    .limit(1)
  decide(person, home && { settingId: home.settingId, theirs: taught !== undefined }, right, 'This home')
}
/** A child: of its class, or, once it has left, of the one it left. */
export async function mayChild(db: Db, person: Person, childId: string, right: Right): Promise<void> {
  const [row] = await db
    .select(whose(person))
    .from(children)
    .innerJoin(classes, sql`${classes.id} = coalesce(${children.classId}, ${children.leftFrom})`)
    .where(eq(children.id, childId))
    .limit(1)
  decide(person, row, right, 'This child')
}
/** What only owners do. */
export const owns = (person: Person, what: string): void => {
  if (person.role !== 'owner') throw forbidden(`Only an owner of the setting can ${what}.`)
}

/** Whether a home may open a publication: a child of theirs is in its class. */
export async function homeMayOpen(db: Db, home: Home, publicationId: string): Promise<void> {
  const [row] = await db
    .select({ id: publications.id })
    .from(publications)
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(children, eq(children.classId, lessons.classId))
    .where(
      and(
        eq(publications.id, publicationId),
        livesIn(home.householdId),
        // What waits for its hour is not there yet.
        sql`${publications.sentAt} <= now()`,
      ),
    )
    .limit(1)
  if (!row) throw notFound('This lesson')
}
export async function homeHasChild(
  db: Db,
  home: Home,
  publicationId: string,
  childId: string,
): Promise<void> {
  const [row] = await db
    .select({ id: children.id })
    .from(children)
    .innerJoin(lessons, eq(lessons.classId, children.classId))
    .innerJoin(publications, eq(publications.lessonId, lessons.id))
    .where(and(eq(children.id, childId), livesIn(home.householdId), eq(publications.id, publicationId)))
    .limit(1)
  if (!row) throw notFound('This child')
}
