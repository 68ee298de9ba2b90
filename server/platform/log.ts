import pino from 'pino'

/** An error for the log: its stack, without the values of a failed query, which may be a family's words. */
export const forLog = (error: unknown): string =>
  (error instanceof Error ? (error.stack ?? error.message) : String(error)).replace(
    /\nparams: [\s\S]*?(?=\n {4}at |$)/,
    '',
  )

export const log = pino({
  level: process.env.AWLBOX_LOG ?? 'info',
  base: null,
  redact: ['req.headers.cookie'],
})
/** A path for the log, without the private link of a home. */
export const pathForLog = (path: string): string => path.replace(/\/(home|h)\/[^/]+/, '/$1/…')
