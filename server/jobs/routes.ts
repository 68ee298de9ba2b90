import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/jobs'
import { ok } from '@awlbox/core/contracts/api/route'
import { mayJob, mayLesson } from '../platform/access.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { endsWithSession, stillHere, streamHead } from '../platform/stream.ts'
import { jobsOf } from './store.ts'

/** Work under way, and the stream that tells of it and of every other change. */
export function jobRoutes(router: Router, s: Services): void {
  openRoute(router, s, api.health, async () => {
    await s.pool.query('select 1')
    return ok
  })
  personRoute(router, s, api.jobs, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    return { items: await jobsOf(s.db, params.lessonId) }
  })
  personRoute(router, s, api.cancelJob, async ({ person, params }) => {
    await mayJob(s.db, person, params.jobId, 'change')
    await s.queue.cancel(params.jobId)
    return ok
  })
  /** Server-sent events: something of this setting changed. The page then asks for what it shows. */
  personRoute(router, s, api.events, ({ req, res, person }) => {
    res.writeHead(200, streamHead)
    // On a new connection everything may have changed meanwhile: the page asks again for all it shows.
    res.write('retry: 1000\nevent: hello\ndata: {}\n\n')
    endsWithSession(s, req, res, person.settingId)
    const stop = s.events.subscribe(person.settingId, ({ kind, lesson, person: only, message }) => {
      // Who and what comes in at a live lesson is for those who follow it: a class answers at once.
      if (kind === 'signed out' || kind === 'live answers' || kind === 'live came') return
      if (only !== undefined && only !== person.id) return
      res.write(
        `data: ${JSON.stringify({ kind, lesson, ...(message === undefined ? {} : { message }) })}\n\n`,
      )
    })
    const beat = setInterval(() => res.write(': still here\n\n'), stillHere)
    req.on('close', () => {
      clearInterval(beat)
      stop()
    })
    return Promise.resolve(undefined)
  })
}
