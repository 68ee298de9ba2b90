import fs from 'node:fs/promises'
import path from 'node:path'
import archiver from 'archiver'
import type { Response } from 'express'
import { type CutList, framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardShapes } from '@awlbox/core/cut/card'
import { toEdl } from '@awlbox/core/cut/exchange/edl'
import { eventsOf, takeFile } from '@awlbox/core/cut/exchange/events'
import { stillFile, toMlt } from '@awlbox/core/cut/exchange/mlt'
import { toOtio } from '@awlbox/core/cut/exchange/otio'
import { film } from '@awlbox/core/cut/repairs'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import { inFolder } from '../film/folder.ts'
import { ffmpeg } from '../platform/media/ffmpeg.ts'
import { toPng } from '../platform/media/raster.ts'

/** Readable file names from a title: letters of any script, digits and dashes. */
export const fileName = (title: string): string => title.normalize('NFKC').replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '').toLowerCase().slice(0, 60) || 'film'

/** The cut as a folder in a zip: edit lists in open formats beside everything they speak of, so that it plays elsewhere. `filmOf` gives a take's file. */
export async function writeBundle(out: NodeJS.WritableStream, list: CutList, title: string, filmOf: (takeId: string) => string | null, signal?: AbortSignal): Promise<void> {
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
    const once = (name: string): boolean => !written.has(name) && written.add(name).has(name)
    for (const e of eventsOf(list)) {
      if (e.kind === 'card') {
        const name = `cards/${e.name}.png`
        if (once(name)) zip.append(toPng(toSvg(cardShapes({ look: e.look as 'aim', title: e.title, lines: [...e.lines] }), film.width, film.height), film.width), { name })
        continue
      }
      const source = filmOf(e.takeId)
      if (!source) continue
      if (e.kind === 'clip' && once(takeFile(e.takeId))) zip.file(source, { name: takeFile(e.takeId) })
      if (e.kind === 'still' && once(stillFile(e.takeId, e.frame))) {
        const png = path.join(folder, `${written.size}.png`)
        await ffmpeg(['-protocol_whitelist', 'file,pipe', '-ss', String(Math.max(0, (e.frame - 0.5) / framesPerSecond)), '-i', source, '-frames:v', '1', png], signal ? { signal } : {})
        zip.append(await fs.readFile(png), { name: stillFile(e.takeId, e.frame) })
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
