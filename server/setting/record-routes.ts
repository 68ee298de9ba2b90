import type { Router } from 'express'
import Papa from 'papaparse'
import * as api from '@awlbox/core/contracts/api/record'
import { peopleOf } from '../people/store.ts'
import { owns } from '../platform/access.ts'
import { linesOf } from '../platform/record-store.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'

const atOnce = 100
/** Most lines of a table that is exported at once. */
const mostLines = 50_000

/** The record of use, for owners. */
export function recordRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.readRecord, async ({ person, query }) => {
    owns(person, 'read the record of use')
    const items = await linesOf(s.db, person.settingId, query, atOnce)
    return {
      items,
      next: items.length === atOnce ? String(items.at(-1)!.id) : null,
      people: (await peopleOf(s.db, person.settingId)).map(({ id, name }) => ({ id, name })),
    }
  })
  personRoute(router, s, api.recordCsv, async ({ person, res, query }) => {
    owns(person, 'export the record of use')
    const lines = await linesOf(s.db, person.settingId, query, mostLines)
    res.type('text/csv; charset=utf-8').attachment('record-of-use.csv')
    res.send(
      '\uFEFF' +
        Papa.unparse(
          [
            ['at', 'who', 'act', 'what', 'concerning'],
            ...lines.map((l) => [l.at.toISOString(), l.who ?? '', l.act, l.words, l.subject ?? '']),
          ],
          { escapeFormulae: true },
        ),
    )
    return undefined
  })
}
