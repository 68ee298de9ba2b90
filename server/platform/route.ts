import type { NextFunction, Request, RequestHandler, Response, Router } from 'express'
import type { z } from 'zod'
import { type Home, homeOf, type Person, personOf } from './actor.ts'
import type { Services } from './services.ts'
import { notFound, Problem } from './problem.ts'

export type Method = 'get' | 'post' | 'put' | 'delete'
interface Common {
  req: Request
  res: Response
  params: Record<string, string>
}
/** Every route there is, for the authorisation matrix. */
export const routeList: { method: Method; path: string; who: 'anyone' | 'person' | 'home' }[] = []

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
function checkedParams(req: Request): Record<string, string> {
  for (const [name, value] of Object.entries(req.params))
    if (/(^id$|Id$)/.test(name) && name !== 'segmentId' && !uuid.test(String(value))) throw notFound()
  return req.params as Record<string, string>
}
function send(res: Response, result: unknown): void {
  if (res.headersSent || result === undefined) return
  res.json(result)
}
const listed = (method: Method, path: string, who: 'anyone' | 'person' | 'home'): void => {
  if (!routeList.some((r) => r.method === method && r.path === path)) routeList.push({ method, path, who })
}

/** Declares a route for a signed-in person. The handler returns what is sent as JSON; undefined when it has answered itself. */
export function personRoute<B>(
  router: Router,
  services: Services,
  method: Method,
  path: string,
  body: z.ZodType<B> | null,
  handle: (c: Common & { person: Person; body: B }) => Promise<unknown>,
): void {
  listed(method, path, 'person')
  router[method](path, async (req: Request, res: Response) => {
    const person = await personOf(services.db, req)
    if (!person)
      throw new Problem(401, 'Signed out', 'Sign in again. What you have typed stays on this page.')
    const params = checkedParams(req)
    send(
      res,
      await handle({ req, res, params, person, body: (body ? body.parse(req.body) : undefined) as B }),
    )
  })
}

/** Declares a route behind a home's private link: its path holds `:token`. Middlewares run once the link is known to be good. */
export function homeRoute<B>(
  router: Router,
  services: Services,
  method: Method,
  path: string,
  body: z.ZodType<B> | null,
  handle: (c: Common & { home: Home; body: B }) => Promise<unknown>,
  middlewares: RequestHandler[] = [],
): void {
  listed(method, path, 'home')
  const known = new WeakMap<Request, Home>()
  const gate = async (req: Request, _res: Response, next: NextFunction) => {
    const home = await homeOf(services.db, String(req.params.token))
    if (!home)
      throw new Problem(
        404,
        'This link is closed',
        'It was changed or ended. Ask your teacher for the new one. Nothing you sent before is lost.',
      )
    known.set(req, home)
    next()
  }
  router[method](path, gate, ...middlewares, async (req: Request, res: Response) => {
    const params = checkedParams(req)
    send(
      res,
      await handle({
        req,
        res,
        params,
        home: known.get(req)!,
        body: (body ? body.parse(req.body) : undefined) as B,
      }),
    )
  })
}

export function openRoute<B>(
  router: Router,
  method: Method,
  path: string,
  body: z.ZodType<B> | null,
  handle: (c: Common & { body: B }) => Promise<unknown>,
  middlewares: RequestHandler[] = [],
): void {
  listed(method, path, 'anyone')
  router[method](path, ...middlewares, async (req: Request, res: Response) => {
    send(
      res,
      await handle({
        req,
        res,
        params: req.params as Record<string, string>,
        body: (body ? body.parse(req.body) : undefined) as B,
      }),
    )
  })
}
