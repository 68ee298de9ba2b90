import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/look'
import { expectedTable } from '@awlbox/core/look/expected'
import { mayLesson, mayPhoto, mayRecording, mayReply } from '../platform/access.ts'
import { notFound } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import type { Answer } from '@awlbox/core/contracts/reply'
import { photosOf } from '../send/store.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'
import { askingsOn, feedbackOn } from './back-store.ts'
import {
  isSilenced,
  isWithheld,
  judge,
  judgementsOn,
  photoById,
  photosIn,
  recordingById,
  recordingsIn,
  repliesOf,
} from './store.ts'

const repliesAtOnce = 100
const wordsBack = ({ body, sentAt }: { body: string; sentAt: Date | null }) => ({ body, sentAt })
const spokenIds = (answers: readonly Answer[]): string[] =>
  answers.flatMap((a) => (a.recordingId ? [a.recordingId] : []))

/** Replies as they are looked at: with their photos as read, what was said of them, and nothing that was withdrawn. */
export async function asLookedAt(s: Pick<Services, 'db'>, rows: Awaited<ReturnType<typeof repliesOf>>) {
  const ids = rows.map((r) => r.childId)
  const replyIds = rows.map((r) => r.id)
  const [pictures, spoken, told] = await Promise.all([
    photosIn(
      s.db,
      rows.flatMap((r) => r.answers.flatMap(photosOf)),
    ),
    recordingsIn(
      s.db,
      rows.flatMap((r) => spokenIds(r.answers)),
    ),
    judgementsOn(s.db, replyIds),
  ])
  // Withdrawn since it was sent: it is shown to nobody any more.
  const [withheld, heard, shown, asked, back] = await Promise.all([
    refusing(s.db, 'photos', ids),
    agreeing(s.db, 'sound', ids),
    agreeing(s.db, 'showing', ids),
    askingsOn(s.db, replyIds),
    feedbackOn(s.db, replyIds),
  ])
  return rows.map(({ doc, pack, ...r }) => ({
    ...r,
    tasks: pack.tasks.map((t) => ({
      ...t,
      expected: t.spec.kind === 'photo' ? expectedTable(doc, t.spec) : null,
    })),
    photos: withheld.has(r.childId)
      ? []
      : pictures.filter((p) => r.answers.some((a) => photosOf(a).includes(p.id))),
    recordings: spoken.filter(
      (x) =>
        spokenIds(r.answers).includes(x.id) &&
        (x.kind === 'sound' ? heard.has(r.childId) : !withheld.has(r.childId)),
    ),
    judgements: told.filter((j) => j.replyId === r.id),
    askings: asked
      .filter((a) => a.replyId === r.id)
      .map((a) => ({ taskId: a.taskId, words: a.words, at: a.at, answered: a.answeredAt !== null })),
    feedback: back.find((f) => f.replyId === r.id) ? wordsBack(back.find((f) => f.replyId === r.id)!) : null,
    mayShow: shown.has(r.childId),
  }))
}

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
