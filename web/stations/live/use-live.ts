import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { LiveDesk, LiveRecord } from '@awlbox/core/contracts/api/live'
import * as api from '@awlbox/core/contracts/api/live'
import type { LiveAct, ShowWay } from '@awlbox/core/contracts/live'
import { type LiveRun, runKey, runOf } from '@awlbox/core/live/run'
import { tableNow } from '@awlbox/core/live/state'
import type { TableState } from '@awlbox/core/script/table/state'
import { ask, fileAt, ProblemError, wordsOf } from '../../api.ts'
import { followLine, serverClock } from '../../follow.ts'
import { noted } from '../../noted.ts'
import { newId } from '../../frame/new-id.ts'

/** One name for this desk, as long as its tab is open or reloaded. */
function deskName(): string {
  const known = sessionStorage.getItem('awlbox-desk')
  if (known) return known
  const made = newId()
  sessionStorage.setItem('awlbox-desk', made)
  return made
}

export interface LiveView {
  record: LiveRecord
  news: LiveDesk
  run: LiveRun
  table: TableState
  /** Whether news arrives; what is shown is then as it is. */
  on: boolean
  /** The server's time, whatever this device takes the time to be. */
  now: () => number
  again: () => Promise<void>
}

/** Follows a live lesson as desks and the shared window do. Null while it is fetched. */
export function useLiveView(liveId: string): { view: LiveView | null; error: unknown } {
  const [record, setRecord] = useState<LiveRecord | null>(null)
  const [news, setNews] = useState<LiveDesk | null>(null)
  const [on, setOn] = useState(false)
  const [error, setError] = useState<unknown>(null)
  const [clock] = useState(serverClock)
  const take = useCallback(
    (d: LiveDesk) => {
      clock.told(d.now)
      setNews((was) => (was && was.state.seq > d.state.seq ? was : d))
    },
    [clock],
  )
  const again = useCallback(async () => {
    const r = await ask(api.readLive, { liveId })
    setRecord(r)
    setError(null)
    take(r)
  }, [liveId, take])
  useEffect(
    () =>
      followLine<LiveDesk>({
        url: fileAt(api.followLive, { liveId }),
        open: () => again().then(() => ({ follow: true })),
        isOver(e) {
          const over = e instanceof ProblemError && [401, 403, 404].includes(e.status)
          if (over) setError(e)
          return over
        },
        onNews: take,
        onLine: setOn,
      }),
    [liveId, again, take],
  )
  const state = news?.state
  const key = state ? runKey(state) : ''
  const run = useMemo(
    () => (record && state ? runOf(record.doc, record.style, record.pace, state) : null),
    // A run is the same while nothing it is made of changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [record?.doc, key],
  )
  const table = useMemo(() => (run && state ? tableNow(run, state) : null), [run, state])
  if (!record || !news || !run || !table) return { view: null, error }
  return { view: { record, news, run, table, on, now: clock.now, again }, error }
}

export interface Desk {
  /** Whether this desk leads, and who does else. */
  leads: boolean
  leader: string | null
  act: (act: LiveAct) => void
  throwNow: (show: ShowWay, think: number) => void
  /** Whether something is on its way: a key pressed twice does a thing once. */
  busy: boolean
  /** What could not be done, in words; gone with the next act. */
  problem: string | null
}
/** What this desk does, one act after another: each names the one before it, so that none is done twice. */
export function useDesk(liveId: string, view: LiveView): Desk {
  const [problem, setProblem] = useState<string | null>(null)
  const [desk] = useState(deskName)
  /** The last act this desk knows it did; the news may know of a later one. */
  const [mine, setMine] = useState(0)
  const known = Math.max(mine, view.news.state.seq)
  const seq = useRef(known)
  useEffect(() => {
    seq.current = Math.max(seq.current, known)
  }, [known])
  const queue = useRef<Promise<unknown>>(Promise.resolve())
  const [under, setUnder] = useState(0)
  /** The number the newest act on its way will have: its news often come before the answer to it. */
  const [coming, setComing] = useState(0)
  const { again } = view
  const done = useCallback(
    (what: () => Promise<{ seq: number }>) => {
      setUnder((n) => n + 1)
      setComing((n) => Math.max(n, seq.current) + 1)
      queue.current = queue.current
        .then(async () => {
          setProblem(null)
          const { seq: now } = await what()
          seq.current = now
          setMine(now)
        })
        .catch((error: unknown) => {
          setProblem(wordsOf(error))
          return again()
        })
        .catch(noted('the desk could not look again'))
        .finally(() => setUnder((n) => n - 1))
    },
    [again],
  )
  const act = useCallback(
    (a: LiveAct) => done(() => ask(api.liveAct, { liveId }, { seq: seq.current, desk, act: a })),
    [done, liveId, desk],
  )
  const throwNow = useCallback(
    (show: ShowWay, think: number) =>
      done(() => ask(api.throwLive, { liveId }, { seq: seq.current, desk, show, think })),
    [done, liveId, desk],
  )
  const { lead } = view.news.state
  return {
    leads: view.record.mayLead && (lead === null || lead.desk === desk),
    leader: lead?.name ?? null,
    act,
    throwNow,
    // Until the news of it has come, what is next is not known.
    busy: (under > 0 ? coming : mine) > view.news.state.seq,
    problem,
  }
}

/** The server's time, told again so often while something runs. */
export function useServerTime(now: () => number, every = 200): number {
  const [at, setAt] = useState(now)
  useEffect(() => {
    const t = setInterval(() => setAt(now()), every)
    return () => clearInterval(t)
  }, [now, every])
  return at
}

/** A list of the desk that was closed leaves the keyboard to the desk: Space goes on, it does not open the list again. */
export const givesBack = (): void => undefined
