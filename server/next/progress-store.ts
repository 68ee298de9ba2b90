import { asc, desc, eq, inArray, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import {
  children,
  classes,
  feedback,
  judgements,
  householdKits,
  lessons,
  people,
  publications,
  replies,
} from '../platform/schema.ts'

export async function childWithClass(db: Db, id: string) {
  const [row] = await db
    .select({
      id: children.id,
      name: children.name,
      classId: children.classId,
      className: classes.name,
      householdId: children.householdId,
    })
    .from(children)
    .leftJoin(classes, eq(classes.id, children.classId))
    .where(eq(children.id, id))
    .limit(1)
  return row
}
/** A child's replies, newest first, with the newest judgement of each and what was written back. */
export const repliesOfChild = (db: Db, childId: string, most: number) =>
  db
    .select({
      id: replies.id,
      lessonId: publications.lessonId,
      pack: publications.pack,
      at: replies.receivedAt,
      answers: replies.answers,
      help: replies.help,
      way: replies.way,
      feeling: replies.feeling,
      couldNot: replies.couldNot,
      gave: replies.gave,
      chose: replies.chose,
      words: replies.words,
      feedback: sql<
        string | null
      >`(select f.body from ${feedback} f where f.reply_id = ${replies.id} and f.sent_at is not null)`,
    })
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .where(eq(replies.childId, childId))
    .orderBy(desc(replies.receivedAt))
    .limit(most)
export const newestJudgements = (db: Db, replyIds: readonly string[]) =>
  replyIds.length
    ? db
        .selectDistinctOn([judgements.replyId], {
          replyId: judgements.replyId,
          level: judgements.level,
          help: judgements.help,
          rung: judgements.rung,
          note: judgements.note,
        })
        .from(judgements)
        .where(inArray(judgements.replyId, [...replyIds]))
        .orderBy(judgements.replyId, desc(judgements.at))
    : Promise.resolve([])

/** Replies of a class by what lies outside the child. */
export const circumstancesOf = (db: Db, classId: string) =>
  db
    .select({
      help: replies.help,
      printer: householdKits.canPrint,
      late: sql<boolean>`coalesce(${publications.due} < ${replies.receivedAt}::date, ${replies.receivedAt} > ${publications.sentAt} + interval '7 days')`,
      languages: children.languages,
    })
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(children, eq(children.id, replies.childId))
    .leftJoin(householdKits, eq(householdKits.householdId, children.householdId))
    .where(eq(children.classId, classId))
    .limit(20000)

/** Every judgement of a class, oldest first. */
export const judgementsOfClass = (db: Db, classId: string) =>
  db
    .select({
      id: judgements.id,
      childId: judgements.childId,
      child: children.name,
      ideaId: judgements.ideaId,
      level: judgements.level,
      help: judgements.help,
      rung: judgements.rung,
      note: judgements.note,
      at: judgements.at,
      by: people.name,
      lesson: sql<string>`${publications.pack}->>'title'`,
    })
    .from(judgements)
    .innerJoin(children, eq(children.id, judgements.childId))
    .innerJoin(people, eq(people.id, judgements.byId))
    .innerJoin(replies, eq(replies.id, judgements.replyId))
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .where(eq(children.classId, classId))
    .orderBy(asc(judgements.at))
