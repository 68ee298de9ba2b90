import sharp from 'sharp'
import { fileTypeFromBuffer } from 'file-type'
import { Problem } from '../platform/problem.ts'

export interface CleanPhoto {
  image: Buffer
  small: Buffer
  width: number
  height: number
}
const accepted = new Set(['image/jpeg', 'image/png', 'image/webp'])
const longSide = 4000

/**
 * A family's photo made safe: its type told from its bytes, its pixels limited before decoding, turned upright,
 * written anew so that place, time and device are gone. @throws Problem with words for the adult.
 */
export async function cleanPhoto(bytes: Buffer, mostPixels: number): Promise<CleanPhoto> {
  if (bytes.length === 0)
    throw new Problem(
      400,
      'Empty photo',
      'This photo has nothing in it: it may not have finished saving. Your answers are kept; choose it again.',
    )
  const type = await fileTypeFromBuffer(bytes)
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
    const source = sharp(bytes, { limitInputPixels: mostPixels, failOn: 'truncated' })
    const { width = 0, height = 0 } = await source.metadata()
    if (width * height > mostPixels) throw new Problem(413, 'Photo too large', tooLarge)
    const upright = await source
      .rotate()
      .resize({ width: longSide, height: longSide, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 88 })
      .toBuffer({ resolveWithObject: true })
    const small = await sharp(upright.data)
      .resize(240, 180, { fit: 'cover' })
      .jpeg({ quality: 78 })
      .toBuffer()
    return { image: upright.data, small, width: upright.info.width, height: upright.info.height }
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
const tooLarge =
  'This photo has more than 64 million dots. Your answers are kept; choose a smaller size on the phone and send it again.'
