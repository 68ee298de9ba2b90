import fs from 'node:fs/promises'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/live'
import { arrival, type Arrival, tableNow } from '@awlbox/core/live/state'
import { seenBy } from '@awlbox/core/live/view'
import { drawTable, toSvg } from '@awlbox/core/script/table/drawing/table'
import type { Home } from '../platform/actor.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { hereOf } from '../platform/reach.ts'
import { homeRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { livePhotoIn } from '../send/media.ts'
import { nameGiven, noPhotos, photoForm } from '../send/photo-form.ts'
import { refusing } from '../setting/homes-store.ts'
import { joinLate } from './afterwards.ts'
import { calendarOf } from './calendar.ts'
import type { Hub } from './hub.ts'
import { asSeenRow, livesOfHome } from './lives.ts'
import { runFor } from './now.ts'
import { answersOfHome, livePhotoById, type LiveRow, saveAnswer } from './store.ts'

/** Milliseconds after its end in which what a phone still held is taken in. */
const takesUntil = 24 * 3_600_000

const refused: Record<Exclude<Arrival, 'in time' | 'late'>, Problem> = {
  early: new Problem(
    425,
    'Still thinking',
    'It can be sent when the thinking time is over. It is kept on this phone.',
  ),
  undone: new Problem(409, 'Taken back', 'Your teacher took this question back. Nothing of yours is lost.'),
  unknown: new Problem(404, 'Not asked', 'This was not asked here. Open the lesson again.'),
}

/** What a home has of a live lesson: how it stands, and a way to give its own child's answer. */
export function liveHomeRoutes(router: Router, s: Services, hub: Hub): void {
  const photoIn = photoForm(s)
  /** The lesson and this home's children in it. @throws Problem where there are none, or it was called off */
  const joined = async (home: Home, liveId: string, fresh = false) => {
    const row = await hub.rowOf(liveId, fresh)
    const kids = row ? await hub.kidsOf(row, home.householdId) : []
    if (!row || !kids.length) throw notFound('This live lesson')
    if (row.calledOffAt)
      throw new Problem(
        410,
        'Called off',
        'This live lesson does not take place. Your teacher will tell you when.',
      )
    return { row, kids }
  }
  const isOpen = (row: LiveRow): void => {
    const { open } = asSeenRow(row, Date.now())
    if (!open && !row.rehearsal)
      throw new Problem(
        409,
        'Not open yet',
        'It opens five minutes before it begins. This page waits for it.',
      )
  }
  homeRoute(router, s, api.homeLives, async ({ home }) => ({ items: await livesOfHome(s.db, home) }))
  homeRoute(router, s, api.homeLive, async ({ home, params }) => {
    const { row, kids } = await joined(home, params.liveId)
    const [no, mine] = await Promise.all([
      refusing(
        s.db,
        'photos',
        kids.map((k) => k.id),
      ),
      answersOfHome(s.db, row.id, home.householdId),
    ])
    const now = Date.now()
    return {
      live: asSeenRow(row, now),
      seen: seenBy(runFor(row, row.state), row.state, row.style, now),
      children: kids.map((k) => ({ ...k, photos: !no.has(k.id) })),
      mine: mine.filter((m) => kids.some((k) => k.id === m.childId)),
    }
  })
  homeRoute(router, s, api.followHomeLive, async ({ res, home, params, query }) => {
    const { row } = await joined(home, params.liveId, true)
    isOpen(row)
    await hub.followHome(row, { res, householdId: home.householdId, device: query.device || 'page' })
    return undefined
  })
  homeRoute(router, s, api.homeLiveTable, async ({ res, home, params }) => {
    const { row } = await joined(home, params.liveId)
    isOpen(row)
    const table = tableNow(runFor(row, row.state), row.state)
    res
      .type('image/svg+xml')
      .set('Cache-Control', 'private, max-age=60')
      .send(toSvg(drawTable(table, row.style.frameFill)))
    return undefined
  })
  homeRoute(router, s, api.answerLive, async ({ home, params, body }) => {
    const here = await joined(home, params.liveId)
    let { row } = here
    if (!here.kids.some((k) => k.id === body.childId)) throw notFound('This child')
    let comes = arrival(row.state, params.roundId, Date.now())
    if (comes !== 'in time') {
      // Another process may have moved on: what stands in the database counts.
      ;({ row } = await joined(home, params.liveId, true))
      comes = arrival(row.state, params.roundId, Date.now())
    }
    if (comes !== 'in time' && comes !== 'late') throw refused[comes]
    if (row.state.endedAt !== null && Date.now() - row.state.endedAt > takesUntil)
      throw new Problem(
        409,
        'Long over',
        'This live lesson was more than a day ago. Do its tasks on this page instead.',
      )
    const round = row.state.rounds.find((r) => r.id === params.roundId)!
    const { answer } = body
    if (answer.kind !== (round.spec?.kind ?? 'tell'))
      throw new Problem(
        409,
        'Asked otherwise',
        'This was answered as something else than was asked. Open the lesson again.',
      )
    if (answer.photoId) {
      if ((await refusing(s.db, 'photos', [body.childId])).size) throw noPhotos
      const photo = await livePhotoById(s.db, row.id, answer.photoId)
      if (photo?.householdId !== home.householdId)
        throw new Problem(409, 'Photo missing', 'The photo is no longer here. Take it again.')
    }
    const kept = await saveAnswer(s.db, row, {
      roundId: params.roundId,
      childId: body.childId,
      householdId: home.householdId,
      key: body.key,
      answer: { ...answer, taskId: params.roundId },
      late: comes === 'late',
    })
    hub.answered(row)
    if (row.state.phase === 'over') await joinLate(s.db, row, body.childId)
    return { late: kept.late, kept: kept.stands ? ('this' as const) : ('first' as const) }
  })
  homeRoute(router, s, api.homeLivePhoto, async ({ req, res, home, params }) => {
    const { row, kids } = await joined(home, params.liveId)
    isOpen(row)
    const ids = kids.map((k) => k.id)
    if ((await refusing(s.db, 'photos', ids)).size === ids.length) throw noPhotos
    const file = await photoIn(req, res)
    try {
      const to = { id: nameGiven(req), liveId: row.id, householdId: home.householdId }
      return { id: (await livePhotoIn(s, file, to)).id }
    } finally {
      await fs.rm(file, { force: true })
    }
  })
  homeRoute(router, s, api.homeLiveCalendar, async ({ req, res, home, params }) => {
    const { row } = await joined(home, params.liveId)
    calendarOf(res, row, { url: `${hereOf(s, req)}/h/${params.token}?live=${row.id}`, words: row.className })
    return undefined
  })
}
