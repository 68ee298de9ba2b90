import type { Router } from 'express'
import { z } from 'zod'
import { PhotoReading } from '@awlbox/core/contracts/reading'
import { JudgementInput } from '@awlbox/core/contracts/reply'
import { expectedTable } from '@awlbox/core/look/expected'
import { mayLesson, mayPhoto, mayReply } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { judge, judgementsOn, photoById, photosIn, repliesOf, saveReading } from './store.ts'

const Sized = z.object({ size: z.enum(['full', 'small']).default('full') })

export function lookRoutes(router: Router, s: Services): void {
  personRoute(router, s, 'get', '/api/lessons/:lessonId/replies', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    const rows = await repliesOf(s.db, params.lessonId!, 200)
    const [pictures, told] = await Promise.all([
      photosIn(
        s.db,
        rows.flatMap((r) => r.answers.flatMap((a) => (a.photoId ? [a.photoId] : []))),
      ),
      judgementsOn(
        s.db,
        rows.map((r) => r.id),
      ),
    ])
    return {
      items: rows.map(({ doc, pack, ...r }) => ({
        ...r,
        tasks: pack.tasks.map((t) => ({
          ...t,
          expected: t.spec.kind === 'photo' ? expectedTable(doc, t.spec) : null,
        })),
        photos: pictures.filter((p) => r.answers.some((a) => a.photoId === p.id)),
        judgements: told.filter((j) => j.replyId === r.id),
      })),
    }
  })
  personRoute(router, s, 'get', '/api/photos/:photoId', null, async ({ req, res, person, params }) => {
    await mayPhoto(s.db, person, params.photoId!, 'read')
    const { size } = Sized.parse(req.query)
    const photo = await photoById(s.db, params.photoId!)
    if (!photo) throw notFound('This photo')
    return sendBlob(req, res, s.blobs.path(size === 'small' ? photo.small : photo.image), 'image/jpeg')
  })
  personRoute(
    router,
    s,
    'put',
    '/api/photos/:photoId/reading',
    PhotoReading,
    async ({ person, params, body }) => {
      await mayPhoto(s.db, person, params.photoId!, 'judge')
      const photo = await photoById(s.db, params.photoId!)
      if (photo!.width !== body.width || photo!.height !== body.height)
        throw new Problem(409, 'Another photo', 'This reading is of a photo of another size.')
      await saveReading(s.db, params.photoId!, body)
      return { ok: true }
    },
  )
  personRoute(
    router,
    s,
    'post',
    '/api/replies/:replyId/judgements',
    JudgementInput,
    async ({ person, params, body }) => {
      await mayReply(s.db, person, params.replyId!, 'judge')
      return { id: await judge(s.db, params.replyId!, person.id, body) }
    },
  )
}
