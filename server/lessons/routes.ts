import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/lessons'
import { nextAct, sewn } from '@awlbox/core/next/minutes'
import { mayClass, mayLesson } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { exportRoutes } from './export-routes.ts'
import { lessonFacts } from './facts-store.ts'
import { libraryRoutes } from './library-routes.ts'
import { createLesson, lessonById, nameRevision, revisionDoc, revisionsOf, saveLesson } from './store.ts'

const revisionsAtOnce = 50

/** Lessons themselves: made, read, saved, and every revision of them. */
export function lessonRoutes(router: Router, s: Services): void {
  libraryRoutes(router, s)
  exportRoutes(router, s)
  personRoute(router, s, api.makeLesson, async ({ person, params, body }) => {
    await mayClass(s.db, person, params.classId, 'change')
    const made = { classId: params.classId, day: body.day, doc: body.doc, byId: person.id }
    return { id: await createLesson(s.db, { ...made, style: person.houseStyle }) }
  })
  personRoute(router, s, api.readLesson, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const lesson = await lessonById(s.db, params.lessonId)
    if (!lesson) throw notFound('This lesson')
    const facts = (await lessonFacts(s.db, [lesson.id])).get(lesson.id)!
    const mayChange = await mayLesson(s.db, person, lesson.id, 'change').then(
      () => true,
      () => false,
    )
    const { settingId: _, ...record } = lesson
    return { ...record, facts, sewn: sewn(facts), act: nextAct(facts), mayChange }
  })
  personRoute(router, s, api.saveLesson, async ({ person, params, body }) => {
    const id = params.lessonId
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
  personRoute(router, s, api.revisions, async ({ person, params, query }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const items = await revisionsOf(s.db, params.lessonId, query.before ?? null, revisionsAtOnce)
    return { items, next: items.length === revisionsAtOnce ? items.at(-1)!.revision : null }
  })
  personRoute(router, s, api.nameRevision, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    const named = { ...params, name: body.name }
    if (!(await nameRevision(s.db, { ...named, byId: person.id }))) throw notFound('This revision')
    return { revision: params.revision, name: body.name }
  })
  personRoute(router, s, api.readRevision, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const doc = await revisionDoc(s.db, params.lessonId, params.revision)
    if (!doc) throw notFound('This revision')
    return { doc }
  })
}
