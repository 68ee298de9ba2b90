import path from 'node:path'
import fs from 'node:fs/promises'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { compareFirstFrame } from '@awlbox/core/film/camera/first-frame'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { simulate } from '@awlbox/core/script/simulate'
import { ffmpeg, filmSize } from '../platform/media/ffmpeg.ts'
import { photoEyes } from '../platform/media/seeing.ts'
import type { FirstFrame } from '@awlbox/core/contracts/take'

/** Reads the first picture of a film (after half a second: hands are gone) and holds it against the table its segment begins with. Null where there is no table to begin with. */
export async function firstFrameOf(
  film: string,
  lesson: Lesson,
  segmentId: string,
  folder: string,
  signal?: AbortSignal,
): Promise<FirstFrame | null> {
  const first = simulate(lesson).find((m) => m.segment.id === segmentId)
  if (!first) return null
  const raw = path.join(folder, 'first.rgba')
  await ffmpeg(
    ['-ss', '0.5', '-i', film, '-frames:v', '1', '-f', 'rawvideo', '-pix_fmt', 'rgba', raw],
    signal ? { signal } : {},
  )
  // A film shorter than that gives no picture.
  if (!(await fs.readdir(folder)).includes(path.basename(raw))) return null
  const pixels = await fs.readFile(raw)
  if (pixels.length !== filmSize.width * filmSize.height * 4) return null
  const reading = await readPhoto(pixels, filmSize.width, filmSize.height, await photoEyes())
  return compareFirstFrame(reading, first.before)
}
