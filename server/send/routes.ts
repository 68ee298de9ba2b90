import type { Router } from 'express'
import QRCode from 'qrcode'
import * as api from '@awlbox/core/contracts/api/send'
import { ok } from '@awlbox/core/contracts/api/route'
import type { Replacement } from '@awlbox/core/contracts/api/send'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import type { Concern } from '@awlbox/core/contracts/concern'
import { beforeSending } from '@awlbox/core/send/before-sending'
import { packOf } from '@awlbox/core/send/pack'
import { replacementChanges } from '@awlbox/core/send/replacement'
import { cutAt, cutOf, renderById, rendersOf } from '../cut/store.ts'
import { lessonById } from '../lessons/store.ts'
import { mayClass, mayHousehold, mayLesson, mayPublication } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { houseStyleOf, ladderOf } from '../settings/store.ts'
import { homeToken } from '../platform/tokens.ts'
import { hereOf } from '../platform/reach.ts'
import { writeToHomes } from '../post/letters.ts'
import { languageOf, speech } from '@awlbox/core/send/words/words'
import { speakerHere } from './home-language.ts'
import { type HomeLetter, homeLettersPdf } from './letters-pdf.ts'
import {
  giveSet,
  homesOf,
  homesOfClass,
  openLinks,
  packById,
  publicationsOf,
  publish,
  renewLink,
  replaceFilm,
  revokeLink,
} from './store.ts'

/** The teacher's side of sending: what goes out, to whom, and the links. */
export function sendRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.readSend, async ({ person, params }) => {
    const id = params.lessonId
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
    const concerns = await concernsOf(s, { ...lesson!, settingId: person.settingId }, renders[0])
    return {
      pack: packOf(lesson!.doc, await ladderOf(s.db, person.settingId), person.houseStyle),
      sent,
      latestRender: renders[0] ?? null,
      replacement: await replacement(s, lesson!.doc, sent[0], renders[0]),
      concerns,
      // A link opens a home's page: only those who may send it see it.
      homes: homes.map(({ linkVersion, chosen, spoken, ...h }) => ({
        ...h,
        language: chosen ?? languageOf(spoken),
        link: mayChange && h.open ? `/h/${homeToken(s.secret, h.householdId, linkVersion)}` : null,
      })),
    }
  })
  personRoute(router, s, api.publish, async ({ req, person, params, body }) => {
    const id = params.lessonId
    await mayLesson(s.db, person, id, 'change')
    const lesson = (await lessonById(s.db, id))!
    const pack = packOf(lesson.doc, await ladderOf(s.db, person.settingId), person.houseStyle)
    const render = (await rendersOf(s.db, id))[0]
    if (body.withFilm && !render)
      throw new Problem(409, 'No film yet', 'Render the film first, or send the tasks without it.')
    if (!pack.tasks.length && !body.withFilm)
      throw new Problem(409, 'Nothing to send', 'There is no film and no task in this lesson yet.')
    const concerns = await concernsOf(s, { ...lesson, settingId: person.settingId }, render)
    const unread = body.knowing ? concerns.filter((c) => !body.knowing!.includes(c.key)) : []
    if (unread.length)
      throw new Problem(
        409,
        'Not in order',
        `${unread[0]!.what}${unread.length > 1 ? ` And ${unread.length - 1} more.` : ''} Mend it, or send it all the same.`,
      )
    const homes = await homesOf(s.db, id)
    await openLinks(s.db, s.secret, [...new Set(homes.map((h) => h.householdId))])
    const { due = null, closes = null } = body
    if (due && closes && closes < due)
      throw new Problem(
        400,
        'Closed before it is due',
        'It would close before the day it is wanted by. Nothing was sent.',
      )
    const release = releaseOf(body.release ?? null)
    const sent = await publish(s.db, {
      lessonId: id,
      renderId: body.withFilm ? render!.id : null,
      lessonRevision: lesson.revision,
      pack,
      byId: person.id,
      knowingly: concerns.map((c) => c.what),
      due,
      closes,
      ...(release ? { sentAt: release } : {}),
    })
    if (body.write) await writeToHomes(s, sent, 'new', { origin: hereOf(s, req) })
    return { id: sent }
  })
  personRoute(router, s, api.giveSet, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    const homes = await homesOf(s.db, params.lessonId)
    if (!homes.some((h) => h.childId === params.childId)) throw notFound('This child')
    await giveSet(s.db, params.lessonId, params.childId, body.level)
    return ok
  })
  personRoute(router, s, api.homeLetters, async ({ req, res, person, params, query }) => {
    await mayClass(s.db, person, params.classId, 'change')
    const { className, homes } = await homesOfClass(s.db, params.classId)
    await openLinks(
      s.db,
      s.secret,
      homes.map((h) => h.householdId),
    )
    const letters = await Promise.all(
      homes
        .filter((h) => h.open)
        .map(async (h): Promise<HomeLetter> => {
          const { say, language } = await speakerHere(s.db, { kind: 'home', ...h }, null)
          return {
            rightToLeft: speech[language].direction === 'rtl',
            title: say('letter.title', { class: className }),
            home: say('letter.for', { home: `${h.name} (${h.children.join(', ')})` }),
            paragraphs: [say('letter.how'), say('letter.what')],
            keep: say('letter.keep'),
            link: `${hereOf(s, req)}/h/${homeToken(s.secret, h.householdId, h.linkVersion)}`,
          }
        }),
    )
    if (!letters.length)
      throw new Problem(409, 'No homes yet', 'There is no home with an open link in this class yet.')
    const pdf = await homeLettersPdf(letters, query.paper)
    res.type('application/pdf').attachment('letters.pdf').setHeader('Cache-Control', 'no-store')
    res.send(pdf)
    return undefined
  })
  personRoute(router, s, api.replaceFilm, async ({ person, params, body }) => {
    const id = params.publicationId
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
    return ok
  })
  personRoute(router, s, api.renewLink, async ({ person, params }) => {
    await mayHousehold(s.db, person, params.householdId, 'change')
    return { link: `/h/${await renewLink(s.db, s.secret, params.householdId)}` }
  })
  personRoute(router, s, api.endLink, async ({ person, params }) => {
    await mayHousehold(s.db, person, params.householdId, 'change')
    await revokeLink(s.db, params.householdId)
    return ok
  })
  personRoute(router, s, api.qr, async ({ req, res, query }) => {
    const origin = s.config.origin || `${req.protocol}://${req.get('host')}`
    const svg = await QRCode.toString(origin + query.link, { type: 'svg', margin: 1 })
    res.type('image/svg+xml').setHeader('Cache-Control', 'no-store')
    res.send(svg)
    return undefined
  })
}

