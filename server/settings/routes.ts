import type { Router } from 'express'
import Papa from 'papaparse'
import * as api from '@awlbox/core/contracts/api/settings'
import { ladderHeader, ladderRows } from '@awlbox/core/plan/ladder/csv'
import type { Person } from '../platform/actor.ts'
import { apart } from '../platform/apart/apart.ts'
import { forbidden, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { houseStyleOf, ladderOf, saveHouseStyle, saveLadder } from './store.ts'

const owns = (person: Person): void => {
  if (person.role !== 'owner')
    throw forbidden(
      'Only the owner of the setting can change this. Your teaching follows what the house has chosen.',
    )
}

/** What belongs to the whole setting: its house style and its ladder of ideas. */
export function settingRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.houseStyle, async ({ person }) => ({
    style: await houseStyleOf(s.db, person.settingId),
    mayChange: person.role === 'owner',
  }))
  personRoute(router, s, api.saveHouseStyle, async ({ person, body }) => {
    owns(person)
    await saveHouseStyle(s.db, person.settingId, body)
    return { style: body }
  })
  personRoute(router, s, api.ladder, async ({ person }) => ({
    ideas: await ladderOf(s.db, person.settingId),
    mayChange: person.role === 'owner',
  }))
  personRoute(router, s, api.saveLadder, async ({ person, body }) => {
    owns(person)
    await saveLadder(s.db, person.settingId, body.ideas)
    return { ideas: body.ideas }
  })
  personRoute(router, s, api.ladderCsv, async ({ person, res }) => {
    res.type('text/csv; charset=utf-8').attachment('ladder.csv')
    res.send(
      Papa.unparse([[...ladderHeader], ...ladderRows(await ladderOf(s.db, person.settingId))], {
        // A cell that begins like a sum is no sum to a spreadsheet.
        escapeFormulae: true,
      }),
    )
    return undefined
  })
  personRoute(router, s, api.readLadderCsv, async ({ person, body }) => {
    owns(person)
    const read = await apart('ladder', { csv: body.csv }, 'This table')
    if (!read.ok)
      throw new Problem(
        400,
        'This table cannot be taken over',
        'Nothing was changed. Mend the rows named and send it again.',
        { errors: read.errors.slice(0, 50) },
      )
    await saveLadder(s.db, person.settingId, read.ladder)
    return { ideas: read.ladder }
  })
}
