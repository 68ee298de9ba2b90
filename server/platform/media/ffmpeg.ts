import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { film } from '@awlbox/core/film/camera/frame'
import type { TakeSound } from '@awlbox/core/contracts/take'
import { run, startBound, ToolError } from './run.ts'

/**
 * The one door to ffmpeg and ffprobe. Whatever is opened is opened by local protocols only: a playlist or header
 * inside a file cannot make them fetch anything. The limit stands before every input, since it holds for one alone.
 */
const local = ['-protocol_whitelist', 'file,pipe']
const localOnly = (args: readonly string[]): string[] =>
  args.flatMap((a) => (a === '-i' ? [...local, '-i'] : [a]))
export { film as filmSize }

/** What ffprobe says of a file as JSON; `show` are its arguments for what. @throws ToolError when it is no media file. */
export async function ffprobe(
  file: string,
  show: readonly string[],
  options: { signal?: AbortSignal } = {},
): Promise<unknown> {
  const { stdout } = await run('ffprobe', localOnly(['-v', 'error', ...show, '-of', 'json', '-i', file]), {
    limit: 30_000,
    ...options,
  })
  return JSON.parse(stdout)
}

/**
 * A file decoded to raw bytes, handed over as they come: `as` are the arguments after the input. `ended` gives what
 * ffmpeg reported. @throws ToolError through `ended` when the file cannot be read to its end.
 */
export function decode(
  file: string,
  as: readonly string[],
  signal?: AbortSignal,
): { bytes: AsyncIterable<Buffer>; ended: Promise<string> } {
  const child = startBound(
    'ffmpeg',
    localOnly(['-hide_banner', '-nostdin', '-nostats', '-i', file, ...as, 'pipe:1']),
    {
      stdio: ['ignore', 'pipe', 'pipe'],
      ...(signal ? { signal } : {}),
    },
  )
  let report = ''
  child.stderr!.setEncoding('utf8').on('data', (t: string) => {
    report = (report + t).slice(-200_000)
  })
  const ended = new Promise<string>((resolve, reject) => {
    child.on('error', reject)
    child.on('close', (code) =>
      code === 0 ? resolve(report) : reject(new ToolError('ffmpeg', code, report)),
    )
  })
  // Whoever waits for it sees the failure; until then it only must not count as one that nobody hears.
  ended.catch(heardByWhoWaits)
  return { bytes: child.stdout!, ended }
}
const heardByWhoWaits = (): void => undefined

export interface Probe {
  seconds: number
  video: { width: number; height: number } | null
  audio: boolean
  /** Of the first sound stream; 0 where there is none. */
  channels: number
  rate: number
  frames: number | null
}

/** What a media file holds; null when it is none. */
export async function probe(file: string): Promise<Probe | null> {
  try {
    const info = (await ffprobe(file, ['-show_streams', '-show_format'])) as {
      streams?: {
        codec_type: string
        codec_name?: string
        width?: number
        height?: number
        nb_frames?: string
        duration?: string
        channels?: number
        sample_rate?: string
        disposition?: { attached_pic?: number }
      }[]
      format?: { duration?: string; format_name?: string }
    }
    const video = info.streams?.find((s) => s.codec_type === 'video' && !s.disposition?.attached_pic)
    const sound = info.streams?.find((s) => s.codec_type === 'audio')
    const audio = sound !== undefined
    if (
      (!video && !audio) ||
      /tty|lrc|srt|webvtt|subviewer|image2|_pipe$/.test(info.format?.format_name ?? '')
    )
      return null
    const told = Number(info.format?.duration ?? video?.duration ?? 0) || 0
    // A browser's recording of sound alone says no length, and has no picture to measure it by.
    const seconds = told || video ? told : await soundSeconds(file)
    return {
      seconds,
      video: video ? { width: video.width ?? 0, height: video.height ?? 0 } : null,
      audio,
      channels: sound?.channels ?? 0,
      rate: Number(sound?.sample_rate ?? 0),
      frames: video?.nb_frames ? Number(video.nb_frames) : null,
    }
  } catch (error) {
    if (error instanceof ToolError) return null
    throw error
  }
}