/** A newer film than homes see, and what would change for them. */
/** What is not in order with a lesson and its newest film, as they stand now. */
async function concernsOf(
  s: Services,
  lesson: { id: string; settingId: string; doc: Lesson; updatedAt: Date },
  film: Awaited<ReturnType<typeof rendersOf>>[number] | undefined,
): Promise<Concern[]> {
  const [style, now, cut] = await Promise.all([
    houseStyleOf(s.db, lesson.settingId),
    cutOf(s.db, lesson.id),
    film ? cutAt(s.db, lesson.id, film.cutRevision) : undefined,
  ])
  return beforeSending({
    lesson: lesson.doc,
    style,
    changedAt: lesson.updatedAt,
    film: film ? { ...film, cut: cut ?? null } : null,
    cutRevision: now?.revision ?? null,
  })
}
/** A newer film than homes see, or the first one for tasks that went without; null when there is none. */
async function replacement(
  s: Services,
  lesson: Lesson,
  sent: Awaited<ReturnType<typeof publicationsOf>>[number] | undefined,
  newest: { id: string; cutRevision: number } | undefined,
): Promise<Replacement | null> {
  if (!sent || !newest || newest.id === sent.renderId) return null
  // Tasks that went out without a film get theirs: the same pack, and every reply kept.
  if (!sent.renderId) return { publicationId: sent.id, renderId: newest.id, changes: [] }
  const [before, after] = await Promise.all([
    cutAt(s.db, sent.lessonId, sent.cutRevision!),
    cutAt(s.db, sent.lessonId, newest.cutRevision),
  ])
  return {
    publicationId: sent.id,
    renderId: newest.id,
    changes: replacementChanges(lesson, before ?? null, after ?? null),
  }
}

/** Days ahead a sending may wait: what waits longer is forgotten. */
const mostAhead = 60
/** @throws Problem 400 for a moment that is over, or too far ahead. */
function releaseOf(text: string | null): Date | null {
  if (text === null) return null
  const at = new Date(text)
  const ahead = at.getTime() - Date.now()
  if (ahead < -60_000 || ahead > mostAhead * 86_400_000)
    throw new Problem(
      400,
      'Not a moment to send at',
      `It can wait up to ${mostAhead} days, and not into the past. Nothing was sent.`,
    )
  return at
}
