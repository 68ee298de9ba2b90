import { and, asc, desc, eq, inArray, ne, sql } from 'drizzle-orm'
import type { Help, Level, Rung } from '@awlbox/core/contracts/reply'
import type { Db } from '../platform/db.ts'
import {
  children,
  comparisons,
  judgements,
  people,
  publications,
  replies,
  secondJudgements,
  secondRounds,
} from '../platform/schema.ts'

/** Judged replies of a lesson with the newest judgement of each. */
export const judgedReplies = (db: Db, lessonId: string) =>
  db
    .selectDistinctOn([replies.id], {
      id: replies.id,
      level: judgements.level,
      byId: judgements.byId,
      child: children.name,
    })
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .innerJoin(children, eq(children.id, replies.childId))
    .innerJoin(judgements, eq(judgements.replyId, replies.id))
    .where(eq(publications.lessonId, lessonId))
    .orderBy(replies.id, desc(judgements.at))

export const roundsOf = (db: Db, lessonId: string) =>
  db.select().from(secondRounds).where(eq(secondRounds.lessonId, lessonId)).orderBy(desc(secondRounds.at))
export async function roundById(db: Db, id: string) {
  const [row] = await db.select().from(secondRounds).where(eq(secondRounds.id, id)).limit(1)
  return row
}
export const secondOf = (db: Db, roundIds: readonly string[]) =>
  roundIds.length
    ? db
        .select()
        .from(secondJudgements)
        .where(inArray(secondJudgements.roundId, [...roundIds]))
    : Promise.resolve([])
export const stillThere = async (db: Db, ids: readonly string[]): Promise<ReadonlySet<string>> =>
  new Set(
    (ids.length
      ? await db
          .select({ id: replies.id })
          .from(replies)
          .where(inArray(replies.id, [...ids]))
      : []
    ).map((r) => r.id),
  )
/** What stood as the first judge's word when a round was drawn: the newest judgement before it. */
export const firstOf = (db: Db, replyIds: readonly string[], before: Date) =>
  replyIds.length
    ? db
        .selectDistinctOn([judgements.replyId], {
          replyId: judgements.replyId,
          level: judgements.level,
          help: judgements.help,
          rung: judgements.rung,
          child: children.name,
          childId: judgements.childId,
          ideaId: judgements.ideaId,
        })
        .from(judgements)
        .innerJoin(children, eq(children.id, judgements.childId))
        .where(
          and(inArray(judgements.replyId, [...replyIds]), sql`${judgements.at} <= ${before.toISOString()}`),
        )
        .orderBy(judgements.replyId, desc(judgements.at))
    : Promise.resolve([])

export async function addRound(
  db: Db,
  r: { lessonId: string; firstId: string; secondId: string; replyIds: string[] },
): Promise<string> {
  const [row] = await db.insert(secondRounds).values(r).returning({ id: secondRounds.id })
  return row!.id
}
/** Once a reply and round; false where it was there already. */
export async function addSecond(
  db: Db,
  j: { roundId: string; replyId: string; level: Level; help: Help; rung: Rung },
): Promise<boolean> {
  return (
    (
      await db
        .insert(secondJudgements)
        .values(j)
        .onConflictDoNothing()
        .returning({ r: secondJudgements.replyId })
    ).length > 0
  )
}
export const settleSecond = (
  db: Db,
  s: { roundId: string; replyId: string; settled: Level; settledWords: string; settledById: string },
) =>
  db
    .update(secondJudgements)
    .set({ settled: s.settled, settledWords: s.settledWords, settledById: s.settledById })
    .where(and(eq(secondJudgements.roundId, s.roundId), eq(secondJudgements.replyId, s.replyId)))
/** People of a setting other than one, by name. */
export const colleaguesOf = (db: Db, settingId: string, not: string) =>
  db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(and(eq(people.settingId, settingId), ne(people.id, not)))
    .orderBy(asc(people.name))
export const namesOf = async (db: Db, ids: readonly string[]): Promise<Map<string, string>> =>
  new Map(
    (ids.length
      ? await db
          .select({ id: people.id, name: people.name })
          .from(people)
          .where(inArray(people.id, [...ids]))
      : []
    ).map((p) => [p.id, p.name]),
  )

export const repliesToCompare = (db: Db, lessonId: string) =>
  db
    .select({ id: replies.id })
    .from(replies)
    .innerJoin(publications, eq(publications.id, replies.publicationId))
    .where(and(eq(publications.lessonId, lessonId), eq(replies.couldNot, false)))
    .orderBy(asc(replies.receivedAt))
export const comparedIn = (db: Db, lessonId: string) =>
  db.select().from(comparisons).where(eq(comparisons.lessonId, lessonId)).orderBy(asc(comparisons.at))
export const addComparison = (
  db: Db,
  c: { lessonId: string; betterId: string; otherId: string; same: boolean; byId: string },
) => db.insert(comparisons).values(c)
