import type { Router } from 'express'
import { formatISO, getDay } from 'date-fns'
import * as api from '@awlbox/core/contracts/api/shelf'
import { nextAct, sewn } from '@awlbox/core/next/minutes'
import { quietOf, tonightOf } from '@awlbox/core/next/tonight'
import { workLeft } from '@awlbox/core/next/work'
import { lateBy } from '@awlbox/core/keep/nightly'
import { usualHours } from '@awlbox/core/next/week'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { lessonFacts } from '../lessons/facts-store.ts'
import { nightlyOf } from '../keep/nightly-store.ts'
import { classesOf, lastReplies, lessonsOf } from '../lessons/store.ts'
import { workOf } from '../jobs/store.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { hoursOf, ladderOf } from '../settings/store.ts'

const mostLessons = 60
const dayOf = (moment: Date | string): string => formatISO(moment, { representation: 'date' })

/** The first page: classes, lessons, tonight. */
export function shelfRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.shelf, async ({ person }) => {
    const [classes, ladder] = await Promise.all([
      classesOf(s.db, person.settingId),
      ladderOf(s.db, person.settingId),
    ])
    const ids = classes.map((c) => c.id)
    const rows = ids.length ? await lessonsOf(s.db, ids, mostLessons) : []
    const found = await lessonFacts(
      s.db,
      rows.map((r) => r.id),
    )
    const lessons = rows.map(({ title: doc, ...r }) => {
      const f = found.get(r.id)!
      const facts = {
        ...f,
        sentAt: f.sentAt?.toISOString() ?? null,
        oldestWaiting: f.oldestWaiting?.toISOString() ?? null,
        liveAt: f.liveAt?.toISOString() ?? null,
      }
      const idea = ideaById(doc.ideaId, ladder)?.name ?? ''
      return { ...r, title: doc.title, idea, facts, sewn: sewn(f), act: nextAct(f) }
    })
    const now = new Date()
    const heard = (ids.length ? await lastReplies(s.db, ids) : []).map((c) => ({
      childId: c.childId,
      name: c.name,
      className: classes.find((k) => k.id === c.classId)!.name,
      last: c.last && dayOf(c.last),
      sent: c.firstSent && dayOf(c.firstSent),
    }))
    const work = await workOf(s.db, person.settingId)
    const working = [...new Set(work.map((j) => j.lessonId))].flatMap((lessonId) => {
      const jobs = work.filter((j) => j.lessonId === lessonId)
      const left = workLeft(
        jobs.map((j) => ({
          ...j,
          startedAt: j.startedAt?.toISOString() ?? null,
          endedAt: j.endedAt?.toISOString() ?? null,
        })),
      )
      return left ? [{ lessonId, title: jobs[0]!.title, ...left }] : []
    })
    const hours = (await hoursOf(s.db, person.id)) ?? usualHours
    return {
      classes,
      lessons,
      tonight: tonightOf(lessons, dayOf(now), dayOf),
      quiet: quietOf(heard, dayOf(now)),
      working,
      evening: hours[(getDay(now) + 6) % 7] ?? 0,
      backupLate: lateBy(await nightlyOf(s.db), now),
    }
  })
}
