import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { execFile } from 'node:child_process'
import fs from 'node:fs'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { promisify } from 'node:util'
import { Resvg } from '@resvg/resvg-js'
import type { StandInRoom, StandInVoice } from '@awlbox/core/contracts/stand-in'
import { film as picture, tableInTake } from '@awlbox/core/film/camera/frame'
import { drawTable, shapeText } from '@awlbox/core/script/table/drawing/table'
import type { TableState } from '@awlbox/core/script/table/state'
import { wavOf } from '@awlbox/core/film/ear/wav'
import { soundOf } from '../voice/beats.ts'
import { speechRate } from '../voice/speak.ts'
import type { Beat } from './takes.ts'

const exec = promisify(execFile)
const { width, height } = picture
const fontFiles = ['Andika-Regular.ttf', 'Andika-Bold.ttf']
  .map((f) => `/usr/share/fonts/truetype/andika/${f}`)
  .filter((f) => fs.existsSync(f))

/** What the camera sees: the table from above, on wood, under a lamp. */
function frame(table: TableState, fill: HouseStyle['frameFill']): Buffer {
  const { scale, x, y, w, h } = tableInTake
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs><radialGradient id="lamp" cx="0.4" cy="0.3" r="0.9"><stop offset="0" stop-color="#fff" stop-opacity="0.18"/><stop offset="1" stop-color="#000" stop-opacity="0.22"/></radialGradient></defs>
    <rect width="${width}" height="${height}" fill="#C2A27A"/><rect x="${x - 10}" y="${y - 6}" width="${w + 20}" height="${h + 20}" rx="14" fill="#000" opacity="0.12"/>
    <rect x="${x - 14}" y="${y - 14}" width="${w + 28}" height="${h + 28}" rx="14" fill="#F7F5EF"/>
    <g transform="translate(${x} ${y}) scale(${scale})">${drawTable(table, fill).map(shapeText).join('')}</g><rect width="${width}" height="${height}" fill="url(#lamp)"/></svg>`
  return Buffer.from(
    new Resvg(svg, { font: { fontFiles, loadSystemFonts: false, defaultFontFamily: 'Andika' } })
      .render()
      .asPng(),
  )
}

/** Films beats as a real MP4: 720p, 30 frames a second, H.264 and AAC. */
export async function filmBeats(
  beats: readonly Beat[],
  voice: StandInVoice,
  fill: HouseStyle['frameFill'],
  room: StandInRoom = 'studio',
): Promise<Buffer> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'awlbox-camera-'))
  try {
    const { samples, shots } = await soundOf(beats, voice, { room })
    await writeFile(path.join(folder, 'sound.wav'), wavOf(samples, speechRate))
    const pictures = new Map<TableState, string>()
    const list: string[] = []
    for (const shot of shots) {
      if (!shot.samples) continue
      let file = pictures.get(shot.table)
      if (!file) {
        file = `${pictures.size}.png`
        pictures.set(shot.table, file)
        await writeFile(path.join(folder, file), frame(shot.table, fill))
      }
      list.push(`file '${file}'`, `duration ${(shot.samples / speechRate).toFixed(5)}`)
    }
    if (list.length) list.push(list.at(-2)!)
    await writeFile(path.join(folder, 'list.txt'), list.join('\n'))
    const out = path.join(folder, 'take.mp4')
    await exec('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-protocol_whitelist',
      'file',
      '-f',
      'concat',
      '-safe',
      '0',
      '-i',
      path.join(folder, 'list.txt'),
      '-i',
      path.join(folder, 'sound.wav'),
      // Converted once a picture, not once for each time it is shown.
      '-vf',
      'format=yuv420p,fps=30',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-tune',
      'stillimage',
      // A whole picture every two seconds: one can move about in it at once.
      '-g',
      '60',
      '-c:a',
      'aac',
      '-b:a',
      '96k',
      '-t',
      String(samples.length / speechRate),
      '-movflags',
      '+faststart',
      out,
    ])
    return await readFile(out)
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
