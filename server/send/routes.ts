import type { RequestHandler, Router } from 'express'
import rateLimit from 'express-rate-limit'
import multer from 'multer'
import QRCode from 'qrcode'
import { z } from 'zod'
import { ReplyInput } from '@awlbox/core/contracts/reply'
import { packOf, withoutAnswers } from '@awlbox/core/send/pack'
import { cautionsFor } from '@awlbox/core/plan/things'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { renderFileKinds, renderFileMimes } from '@awlbox/core/contracts/render'
import { changesBetween } from '@awlbox/core/cut/changed'
import { cutAt, renderById, renderFile, rendersOf } from '../cut/store.ts'
import { surveyThings } from '@awlbox/core/plan/kit'
import { kitOfHome, saveKit } from '../plan/kit-store.ts'
import { lessonById } from '../plan/store.ts'
import { homeHasChild, homeMayOpen, mayHousehold, mayLesson, mayPublication } from '../platform/access.ts'
import { config } from '../platform/config.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { homeRoute, personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { homeToken } from '../platform/tokens.ts'
import { cleanPhoto } from './photo-file.ts'
import {
  addPhoto,
  childrenHere,
  homesOf,
  homeVersions,
  openLinks,
  ownPhotos,
  packById,
  packsFor,
  publicationsOf,
  publish,
  renewLink,
  replaceFilm,
  replacementOf,
  repliesFrom,
  revokeLink,
  saveReply,
} from './store.ts'

const Kit = z.object({
  has: z.array(z.string().max(60)).max(60),
  countable: z.number().int().min(0).max(200),
  canPrint: z.boolean(),
})
const Replace = z.object({
  renderId: z.string().uuid(),
  changes: z.array(z.string().trim().min(1).max(200)).max(20),
})
const Publish = z.object({ withFilm: z.boolean() })

export function sendRoutes(router: Router, s: Services): void {
  teacherSide(router, s)
  homeSide(router, s)
}

function teacherSide(router: Router, s: Services): void {
  personRoute(router, s, 'get', '/api/lessons/:lessonId/send', null, async ({ person, params }) => {
    const id = params.lessonId!
    await mayLesson(s.db, person, id, 'read')
    const mayChange = await mayLesson(s.db, person, id, 'change').then(
      () => true,
      () => false,
    )
    const [lesson, homes, sent, renders] = await Promise.all([
      lessonById(s.db, id),
      homesOf(s.db, id),
      publicationsOf(s.db, id),
      rendersOf(s.db, id),
    ])
    return {
      pack: packOf(lesson!.doc),
      sent,
      latestRender: renders[0] ?? null,
      replacement: await replacementFor(s, lesson!.doc, sent[0], renders[0]),
      // A link opens a home's page: only those who may send it see it.
      homes: homes.map(({ linkVersion, ...h }) => ({
        ...h,
        link: mayChange && h.open ? `/h/${homeToken(s.secret, h.householdId, linkVersion)}` : null,
      })),
    }
  })
  personRoute(
    router,
    s,
    'post',
    '/api/lessons/:lessonId/publish',
    Publish,
    async ({ person, params, body }) => {
      const id = params.lessonId!
      await mayLesson(s.db, person, id, 'change')
      const lesson = (await lessonById(s.db, id))!
      const pack = packOf(lesson.doc)
      const render = (await rendersOf(s.db, id))[0]
      if (body.withFilm && !render)
        throw new Problem(409, 'No film yet', 'Render the film first, or send the tasks without it.')
      if (!pack.tasks.length && !body.withFilm)
        throw new Problem(409, 'Nothing to send', 'There is no film and no task in this lesson yet.')
      const homes = await homesOf(s.db, id)
      await openLinks(s.db, s.secret, [...new Set(homes.map((h) => h.householdId))])
      return {
        id: await publish(s.db, {
          lessonId: id,
          renderId: body.withFilm ? render!.id : null,
          lessonRevision: lesson.revision,
          pack,
          byId: person.id,
        }),
      }
    },
  )
  personRoute(
    router,
    s,
    'post',
    '/api/publications/:publicationId/film',
    Replace,
    async ({ person, params, body }) => {
      const id = params.publicationId!
      await mayPublication(s.db, person, id, 'change')
      const [sent, render] = await Promise.all([packById(s.db, id), renderById(s.db, body.renderId)])
      if (!sent || render?.lessonId !== sent.lessonId) throw notFound('This film')
      if (sent.renderId === render.id) throw new Problem(409, 'Shown already', 'Homes see this film already.')
      await replaceFilm(s.db, {
        publicationId: id,
        renderId: render.id,
        changes: body.changes,
        byId: person.id,
      })
      return { ok: true }
    },
  )
  personRoute(router, s, 'post', '/api/households/:householdId/link', null, async ({ person, params }) => {
    await mayHousehold(s.db, person, params.householdId!, 'change')
    return { link: `/h/${await renewLink(s.db, s.secret, params.householdId!)}` }
  })
  personRoute(router, s, 'delete', '/api/households/:householdId/link', null, async ({ person, params }) => {
    await mayHousehold(s.db, person, params.householdId!, 'change')
    await revokeLink(s.db, params.householdId!)
    return { ok: true }
  })
  personRoute(router, s, 'get', '/api/qr', null, async ({ req, res }) => {
    const path = z
      .string()
      .regex(/^\/h\/[\w-]{22}$/)
      .parse(req.query.link)
    const svg = await QRCode.toString((config.origin || `${req.protocol}://${req.get('host')}`) + path, {
      type: 'svg',
      margin: 1,
    })
    res.type('image/svg+xml').setHeader('Cache-Control', 'no-store')
    res.send(svg)
  })
}

