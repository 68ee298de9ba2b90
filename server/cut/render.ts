import { createHash } from 'node:crypto'
import fs from 'node:fs/promises'
import path from 'node:path'
import { type CutSegment, framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardShapes, ringPlace, ringShapes } from '@awlbox/core/cut/card'
import { type Run, runsOf } from '@awlbox/core/cut/timeline'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import { type EncodeOptions, ffmpeg, filmSize, probe, videoCodec } from '../platform/media/ffmpeg.ts'
import { toPng } from '../platform/media/raster.ts'

/** Raised when the way segments are rendered changes, so that old files are not used. */
const renderVersion = 3
/** Pictures a second of the ring that fills: smooth enough for something that slow. */
const ringRate = 10

export interface TakeFilm {
  sha: string
  file: string
  seconds: number
}
export interface SegmentSource {
  cut: Pick<CutSegment, 'items'>
  /** Films of the takes it shows, by take id; spans of others are left out. */
  films: ReadonlyMap<string, TakeFilm>
}
const runsIn = (s: SegmentSource): Run[] => runsOf({ items: s.cut.items.filter((i) => i.kind !== 'clip' || s.films.has(i.takeId)) })
export const framesOf = (s: SegmentSource): number => runsIn(s).reduce((n, r) => n + r.frames, 0)

/** Hash of everything that goes into a segment's file: the same key is the same film. */
export const segmentKey = (s: SegmentSource): string =>
  createHash('sha256').update(JSON.stringify([renderVersion, runsIn(s).map((r) => r.kind === 'clip' ? [s.films.get(r.takeId)!.sha, r.from, r.frames] : r.kind === 'hold' ? ['hold', r.frames] : [r.card.look, r.card.title, r.card.lines, r.frames])])).digest('hex')

/** One part of a segment's filter graph: a clip or card with the holds that follow it. */
interface Part {
  run: Exclude<Run, { kind: 'hold' }>
  holds: number[]
}

/** Renders one segment to frames and uncompressed sound of exactly the same length. Joints fade over 10 ms so that they do not click. */
export async function renderSegment(s: SegmentSource, out: string, folder: string, options: EncodeOptions): Promise<void> {
  const parts: Part[] = []
  for (const run of runsIn(s)) {
    // A hold with no picture before it has nothing to hold: the card look of an empty table.
    if (run.kind === 'hold') parts.at(-1)?.holds.push(run.frames)
    else parts.push({ run, holds: [] })
  }
  const inputs: string[] = []
  const graph: string[] = []
  let count = 0
  const input = (...args: string[]): number => (inputs.push(...args), count++)
  const films = [...new Set(parts.flatMap((p) => (p.run.kind === 'clip' ? [p.run.takeId] : [])))]
  const clipsOf = (takeId: string) => parts.flatMap((p, i) => (p.run.kind === 'clip' && p.run.takeId === takeId ? [i] : []))
  for (const takeId of films) {
    const at = input('-protocol_whitelist', 'file,pipe', '-i', s.films.get(takeId)!.file)
    const mine = clipsOf(takeId)
    graph.push(`[${at}:v]split=${mine.length}${mine.map((i) => `[v${i}i]`).join('')}`, `[${at}:a]aresample=48000,apad,asplit=${mine.length}${mine.map((i) => `[a${i}i]`).join('')}`)
  }
  for (const [i, { run, holds }] of parts.entries()) {
    const still = holds.reduce((n, f) => n + f, 0)
    const [length, whole] = [run.frames / framesPerSecond, (run.frames + still) / framesPerSecond]
    const fade = Math.min(0.01, length / 4)
    // Frames are numbered anew: padding goes on from when its source ended, which for spans out of order is late.
    const hold = still ? `,tpad=stop=${still}:stop_mode=clone,setpts=N/${framesPerSecond}/TB,trim=end_frame=${run.frames + still}` : ''
    if (run.kind === 'clip') {
      graph.push(`[v${i}i]trim=start_frame=${run.from}:end_frame=${run.from + run.frames},setpts=PTS-STARTPTS${hold}[v${i}p]`)
      graph.push(`[a${i}i]atrim=start=${run.from / framesPerSecond}:duration=${length},asetpts=PTS-STARTPTS,afade=t=in:d=${fade},afade=t=out:st=${length - fade}:d=${fade},apad=whole_dur=${whole},atrim=duration=${whole}[a${i}]`)
    } else {
      const png = path.join(folder, `card${i}.png`)
      await fs.writeFile(png, toPng(toSvg(cardShapes(run.card), 1280, 720), filmSize.width))
      const at = input('-loop', '1', '-framerate', String(framesPerSecond), '-t', String(length + 1), '-i', png)
      graph.push(`[${at}:v]trim=end_frame=${run.frames},setsar=1,format=yuv420p${hold}[v${i}p]`, `anullsrc=r=48000:cl=mono,atrim=duration=${whole}[a${i}]`)
    }
    // Rings: over a stop card from its start, over each hold from the end of what it holds.
    const rings: { from: number; frames: number; place: { x: number; y: number } }[] = run.kind === 'card' && run.card.look === 'stop' ? [{ from: 0, frames: run.frames, place: ringPlace.stop }] : []
    holds.reduce((from, frames) => (rings.push({ from, frames, place: ringPlace.hold }), from + frames), run.frames)
    let last = `v${i}p`
    for (const [k, ring] of rings.entries()) {
      const at = input('-framerate', String(ringRate), '-i', await drawRing(folder, `${i}-${k}`, ring.frames))
      graph.push(`[${at}:v]fps=${framesPerSecond},tpad=start=${ring.from}:start_mode=clone,trim=end_frame=${ring.from + ring.frames}[r${i}x${k}]`)
      graph.push(`[${last}][r${i}x${k}]overlay=${ring.place.x}:${ring.place.y}:eof_action=pass:enable='between(n,${ring.from},${ring.from + ring.frames - 1})',format=yuv420p[v${i}o${k}]`)
      last = `v${i}o${k}`
    }
    graph.push(`[${last}]null[v${i}]`)
  }
  graph.push(`${parts.map((_, i) => `[v${i}][a${i}]`).join('')}concat=n=${parts.length}:v=1:a=1[v][a]`)
  await ffmpeg([...inputs, '-filter_complex', graph.join(';'), '-map', '[v]', '-map', '[a]', ...videoCodec, '-c:a', 'pcm_s16le', '-ac', '1', '-map_metadata', '-1', out], { ...options, expected: framesOf(s) / framesPerSecond })
}

