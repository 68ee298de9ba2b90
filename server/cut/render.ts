import type { Frames, Seconds } from '@awlbox/core/contracts/units'
import { createHash } from 'node:crypto'
import fs from 'node:fs/promises'
import path from 'node:path'
import { type CutSegment, framesPerSecond, type Overlay, type Repair } from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { FilmCue } from '@awlbox/core/cut/captions'
import { captionShapes } from '@awlbox/core/cut/caption-drawing'
import { cardShapes, ringPlace, ringShapes } from '@awlbox/core/cut/card'
import { magnifierShapes, overlayShapes } from '@awlbox/core/cut/overlay-drawing'
import { film } from '@awlbox/core/film/camera/frame'
import { isCovered, isPlainRepair, plainRepair, repairOf } from '@awlbox/core/cut/repairs'
import {
  type ClipRun,
  layOut,
  plays,
  type Run,
  runsOf,
  stretchesOf,
  toFrame,
  toSeconds,
} from '@awlbox/core/cut/timeline'
import type { Shape } from '@awlbox/core/script/table/drawing/paper'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import type { TableState } from '@awlbox/core/script/table/state'
import { coding, type EncodeOptions, ffmpeg, filmSize, probe, videoCodec } from '../platform/media/ffmpeg.ts'
import { levelled, loudnessOf } from '../platform/media/loudness.ts'
import { toPng } from '../platform/media/raster.ts'
import { pictureFilters, soundFilters } from './repair-filters.ts'
import type { RoomTone } from '@awlbox/core/contracts/render'

/** Raised when the way segments are rendered changes, so that old files are not used. */
const renderVersion = 5
/** Pictures a second of the ring that fills: smooth enough for something that slow. */
const ringRate = 10

export interface TakeFilm {
  sha: string
  file: string
  seconds: Seconds
  /** Only the room, laid under cards and held pictures; silence where there is none. */
  tone?: RoomTone | null
  /** Level of the room's noise, decibels under full scale, where it was measured. */
  noise?: number | null
}
export interface SegmentSource {
  cut: Pick<CutSegment, 'items'> & Partial<Pick<CutSegment, 'overlays'>>
  /** Films of the takes it shows or lets be heard, by take id; spans of others are left out. */
  films: ReadonlyMap<string, TakeFilm>
  repairs?: readonly Repair[]
  /** The table after a step, for cards and overlays that draw it. */
  tables?: (stepId: string) => TableState | null
  fill: HouseStyle['frameFill']
  /** Captions to be drawn into the picture; times are the segment's. */
  burnt?: readonly Pick<FilmCue, 'start' | 'end' | 'text' | 'top'>[]
}
const itemsIn = (s: SegmentSource): CutSegment['items'] =>
  s.cut.items.filter((i) => i.kind !== 'clip' || s.films.has(i.takeId))
/** Its runs; one whose other sound is gone has its own. */
const runsIn = (s: SegmentSource): Run[] =>
  runsOf({ items: itemsIn(s) }).map((r) =>
    r.kind === 'clip' && r.voice && !s.films.has(r.voice.takeId) ? { ...r, voice: null } : r,
  )
export const framesOf = (s: SegmentSource): number => runsIn(s).reduce((n, r) => n + r.frames, 0)
const repairIn = (s: SegmentSource, takeId: string): Repair => repairOf({ repairs: s.repairs ?? [] }, takeId)
const cardPicture = (s: SegmentSource, card: Extract<Run, { kind: 'card' }>['card']): string => {
  const beside = card.table ? (s.tables?.(card.table) ?? null) : null
  return toSvg(cardShapes(card, beside && { table: beside, fill: s.fill }), film.width, film.height)
}

/** Something drawn over the segment's film for some of its frames. */
interface Drawn {
  from: number
  to: number
  x: number
  y: number
  w: number
  h: number
  shapes: Shape[]
  /** What of the film itself is shown enlarged there. */
  magnify: Overlay['at']
}
/** Overlays and burnt-in captions as they come in the segment's film. */
function drawnOver(s: SegmentSource): Drawn[] {
  const cut = { items: itemsIn(s) }
  const out: Drawn[] = []
  for (const o of s.cut.overlays ?? []) {
    if (!plays(o)) continue
    const shapes = overlayShapes(o, o.stepId ? (s.tables?.(o.stepId) ?? null) : null, s.fill)
    for (const at of stretchesOf(cut, o.takeId, toSeconds(o.from), toSeconds(o.to), 'picture')) {
      const [from, to] = [toFrame(at.start), toFrame(at.end)]
      const { x, y, w, h } = o.place
      if (to <= from) continue
      if (shapes) out.push({ from, to, x, y, w, h, shapes, magnify: null })
      else if (o.at)
        out.push(
          { from, to, x, y, w, h, shapes: [], magnify: o.at },
          { from, to, x: 0, y: 0, w: film.width, h: film.height, shapes: magnifierShapes(o), magnify: null },
        )
    }
  }
  for (const c of s.burnt ?? []) {
    const { shapes, box } = captionShapes(c.text, c.top)
    out.push({
      from: toFrame(c.start),
      to: Math.max(toFrame(c.start) + 1, toFrame(c.end)),
      ...box,
      shapes,
      magnify: null,
    })
  }
  return out
}

