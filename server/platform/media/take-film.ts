import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { film } from '@awlbox/core/film/camera/frame'
import {
  cutFrom,
  type EncodeOptions,
  ffmpeg,
  ffprobe,
  fitFrame,
  type Probe,
  timeScale,
  toMono,
  videoCodec,
} from './ffmpeg.ts'
import { ToolError } from './run.ts'

/** Bits a second above which a picture is coded anew: twice what ours come to, and homes pay for every one. */
const mostBits = 8_000_000
/** Seconds between whole pictures; further apart, moving about in a film stutters. */
const betweenWhole = 2.1

interface Stream {
  codec_name?: string
  profile?: string
  pix_fmt?: string
  width?: number
  height?: number
  sample_aspect_ratio?: string
  field_order?: string
  color_range?: string
  color_transfer?: string
  side_data_list?: unknown[]
}
interface Told {
  streams?: Stream[]
  packets?: { pts_time?: string; size?: string; flags?: string }[]
}

/**
 * How many frames a clip has whose picture is already as a take's is: 720p, upright, thirty even frames a second from
 * the first on, in a coding every browser plays, whole to its end. Such a picture loses nothing and takes no time when
 * it is taken over as it is. Null for any other, and wherever it cannot be told.
 */
async function framesAsTheyAre(file: string, signal?: AbortSignal): Promise<number | null> {
  try {
    const { streams, packets } = (await ffprobe(
      file,
      [
        ...['-select_streams', 'v', '-show_entries'],
        'stream=codec_name,profile,pix_fmt,width,height,sample_aspect_ratio,field_order,color_range,color_transfer:stream_side_data:packet=pts_time,size,flags',
      ],
      signal ? { signal } : {},
    )) as Told
    if (streams?.length !== 1 || !isPlain(streams[0]!) || !packets?.length || !isEven(packets)) return null
    // What is damaged shows only when it is looked at.
    const check = ['-loglevel', 'error', '-xerror', '-i', file, '-map', '0:v:0', '-f', 'null', '-']
    const said = await ffmpeg(check, signal ? { signal } : {})
    return said.trim() ? null : packets.length
  } catch (error) {
    if (error instanceof ToolError) return null
    throw error
  }
}

/** What is not told of a picture is as it usually is. */
const usual = {
  sample_aspect_ratio: '1:1',
  field_order: 'progressive',
  color_range: 'tv',
  color_transfer: '',
}
function isPlain(told: Stream): boolean {
  const v = { ...usual, ...told }
  return (
    v.codec_name === 'h264' &&
    /^(Constrained Baseline|Main|High)$/.test(v.profile ?? '') &&
    v.pix_fmt === 'yuv420p' &&
    v.width === film.width &&
    v.height === film.height &&
    ['1:1', 'N/A'].includes(v.sample_aspect_ratio) &&
    v.field_order === 'progressive' &&
    v.color_range === 'tv' &&
    // Brighter than a screen: it is told darker first.
    !/2084|b67/.test(v.color_transfer) &&
    !v.side_data_list?.length
  )
}
function isEven(packets: NonNullable<Told['packets']>): boolean {
  const shown = packets
    .map((p) => ({ at: Number(p.pts_time) * framesPerSecond, whole: p.flags?.startsWith('K') ?? false }))
    .sort((a, b) => a.at - b.at)
  const bits = packets.reduce((n, p) => n + Number(p.size) * 8, 0)
  let whole = 0
  return (
    shown[0]!.whole &&
    bits / (packets.length / framesPerSecond) <= mostBits &&
    shown.every((p, i) => {
      if (p.whole) whole = i
      return Math.abs(p.at - i) < 0.05 && i - whole <= betweenWhole * framesPerSecond
    })
  )
}

/**
 * Any clip as 720p at a constant 30 frames a second, upright, playable in browsers; a picture that is so already is
 * taken over as it is. A clip without picture gets a plain ground; one without sound gets silence, so that all takes
 * cut alike.
 */
export async function toTakeFilm(
  source: string,
  out: string,
  p: Probe,
  options: EncodeOptions,
): Promise<void> {
  const part = options.part ?? null
  const frames = p.video && !part ? await framesAsTheyAre(source, options.signal) : null
  // Sound that goes on when the picture has ended needs the last picture held, which is coding again.
  const asItIs = frames !== null && p.seconds <= (frames + 1) / framesPerSecond
  const seconds = asItIs
    ? frames / framesPerSecond
    : part
      ? part.to - part.from
      : p.seconds > 0
        ? p.seconds
        : 60
  // Picture and sound of a clip rarely end together: the shorter is held to the end of the longer, where its length is known.
  const hold = part !== null || p.seconds > 0
  const picture = asItIs ? [] : [pictureOf(p, seconds, hold)]
  const sound = p.audio
    ? '[0:a]aresample=48000:async=1:first_pts=0,' +
      toMono[options.ears ?? 'both'] +
      (hold ? ',apad' : '') +
      // What is taken over as it is, is not cut by its length: the sound ends with it.
      (asItIs ? `,atrim=duration=${seconds}` : '') +
      '[a]'
    : `anullsrc=r=48000:cl=mono,atrim=duration=${seconds}[a]`
  const length = hold ? ['-t', String(seconds)] : ['-shortest']
  await ffmpeg(
    [
      ...cutFrom(part),
      ...['-i', source, '-filter_complex', [...picture, sound].join(';')],
      ...['-map', asItIs ? '0:v:0' : '[v]', '-map', '[a]'],
      // What a camera writes between the pictures (its make, where it was) is left behind.
      ...(asItIs ? ['-c:v', 'copy', '-bsf:v', 'filter_units=remove_types=6'] : videoCodec),
      ...['-c:a', 'aac', '-b:a', '96k'],
      ...(asItIs ? timeScale : length),
      ...['-movflags', '+faststart', '-map_metadata', '-1', out],
    ],
    { ...options, expected: seconds },
  )
}
/** The filter that makes a clip's picture a take's; a plain ground where it has none. */
const pictureOf = (p: Probe, seconds: number, hold: boolean): string =>
  p.video
    ? `[0:v]fps=${framesPerSecond},${fitFrame}${hold ? ',tpad=stop_mode=clone:stop=-1' : ''}[v]`
    : `color=c=0xE9EBE6:s=${film.width}x${film.height}:r=${framesPerSecond}:d=${seconds}[v]`
