import fs from 'node:fs/promises'
import sharp from 'sharp'
import { readerVersion, readPhoto } from '@awlbox/core/look/photo/read'
import { faceFinder } from '../platform/media/faces.ts'
import { photoPixels } from '../platform/media/photo-pixels.ts'
import { photoEyes } from '../platform/media/seeing.ts'
import { JobProblem, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { photoById, photoOwners, saveReading, unreadPhotos } from './store.ts'

/** Asks for photos to be read, each once: those that wait or are being read already are left alone. */
export async function readLater(s: Pick<Services, 'db' | 'queue'>, ids: readonly string[]): Promise<void> {
  for (const { id, lessonId, settingId } of await photoOwners(s.db, ids))
    await s.queue.add({ kind: 'photo', settingId, lessonId, subject: id })
}

/** Photos that no reader has seen, or an older one than today's, are read anew; a few at a time, newest first. */
export async function readStale(s: Pick<Services, 'db' | 'queue'>): Promise<number> {
  const ids = await unreadPhotos(s.db, readerVersion)
  await readLater(s, ids)
  return ids.length
}

/** Pixels along the longer side in which faces are looked for: those of people at a table are large enough in it. */
const forFaces = 800
/** How many faces seem to be in a photo; null where this machine cannot look for any. */
async function facesIn({
  data,
  width,
  height,
}: Awaited<ReturnType<typeof photoPixels>>): Promise<number | null> {
  const find = await faceFinder()
  if (!find) return null
  const small = await sharp(data, { raw: { width, height, channels: 4 } })
    .resize({ width: forFaces, height: forFaces, fit: 'inside', withoutEnlargement: true })
    .removeAlpha()
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return find(small.data, small.info.width, small.info.height).length
}

/** Reads one photo as it lies in the store, by the code that `./awlbox count` runs. */
export async function readStoredPhoto(s: Pick<Services, 'db' | 'blobs'>, w: Work): Promise<void> {
  const photo = await photoById(s.db, w.job.subject)
  // Its family has taken it back meanwhile: there is nothing to read.
  if (!photo) return
  await w.progress('reading the photo', 0.1)
  let picture
  try {
    picture = await photoPixels(await fs.readFile(s.blobs.path(photo.image)))
  } catch (error) {
    const words = 'This photo cannot be opened any more. Judge by the answers, or ask the home for it again.'
    await saveReading(s.db, photo.id, { reading: null, unread: words, readerVersion })
    throw new JobProblem(words, { cause: error })
  }
  const reading = await readPhoto(picture.data, picture.width, picture.height, await photoEyes())
  const faces = await facesIn(picture)
  await saveReading(s.db, photo.id, { reading, unread: null, readerVersion, faces })
}
