import { asc, countDistinct, eq, inArray, max, sql } from 'drizzle-orm'
import { proposalsOf } from '@awlbox/core/cut/propose'
import { readCut } from '@awlbox/core/cut/upgrade'
import type { LessonFacts } from '@awlbox/core/next/minutes'
import { type Db, moment } from '../platform/db.ts'
import {
  cutLists,
  hearings,
  judgements,
  lessons,
  liveLessons,
  publications,
  renders,
  replies,
  takes,
} from '../platform/schema.ts'

/** What the thread and the shelf say of each lesson, computed from the records themselves. */
export async function lessonFacts(
  db: Db,
  ids: readonly string[],
): Promise<
  Map<
    string,
    Omit<LessonFacts, 'liveAt'> & {
      lastFilmSeconds: number | null
      sentAt: Date | null
      oldestWaiting: Date | null
      liveAt: Date | null
      liveGiven: number
    }
  >
> {
  if (!ids.length) return new Map()
  const list = [...ids]
  const [docs, filmed, cuts, heard, rendered, sent, waiting, lives] = await Promise.all([
    db
      .select({
        id: lessons.id,
        findings: lessons.findings,
        filmSeconds: lessons.filmSeconds,
        segments: sql<
          { id: string }[]
        >`(select coalesce(jsonb_agg(jsonb_build_object('id', s->>'id')), '[]') from jsonb_array_elements(${lessons.doc}->'segments') s where s->>'audience' = 'children' and s->>'unfilmed' is distinct from 'true')`,
      })
      .from(lessons)
      .where(inArray(lessons.id, list)),
    db
      .selectDistinct({ lessonId: takes.lessonId, segmentId: takes.segmentId })
      .from(takes)
      .where(sql`${inArray(takes.lessonId, list)} and ${takes.status} = 'ready'`),
    db
      .select({ id: cutLists.lessonId, doc: cutLists.doc })
      .from(cutLists)
      .where(inArray(cutLists.lessonId, list)),
    db
      .select({
        lessonId: takes.lessonId,
        takeId: takes.id,
        segmentId: takes.segmentId,
        drops: sql<number>`jsonb_array_length(${hearings.hearing}->'drops')`,
      })
      .from(hearings)
      .innerJoin(takes, eq(takes.id, hearings.takeId))
      .where(inArray(takes.lessonId, list))
      .orderBy(asc(takes.number)),
    db
      .select({
        id: renders.lessonId,
        at: max(renders.createdAt),
        seconds: sql<number>`(array_agg(${renders.seconds} order by ${renders.createdAt} desc))[1]`,
      })
      .from(renders)
      .where(inArray(renders.lessonId, list))
      .groupBy(renders.lessonId),
    db
      .select({
        id: publications.lessonId,
        at: max(publications.sentAt),
        replies: countDistinct(replies.id),
        looked: countDistinct(judgements.replyId),
      })
      .from(publications)
      .leftJoin(replies, eq(replies.publicationId, publications.id))
      .leftJoin(judgements, eq(judgements.replyId, replies.id))
      .where(inArray(publications.lessonId, list))
      .groupBy(publications.lessonId),
    db
      .select({
        id: publications.lessonId,
        oldest: sql<Date | null>`min(${replies.receivedAt}) filter (where ${judgements.id} is null)`.mapWith(
          moment,
        ),
      })
      .from(publications)
      .innerJoin(replies, eq(replies.publicationId, publications.id))
      .leftJoin(judgements, eq(judgements.replyId, replies.id))
      .where(inArray(publications.lessonId, list))
      .groupBy(publications.lessonId),
    db
      .select({
        id: liveLessons.lessonId,
        next: sql<Date | null>`min(${liveLessons.startsAt}) filter (where ${liveLessons.state}->>'phase' <> 'over' and ${liveLessons.startsAt} > now() - interval '6 hours')`.mapWith(
          moment,
        ),
        given: sql<number>`(count(*) filter (where ${liveLessons.state}->>'phase' = 'over'))::int`,
      })
      .from(liveLessons)
      .where(
        sql`${inArray(liveLessons.lessonId, list)} and not ${liveLessons.rehearsal} and ${liveLessons.calledOffAt} is null`,
      )
      .groupBy(liveLessons.lessonId),
  ])
  return new Map(
    docs.map((d) => {
      const mine = new Set(filmed.filter((f) => f.lessonId === d.id).map((f) => f.segmentId))
      const cut = cuts.find((c) => c.id === d.id)
      const undecided = cut
        ? proposalsOf(readCut(cut.doc, () => null)).filter((w) => w.state === 'open' && w.act === 'drop')
            .length
        : heard.filter((h) => h.lessonId === d.id).reduce((n, h) => n + Number(h.drops), 0)
      const film = rendered.find((r) => r.id === d.id)
      const pub = sent.find((x) => x.id === d.id)
      const live = lives.find((x) => x.id === d.id)
      return [
        d.id,
        {
          filmSeconds: d.filmSeconds,
          segments: d.segments.length,
          filmed: d.segments.filter((x) => mine.has(x.id)).length,
          findings: d.findings,
          proposedDrops: undecided,
          rendered: film !== undefined,
          sent: pub !== undefined,
          replies: Number(pub?.replies ?? 0),
          looked: Number(pub?.looked ?? 0),
          lastFilmSeconds: film ? Number(film.seconds) : null,
          sentAt: pub?.at ?? null,
          oldestWaiting: waiting.find((w) => w.id === d.id)?.oldest ?? null,
          liveAt: live?.next ?? null,
          liveGiven: live?.given ?? 0,
        },
      ]
    }),
  )
}
