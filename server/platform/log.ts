import pino from 'pino'

/** The database's own code for what went wrong, however it is wrapped. */
export function dbCodeOf(error: unknown): string | undefined {
  for (let e = error as { code?: unknown; cause?: unknown } | undefined; e; e = e.cause as typeof e)
    if (typeof e.code === 'string' && /^[0-9A-Z]{5}$/.test(e.code)) return e.code
  return undefined
}
/**
 * An error for the log: its stack. Of a failed query only the database's code and where it was asked, for its text and
 * its values may be a family's words.
 */
export function forLog(error: unknown): string {
  if (!(error instanceof Error)) return String(error)
  const stack = error.stack ?? error.message
  const code = dbCodeOf(error)
  if (code === undefined && !error.message.startsWith('Failed query')) return stack
  const frames = stack.split('\n').filter((l) => /^ {4}at /.test(l))
  return [`The record store refused a query (${code ?? 'no code'})`, ...frames].join('\n')
}

export const log = pino({
  level: process.env.AWLBOX_LOG ?? 'info',
  base: null,
  redact: ['req.headers.cookie'],
})
/** For what may fail without changing what anybody is told: the failure is written down under these words. */
export const noted =
  (what: string) =>
  (error: unknown): undefined => {
    log.warn({ error: forLog(error).split('\n')[0] }, what)
  }
/** A path for the log, without the private link of a home. */
export const pathForLog = (path: string): string => path.replace(/\/(home|h)\/[^/]+/, '/$1/…')
