import { hash, verify } from '@node-rs/argon2'
import * as cookie from 'cookie'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/people'
import { ok } from '@awlbox/core/contracts/api/route'
import { ownPace } from '@awlbox/core/script/pace'
import { sessionCookie, sessionToken } from '../platform/actor.ts'
import { maySignIn, passwordWasRight, passwordWasWrong } from '../platform/limits.ts'
import { Problem } from '../platform/problem.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { pacesOf } from '../week/store.ts'
import { setSessionCookie } from './session-cookie.ts'
import { closeSession, openSession, personByEmail } from './store.ts'

/** Compared with when there is no such person, so that time tells nothing about who has an account. */
const nobody = hash('nobody has this password')

export function peopleRoutes(router: Router, s: Services): void {
  openRoute(router, s, api.signIn, async ({ req, res, body }) => {
    await maySignIn(req, body.email)
    const person = await personByEmail(s.db, body.email)
    const right = await verify(person?.passwordHash ?? (await nobody), body.password)
    if (!person || !right) {
      await passwordWasWrong(req, body.email)
      throw new Problem(401, 'Not signed in', 'The address or the password is not right.')
    }
    await passwordWasRight(body.email)
    const old = sessionToken(req.headers.cookie)
    if (old) await closeSession(s.db, old)
    setSessionCookie(res, await openSession(s.db, person.id), s.config.secureCookies)
    return ok
  })
  openRoute(router, s, api.signOut, async ({ req, res }) => {
    const token = sessionToken(req.headers.cookie)
    if (token) await closeSession(s.db, token)
    // On a shared computer nothing of it is left to be found.
    res.setHeader('Clear-Site-Data', '"cache"')
    res.setHeader(
      'Set-Cookie',
      cookie.serialize(sessionCookie, '', { httpOnly: true, sameSite: 'lax', path: '/', maxAge: 0 }),
    )
    return ok
  })
  personRoute(router, s, api.me, async ({ person }) => ({
    name: person.name,
    role: person.role,
    setting: person.settingName,
    houseStyle: person.houseStyle,
    camera: s.config.camera !== '',
    pace: ownPace(await pacesOf(s.db, person.id)),
  }))
}