/** Hash of everything that goes into a segment's file: the same key is the same film. */
export function segmentKey(s: SegmentSource): string {
  const of = (takeId: string) => {
    const repair = repairIn(s, takeId)
    return [
      s.films.get(takeId)!.sha,
      repair.hiss ? (s.films.get(takeId)!.noise ?? null) : null,
      isPlainRepair(repair) ? null : { ...repair, hidden: repair.hidden.filter(isCovered) },
    ]
  }
  const all = runsIn(s)
  const runs = all.map((r) =>
    r.kind === 'clip'
      ? [of(r.takeId), r.from, r.frames, r.still, r.voice ? [of(r.voice.takeId), r.voice.from] : null]
      : r.kind === 'hold'
        ? ['hold', r.frames]
        : [cardPicture(s, r.card), r.card.look === 'stop', r.frames],
  )
  const shown = new Set(all.flatMap((r) => (r.kind === 'clip' ? [r.takeId] : [])))
  const quiet = all.some((r) => r.kind !== 'clip')
  const tones = quiet ? [...shown].map((id) => s.films.get(id)!.tone ?? null) : []
  return (
    createHash('sha256')
      // Files coded differently cannot be joined without coding them again.
      .update(
        JSON.stringify([
          renderVersion,
          runs,
          tones,
          drawnOver(s),
          ...(coding === 'veryfast' ? [] : [coding]),
        ]),
      )
      .digest('hex')
  )
}

/** One part of a segment's filter graph: a clip or card with the holds that follow it. */
interface Part {
  run: Exclude<Run, { kind: 'hold' }>
  holds: number[]
}
/** A filter graph in the making. */
interface Graph {
  inputs: string[]
  filters: string[]
  input: (...args: string[]) => number
}
function newGraph(): Graph {
  const inputs: string[] = []
  let count = 0
  return {
    inputs,
    filters: [],
    input: (...args) => {
      inputs.push(...args)
      return count++
    },
  }
}

/** Renders one segment to frames and uncompressed sound of exactly the same length. Joints fade over 10 ms so that they do not click. */
export async function renderSegment(
  s: SegmentSource,
  out: string,
  folder: string,
  options: EncodeOptions,
): Promise<void> {
  const parts: Part[] = []
  for (const run of runsIn(s)) {
    // A hold with no picture before it has nothing to hold: the card look of an empty table.
    if (run.kind === 'hold') parts.at(-1)?.holds.push(run.frames)
    else parts.push({ run, holds: [] })
  }
  const g = newGraph()
  await takeInputs(s, parts, g, folder, options)
  const tones = await toneFiles(s, parts, folder, options)
  for (const [i, part] of parts.entries()) {
    const { run, holds } = part
    const still = holds.reduce((n, f) => n + f, 0)
    // Frames are numbered anew: padding goes on from when its source ended, which for spans out of order is late.
    const hold = still
      ? `,tpad=stop=${still}:stop_mode=clone,setpts=N/${framesPerSecond}/TB,trim=end_frame=${run.frames + still}`
      : ''
    if (run.kind === 'clip') clipPart(s, run, i, hold, g)
    else {
      const png = path.join(folder, `card${i}.png`)
      await fs.writeFile(png, toPng(cardPicture(s, run.card), filmSize.width))
      const at = g.input(
        '-loop',
        '1',
        '-framerate',
        String(framesPerSecond),
        '-t',
        String(run.frames / framesPerSecond + 1),
        '-i',
        png,
      )
      g.filters.push(`[${at}:v]trim=end_frame=${run.frames},setsar=1,format=yuv420p${hold}[v${i}p]`)
    }
    soundPart(part, still, i, tones[i] ?? null, g)
    await rings(part, i, folder, g)
  }
  g.filters.push(`${parts.map((_, i) => `[v${i}][a${i}]`).join('')}concat=n=${parts.length}:v=1:a=1[vc][a]`)
  const picture = await drawOver(s, 'vc', folder, g)
  // Long graphs go in by file: a command line has an end.
  const script = path.join(folder, 'graph.txt')
  await fs.writeFile(script, g.filters.join(';\n'))
  await ffmpeg(
    [
      ...g.inputs,
      '-filter_complex_script',
      script,
      '-map',
      `[${picture}]`,
      '-map',
      '[a]',
      ...videoCodec,
      '-c:a',
      'pcm_s16le',
      '-ac',
      '1',
      '-map_metadata',
      '-1',
      out,
    ],
    { ...options, expected: framesOf(s) / framesPerSecond },
  )
}

