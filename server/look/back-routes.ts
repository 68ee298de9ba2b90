import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/look'
import { ok } from '@awlbox/core/contracts/api/route'
import { feedbackFor } from '@awlbox/core/judge/feedback'
import { emptyReading } from '@awlbox/core/contracts/reading'
import { checksOf } from '@awlbox/core/look/checks'
import { corrected } from '@awlbox/core/look/correct'
import { hereOf } from '../platform/reach.ts'
import { mayLesson, mayPhoto, mayReply } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { writeToHomes } from '../post/letters.ts'
import { speakerHere } from '../send/home-language.ts'
import { speakerFor } from '../send/words.ts'
import {
  addAsking,
  addCorrection,
  correctionCounts,
  judgeUnjudged,
  putFeedback,
  replyById,
} from './back-store.ts'
import { photoById, photosIn } from './store.ts'

/** What a person gives back: a reading put right, several judgements, a question once more, words. */
export function backRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.correctPhoto, async ({ person, params, body }) => {
    await mayPhoto(s.db, person, params.photoId, 'judge')
    const photo = await photoById(s.db, params.photoId)
    if (!photo) throw notFound('This photo')
    const [seen] = await photosIn(s.db, [photo.id])
    const before = seen?.reading ?? null
    const outside = body.things.some((t) => t.x < 0 || t.y < 0 || t.x > photo.width || t.y > photo.height)
    if (outside)
      throw new Problem(
        400,
        'Outside the photo',
        'One of the things lies outside the photo. Nothing was changed.',
      )
    const reading = corrected(before ?? emptyReading(photo), body.things)
    await addCorrection(s.db, {
      photoId: photo.id,
      reading,
      before: photo.reading && {
        count: photo.reading.count,
        low: photo.reading.low,
        high: photo.reading.high,
      },
      traits: [...(photo.reading?.warnings ?? []), photo.reading?.structure?.kind ?? 'loose'],
      readerVersion: photo.readerVersion,
      byId: person.id,
    })
    return { reading }
  })
  personRoute(router, s, api.corrections, async ({ person }) => {
    const rows = await correctionCounts(s.db, person.settingId)
    const all = rows.find((r) => r.kind === 'all')
    return {
      read: all?.photos ?? 0,
      corrected: all?.corrected ?? 0,
      byKind: rows.filter((r) => r.kind !== 'all'),
    }
  })
  personRoute(router, s, api.judgeMany, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'judge')
    const judged = await judgeUnjudged(s.db, params.lessonId, person.id, body.judgements)
    return { judged, left: body.judgements.map((j) => j.replyId).filter((id) => !judged.includes(id)) }
  })
  personRoute(router, s, api.askAgain, async ({ person, params, body }) => {
    await mayReply(s.db, person, params.replyId, 'change')
    const reply = await replyById(s.db, params.replyId)
    if (!reply?.pack.tasks.some((t) => t.id === body.taskId)) throw notFound('This question')
    await addAsking(s.db, { replyId: params.replyId, ...body, byId: person.id })
    return ok
  })
  personRoute(router, s, api.draftFeedback, async ({ person, params }) => {
    await mayReply(s.db, person, params.replyId, 'read')
    const reply = await replyById(s.db, params.replyId)
    if (!reply) throw notFound('This reply')
    const readings = new Map(
      (
        await photosIn(
          s.db,
          reply.answers.flatMap((a) => (a.photoId ? [a.photoId] : [])),
        )
      ).map((p) => [p.id, p.reading]),
    )
    const checks = checksOf(reply.pack.tasks, reply.answers, readings).flatMap((c) =>
      c.answer ? [c.check] : [],
    )
    const sure = [...readings.values()].find((r) => r && r.low === r.high && r.count > 0)
    const lines = feedbackFor({ ...reply, checks, photo: sure?.count ?? null })
    const home = {
      kind: 'home' as const,
      householdId: reply.householdId,
      settingId: reply.settingId,
      name: '',
      youngerChild: false,
    }
    const [theirs, english] = await Promise.all([
      speakerHere(s.db, home, null),
      speakerFor(s.db, reply.settingId, 'en'),
    ])
    return {
      language: theirs.language,
      body: lines.map(theirs.told).join(' '),
      english: lines.map(english.told).join(' '),
    }
  })
  personRoute(router, s, api.saveFeedback, async ({ req, person, params, body }) => {
    await mayReply(s.db, person, params.replyId, 'change')
    const reply = await replyById(s.db, params.replyId)
    if (!reply) throw notFound('This reply')
    await putFeedback(s.db, {
      replyId: reply.id,
      body: body.body,
      byId: person.id,
      ...(body.send ? { sentAt: new Date() } : {}),
    })
    if (body.send)
      await writeToHomes(s, reply.publicationId, 'feedback', {
        only: [reply.householdId],
        words: body.body,
        replyId: reply.id,
        origin: hereOf(s, req),
      })
    return ok
  })
}
