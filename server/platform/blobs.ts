import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import fs from 'node:fs/promises'
import path from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Db } from './db.ts'
import { blobs } from './schema.ts'

/** Files named by the SHA-256 of what is in them. Written under a temporary name, synced, then renamed. */
export interface Blobs {
  /** Stores bytes or a file and returns its name. Storing the same content twice keeps one file. */
  put: (db: Db, content: Buffer | { file: string }, mime: string) => Promise<string>
  /** Path of a stored file for reading. */
  path: (sha256: string) => string
}

export function folderBlobs(folder: string): Blobs {
  const pathOf = (sha: string): string => {
    if (!/^[0-9a-f]{64}$/.test(sha)) throw new Error('Not a blob name')
    return path.join(folder, sha.slice(0, 2), sha)
  }
  return {
    path: pathOf,
    async put(db, content, mime) {
      await fs.mkdir(path.join(folder, 'tmp'), { recursive: true })
      const temporary = path.join(folder, 'tmp', randomUUID())
      const hash = createHash('sha256')
      let size = 0
      const count = new Transform({
        transform(chunk: Buffer, _e, done) {
          hash.update(chunk)
          size += chunk.length
          done(null, chunk)
        },
      })
      try {
        await pipeline(
          Buffer.isBuffer(content) ? Readable.from([content]) : createReadStream(content.file),
          count,
          createWriteStream(temporary),
        )
        const handle = await fs.open(temporary, 'r+')
        await handle.sync()
        await handle.close()
        const sha = hash.digest('hex')
        await fs.mkdir(path.dirname(pathOf(sha)), { recursive: true })
        await fs.rename(temporary, pathOf(sha))
        await db.insert(blobs).values({ sha256: sha, size, mime }).onConflictDoNothing()
        return sha
      } finally {
        await fs.rm(temporary, { force: true })
      }
    },
  }
}
/** Bytes that may still be written before the reserve is touched. */
export async function roomLeft(folder: string, reserve: number): Promise<number> {
  await fs.mkdir(folder, { recursive: true })
  const s = await fs.statfs(folder)
  return s.bavail * s.bsize - reserve
}
