import { isDeepStrictEqual } from 'node:util'
import type { Request, Response, Router } from 'express'
import type { z } from 'zod'
import { type Answer, isFile, type Route, type Who } from '@awlbox/core/contracts/api/route'
import { cleaned, cleanText, jsonIn } from './body.ts'
import { type Home, homeOf, type Person, personOf } from './actor.ts'
import type { Services } from './services.ts'
import { linkWasWrong, mayAskByLink } from './limits.ts'
import { linkIsClosed, notFound, Problem } from './problem.ts'
import { recordCall } from './record-store.ts'

/** Every route that is served, for the authorisation matrix. */
export const routeList: Pick<Route, 'method' | 'path' | 'who'>[] = []

interface Called<T extends Route> {
  req: Request
  res: Response
  params: z.output<T['params']>
  query: z.output<T['query']>
  body: z.output<T['body']>
}
/** What a handler may give: the contract's answer, dates not yet written out. */
export type Given<T> = string extends T
  ? T | Date
  : T extends readonly (infer U)[]
    ? readonly Given<U>[]
    : T extends object
      ? { [K in keyof T]: Given<T[K]> }
      : T
/** Undefined where the handler has answered itself, as it does for files. */
type Gives<T extends Route> = Promise<T['response'] extends z.ZodType ? Given<Answer<T>> : void>

const verbs = { GET: 'get', POST: 'post', PUT: 'put', DELETE: 'delete' } as const

/** Remembers that a route is served, once, and that it answers whom its contract says. */
export function listed(route: Pick<Route, 'method' | 'path' | 'who'>, who: Who): void {
  if (route.who !== who) throw new Error(`${route.path} is for ${route.who}, not for ${who}`)
  if (!routeList.some((r) => r.method === route.method && r.path === route.path)) routeList.push(route)
}

/** What was asked, by its contract. An address that cannot be one of ours is not found; the rest is a 400 with words. */
async function calledOf<T extends Route>(route: T, req: Request, res: Response): Promise<Called<T>> {
  const params = route.params.safeParse(cleaned({ ...req.params }))
  if (!params.success) throw notFound()
  // Signs that nobody can have typed do not lead anywhere.
  if (Object.values(req.params).some((p) => typeof p === 'string' && cleanText(p) !== p)) throw notFound()
  const sent = route.raw || route.method === 'GET' ? undefined : await jsonIn(req, res, route.largest)
  return {
    req,
    res,
    params: params.data as z.output<T['params']>,
    query: route.query.parse(cleaned({ ...req.query })) as z.output<T['query']>,
    body: (route.raw ? undefined : route.body.parse(sent)) as z.output<T['body']>,
  }
}

/** In tests every answer is held against its contract: nothing less, and nothing that was not promised. */
function checked(route: Route, sent: string): void {
  if (isFile(route.response)) return
  const given: unknown = JSON.parse(sent)
  const read = route.response.safeParse(given)
  const words = read.success
    ? isDeepStrictEqual(read.data, given)
      ? null
      : `gives more than it promises: ${sent.slice(0, 400)}`
    : read.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')
  if (words) throw new Error(`${route.method} ${route.path} ${words}`)
}
function answer(services: Services, route: Route, res: Response, given: unknown): void {
  if (res.headersSent || given === undefined) return
  const json = JSON.stringify(given)
  if (services.checkAnswers) checked(route, json)
  if (!res.hasHeader('Cache-Control')) res.setHeader('Cache-Control', 'no-store')
  res.type('application/json').send(json)
}

/** Serves a route to a signed-in person. */
export function personRoute<T extends Route>(
  router: Router,
  services: Services,
  route: T,
  handle: (c: Called<T> & { person: Person }) => Gives<T>,
): void {
  listed(route, 'person')
  router[verbs[route.method]](route.path, async (req, res) => {
    const person = await personOf(services.db, req)
    if (!person)
      throw new Problem(401, 'Signed out', 'Sign in again. What you have typed stays on this page.')
    const called = await calledOf(route, req, res)
    const given = await handle({ ...called, person })
    if (route.records)
      await recordCall(
        services.db,
        { settingId: person.settingId, personId: person.id },
        route.records,
        called.params,
      )
    answer(services, route, res, given)
  })
}

/** Serves a route behind a home's private link: its path holds `:token`. */
export function homeRoute<T extends Route>(
  router: Router,
  services: Services,
  route: T,
  handle: (c: Called<T> & { home: Home }) => Gives<T>,
): void {
  listed(route, 'home')
  router[verbs[route.method]](route.path, async (req, res) => {
    const token = String(req.params.token)
    const home = await homeOf(services.db, token)
    if (!home) {
      await linkWasWrong(req)
      throw linkIsClosed
    }
    await mayAskByLink(token)
    answer(services, route, res, await handle({ ...(await calledOf(route, req, res)), home }))
  })
}

/** Serves a route to anyone. */
export function openRoute<T extends Route>(
  router: Router,
  services: Services,
  route: T,
  handle: (c: Called<T>) => Gives<T>,
): void {
  listed(route, 'anyone')
  router[verbs[route.method]](route.path, async (req, res) => {
    answer(services, route, res, await handle(await calledOf(route, req, res)))
  })
}
