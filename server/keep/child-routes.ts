import archiver from 'archiver'
import Papa from 'papaparse'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/homes'
import type { Receipt } from '@awlbox/core/contracts/api/homes'
import { mayChild, mayHousehold } from '../platform/access.ts'
import type { Person } from '../platform/actor.ts'
import { fileName } from '../platform/file-name.ts'
import { notFound } from '../platform/problem.ts'
import { writeLine } from '../platform/record-store.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { childrenOfHome, keepAtSecond } from '../setting/homes-store.ts'
import { deleteAll, filesOf, keptOf } from './child.ts'
import { childById, judgementsOfChild } from './child-store.ts'

/** What is kept of one child: shown, taken away, deleted. */
export function childRoutes(router: Router, s: Services): void {
  const note = async (person: Person, what: string, r: Receipt, subject: string): Promise<void> =>
    writeLine(s.db, {
      settingId: person.settingId,
      personId: person.id,
      act: 'deleted',
      words: `Deleted ${what}: ${r.replies} replies, ${r.photos} photos, ${r.judgements} judgements, ${r.files} files; ${r.left === 0 ? 'nothing of it is left' : `${r.left} rows or files are left`}`,
      subject,
    })
  personRoute(router, s, api.keptOfChild, async ({ person, params }) => {
    await mayChild(s.db, person, params.childId, 'change')
    const kept = await keptOf(s, person.settingId, params.childId)
    if (!kept) throw notFound('This child')
    return { ...kept, mayDelete: true }
  })
  personRoute(router, s, api.exportChild, async ({ person, params, res }) => {
    await mayChild(s.db, person, params.childId, 'change')
    const child = await childById(s.db, params.childId)
    const found = await filesOf(s, params.childId)
    if (!found || !child) throw notFound('This child')
    const zip = archiver('zip', { zlib: { level: 6 } })
    res.type('application/zip').attachment(`${fileName(child.given, 'child')}.zip`)
    zip.pipe(res)
    for (const f of found.files)
      if (f.path) zip.file(f.path, { name: f.name })
      else zip.append(f.text ?? '', { name: f.name })
    zip.append(Papa.unparse(await judgementsOfChild(s.db, params.childId), { escapeFormulae: true }), {
      name: 'judgements.csv',
    })
    await zip.finalize()
    return undefined
  })
  personRoute(router, s, api.deleteChild, async ({ person, params }) => {
    await mayChild(s.db, person, params.childId, 'change')
    const receipt = await deleteAll(s, [params.childId], [])
    await note(person, 'a child', receipt, params.childId)
    return receipt
  })
  personRoute(router, s, api.deleteHome, async ({ person, params }) => {
    await mayHousehold(s.db, person, params.householdId, 'change')
    await keepAtSecond(s.db, params.householdId)
    const here = await childrenOfHome(s.db, params.householdId)
    const receipt = await deleteAll(s, here, [params.householdId])
    await note(person, 'a home', receipt, params.householdId)
    return receipt
  })
}
