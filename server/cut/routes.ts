import { isInFilm } from '@awlbox/core/contracts/lesson'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/cut'
import { takeFacts } from '../film/store.ts'
import { lessonById } from '../lessons/store.ts'
import { mayLesson, mayRender } from '../platform/access.ts'
import { apart } from '../platform/apart/apart.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { toEdl } from '@awlbox/core/cut/exchange/edl'
import { toMlt } from '@awlbox/core/cut/exchange/mlt'
import { toOtio } from '@awlbox/core/cut/exchange/otio'
import { renderRate } from '@awlbox/core/cut/render-time'
import { renderFileMimes } from '@awlbox/core/contracts/render'
import { fileName } from '../platform/file-name.ts'
import { currentCut } from './current.ts'
import { sendText, writeBundle } from './exchange.ts'
import { cutOf, filmsOf, renderById, renderFile, renderHistory, rendersOf, saveCut } from './store.ts'

export function cutRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.readCut, async ({ person, params }) => {
    const id = params.lessonId
    await mayLesson(s.db, person, id, 'read')
    const { revision, doc } = (await currentCut(s.db, id))!
    return { revision, doc }
  })
  personRoute(router, s, api.exportCut, async ({ res, person, params }) => {
    const id = params.lessonId
    await mayLesson(s.db, person, id, 'read')
    const { lesson, doc: whole } = (await currentCut(s.db, id))!
    const children = new Set(lesson.segments.filter(isInFilm).map((x) => x.id))
    const doc = { ...whole, segments: whole.segments.filter((x) => children.has(x.segmentId)) }
    const [title, name] = [lesson.title, fileName(lesson.title, 'film')]
    switch (params.format) {
      case 'json':
        return sendText(res, JSON.stringify(doc, null, 2), `${name}.cut.json`, 'application/json')
      case 'otio':
        return sendText(res, toOtio(doc, title), `${name}.otio`, 'application/json')
      case 'edl':
        return sendText(res, toEdl(doc, title), `${name}.edl`, 'text/plain')
      case 'mlt':
        return sendText(res, toMlt(doc, title), `${name}.mlt`, 'application/xml')
      case 'zip': {
        const films = new Map((await filmsOf(s.db, id)).map((t) => [t.id, t.film]))
        res.type('application/zip').attachment(`${name}.zip`)
        await writeBundle(res, doc, title, (takeId) =>
          films.get(takeId) ? s.blobs.path(films.get(takeId)!) : null,
        )
        return undefined
      }
    }
  })
  personRoute(router, s, api.readCutFile, async ({ person, params, body }) => {
    const id = params.lessonId
    await mayLesson(s.db, person, id, 'read')
    const [lesson, facts] = await Promise.all([lessonById(s.db, id), takeFacts(s.db, id)])
    try {
      const takes = facts.map(({ id: takeId, segmentId, seconds }) => ({ id: takeId, segmentId, seconds }))
      return { doc: await apart('cutList', { ...body, lesson: lesson!.doc, takes }, 'This cut list') }
    } catch (error) {
      if (error instanceof SyntaxError) throw new Problem(422, 'Not read', error.message)
      throw error
    }
  })
  personRoute(router, s, api.saveCut, async ({ person, params, body }) => {
    const id = params.lessonId
    await mayLesson(s.db, person, id, 'change')
    const revision = await saveCut(s.db, { lessonId: id, ...body, byId: person.id })
    if (revision !== undefined) return { revision }
    const current = await cutOf(s.db, id)
    throw new Problem(
      409,
      'Changed elsewhere',
      'This cut was changed in another window since you opened it. Both versions are kept.',
      { revision: current?.revision ?? 0, doc: current?.doc ?? null },
    )
  })
  personRoute(router, s, api.render, async ({ person, params }) => {
    const id = params.lessonId
    await mayLesson(s.db, person, id, 'change')
    const { revision, doc } = (await currentCut(s.db, id))!
    if (!revision) await saveCut(s.db, { lessonId: id, revision, doc, byId: person.id })
    return {
      job: (await s.queue.add({ kind: 'render', settingId: person.settingId, lessonId: id, subject: id })).id,
    }
  })
  personRoute(router, s, api.renders, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    return { items: await rendersOf(s.db, params.lessonId), rate: renderRate(await renderHistory(s.db)) }
  })
  personRoute(router, s, api.renderFile, async ({ res, person, params }) => {
    await mayRender(s.db, person, params.renderId, 'read')
    const file = await renderFile(s.db, params.renderId, params.kind)
    if (!file) throw notFound('This version of the film')
    return sendBlob(res, s.blobs.path(file), renderFileMimes[params.kind])
  })
  for (const [route, part, mime] of [
    [api.renderFilm, 'film', 'video/mp4'],
    [api.renderCaptions, 'captions', 'text/vtt'],
    [api.renderPoster, 'poster', 'image/jpeg'],
  ] as const)
    personRoute(router, s, route, async ({ res, person, params }) => {
      await mayRender(s.db, person, params.renderId, 'read')
      const render = await renderById(s.db, params.renderId)
      if (!render) throw notFound('This film')
      return sendBlob(res, s.blobs.path(render[part]), mime)
    })
}
