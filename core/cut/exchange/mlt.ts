import type { Frames } from '../../contracts/units.ts'
import { type CutList, framesPerSecond } from '../../contracts/cut.ts'
import { escapeXml } from '../../script/table/drawing/table.ts'
import { film } from '../../film/camera/frame.ts'
import { type CutEvent, eventsOf, takeFile } from './events.ts'

const stillFile = (takeId: string, frame: Frames): string => `stills/${takeId.slice(0, 8)}-${frame}.png`
/** The file that shows an event's picture, beside the project. Stills are named by their take and frame. */
export const pictureFile = (e: CutEvent): string =>
  e.kind === 'clip'
    ? takeFile(e.takeId)
    : e.kind === 'still'
      ? stillFile(e.takeId, e.frame)
      : `cards/${e.name}.png`

/** The whole cut as an MLT XML project (its published DTD) that plays in any MLT program, as long as the film to the frame. */
export function toMlt(list: Pick<CutList, 'segments'>, title: string): string {
  const events = eventsOf(list)
  const files = [...new Set(events.map(pictureFile))]
  const longest = Math.max(1, ...events.map((e) => (e.kind === 'clip' ? e.from + e.frames : e.frames)))
  const producers = files.map(
    (f, i) =>
      `  <producer id="p${i}" in="0" out="${longest - 1}"><property name="resource">${escapeXml(f)}</property><property name="length">${longest}</property>${f.endsWith('.png') ? '<property name="mlt_service">pixbuf</property><property name="ttl">1</property>' : '<property name="mlt_service">avformat</property>'}</producer>`,
  )
  const entries = events.map((e) => {
    const from = e.kind === 'clip' ? e.from : 0
    return `    <entry producer="p${files.indexOf(pictureFile(e))}" in="${from}" out="${from + e.frames - 1}"/>`
  })
  return `<?xml version="1.0" encoding="utf-8"?>
<mlt title="${escapeXml(title)}" LC_NUMERIC="C" producer="film">
  <profile description="720p" width="${film.width}" height="${film.height}" progressive="1" sample_aspect_num="1" sample_aspect_den="1" display_aspect_num="16" display_aspect_den="9" frame_rate_num="${framesPerSecond}" frame_rate_den="1" colorspace="709"/>
${producers.join('\n')}
  <playlist id="film">
${entries.join('\n')}
  </playlist>
</mlt>
`
}
