import { Semaphore } from 'async-mutex'
import sharp from 'sharp'

/** A process of its own that decodes photos, so that large ones never fill the memory of the one that answers people. */
export interface Order {
  id: number
  file: string
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

async function clean({ id, file, mostPixels, image, small }: Order): Promise<Done> {
  try {
    const { width = 0, height = 0 } = await sharp(file, { limitInputPixels: mostPixels }).metadata()
    if (width * height > mostPixels) return { id, problem: 'too many pixels' }
    const weight = Math.min(atOnce, Math.max(1, Math.ceil((width * height) / 1e6)))
    const info = await room.runExclusive(async () => {
      const made = await sharp(file, {
        limitInputPixels: mostPixels,
        failOn: 'truncated',
        sequentialRead: true,
      })
        .rotate()
        .resize({ width: longSide, height: longSide, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 88 })
        .toFile(image)
      await sharp(image).resize(240, 180, { fit: 'cover' }).jpeg({ quality: 78 }).toFile(small)
      return made
    }, weight)
    return { id, width: info.width, height: info.height }
  } catch (error) {
    return { id, problem: /pixel limit/i.test(String(error)) ? 'too many pixels' : 'not whole' }
  }
}
process.on('message', (order: Order) => void clean(order).then((done) => process.send?.(done)))
process.on('disconnect', () => process.exit(0))
