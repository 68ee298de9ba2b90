import { z } from 'zod'
import { HouseStyle } from '../house-style.ts'
import { Ok, route } from './route.ts'

/** Most children of one list. */
export const mostChildren = 60

const zones: ReadonlySet<string> = new Set([...Intl.supportedValuesOf('timeZone'), 'UTC'])
export const TimeZone = z.string().refine((z) => zones.has(z), { error: 'is no time zone' })
/** Long rather than strange: what people choose for themselves when they may write a sentence. */
export const Password = z.string().min(10).max(200)

/** Everything a first start asks for, sent once: nothing is half made. */
export const FirstStart = z.object({
  setting: z.object({ name: z.string().trim().min(1).max(80), timeZone: TimeZone }),
  owner: z.object({ name: z.string().trim().min(1).max(60), email: z.email().max(200), password: Password }),
  class: z.object({ name: z.string().trim().min(1).max(40), age: z.number().int().min(3).max(7) }),
  houseStyle: HouseStyle,
  children: z
    .array(z.object({ name: z.string().trim().min(1).max(40), home: z.string().trim().min(1).max(60) }))
    .max(mostChildren),
})
export type FirstStart = z.infer<typeof FirstStart>

const ofLink = z.object({ link: z.string().min(10).max(100) })
export const setUpLink = route({
  method: 'GET',
  path: '/api/set-up/:link',
  who: 'anyone',
  summary: 'What a one-time address is for: a first start, or a new password for an owner who is locked out.',
  params: ofLink,
  response: z.object({ kind: z.enum(['first', 'owner']), setting: z.string().nullable() }),
})
export const firstStart = route({
  method: 'POST',
  path: '/api/set-up/:link',
  who: 'anyone',
  summary: 'Makes the setting, its owner, first class and children, and signs the owner in.',
  params: ofLink,
  body: FirstStart,
  response: Ok,
})
export const ownerAgain = route({
  method: 'POST',
  path: '/api/set-up/:link/owner',
  who: 'anyone',
  summary: 'Gives an owner a new password, or the setting another owner, and signs them in.',
  params: ofLink,
  body: z.object({ name: z.string().trim().min(1).max(60), email: z.email().max(200), password: Password }),
  response: Ok,
})
