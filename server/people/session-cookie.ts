import * as cookie from 'cookie'
import type { Response } from 'express'
import { sessionCookie } from '../platform/actor.ts'

/** Gives a browser its session. */
export function setSessionCookie(
  res: Response,
  { token, expires }: { token: string; expires: Date },
  secure: boolean,
): void {
  res.setHeader(
    'Set-Cookie',
    cookie.serialize(sessionCookie, token, { httpOnly: true, sameSite: 'lax', secure, path: '/', expires }),
  )
}
