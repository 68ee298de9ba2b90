import { hash, verify } from '@node-rs/argon2'
import * as cookie from 'cookie'
import type { Response, Router } from 'express'
import * as api from '@awlbox/core/contracts/api/people'
import { ok } from '@awlbox/core/contracts/api/route'
import { ownPace } from '@awlbox/core/script/pace'
import { owns } from '../platform/access.ts'
import { sessionCookie, sessionToken } from '../platform/actor.ts'
import { linkWasWrong, maySignIn, passwordWasRight, passwordWasWrong } from '../platform/limits.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { writeLine } from '../platform/record-store.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { hereOf } from '../platform/reach.ts'
import { type Letter, post } from '../post/mail.ts'
import { pacesOf } from '../week/store.ts'
import { beginSession } from './session-cookie.ts'
import {
  changePerson,
  closeSession,
  colleagueOf,
  endSessionsOf,
  endWork,
  giveRole,
  invitationsOf,
  linkDays,
  newPersonLink,
  ownAccount,
  peopleOf,
  personByEmail,
  personLink,
  removeInvitation,
  sessionsOf,
  settingOfEmail,
  takeLink,
} from './store.ts'

/** Compared with when there is no such person, so that time tells nothing about who has an account. */
const nobody = hash('nobody has this password')

function forgetCookie(res: Response): void {
  // On a shared computer nothing of it is left to be found.
  res.setHeader('Clear-Site-Data', '"cache"')
  res.setHeader(
    'Set-Cookie',
    cookie.serialize(sessionCookie, '', { httpOnly: true, sameSite: 'lax', path: '/', maxAge: 0 }),
  )
}

export function peopleRoutes(router: Router, s: Services): void {
  openRoute(router, s, api.signIn, async ({ req, res, body }) => {
    await maySignIn(req, body.email)
    const person = await personByEmail(s.db, body.email)
    const right = await verify(person?.passwordHash ?? (await nobody), body.password)
    if (!person || !right) {
      const settingId = await settingOfEmail(s.db, body.email)
      if (settingId)
        await writeLine(s.db, {
          settingId,
          personId: person?.id ?? null,
          act: 'refused',
          words: person
            ? 'A sign-in with a wrong password was refused'
            : 'A sign-in of somebody who no longer works here was refused',
        })
      await passwordWasWrong(req, body.email)
      throw new Problem(401, 'Not signed in', 'The address or the password is not right.')
    }
    await passwordWasRight(body.email)
    const old = sessionToken(req.headers.cookie)
    if (old) await closeSession(s.db, old)
    await beginSession(s, req, res, person)
    return ok
  })
  openRoute(router, s, api.signOut, async ({ req, res }) => {
    const token = sessionToken(req.headers.cookie)
    if (token) await closeSession(s.db, token)
    forgetCookie(res)
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
  accountRoutes(router, s)
  colleagueRoutes(router, s)
  joinRoutes(router, s)
}

/** What a person sees and changes of themselves. */
function accountRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.account, async ({ person, req }) => {
    const { name, email } = await ownAccount(s.db, person.id)
    return { name, email, sessions: await sessionsOf(s.db, person.id, sessionToken(req.headers.cookie)!) }
  })
  personRoute(router, s, api.saveAccount, async ({ person, req, body }) => {
    const { email, name, password, current } = body
    if (email !== undefined || password !== undefined) {
      const before = await ownAccount(s.db, person.id)
      await maySignIn(req, before.email)
      if (!(await verify(before.passwordHash, current ?? ''))) {
        await passwordWasWrong(req, before.email)
        throw new Problem(403, 'Not this password', 'The present password is not right. Nothing was changed.')
      }
    }
    const done = await changePerson(s.db, person.id, {
      ...(name === undefined ? {} : { name }),
      ...(email === undefined ? {} : { email }),
      ...(password === undefined ? {} : { passwordHash: await hash(password) }),
    })
    if (!done)
      throw new Problem(409, 'Not this address', 'Somebody else has this address. Nothing was changed.')
    if (password !== undefined)
      await endSessionsOf(s.db, person.id, { but: sessionToken(req.headers.cookie) })
    return ok
  })
  personRoute(router, s, api.endSession, async ({ person, params }) => {
    if (!(await endSessionsOf(s.db, person.id, { id: params.sessionId }))) throw notFound('This session')
    return ok
  })
  personRoute(router, s, api.endSessions, async ({ person, res }) => {
    await endSessionsOf(s.db, person.id)
    forgetCookie(res)
    return ok
  })
}

