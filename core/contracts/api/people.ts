import { z } from 'zod'
import { HouseStyle } from '../house-style.ts'
import { Moment, Ok, Role, route, Uuid } from './route.ts'
import { Password } from './set-up.ts'

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

const Name = z.string().trim().min(1).max(60)
const Email = z.email().max(200)

/** A browser somebody is signed in with. */
export const Session = z.object({
  id: Uuid,
  device: z.string(),
  since: Moment,
  lastUsed: Moment,
  /** The one that asks. */
  here: z.boolean(),
})
export const account = route({
  method: 'GET',
  path: '/api/me/account',
  summary: 'What a person may change about themselves, and where they are signed in.',
  response: z.object({ name: z.string(), email: z.string(), sessions: z.array(Session) }),
})
export const saveAccount = route({
  method: 'PUT',
  path: '/api/me/account',
  summary:
    'Changes one’s name; e-mail and password too, with the present password. A new password ends every other session.',
  body: z.object({
    name: Name.optional(),
    email: Email.optional(),
    password: Password.optional(),
    current: z.string().max(200).optional(),
  }),
  response: Ok,
  records: { act: 'changed', words: 'Changed their own name, e-mail or password' },
})
export const endSession = route({
  method: 'DELETE',
  path: '/api/me/sessions/:sessionId',
  summary: 'Ends one of one’s own sessions.',
  params: z.object({ sessionId: Uuid }),
  response: Ok,
  records: { act: 'changed', words: 'Signed out elsewhere' },
})
export const endSessions = route({
  method: 'DELETE',
  path: '/api/me/sessions',
  summary: 'Ends every session of one’s own, this one too.',
  response: Ok,
  records: { act: 'changed', words: 'Signed out everywhere' },
})

export const Colleague = z.object({
  id: Uuid,
  name: z.string(),
  /** For owners; empty for others. */
  email: z.string(),
  role: Role,
  endedAt: Moment.nullable(),
  lastSeen: Moment.nullable(),
  /** Open classes they teach. */
  classes: z.array(z.object({ id: Uuid, name: z.string() })),
  me: z.boolean(),
})
export type Colleague = z.infer<typeof Colleague>
export const Invitation = z.object({ id: Uuid, email: z.string(), role: Role, until: Moment })
export type Invitation = z.infer<typeof Invitation>
export const people = route({
  method: 'GET',
  path: '/api/people',
  summary: 'Who works here, and who is invited.',
  response: z.object({
    people: z.array(Colleague),
    invitations: z.array(Invitation),
    mayChange: z.boolean(),
  }),
})
/** A link that works once, shown once. */
const Link = z.object({ link: z.string(), /** Whether it was posted, too. */ mailed: z.boolean() })
export const invite = route({
  method: 'POST',
  path: '/api/people/invitations',
  summary: 'Invites somebody: a link that works once, for two weeks. Owners only.',
  body: z.object({ email: Email, role: Role }),
  response: Link,
  records: { act: 'changed', words: 'Invited somebody' },
})
export const uninvite = route({
  method: 'DELETE',
  path: '/api/people/invitations/:invitationId',
  summary: 'Takes an invitation back. Owners only.',
  params: z.object({ invitationId: Uuid }),
  response: Ok,
  records: { act: 'changed', words: 'Took an invitation back' },
})
const ofPerson = z.object({ personId: Uuid })
export const passwordLink = route({
  method: 'POST',
  path: '/api/people/:personId/password-link',
  summary:
    'A link by which somebody who forgot their password chooses a new one, once, within a day. Owners only.',
  params: ofPerson,
  response: Link,
  records: { act: 'changed', words: 'Made a link for a new password', of: 'personId' },
})
export const setRole = route({
  method: 'PUT',
  path: '/api/people/:personId/role',
  summary: 'Makes somebody an owner or a teacher. The last owner stays one. Owners only.',
  params: ofPerson,
  body: z.object({ role: Role }),
  response: Ok,
  records: { act: 'changed', words: 'Changed somebody’s role', of: 'personId' },
})
export const endPerson = route({
  method: 'POST',
  path: '/api/people/:personId/end',
  summary:
    'Ends somebody’s work here: signed out everywhere, their classes with whoever takes them. Owners only.',
  params: ofPerson,
  body: z.object({ classesTo: Uuid.nullable() }),
  response: Ok,
  records: { act: 'changed', words: 'Ended somebody’s work here', of: 'personId' },
})
const ofLink = z.object({ link: z.string().min(10).max(100) })
export const joinLink = route({
  method: 'GET',
  path: '/api/join/:link',
  who: 'anyone',
  summary: 'What an invitation or a link for a new password is for.',
  params: ofLink,
  response: z.object({
    kind: z.enum(['invitation', 'password']),
    setting: z.string(),
    email: z.string(),
    name: z.string(),
  }),
})
export const join = route({
  method: 'POST',
  path: '/api/join/:link',
  who: 'anyone',
  summary: 'Takes an invitation, or chooses a new password, and signs in.',
  params: ofLink,
  body: z.object({ name: Name, password: Password }),
  response: Ok,
})
