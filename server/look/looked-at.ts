import type { Answer } from '@awlbox/core/contracts/reply'
import { expectedTable } from '@awlbox/core/look/expected'
import type { Services } from '../platform/services.ts'
import { photosOf } from '../send/store.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'
import { askingsOn, feedbackOn } from './back-store.ts'
import { judgementsOn, photosIn, recordingsIn, type repliesOf } from './store.ts'

const wordsBack = (f: { body: string; sentAt: Date | null } | undefined) =>
  f ? { body: f.body, sentAt: f.sentAt } : null
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
      expected: t.spec.kind === 'photo' ? expectedTable(doc, t) : null,
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
    feedback: wordsBack(back.find((f) => f.replyId === r.id)),
    mayShow: shown.has(r.childId),
  }))
}
