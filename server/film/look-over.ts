import path from 'node:path'
import sharp from 'sharp'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { type TakeLooked, type AreasSeen, privateKinds } from '@awlbox/core/contracts/render'
import { mayBeFace } from '@awlbox/core/film/camera/skin'
import { humIn } from '@awlbox/core/cut/hum'
import { privateWords } from '@awlbox/core/cut/private-words'
import { roomToneOf } from '@awlbox/core/cut/room-tone'
import { ffmpeg, filmSize } from '../platform/media/ffmpeg.ts'
import { faceFinder } from '../platform/media/faces.ts'
import { eachPicture } from '../platform/media/pictures.ts'
import { canRead, readWords } from '../platform/media/reading.ts'
import { openWav, readSamples } from '../platform/media/wav.ts'
import type { Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { inFolder } from '../platform/temporary.ts'
import { peaksPerSecond } from './peaks.ts'
import { hearingOf, setTake, type TakeRow, whoIsNear } from './store.ts'

/** Size at which faces are looked for, seconds between pictures, and the most pictures looked at: of long takes fewer. */
const [small, between, mostPictures] = [{ width: 480, height: 270 }, 2, 400]
/** Small pictures of a take in one sheet: size, a fifth of those looked at each way, and how many in a row. */
const sheet = { width: small.width / 5, height: small.height / 5, across: 20 } as const
/**
 * Seconds between pictures that are read, and the most of one take. A picture like the last one read (no small pixel
 * of it brighter or darker by more than this, of 255) is not read again.
 */
const [readEvery, mostRead, alike] = [8, 40, 10]

/** Lays a picture into its place in the sheet, each pixel the mean of the twenty-five it stands for. */
function lay(rgb: Buffer, pixels: Buffer, n: number): void {
  const [left, top] = [(n % sheet.across) * sheet.width, Math.floor(n / sheet.across) * sheet.height]
  for (let y = 0; y < sheet.height; y++)
    for (let x = 0; x < sheet.width; x++)
      for (let c = 0; c < 3; c++) {
        let total = 0
        for (let dy = 0; dy < 5; dy++)
          for (let dx = 0; dx < 5; dx++) total += rgb[((y * 5 + dy) * small.width + x * 5 + dx) * 3 + c]!
        pixels[((top + y) * sheet.across * sheet.width + left + x) * 3 + c] = total / 25
      }
}

/** Looks and listens through a take once: its colour, perhaps faces, a sheet of small pictures, its room and its noise. */
export async function lookOver(
  s: Services,
  take: TakeRow,
  wav: string,
  { signal, progress }: Work,
): Promise<void> {
  const film = s.blobs.path(take.film!)
  const seconds = take.seconds ?? 0
  await progress('looking it over', 0.985)
  // One picture each so many seconds for the sheet; faces are looked for in some of them.
  const step = Math.max(1, Math.ceil(seconds / mostPictures))
  const each = Math.ceil(between / step)
  const every = step * framesPerSecond
  const rows = Math.ceil(Math.max(1, Math.ceil(seconds / step)) / sheet.across)
  const pixels = Buffer.alloc(rows * sheet.height * sheet.across * sheet.width * 3)
  const find = await faceFinder()
  const faces: AreasSeen[] = []
  const sum = { r: 0, g: 0, b: 0 }
  let count = 0
  const scale = filmSize.width / small.width
  await eachPicture(film, { rate: 1 / step, ...small, signal }, (rgb, n) => {
    if (n >= rows * sheet.across) return
    count = n + 1
    lay(rgb, pixels, n)
    const grey = new Uint8Array(small.width * small.height)
    let [red, green, blue] = [0, 0, 0]
    for (let i = 0; i < grey.length; i++) {
      const [r, g, b] = [rgb[i * 3]!, rgb[i * 3 + 1]!, rgb[i * 3 + 2]!]
      red += r
      green += g
      blue += b
      grey[i] = (r * 77 + g * 150 + b * 29) >> 8
    }
    sum.r += red / grey.length
    sum.g += green / grey.length
    sum.b += blue / grey.length
    // A frame of counters can have the light and dark of a face; it has not its colour.
    const boxes =
      n % each === 0
        ? (find?.(grey, small.width, small.height) ?? []).filter((b) => mayBeFace(rgb, small.width, b))
        : []
    if (boxes.length)
      faces.push({
        frame: n * every,
        boxes: boxes.map((b) => ({ x: b.x * scale, y: b.y * scale, w: b.w * scale, h: b.h * scale })),
      })
  })
  const mean = count ? { r: sum.r / count, g: sum.g / count, b: sum.b / count } : null
  const jpeg = await sharp(pixels, {
    raw: { width: sheet.across * sheet.width, height: rows * sheet.height, channels: 3 },
  })
    .jpeg({ quality: 72 })
    .toBuffer()
  const written = count ? await readOver(s, take, { pixels, count, step }, signal) : null
  const sound = take.hasSound
    ? await listenToTheRoom(s, take, wav)
    : { tone: null, hum: 0 as const, noise: null }
  await setTake(s.db, take.id, {
    sheet: await s.blobs.put(s.db, jpeg, 'image/jpeg'),
    looked: {
      mean,
      every: each * every,
      faces,
      written,
      sheet: count ? { count, across: sheet.across, every, width: sheet.width, height: sheet.height } : null,
      ...sound,
    },
  })
}

/** Where names, addresses and the like stand in a take; null where this machine cannot read. `step`: seconds between the small pictures. */
async function readOver(
  s: Services,
  take: TakeRow,
  small: { pixels: Buffer; count: number; step: number },
  signal?: AbortSignal,
): Promise<TakeLooked['written']> {
  if (!(await canRead())) return null
  const each = Math.ceil(Math.max(readEvery / small.step, small.count / mostRead))
  const every = each * small.step * framesPerSecond
  const who = await whoIsNear(s.db, take.lessonId)
  return inFolder('read', async (folder) => {
    const picture = path.join(folder, 'picture.png')
    const seen: NonNullable<TakeLooked['written']>['seen'][number][] = []
    let last: { n: number; found: ReturnType<typeof privateWords> } | null = null
    for (let n = 0; n < small.count; n += each) {
      if (!last || !sameSmall(small.pixels, last.n, n)) {
        await ffmpeg(
          ['-ss', String(n * small.step), '-i', s.blobs.path(take.film!), '-frames:v', '1', '-y', picture],
          signal ? { signal } : {},
        )
        last = { n, found: privateWords(await readWords(picture, folder, signal), who) }
      }
      for (const what of privateKinds) {
        const boxes = last.found.filter((f) => f.what === what).map((f) => f.box)
        if (boxes.length) seen.push({ what, frame: n * small.step * framesPerSecond, boxes })
      }
    }
    return { every, seen }
  })
}
/** Whether two small pictures of the sheet show the same. */
function sameSmall(pixels: Buffer, a: number, b: number): boolean {
  const start = (n: number, y: number): number =>
    ((Math.floor(n / sheet.across) * sheet.height + y) * sheet.across + (n % sheet.across)) * sheet.width * 3
  for (let y = 0; y < sheet.height; y++)
    for (let x = 0, [i, j] = [start(a, y), start(b, y)]; x < sheet.width * 3; x++)
      if (Math.abs(pixels[i + x]! - pixels[j + x]!) > alike) return false
  return true
}

/** The quietest stretch of a take, whether the mains hum in it, and how loud it is. */
async function listenToTheRoom(
  s: Services,
  take: TakeRow,
  wav: string,
): Promise<Pick<TakeLooked, 'tone' | 'hum' | 'noise'>> {
  const hearing = await hearingOf(s.db, take.id)
  const tone = roomToneOf(take.peaks ?? Buffer.alloc(0), peaksPerSecond, hearing?.words ?? [])
  if (!tone) return { tone: null, hum: 0, noise: null }
  const span = await openWav(wav)
  const samples = await readSamples(
    wav,
    span,
    Math.round(tone.from * span.rate),
    Math.round(tone.to * span.rate),
  )
  let power = 0
  for (const v of samples) power += (v / 32_768) ** 2
  const noise = samples.length
    ? Math.round(10 * Math.log10(Math.max(1e-9, power / samples.length)) * 10) / 10
    : null
  return { tone, hum: humIn(samples, span.rate), noise }
}
