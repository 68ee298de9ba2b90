import type { ErrorRequestHandler } from 'express'
import { ZodError } from 'zod'
import { issueInWords } from '@awlbox/core/contracts/issue-words'
import { dbCodeOf, forLog, log, pathForLog } from './log.ts'

/** An error with words for the person: what happened, what was kept, what to do. Sent as RFC 9457 problem+json. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(`${status} ${title}: ${detail}`)
    this.name = 'Problem'
  }
}
export const notFound = (what = 'This page'): Problem =>
  new Problem(404, 'Not found', `${what} isn’t here, or isn’t yours to see.`)
/** A home's link that was changed or ended, or never was. */
export const linkIsClosed = new Problem(
  404,
  'This link is closed',
  'It was changed or ended. Ask your teacher for the new one. Nothing you sent before is lost.',
)
export const forbidden = (detail: string): Problem => new Problem(403, 'Not allowed', detail)

const unreachable = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
])
/** Whether an error, or what caused it, says the database cannot be reached for now. */
export function isDbAway(error: unknown): boolean {
  for (
    let e = error as { code?: string; message?: string; cause?: unknown } | undefined;
    e;
    e = e.cause as typeof e
  ) {
    if (e.code && unreachable.has(e.code)) return true
    if (
      /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/.test(
        e.message ?? '',
      )
    )
      return true
  }
  return false
}

const refusals: Readonly<Record<number, Problem>> = {
  400: new Problem(
    400,
    'Not understood',
    'This request is not put together as it should be. Nothing was changed.',
  ),
  404: notFound(),
  405: new Problem(405, 'Not like this', 'This address is not used like that. Nothing was changed.'),
  412: new Problem(412, 'Changed', 'This has changed since it was loaded. Load it again.'),
  413: new Problem(413, 'Too large', 'This is more than Awlbox takes at once. Nothing was changed.'),
  415: new Problem(415, 'Not understood', 'This comes in a form that is not read here. Nothing was changed.'),
  416: new Problem(416, 'Not that far', 'There is no such part of this file.'),
}

export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ZodError) {
    return new Problem(400, 'Not understood', `${issueInWords(error.issues[0])} Nothing was changed.`)
  }
  const e = error as { code?: string; type?: string; status?: number; message?: string }
  if (isDbAway(error))
    return new Problem(
      503,
      'The record store is not answering',
      'What you have on screen is kept here and saved when it is back.',
    )
  if (e.code === 'ENOSPC')
    return new Problem(507, 'The disk is full', 'What was already stored is kept. Make room, then try again.')
  if (e.code === 'LIMIT_FILE_SIZE')
    return new Problem(413, 'Too large', 'This file is larger than Awlbox takes. Nothing was changed.')
  if (e.type === 'entity.too.large')
    return new Problem(413, 'Too large', 'This is more than Awlbox takes at once. Nothing was changed.')
  if (e.type === 'entity.parse.failed')
    return new Problem(400, 'Not understood', 'The request is not valid JSON. Nothing was changed.')
  const code = dbCodeOf(error)
  // The record store's own disk: what was asked for was undone whole.
  if (code === '53100')
    return new Problem(507, 'The disk is full', 'Nothing was changed. Make room, then try again.')
  if (code === '22P02') return notFound()
  if (code === '23503')
    return new Problem(
      409,
      'Gone meanwhile',
      'Something this belongs to was removed meanwhile. Load the page again.',
    )
  if (code === '23505')
    return new Problem(
      409,
      'Here already',
      'This is here already, perhaps from another window. Load the page again.',
    )
  // What the database cannot hold: numbers out of range, dates that are none, text of no encoding.
  if (code?.startsWith('22') || code === '23514')
    return new Problem(
      400,
      'Not understood',
      'A value in this cannot be kept: it is out of any range. Nothing was changed.',
    )
  // What the web's own parts say of a request they cannot serve, in our words and none of theirs.
  const status = error instanceof URIError ? 400 : e.status
  if (status !== undefined && status >= 400 && status < 500) return refusals[status] ?? refusals[400]!
  return new Problem(
    500,
    'Something went wrong here',
    'It is written in the log. What was saved before is kept; try again.',
  )
}

export const problems: ErrorRequestHandler = (error, req, res, next) => {
  if (res.headersSent) {
    next(error)
    return
  }
  const p = asProblem(error)
  if (p.status >= 500)
    log.error(
      {
        requestId: res.locals.requestId as string | undefined,
        path: pathForLog(req.path),
        error: isDbAway(error) ? p.title : forLog(error),
      },
      p.title,
    )
  res
    .status(p.status)
    .set('Cache-Control', 'no-store')
    .type('application/problem+json')
    .send(
      JSON.stringify({ type: 'about:blank', title: p.title, status: p.status, detail: p.detail, ...p.more }),
    )
}
