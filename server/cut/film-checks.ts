import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { Params } from '@awlbox/core/contracts/finding'
import type { FilmCheck, FilmCode } from '@awlbox/core/contracts/render'
import { filmCodes } from '@awlbox/core/findings/codes'
import { flashFinder } from '@awlbox/core/cut/flashes'
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

/** Something found in a film, as grave as its code is. `start`: seconds into it, null where it has no moment. */
export const filmCheck = (code: FilmCode, start: number | null, params: Params): FilmCheck => ({
  code,
  severity: filmCodes[code],
  start,
  params,
})

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
    out.push(
      filmCheck('flash', f.from, {
        case: f.red ? 'red' : 'light',
        fromSeconds: f.from,
        toSeconds: f.to,
        perSecond: f.perSecond,
      }),
    )
  for (const m of report.matchAll(/black_start:([\d.]+) black_end:([\d.]+)/g))
    out.push(filmCheck('black', Number(m[1]), { fromSeconds: Number(m[1]), toSeconds: Number(m[2]) }))
  const starts = [...report.matchAll(/freeze_start: ([\d.]+)/g)].map((m) => Number(m[1]))
  const ends = [...report.matchAll(/freeze_end: ([\d.]+)/g)].map((m) => Number(m[1]))
  starts.forEach((from, i) => {
    const to = ends[i] ?? from + frozen
    const meant = still.reduce(
      (n, s) =>
        n + Math.max(0, Math.min(to, s.to / framesPerSecond) - Math.max(from, s.from / framesPerSecond)),
      0,
    )
    if (to - from - meant >= frozen) out.push(filmCheck('frozen', from, { fromSeconds: from, toSeconds: to }))
  })
  const { peak } = await loudnessOf(['-i', film], { peaks: true, ...(signal ? { signal } : {}) })
  if (peak !== null && peak > loudest) out.push(filmCheck('loud', null, { peak: peak.toFixed(1) }))
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
    out.push(
      filmCheck('sync', null, {
        picture: Number(v.duration).toFixed(2),
        sound: Number(a.duration).toFixed(2),
      }),
    )
  return out.sort((x, y) => (x.start ?? 0) - (y.start ?? 0))
}
