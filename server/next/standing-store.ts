import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm'
import type { Level } from '@awlbox/core/contracts/reply'
import type { Kept } from '@awlbox/core/judge/standing'
import { photosIn } from '../look/store.ts'
import type { Db } from '../platform/db.ts'
import {
  children,
  judgements,
  lessons,
  overrides,
  people,
  publications,
  replies,
  standings,
} from '../platform/schema.ts'

export interface ChildIdea {
  childId: string
  ideaId: string
}
/** Children of a class by name, with when they last replied. */
export const kidsOf = (db: Db, classId: string) =>
  db
    .select({
      id: children.id,
      name: children.name,
      last: sql<
        string | null
      >`(select max(r.received_at) from ${replies} r where r.child_id = "children"."id")`,
    })
    .from(children)
    .where(eq(children.classId, classId))
    .orderBy(asc(children.name))

/** What is kept of the children's standings; empty ones are to be worked out again. */
export const keptFor = (db: Db, childIds: readonly string[]) =>
  childIds.length
    ? db
        .select({
          childId: standings.childId,
          ideaId: standings.ideaId,
          kept: standings.kept,
          // Which state of the row this is: every change of its evidence makes another, also of one that is empty already.
          state: sql<string>`${standings}.xmin::text`,
        })
        .from(standings)
        .where(inArray(standings.childId, [...childIds]))
    : Promise.resolve([])
/** Keeps what was worked out, unless the evidence has changed since it was read: then the next look works it out again. */
export const saveKept = (db: Db, { childId, ideaId, state }: ChildIdea & { state: string }, kept: Kept) =>
  db
    .update(standings)
    .set({ kept })
    .where(
      and(
        eq(standings.childId, childId),
        eq(standings.ideaId, ideaId),
        sql`${standings}.xmin::text = ${state}`,
      ),
    )

/** Ideas homes of a class were sent something about, most recent last: silence on them is to be seen too. */
export const sentIdeas = async (db: Db, classId: string): Promise<string[]> =>
  (
    await db
      .select({ ideaId: sql<string>`${publications.pack}->>'ideaId'`, at: sql`max(${publications.sentAt})` })
      .from(publications)
      .innerJoin(lessons, eq(lessons.id, publications.lessonId))
      .where(eq(lessons.classId, classId))
      .groupBy(sql`1`)
      .orderBy(sql`2`)
  ).map((r) => r.ideaId)

/** Everything children have sent back on some ideas (on all where none are named) and how it was judged. */
export async function evidenceFor(db: Db, childIds: readonly string[], ideaIds: readonly string[] | null) {
  if (!childIds.length || ideaIds?.length === 0) return { sent: [], told: [], said: [], readings: new Map() }
  const kids = [...childIds]
  const [sent, told, said] = await Promise.all([
    db
      .select({
        id: replies.id,
        childId: replies.childId,
        answers: replies.answers,
        help: replies.help,
        way: replies.way,
        words: replies.words,
        live: replies.live,
        at: replies.receivedAt,
        pack: publications.pack,
        lessonId: publications.lessonId,
      })
      .from(replies)
      .innerJoin(publications, eq(publications.id, replies.publicationId))
      .where(
        and(
          inArray(replies.childId, kids),
          ideaIds ? inArray(sql`${publications.pack}->>'ideaId'`, [...ideaIds]) : undefined,
        ),
      )
      .orderBy(asc(replies.receivedAt)),
    db
      .select({
        id: judgements.id,
        replyId: judgements.replyId,
        childId: judgements.childId,
        ideaId: judgements.ideaId,
        level: judgements.level,
        help: judgements.help,
        rung: judgements.rung,
        note: judgements.note,
        at: judgements.at,
        by: people.name,
      })
      .from(judgements)
      .innerJoin(people, eq(people.id, judgements.byId))
      .where(
        and(
          inArray(judgements.childId, kids),
          ideaIds ? inArray(judgements.ideaId, [...ideaIds]) : undefined,
        ),
      )
      .orderBy(desc(judgements.at)),
    db
      .select({
        id: overrides.id,
        childId: overrides.childId,
        ideaId: overrides.ideaId,
        level: overrides.level,
        note: overrides.note,
        at: overrides.at,
        by: people.name,
      })
      .from(overrides)
      .innerJoin(people, eq(people.id, overrides.byId))
      .where(
        and(inArray(overrides.childId, kids), ideaIds ? inArray(overrides.ideaId, [...ideaIds]) : undefined),
      )
      .orderBy(desc(overrides.at)),
  ])
  const shown = await photosIn(
    db,
    sent.flatMap((r) => r.answers.flatMap((a) => (a.photoId ? [a.photoId] : []))),
  )
  return { sent, told, said, readings: new Map(shown.map((p) => [p.id, p.reading])) }
}

export async function addOverride(
  db: Db,
  o: ChildIdea & { level: Level; note: string; byId: string },
): Promise<string> {
  const [row] = await db.insert(overrides).values(o).returning({ id: overrides.id })
  return row!.id
}
