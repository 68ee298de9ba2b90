import fs from 'node:fs/promises'
import path from 'node:path'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { captionsOf } from '@awlbox/core/cut/captions'
import { reconcile } from '@awlbox/core/cut/propose'
import { spanFrames } from '@awlbox/core/cut/spans'
import { toVtt } from '@awlbox/core/film/captions'
import { inFolder } from '../film/folder.ts'
import { takeById, takeFacts, takesOf } from '../film/store.ts'
import { lessonById } from '../plan/store.ts'
import { JobProblem, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { countFrames, framesOf, joinSegments, posterOf, renderSegment, segmentKey, type SegmentSource, spansOf } from './render.ts'
import { addRender, cutOf, keepSegmentFile, segmentFile } from './store.ts'

/** Halfway through the longest take: there the table is full, and no card is shown. */
function posterSecond(sources: readonly SegmentSource[]): number {
  let [at, best, longest] = [0, 0, 0]
  for (const s of sources) {
    const filmed = spanFrames(spansOf(s))
    if (filmed > longest) [longest, best] = [filmed, at + filmed / 2]
    at += framesOf(s)
  }
  return best / framesPerSecond
}

/** Renders the cut list: only segments that changed since they were last rendered are encoded. */
export async function renderFilm(s: Services, { job, signal, progress }: Work): Promise<void> {
  const [lesson, cut] = await Promise.all([lessonById(s.db, job.lessonId), cutOf(s.db, job.lessonId)])
  if (!lesson || !cut) throw new JobProblem('There is no cut to render yet.')
  const doc = reconcile(cut.doc, lesson.doc, await takeFacts(s.db, job.lessonId))
  const rows = await takesOf(s.db, job.lessonId)
  const sources: SegmentSource[] = []
  for (const c of doc.segments) {
    const take = c.takeId ? await takeById(s.db, c.takeId) : undefined
    const film = take?.film ? { sha: take.film, file: s.blobs.path(take.film), seconds: take.seconds! } : null
    const source = { cut: c, film }
    if (framesOf(source) > 0) sources.push(source)
  }
  if (!sources.length) throw new JobProblem('No segment has a take or a card yet. Film one first.')
  const frames = sources.reduce((n, x) => n + framesOf(x), 0)
  await inFolder('render', async (folder) => {
    const files: string[] = []
    let done = 0
    for (const [i, source] of sources.entries()) {
      const title = lesson.doc.segments.find((x) => x.id === source.cut.segmentId)?.title ?? ''
      const key = segmentKey(source)
      let sha = await segmentFile(s.db, key)
      if (!sha) {
        await progress(`segment ${i + 1} of ${sources.length}: ${title}`, (0.9 * done) / frames)
        const out = path.join(folder, `${i}.mov`)
        await renderSegment(source, out, folder, { signal, onShare: (x) => void progress(`segment ${i + 1} of ${sources.length}: ${title}`, (0.9 * (done + x * framesOf(source))) / frames).catch(() => undefined) })
        sha = await s.blobs.put(s.db, { file: out }, 'video/quicktime')
        await keepSegmentFile(s.db, key, sha)
      }
      files.push(s.blobs.path(sha))
      done += framesOf(source)
    }
    await progress('joining and levelling the sound', 0.92)
    const film = path.join(folder, 'film.mp4')
    await joinSegments(files, film, folder, { signal })
    const made = await countFrames(film)
    if (Math.abs(made - frames) > sources.length) throw new Error(`The film has ${made} frames; the cut list says ${frames}`)
    const captions = toVtt(captionsOf(doc.segments.map((c) => {
      const row = rows.find((r) => r.id === c.takeId)
      return { segment: lesson.doc.segments.find((x) => x.id === c.segmentId)!, cut: c, hearing: row?.hearing ?? null, takeSeconds: row?.seconds ?? null }
    })))
    const poster = path.join(folder, 'poster.jpg')
    await posterOf(film, posterSecond(sources), poster)
    await progress('keeping the film', 0.98)
    const filmSha = await s.blobs.put(s.db, { file: film }, 'video/mp4')
    const { size } = await fs.stat(film)
    await addRender(s.db, {
      lessonId: job.lessonId, cutRevision: cut.revision, film: filmSha, captions: await s.blobs.put(s.db, Buffer.from(captions), 'text/vtt'),
      poster: await s.blobs.put(s.db, { file: poster }, 'image/jpeg'), seconds: made / framesPerSecond, bytes: size,
    })
  })
}
