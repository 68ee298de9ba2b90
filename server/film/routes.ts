import type { Router } from 'express'
import { z } from 'zod'
import { mayJob, mayLesson, mayTake } from '../platform/access.ts'
import { config } from '../platform/config.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { sendBlob } from '../platform/send-blob.ts'
import { jobsOf, removeTake, settingOf, takeById, takesOf } from './store.ts'

export const StandIn = z.object({
  segmentId: z.string().max(40),
  slip: z.enum(['none', 'leave out a number', 'false start', 'dead air', 'skip a line']),
  voice: z.enum(['slt', 'rms', 'awb', 'kal16']),
})

export function filmRoutes(router: Router, s: Services): void {
  personRoute(router, s, 'get', '/api/lessons/:lessonId/takes', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    return { items: await takesOf(s.db, params.lessonId!) }
  })
  personRoute(router, s, 'post', '/api/lessons/:lessonId/stand-in', StandIn, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId!, 'change')
    if (!config.camera) throw new Problem(409, 'No stand-in', 'No stand-in camera is connected to this Awlbox.')
    const { segmentId, ...data } = body
    return { job: (await s.queue.add({ kind: 'film', settingId: await settingOf(s.db, params.lessonId!), lessonId: params.lessonId!, subject: segmentId, data })).id }
  })
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
  personRoute(router, s, 'post', '/api/takes/:takeId/hear', null, async ({ person, params }) => {
    await mayTake(s.db, person, params.takeId!, 'change')
    const take = (await takeById(s.db, params.takeId!))!
    return { job: (await s.queue.add({ kind: 'take', settingId: await settingOf(s.db, take.lessonId), lessonId: take.lessonId, subject: take.id, data: { segmentId: take.segmentId } })).id }
  })
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
  personRoute(router, s, 'get', '/api/events', null, async ({ req, res, person }) => {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive', 'X-Accel-Buffering': 'no' })
    // On a new connection everything may have changed meanwhile: the page asks again for all it shows.
    res.write('retry: 1000\nevent: hello\ndata: {}\n\n')
    const stop = s.events.subscribe(person.settingId, (t) => res.write(`data: ${JSON.stringify({ kind: t.kind, lesson: t.lesson })}\n\n`))
    const beat = setInterval(() => res.write(': still here\n\n'), 20_000)
    req.on('close', () => {
      clearInterval(beat)
      stop()
    })
    return undefined
  })
}
