/** Pixels along a photo's longer side: counters and their colours are told apart, and it goes in a few seconds. */
const longest = 1800

/**
 * A photo made smaller on the phone before it is sent. What the phone itself can open (its own HEIC too) becomes a
 * JPEG; what it cannot goes as it is, for the server to open.
 */
export async function shrunk(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const by = Math.min(1, longest / Math.max(picture.width, picture.height))
    if (by === 1 && file.type === 'image/jpeg' && file.size < 600_000) return file
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(picture.width * by)
    canvas.height = Math.round(picture.height * by)
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    picture.close()
    const small = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.85))
    return small && small.size < file.size ? small : small && file.type !== 'image/jpeg' ? small : file
  } catch {
    // Not opened here: it may still be a photo.
    return file
  }
}
