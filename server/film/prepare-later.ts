import type { Services } from '../platform/services.ts'

/** Has a take prepared: made playable, sorted and heard, as far as it is not yet. Gives the job. */
export const prepareLater = async (
  s: Services,
  settingId: string,
  take: { id: string; lessonId: string; segmentId: string | null },
): Promise<string> =>
  (
    await s.queue.add({
      kind: 'take',
      settingId,
      lessonId: take.lessonId,
      subject: take.id,
      data: { segmentId: take.segmentId },
    })
  ).id
