import { noted } from './noted.ts'
import { addressOf } from '@awlbox/core/contracts/api/address'
import type { Answer, Asked, Body, Route } from '@awlbox/core/contracts/api/route'

/** What the server says when something cannot be done (RFC 9457): words for the person, and what was kept. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown>,
  ) {
    super(detail)
    this.name = 'ProblemError'
  }
}
const away = new ProblemError(
  0,
  'No connection',
  'Awlbox does not answer. What you have on screen is kept here and saved when it is back.',
  {},
)

/** What is sent: a form or bytes as they are, all else as JSON. */
function sent(body: unknown): Pick<RequestInit, 'body' | 'headers'> {
  if (body === undefined) return {}
  if (body instanceof FormData) return { body }
  if (body instanceof Blob) return { body, headers: { 'content-type': 'application/octet-stream' } }
  return { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }
}
async function call(method: string, address: string, body?: unknown): Promise<unknown> {
  let response: Response
  try {
    response = await fetch(address, { method, ...sent(body) })
  } catch {
    // A browser gives no reason it would be safe to show: there is no connection, or none to us.
    throw away
  }
  const text = await response.text()
  if (response.ok) return text ? (JSON.parse(text) as unknown) : undefined
  let problem: { title?: string; detail?: string } & Record<string, unknown> = {}
  try {
    problem = JSON.parse(text) as typeof problem
  } catch (error) {
    // Not ours: a proxy's page, say.
    noted(`an answer of ${response.status} without words`)(error)
  }
  throw new ProblemError(
    response.status,
    problem.title ?? 'Something went wrong',
    problem.detail ?? 'What was saved before is kept; try again.',
    problem,
  )
}

/** Calls one of the server's routes. @throws ProblemError with words for the person. */
export const ask = <T extends Route>(route: T, asked: Asked<T>, body?: Body<T>): Promise<Answer<T>> =>
  call(route.method, addressOf(route.path, { ...asked }), body) as Promise<Answer<T>>
/** The same as the page goes: nobody waits for the answer, and what did not arrive is what this device keeps. */
export function askLeaving<T extends Route>(route: T, asked: Asked<T>, body: Body<T>): void {
  fetch(addressOf(route.path, { ...asked }), { method: route.method, keepalive: true, ...sent(body) }).catch(
    noted('not sent while leaving'),
  )
}
/** The same with bytes alone: a piece of sound. */
export const askWithBytes = <T extends Route>(route: T, asked: Asked<T>, bytes: Blob): Promise<Answer<T>> =>
  call(route.method, addressOf(route.path, { ...asked }), bytes) as Promise<Answer<T>>
/** Where a file of the server's is to be had: for a picture, a film, a link to save it. */
export const fileAt = <T extends Route>(route: T, asked: Asked<T>): string =>
  addressOf(route.path, { ...asked })

export const wordsOf = (error: unknown): string =>
  error instanceof ProblemError
    ? error.detail
    : error instanceof Error
      ? error.message
      : 'Something went wrong.'
/** Whether trying the same thing again later may work. */
export const isAway = (error: unknown): boolean =>
  error instanceof ProblemError &&
  (error.status === 0 || error.status === 502 || error.status === 503 || error.status === 504)
