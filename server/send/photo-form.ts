import { randomUUID } from 'node:crypto'
import fs from 'node:fs/promises'
import path from 'node:path'
import type { Request, Response } from 'express'
import multer from 'multer'
import { z } from 'zod'
import { roomLeft } from '../platform/blobs.ts'
import { isDbAway, Problem } from '../platform/problem.ts'
import type { Services } from '../platform/services.ts'

export const noPhotos = new Problem(
  403,
  'No photos',
  'Your grown-up asked us to keep no photos of this child. Tell it in words instead; your other answers are kept.',
)
/** A form that is no form, was cut off, or holds something else than one photo. */
function photoProblem(error: unknown): Error {
  const code = (error as { code?: string }).code
  if (error instanceof Error && (code === 'LIMIT_FILE_SIZE' || isDbAway(error))) return error
  return new Problem(
    400,
    'No photo',
    'The photo did not arrive whole. Your answers are kept; choose it again.',
  )
}

/** Takes the photo of a form in, onto the disk: its file, which goes when it was read. To be asked only once the link is known to be good. @throws Problem */
export function photoForm(s: Services): (req: Request, res: Response) => Promise<string> {
  const waiting = path.join(s.config.blobs, 'tmp')
  const oneFile = multer({
    // On the disk, not in memory: a class sends at the same time.
    storage: multer.diskStorage({ destination: (_req, _file, done) => done(null, waiting) }),
    limits: { fileSize: s.config.largestPhoto, files: 1, fields: 4 },
  }).single('photo')
  return async (req, res) => {
    await fs.mkdir(waiting, { recursive: true })
    if (Number(req.headers['content-length'] ?? 0) > (await roomLeft(s.config.blobs, s.config.diskReserve)))
      throw new Problem(
        507,
        'No room',
        'There is no room for photos at the moment. Your answers are kept on this phone: tell your teacher, and send them later.',
      )
    const file = await new Promise<string | undefined>((resolve, reject) => {
      oneFile(req, res, (error: unknown) => {
        if (error) reject(photoProblem(error))
        else resolve(req.file?.path)
      })
    })
    if (!file) throw new Problem(400, 'No photo', 'No photo arrived. Your answers are kept; choose it again.')
    return file
  }
}
/** The name a phone gave what it sends, so that sent twice it is one; a new one where it gave none. */
export function nameGiven(req: Request): string {
  const id: unknown = (req.body as { id?: unknown } | undefined)?.id
  return typeof id === 'string' && z.uuid().safeParse(id).success ? id : randomUUID()
}
