import type { Frames } from '@awlbox/core/contracts/units'
import { repairOf } from '@awlbox/core/cut/repairs'
import { type PlaceContext, placedCaptions } from '@awlbox/core/cut/caption-place'
import fs from 'node:fs/promises'
import path from 'node:path'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { RenderFileKind } from '@awlbox/core/contracts/render'
import { renderFileMimes } from '@awlbox/core/contracts/render'
import { type CaptionPart, captionsOf, segmentCaptions } from '@awlbox/core/cut/captions'
import { chapterMetadata, chaptersOf } from '@awlbox/core/cut/chapters'
import { descriptionsOf } from '@awlbox/core/cut/described'
import { lessonAsFilmed, tableAfter } from '@awlbox/core/cut/propose'
import { renderRate, renderSeconds } from '@awlbox/core/cut/render-time'
import { runsOf } from '@awlbox/core/cut/timeline'
import { toSrt, toVtt } from '@awlbox/core/film/desk/captions'
import { inFolder } from '../platform/temporary.ts'
import { roomLeft } from '../platform/blobs.ts'
import { ToolError } from '../platform/media/run.ts'
import { JobProblem, shareOf, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { currentCut } from './current.ts'
import { checkFilm, filmCheck } from './film-checks.ts'
import { bytesAllowed, makeSmall, makeSound } from './outputs.ts'
import {
  countFrames,
  framesOf,
  joinSegments,
  posterOf,
  renderSegment,
  segmentKey,
  type SegmentSource,
  stillStretches,
  type TakeFilm,
} from './render.ts'
import {
  addRender,
  addRenderFile,
  filmsOf,
  keepSegmentFile,
  noteRender,
  renderHistory,
  segmentFile,
  setChecks,
} from './store.ts'

/** The middle of the longest stretch shown without a cut: there the table is full, and no card is shown. */
function posterSecond(sources: readonly SegmentSource[]): number {
  let [at, best, longest] = [0, 0, 0]
  for (const s of sources) {
    for (const run of runsOf(s.cut))
      if (run.kind === 'clip' && run.frames > longest)
        [longest, best] = [run.frames, at + run.at + run.frames / 2]
    at += framesOf(s)
  }
  return best / framesPerSecond
}

/** What one film is made from: its segments, and their words. */
interface Plan {
  sources: (SegmentSource & { title: string })[]
  parts: CaptionPart[]
}
interface Context {
  s: Services
  work: Work
  folder: string
}
/** Share of the whole job at which each of its stages begins; encoding takes nearly all of the first. */
const stages = { join: 0.72, keep: 0.78, look: 0.8, small: 0.86, rest: 0.97 } as const

/** Bytes a second of film that rendering may need at most, for its segments and the film together. */
const bytesASecond = 900_000
const noRoom =
  'The disk is full: there is no room to render. The cut, its takes and films made before are kept; make room, then render again. What was finished need not be made anew.'

/** Renders the cut list: only segments that changed since they were last rendered are encoded. The film can be seen before its smaller versions are made. */
export async function renderFilm(s: Services, work: Work): Promise<void> {
  try {
    await render(s, work)
  } catch (error) {
    const full =
      (error as NodeJS.ErrnoException).code === 'ENOSPC' ||
      (error instanceof ToolError && /no space left/i.test(error.stderr))
    throw full ? new JobProblem(noRoom) : error
  }
}
async function render(s: Services, work: Work): Promise<void> {
  const { job } = work
  const cut = await currentCut(s.db, job.lessonId)
  if (!cut?.revision) throw new JobProblem('There is no cut to render yet.')
  const { lesson, takes, style, doc } = cut
  const films = new Map(
    (await filmsOf(s.db, job.lessonId)).flatMap((t): [string, TakeFilm][] =>
      t.film && t.seconds
        ? [
            [
              t.id,
              {
                sha: t.film,
                file: s.blobs.path(t.film),
                seconds: t.seconds,
                tone: t.looked?.tone ?? null,
                noise: t.looked?.noise ?? null,
              },
            ],
          ]
        : [],
    ),
  )
  const hearings = new Map(takes.flatMap((t) => (t.hearing ? [[t.id, t.hearing] as const] : [])))
  const filmed = lessonAsFilmed(lesson, doc.segments, takes)
  const wording = { style, age: lesson.age, edits: doc.captions.edits }
  const places: PlaceContext = {
    tableAfter: (stepId) => tableAfter(filmed, stepId),
    repairOf: (takeId) => repairOf(doc, takeId),
    fill: style.frameFill,
  }
  const planFor = (audience: 'children' | 'adults'): Plan => {
    const parts = doc.segments.flatMap((c) => {
      const segment = filmed.segments.find((x) => x.id === c.segmentId && x.audience === audience)
      return segment ? [{ segment, cut: c, hearings }] : []
    })
    const all = parts
      .map((part) => ({
        part,
        source: {
          title: part.segment.title,
          cut: part.cut,
          films,
          repairs: doc.repairs,
          tables: (stepId: string) => tableAfter(filmed, stepId),
          fill: style.frameFill,
          burnt: doc.captions.burnt
            ? placedCaptions(segmentCaptions(part, wording), places).filter((x) => x.source)
            : [],
        },
      }))
      .filter((x) => framesOf(x.source) > 0)
    return { sources: all.map((x) => x.source), parts: all.map((x) => x.part) }
  }
  const [main, adults] = [planFor('children'), planFor('adults')]
  if (!main.sources.length) throw new JobProblem('No segment has a take or a card yet. Film one first.')
  const length = [...main.sources, ...adults.sources].reduce((n, x) => n + framesOf(x), 0) / framesPerSecond
  if ((await roomLeft(s.config.blobs, s.config.diskReserve)) < length * bytesASecond)
    throw new JobProblem(noRoom)
  const encoded = (await missingFrames(s, [...main.sources, ...adults.sources])) / framesPerSecond
  const rate = renderRate(await renderHistory(s.db))
  await noteRender(s.db, job.id, {
    film: length,
    encoded,
    expected: rate === null ? null : renderSeconds(rate, length, encoded),
  })
  await inFolder('render', async (folder) => {
    const c: Context = { s, work, folder }
    const { file: film, frames: made } = await encode(c, main, 'film', { from: 0, to: stages.join })
    const { size } = await fs.stat(film)
    const poster = path.join(folder, 'poster.jpg')
    await posterOf(film, posterSecond(main.sources), poster)
    await work.progress('keeping the film', stages.keep)
    const cues = placedCaptions(captionsOf(main.parts, wording), places)
    const seconds = made / framesPerSecond
    const renderId = await addRender(s.db, {
      lessonId: job.lessonId,
      cutRevision: cut.revision,
      film: await s.blobs.put(s.db, { file: film }, 'video/mp4'),
      captions: await s.blobs.put(s.db, Buffer.from(toVtt(cues)), 'text/vtt'),
      poster: await s.blobs.put(s.db, { file: poster }, 'image/jpeg'),
      seconds,
      bytes: size,
    })
    const keep = async (kind: RenderFileKind, content: string | { file: string }): Promise<void> => {
      const bytes =
        typeof content === 'string' ? Buffer.byteLength(content) : (await fs.stat(content.file)).size
      await addRenderFile(s.db, {
        renderId,
        kind,
        bytes,
        file: await s.blobs.put(
          s.db,
          typeof content === 'string' ? Buffer.from(content) : content,
          renderFileMimes[kind],
        ),
      })
    }
    await keep('srt', toSrt(cues))
    await keep(
      'captions-slow',
      toVtt(placedCaptions(captionsOf(main.parts, { ...wording, speed: 'slow' }), places)),
    )
    await keep('descriptions', toVtt(descriptionsOf(main.parts, filmed.moments)))
    await keep(
      'chapters',
      toVtt(chaptersOf(main.parts).map((x) => ({ start: x.start, end: x.end, text: x.title }))),
    )
    await work.progress('looking the film through', stages.look)
    const checks = await checkFilm(film, standStill(main), work.signal)
    await work.progress('making the small version', stages.small)
    const small = path.join(folder, 'small.mp4')
    const allowed = bytesAllowed(seconds, style.smallMegabytes)
    const smallSize = await makeSmall(film, small, seconds, allowed, {
      signal: work.signal,
      onShare: shareOf(work.progress, 'making the small version', stages.small, stages.rest - stages.small),
    })
    if (smallSize > allowed)
      checks.push(
        filmCheck('size', null, {
          megabytes: (smallSize / 1e6).toFixed(1),
          allowed: (allowed / 1e6).toFixed(1),
        }),
      )
    await setChecks(s.db, renderId, checks)
    await keep('small', { file: small })
    await work.progress('making the sound-only version', stages.rest)
    const sound = path.join(folder, 'sound.m4a')
    await makeSound(film, sound, { signal: work.signal })
    await keep('sound', { file: sound })
    if (adults.sources.length) {
      await keep('adults', await encode(c, adults, 'adults', { from: stages.rest, to: 0.995 }))
      await keep('adults-captions', toVtt(captionsOf(adults.parts, wording)))
    }
  })
}

/** Frames of the segments that were not rendered before as they are now. */
async function missingFrames(s: Services, sources: readonly SegmentSource[]): Promise<Frames> {
  let n = 0
  for (const source of sources) if (!(await segmentFile(s.db, segmentKey(source)))) n += framesOf(source)
  return n
}
/** Encodes what is not there yet, segment by segment, and joins it. Gives the film's file and its frames. */
async function encode(
  { s, work, folder }: Context,
  { sources, parts }: Plan,
  name: string,
  share: { from: number; to: number },
): Promise<{ file: string; frames: Frames }> {
  const frames = sources.reduce((n, x) => n + framesOf(x), 0)
  const files: string[] = []
  let done = 0
  for (const [i, source] of sources.entries()) {
    const step = `segment ${i + 1} of ${sources.length}: ${source.title}`
    const at = (x: number): number =>
      share.from + ((share.to - share.from) * (done + x * framesOf(source))) / frames
    const key = segmentKey(source)
    let sha = await segmentFile(s.db, key)
    if (!sha) {
      await work.progress(step, at(0))
      const out = path.join(folder, `${name}-${i}.mov`)
      await renderSegment(source, out, folder, {
        signal: work.signal,
        onShare: shareOf(work.progress, step, at(0), at(1) - at(0)),
      })
      sha = await s.blobs.put(s.db, { file: out }, 'video/quicktime')
      await keepSegmentFile(s.db, key, sha)
      await fs.rm(out)
    }
    files.push(s.blobs.path(sha))
    done += framesOf(source)
  }
  await work.progress('joining and levelling the sound', share.to)
  const file = path.join(folder, `${name}.mp4`)
  await joinSegments(files, file, folder, { signal: work.signal }, chapterMetadata(chaptersOf(parts)))
  const made = await countFrames(file)
  if (Math.abs(made - frames) > sources.length)
    throw new Error(`The film has ${made} frames; the cut list says ${frames}`)
  return { file, frames: made }
}
/** Frames of the film in which the picture is meant to stand still. */
function standStill({ sources }: Plan): { from: number; to: number }[] {
  let at = 0
  return sources.flatMap((x) => {
    const mine = stillStretches(x).map((y) => ({ from: y.from + at, to: y.to + at }))
    at += framesOf(x)
    return mine
  })
}
