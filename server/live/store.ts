import { and, asc, desc, eq, gt, inArray, isNull, or, sql } from 'drizzle-orm'
import type { Done, LiveState } from '@awlbox/core/contracts/live'
import type { Pack } from '@awlbox/core/contracts/pack'
import type { Answer } from '@awlbox/core/contracts/reply'
import { livesIn } from '../platform/access.ts'
import type { Db } from '../platform/db.ts'
import {
  children,
  classes,
  households,
  homeLinks,
  lessons,
  liveActs,
  liveAnswers,
  liveLessons,
  livePresence,
  people,
  photos,
  publications,
  replies,
} from '../platform/schema.ts'

export const makeLive = async (db: Db, row: typeof liveLessons.$inferInsert): Promise<string> =>
  (await db.insert(liveLessons).values(row).returning({ id: liveLessons.id }))[0]!.id

const columns = {
  id: liveLessons.id,
  lessonId: liveLessons.lessonId,
  revision: liveLessons.revision,
  newest: lessons.revision,
  doc: liveLessons.doc,
  style: liveLessons.style,
  pace: liveLessons.pace,
  startsAt: liveLessons.startsAt,
  minutes: liveLessons.minutes,
  rehearsal: liveLessons.rehearsal,
  calledOffAt: liveLessons.calledOffAt,
  state: liveLessons.state,
  publicationId: liveLessons.publicationId,
  byId: liveLessons.byId,
  classId: classes.id,
  className: classes.name,
  settingId: classes.settingId,
}
const rowsOf = (db: Db) =>
  db
    .select(columns)
    .from(liveLessons)
    .innerJoin(lessons, eq(lessons.id, liveLessons.lessonId))
    .innerJoin(classes, eq(classes.id, lessons.classId))
export async function liveById(db: Db, id: string) {
  const [row] = await rowsOf(db).where(eq(liveLessons.id, id)).limit(1)
  return row
}
export type LiveRow = NonNullable<Awaited<ReturnType<typeof liveById>>>

/** What of a live lesson changes while it is on: all that has to be read again to know how it stands. */
export async function liveNow(db: Db, id: string) {
  const [row] = await db
    .select({
      revision: liveLessons.revision,
      startsAt: liveLessons.startsAt,
      minutes: liveLessons.minutes,
      calledOffAt: liveLessons.calledOffAt,
      state: liveLessons.state,
      publicationId: liveLessons.publicationId,
    })
    .from(liveLessons)
    .where(eq(liveLessons.id, id))
    .limit(1)
  return row
}

const phaseOf = sql<LiveState['phase']>`${liveLessons.state}->>'phase'`
export const livesOf = (db: Db, lessonId: string) =>
  db
    .select({
      id: liveLessons.id,
      startsAt: liveLessons.startsAt,
      minutes: liveLessons.minutes,
      rehearsal: liveLessons.rehearsal,
      calledOff: sql<boolean>`${liveLessons.calledOffAt} is not null`,
      phase: phaseOf,
      rounds: sql<number>`(select count(*)::int from jsonb_array_elements(${liveLessons.state}->'rounds') r where not (r->>'undone')::boolean)`,
      publicationId: liveLessons.publicationId,
      by: people.name,
      came: sql<number>`(select count(distinct p.household_id)::int from live_presence p where p.live_id = ${liveLessons.id})`,
    })
    .from(liveLessons)
    .innerJoin(people, eq(people.id, liveLessons.byId))
    .where(eq(liveLessons.lessonId, lessonId))
    .orderBy(desc(liveLessons.startsAt))
    .limit(50)

type LiveNews = 'live' | 'live answers' | 'live came'
const tell = (kind: LiveNews, row: { settingId: string; lessonId: string; id: string }) =>
  sql`pg_notify('awlbox', ${JSON.stringify({ kind, setting: row.settingId, lesson: row.lessonId, live: row.id })})`

export async function changeLive(
  db: Db,
  row: LiveRow,
  change: Partial<typeof liveLessons.$inferInsert>,
): Promise<void> {
  if (!Object.keys(change).length) return
  await db.update(liveLessons).set(change).where(eq(liveLessons.id, row.id))
  await tellOf(db, 'live', row)
}

/**
 * One act more, in one go: the lesson is held, the act is worked out on what it is then, and both are kept. `finish`
 * does what belongs to it in the same breath.
 */
