import sharp from 'sharp'

/** Dots a photo may have to be read: more than today's phones make. */
const mostDots = 80_000_000

/** A photo's pixels as its reader takes them: upright, four bytes (RGBA) each. @throws Error of the image library where it is no photo, or has more than 80 million dots. */
export async function photoPixels(
  photo: Buffer | Uint8Array,
): Promise<{ data: Buffer; width: number; height: number }> {
  const { data, info } = await sharp(photo, { limitInputPixels: mostDots })
    .rotate()
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return { data, width: info.width, height: info.height }
}
