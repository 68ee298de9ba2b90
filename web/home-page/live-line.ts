import { useEffect, useState } from 'react'
import type { HomeLive, LiveSeen } from '@awlbox/core/contracts/api/live'
import { ask, ProblemError } from '../api.ts'
import { followLine, serverClock } from '../follow.ts'
import { homeLive } from './calls.ts'

export interface Live {
  live: HomeLive | null
  seen: LiveSeen | null
  children: { id: string; name: string; photos: boolean }[]
  /** What was sent before, from this or another device of the home. */
  mine: { childId: string; roundId: string; late: boolean }[]
  /** Whether the line is open; what is shown is then as it is. */
  on: boolean
  /** Why it cannot be come in to; null where it can. */
  problem: string | null
}
/** The server's time, whatever this device takes the time to be. */
export type ServerTime = () => number

/** One name for this page, as long as it is open or reloaded. */
function deviceName(): string {
  try {
    const known = sessionStorage.getItem('awlbox-device')
    if (known) return known
    const made = crypto.randomUUID().slice(0, 13)
    sessionStorage.setItem('awlbox-device', made)
    return made
  } catch {
    return 'page'
  }
}

/** Follows a live lesson: comes back by itself whenever the line drops, into the line of the lesson that is on then. */
export function useLive(token: string, liveId: string): Live & { now: ServerTime } {
  const [state, setState] = useState<Live>({
    live: null,
    seen: null,
    children: [],
    mine: [],
    on: false,
    problem: null,
  })
  const [clock] = useState(serverClock)
  useEffect(() => {
    const set = (part: Partial<Live>) => setState((s) => ({ ...s, ...part }))
    const take = (seen: LiveSeen) => {
      clock.told(seen.now)
      // What is older than what is known came by a slower way.
      setState((s) => (s.seen && s.seen.seq > seen.seq ? s : { ...s, seen }))
    }
    return followLine<LiveSeen>({
      url: `/api/home/${token}/live/${liveId}/follow?device=${deviceName()}`,
      async open() {
        const r = await ask(homeLive, { token, liveId })
        take(r.seen)
        set({ live: r.live, children: r.children, mine: r.mine, problem: null })
        if (r.live.open && r.seen.phase !== 'over') return { follow: true }
        set({ on: r.live.open })
        return { follow: false, again: r.live.open ? null : Math.min(60_000, r.live.opensIn + 500) }
      },
      isOver(error) {
        const over = error instanceof ProblemError && [404, 410].includes(error.status)
        if (over) set({ problem: error.detail })
        return over
      },
      onNews: take,
      onLine: (on) => set({ on }),
    })
  }, [token, liveId, clock])
  return { ...state, now: clock.now }
}
