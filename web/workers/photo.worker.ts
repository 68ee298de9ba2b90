import { expose } from 'comlink'
import { readPhoto } from '@awlbox/core/look/photo/read'
import type { PhotoReading } from '@awlbox/core/contracts/reading'

/** Reads photos away from the page, so that it never stands still. */
const worker = {
  async read(blob: Blob): Promise<PhotoReading> {
    const bitmap = await createImageBitmap(blob)
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height)
    const g = canvas.getContext('2d', { willReadFrequently: true })!
    g.drawImage(bitmap, 0, 0)
    const { data } = g.getImageData(0, 0, bitmap.width, bitmap.height)
    return readPhoto(data, bitmap.width, bitmap.height)
  },
}
export type PhotoWorker = typeof worker
expose(worker)
