import type { Router } from 'express'
import { z } from 'zod'
import { CutList } from '@awlbox/core/contracts/cut'
import { reconcile } from '@awlbox/core/cut/propose'
import { takeFacts } from '../film/store.ts'
import { lessonById } from '../plan/store.ts'
import { mayLesson, mayRender } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { cutOf, renderById, rendersOf, saveCut } from './store.ts'

const Save = z.object({ revision: z.number().int().min(0), doc: CutList })

export function cutRoutes(router: Router, s: Services): void {
  personRoute(router, s, 'get', '/api/lessons/:lessonId/cut', null, async ({ person, params }) => {
    const id = params.lessonId!
    await mayLesson(s.db, person, id, 'read')
    const [lesson, cut, takes] = await Promise.all([lessonById(s.db, id), cutOf(s.db, id), takeFacts(s.db, id)])
    return { revision: cut?.revision ?? 0, doc: reconcile(cut?.doc ?? null, lesson!.doc, takes) }
  })
  personRoute(router, s, 'put', '/api/lessons/:lessonId/cut', Save, async ({ person, params, body }) => {
    const id = params.lessonId!
    await mayLesson(s.db, person, id, 'change')
    const revision = await saveCut(s.db, { lessonId: id, ...body, byId: person.id })
    if (revision !== undefined) return { revision }
    const current = await cutOf(s.db, id)
    throw new Problem(409, 'Changed elsewhere', 'This cut was changed in another window since you opened it. Both versions are kept.', { revision: current?.revision ?? 0, doc: current?.doc ?? null })
  })
  personRoute(router, s, 'post', '/api/lessons/:lessonId/render', null, async ({ person, params }) => {
    const id = params.lessonId!
    await mayLesson(s.db, person, id, 'change')
    const lesson = (await lessonById(s.db, id))!
    if (!(await cutOf(s.db, id))) await saveCut(s.db, { lessonId: id, revision: 0, doc: reconcile(null, lesson.doc, await takeFacts(s.db, id)), byId: person.id })
    return { job: (await s.queue.add({ kind: 'render', settingId: person.settingId, lessonId: id, subject: id })).id }
  })
  personRoute(router, s, 'get', '/api/lessons/:lessonId/renders', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    return { items: await rendersOf(s.db, params.lessonId!) }
  })
  for (const [name, mime] of [['film', 'video/mp4'], ['captions', 'text/vtt'], ['poster', 'image/jpeg']] as const)
    personRoute(router, s, 'get', `/api/renders/:renderId/${name}`, null, async ({ req, res, person, params }) => {
      await mayRender(s.db, person, params.renderId!, 'read')
      const render = await renderById(s.db, params.renderId!)
      if (!render) throw notFound('This film')
      return sendBlob(req, res, s.blobs.path(render[name]), mime)
    })
}
