import fs from 'node:fs/promises'
import path from 'node:path'
import { type FileStore } from '@tus/file-store'
import type { Upload } from '@tus/server'
import { fileTypeFromFile } from 'file-type'
import { lessonById } from '../lessons/store.ts'
import { forLog, log, noted } from '../platform/log.ts'
import { probe } from '../platform/media/ffmpeg.ts'
import { stripMedia } from '../platform/media/strip.ts'
import { Problem } from '../platform/problem.ts'
import type { Services } from '../platform/services.ts'
import { prepareLater } from './prepare-later.ts'
import { inFolder } from '../platform/temporary.ts'
import { isWhole, senderOf, uploadIfThere } from '../platform/tus.ts'
import { addOnce, type FinishedUpload, finishedUpload, takesLeftAlone } from './store.ts'

/** Uploads being finished in this process: whoever asks meanwhile gets the same answer. */
const underWay = new Map<string, Promise<FinishedUpload>>()

/**
 * Makes a take of an upload that has arrived whole. Done as often as it takes: its pieces are there until the take is
 * written down, and what was written down is given again. @throws Problem 415 where it is no film; then it is gone.
 */
export function finishUpload(s: Services, store: FileStore, upload: Upload): Promise<FinishedUpload> {
  const known = underWay.get(upload.id)
  if (known) return known
  const work = finish(s, store, upload).finally(() => underWay.delete(upload.id))
  underWay.set(upload.id, work)
  return work
}
async function finish(s: Services, store: FileStore, upload: Upload): Promise<FinishedUpload> {
  const remove = () => store.remove(upload.id).catch(noted('an upload’s pieces could not be removed'))
  const before = await finishedUpload(s.db, upload.id)
  if (before) {
    await remove()
    return before
  }
  const file = path.join(store.directory, upload.id)
  const { lessonId, segmentId, source, filename } = (upload.metadata ?? {}) as Record<string, string>
  const personId = senderOf(upload)
  const type = await fileTypeFromFile(file)
  const media = type && /^(video|audio)\//.test(type.mime) ? await probe(file) : null
  if (!media || (media.seconds === 0 && !media.video)) {
    await remove()
    throw new Problem(
      415,
      'Not a film',
      'This file holds no picture or sound, whatever its name says. Nothing was changed; choose an MP4, MOV, WebM or sound file.',
    )
  }
  const lesson = await lessonById(s.db, lessonId!)
  if (!lesson) {
    await remove()
    throw new Problem(404, 'Not found', 'The lesson this was sent for is gone.')
  }
  const original = await inFolder('bare', async (folder) => {
    // Where, when and with what a phone filmed is nobody's business; a file that does not let go of it is kept all the same.
    const bare = await stripMedia(file, type!.mime, folder).catch((error: unknown) => {
      log.warn({ error: forLog(error) }, 'what a film tells of itself could not be taken out')
      return file
    })
    return s.blobs.put(s.db, { file: bare }, type!.mime)
  })
  const size = upload.size!
  // A segment taken out of the script meanwhile: its film waits in the tray.
  const segment = lesson.doc.segments.some((x) => x.id === segmentId) ? segmentId! : null
  // The same file chosen twice is one take: the second is told which.
  const { takeId, known } = await addOnce(
    s.db,
    {
      lessonId: lessonId!,
      segmentId: segment,
      source: source === 'recorded' ? 'recorded' : 'uploaded',
      original,
      name: filename?.slice(0, 200) || null,
    },
    { id: upload.id, size, personId: personId! },
  )
  if (!known)
    await prepareLater(s, lesson.settingId, {
      id: takeId,
      lessonId: lessonId!,
      segmentId: segment,
    })
  await remove()
  return { takeId, known, size, personId: personId! }
}

/** What a process that ended too early left behind: whole uploads become takes, and takes nobody prepares are prepared. */
export async function finishLeftOver(s: Services, store: FileStore): Promise<void> {
  const names = await fs.readdir(store.directory).catch(() => [])
  for (const name of names.filter((n) => n.endsWith('.json'))) {
    const upload = await uploadIfThere(store, name.slice(0, -'.json'.length))
    if (!upload || !isWhole(upload)) continue
    await finishUpload(s, store, upload).catch((error: unknown) =>
      log.warn({ error: forLog(error) }, 'a whole upload could not be made a take yet'),
    )
  }
  for (const t of await takesLeftAlone(s.db)) await prepareLater(s, t.settingId, t)
}
