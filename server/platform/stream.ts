import type { Request, Response } from 'express'
import { personOf, sessionToken } from './actor.ts'
import { noted } from './log.ts'
import type { Services } from './services.ts'
import { hashToken } from './tokens.ts'

/** What a stream of server-sent events begins with: nothing between us and the page may keep it back. */
export const streamHead = {
  'Content-Type': 'text/event-stream',
  'Cache-Control': 'no-store',
  Connection: 'keep-alive',
  'X-Accel-Buffering': 'no',
} as const
/** Milliseconds between signs of life of a stream, at which its session is looked after too. */
export const stillHere = 20_000

/** Ends a person's stream with its session: at once where this process hears of it, else at the next look. */
export function endsWithSession(s: Services, req: Request, res: Response, settingId: string): void {
  const mine = hashToken(sessionToken(req.headers.cookie) ?? '').toString('hex')
  const stop = s.events.subscribe(settingId, ({ kind, session }) => {
    if (kind === 'signed out' && session === mine) res.end()
  })
  // A session that ran out, or was ended while this process did not listen.
  const look = setInterval(() => {
    personOf(s.db, req).then((still) => still || res.end(), noted('a stream could not be looked after'))
  }, stillHere)
  req.on('close', () => {
    clearInterval(look)
    stop()
  })
}
