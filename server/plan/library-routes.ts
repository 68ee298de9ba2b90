import type { Router } from 'express'
import { z } from 'zod'
import { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import { timeLesson } from '@awlbox/core/script/time'
import { notFound } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { addToLibrary, libraryOf, takeFromLibrary } from './library-store.ts'

/** Segments kept for anybody in the setting to use again. */
export function libraryRoutes(router: Router, s: Services): void {
  personRoute(router, s, 'get', '/api/library', null, async ({ person }) => ({
    items: await libraryOf(s.db, person.settingId),
  }))
  personRoute(
    router,
    s,
    'post',
    '/api/library',
    z.object({ segment: Segment, age: Lesson.shape.age }),
    async ({ person, body }) => {
      const seconds = timeLesson({ segments: [body.segment], age: body.age }, person.houseStyle).film
      return {
        id: await addToLibrary(s.db, {
          settingId: person.settingId,
          segment: body.segment,
          seconds,
          byId: person.id,
        }),
      }
    },
  )
  personRoute(router, s, 'delete', '/api/library/:segmentRowId', null, async ({ person, params }) => {
    if (!(await takeFromLibrary(s.db, person.settingId, params.segmentRowId!))) throw notFound('This segment')
    return { ok: true }
  })
}
