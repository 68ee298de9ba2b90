import type { Router } from 'express'
import { z } from 'zod'
import { readCaptions } from '@awlbox/core/film/captions'
import { Correction, withCorrection } from '@awlbox/core/film/corrections'
import { taught } from '@awlbox/core/film/pronounce'
import { PrompterMessage } from '@awlbox/core/contracts/prompter'
import { TakeMarks } from '@awlbox/core/contracts/take'
import { StandInOrder } from '@awlbox/core/contracts/stand-in'
import type { Person } from '../platform/actor.ts'
import { mayJob, mayLesson, mayTake } from '../platform/access.ts'
import { config } from '../platform/config.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { phonesOf } from '../platform/media/recogniser.ts'
import { lessonById } from '../plan/store.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { sendBlob } from '../platform/send-blob.ts'
import { prepareLater } from './prepare-later.ts'
import { hearCaptions, judgeAgain } from './hear-job.ts'
import {
  learn,
  jobsOf,
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

export const StandIn = StandInOrder.extend({ segmentId: z.string().max(40) })

export const Move = z.object({ segmentId: z.string().max(40) })
/** A correction to add, or the start of one to take back. */
export const Correct = z.union([Correction, z.object({ takeBack: z.number().min(0) })])
export const Captions = z.object({ text: z.string().min(1).max(2_000_000) })
export const Marks = z.object({ marks: TakeMarks })
export function filmRoutes(router: Router, s: Services): void {
  /** A take this person may change, with its lesson. */
  const changing = async (person: Person, takeId: string) => {
    await mayTake(s.db, person, takeId, 'change')
    const take = (await takeById(s.db, takeId))!
    return { take, lesson: (await lessonById(s.db, take.lessonId))! }
  }
  personRoute(router, s, 'get', '/api/lessons/:lessonId/takes', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    return { items: await takesOf(s.db, params.lessonId!) }
  })
  personRoute(
    router,
    s,
    'post',
    '/api/lessons/:lessonId/stand-in',
    StandIn,
    async ({ person, params, body }) => {
      await mayLesson(s.db, person, params.lessonId!, 'change')
      if (!config.camera)
        throw new Problem(409, 'No stand-in', 'No stand-in camera is connected to this Awlbox.')
      const { segmentId, ...data } = body
      return {
        job: (
          await s.queue.add({
            kind: 'film',
            settingId: await settingOf(s.db, params.lessonId!),
            lessonId: params.lessonId!,
            subject: segmentId,
            data,
          })
        ).id,
      }
    },
  )
  personRoute(router, s, 'get', '/api/takes/:takeId/film', null, async ({ req, res, person, params }) => {
    await mayTake(s.db, person, params.takeId!, 'read')
    const take = await takeById(s.db, params.takeId!)
    if (!take?.film) throw notFound('This film')
    return sendBlob(req, res, s.blobs.path(take.film), 'video/mp4')
  })
  personRoute(router, s, 'get', '/api/takes/:takeId/peaks', null, async ({ res, person, params }) => {
    await mayTake(s.db, person, params.takeId!, 'read')
    const take = await takeById(s.db, params.takeId!)
    if (!take?.peaks) throw notFound('This waveform')
    res.type('application/octet-stream').setHeader('Cache-Control', 'private, max-age=31536000, immutable')
    res.end(take.peaks)
  })
  personRoute(router, s, 'get', '/api/takes/:takeId/sheet', null, async ({ req, res, person, params }) => {
    await mayTake(s.db, person, params.takeId!, 'read')
    const take = await takeById(s.db, params.takeId!)
    if (!take?.sheet) throw notFound('These pictures')
    return sendBlob(req, res, s.blobs.path(take.sheet), 'image/jpeg')
  })
  personRoute(router, s, 'post', '/api/takes/:takeId/hear', null, async ({ person, params }) => {
    const { take, lesson } = await changing(person, params.takeId!)
    return { job: await prepareLater(s, lesson.settingId, take) }
  })
  personRoute(router, s, 'put', '/api/takes/:takeId/segment', Move, async ({ person, params, body }) => {
    const { take, lesson } = await changing(person, params.takeId!)
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
  personRoute(router, s, 'put', '/api/takes/:takeId/marks', Marks, async ({ person, params, body }) => {
    await mayTake(s.db, person, params.takeId!, 'change')
    await setTake(s.db, params.takeId!, { marks: body.marks })
    return { ok: true }
  })
  personRoute(
    router,
    s,
    'post',
    '/api/takes/:takeId/corrections',
    Correct,
    async ({ person, params, body }) => {
      const { take, lesson } = await changing(person, params.takeId!)
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
          (await taught(segment, body, phonesOf)).map((t) => ({
            lessonId: take.lessonId,
            segmentId: segment.id,
            ...t,
          })),
        )
      return { hearing: await judgeAgain(s, { ...take, corrections }, lesson) }
    },
  )
  personRoute(
    router,
    s,
    'post',
    '/api/takes/:takeId/captions',
    Captions,
    async ({ person, params, body }) => {
      const { take, lesson } = await changing(person, params.takeId!)
      try {
        readCaptions(body.text)
      } catch (error) {
        throw new Problem(422, 'No captions', `${(error as Error).message} Nothing was changed.`)
      }
      if (take.segmentId === null)
        throw new Problem(409, 'Not sorted', 'Give the clip to a segment first; then bring its captions.')
      await setTake(s.db, take.id, { captions: body.text, problem: null })
      return { hearing: await hearCaptions(s, { ...take, captions: body.text }, lesson) }
    },
  )
  personRoute(router, s, 'delete', '/api/takes/:takeId/captions', null, async ({ person, params }) => {
    const { take, lesson } = await changing(person, params.takeId!)
    await setTake(s.db, take.id, { captions: null })
    await prepareLater(s, lesson.settingId, take)
    return { ok: true }
  })
  personRoute(router, s, 'get', '/api/lessons/:lessonId/pronunciations', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    return { items: await pronunciationRows(s.db, params.lessonId!) }
  })
  personRoute(
    router,
    s,
    'delete',
    '/api/lessons/:lessonId/pronunciations/:segmentId/:word',
    null,
    async ({ person, params }) => {
      await mayLesson(s.db, person, params.lessonId!, 'change')
      await unlearn(s.db, params.lessonId!, params.segmentId!, params.word!)
      return { ok: true }
    },
  )
  /** Between a prompter and its remote: only the same person's other devices are told. */
  personRoute(
    router,
    s,
    'post',
    '/api/lessons/:lessonId/prompter',
    PrompterMessage,
    async ({ person, params, body }) => {
      await mayLesson(s.db, person, params.lessonId!, 'read')
      await tellPerson(s.db, {
        setting: person.settingId,
        lesson: params.lessonId!,
        person: person.id,
        message: body,
      })
      return { ok: true }
    },
  )
  personRoute(router, s, 'delete', '/api/takes/:takeId', null, async ({ person, params }) => {
    await mayTake(s.db, person, params.takeId!, 'change')
    await removeTake(s.db, params.takeId!)
    return { ok: true }
  })
  personRoute(router, s, 'get', '/api/lessons/:lessonId/jobs', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    return { items: await jobsOf(s.db, params.lessonId!) }
  })
  personRoute(router, s, 'post', '/api/jobs/:jobId/cancel', null, async ({ person, params }) => {
    await mayJob(s.db, person, params.jobId!, 'change')
    await s.queue.cancel(params.jobId!)
    return { ok: true }
  })
  /** Server-sent events: something of this setting changed. The page then asks for what it shows. */
  personRoute(router, s, 'get', '/api/events', null, ({ req, res, person }) => {
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      Connection: 'keep-alive',
      'X-Accel-Buffering': 'no',
    })
    // On a new connection everything may have changed meanwhile: the page asks again for all it shows.
    res.write('retry: 1000\nevent: hello\ndata: {}\n\n')
    const stop = s.events.subscribe(person.settingId, (t) => {
      if (t.person !== undefined && t.person !== person.id) return
      res.write(
        `data: ${JSON.stringify({ kind: t.kind, lesson: t.lesson, ...(t.message === undefined ? {} : { message: t.message }) })}\n\n`,
      )
    })
    const beat = setInterval(() => res.write(': still here\n\n'), 20_000)
    req.on('close', () => {
      clearInterval(beat)
      stop()
    })
    return Promise.resolve(undefined)
  })
}
