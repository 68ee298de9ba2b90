import fs from 'node:fs/promises'
import path from 'node:path'
import archiver from 'archiver'
import type { Response } from 'express'
import { type CutList, framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardShapes } from '@awlbox/core/cut/card'
import { toEdl } from '@awlbox/core/cut/exchange/edl'
import { eventsOf } from '@awlbox/core/cut/exchange/events'
import { pictureFile, toMlt } from '@awlbox/core/cut/exchange/mlt'
import { toOtio } from '@awlbox/core/cut/exchange/otio'
import { film } from '@awlbox/core/film/camera/frame'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import { inFolder } from '../platform/temporary.ts'
import { ffmpeg } from '../platform/media/ffmpeg.ts'
import { toPng } from '../platform/media/raster.ts'

/** The cut as a folder in a zip: edit lists in open formats beside everything they speak of, so that it plays elsewhere. `filmOf` gives a take's file. */
export async function writeBundle(
  out: NodeJS.WritableStream,
  list: CutList,
  title: string,
  filmOf: (takeId: string) => string | null,
  signal?: AbortSignal,
): Promise<void> {
  await inFolder('bundle', async (folder) => {
    const zip = archiver('zip', { zlib: { level: 1 } })
    const done = new Promise<void>((resolve, reject) => {
      zip.on('error', reject)
      out.on('finish', resolve)
      out.on('close', resolve)
    })
    zip.pipe(out)
    zip.append(toMlt(list, title), { name: 'film.mlt' })
    zip.append(toOtio(list, title), { name: 'film.otio' })
    zip.append(toEdl(list, title), { name: 'film.edl' })
    zip.append(JSON.stringify(list, null, 2), { name: 'film.cut.json' })
    const written = new Set<string>()
    for (const e of eventsOf(list)) {
      const name = pictureFile(e)
      const source = e.kind === 'card' ? null : filmOf(e.takeId)
      if (written.has(name) || (e.kind !== 'card' && !source)) continue
      written.add(name)
      if (e.kind === 'card')
        zip.append(toPng(toSvg(cardShapes(e), film.width, film.height), film.width), { name })
      else if (e.kind === 'clip') zip.file(source!, { name })
      else {
        const png = path.join(folder, `${written.size}.png`)
        await ffmpeg(
          [
            '-ss',
            String(Math.max(0, (e.frame - 0.5) / framesPerSecond)),
            '-i',
            source!,
            '-frames:v',
            '1',
            png,
          ],
          signal ? { signal } : {},
        )
        zip.append(await fs.readFile(png), { name })
      }
    }
    await zip.finalize()
    await done
  })
}
/** Answers with a text file to keep. */
export function sendText(res: Response, text: string, name: string, mime: string): void {
  res.type(mime).attachment(name).send(text)
}
