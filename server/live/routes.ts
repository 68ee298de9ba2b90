import { randomInt } from 'node:crypto'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/live'
import { ok } from '@awlbox/core/contracts/api/route'
import type { LiveAct } from '@awlbox/core/contracts/live'
import type { LiveStreetOrder } from '@awlbox/core/contracts/stand-in'
import { throwFor } from '@awlbox/core/live/games'
import { after, LiveRefusal, startState } from '@awlbox/core/live/state'
import { ownPace } from '@awlbox/core/script/pace'
import { lessonById } from '../lessons/store.ts'
import { mayLesson, mayLive, type Right } from '../platform/access.ts'
import type { Person } from '../platform/actor.ts'
import { noted } from '../platform/log.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { addressOn, hereOf } from '../platform/reach.ts'
import { personRoute } from '../platform/route.ts'
import { sendBlob } from '../platform/send-blob.ts'
import type { Services } from '../platform/services.ts'
import { endsWithSession } from '../platform/stream.ts'
import { homeToken } from '../platform/tokens.ts'
import { homesOf, openLinks } from '../send/store.ts'
import { pacesOf } from '../week/store.ts'
import { afterOf, leave } from './afterwards.ts'
import { calendarOf } from './calendar.ts'
import { childrenSeen, deskOf } from './desk.ts'
import { liveHomeRoutes } from './home-routes.ts'
import { type Hub, liveHub } from './hub.ts'
import { earlierFor, runFor } from './now.ts'
import {
  changeLive,
  doAct,
  livePhotoById,
  liveById,
  type LiveRow,
  homesWithout,
  livesOf,
  makeLive,
  tellOf,
} from './store.ts'

/** A live lesson of this person's setting; `change`: of a class that is theirs. @throws Problem */
async function liveFor(s: Services, person: Person, liveId: string, right: Right): Promise<LiveRow> {
  await mayLive(s.db, person, liveId, right)
  return (await liveById(s.db, liveId))!
}
const mayLead = (s: Services, person: Person, liveId: string): Promise<boolean> =>
  mayLive(s.db, person, liveId, 'change').then(
    () => true,
    () => false,
  )
const stale = new Problem(
  409,
  'Another desk was quicker',
  'The lesson had moved on already. Look again; nothing was done twice.',
)
/** What a desk that does not lead may do all the same. */
const anyDesk = new Set<LiveAct['do']>(['note', 'lead'])

/** The teacher's side of a live lesson: made for a time, led from a desk, looked back on. */
export function liveRoutes(router: Router, s: Services): void {
  const hub = liveHub(s)
  schedule(router, s)
  desk(router, s, hub)
  liveHomeRoutes(router, s, hub)
}

