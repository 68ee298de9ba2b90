import sharp from 'sharp'
import { fileTypeFromFile } from 'file-type'
import { Semaphore } from 'async-mutex'
import fs from 'node:fs/promises'
import { Problem } from '../platform/problem.ts'

export interface CleanPhoto {
  image: Buffer
  small: Buffer
  width: number
  height: number
}
const accepted = new Set(['image/jpeg', 'image/png', 'image/webp'])
const longSide = 4000

// One thread a photo, and nothing remembered: many at once must not fill the memory.
sharp.concurrency(1)
sharp.cache(false)
/** Millions of pixels decoded at a time: two photos of a usual phone, or one very large one. */
const atOnce = 48
const room = new Semaphore(atOnce)

/**
 * A family's photo made safe: its type told from its bytes, its pixels limited before decoding, turned upright,
 * written anew so that place, time and device are gone. @throws Problem with words for the adult.
 */
export async function cleanPhoto(file: string, mostPixels: number): Promise<CleanPhoto> {
  if ((await fs.stat(file)).size === 0)
    throw new Problem(
      400,
      'Empty photo',
      'This photo has nothing in it: it may not have finished saving. Your answers are kept; choose it again.',
    )
  const type = await fileTypeFromFile(file)
  if (type?.mime === 'image/heic' || type?.mime === 'image/heif')
    throw new Problem(
      415,
      'Photo kind not read',
      'This phone saved the photo as HEIC, which this Awlbox cannot open. Your answers are kept; take the photo from this page, or save it as JPEG.',
    )
  if (!type || !accepted.has(type.mime))
    throw new Problem(
      415,
      'Not a photo',
      'This file is not a photo (JPEG, PNG or WebP). Your answers are kept.',
    )
  try {
    const { width = 0, height = 0 } = await sharp(file, { limitInputPixels: mostPixels }).metadata()
    if (width * height > mostPixels) throw new Problem(413, 'Photo too large', tooLarge)
    const weight = Math.min(atOnce, Math.max(1, Math.ceil((width * height) / 1e6)))
    return await room.runExclusive(() => written(file, mostPixels), weight)
  } catch (error) {
    if (error instanceof Problem) throw error
    if (/pixel limit/i.test(String(error))) throw new Problem(413, 'Photo too large', tooLarge)
    throw new Problem(
      400,
      'Photo cut short',
      'This photo did not arrive whole. Your answers are kept; send the photo again.',
    )
  }
}
async function written(file: string, mostPixels: number): Promise<CleanPhoto> {
  const upright = await sharp(file, {
    limitInputPixels: mostPixels,
    failOn: 'truncated',
    sequentialRead: true,
  })
    .rotate()
    .resize({ width: longSide, height: longSide, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 88 })
    .toBuffer({ resolveWithObject: true })
  const small = await sharp(upright.data).resize(240, 180, { fit: 'cover' }).jpeg({ quality: 78 }).toBuffer()
  return { image: upright.data, small, width: upright.info.width, height: upright.info.height }
}
const tooLarge =
  'This photo has more than 64 million dots. Your answers are kept; choose a smaller size on the phone and send it again.'
