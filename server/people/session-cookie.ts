import * as cookie from 'cookie'
import type { Request, Response } from 'express'
import { sessionCookie } from '../platform/actor.ts'
import { writeLine } from '../platform/record-store.ts'
import type { Services } from '../platform/services.ts'
import { deviceOf } from './device.ts'
import { openSession } from './store.ts'

/** Signs somebody in: a session for this browser, its cookie, and a line in the record of use. */
export async function beginSession(
  s: Services,
  req: Request,
  res: Response,
  person: { id: string; settingId: string },
): Promise<void> {
  const device = deviceOf(req.headers['user-agent'])
  const { token, expires } = await openSession(s.db, person.id, device)
  const secure = s.config.secureCookies
  res.setHeader(
    'Set-Cookie',
    cookie.serialize(sessionCookie, token, { httpOnly: true, sameSite: 'lax', secure, path: '/', expires }),
  )
  const words = device ? `Signed in with ${device}` : 'Signed in'
  await writeLine(s.db, { settingId: person.settingId, personId: person.id, act: 'signed in', words })
}
