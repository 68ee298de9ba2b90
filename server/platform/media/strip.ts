import fs, { type FileHandle } from 'node:fs/promises'
import path from 'node:path'
import { ffmpeg } from './ffmpeg.ts'

/**
 * Takes what a film or sound file says of where, with what and under which title it was made out of it. Picture and
 * sound are not touched: in MP4, MOV, WAV and MP3 the places that hold it are blanked where they stand; other kinds are
 * written anew without it into `folder`, their streams copied. Gives the bare file: the same one, or the new one.
 */
export async function stripMedia(file: string, mime: string, folder: string): Promise<string> {
  if (/mp4|quicktime|m4a|m4v|3gpp/.test(mime)) return inPlace(file, blankBoxes)
  if (/wav|vnd\.wave/.test(mime)) return inPlace(file, blankChunks)
  if (/mpeg/.test(mime) && mime.startsWith('audio/')) return inPlace(file, blankId3)
  return rewritten(file, mime, folder)
}
async function inPlace(file: string, work: (h: FileHandle, size: number) => Promise<void>): Promise<string> {
  const handle = await fs.open(file, 'r+')
  try {
    await work(handle, (await handle.stat()).size)
    return file
  } finally {
    await handle.close()
  }
}
const read = async (h: FileHandle, at: number, n: number): Promise<Buffer> => {
  const b = Buffer.alloc(n)
  const { bytesRead } = await h.read(b, 0, n, at)
  return b.subarray(0, bytesRead)
}
const megabyte = 1 << 20
async function blank(h: FileHandle, from: number, to: number): Promise<void> {
  const zeros = Buffer.alloc(Math.min(megabyte, Math.max(0, to - from)))
  for (let at = from; at < to; at += megabyte) await h.write(zeros, 0, Math.min(megabyte, to - at), at)
}

/** Boxes of ISO base media (MP4, MOV) that hold what is told of the file, and those in which such boxes stand. */
const [telling, holding] = [new Set(['udta', 'meta', 'uuid']), new Set(['moov', 'trak', 'moof', 'traf'])]
async function blankBoxes(h: FileHandle, end: number, start = 0, depth = 0): Promise<void> {
  // As many as no film has: what is no film may be anything.
  for (let at = start, n = 0; at + 8 <= end && n < 20_000; n++) {
    const head = await read(h, at, 16)
    const kind = head.toString('latin1', 4, 8)
    const told = head.readUInt32BE(0)
    const [size, header] =
      told === 1 && head.length === 16
        ? [Number(head.readBigUInt64BE(8)), 16]
        : [told === 0 ? end - at : told, 8]
    if (size < header || at + size > end) return
    if (telling.has(kind)) {
      await h.write(Buffer.from('free', 'latin1'), 0, 4, at + 4)
      await blank(h, at + header, at + size)
    } else if (holding.has(kind) && depth < 4) await blankBoxes(h, at + size, at + header, depth + 1)
    at += size
  }
}
/** Chunks of a WAV that are neither its format nor its sound. */
async function blankChunks(h: FileHandle, end: number): Promise<void> {
  if ((await read(h, 0, 12)).toString('latin1', 8, 12) !== 'WAVE') return
  for (let at = 12; at + 8 <= end;) {
    const head = await read(h, at, 8)
    const size = head.readUInt32LE(4)
    const to = Math.min(end, at + 8 + size)
    if (!['fmt ', 'data', 'fact', 'JUNK'].includes(head.toString('latin1', 0, 4))) {
      await h.write(Buffer.from('JUNK', 'latin1'), 0, 4, at)
      await blank(h, at + 8, to)
    }
    at += 8 + size + (size % 2)
  }
}
/** Tags before and after the sound of an MP3. */
async function blankId3(h: FileHandle, end: number): Promise<void> {
  const head = await read(h, 0, 10)
  if (head.toString('latin1', 0, 3) === 'ID3') {
    const size = head.subarray(6).reduce((n, b) => n * 128 + (b & 127), 0)
    await blank(h, 10, Math.min(end, 10 + size))
  }
  if (end > 128 && (await read(h, end - 128, 3)).toString('latin1') === 'TAG') await blank(h, end - 125, end)
}

const kinds: readonly (readonly [RegExp, string])[] = [
  [/webm/, 'webm'],
  [/ogg|opus/, 'ogg'],
  [/flac/, 'flac'],
  [/aac/, 'adts'],
  [/avi|msvideo/, 'avi'],
]
/** A file whose parts cannot be blanked in place. */
async function rewritten(file: string, mime: string, folder: string): Promise<string> {
  const format = kinds.find(([kind]) => kind.test(mime))?.[1] ?? 'matroska'
  const out = path.join(folder, 'bare')
  const bare = ['-map_metadata', '-1', '-map_chapters', '-1', '-fflags', '+bitexact']
  await ffmpeg(['-i', file, '-map', '0:v?', '-map', '0:a?', '-c', 'copy', ...bare, '-f', format, out])
  return out
}
