import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/look'
import { mayLesson, mayPhoto, mayRecording, mayReply } from '../platform/access.ts'
import { notFound } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { asLookedAt } from './looked-at.ts'
import { isSilenced, isWithheld, judge, photoById, recordingById, repliesOf } from './store.ts'

const repliesAtOnce = 100
export function lookRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.replies, async ({ person, params, query }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const rows = await repliesOf(s.db, params.lessonId, { after: query.after ?? null, limit: repliesAtOnce })
    return {
      next: rows.length === repliesAtOnce ? rows.at(-1)!.id : null,
      items: await asLookedAt(s, rows),
    }
  })
  personRoute(router, s, api.photo, async ({ res, person, params, query }) => {
    await mayPhoto(s.db, person, params.photoId, 'read')
    const photo = await photoById(s.db, params.photoId)
    if (!photo || (await isWithheld(s.db, photo))) throw notFound('This photo')
    return sendBlob(res, s.blobs.path(query.size === 'small' ? photo.small : photo.image), 'image/jpeg')
  })
  personRoute(router, s, api.recording, async ({ res, person, params }) => {
    await mayRecording(s.db, person, params.recordingId, 'read')
    const r = await recordingById(s.db, params.recordingId)
    const away = r && (r.kind === 'sound' ? await isSilenced(s.db, r) : await isWithheld(s.db, r))
    if (!r || away) throw notFound('This recording')
    return sendBlob(res, s.blobs.path(r.file), r.kind === 'sound' ? 'audio/mp4' : 'video/mp4')
  })
  personRoute(router, s, api.judge, async ({ person, params, body }) => {
    await mayReply(s.db, person, params.replyId, 'judge')
    return { id: await judge(s.db, params.replyId, person.id, body) }
  })
}