/** What would change for homes if the newest film took the place of the one they see; null where they see it, or were sent none. */
async function replacementFor(
  s: Services,
  lesson: Lesson,
  sent: Awaited<ReturnType<typeof publicationsOf>>[number] | undefined,
  newest: { id: string; cutRevision: number; seconds: number } | undefined,
) {
  if (!sent?.renderId || !newest || newest.id === sent.renderId) return null
  const [before, after] = await Promise.all([
    cutAt(s.db, sent.lessonId, sent.cutRevision!),
    cutAt(s.db, sent.lessonId, newest.cutRevision),
  ])
  const titleOf = (id: string): string =>
    lesson.segments.find((x) => x.id === id)?.title ?? 'a part that is gone'
  const changes = before && after ? changesBetween(before, after, titleOf) : []
  return {
    publicationId: sent.id,
    renderId: newest.id,
    changes: changes.length ? changes : ['Captions and words.'],
  }
}

function homeSide(router: Router, s: Services): void {
  homeRoute(router, s, 'get', '/api/home/:token/kit', null, async ({ home }) => ({
    things: surveyThings,
    kit: await kitOfHome(s.db, home.householdId),
  }))
  homeRoute(router, s, 'put', '/api/home/:token/kit', Kit, async ({ home, body }) => {
    await saveKit(s.db, home.householdId, {
      ...body,
      has: [...new Set(body.has)].filter((t) => surveyThings.includes(t)),
    })
    return { ok: true }
  })
  const limited = rateLimit({
    windowMs: 60_000,
    limit: 240,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_q, _s, next) =>
      next(
        new Problem(429, 'Too quick', 'Wait a minute and try again. Your answers are kept on this phone.'),
      ),
  })
  const private_: RequestHandler = (_req, res, next) => {
    res.setHeader('X-Robots-Tag', 'noindex, nofollow')
    res.setHeader('Cache-Control', 'no-store')
    next()
  }
  router.use('/api/home', limited, private_)
  const photo = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: config.largestPhoto, files: 1, fields: 4 },
  }).single('photo')

  homeRoute(router, s, 'get', '/api/home/:token', null, async ({ home }) => {
    const packs = await packsFor(s.db, home.householdId)
    return {
      packs: packs.map((p) => ({ id: p.id, title: p.pack.title, className: p.className, sentAt: p.sentAt })),
    }
  })
  homeRoute(router, s, 'get', '/api/home/:token/packs/:packId', null, async ({ home, params }) => {
    await homeMayOpen(s.db, home, params.packId!)
    const p = await packById(s.db, params.packId!)
    if (!p) throw notFound('This lesson')
    const extra = home.youngerChild
      ? cautionsFor(p.pack.needs.map((n) => ({ thing: n.thing, count: n.count })))
      : []
    return {
      id: p.id,
      className: p.className,
      sentAt: p.sentAt,
      film: p.film
        ? {
            seconds: p.seconds,
            bytes: p.bytes,
            versions: await homeVersions(s.db, p.renderId!),
            replaced: await replacementOf(s.db, p.id),
          }
        : null,
      pack: { ...withoutAnswers(p.pack), cautions: [...new Set([...p.pack.cautions, ...extra])] },
      youngerChild: home.youngerChild,
      children: await childrenHere(s.db, home.householdId, p.classId),
      replies: await repliesFrom(s.db, p.id, home.householdId),
    }
  })
  for (const [name, mime] of [
    ['film', 'video/mp4'],
    ['captions', 'text/vtt'],
    ['poster', 'image/jpeg'],
  ] as const)
    homeRoute(
      router,
      s,
      'get',
      `/api/home/:token/packs/:packId/${name}`,
      null,
      async ({ req, res, home, params }) => {
        await homeMayOpen(s.db, home, params.packId!)
        const p = await packById(s.db, params.packId!)
        if (!p?.[name]) throw notFound('This film')
        return sendBlob(req, res, s.blobs.path(p[name]), mime)
      },
    )
  homeRoute(
    router,
    s,
    'get',
    '/api/home/:token/packs/:packId/files/:kind',
    null,
    async ({ req, res, home, params }) => {
      await homeMayOpen(s.db, home, params.packId!)
      const p = await packById(s.db, params.packId!)
      const kind = z.enum(renderFileKinds).safeParse(params.kind)
      const file = p?.renderId && kind.success ? await renderFile(s.db, p.renderId, kind.data) : undefined
      if (!file || !kind.success) throw notFound('This version of the film')
      return sendBlob(req, res, s.blobs.path(file), renderFileMimes[kind.data])
    },
  )
  homeRoute(
    router,
    s,
    'post',
    '/api/home/:token/packs/:packId/photos',
    null,
    async ({ req, home, params }) => {
      await homeMayOpen(s.db, home, params.packId!)
      if (!req.file)
        throw new Problem(400, 'No photo', 'No photo arrived. Your answers are kept; choose it again.')
      const clean = await cleanPhoto(req.file.buffer)
      const id = await addPhoto(s.db, {
        publicationId: params.packId!,
        householdId: home.householdId,
        width: clean.width,
        height: clean.height,
        image: await s.blobs.put(s.db, clean.image, 'image/jpeg'),
        small: await s.blobs.put(s.db, clean.small, 'image/jpeg'),
      })
      return { id, width: clean.width, height: clean.height }
    },
    [photo],
  )
  homeRoute(
    router,
    s,
    'put',
    '/api/home/:token/packs/:packId/reply',
    ReplyInput,
    async ({ home, params, body }) => {
      await homeMayOpen(s.db, home, params.packId!)
      await homeHasChild(s.db, home, params.packId!, body.childId)
      const p = (await packById(s.db, params.packId!))!
      const tasks = new Map(p.pack.tasks.map((t) => [t.id, t.spec.kind]))
      if (body.answers.some((a) => tasks.get(a.taskId) !== a.kind))
        throw new Problem(
          409,
          'The tasks changed',
          'This lesson was sent again with other tasks. Your answers are kept on this phone: open the link again.',
        )
      const photoIds = [...new Set(body.answers.flatMap((a) => (a.photoId ? [a.photoId] : [])))]
      if ((await ownPhotos(s.db, photoIds, home.householdId, params.packId!)) !== photoIds.length)
        throw new Problem(
          409,
          'Photo missing',
          'The photo is no longer here. Your other answers are kept; choose it again.',
        )
      const saved = await saveReply(s.db, params.packId!, body)
      if (saved === 'looked')
        throw new Problem(
          409,
          'Already looked at',
          'Your teacher has looked at this. Tell them if you would like to send it again.',
        )
      return { receivedAt: saved.updatedAt, again: saved.again }
    },
  )
}