/** Opens each take once and parts it among the clips that show it and those that let it be heard. */
async function takeInputs(
  s: SegmentSource,
  parts: readonly Part[],
  g: Graph,
  folder: string,
  options: EncodeOptions,
): Promise<void> {
  const clips = parts.flatMap((p, i) => (p.run.kind === 'clip' ? [{ run: p.run, i }] : []))
  const heardIn = (r: ClipRun): string => (r.voice ?? r).takeId
  for (const takeId of new Set(clips.flatMap(({ run }) => [run.takeId, heardIn(run)]))) {
    const repair = repairIn(s, takeId)
    const at = g.input(
      '-i',
      repair.steady
        ? await steadied(s.films.get(takeId)!, repair, folder, options)
        : s.films.get(takeId)!.file,
    )
    const [seen, heard] = [
      clips.filter((c) => c.run.takeId === takeId),
      clips.filter((c) => heardIn(c.run) === takeId),
    ]
    if (seen.length) g.filters.push(`[${at}:v]split=${seen.length}${seen.map((c) => `[v${c.i}i]`).join('')}`)
    if (heard.length)
      g.filters.push(
        `[${at}:a]${soundFilters(repair, s.films.get(takeId)!.noise)},apad,asplit=${heard.length}${heard.map((c) => `[a${c.i}i]`).join('')}`,
      )
  }
}

function clipPart(s: SegmentSource, run: ClipRun, i: number, hold: string, g: Graph): void {
  const { from, frames } = run
  const length = frames / framesPerSecond
  const fade = Math.min(0.01, length / 4)
  // A still picture is mended as the one picture it is, covers and all, and only then goes on.
  const seen = run.still ? 1 : frames
  g.filters.push(`[v${i}i]trim=start_frame=${from}:end_frame=${from + seen},setpts=PTS-STARTPTS[v${i}t]`)
  const mended = pictureFilters(repairIn(s, run.takeId), from, seen, `v${i}t`, `v${i}`, g.filters, {
    covers: repairIn(s, run.takeId).steady,
  })
  const on = run.still ? `tpad=stop=${frames - 1}:stop_mode=clone,setpts=N/${framesPerSecond}/TB` : 'null'
  g.filters.push(`[${mended}]${on}${hold}[v${i}p]`)
  const voice = (run.voice ?? run).from
  g.filters.push(
    `[a${i}i]atrim=start=${voice / framesPerSecond}:duration=${length},asetpts=PTS-STARTPTS,afade=t=in:d=${fade},afade=t=out:st=${length - fade}:d=${fade}[a${i}s]`,
  )
}

/** A part's sound: its own, then the room for as long as its picture is held. */
function soundPart({ run }: Part, still: number, i: number, tone: string | null, g: Graph): void {
  const own = run.kind === 'clip' ? run.frames : 0
  const quiet = run.kind === 'clip' ? still : run.frames + still
  const seconds = quiet / framesPerSecond
  if (quiet) {
    const fade = Math.min(0.01, seconds / 4)
    if (tone)
      g.filters.push(
        `[${g.input('-i', tone)}:a]atrim=duration=${seconds},afade=t=in:d=${fade},afade=t=out:st=${seconds - fade}:d=${fade}[a${i}q]`,
      )
    else g.filters.push(`anullsrc=r=48000:cl=mono,atrim=duration=${seconds}[a${i}q]`)
  }
  const whole = `apad=whole_dur=${(own + quiet) / framesPerSecond},atrim=duration=${(own + quiet) / framesPerSecond}`
  if (own && quiet)
    g.filters.push(
      `[a${i}s]aformat=sample_fmts=fltp:channel_layouts=mono,apad=whole_dur=${own / framesPerSecond}[a${i}l];[a${i}q]aformat=sample_fmts=fltp:channel_layouts=mono[a${i}r];[a${i}l][a${i}r]concat=n=2:v=0:a=1,${whole}[a${i}]`,
    )
  else g.filters.push(`[a${i}${own ? 's' : 'q'}]${whole}[a${i}]`)
}

