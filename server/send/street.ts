import type { Router } from 'express'
import { z } from 'zod'
import * as api from '@awlbox/core/contracts/api/send'
import type { StreetOrder } from '@awlbox/core/contracts/stand-in'
import { mayLesson } from '../platform/access.ts'
import { noted } from '../platform/log.ts'
import { Problem } from '../platform/problem.ts'
import { addressOn } from '../platform/reach.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { homeToken } from '../platform/tokens.ts'
import { homesOf, publicationsOf } from './store.ts'

const Told = z.object({ by: z.record(z.string(), z.number()), failed: z.number() })
/** Milliseconds a street may take. */
const longest = 10 * 60_000

/** Asks the stand-in street to reply, as outside services are asked: over HTTP, and only where there is one. */
export function streetRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.letStreetReply, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    if (!s.config.camera) throw new Problem(409, 'No stand-ins', 'No made-up homes run beside this Awlbox.')
    const [[sent], homes] = await Promise.all([
      publicationsOf(s.db, params.lessonId),
      homesOf(s.db, params.lessonId),
    ])
    if (!sent) throw new Problem(409, 'Not sent yet', 'Send the lesson first.')
    const open = homes.filter((h) => h.open)
    const tokens = [...new Set(open.map((h) => homeToken(s.secret, h.householdId, h.linkVersion)))]
    if (!tokens.length) throw new Problem(409, 'No homes', 'None of its homes has an open link.')
    const order: StreetOrder = { address: addressOn(s.config), tokens, packId: sent.id, seed: body.seed }
    const response = await fetch(`${s.config.camera}/street`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(order),
      signal: AbortSignal.timeout(longest),
    }).catch((error: unknown) => {
      noted('the street does not answer')(error)
      return null
    })
    if (!response?.ok)
      throw new Problem(503, 'No stand-ins', 'The made-up homes do not answer. What came so far is kept.')
    return Told.parse(await response.json())
  })
}