export const doAct = (
  db: Db,
  id: string,
  done: Done,
  {
    work,
    finish,
  }: {
    work: (row: LiveRow) => LiveState
    finish?: ((tx: Db, row: LiveRow, state: LiveState) => Promise<void>) | undefined
  },
): Promise<LiveState | null> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    await tx.select({ id: liveLessons.id }).from(liveLessons).where(eq(liveLessons.id, id)).for('update')
    const row = await liveById(tx, id)
    if (!row) return null
    const state = work(row)
    if (state.seq !== row.state.seq) {
      await tx.update(liveLessons).set({ state }).where(eq(liveLessons.id, id))
      await tx
        .insert(liveActs)
        .values({ liveId: id, seq: state.seq, act: done.act, byId: done.by.id, at: new Date(done.at) })
      await finish?.(tx, row, state)
      await tellOf(tx, 'live', row)
    }
    return state
  })
export interface NewAnswer {
  roundId: string
  childId: string
  householdId: string
  key: string
  answer: Answer
  late: boolean
}
/** Keeps what a child gave. In time, the newest of its devices stands; late, what was there first does. */
export async function saveAnswer(
  db: Db,
  row: LiveRow,
  a: NewAnswer,
): Promise<{ stands: boolean; late: boolean }> {
  const { rows } = await db.execute<{ key: string }>(sql`
    insert into live_answers (live_id, round_id, child_id, household_id, key, answer, late)
      values (${row.id}, ${a.roundId}, ${a.childId}, ${a.householdId}, ${a.key}, ${JSON.stringify(a.answer)}::jsonb, ${a.late})
      on conflict (live_id, round_id, child_id) do update
        set household_id = excluded.household_id, key = excluded.key, answer = excluded.answer, at = now()
        where not excluded.late and live_answers.key <> excluded.key
      returning key`)
  if (rows.length) return { stands: true, late: a.late }
  const [there] = await db
    .select({ key: liveAnswers.key, late: liveAnswers.late })
    .from(liveAnswers)
    .where(
      and(
        eq(liveAnswers.liveId, row.id),
        eq(liveAnswers.roundId, a.roundId),
        eq(liveAnswers.childId, a.childId),
      ),
    )
    .limit(1)
  // Sent twice it is the same, and as late as it was.
  return there?.key === a.key ? { stands: true, late: there.late } : { stands: false, late: a.late }
}
export const answersIn = (db: Db, liveId: string, roundIds: readonly string[]) =>
  roundIds.length
    ? db
        .select({
          roundId: liveAnswers.roundId,
          childId: liveAnswers.childId,
          answer: liveAnswers.answer,
          late: liveAnswers.late,
          at: liveAnswers.at,
        })
        .from(liveAnswers)
        .where(and(eq(liveAnswers.liveId, liveId), inArray(liveAnswers.roundId, [...roundIds])))
        .orderBy(asc(liveAnswers.at))
    : Promise.resolve([])
export const answersOfHome = (db: Db, liveId: string, householdId: string) =>
  db
    .select({
      roundId: liveAnswers.roundId,
      childId: liveAnswers.childId,
      answer: liveAnswers.answer,
      late: liveAnswers.late,
    })
    .from(liveAnswers)
    .innerJoin(children, eq(children.id, liveAnswers.childId))
    .where(and(eq(liveAnswers.liveId, liveId), livesIn(householdId)))
    .orderBy(desc(liveAnswers.at))
    .limit(60)

/** Seconds after which a page nothing was heard of is away. */
const hereFor = 45
export const childrenAt = (db: Db, row: Pick<LiveRow, 'id' | 'classId'>) =>
  db
    .select({
      id: children.id,
      name: children.name,
      home: households.name,
      householdId: households.id,
      here: sql<boolean>`exists (select 1 from live_presence p where p.live_id = ${row.id} and p.household_id in (${children.householdId}, ${children.secondHouseholdId})
        and p.left_at is null and p.seen_at > now() - make_interval(secs => ${hereFor}))`,
      came: sql<boolean>`exists (select 1 from live_presence p where p.live_id = ${row.id} and p.household_id in (${children.householdId}, ${children.secondHouseholdId}))`,
    })
    .from(children)
    .innerJoin(households, eq(households.id, children.householdId))
    .where(eq(children.classId, row.classId))
    .orderBy(asc(children.name))
/** Seconds each household was there, over all of its devices the longest. */
export const attendanceOf = async (db: Db, liveId: string): Promise<Map<string, number>> =>
  new Map(
    (
      await db.execute<{ id: string; seconds: number }>(
        sql`select household_id as id, max(seconds + extract(epoch from (coalesce(left_at, least(now(), seen_at + interval '20 seconds')) - came_at)))::float as seconds
          from live_presence where live_id = ${liveId} group by household_id`,
      )
    ).rows.map((r) => [r.id, Math.max(0, Number(r.seconds))]),
  )

