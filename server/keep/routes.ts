import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/keep'
import { ok } from '@awlbox/core/contracts/api/route'
import { keptForOf, keptKinds } from '@awlbox/core/contracts/kept-for'
import { owns } from '../platform/access.ts'
import type { Person } from '../platform/actor.ts'
import { Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { CannotKeep } from './backup.ts'
import { childRoutes } from './child-routes.ts'
import { mayBackUpTo } from './nightly.ts'
import { keptBy, nightlyOf, setNightly } from './nightly-store.ts'
import { keptForIn, saveKeptFor, tallyOf } from './times-store.ts'

const owner = (person: Person): void => owns(person, 'change how it is backed up')
/** How what is kept is kept safe. */
export function keepRoutes(router: Router, s: Services): void {
  const now = async (person: Person): Promise<api.Keeping> => {
    const { on, folder, lastGood, lastBytes, problem, asked } = await nightlyOf(s.db)
    const mayChange = person.role === 'owner'
    // Where it goes is told to whoever may change it.
    const told = { on, folder: mayChange ? folder : '', lastGood, lastBytes, problem, waiting: asked }
    return { ...told, mayChange, kept: await keptBy(s.db) }
  }
  personRoute(router, s, api.keeping, ({ person }) => now(person))
  personRoute(router, s, api.saveKeeping, async ({ person, body }) => {
    owner(person)
    try {
      if (body.on || body.folder) await mayBackUpTo(body.folder, s.config.blobs)
    } catch (error) {
      if (error instanceof CannotKeep)
        throw new Problem(422, 'Not this folder', `${error.message} Nothing was changed.`)
      throw error
    }
    const before = await nightlyOf(s.db)
    await setNightly(s.db, {
      on: body.on,
      folder: body.folder,
      since: body.on ? (before.on && before.since ? new Date(before.since) : new Date()) : null,
      // Another folder begins anew: what went into the old one is not there.
      ...(body.folder === before.folder ? {} : { lastGood: null, lastBytes: null, lastTried: null }),
      problem: null,
    })
    return now(person)
  })
  personRoute(router, s, api.backUpNow, async ({ person }) => {
    owner(person)
    if (!(await nightlyOf(s.db)).folder)
      throw new Problem(409, 'No folder', 'Choose a folder for backups first.')
    await setNightly(s.db, { asked: true })
    return ok
  })
  personRoute(router, s, api.keptTimes, async ({ person }) => {
    const keptFor = keptForOf(await keptForIn(s.db, person.settingId))
    const kinds = []
    for (const kind of keptKinds)
      kinds.push({ kind, ...(await tallyOf(s.db, person.settingId, kind, keptFor[kind])) })
    return { keptFor, kinds, mayChange: person.role === 'owner' }
  })
  personRoute(router, s, api.saveKeptTimes, async ({ person, body }) => {
    owns(person, 'say how long things are kept')
    await saveKeptFor(s.db, person.settingId, body)
    return ok
  })
  childRoutes(router, s)
}
