import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/look'
import { expectedTable } from '@awlbox/core/look/expected'
import { mayLesson, mayPhoto, mayReply } from '../platform/access.ts'
import { notFound } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { refusing } from '../setting/homes-store.ts'
import { isWithheld, judge, judgementsOn, photoById, photosIn, repliesOf } from './store.ts'

const repliesAtOnce = 100

export function lookRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.replies, async ({ person, params, query }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const rows = await repliesOf(s.db, params.lessonId, query.after ?? null, repliesAtOnce)
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
    // Withdrawn since it was sent: the photo is shown to nobody any more.
    const withheld = await refusing(
      s.db,
      'photos',
      rows.map((r) => r.childId),
    )
    return {
      next: rows.length === repliesAtOnce ? rows.at(-1)!.id : null,
      items: rows.map(({ doc, pack, ...r }) => ({
        ...r,
        tasks: pack.tasks.map((t) => ({
          ...t,
          expected: t.spec.kind === 'photo' ? expectedTable(doc, t.spec) : null,
        })),
        photos: withheld.has(r.childId)
          ? []
          : pictures.filter((p) => r.answers.some((a) => a.photoId === p.id)),
        judgements: told.filter((j) => j.replyId === r.id),
      })),
    }
  })
  personRoute(router, s, api.photo, async ({ res, person, params, query }) => {
    await mayPhoto(s.db, person, params.photoId, 'read')
    const photo = await photoById(s.db, params.photoId)
    if (!photo || (await isWithheld(s.db, photo))) throw notFound('This photo')
    return sendBlob(res, s.blobs.path(query.size === 'small' ? photo.small : photo.image), 'image/jpeg')
  })
  personRoute(router, s, api.judge, async ({ person, params, body }) => {
    await mayReply(s.db, person, params.replyId, 'judge')
    return { id: await judge(s.db, params.replyId, person.id, body) }
  })
}
