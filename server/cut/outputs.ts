import type { Seconds } from '@awlbox/core/contracts/units'
import fs from 'node:fs/promises'
import { type EncodeOptions, ffmpeg } from '../platform/media/ffmpeg.ts'

/** Megabytes (10⁶ bytes) allowed to a film of `seconds` at so many for ten minutes. */
export const bytesAllowed = (seconds: Seconds, perTenMinutes: number): number =>
  (perTenMinutes * 1e6 * seconds) / 600
/** Bits a second for the sound of a small film, and for sound alone, which is never the larger of the two; and the share of its size that the container takes at most. */
const [soundRate, container] = [40_000, 0.03]

/**
 * The film at 640 × 360 in no more than `allowed` bytes: as well as it looks at a constant quality, with the rate held
 * down where it would grow too large. Gives its size. Of a film so short that its sound alone is more, the size is what it is.
 */
export async function makeSmall(
  film: string,
  out: string,
  seconds: Seconds,
  allowed: number,
  options: EncodeOptions,
): Promise<number> {
  let rate = Math.max(40_000, (allowed * 8 * (1 - container)) / Math.max(1, seconds) - soundRate)
  for (let attempt = 0; ; attempt++) {
    // What may burst over the mean is bounded by the buffer: half a second of it.
    await ffmpeg(
      [
        '-i',
        film,
        '-vf',
        'scale=640:360:flags=area',
        '-c:v',
        'libx264',
        '-preset',
        'veryfast',
        '-crf',
        '27',
        '-maxrate',
        String(Math.round(rate)),
        '-bufsize',
        String(Math.round(rate / 2)),
        '-pix_fmt',
        'yuv420p',
        '-g',
        '300',
        '-c:a',
        'aac',
        '-b:a',
        String(soundRate),
        '-ac',
        '1',
        '-movflags',
        '+faststart',
        // Only what is said of the whole file: without their titles chapters are a track no player finds.
        '-map_metadata:g',
        '-1',
        '-map_chapters',
        '0',
        out,
      ],
      { ...options, expected: seconds },
    )
    const { size } = await fs.stat(out)
    if (size <= allowed || attempt === 2 || rate <= 40_000) return size
    rate = Math.max(40_000, rate * (allowed / size) * 0.95)
  }
}
/** The film's sound alone, with its chapters. */
export async function makeSound(film: string, out: string, options: EncodeOptions): Promise<void> {
  await ffmpeg(
    [
      '-i',
      film,
      '-vn',
      '-c:a',
      'aac',
      '-b:a',
      String(soundRate),
      '-ac',
      '1',
      '-movflags',
      '+faststart',
      '-map_metadata:g',
      '-1',
      '-map_chapters',
      '0',
      out,
    ],
    options,
  )
}
