import type { Router } from 'express'
import { differenceInCalendarDays, getDay } from 'date-fns'
import { z } from 'zod'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { nextAct, reasonFor, sewn } from '@awlbox/core/next/minutes'
import { usualHours } from '@awlbox/core/next/week'
import { hoursOf, ladderOf } from '../people/setting.ts'
import { mayClass, mayLesson } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { exportRoutes } from './export-routes.ts'
import { lessonFacts } from './facts.ts'
import { libraryRoutes } from './library-routes.ts'
import { weekRoutes } from './week-routes.ts'
import {
  classesOf,
  createLesson,
  lastReplies,
  lessonById,
  lessonsOf,
  nameRevision,
  revisionDoc,
  revisionsOf,
  saveLesson,
} from './store.ts'

const NewLesson = z.object({ day: z.iso.date(), doc: Lesson })
const Save = z.object({ revision: z.number().int().min(1), doc: Lesson })
const quietAfterDays = 5

export function planRoutes(router: Router, s: Services): void {
  weekRoutes(router, s)
  libraryRoutes(router, s)
  exportRoutes(router, s)
  personRoute(router, s, 'get', '/api/shelf', null, async ({ person }) => {
    const [classes, ladder] = await Promise.all([
      classesOf(s.db, person.settingId),
      ladderOf(s.db, person.settingId),
    ])
    const ids = classes.map((c) => c.id)
    const rows = ids.length ? await lessonsOf(s.db, ids, 60) : []
    const facts = await lessonFacts(
      s.db,
      rows.map((r) => r.id),
    )
    const now = new Date()
    const lessons = rows.map((r) => {
      const f = facts.get(r.id)!
      return {
        id: r.id,
        classId: r.classId,
        day: r.day,
        title: r.title.title,
        idea: ideaById(r.title.ideaId, ladder)?.name ?? '',
        facts: f,
        sewn: sewn(f),
        act: nextAct(f),
      }
    })
    // An evening looks a week ahead; what goes out later has its place in the week.
    const tonight = lessons
      .flatMap((l) => {
        const days = differenceInCalendarDays(new Date(l.day), now)
        if ((l.facts.sent && l.facts.replies === l.facts.looked) || days > 7) return []
        const waited = l.facts.oldestWaiting && differenceInCalendarDays(now, new Date(l.facts.oldestWaiting))
        return [
          {
            lessonId: l.id,
            title: l.title,
            ...l.act,
            reason: reasonFor(l.act.station, days, waited, l.facts.filmSeconds),
            due: l.act.station === 'look' ? -1 : days,
          },
        ]
      })
      .sort((a, b) => a.due - b.due)
    const quiet = (ids.length ? await lastReplies(s.db, ids) : [])
      .flatMap((c) => {
        if (!c.firstSent) return []
        const days = differenceInCalendarDays(now, c.last ?? c.firstSent)
        return days >= quietAfterDays
          ? [
              {
                childId: c.childId,
                name: c.name,
                className: classes.find((k) => k.id === c.classId)!.name,
                days,
              },
            ]
          : []
      })
      .sort((a, b) => b.days - a.days)
    const hours = (await hoursOf(s.db, person.id)) ?? usualHours
    return { classes, lessons, tonight, quiet, evening: hours[(getDay(now) + 6) % 7] ?? 0 }
  })

  personRoute(
    router,
    s,
    'post',
    '/api/classes/:classId/lessons',
    NewLesson,
    async ({ person, params, body }) => {
      await mayClass(s.db, person, params.classId!, 'change')
      return {
        id: await createLesson(s.db, {
          classId: params.classId!,
          day: body.day,
          doc: body.doc,
          byId: person.id,
          style: person.houseStyle,
        }),
      }
    },
  )

  personRoute(router, s, 'get', '/api/lessons/:lessonId', null, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    const lesson = await lessonById(s.db, params.lessonId!)
    if (!lesson) throw notFound('This lesson')
    const facts = (await lessonFacts(s.db, [lesson.id])).get(lesson.id)!
    const mayChange = await mayLesson(s.db, person, lesson.id, 'change').then(
      () => true,
      () => false,
    )
    return { ...lesson, facts, sewn: sewn(facts), act: nextAct(facts), mayChange }
  })

  personRoute(router, s, 'put', '/api/lessons/:lessonId/doc', Save, async ({ person, params, body }) => {
    const id = params.lessonId!
    await mayLesson(s.db, person, id, 'change')
    const revision = await saveLesson(s.db, { id, ...body, byId: person.id, style: person.houseStyle })
    if (revision !== undefined) return { revision }
    const current = await lessonById(s.db, id)
    if (!current) throw notFound('This lesson')
    throw new Problem(
      409,
      'Changed elsewhere',
      'This lesson was changed in another window or by someone else since you opened it. Both versions are kept.',
      {
        revision: current.revision,
        doc: current.doc,
        base: (await revisionDoc(s.db, id, body.revision)) ?? null,
      },
    )
  })

  personRoute(router, s, 'get', '/api/lessons/:lessonId/revisions', null, async ({ req, person, params }) => {
    await mayLesson(s.db, person, params.lessonId!, 'read')
    const before = z.coerce.number().int().optional().parse(req.query.before)
    const items = await revisionsOf(s.db, params.lessonId!, before ?? null, 50)
    return { items, next: items.length === 50 ? items.at(-1)!.revision : null }
  })

  personRoute(
    router,
    s,
    'post',
    '/api/lessons/:lessonId/revisions/:revision/name',
    z.object({ name: z.string().trim().min(1).max(60) }),
    async ({ person, params, body }) => {
      await mayLesson(s.db, person, params.lessonId!, 'change')
      const revision = z.coerce.number().int().parse(params.revision)
      if (
        !(await nameRevision(s.db, {
          lessonId: params.lessonId!,
          revision,
          name: body.name,
          byId: person.id,
        }))
      )
        throw notFound('This revision')
      return { revision, name: body.name }
    },
  )

  personRoute(
    router,
    s,
    'get',
    '/api/lessons/:lessonId/revisions/:revision',
    null,
    async ({ person, params }) => {
      await mayLesson(s.db, person, params.lessonId!, 'read')
      const doc = await revisionDoc(s.db, params.lessonId!, z.coerce.number().int().parse(params.revision))
      if (!doc) throw notFound('This revision')
      return { doc }
    },
  )
}
