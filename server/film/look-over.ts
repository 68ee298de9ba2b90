import path from 'node:path'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { TakeLooked } from '@awlbox/core/contracts/render'
import { humIn } from '@awlbox/core/cut/hum'
import { roomToneOf } from '@awlbox/core/cut/room-tone'
import { ffmpeg, filmSize } from '../platform/media/ffmpeg.ts'
import { faceFinder } from '../platform/media/faces.ts'
import { eachPicture } from '../platform/media/pictures.ts'
import { openWav, readSamples } from '../platform/media/wav.ts'
import type { Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { peaksPerSecond } from './peaks.ts'
import { hearingOf, setTake, type TakeRow } from './store.ts'

/** Size at which faces are looked for, seconds between pictures, and the most pictures looked at: of long takes fewer. */
const [small, between, mostPictures] = [{ width: 480, height: 270 }, 2, 400]
/** Small pictures of a take in one sheet: size, how many in a row, how many at most. */
const sheet = { width: 96, height: 54, across: 20, most: 400 } as const

/** Looks and listens through a take once: its colour, perhaps faces, a sheet of small pictures, its room and its noise. */
export async function lookOver(s: Services, take: TakeRow, folder: string, wav: string, { signal, progress }: Work): Promise<void> {
  const film = s.blobs.path(take.film!)
  const seconds = take.seconds ?? 0
  await progress('looking it over', 0.985)
  const apart = Math.max(between, Math.ceil(seconds / mostPictures))
  const find = await faceFinder()
  const faces: TakeLooked['faces'] = []
  const sum = { r: 0, g: 0, b: 0 }
  let pictures = 0
  const scale = filmSize.width / small.width
  await eachPicture(film, { rate: 1 / apart, ...small, signal }, (rgb, n) => {
    const grey = new Uint8Array(small.width * small.height)
    const mean = [0, 0, 0]
    for (let i = 0; i < grey.length; i++) {
      const [r, g, b] = [rgb[i * 3]!, rgb[i * 3 + 1]!, rgb[i * 3 + 2]!]
      mean[0]! += r
      mean[1]! += g
      mean[2]! += b
      grey[i] = (r * 77 + g * 150 + b * 29) >> 8
    }
    sum.r += mean[0]! / grey.length
    sum.g += mean[1]! / grey.length
    sum.b += mean[2]! / grey.length
    pictures++
    const boxes = find?.(grey, small.width, small.height) ?? []
    if (boxes.length) faces.push({ frame: n * apart * framesPerSecond, boxes: boxes.map((b) => ({ x: b.x * scale, y: b.y * scale, w: b.w * scale, h: b.h * scale })) })
  })
  const mean = pictures ? { r: sum.r / pictures, g: sum.g / pictures, b: sum.b / pictures } : null
  const sheetEvery = Math.max(framesPerSecond, Math.ceil((seconds * framesPerSecond) / sheet.most))
  const count = Math.max(1, Math.floor((seconds * framesPerSecond) / sheetEvery))
  const file = path.join(folder, 'sheet.jpg')
  await ffmpeg(['-protocol_whitelist', 'file,pipe', '-i', film, '-an', '-vf', `select=not(mod(n\\,${sheetEvery})),scale=${sheet.width}:${sheet.height},tile=${sheet.across}x${Math.ceil(count / sheet.across)}:nb_frames=${count}`, '-vsync', 'vfr', '-frames:v', '1', '-q:v', '6', file], signal ? { signal } : {})
  const sound = take.hasSound ? await listenToTheRoom(s, take, wav) : { tone: null, hum: 0 as const, noise: null }
  await setTake(s.db, take.id, {
    sheet: await s.blobs.put(s.db, { file }, 'image/jpeg'),
    looked: { mean, every: apart * framesPerSecond, faces, sheet: { count, across: sheet.across, every: sheetEvery, width: sheet.width, height: sheet.height }, ...sound },
  })
}

/** The quietest stretch of a take, whether the mains hum in it, and how loud it is. */
async function listenToTheRoom(s: Services, take: TakeRow, wav: string): Promise<Pick<TakeLooked, 'tone' | 'hum' | 'noise'>> {
  const hearing = await hearingOf(s.db, take.id)
  const tone = roomToneOf(take.peaks ?? Buffer.alloc(0), peaksPerSecond, hearing?.words ?? [])
  if (!tone) return { tone: null, hum: 0, noise: null }
  const span = await openWav(wav)
  const samples = await readSamples(wav, span, Math.round(tone.from * span.rate), Math.round(tone.to * span.rate))
  let power = 0
  for (const v of samples) power += (v / 32_768) ** 2
  const noise = samples.length ? Math.round(10 * Math.log10(Math.max(1e-9, power / samples.length)) * 10) / 10 : null
  return { tone, hum: humIn(samples, span.rate), noise }
}
