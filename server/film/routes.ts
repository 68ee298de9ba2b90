import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/film'
import { ok } from '@awlbox/core/contracts/api/route'
import { withCorrection } from '@awlbox/core/film/desk/corrections'
import { taught } from '@awlbox/core/film/ear/pronounce'
import type { Person } from '../platform/actor.ts'
import { mayLesson, mayTake } from '../platform/access.ts'
import { apart } from '../platform/apart/apart.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { phonesIfAny } from '../platform/media/recogniser.ts'
import { lessonById } from '../lessons/store.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { sendBlob } from '../platform/send-blob.ts'
import { prepareLater } from './prepare-later.ts'
import { hearCaptions, judgeAgain } from './hear-job.ts'
import {
  learn,
  moveTake,
  pronunciationRows,
  removeTake,
  setTake,
  settingOf,
  takeById,
  takesOf,
  tellPerson,
  unlearn,
} from './store.ts'

/** Words of the captions of one take: an hour of somebody who talks without a pause. */
const mostCaptionWords = 12_000

export function filmRoutes(router: Router, s: Services): void {
  /** A take this person may change, with its lesson. */
  const changing = async (person: Person, takeId: string) => {
    await mayTake(s.db, person, takeId, 'change')
    const take = (await takeById(s.db, takeId))!
    return { take, lesson: (await lessonById(s.db, take.lessonId))! }
  }
  personRoute(router, s, api.takes, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    return { items: await takesOf(s.db, params.lessonId) }
  })
  personRoute(router, s, api.standIn, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    if (!s.config.camera)
      throw new Problem(409, 'No stand-in', 'No stand-in camera is connected to this Awlbox.')
    const { segmentId, ...data } = body
    return {
      job: (
        await s.queue.add({
          kind: 'film',
          settingId: await settingOf(s.db, params.lessonId),
          lessonId: params.lessonId,
          subject: segmentId,
          data,
        })
      ).id,
    }
  })
  personRoute(router, s, api.takeFilm, async ({ res, person, params }) => {
    await mayTake(s.db, person, params.takeId, 'read')
    const take = await takeById(s.db, params.takeId)
    if (!take?.film) throw notFound('This film')
    return sendBlob(res, s.blobs.path(take.film), 'video/mp4')
  })
  personRoute(router, s, api.takePeaks, async ({ res, person, params }) => {
    await mayTake(s.db, person, params.takeId, 'read')
    const take = await takeById(s.db, params.takeId)
    if (!take?.peaks) throw notFound('This waveform')
    res.type('application/octet-stream').setHeader('Cache-Control', 'private, no-cache')
    res.end(take.peaks)
  })
  personRoute(router, s, api.takeSheet, async ({ res, person, params }) => {
    await mayTake(s.db, person, params.takeId, 'read')
    const take = await takeById(s.db, params.takeId)
    if (!take?.sheet) throw notFound('These pictures')
    return sendBlob(res, s.blobs.path(take.sheet), 'image/jpeg')
  })
  personRoute(router, s, api.hearTake, async ({ person, params }) => {
    const { take, lesson } = await changing(person, params.takeId)
    return { job: await prepareLater(s, lesson.settingId, take) }
  })
  personRoute(router, s, api.moveTake, async ({ person, params, body }) => {
    const { take, lesson } = await changing(person, params.takeId)
    const segment = lesson.doc.segments.find((x) => x.id === body.segmentId)
    if (!segment)
      throw new Problem(
        409,
        'Segment gone',
        'This segment is no longer in the lesson. The clip stays where it is.',
      )
    await moveTake(s.db, take, segment.id, {
      reason: 'Put there by hand.',
      matches: take.sorting?.matches ?? [],
      byHand: true,
    })
    return { job: await prepareLater(s, lesson.settingId, { ...take, segmentId: segment.id }) }
  })
  personRoute(router, s, api.markTake, async ({ person, params, body }) => {
    await mayTake(s.db, person, params.takeId, 'change')
    await setTake(s.db, params.takeId, { marks: body.marks })
    const take = (await takeById(s.db, params.takeId))!
    // Marks that come after a recording straight through was sorted as one clip: it is parted by them after all.
    const straight = body.marks.filter((m) => m.kind === 'segment').length > 1
    if (straight && take.status === 'ready' && !take.part && !take.sorting?.byHand) {
      if (take.segmentId !== null) await moveTake(s.db, take, null, null)
      await prepareLater(s, await settingOf(s.db, take.lessonId), { ...take, segmentId: null })
    }
    return ok
  })
  personRoute(router, s, api.correctTake, async ({ person, params, body }) => {
    const { take, lesson } = await changing(person, params.takeId)
    if (take.segmentId === null) throw new Problem(409, 'Not sorted', 'Give the clip to a segment first.')
    if ('takeBack' in body) {
      const corrections = take.corrections.filter((c) => Math.abs(c.from - body.takeBack) > 0.01)
      await setTake(s.db, take.id, { corrections })
      // The words the recogniser gave are gone from the hearing: it listens again, from what it remembers.
      await prepareLater(s, lesson.settingId, take)
      return { hearing: null }
    }
    const corrections = withCorrection(take.corrections, body)
    if (corrections.length > 400)
      throw new Problem(
        409,
        'Too many corrections',
        'Four hundred corrections are kept for a take; bring captions for it instead.',
      )
    await setTake(s.db, take.id, { corrections })
    const segment = lesson.doc.segments.find((x) => x.id === take.segmentId)
    if (segment)
      await learn(
        s.db,
        (await taught({ segment, style: person.houseStyle }, body, phonesIfAny)).map((t) => ({
          lessonId: take.lessonId,
          segmentId: segment.id,
          ...t,
        })),
      )
    return { hearing: await judgeAgain(s, { ...take, corrections }, lesson) }
  })
  personRoute(router, s, api.captionTake, async ({ person, params, body }) => {
    const { take, lesson } = await changing(person, params.takeId)
    try {
      const { words } = await apart('captions', { text: body.text }, 'These captions')
      if (words > mostCaptionWords)
        throw new SyntaxError(`These captions hold ${words} words: more than anyone says in one take.`)
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error
      throw new Problem(422, 'No captions', `${error.message} Nothing was changed.`)
    }
    if (take.segmentId === null)
      throw new Problem(409, 'Not sorted', 'Give the clip to a segment first; then bring its captions.')
    await setTake(s.db, take.id, { captions: body.text, problem: null })
    return { hearing: await hearCaptions(s, { ...take, captions: body.text }, lesson) }
  })
  personRoute(router, s, api.uncaptionTake, async ({ person, params }) => {
    const { take, lesson } = await changing(person, params.takeId)
    await setTake(s.db, take.id, { captions: null })
    await prepareLater(s, lesson.settingId, take)
    return ok
  })
  personRoute(router, s, api.pronunciations, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    return { items: await pronunciationRows(s.db, params.lessonId) }
  })
  personRoute(router, s, api.unlearn, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    await unlearn(s.db, params.lessonId, params.segmentId, params.word)
    return ok
  })
  /** Between a prompter and its remote: only the same person's other devices are told. */
  personRoute(router, s, api.prompter, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    await tellPerson(s.db, {
      setting: person.settingId,
      lesson: params.lessonId,
      person: person.id,
      message: body,
    })
    return ok
  })
  personRoute(router, s, api.removeTake, async ({ person, params }) => {
    await mayTake(s.db, person, params.takeId, 'change')
    await removeTake(s.db, params.takeId)
    return ok
  })
}