/** Children of a class who live in a home. */
export const childrenOfHome = (db: Db, householdId: string, classId: string) =>
  db
    .select({ id: children.id, name: children.given })
    .from(children)
    .where(and(livesIn(householdId), eq(children.classId, classId)))
    .orderBy(asc(children.given))
/** Live lessons of a home that are on or to come, soonest first; rehearsals are nobody's. */
export const livesFor = (db: Db, householdId: string) =>
  db
    .selectDistinct({
      id: liveLessons.id,
      title: sql<string>`${liveLessons.doc}->>'title'`,
      className: classes.name,
      startsAt: liveLessons.startsAt,
      minutes: liveLessons.minutes,
      phase: phaseOf,
    })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .innerJoin(lessons, eq(lessons.classId, classes.id))
    .innerJoin(liveLessons, eq(liveLessons.lessonId, lessons.id))
    .where(
      and(
        livesIn(householdId),
        eq(liveLessons.rehearsal, false),
        isNull(liveLessons.calledOffAt),
        sql`${phaseOf} <> 'over'`,
        // One that was forgotten is not still to come a day later.
        gt(liveLessons.startsAt, sql`now() - interval '6 hours'`),
      ),
    )
    .orderBy(asc(liveLessons.startsAt))
    .limit(5)

/** A page of a home opened, or was open all the while; false where it had been known to be there. */
export const cameIn = (db: Db, at: { liveId: string; householdId: string; device: string }) =>
  db
    .insert(livePresence)
    .values(at)
    .onConflictDoUpdate({
      target: [livePresence.liveId, livePresence.householdId, livePresence.device],
      set: {
        seconds: sql`live_presence.seconds + case when live_presence.left_at is null then extract(epoch from least(now(), live_presence.seen_at + interval '20 seconds') - live_presence.came_at) else extract(epoch from live_presence.left_at - live_presence.came_at) end`,
        cameAt: sql`now()`,
        seenAt: sql`now()`,
        leftAt: null,
      },
    })
export const wentOut = (db: Db, at: { liveId: string; householdId: string; device: string }) =>
  db
    .update(livePresence)
    .set({ leftAt: sql`now()` })
    .where(
      and(
        eq(livePresence.liveId, at.liveId),
        eq(livePresence.householdId, at.householdId),
        eq(livePresence.device, at.device),
      ),
    )
/** Pages of this process that are open still. */
export const stillIn = async (
  db: Db,
  liveId: string,
  pages: readonly { householdId: string; device: string }[],
): Promise<void> => {
  if (!pages.length) return
  await db.execute(
    sql`update live_presence p set seen_at = now() from jsonb_to_recordset(${JSON.stringify(
      pages.map((x) => ({ h: x.householdId, d: x.device })),
    )}::jsonb) as o(h uuid, d text) where p.live_id = ${liveId} and p.household_id = o.h and p.device = o.d and p.left_at is null`,
  )
}
/** Tells every process that it moved on, that somebody came or went, or that answers came. */
export const tellOf = (db: Db, what: LiveNews, row: Pick<LiveRow, 'id' | 'settingId' | 'lessonId'>) =>
  db.execute(sql`select ${tell(what, row)}`)
/** Households whose link was ended: their pages are to close. */
export const closedLinks = async (db: Db, householdIds: readonly string[]): Promise<Set<string>> => {
  if (!householdIds.length) return new Set()
  const open = await db
    .select({ id: homeLinks.householdId })
    .from(homeLinks)
    .where(and(inArray(homeLinks.householdId, [...householdIds]), isNull(homeLinks.revokedAt)))
  const good = new Set(open.map((r) => r.id))
  return new Set(householdIds.filter((id) => !good.has(id)))
}

/** Homes of a lesson's class whose link was ended and not made anew, by name. */
export const homesWithout = async (db: Db, lessonId: string): Promise<string[]> =>
  (
    await db
      .selectDistinct({ name: households.name })
      .from(lessons)
      .innerJoin(children, eq(children.classId, lessons.classId))
      .innerJoin(
        households,
        or(eq(households.id, children.householdId), eq(households.id, children.secondHouseholdId)),
      )
      .where(
        and(
          eq(lessons.id, lessonId),
          sql`exists (select 1 from home_links k where k.household_id = ${households.id})`,
          sql`not exists (select 1 from home_links k where k.household_id = ${households.id} and k.revoked_at is null)`,
        ),
      )
      .orderBy(asc(households.name))
  ).map((r) => r.name)

