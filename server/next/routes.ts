import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/next'
import { groupsFor } from '@awlbox/core/next/groups'
import { classById } from '../look/store.ts'
import { mayClass } from '../platform/access.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { ladderOf } from '../settings/store.ts'
import { classStanding } from './class-standing.ts'

const day = 86_400_000

export function nextRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.classStanding, async ({ person, params, query }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const now = Date.now()
    const { ideas, rows } = await classStanding(
      s.db,
      params.classId,
      await ladderOf(s.db, person.settingId),
      now,
    )
    const asked = query.idea
    const idea = ideas.find((i) => i.id === asked) ?? ideas.at(-1)
    return {
      class: (await classById(s.db, params.classId))!,
      ideas: ideas.map(({ id, name }) => ({ id, name })),
      rows,
      idea: idea?.id ?? '',
      groups: idea
        ? groupsFor(
            rows.map((r) => ({
              childId: r.childId,
              name: r.name,
              standing: r.ideas[idea.id]!,
              quietDays: r.last ? Math.floor((now - r.last) / day) : null,
            })),
          )
        : [],
    }
  })
}
