import fs from 'node:fs/promises'
import path from 'node:path'
import type { Request, Response, Router } from 'express'
import multer from 'multer'
import * as api from '@awlbox/core/contracts/api/home'
import { ok } from '@awlbox/core/contracts/api/route'
import { renderFileMimes } from '@awlbox/core/contracts/render'
import { surveyThings } from '@awlbox/core/plan/kit'
import { renderFile } from '../cut/store.ts'
import { readLater } from '../look/read-photo.ts'
import { kitOfHome, saveKit } from '../plan/kit-store.ts'
import { homeHasChild, homeMayOpen } from '../platform/access.ts'
import { roomLeft } from '../platform/blobs.ts'
import { isDbAway, notFound, Problem } from '../platform/problem.ts'
import { homeRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { inFolder } from '../platform/temporary.ts'
import { refusing } from '../setting/homes-store.ts'
import { cleanPhoto } from './photo-file.ts'
import { lessonsFor, packFor } from './home-pack.ts'
import { addPhoto, childrenHere, ownPhotos, packById, saveReply } from './store.ts'

const noPhotos = new Problem(
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
/** What families see, behind a home's link. */
export function homeRoutes(router: Router, s: Services): void {
  router.use('/api/home', (_req, res, next) => {
    res.setHeader('X-Robots-Tag', 'noindex, nofollow')
    next()
  })
  const waiting = path.join(s.config.blobs, 'tmp')
  const oneFile = multer({
    // On the disk, not in memory: a class sends at the same time.
    storage: multer.diskStorage({ destination: (_req, _file, done) => done(null, waiting) }),
    limits: { fileSize: s.config.largestPhoto, files: 1, fields: 4 },
  }).single('photo')
  /** The photo of a form: taken in only once the link is known to be good. */
  const photoIn = (req: Request, res: Response): Promise<string | null> =>
    new Promise((resolve, reject) => {
      oneFile(req, res, (error: unknown) => {
        if (error) reject(photoProblem(error))
        else resolve(req.file?.path ?? null)
      })
    })
  homeRoute(router, s, api.homeKit, async ({ home }) => ({
    things: surveyThings,
    kit: await kitOfHome(s.db, home.householdId),
  }))
  homeRoute(router, s, api.saveHomeKit, async ({ home, body }) => {
    await saveKit(s.db, home.householdId, {
      ...body,
      has: [...new Set(body.has)].filter((t) => surveyThings.includes(t)),
    })
    return ok
  })
  homeRoute(router, s, api.homeLessons, async ({ home }) => ({ packs: await lessonsFor(s, home) }))
  homeRoute(router, s, api.homePack, ({ home, params }) => packFor(s, home, params.packId))
  for (const [route, part, mime] of [
    [api.homeFilm, 'film', 'video/mp4'],
    [api.homeCaptions, 'captions', 'text/vtt'],
    [api.homePoster, 'poster', 'image/jpeg'],
  ] as const)
    homeRoute(router, s, route, async ({ res, home, params }) => {
      await homeMayOpen(s.db, home, params.packId)
      const blob = (await packById(s.db, params.packId))?.[part]
      if (!blob) throw notFound('This film')
      return sendBlob(res, s.blobs.path(blob), mime)
    })
  homeRoute(router, s, api.homeFile, async ({ res, home, params }) => {
    await homeMayOpen(s.db, home, params.packId)
    const p = await packById(s.db, params.packId)
    const file = p?.renderId ? await renderFile(s.db, p.renderId, params.kind) : undefined
    if (!file) throw notFound('This version of the film')
    return sendBlob(res, s.blobs.path(file), renderFileMimes[params.kind])
  })
  homeRoute(router, s, api.sendPhoto, async ({ req, res, home, params }) => {
    await homeMayOpen(s.db, home, params.packId)
    const here = await childrenHere(s.db, home.householdId, (await packById(s.db, params.packId))!.classId)
    const ids = here.map((c) => c.id)
    if ((await refusing(s.db, 'photos', ids)).size === ids.length) throw noPhotos
    await fs.mkdir(waiting, { recursive: true })
    if (Number(req.headers['content-length'] ?? 0) > (await roomLeft(s.config.blobs, s.config.diskReserve)))
      throw new Problem(
        507,
        'No room',
        'There is no room for photos at the moment. Your answers are kept on this phone: tell your teacher, and send them later.',
      )
    const file = await photoIn(req, res)
    if (!file) throw new Problem(400, 'No photo', 'No photo arrived. Your answers are kept; choose it again.')
    const photo = await inFolder('photo', async (folder) => {
      const clean = await cleanPhoto(file, s.config.mostPixels, folder)
      return {
        width: clean.width,
        height: clean.height,
        image: await s.blobs.put(s.db, { file: clean.image }, 'image/jpeg'),
        small: await s.blobs.put(s.db, { file: clean.small }, 'image/jpeg'),
      }
    }).finally(() => fs.rm(file, { force: true }))
    const id = await addPhoto(s.db, {
      publicationId: params.packId,
      householdId: home.householdId,
      ...photo,
    })
    await readLater(s, [id])
    return { id, width: photo.width, height: photo.height }
  })
  homeRoute(router, s, api.sendReply, async ({ home, params, body }) => {
    await homeMayOpen(s.db, home, params.packId)
    await homeHasChild(s.db, home, params.packId, body.childId)
    const p = (await packById(s.db, params.packId))!
    const tasks = new Map(p.pack.tasks.map((t) => [t.id, t.spec.kind]))
    if (body.answers.some((a) => tasks.get(a.taskId) !== a.kind))
      throw new Problem(
        409,
        'The tasks changed',
        'This lesson was sent again with other tasks. Your answers are kept on this phone: open the link again.',
      )
    const photoIds = [...new Set(body.answers.flatMap((a) => (a.photoId ? [a.photoId] : [])))]
    if (photoIds.length && (await refusing(s.db, 'photos', [body.childId])).size) throw noPhotos
    if ((await ownPhotos(s.db, photoIds, home.householdId, params.packId)) !== photoIds.length)
      throw new Problem(
        409,
        'Photo missing',
        'The photo is no longer here. Your other answers are kept; choose it again.',
      )
    const saved = await saveReply(s.db, params.packId, body)
    if (saved === 'gone') throw notFound('This child')
    if (saved === 'looked')
      throw new Problem(
        409,
        'Already looked at',
        'Your teacher has looked at this. Tell them if you would like to send it again.',
      )
    return { receivedAt: saved.updatedAt, again: saved.again }
  })
}
