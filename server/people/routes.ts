import { hash, verify } from '@node-rs/argon2'
import * as cookie from 'cookie'
import type { Router } from 'express'
import rateLimit from 'express-rate-limit'
import { z } from 'zod'
import { sessionCookie, sessionToken } from '../platform/actor.ts'
import { config } from '../platform/config.ts'
import { Problem } from '../platform/problem.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { ownPace } from '@awlbox/core/script/pace'
import { pacesOf } from '../plan/week-store.ts'
import { settingRoutes } from './setting-routes.ts'
import { closeSession, openSession, personByEmail } from './store.ts'

const SignIn = z.object({ email: z.string().max(200), password: z.string().max(200) })
/** Compared with when there is no such person, so that time tells nothing about who has an account. */
const nobody = hash('nobody has this password')

export function peopleRoutes(router: Router, s: Services): void {
  const slow = rateLimit({
    windowMs: 10 * 60_000,
    limit: 60,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_q, _s, next) =>
      next(new Problem(429, 'Too many tries', 'Wait ten minutes, then sign in again.')),
  })
  openRoute(
    router,
    'post',
    '/api/sign-in',
    SignIn,
    async ({ req, res, body }) => {
      const person = await personByEmail(s.db, body.email)
      const right = await verify(person?.passwordHash ?? (await nobody), body.password)
      if (!person || !right)
        throw new Problem(401, 'Not signed in', 'The address or the password is not right.')
      const old = sessionToken(req.headers.cookie)
      if (old) await closeSession(s.db, old)
      const { token, expires } = await openSession(s.db, person.id)
      res.setHeader(
        'Set-Cookie',
        cookie.serialize(sessionCookie, token, {
          httpOnly: true,
          sameSite: 'lax',
          secure: config.secureCookies,
          path: '/',
          expires,
        }),
      )
      return { ok: true }
    },
    [slow],
  )
  openRoute(router, 'post', '/api/sign-out', null, async ({ req, res }) => {
    const token = sessionToken(req.headers.cookie)
    if (token) await closeSession(s.db, token)
    res.setHeader(
      'Set-Cookie',
      cookie.serialize(sessionCookie, '', { httpOnly: true, sameSite: 'lax', path: '/', maxAge: 0 }),
    )
    return { ok: true }
  })
  settingRoutes(router, s)
  personRoute(router, s, 'get', '/api/me', null, async ({ person }) => ({
    name: person.name,
    role: person.role,
    setting: person.settingName,
    houseStyle: person.houseStyle,
    camera: config.camera !== '',
    pace: ownPace(await pacesOf(s.db, person.id)),
  }))
}
