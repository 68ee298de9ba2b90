import fs from 'node:fs'

/** What of a process's main thread can be told from outside. */
export interface Seen {
  /** Seconds it has computed since it began. */
  computed: number
  /** The kernel's letter: R wants to compute, S or D waits, T is stopped. */
  state: string
}

/** The kernel counts the time of processes in these, on every machine it runs on. */
const ticksInASecond = 100

/** The main thread of a process as the kernel tells of it; null where it tells nothing. */
export function seenOf(pid: number): Seen | null {
  try {
    const text = fs.readFileSync(`/proc/${pid}/task/${pid}/stat`, 'utf8')
    // The name, in brackets, may hold anything.
    const rest = text.slice(text.lastIndexOf(')') + 2).split(' ')
    const computed = (Number(rest[11]) + Number(rest[12])) / ticksInASecond
    return Number.isFinite(computed) ? { computed, state: rest[0]! } : null
  } catch {
    return null
  }
}

/** Seconds computed without a turn of its loop after which a program hangs: far longer than any request may hold it. */
export const hangs = 8
/** Seconds without a turn after which it is taken to hang though it computes nothing. */
export const stuck = 60

/** Whether a program that should turn once a second hangs, asked once a second. */
export interface Watch {
  turned: () => void
  /** Words on how it hangs; null while it does not. */
  hanging: () => string | null
}
/**
 * Counted in what the program itself has computed: on a machine that is busy with other things, one that is not let
 * compute does not hang. Where that cannot be seen, or it computes nothing, it has a minute of our own seconds, so that
 * a machine's sleep is no hanging.
 */
export function watching(look: () => Seen | null): Watch {
  let since: { asked: number; first: Seen | null } | null = null
  return {
    turned: () => (since = { asked: 0, first: look() }),
    hanging() {
      // One that has not turned yet is still starting.
      if (!since) return null
      since.asked++
      if (since.asked <= hangs) return null
      const now = look()
      const computed = now && since.first ? now.computed - since.first.computed : 0
      if (computed < hangs && since.asked <= stuck) return null
      return `computed ${computed.toFixed(0)} of ${since.asked} seconds without answering anybody (${now?.state ?? 'not seen'})`
    },
  }
}
