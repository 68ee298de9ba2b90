import { randomInt } from 'node:crypto'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/agreement'
import { ok } from '@awlbox/core/contracts/api/route'
import { agreementOf, sampleOf } from '@awlbox/core/judge/agreement'
import { nextPair, scaleOf } from '@awlbox/core/judge/pairs'
import { mayLesson } from '../platform/access.ts'
import type { Person } from '../platform/actor.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import {
  addComparison,
  addRound,
  addSecond,
  colleaguesOf,
  comparedIn,
  firstOf,
  judgedReplies,
  namesOf,
  repliesToCompare,
  roundById,
  roundsOf,
  secondOf,
  settleSecond,
  stillThere,
} from './agreement-store.ts'
import { asLookedAt } from './looked-at.ts'
import { judge, repliesOf } from './store.ts'

/** Judging twice without seeing each other's, and comparing pairs. */
export function agreementRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.rounds, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const drawn = await roundsOf(s.db, params.lessonId)
    // A reply its home took back, or a child that was deleted, is no part of a round any more.
    const there = await stillThere(
      s.db,
      drawn.flatMap((r) => r.replyIds),
    )
    const all = drawn.map((r) => ({ ...r, replyIds: r.replyIds.filter((id) => there.has(id)) }))
    const [second, names, colleagues] = await Promise.all([
      secondOf(
        s.db,
        all.map((r) => r.id),
      ),
      namesOf(
        s.db,
        all.flatMap((r) => [r.firstId, r.secondId]),
      ),
      colleaguesOf(s.db, person.settingId, person.id),
    ])
    const items = await Promise.all(
      all.map(async (r) => {
        const mine = second.filter((j) => j.roundId === r.id)
        return {
          id: r.id,
          at: r.at,
          first: names.get(r.firstId) ?? '',
          second: names.get(r.secondId) ?? '',
          mine: r.secondId === person.id,
          // Those judged already are not shown again to whoever judges.
          replyIds: r.replyIds.filter((id) => !mine.some((j) => j.replyId === id)),
          done: mine.length,
          result: mine.length === r.replyIds.length ? await resultOf(r, mine) : null,
        }
      }),
    )
    return { items, colleagues }
  })
  const resultOf = async (
    r: { replyIds: string[]; at: Date },
    second: Awaited<ReturnType<typeof secondOf>>,
  ) => {
    const first = new Map((await firstOf(s.db, r.replyIds, r.at)).map((f) => [f.replyId, f]))
    const both = second.flatMap((j) => {
      const f = first.get(j.replyId)
      return f
        ? [
            {
              id: j.replyId,
              first: f.level,
              second: j.level,
              child: f.child,
              settled: j.settled,
              words: j.settledWords,
            },
          ]
        : []
    })
    const a = agreementOf(both)
    return {
      words: a.words,
      agreed: a.agreed,
      kappa: a.kappa,
      low: a.low,
      high: a.high,
      differ: both.filter((b) => a.differ.includes(b.id)).map(({ id, ...b }) => ({ replyId: id, ...b })),
    }
  }
  personRoute(router, s, api.drawRound, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    const colleague = (await colleaguesOf(s.db, person.settingId, person.id)).find(
      (c) => c.id === body.secondId,
    )
    if (!colleague) throw notFound('This colleague')
    const judged = (await judgedReplies(s.db, params.lessonId)).filter((r) => r.byId !== colleague.id)
    if (judged.length < 2)
      throw new Problem(
        409,
        'Too few',
        'Judge a few replies first: there is nothing yet to be judged a second time.',
      )
    const replyIds = sampleOf(judged, body.many, (n) => randomInt(n))
    return {
      id: await addRound(s.db, {
        lessonId: params.lessonId,
        firstId: person.id,
        secondId: colleague.id,
        replyIds,
      }),
    }
  })
  const roundFor = async (person: Person, roundId: string) => {
    const round = await roundById(s.db, roundId)
    if (!round) throw notFound('This round')
    await mayLesson(s.db, person, round.lessonId, 'judge')
    return round
  }
  personRoute(router, s, api.blindReply, async ({ person, params }) => {
    const round = await roundFor(person, params.roundId)
    if (round.secondId !== person.id)
      throw new Problem(403, 'Not yours to judge', 'This sample was drawn for somebody else.')
    const judged = new Set((await secondOf(s.db, [round.id])).map((j) => j.replyId))
    for (const only of round.replyIds.filter((id) => !judged.has(id))) {
      const [reply] = await asLookedAt(
        s,
        await repliesOf(s.db, round.lessonId, { after: null, only, limit: 1 }),
      )
      // One its home took back meanwhile is passed over.
      if (reply) return { reply: { ...reply, judgements: [], feedback: null, askings: [] } }
    }
    return { reply: null }
  })
  personRoute(router, s, api.judgeSecond, async ({ person, params, body }) => {
    const round = await roundFor(person, params.roundId)
    if (round.secondId !== person.id)
      throw new Problem(403, 'Not yours to judge', 'This sample was drawn for somebody else.')
    if (!round.replyIds.includes(body.replyId)) throw notFound('This reply')
    if (!(await addSecond(s.db, { roundId: round.id, ...body })))
      throw new Problem(
        409,
        'Judged already',
        'A second judgement is given once; talk a difference through and settle it instead.',
      )
    return ok
  })
  personRoute(router, s, api.settle, async ({ person, params, body }) => {
    const round = await roundFor(person, params.roundId)
    if (person.id !== round.firstId && person.id !== round.secondId)
      throw new Problem(403, 'Not yours to settle', 'The two who judged settle it.')
    const second = (await secondOf(s.db, [round.id])).find((j) => j.replyId === body.replyId)
    if (!second) throw notFound('This reply')
    if (second.settled)
      throw new Problem(
        409,
        'Settled already',
        `It was settled as ${second.settled}. Judge it anew in Look if that has changed.`,
      )
    await settleSecond(s.db, {
      roundId: round.id,
      replyId: body.replyId,
      settled: body.level,
      settledWords: body.words,
      settledById: person.id,
    })
    // It supersedes the first; that one stays in the history.
    await judge(s.db, body.replyId, person.id, {
      level: body.level,
      help: second.help,
      rung: second.rung,
      note: body.words ? `Settled: ${body.words}` : 'Settled between two judges',
    })
    return ok
  })
  personRoute(router, s, api.pairing, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const [all, compared] = await Promise.all([
      repliesToCompare(s.db, params.lessonId),
      comparedIn(s.db, params.lessonId),
    ])
    const ids = all.map((r) => r.id)
    const told = compared.map((c) => ({ better: c.betterId, other: c.otherId, same: c.same }))
    const pair = nextPair(ids, told)
    return {
      pair,
      compared: told.length,
      scale: scaleOf(ids, told).map(({ id, place, error, compared: n }) => ({
        replyId: id,
        place,
        error: Number.isFinite(error) ? error : null,
        compared: n,
      })),
      words:
        ids.length < 2
          ? 'Two replies are needed to compare.'
          : pair
            ? `${told.length} compared. Go on until it says to stop.`
            : 'The scale stands: more comparing would change little.',
    }
  })
  personRoute(router, s, api.comparePair, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'judge')
    const ids = (await repliesToCompare(s.db, params.lessonId)).map((r) => r.id)
    if (!ids.includes(body.betterId) || !ids.includes(body.otherId) || body.betterId === body.otherId)
      throw notFound('This pair')
    await addComparison(s.db, { lessonId: params.lessonId, ...body, byId: person.id })
    return ok
  })
}
