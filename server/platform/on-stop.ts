import { log } from './log.ts'

/** Runs once when the process is asked to stop, or when the one that started it is gone; then exits. */
export function onStop(close: () => Promise<void>): void {
  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    const late = setTimeout(() => process.exit(1), 8000)
    late.unref()
    close().then(
      () => process.exit(0),
      (error: unknown) => {
        log.warn({ error: String(error) }, 'stopping')
        process.exit(1)
      },
    )
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  if (process.send) process.on('disconnect', stop)
}
