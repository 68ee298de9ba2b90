import fs from 'node:fs/promises'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/home'
import { ok } from '@awlbox/core/contracts/api/route'
import { renderFileMimes } from '@awlbox/core/contracts/render'
import type { Answer } from '@awlbox/core/contracts/reply'
import { renderFile } from '../cut/store.ts'
import { homeHasChild, homeMayOpen } from '../platform/access.ts'
import type { Home } from '../platform/actor.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { homeRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { refusing } from '../setting/homes-store.ts'
import { speakerHere } from './home-language.ts'
import { isOver, lessonsFor, packFor } from './home-pack.ts'
import { noted } from '../platform/log.ts'
import { hereOf } from '../platform/reach.ts'
import { thankFor } from '../post/letters.ts'
import { printableSheets, printableWords } from '@awlbox/core/send/printables/sheets'
import { printPdf } from '../lessons/pdf/print.ts'
import { takeIn } from './media.ts'
import { nameGiven, noPhotos, photoForm } from './photo-form.ts'
import {
  childrenHere,
  allTheirs,
  packById,
  photosOf,
  saveReply,
  takeBack,
  mediaOf,
  repliesFrom,
} from './store.ts'

const alreadyLooked = new Problem(
  409,
  'Already looked at',
  'Your teacher has looked at this. Tell them if you would like to send it again.',
)
/** What families see, behind a home's link. */
export function homeRoutes(router: Router, s: Services): void {
  router.use('/api/home', (_req, res, next) => {
    res.setHeader('X-Robots-Tag', 'noindex, nofollow')
    next()
  })
  const photoIn = photoForm(s)
  homeRoute(router, s, api.homeLessons, async ({ home }) => ({ packs: await lessonsFor(s, home) }))
  homeRoute(router, s, api.homePack, async ({ req, home, params }) =>
    packFor(s, home, params.packId, await speakerHere(s.db, home, req)),
  )
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
    const file = await photoIn(req, res)
    try {
      const { id, width, height } = await takeIn(s, 'photo', file, {
        id: nameGiven(req),
        publicationId: params.packId,
        householdId: home.householdId,
      })
      return { id, width, height }
    } finally {
      await fs.rm(file, { force: true })
    }
  })
  homeRoute(router, s, api.sendReply, async ({ req, home, params, body }) => {
    await homeMayOpen(s.db, home, params.packId)
    await homeHasChild(s.db, home, params.packId, body.childId)
    const p = (await packById(s.db, params.packId))!
    if (isOver(p.closes))
      throw new Problem(
        409,
        'Closed',
        'This lesson takes no more answers. Yours are kept on this phone; what was done at home counts there.',
      )
    const tasks = new Map(p.pack.tasks.map((t) => [t.id, t.spec.kind]))
    if (body.answers.some((a) => tasks.get(a.taskId) !== a.kind))
      throw new Problem(
        409,
        'The tasks changed',
        'This lesson was sent again with other tasks. Your answers are kept on this phone: open the link again.',
      )
    await mediaIsTheirs(s, home, { ...params, childId: body.childId }, body.answers)
    const saved = await saveReply(s.db, params.packId, body)
    if (saved === 'gone') throw notFound('This child')
    if (saved === 'looked') throw alreadyLooked
    if (!saved.again)
      await thankFor(s, params.packId, home, hereOf(s, req)).catch(noted('no thanks could be written'))
    return { receivedAt: saved.updatedAt, again: saved.again }
  })
  homeRoute(router, s, api.homeSheet, async ({ res, home, params, query }) => {
    await homeMayOpen(s.db, home, params.packId)
    const p = await packById(s.db, params.packId)
    if (!p?.pack.sheets?.includes(params.kind)) throw notFound('This sheet')
    const sheets = printableSheets(params.kind, query.paper, {
      ...(p.pack.sheetNumbers ?? { upTo: 10, parts: 2 }),
      prompts: p.pack.tasks.map((t) => t.prompt),
    })
    res.type('application/pdf').setHeader('Content-Disposition', `inline; filename="${params.kind}.pdf"`)
    res.send(await printPdf(sheets, printableWords[params.kind]))
    return undefined
  })
  homeRoute(router, s, api.takeBackReply, async ({ home, params }) => {
    await homeHasChild(s.db, home, params.packId, params.childId)
    const done = await takeBack(s.db, {
      publicationId: params.packId,
      childId: params.childId,
      householdId: home.householdId,
    })
    if (done === 'looked') throw alreadyLooked
    return ok
  })
}
/** Photos and recordings an answer names: of this home, of this sending, and agreed to for this child. @throws Problem */
async function mediaIsTheirs(
  s: Services,
  home: Home,
  { packId, childId }: { packId: string; childId: string },
  answers: readonly Answer[],
): Promise<void> {
  const photoIds = [...new Set(answers.flatMap(photosOf))]
  const recordingIds = [...new Set(answers.flatMap((a) => (a.recordingId ? [a.recordingId] : [])))]
  if (photoIds.length && (await refusing(s.db, 'photos', [childId])).size) throw noPhotos
  const at = { householdId: home.householdId, publicationId: packId }
  // What the child's reply holds already may be its other home's.
  const reply = (await repliesFrom(s.db, packId, home.householdId)).find((r) => r.childId === childId)
  const held = new Set(reply?.answers.flatMap(mediaOf))
  const fresh = (ids: readonly string[]): string[] => ids.filter((id) => !held.has(id))
  const here = await allTheirs(s.db, { photos: fresh(photoIds), recordings: fresh(recordingIds) }, at)
  if (!here)
    throw new Problem(
      409,
      'Photo missing',
      'The photo or recording is no longer here. Your other answers are kept; choose it again.',
    )
}
