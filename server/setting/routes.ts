import { hash } from '@node-rs/argon2'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/set-up'
import { ok } from '@awlbox/core/contracts/api/route'
import { beginSession } from '../people/session-cookie.ts'
import { linkWasWrong } from '../platform/limits.ts'
import { Problem } from '../platform/problem.ts'
import { openRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { goodFor, linkFor, makeSetting, renewOwner } from './store.ts'

const usedUp = new Problem(
  410,
  'This address is used up',
  `It was used, or is older than ${goodFor} minutes. On the machine Awlbox runs on, ./awlbox owner prints a new one. Nothing was changed.`,
)
/** From the shell to the first class: what one-time addresses lead to. */
export function setUpRoutes(router: Router, s: Services): void {
  openRoute(router, s, api.setUpLink, async ({ req, params }) => {
    const link = await linkFor(s.db, params.link)
    if (link) return link
    await linkWasWrong(req)
    throw usedUp
  })
  openRoute(router, s, api.firstStart, async ({ req, res, params, body }) => {
    if (!(await linkFor(s.db, params.link))) throw usedUp
    const { password, ...owner } = body.owner
    const made = await makeSetting(s.db, params.link, s.secret, {
      ...body,
      owner: { ...owner, passwordHash: await hash(password) },
    })
    if (!made) throw usedUp
    await beginSession(s, req, res, made)
    return ok
  })
  openRoute(router, s, api.ownerAgain, async ({ req, res, params, body }) => {
    if (!(await linkFor(s.db, params.link))) throw usedUp
    const { password, ...owner } = body
    const made = await renewOwner(s.db, params.link, { ...owner, passwordHash: await hash(password) })
    if (!made)
      throw new Problem(
        409,
        'Not this address',
        'This e-mail address is a teacher’s, or the one-time address is used up. Nothing was changed.',
      )
    await beginSession(s, req, res, made)
    return ok
  })
}