/** For each part with quiet in it, a file with the room of the take before it (or after), forwards and backwards so that its ends meet. */
async function toneFiles(
  s: SegmentSource,
  parts: readonly Part[],
  folder: string,
  options: EncodeOptions,
): Promise<(string | null)[]> {
  const takeOf = (p: Part | undefined): string | null => (p?.run.kind === 'clip' ? p.run.takeId : null)
  const made = new Map<string, string>()
  const out: (string | null)[] = []
  for (const [i, p] of parts.entries()) {
    const quiet = p.run.kind === 'card' || p.holds.length > 0
    const takeId =
      takeOf(p) ??
      takeOf(parts.slice(0, i).findLast((x) => takeOf(x))) ??
      takeOf(parts.slice(i).find((x) => takeOf(x)))
    const tone = takeId ? s.films.get(takeId)!.tone : null
    if (!quiet || !takeId || !tone) {
      out.push(null)
      continue
    }
    if (!made.has(takeId)) {
      const file = path.join(folder, `tone-${made.size}.wav`)
      const longest =
        Math.max(
          ...parts.map(
            (x) => (x.run.kind === 'card' ? x.run.frames : 0) + x.holds.reduce((n, f) => n + f, 0),
          ),
        ) / framesPerSecond
      const loop = Math.ceil(longest / (2 * (tone.to - tone.from)))
      await ffmpeg(
        [
          '-i',
          s.films.get(takeId)!.file,
          '-filter_complex',
          `[0:a]${soundFilters(repairIn(s, takeId), s.films.get(takeId)!.noise)},atrim=start=${tone.from}:end=${tone.to},asetpts=PTS-STARTPTS,aformat=channel_layouts=mono,asplit[f][b];[b]areverse[r];[f][r]concat=n=2:v=0:a=1,aloop=loop=${loop}:size=${Math.round(2 * (tone.to - tone.from) * 48_000)}[t]`,
          '-map',
          '[t]',
          '-c:a',
          'pcm_s16le',
          file,
        ],
        options.signal ? { signal: options.signal } : {},
      )
      made.set(takeId, file)
    }
    out.push(made.get(takeId)!)
  }
  return out
}

/** A take's film with its shaking taken out (and its covers on, which follow the picture as it was filmed). */
async function steadied(
  take: TakeFilm,
  repair: Repair,
  folder: string,
  options: EncodeOptions,
): Promise<string> {
  const name = createHash('sha256')
    .update(JSON.stringify([take.sha, repair.hidden]))
    .digest('hex')
    .slice(0, 16)
  const [moves, out] = [path.join(folder, `${name}.trf`), path.join(folder, `${name}.mp4`)]
  if (
    await fs.access(out).then(
      () => true,
      () => false,
    )
  )
    return out
  const input = ['-i', take.file]
  const signal = options.signal ? { signal: options.signal } : {}
  await ffmpeg(
    [...input, '-an', '-vf', `vidstabdetect=shakiness=6:accuracy=12:result=${moves}`, '-f', 'null', '-'],
    signal,
  )
  const graph: string[] = []
  const covered = pictureFilters(
    { ...plainRepair(repair.takeId), hidden: repair.hidden },
    0,
    toFrame(take.seconds),
    '0:v',
    's',
    graph,
  )
  graph.push(
    `[${covered}]vidstabtransform=input=${moves}:smoothing=30:optzoom=1:interpol=bicubic,format=yuv420p[v]`,
  )
  await ffmpeg(
    [
      ...input,
      '-filter_complex',
      graph.join(';'),
      '-map',
      '[v]',
      '-map',
      '0:a',
      ...videoCodec,
      '-crf',
      '14',
      '-c:a',
      'copy',
      out,
    ],
    signal,
  )
  return out
}

