import type { ErrorRequestHandler } from 'express'
import { ZodError } from 'zod'
import { forLog, log, pathForLog } from './log.ts'

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

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ZodError) {
    const first = error.issues[0]
    return new Problem(
      400,
      'Not understood',
      `${first?.path.join(' › ') || 'The request'}: ${first?.message ?? 'not valid'}. Nothing was changed.`,
    )
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
  if (e.code === '22P02') return notFound()
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
    .type('application/problem+json')
    .send(
      JSON.stringify({ type: 'about:blank', title: p.title, status: p.status, detail: p.detail, ...p.more }),
    )
}
