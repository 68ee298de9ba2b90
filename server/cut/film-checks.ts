import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { FilmCheck } from '@awlbox/core/contracts/render'
import { flashFinder } from '@awlbox/core/cut/flashes'
import { clockTime } from '@awlbox/core/words'
import { loudnessOf } from '../platform/media/loudness.ts'
import { eachPicture } from '../platform/media/pictures.ts'
import { ffprobe } from '../platform/media/ffmpeg.ts'

/** The picture in blocks, small enough that only areas count. */
const blocks = { width: 32, height: 18 } as const
/** Seconds: a black picture longer than this is a fault; one that stands still while nothing holds it is worth a look. */
const [black, frozen] = [0.5, 20]
/** Seconds by which picture and sound may end apart. */
const apart = 0.08
/** Decibels: no peak of a levelled film is above this. */
const loudest = -0.5

/** Looks the finished film through: flashes, black or frozen stretches, clipped sound, picture and sound of one length. `still`: stretches (frames) that are meant to stand still. */
export async function checkFilm(
  film: string,
  still: readonly { from: number; to: number }[],
  signal?: AbortSignal,
): Promise<FilmCheck[]> {
  const out: FilmCheck[] = []
  const finder = flashFinder(blocks.width * blocks.height, framesPerSecond)
  const report = await eachPicture(
    film,
    {
      ...blocks,
      before: [
        'scale=320:180:flags=area',
        `blackdetect=d=${black}:pic_th=0.98:pix_th=0.08`,
        `freezedetect=n=-60dB:d=${frozen}`,
      ],
      ...(signal ? { signal } : {}),
    },
    (rgb) => finder.frame(rgb),
  )
  for (const f of finder.found())
    out.push({
      kind: 'flash',
      severity: 'wrong',
      at: f.from,
      message: `Flashes ${f.red ? 'of red ' : ''}from ${clockTime(f.from)} to ${clockTime(f.to)}, ${f.perSecond} in a second: more than three can harm. Cut them out, or hold the picture still there.`,
    })
  for (const m of report.matchAll(/black_start:([\d.]+) black_end:([\d.]+)/g))
    out.push({
      kind: 'black',
      severity: 'look',
      at: Number(m[1]),
      message: `The picture is black from ${clockTime(Number(m[1]))} to ${clockTime(Number(m[2]))}.`,
    })
  const starts = [...report.matchAll(/freeze_start: ([\d.]+)/g)].map((m) => Number(m[1]))
  const ends = [...report.matchAll(/freeze_end: ([\d.]+)/g)].map((m) => Number(m[1]))
  starts.forEach((from, i) => {
    const to = ends[i] ?? from + frozen
    const meant = still.reduce(
      (n, s) =>
        n + Math.max(0, Math.min(to, s.to / framesPerSecond) - Math.max(from, s.from / framesPerSecond)),
      0,
    )
    if (to - from - meant >= frozen)
      out.push({
        kind: 'frozen',
        severity: 'look',
        at: from,
        message: `Nothing moves from ${clockTime(from)} to ${clockTime(to)}: is that meant?`,
      })
  })
  const { peak } = await loudnessOf(['-i', film], { peaks: true, ...(signal ? { signal } : {}) })
  if (peak !== null && peak > loudest)
    out.push({
      kind: 'loud',
      severity: 'look',
      at: null,
      message: `The sound reaches ${peak.toFixed(1)} dB: it may crackle on small loudspeakers.`,
    })
  const { streams } = (await ffprobe(
    film,
    ['-show_entries', 'stream=codec_type,start_time,duration'],
    signal ? { signal } : {},
  )) as { streams: { codec_type: string; start_time: string; duration: string }[] }
  const [v, a] = ['video', 'audio'].map((t) => streams.find((x) => x.codec_type === t))
  if (
    v &&
    a &&
    (Math.abs(Number(v.duration) - Number(a.duration)) > apart ||
      Math.abs(Number(v.start_time) - Number(a.start_time)) > apart)
  )
    out.push({
      kind: 'sync',
      severity: 'wrong',
      at: null,
      message: `Picture and sound are not of one length (${Number(v.duration).toFixed(2)} s and ${Number(a.duration).toFixed(2)} s): lips and hands may be off.`,
    })
  return out.sort((x, y) => (x.at ?? 0) - (y.at ?? 0))
}
