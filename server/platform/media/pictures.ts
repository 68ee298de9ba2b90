import { decode } from './ffmpeg.ts'

export interface PictureOptions {
  /** Pictures a second taken from the film; all of them where none is given. */
  rate?: number
  width: number
  height: number
  signal?: AbortSignal
  /** More filters before the picture is made small, and where their report goes. */
  before?: readonly string[]
}
/**
 * Hands over a film's pictures one after another as RGB bytes (width × height × 3), waiting for each to be dealt with.
 * Gives what the program reported. @throws ToolError when the film cannot be read.
 */
export async function eachPicture(
  file: string,
  { rate, width, height, signal, before = [] }: PictureOptions,
  tell: (rgb: Buffer, n: number) => void | Promise<void>,
): Promise<string> {
  const filters = [
    ...before,
    ...(rate ? [`fps=${rate}`] : []),
    `scale=${width}:${height}:flags=area`,
    'format=rgb24',
  ]
  const { bytes, ended } = decode(file, ['-an', '-vf', filters.join(','), '-f', 'rawvideo'], signal)
  const size = width * height * 3
  let [held, have, n] = [Buffer.alloc(size), 0, 0]
  for await (const chunk of bytes) {
    for (let at = 0; at < chunk.length;) {
      const take = Math.min(size - have, chunk.length - at)
      chunk.copy(held, have, at, at + take)
      have += take
      at += take
      if (have < size) continue
      await tell(held, n++)
      held = Buffer.alloc(size)
      have = 0
    }
  }
  return ended
}
