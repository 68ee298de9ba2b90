/** Milliseconds before something that failed for want of a connection is tried again: the n-th wait, then always the last. */
export const waits: readonly number[] = [1000, 2000, 4000, 8000, 15_000]
export const waitBefore = (tries: number): number => waits[Math.min(tries, waits.length - 1)]!

export interface Retrier {
  /** Tries now, instead of whenever it would have been. */
  now: () => Promise<void>
  /** Tries after some milliseconds, unless something sooner was asked for. */
  after: (ms: number) => void
  /** Whether a try is due. */
  due: () => boolean
  stop: () => void
}

/**
 * Tries something until it is done: each time it says `later` after a longer wait, and at once when the device is
 * online again. Never twice at the same time. What it throws ends the trying.
 */
export function retrier(attempt: () => Promise<'done' | 'later'>): Retrier {
  let timer: ReturnType<typeof setTimeout> | null = null
  let running: Promise<void> | null = null
  let tries = 0
  let listening = false
  const clear = (): void => {
    if (timer) clearTimeout(timer)
    timer = null
  }
  const online = (): void => {
    if (tries > 0) void now()
  }
  const listen = (on: boolean): void => {
    if (on === listening) return
    listening = on
    if (on) window.addEventListener('online', online)
    else window.removeEventListener('online', online)
  }
  const run = async (): Promise<void> => {
    try {
      const done = (await attempt()) === 'done'
      tries = done ? 0 : tries + 1
      listen(!done)
      if (!done) timer ??= setTimeout(() => void now(), waitBefore(tries - 1))
    } finally {
      running = null
    }
  }
  const now = async (): Promise<void> => {
    clear()
    while (running) await running
    clear()
    running = run()
    await running
  }
  return {
    now,
    after(ms) {
      clear()
      timer = setTimeout(() => void now(), ms)
    },
    due: () => timer !== null,
    stop() {
      clear()
      listen(false)
    },
  }
}