/** Draws a ring filling over so many frames as numbered pictures, and gives their pattern. */
async function drawRing(folder: string, name: string, frames: number): Promise<string> {
  const n = Math.max(2, Math.ceil((frames / framesPerSecond) * ringRate) + 1)
  for (let k = 0; k < n; k++) await fs.writeFile(path.join(folder, `ring${name}-${k}.png`), toPng(toSvg(ringShapes(k / (n - 1)), 160, 160), 160))
  return path.join(folder, `ring${name}-%d.png`)
}

/** Loudness for phone and laptop speakers in kitchens (EBU R 128). */
const loudness = 'I=-16:TP=-1.5:LRA=11'

/** Joins segment files without encoding the picture again; the sound is levelled in two passes. */
export async function joinSegments(files: readonly string[], out: string, folder: string, options: EncodeOptions): Promise<void> {
  const list = path.join(folder, 'list.txt')
  await fs.writeFile(list, files.map((f) => `file '${f.replace(/'/g, "'\\''")}'`).join('\n'))
  const input = ['-f', 'concat', '-safe', '0', '-i', list]
  const report = await ffmpeg([...input, '-vn', '-af', `loudnorm=${loudness}:print_format=json`, '-f', 'null', '-'], { ...(options.signal ? { signal: options.signal } : {}) })
  const measured = JSON.parse(report.match(/\{[^{}]*"input_i"[^{}]*\}/)?.[0] ?? '{}') as Record<string, string>
  const level = Number(measured.input_i)
  const filter = Number.isFinite(level) && level > -60
    ? `loudnorm=${loudness}:measured_I=${measured.input_i}:measured_TP=${measured.input_tp}:measured_LRA=${measured.input_lra}:measured_thresh=${measured.input_thresh}:offset=${measured.target_offset}:linear=true,aresample=48000`
    : 'anull'
  await ffmpeg([...input, '-c:v', 'copy', '-af', filter, '-c:a', 'aac', '-b:a', '96k', '-ac', '1', '-movflags', '+faststart', '-map_metadata', '-1', out], options)
}

/** A frame of the film at `second`, as a JPEG. */
export async function posterOf(film: string, second: number, out: string): Promise<void> {
  await ffmpeg(['-ss', String(second), '-i', film, '-frames:v', '1', '-q:v', '4', out])
}

/** Frames the finished film really has. */
export async function countFrames(file: string): Promise<number> {
  const p = await probe(file)
  return p?.frames ?? Math.round((p?.seconds ?? 0) * framesPerSecond)
}
