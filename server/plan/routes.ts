import type { Router } from 'express'
import { addDays, formatISO, subDays } from 'date-fns'
import { z } from 'zod'
import * as api from '@awlbox/core/contracts/api/plan'
import { Example } from '@awlbox/core/contracts/lesson'
import { summarise } from '@awlbox/core/plan/kit'
import { mayClass } from '../platform/access.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { examplesSince } from './coverage-store.ts'
import { kitsOfClass } from './kit-store.ts'

const iso = (d: Date): string => formatISO(d, { representation: 'date' })
const [termDays, nearDays] = [91, 6]

/** What planning asks of a class: facts it has met, things its homes have. */
export function planRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.coverage, async ({ person, params, query }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const today = new Date()
    const rows = (await examplesSince(s.db, params.classId, iso(subDays(today, termDays)))).filter(
      (r) => r.structure === (query.structure ?? '') && r.id !== query.except,
    )
    const examples = (list: typeof rows) => list.flatMap((r) => z.array(Example).catch([]).parse(r.examples))
    const [from, to] = [iso(subDays(today, nearDays)), iso(addDays(today, nearDays))]
    const near = (r: (typeof rows)[number]) => r.day >= from && r.day <= to
    return { week: examples(rows.filter(near)), term: examples(rows.filter((r) => !near(r))) }
  })
  personRoute(router, s, api.homesAble, async ({ person, params, body }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const { homes, all } = await kitsOfClass(s.db, params.classId)
    return summarise(body.kit, homes, all)
  })
}
