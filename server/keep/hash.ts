import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'

/** SHA-256 of a file, read in pieces; null where it is not there. */
export async function hashOf(file: string): Promise<string | null> {
  const hash = createHash('sha256')
  try {
    await pipeline(createReadStream(file), hash)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null
    throw error
  }
  return hash.digest('hex')
}
