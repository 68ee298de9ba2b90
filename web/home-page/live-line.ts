import { useEffect, useRef, useState } from 'react'
import type { HomeLive, LiveSeen } from '@awlbox/core/contracts/api/live'
import { ask, ProblemError } from '../api.ts'
import { noted } from '../noted.ts'
import { homeLive } from './calls.ts'

/** Milliseconds without a sign of life after which the line is taken to be lost, and opened anew. */
const silence = 40_000
/** Milliseconds between tries to come back. */
const retry = 1_500

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
  const clock = useRef({ server: 0, here: 0 })
  const [now] = useState<ServerTime>(
    () => () => clock.current.server + (performance.now() - clock.current.here),
  )
  useEffect(() => {
    let source: EventSource | null = null
    let timer: ReturnType<typeof setTimeout> | undefined
    let watch: ReturnType<typeof setTimeout> | undefined
    let gone = false
    const take = (seen: LiveSeen) => {
      clock.current = { server: seen.now, here: performance.now() }
      // What is older than what is known came by a slower way.
      setState((s) => (s.seen && s.seen.seq > seen.seq ? { ...s, on: true } : { ...s, seen, on: true }))
    }
    const lost = () => {
      source?.close()
      setState((s) => ({ ...s, on: false }))
      if (gone) return
      clearTimeout(timer)
      timer = setTimeout(() => void open(), retry)
    }
    const alive = () => {
      clearTimeout(watch)
      watch = setTimeout(lost, silence)
    }
    const follow = () => {
      source = new EventSource(`/api/home/${token}/live/${liveId}/follow?device=${deviceName()}`)
      source.onmessage = (e) => {
        alive()
        take(JSON.parse(String(e.data)) as LiveSeen)
      }
      source.addEventListener('beat', alive)
      source.onerror = lost
      alive()
    }
    const open = async () => {
      try {
        const r = await ask(homeLive, { token, liveId })
        if (gone) return
        take(r.seen)
        setState((s) => ({ ...s, live: r.live, children: r.children, mine: r.mine, problem: null }))
        if (r.live.open && r.seen.phase !== 'over') follow()
        else {
          setState((s) => ({ ...s, on: r.live.open }))
          if (!r.live.open) timer = setTimeout(() => void open(), Math.min(60_000, r.live.opensIn + 500))
        }
      } catch (error) {
        if (gone) return
        if (error instanceof ProblemError && [404, 410].includes(error.status))
          setState((s) => ({ ...s, on: false, problem: error.detail }))
        else {
          noted('no line to the live lesson')(error)
          lost()
        }
      }
    }
    void open()
    const back = () => {
      clearTimeout(timer)
      source?.close()
      void open()
    }
    window.addEventListener('online', back)
    return () => {
      gone = true
      source?.close()
      clearTimeout(timer)
      clearTimeout(watch)
      window.removeEventListener('online', back)
    }
  }, [token, liveId])
  return { ...state, now }
}
