import type { Response } from 'express'
import path from 'node:path'

/**
 * Sends a stored file with byte ranges, so that films can be sought in. A browser may keep it, and asks before it shows
 * it again: after signing out, or once a link is closed, nothing of it can be seen on a shared computer.
 */
export function sendBlob(res: Response, file: string, mime: string, download?: string): Promise<undefined> {
  return new Promise((resolve, reject) => {
    res.type(mime)
    if (download) res.attachment(download).type(mime)
    res.sendFile(
      path.basename(file),
      {
        root: path.dirname(file),
        acceptRanges: true,
        cacheControl: false,
        headers: {
          'Content-Type': mime,
          'Cache-Control': 'private, no-cache',
          ETag: `"${path.basename(file)}"`,
        },
      },
      (error) => {
        // A viewer who seeks or leaves ends the connection: nothing is wrong.
        if (error && !res.headersSent && (error as NodeJS.ErrnoException).code !== 'ECONNABORTED')
          reject(error)
        else resolve(undefined)
      },
    )
  })
}
