import type { Router } from 'express'
import Papa from 'papaparse'
import * as api from '@awlbox/core/contracts/api/homes'
import { ok } from '@awlbox/core/contracts/api/route'
import { writeTable } from '@awlbox/core/setting/children-table'
import { mayChild, mayClass } from '../platform/access.ts'
import type { Person } from '../platform/actor.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { homeToken } from '../platform/tokens.ts'
import {
  addChildren,
  addConsent,
  changeChild,
  childRow,
  childRows,
  consentsOf,
  moveChildren,
  placeOf,
} from './homes-store.ts'

const atOnce = 200

/** Children and their homes: the table. */
export function homesRoutes(router: Router, s: Services): void {
  type Row = Awaited<ReturnType<typeof childRows>>[number]
  /** A row as this person may see it: links are for whoever may change, notes for whoever teaches or owns. */
  const shown = (person: Person, row: Row): api.ChildRow => {
    const { linkVersion, open, theirs, className: _c, photos, sound, showing, naming, note, ...rest } = row
    const mayChange = theirs || person.role === 'owner'
    return {
      ...rest,
      note: mayChange ? note : '',
      consents: { photos, sound, showing, naming },
      link: mayChange && open ? `/h/${homeToken(s.secret, row.householdId, linkVersion)}` : null,
      mayChange,
    }
  }
  const one = async (person: Person, childId: string): Promise<api.ChildRow> => {
    const row = await childRow(s.db, person.id, childId)
    if (!row) throw notFound('This child')
    return shown(person, row)
  }
  const pages = async (person: Person, after: string | null | undefined) => {
    const place = !after ? null : placeIn(after)
    const rows = await childRows(s.db, { settingId: person.settingId, personId: person.id }, place, atOnce)
    const last = rows.at(-1)
    return {
      rows,
      next: rows.length === atOnce && last ? JSON.stringify([last.className, last.name]) : null,
    }
  }
  personRoute(router, s, api.homes, async ({ person, query }) => {
    const { rows, next } = await pages(person, query.after)
    return { items: rows.map((r) => shown(person, r)), next }
  })
  personRoute(router, s, api.homesCsv, async ({ person, res }) => {
    const all: Row[] = []
    let after: string | null | undefined
    do {
      const page = await pages(person, after)
      all.push(...page.rows)
      after = page.next
    } while (after !== null)
    const cells = writeTable(
      all.map((r) => ({
        ...r,
        consents: { photos: r.photos, sound: r.sound, showing: r.showing, naming: r.naming },
      })),
    )
    res.type('text/csv; charset=utf-8').attachment('children-and-homes.csv')
    // With a mark, so that spreadsheets read letters right; a cell that begins like a sum is no sum.
    res.send('\uFEFF' + Papa.unparse(cells, { escapeFormulae: true }))
    return undefined
  })
  personRoute(router, s, api.saveChild, async ({ person, params, body }) => {
    await mayChild(s.db, person, params.childId, 'change')
    const { settingId } = person
    const done = await changeChild(s.db, {
      settingId,
      secret: s.secret,
      childId: params.childId,
      ...body,
    })
    if (done === 'gone') throw notFound('This child')
    const now = await one(person, params.childId)
    if (done === 'stale')
      throw new Problem(
        409,
        'Changed elsewhere',
        'This child or its home was changed in another window or by someone else. What is there now is shown; your change was not made.',
        { row: now },
      )
    return now
  })
  personRoute(router, s, api.addChildren, async ({ person, params, body }) => {
    await mayClass(s.db, person, params.classId, 'change')
    const { settingId } = person
    return addChildren(s.db, { settingId, secret: s.secret, ...params, list: body.children })
  })
  personRoute(router, s, api.moveChild, async ({ person, params, body }) => {
    await mayChild(s.db, person, params.childId, 'change')
    // Whoever gives a child away need not be the one it comes to.
    if (body.classId) await mayClass(s.db, person, body.classId, 'read')
    const from = await placeOf(s.db, params.childId)
    if (!from) throw notFound('This child')
    await s.db.transaction((tx) =>
      moveChildren(tx as unknown as typeof s.db, [{ childId: params.childId, from, to: body.classId }]),
    )
    return ok
  })
  personRoute(router, s, api.saveConsent, async ({ person, params, body }) => {
    await mayChild(s.db, person, params.childId, 'change')
    await addConsent(s.db, { ...params, ...body, byId: person.id })
    return ok
  })
  personRoute(router, s, api.consentHistory, async ({ person, params }) => {
    await mayChild(s.db, person, params.childId, 'read')
    return { items: await consentsOf(s.db, params.childId) }
  })
}
/** A place in the list, as it was given out. @throws Problem 400 for anything else */
function placeIn(after: string): { className: string; name: string } {
  try {
    const [className, name] = JSON.parse(after) as unknown[]
    if (typeof className === 'string' && typeof name === 'string') return { className, name }
  } catch {
    // Told below, as for whatever else is no place.
  }
  throw new Problem(400, 'No such place', 'Open the page again.')
}
