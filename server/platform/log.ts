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
/** For what may fail without changing what anybody is told: the failure is written down under these words. */
export const noted =
  (what: string) =>
  (error: unknown): undefined => {
    log.warn({ error: forLog(error).split('\n')[0] }, what)
  }
/** A path for the log, without the private link of a home. */
export const pathForLog = (path: string): string => path.replace(/\/(home|h)\/[^/]+/, '/$1/…')