/** Rings: over a stop card from its start, over each hold from the end of what it holds. */
async function rings({ run, holds }: Part, i: number, folder: string, g: Graph): Promise<void> {
  const all: { from: number; frames: Frames; place: { x: number; y: number } }[] =
    run.kind === 'card' && run.card.look === 'stop'
      ? [{ from: 0, frames: run.frames, place: ringPlace.stop }]
      : []
  holds.reduce((from, frames) => {
    all.push({ from, frames, place: ringPlace.hold })
    return from + frames
  }, run.frames)
  let last = `v${i}p`
  for (const [k, ring] of all.entries()) {
    const at = g.input('-framerate', String(ringRate), '-i', await drawRing(folder, `${i}-${k}`, ring.frames))
    g.filters.push(
      `[${at}:v]fps=${framesPerSecond},tpad=start=${ring.from}:start_mode=clone,trim=end_frame=${ring.from + ring.frames}[r${i}x${k}]`,
    )
    g.filters.push(
      `[${last}][r${i}x${k}]overlay=${ring.place.x}:${ring.place.y}:eof_action=pass:enable='between(n,${ring.from},${ring.from + ring.frames - 1})',format=yuv420p[v${i}o${k}]`,
    )
    last = `v${i}o${k}`
  }
  g.filters.push(`[${last}]null[v${i}]`)
}
/** Draws a ring filling over so many frames as numbered pictures, and gives their pattern. */
async function drawRing(folder: string, name: string, frames: Frames): Promise<string> {
  const n = Math.max(2, Math.ceil((frames / framesPerSecond) * ringRate) + 1)
  for (let k = 0; k < n; k++)
    await fs.writeFile(
      path.join(folder, `ring${name}-${k}.png`),
      toPng(toSvg(ringShapes(k / (n - 1)), 160, 160), 160),
    )
  return path.join(folder, `ring${name}-%d.png`)
}

/** Everything that comes over the segment's film, drawn with the drawing code of the screen. Gives the last label. */
async function drawOver(s: SegmentSource, input: string, folder: string, g: Graph): Promise<string> {
  let last = input
  for (const [k, d] of drawnOver(s).entries()) {
    const enable = `enable='between(n,${d.from},${d.to - 1})'`
    if (d.magnify) {
      const m = d.magnify
      g.filters.push(
        `[${last}]split[m${k}a][m${k}b];[m${k}b]crop=${Math.round(m.w)}:${Math.round(m.h)}:${Math.round(m.x)}:${Math.round(m.y)},scale=${Math.round(d.w / 2) * 2}:${Math.round(d.h / 2) * 2}:flags=bicubic[m${k}c];[m${k}a][m${k}c]overlay=${Math.round(d.x)}:${Math.round(d.y)}:${enable}[m${k}]`,
      )
    } else {
      const png = path.join(folder, `over${k}.png`)
      await fs.writeFile(png, toPng(toSvg(d.shapes, d.w, d.h), Math.max(2, Math.round(d.w))))
      g.filters.push(
        `[${last}][${g.input('-i', png)}:v]overlay=${Math.round(d.x)}:${Math.round(d.y)}:${enable}[m${k}]`,
      )
    }
    last = `m${k}`
  }
  g.filters.push(`[${last}]format=yuv420p[vout]`)
  return 'vout'
}

/** Joins segment files without encoding the picture again; the sound is levelled in two passes. `chapters` is ffmpeg's metadata text. */
export async function joinSegments(
  files: readonly string[],
  out: string,
  folder: string,
  options: EncodeOptions,
  chapters: string | null = null,
): Promise<void> {
  const list = path.join(folder, 'list.txt')
  await fs.writeFile(list, files.map((f) => `file '${f.replace(/'/g, "'\\''")}'`).join('\n'))
  const input = ['-f', 'concat', '-safe', '0', '-i', list]
  const filter = levelled(await loudnessOf(input, options.signal ? { signal: options.signal } : {}))
  const meta = path.join(folder, 'chapters.txt')
  if (chapters !== null) await fs.writeFile(meta, chapters)
  await ffmpeg(
    [
      ...input,
      ...(chapters === null ? [] : ['-f', 'ffmetadata', '-i', meta]),
      '-map',
      '0:v',
      '-map',
      '0:a',
      '-c:v',
      'copy',
      '-af',
      filter,
      '-c:a',
      'aac',
      '-b:a',
      '96k',
      '-ac',
      '1',
      '-movflags',
      '+faststart',
      ...(chapters === null ? ['-map_metadata', '-1'] : ['-map_metadata', '1', '-map_chapters', '1']),
      out,
    ],
    options,
  )
}

/** A frame of the film at `second`, as a JPEG. */
export async function posterOf(file: string, second: number, out: string): Promise<void> {
  await ffmpeg(['-ss', String(second), '-i', file, '-frames:v', '1', '-q:v', '4', out])
}

/** Frames the finished film really has. */
export async function countFrames(file: string): Promise<number> {
  const p = await probe(file)
  return p?.frames ?? Math.round((p?.seconds ?? 0) * framesPerSecond)
}
/** Frames of a segment at which its cards stand: for telling pictures that are meant to stand still. */
export const stillStretches = (s: SegmentSource): { from: number; to: number }[] =>
  layOut({ items: itemsIn(s) }).flatMap(({ item, at }) =>
    item.kind === 'clip' ? [] : [{ from: at, to: at + item.frames }],
  )