function schedule(router: Router, s: Services): void {
  personRoute(router, s, api.livesOfLesson, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const id = params.lessonId
    const [items, homes, without] = await Promise.all([
      livesOf(s.db, id),
      homesOf(s.db, id),
      homesWithout(s.db, id),
    ])
    return {
      items,
      homes: new Set(homes.map((h) => h.householdId)).size,
      without,
      standIns: s.config.camera !== '',
    }
  })
  personRoute(router, s, api.makeLive, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    const lesson = (await lessonById(s.db, params.lessonId))!
    const homes = await homesOf(s.db, params.lessonId)
    // Homes come by their usual link: whoever never had one gets it now.
    await openLinks(s.db, s.secret, [...new Set(homes.map((h) => h.householdId))])
    const id = await makeLive(s.db, {
      lessonId: params.lessonId,
      revision: lesson.revision,
      doc: lesson.doc,
      style: person.houseStyle,
      pace: ownPace(await pacesOf(s.db, person.id)),
      startsAt: new Date(body.startsAt),
      minutes: body.minutes,
      rehearsal: body.rehearsal,
      state: {
        ...startState(lesson.doc),
        ...(body.later ? { later: body.later } : {}),
        ...(body.said ? { said: body.said } : {}),
      },
      byId: person.id,
    })
    await tellOf(s.db, 'live', { id, settingId: person.settingId, lessonId: params.lessonId })
    return { id }
  })
  personRoute(router, s, api.changeLive, async ({ person, params, body }) => {
    const row = await liveFor(s, person, params.liveId, 'change')
    if (row.state.phase !== 'waiting')
      throw new Problem(409, 'It has begun', 'A live lesson that has begun is not moved. End it at the desk.')
    const lesson = body.renew ? await lessonById(s.db, row.lessonId) : null
    await changeLive(s.db, row, {
      ...(body.startsAt ? { startsAt: new Date(body.startsAt) } : {}),
      ...(body.minutes ? { minutes: body.minutes } : {}),
      ...(body.calledOff === undefined ? {} : { calledOffAt: body.calledOff ? new Date() : null }),
      ...(lesson
        ? {
            revision: lesson.revision,
            doc: lesson.doc,
            style: person.houseStyle,
            // What was chosen line by line stays with the lines that are still there.
            state: {
              ...startState(lesson.doc),
              later: row.state.later,
              said: row.state.said,
              seq: row.state.seq + 1,
              lead: row.state.lead,
            },
          }
        : {}),
    })
    return ok
  })
  personRoute(router, s, api.liveCalendar, async ({ req, res, person, params }) => {
    const row = await liveFor(s, person, params.liveId, 'read')
    calendarOf(res, row, { url: `${hereOf(s, req)}/live/${row.id}`, words: row.className })
    return undefined
  })
}
function desk(router: Router, s: Services, hub: Hub): void {
  /** @throws Problem where it cannot be done, with nothing changed */
  const act = async (
    person: Person,
    liveId: string,
    { seq, desk, act }: { seq: number; desk: string; act: LiveAct },
  ): Promise<number> => {
    await mayLive(s.db, person, liveId, 'change')
    const done = { act, at: Date.now(), by: { id: person.id, name: person.name, desk } }
    try {
      const state = await doAct(s.db, liveId, done, {
        work(row) {
          if (row.calledOffAt) throw new Problem(409, 'Called off', 'This live lesson was called off.')
          const { lead } = row.state
          const free = anyDesk.has(act.do)
          if (!free && lead && (lead.id !== person.id || lead.desk !== desk))
            throw new Problem(
              409,
              'Another desk leads',
              `${lead.name} leads from another desk. Take over to lead from here.`,
            )
          if (!free && row.state.seq !== seq) throw stale
          return after(row.state, runFor(row, row.state), done)
        },
        finish: act.do === 'end' ? (tx, row, state) => leave(s, tx, row, state) : undefined,
      })
      if (!state) throw notFound('This live lesson')
      return state.seq
    } catch (error) {
      if (error instanceof LiveRefusal) throw new Problem(409, 'Not now', error.message)
      throw error
    }
  }
  personRoute(router, s, api.readLive, async ({ person, params }) => {
    const row = await liveFor(s, person, params.liveId, 'read')
    const [children, earlier] = await Promise.all([childrenSeen(s.db, row), earlierFor(s.db, row)])
    const news = await deskOf(s.db, row, { children, earlier, now: Date.now() })
    return {
      ...news,
      id: row.id,
      lessonId: row.lessonId,
      className: row.className,
      title: row.doc.title,
      startsAt: row.startsAt,
      minutes: row.minutes,
      rehearsal: row.rehearsal,
      calledOff: row.calledOffAt !== null,
      doc: row.doc,
      style: row.style,
      pace: row.pace,
      revision: row.revision,
      newest: row.newest,
      publicationId: row.publicationId,
      mayLead: await mayLead(s, person, row.id),
      standIns: s.config.camera !== '',
    }
  })
  personRoute(router, s, api.liveAct, async ({ person, params, body }) => ({
    seq: await act(person, params.liveId, body),
  }))
  personRoute(router, s, api.throwLive, async ({ person, params, body }) => {
    const row = await liveFor(s, person, params.liveId, 'change')
    if (!row.state.game) throw new Problem(409, 'Not now', 'No game is on.')
    const thrown = throwFor(row.state.game, (n) => randomInt(n))
    const { seq, desk, show, think } = body
    return {
      seq: await act(person, params.liveId, {
        seq,
        desk,
        act: { do: 'play', thrown, real: false, show, think },
      }),
      thrown,
    }
  })
  personRoute(router, s, api.followLive, async ({ req, res, person, params }) => {
    hub.followDesk(await liveFor(s, person, params.liveId, 'read'), res)
    endsWithSession(s, req, res, person.settingId)
    return undefined
  })
  personRoute(router, s, api.livePhoto, async ({ res, person, params }) => {
    await mayLive(s.db, person, params.liveId, 'read')
    const photo = await livePhotoById(s.db, params.liveId, params.photoId)
    if (!photo) throw notFound('This photo')
    return sendBlob(res, s.blobs.path(photo.small), 'image/jpeg')
  })
  personRoute(router, s, api.liveAfter, async ({ person, params }) =>
    afterOf(s, await liveFor(s, person, params.liveId, 'read')),
  )
  personRoute(router, s, api.standInsJoin, async ({ person, params, body }) => {
    const row = await liveFor(s, person, params.liveId, 'change')
    if (!row.rehearsal)
      throw new Problem(
        409,
        'Not a rehearsal',
        'Made-up homes join rehearsals only: real homes come to this one.',
      )
    if (!s.config.camera) throw new Problem(409, 'No stand-ins', 'No made-up homes run beside this Awlbox.')
    const homes = (await homesOf(s.db, row.lessonId)).filter((h) => h.open)
    const tokens = [...new Set(homes.map((h) => homeToken(s.secret, h.householdId, h.linkVersion)))]
    if (!tokens.length)
      throw new Problem(
        409,
        'No homes',
        'This class has no homes with an open link: add some, then rehearse with them.',
      )
    const order: LiveStreetOrder = { address: addressOn(s.config), tokens, liveId: row.id, seed: body.seed }
    const response = await fetch(`${s.config.camera}/live`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(order),
      signal: AbortSignal.timeout(20_000),
    }).catch((error: unknown) => {
      noted('the street does not answer')(error)
      return null
    })
    if (!response?.ok)
      throw new Problem(503, 'No stand-ins', 'The made-up homes do not answer. The rehearsal goes on.')
    return { homes: tokens.length }
  })
}
