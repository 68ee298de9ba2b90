import { z } from 'zod'
import { HouseStyle } from '../house-style.ts'
import { Ok, Role, route } from './route.ts'

export const signIn = route({
  method: 'POST',
  path: '/api/sign-in',
  who: 'anyone',
  summary: 'Opens a session and sets its cookie.',
  body: z.object({ email: z.string().max(200), password: z.string().max(200) }),
  response: Ok,
})
export const signOut = route({
  method: 'POST',
  path: '/api/sign-out',
  who: 'anyone',
  summary: 'Ends the session of this browser, where there is one.',
  response: Ok,
})

export const Me = z.object({
  name: z.string(),
  role: Role,
  setting: z.string(),
  houseStyle: HouseStyle,
  /** Whether a camera that films scripts by itself is connected. */
  camera: z.boolean(),
  /** Words a minute in this person's own takes; null until there are enough. */
  pace: z.number().nullable(),
})
export type Me = z.infer<typeof Me>
export const me = route({
  method: 'GET',
  path: '/api/me',
  summary: 'Who is signed in, with the house style of their setting.',
  response: Me,
})