/** How long a file's sound is, by decoding it; 0 of an empty one. */
async function soundSeconds(file: string): Promise<number> {
  const { stdout } = await run(
    'ffmpeg',
    localOnly([
      '-v',
      'error',
      '-nostdin',
      '-i',
      file,
      '-map',
      '0:a:0',
      '-progress',
      'pipe:1',
      '-f',
      'null',
      '-',
    ]),
    { limit: 120_000 },
  )
  return Number([...stdout.matchAll(/^out_time_us=(\d+)/gm)].at(-1)?.[1] ?? 0) / 1e6
}

/** Which of a clip's channels to use, as its sound was found to be. */
type Ears = TakeSound['used']
export const toMono: Record<Ears, string> = {
  both: 'aformat=channel_layouts=mono',
  left: 'pan=mono|c0=c0',
  right: 'pan=mono|c0=c1',
}

export interface EncodeOptions {
  /** The stretch of the source, in seconds; all of it where none is given. */
  part?: { from: number; to: number } | null
  ears?: Ears
  signal?: AbortSignal
  /** Seconds that will be written, for the share done. */
  expected?: number
  onShare?: (share: number) => void
  /** Milliseconds it may take; three hours where nothing is said. */
  limit?: number
}
/** Runs ffmpeg on local files, reporting the share done by the time written. */
export async function ffmpeg(args: readonly string[], options: EncodeOptions = {}): Promise<string> {
  const { stderr } = await run(
    'ffmpeg',
    [
      '-hide_banner',
      '-nostdin',
      '-y',
      '-loglevel',
      'info',
      '-nostats',
      ...(options.onShare ? ['-progress', 'pipe:1'] : []),
      ...localOnly(args),
    ],
    {
      ...(options.signal ? { signal: options.signal } : {}),
      limit: options.limit ?? 3 * 3600_000,
      onLine: (line) => {
        const at = line.match(/^out_time_us=(\d+)/)
        if (at && options.expected) options.onShare?.(Math.min(1, Number(at[1]) / 1e6 / options.expected))
      },
    },
  )
  return stderr
}

/**
 * How films are coded. `quick` (AWLBOX_CODING) needs about half the computing for larger files: for slow machines with
 * room on their disk.
 */
export const coding = process.env.AWLBOX_CODING === 'quick' ? 'ultrafast' : 'veryfast'
/** Ticks a second of the picture's track: every take and every piece rendered has the same, so that they join. */
export const timeScale = ['-video_track_timescale', '15360']
export const videoCodec = [
  '-c:v',
  'libx264',
  '-preset',
  coding,
  '-crf',
  '20',
  '-pix_fmt',
  'yuv420p',
  '-r',
  String(framesPerSecond),
  ...timeScale,
  '-g',
  String(framesPerSecond * 2),
]
/** Filters that fit any picture into the frame, with bars of linen where it is narrower. */
export const fitFrame = `scale=${film.width}:${film.height}:force_original_aspect_ratio=decrease:force_divisible_by=2,pad=${film.width}:${film.height}:(ow-iw)/2:(oh-ih)/2:color=0xE9EBE6,setsar=1`

/** 16 kHz mono sound as the recogniser wants it. */
export const toSpeechWav = (source: string, out: string, options: EncodeOptions = {}): Promise<string> =>
  ffmpeg(
    [
      ...cutFrom(options.part ?? null),
      '-i',
      source,
      ...(options.part ? ['-t', String(options.part.to - options.part.from)] : []),
      '-vn',
      '-af',
      `aresample=16000:async=1:first_pts=0,${toMono[options.ears ?? 'both']}`,
      '-ar',
      '16000',
      '-c:a',
      'pcm_s16le',
      out,
    ],
    options,
  )

/** What stands before an input of which only a stretch is read. */
export const cutFrom = (part: { from: number; to: number } | null): string[] =>
  part ? ['-ss', String(part.from)] : []
