import { Semaphore } from 'async-mutex'
import fs from 'node:fs/promises'
import decodeHeic from 'heic-decode'
import sharp, { type Sharp } from 'sharp'

/** A process of its own that decodes photos, so that large ones never fill the memory of the one that answers people. */
export interface Order {
  id: number
  file: string
  /** What phones of one make save: decoded apart, since its pictures are coded like films. */
  heic: boolean
  mostPixels: number
  /** Where the clean photo and its small picture are written. */
  image: string
  small: string
}
export type Done =
  { id: number; width: number; height: number } | { id: number; problem: 'too many pixels' | 'not whole' }

// One thread a photo, and nothing remembered: many at once must not fill the memory.
sharp.concurrency(1)
sharp.cache(false)
/** Millions of pixels decoded at a time: two photos of a usual phone, or one very large one. */
const atOnce = 48
const room = new Semaphore(atOnce)
const longSide = 4000

type Opened = { picture: () => Sharp; width: number; height: number; close: () => void }
/** A HEIC file's first picture; its size is known before any of it is decoded. */
async function openHeic(file: string): Promise<Opened & { ready: () => Promise<void> }> {
  const images = await decodeHeic.all({ buffer: new Uint8Array(await fs.readFile(file)) })
  const [first] = images
  if (!first) throw new Error('A HEIC file without a picture')
  const { width, height } = first
  let pixels: Uint8ClampedArray | null = null
  return {
    width,
    height,
    ready: async () => {
      pixels = (await first.decode()).data
    },
    picture: () => sharp(Buffer.from(pixels!.buffer), { raw: { width, height, channels: 4 } }),
    close: () => images.dispose(),
  }
}
async function openPlain(file: string, mostPixels: number): Promise<Opened & { ready: () => Promise<void> }> {
  const { width = 0, height = 0 } = await sharp(file, { limitInputPixels: mostPixels }).metadata()
  const options = { limitInputPixels: mostPixels, failOn: 'truncated', sequentialRead: true } as const
  return {
    width,
    height,
    ready: () => Promise.resolve(),
    picture: () => sharp(file, options).rotate(),
    close: () => undefined,
  }
}

async function clean({ id, file, heic, mostPixels, image, small }: Order): Promise<Done> {
  let opened: Awaited<ReturnType<typeof openPlain>> | null = null
  try {
    opened = await (heic ? openHeic(file) : openPlain(file, mostPixels))
    const { width, height, ready, picture } = opened
    if (width * height > mostPixels) return { id, problem: 'too many pixels' }
    const weight = Math.min(atOnce, Math.max(1, Math.ceil((width * height) / 1e6)))
    const info = await room.runExclusive(async () => {
      await ready()
      const made = await picture()
        .flatten({ background: '#fff' })
        .resize({ width: longSide, height: longSide, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 88 })
        .toFile(image)
      await sharp(image).resize(240, 180, { fit: 'cover' }).jpeg({ quality: 78 }).toFile(small)
      return made
    }, weight)
    return { id, width: info.width, height: info.height }
  } catch (error) {
    return { id, problem: /pixel limit/i.test(String(error)) ? 'too many pixels' : 'not whole' }
  } finally {
    opened?.close()
  }
}
process.on('message', (order: Order) => void clean(order).then((done) => process.send?.(done)))
process.on('disconnect', () => process.exit(0))
