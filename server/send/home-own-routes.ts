import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/home'
import { consentKinds } from '@awlbox/core/contracts/api/homes'
import { keptForOf } from '@awlbox/core/contracts/kept-for'
import { ok } from '@awlbox/core/contracts/api/route'
import { surveyThings } from '@awlbox/core/plan/kit'
import { keptForIn } from '../keep/times-store.ts'
import { livesOfHome } from '../live/lives.ts'
import { kitOfHome, saveKit } from '../plan/kit-store.ts'
import { notFound } from '../platform/problem.ts'
import { homeRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { addConsent, consentsHere } from '../setting/homes-store.ts'
import ical from 'ical-generator'
import { hereOf } from '../platform/reach.ts'
import { speakerHere } from './home-language.ts'
import { packsFor, saveLanguage } from './store.ts'

/** What a home says of itself: what it has, what it reads, what it agrees to. */
export function homeOwnRoutes(router: Router, s: Services): void {
  homeRoute(router, s, api.homeKit, async ({ home }) => ({
    things: surveyThings,
    kit: await kitOfHome(s.db, home.householdId),
  }))
  homeRoute(router, s, api.saveHomeKit, async ({ home, body }) => {
    await saveKit(s.db, home.householdId, {
      ...body,
      has: [...new Set(body.has)].filter((t) => surveyThings.includes(t)),
      ways: [...new Set(body.ways)],
    })
    return ok
  })
  homeRoute(router, s, api.saveHomeLanguage, async ({ home, body }) => {
    await saveLanguage(s.db, home.householdId, body.language)
    return ok
  })
  homeRoute(router, s, api.homeConsents, async ({ home }) => {
    const [children, times] = await Promise.all([
      consentsHere(s.db, home.householdId),
      keptForIn(s.db, home.settingId),
    ])
    const { photos, sound, replies } = keptForOf(times)
    return {
      children: children.map((c) => ({
        id: c.id,
        name: c.name,
        consents: consentKinds.map((kind) => ({
          kind,
          given: c[kind]?.given ?? null,
          giver: c[kind]?.giver ?? null,
          day: c[kind]?.day ?? null,
        })),
      })),
      kept: { photos, sound, replies },
    }
  })
  homeRoute(router, s, api.saveHomeConsent, async ({ home, params, body }) => {
    const here = await consentsHere(s.db, home.householdId)
    if (!here.some((c) => c.id === params.childId)) throw notFound('This child')
    await addConsent(s.db, {
      childId: params.childId,
      ...body,
      day: new Date().toISOString().slice(0, 10),
      byId: null,
    })
    return ok
  })
  homeRoute(router, s, api.homeCalendar, async ({ req, res, home, params }) => {
    const speaker = await speakerHere(s.db, home, req)
    const packs = await packsFor(s.db, home.householdId)
    const page = `${hereOf(s, req)}/h/${params.token}`
    const calendar = ical({ name: home.name, prodId: { company: 'awlbox', product: 'home' } })
    for (const p of packs)
      calendar.createEvent({
        id: `${p.id}@awlbox`,
        start: p.due ? new Date(p.due) : p.sentAt,
        allDay: true,
        summary: speaker.text(p.pack.title),
        description: p.due ? speaker.say('send.due', { day: speaker.day(p.due) }) : '',
        url: `${page}?lesson=${p.id}`,
      })
    for (const l of await livesOfHome(s.db, home))
      calendar.createEvent({
        id: `${String(l.id)}@awlbox`,
        start: new Date(l.startsAt),
        end: new Date(+new Date(l.startsAt) + l.minutes * 60_000),
        summary: speaker.say('live.title', { title: String(l.title) }),
        url: `${page}?live=${String(l.id)}`,
      })
    res.type('text/calendar; charset=utf-8').set('Cache-Control', 'no-store').send(calendar.toString())
    return undefined
  })
}