/** Sendings before this one about the same idea to the same class, with the answers that came: what was said before. */
export const earlierReplies = (db: Db, row: Pick<LiveRow, 'classId' | 'doc'>) =>
  db
    .select({
      at: publications.sentAt,
      pack: publications.pack,
      publicationId: publications.id,
      answers: replies.answers,
    })
    .from(publications)
    .innerJoin(lessons, eq(lessons.id, publications.lessonId))
    .innerJoin(replies, eq(replies.publicationId, publications.id))
    .where(and(eq(lessons.classId, row.classId), sql`${publications.pack}->>'ideaId' = ${row.doc.ideaId}`))
    .orderBy(desc(publications.sentAt))
    .limit(400)

/** Makes of a lesson that is over what is looked at: a sending with its rounds, and a reply of each child that gave something. */
export async function leaveBehind(
  tx: Db,
  row: LiveRow,
  left: { pack: Pack; byId: string; at: Date; replies: readonly { childId: string; answers: Answer[] }[] },
): Promise<string> {
  const [sent] = await tx
    .insert(publications)
    .values({
      lessonId: row.lessonId,
      renderId: null,
      lessonRevision: row.revision,
      pack: left.pack,
      byId: left.byId,
      sentAt: left.at,
    })
    .returning({ id: publications.id })
  const publicationId = sent!.id
  await tx.update(liveLessons).set({ publicationId }).where(eq(liveLessons.id, row.id))
  await tx.update(photos).set({ publicationId }).where(eq(photos.liveId, row.id))
  if (left.replies.length)
    await tx
      .insert(replies)
      .values(
        left.replies.map((r) => ({
          publicationId,
          childId: r.childId,
          key: sql`gen_random_uuid()`,
          answers: r.answers,
          live: true,
          receivedAt: left.at,
          updatedAt: left.at,
        })),
      )
      .onConflictDoNothing()
  return publicationId
}
/** Adds a late answer to a child's reply, where nobody has looked at it yet. */
export const addLate = (
  db: Db,
  publicationId: string,
  childId: string,
  answers: Answer[],
): Promise<boolean> =>
  db.transaction(async (tx) => {
    const [there] = await tx
      .select({
        id: replies.id,
        answers: replies.answers,
        looked: sql<boolean>`exists (select 1 from judgements j where j.reply_id = ${replies.id})`,
      })
      .from(replies)
      .where(and(eq(replies.publicationId, publicationId), eq(replies.childId, childId)))
      .for('update')
      .limit(1)
    if (!there) {
      await tx
        .insert(replies)
        .values({ publicationId, childId, key: sql`gen_random_uuid()`, answers, live: true })
        .onConflictDoNothing()
      return true
    }
    const fresh = answers.filter((a) => !there.answers.some((b) => b.taskId === a.taskId))
    if (there.looked || !fresh.length) return false
    await tx
      .update(replies)
      .set({ answers: [...there.answers, ...fresh], updatedAt: new Date() })
      .where(eq(replies.id, there.id))
    return true
  })
export const answersOfChild = (db: Db, liveId: string, childId: string) =>
  db
    .select({ roundId: liveAnswers.roundId, answer: liveAnswers.answer })
    .from(liveAnswers)
    .where(and(eq(liveAnswers.liveId, liveId), eq(liveAnswers.childId, childId)))

/** A photo of this live lesson, from whichever home. */
export async function livePhotoById(db: Db, liveId: string, photoId: string) {
  const [row] = await db
    .select({ id: photos.id, small: photos.small, householdId: photos.householdId })
    .from(photos)
    .where(and(eq(photos.id, photoId), eq(photos.liveId, liveId)))
    .limit(1)
  return row
}

/** Rehearsals a day old go whole; lessons that began and were never ended are given, to be ended. */
export async function tidyLives(
  db: Db,
): Promise<{ rehearsals: number; open: { id: string; byId: string }[] }> {
  const gone = await db
    .delete(liveLessons)
    .where(and(eq(liveLessons.rehearsal, true), sql`${liveLessons.createdAt} < now() - interval '1 day'`))
    .returning({ id: liveLessons.id })
  const open = await db
    .select({ id: liveLessons.id, byId: liveLessons.byId })
    .from(liveLessons)
    .where(and(sql`${phaseOf} = 'on'`, sql`${liveLessons.startsAt} < now() - interval '6 hours'`))
    .limit(100)
  return { rehearsals: gone.length, open }
}
