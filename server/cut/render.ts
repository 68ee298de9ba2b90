import { createHash } from 'node:crypto'
import fs from 'node:fs/promises'
import path from 'node:path'
import { type CutSegment, framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardShapes } from '@awlbox/core/cut/card'
import { keptSpans, type Span, spanFrames } from '@awlbox/core/cut/spans'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import { type EncodeOptions, ffmpeg, filmSize, probe, videoCodec } from '../platform/media/ffmpeg.ts'
import { toPng } from '../platform/media/raster.ts'

/** Raised when the way segments are rendered changes, so that old files are not used. */
const renderVersion = 2

export interface SegmentSource {
  cut: CutSegment
  film: { sha: string; file: string; seconds: number } | null
}
export const spansOf = (s: SegmentSource): Span[] => (s.film ? keptSpans(s.cut, s.film.seconds) : [])
export const framesOf = (s: SegmentSource): number => spanFrames(spansOf(s)) + (s.cut.card ? Math.round(s.cut.card.seconds * framesPerSecond) : 0)

/** Hash of everything that goes into a segment's file: the same key is the same film. */
export const segmentKey = (s: SegmentSource): string =>
  createHash('sha256').update(JSON.stringify([renderVersion, s.film?.sha ?? null, spansOf(s), s.cut.card])).digest('hex')

/** Renders one segment to frames and uncompressed sound of exactly the same length. Joints fade over 10 ms so that they do not click. */
export async function renderSegment(s: SegmentSource, out: string, folder: string, options: EncodeOptions): Promise<void> {
  const inputs: string[] = []
  const graph: string[] = []
  const joined: string[] = []
  const spans = spansOf(s)
  if (spans.length) {
    inputs.push('-protocol_whitelist', 'file,pipe', '-i', s.film!.file)
    graph.push(`[0:v]split=${spans.length}${spans.map((_, i) => `[v${i}i]`).join('')}`, `[0:a]aresample=48000,apad,asplit=${spans.length}${spans.map((_, i) => `[a${i}i]`).join('')}`)
    spans.forEach((x, i) => {
      const [from, length] = [x.from / framesPerSecond, (x.to - x.from) / framesPerSecond]
      const fade = Math.min(0.01, length / 4)
      graph.push(`[v${i}i]trim=start_frame=${x.from}:end_frame=${x.to},setpts=PTS-STARTPTS[v${i}]`)
      graph.push(`[a${i}i]atrim=start=${from}:duration=${length},asetpts=PTS-STARTPTS,afade=t=in:d=${fade},afade=t=out:st=${length - fade}:d=${fade}[a${i}]`)
      joined.push(`[v${i}][a${i}]`)
    })
  }
  if (s.cut.card) {
    const png = path.join(folder, 'card.png')
    await fs.writeFile(png, toPng(toSvg(cardShapes(s.cut.card.text), 1280, 720), filmSize.width))
    const at = spans.length ? 1 : 0
    const frames = Math.round(s.cut.card.seconds * framesPerSecond)
    inputs.push('-loop', '1', '-framerate', String(framesPerSecond), '-t', String(s.cut.card.seconds + 1), '-i', png)
    graph.push(`[${at}:v]trim=end_frame=${frames},setsar=1,format=yuv420p[vc]`, `anullsrc=r=48000:cl=mono,atrim=duration=${frames / framesPerSecond}[ac]`)
    joined.push('[vc][ac]')
  }
  graph.push(`${joined.join('')}concat=n=${joined.length}:v=1:a=1[v][a]`)
  await ffmpeg([...inputs, '-filter_complex', graph.join(';'), '-map', '[v]', '-map', '[a]', ...videoCodec, '-c:a', 'pcm_s16le', '-ac', '1', '-map_metadata', '-1', out], { ...options, expected: framesOf(s) / framesPerSecond })
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
