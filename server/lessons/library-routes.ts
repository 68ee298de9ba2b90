import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/lessons'
import { ok } from '@awlbox/core/contracts/api/route'
import { timeLesson } from '@awlbox/core/script/time'
import { notFound } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { addToLibrary, libraryOf, takeFromLibrary } from './library-store.ts'

/** Segments kept for anybody in the setting to use again. */
export function libraryRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.library, async ({ person }) => ({
    items: await libraryOf(s.db, person.settingId),
  }))
  personRoute(router, s, api.addToLibrary, async ({ person, body: { segment, age } }) => {
    const seconds = timeLesson({ segments: [segment], age }, person.houseStyle).film
    const row = { settingId: person.settingId, segment, seconds, byId: person.id }
    return { id: await addToLibrary(s.db, row) }
  })
  personRoute(router, s, api.takeFromLibrary, async ({ person, params }) => {
    if (!(await takeFromLibrary(s.db, person.settingId, params.segmentRowId))) throw notFound('This segment')
    return ok
  })
}