const lastOwner = new Problem(
  409,
  'The last owner',
  'A setting has at least one owner: make somebody else an owner first. Nothing was changed.',
)
/** Who works here: owners add and end them. */
function colleagueRoutes(router: Router, s: Services): void {
  const colleague = async (settingId: string, personId: string) => {
    const found = await colleagueOf(s.db, settingId, personId)
    if (!found) throw notFound('This person')
    return found
  }
  personRoute(router, s, api.people, async ({ person }) => {
    const mayChange = person.role === 'owner'
    const all = await peopleOf(s.db, person.settingId)
    return {
      people: all.map((p) => ({
        ...p,
        ...(mayChange || p.id === person.id ? {} : { email: '', lastSeen: null }),
        me: p.id === person.id,
      })),
      invitations: mayChange
        ? (await invitationsOf(s.db, person.settingId)).map((i) => ({ ...i, email: i.email ?? '' }))
        : [],
      mayChange,
    }
  })
  personRoute(router, s, api.invite, async ({ req, person, body }) => {
    owns(person, 'invite somebody')
    const email = body.email.trim().toLowerCase()
    const there = await personByEmail(s.db, email)
    // Whether another setting knows an address is nobody's business: then the invitation is simply refused when it is taken.
    if (there?.settingId === person.settingId)
      throw new Problem(409, 'Works here already', `${email} works here already. Nobody was invited.`)
    const { settingId, id: byId } = person
    const token = await newPersonLink(s.db, 'invitation', { settingId, byId, email, role: body.role })
    const link = `/join/${token}`
    const mailed = await posted(s, {
      to: email,
      subject: `${person.settingName} invites you to Awlbox`,
      text: `${person.name} invites you to make maths lessons for children at home with ${person.settingName}.\n\nOpen this link within ${linkDays.invitation} days; it works once:\n${hereOf(s, req)}${link}\n\nIf you do not know them, leave it alone: nothing happens.\n`,
    })
    return { link, mailed }
  })
  personRoute(router, s, api.uninvite, async ({ person, params }) => {
    owns(person, 'take an invitation back')
    if (!(await removeInvitation(s.db, person.settingId, params.invitationId)))
      throw notFound('This invitation')
    return ok
  })
  personRoute(router, s, api.passwordLink, async ({ req, person, params }) => {
    owns(person, 'make a link for a new password')
    const { id: personId, role } = await colleague(person.settingId, params.personId)
    const { settingId, id: byId } = person
    const token = await newPersonLink(s.db, 'password', { settingId, byId, personId, role })
    const link = `/join/${token}`
    const { email } = await ownAccount(s.db, personId)
    const mailed = await posted(s, {
      to: email,
      subject: 'A new password for Awlbox',
      text: `${person.name}, an owner of ${person.settingName}, made this link for you. Choose a new password by it within a day; it works once:\n${hereOf(s, req)}${link}\n\nIf you did not ask for it, tell them.\n`,
    })
    return { link, mailed }
  })
  personRoute(router, s, api.setRole, async ({ person, params, body }) => {
    owns(person, 'say who is an owner')
    await colleague(person.settingId, params.personId)
    if ((await giveRole(s.db, person.settingId, params.personId, body.role)) === 'last owner') throw lastOwner
    return ok
  })
  personRoute(router, s, api.endPerson, async ({ person, params, body }) => {
    owns(person, 'end somebody’s work here')
    await colleague(person.settingId, params.personId)
    if (body.classesTo === params.personId) throw new Problem(400, 'Somebody else', 'Choose somebody else.')
    if (body.classesTo !== null) await colleague(person.settingId, body.classesTo)
    const done = await endWork(s.db, person.settingId, params.personId, body.classesTo)
    if (done === 'last owner') throw lastOwner
    if (done === 'has classes')
      throw new Problem(
        409,
        'Has classes',
        'They teach classes with open lessons: say who takes them over. Nothing was changed.',
      )
    await endSessionsOf(s.db, params.personId)
    return ok
  })
}

/** What a link leads to, for whoever holds it. */
function joinRoutes(router: Router, s: Services): void {
  const usedUp = new Problem(
    410,
    'This link is used up',
    `It was used, taken back, or is older than it may be (${linkDays.invitation} days for an invitation, a day for a password). Ask the owner of the setting for a new one.`,
  )
  openRoute(router, s, api.joinLink, async ({ req, params }) => {
    const found = await personLink(s.db, params.link)
    if (found) return found
    await linkWasWrong(req)
    throw usedUp
  })
  openRoute(router, s, api.join, async ({ req, res, params, body }) => {
    if (!(await personLink(s.db, params.link))) {
      await linkWasWrong(req)
      throw usedUp
    }
    const taken = await takeLink(s.db, params.link, {
      name: body.name,
      passwordHash: await hash(body.password),
    })
    if (!taken) throw usedUp
    const old = sessionToken(req.headers.cookie)
    if (old) await closeSession(s.db, old)
    await beginSession(s, req, res, { id: taken.personId, settingId: taken.settingId })
    return ok
  })
}
const posted = async (s: Services, letter: Letter): Promise<boolean> =>
  (await post(s.config, letter)) === 'posted'
