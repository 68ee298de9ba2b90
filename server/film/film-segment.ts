import { JobProblem, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { lessonById } from '../lessons/store.ts'
import { houseStyleOf } from '../settings/store.ts'
import { prepareLater } from './prepare-later.ts'
import { addTake } from './store.ts'

/** Has the camera at AWLBOX_CAMERA film a segment by itself; what it sends is a take like any other. */
export async function filmSegment(s: Services, { job, signal, progress }: Work): Promise<void> {
  if (!s.config.camera) throw new JobProblem('No stand-in camera is connected.')
  const lesson = await lessonById(s.db, job.lessonId)
  if (!lesson?.doc.segments.some((x) => x.id === job.subject))
    throw new JobProblem('This segment is no longer in the lesson.')
  await progress('the stand-in is filming', 0.1)
  const style = await houseStyleOf(s.db, lesson.settingId)
  const response = await fetch(`${s.config.camera}/film`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ lesson: lesson.doc, segmentId: job.subject, style, ...job.data }),
    signal,
  }).catch((error: unknown) => {
    if (signal.aborted) throw error
    throw new JobProblem(
      'The stand-in camera does not answer. Film with your own camera, or start Awlbox again.',
    )
  })
  if (!response.ok)
    throw new JobProblem(`The stand-in camera could not film this: ${(await response.text()).slice(0, 200)}`)
  await progress('keeping the film', 0.9)
  const original = await s.blobs.put(s.db, Buffer.from(await response.arrayBuffer()), 'video/mp4')
  const takeId = await addTake(s.db, {
    lessonId: job.lessonId,
    segmentId: job.subject,
    source: 'stand-in',
    original,
  })
  await prepareLater(s, job.settingId, { id: takeId, lessonId: job.lessonId, segmentId: job.subject })
}
