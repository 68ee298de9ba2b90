import fs from 'node:fs/promises'
import path from 'node:path'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { captionsOf } from '@awlbox/core/cut/captions'
import { reconcile } from '@awlbox/core/cut/propose'
import { runsOf } from '@awlbox/core/cut/timeline'
import { toVtt } from '@awlbox/core/film/captions'
import { inFolder } from '../film/folder.ts'
import { takeById, takeFacts } from '../film/store.ts'
import { lessonById } from '../plan/store.ts'
import { JobProblem, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { countFrames, framesOf, joinSegments, posterOf, renderSegment, segmentKey, type SegmentSource, type TakeFilm } from './render.ts'
import { addRender, cutOf, keepSegmentFile, segmentFile } from './store.ts'

/** The middle of the longest stretch shown without a cut: there the table is full, and no card is shown. */
function posterSecond(sources: readonly SegmentSource[]): number {
  let [at, best, longest] = [0, 0, 0]
  for (const s of sources) {
    for (const run of runsOf(s.cut)) if (run.kind === 'clip' && run.frames > longest) [longest, best] = [run.frames, at + run.at + run.frames / 2]
    at += framesOf(s)
  }
  return best / framesPerSecond
}

/** Renders the cut list: only segments that changed since they were last rendered are encoded. */
export async function renderFilm(s: Services, { job, signal, progress }: Work): Promise<void> {
  const [lesson, cut] = await Promise.all([lessonById(s.db, job.lessonId), cutOf(s.db, job.lessonId)])
  if (!lesson || !cut) throw new JobProblem('There is no cut to render yet.')
  const facts = await takeFacts(s.db, job.lessonId)
  const doc = reconcile(cut.doc, lesson.doc, facts)
  const films = new Map<string, TakeFilm>()
  for (const id of new Set(doc.segments.flatMap((c) => c.items.flatMap((i) => (i.kind === 'clip' ? [i.takeId] : []))))) {
    const take = await takeById(s.db, id)
    if (take?.film) films.set(id, { sha: take.film, file: s.blobs.path(take.film), seconds: take.seconds! })
  }
  const sources = doc.segments.map((c): SegmentSource & { segmentId: string } => ({ segmentId: c.segmentId, cut: c, films })).filter((x) => framesOf(x) > 0)
  if (!sources.length) throw new JobProblem('No segment has a take or a card yet. Film one first.')
  const frames = sources.reduce((n, x) => n + framesOf(x), 0)
  await inFolder('render', async (folder) => {
    const files: string[] = []
    let done = 0
    for (const [i, source] of sources.entries()) {
      const title = lesson.doc.segments.find((x) => x.id === source.segmentId)?.title ?? ''
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
    const hearings = new Map(facts.flatMap((t) => (t.hearing ? [[t.id, t.hearing] as const] : [])))
    const captions = toVtt(captionsOf(sources.map((x) => ({ segment: lesson.doc.segments.find((y) => y.id === x.segmentId)!, cut: x.cut, hearings }))))
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
