import type { Router } from 'express'
import { addDays, formatISO, parseISO, startOfWeek, subDays } from 'date-fns'
import ical from 'ical-generator'
import { z } from 'zod'
import * as api from '@awlbox/core/contracts/api/week'
import { inWeek, planWeek, ratesOf, tasksOf, usualHours, type WeekLesson } from '@awlbox/core/next/week'
import { hoursOf, saveHours } from '../settings/store.ts'
import { mayLesson } from '../platform/access.ts'
import type { Person } from '../platform/actor.ts'
import { Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { lessonFacts } from '../lessons/facts-store.ts'
import { lessonsDue, saveDates, workDone } from './store.ts'
import { capital } from '@awlbox/core/words'

const iso = (d: Date): string => formatISO(d, { representation: 'date' })

async function weekOf(s: Services, person: Person, from: Date) {
  const days = Array.from({ length: 7 }, (_, i) => iso(addDays(from, i)))
  const due = await lessonsDue(s.db, person.id, iso(subDays(from, 7)), iso(addDays(from, 13)))
  const facts = await lessonFacts(
    s.db,
    due.map((l) => l.id),
  )
  const rates = ratesOf(await workDone(s.db, person.id))
  const minutes = (await hoursOf(s.db, person.id)) ?? [...usualHours]
  const hours = days.map((day, i) => ({ day, minutes: minutes[i] ?? 0 }))
  const lessons = due
    .map((l): WeekLesson & { className: string } => {
      const f = facts.get(l.id)!
      return {
        id: l.id,
        title: l.title,
        className: l.className,
        day: l.day,
        filmBy: l.filmBy,
        sendBy: l.sendBy,
        filmMinutes: f.filmSeconds / 60,
        written: f.segments > 0 && f.findings === 0,
        filmed: f.segments ? f.filmed / f.segments : 0,
        cut: f.rendered,
        sent: f.sent,
        repliesWaiting: f.replies - f.looked,
        repliesExpected: f.sent || l.day > days[6]! ? 0 : l.children,
      }
    })
    .filter((l) => inWeek(l, days[0]!, days[6]!))
  // Hours of days gone by cannot be worked any more.
  const today = iso(new Date())
  const ahead = hours.filter((h) => h.day >= today)
  return {
    from: days[0]!,
    today,
    days,
    hours,
    lessons,
    rates,
    plan: planWeek(lessons, ahead.length ? ahead : hours, rates),
  }
}
const firstDay = (text: unknown): Date => {
  const parsed = z.iso.date().safeParse(text)
  return startOfWeek(parsed.success ? parseISO(parsed.data) : new Date(), { weekStartsOn: 1 })
}

export function weekRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.week, ({ query, person }) => weekOf(s, person, firstDay(query.from)))
  personRoute(router, s, api.saveHours, async ({ person, body }) => {
    await saveHours(s.db, person.id, body.minutes)
    return { minutes: body.minutes }
  })
  personRoute(router, s, api.saveDates, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    if (body.filmBy && body.filmBy > body.day)
      throw new Problem(
        400,
        'Filmed after it goes out',
        'Film-by has to come before the day the lesson goes out. Nothing was changed.',
      )
    if (body.sendBy && body.sendBy > body.day)
      throw new Problem(
        400,
        'Sent after it goes out',
        'Send-by has to come before the day the lesson goes out. Nothing was changed.',
      )
    await saveDates(s.db, params.lessonId, body)
    return body
  })
  personRoute(router, s, api.weekCalendar, async ({ query, person, res }) => {
    const week = await weekOf(s, person, firstDay(query.from))
    const calendar = ical({
      name: `Awlbox: ${person.settingName}`,
      prodId: { company: 'awlbox', product: 'week' },
    })
    for (const l of week.lessons) {
      calendar.createEvent({
        id: `${l.id}-day@awlbox`,
        start: parseISO(l.day),
        allDay: true,
        summary: `${l.title} goes out (${l.className})`,
      })
      for (const t of tasksOf(l, week.rates))
        calendar.createEvent({
          id: `${l.id}-${t.what}@awlbox`,
          start: parseISO(t.by),
          allDay: true,
          summary: `${capital(t.what)}: ${l.title}`,
          description: `About ${t.minutes} minutes.`,
        })
    }
    res.type('text/calendar; charset=utf-8').attachment(`awlbox-${week.from}.ics`)
    res.send(calendar.toString())
    return undefined
  })
}
