import { useCallback, useEffect, useRef, useState } from 'react'
import type { LiveRoundSeen } from '@awlbox/core/contracts/api/live'
import { ask, isAway, ProblemError } from '../api.ts'
import { noted } from '../noted.ts'
import { answerLive } from './calls.ts'
import { type DraftAnswer, forgetMedia, keptMedia } from './drafts.ts'
import type { ServerTime } from './live-line.ts'

/** What one child gives in one round, as this phone holds it. */
export interface LiveGiven {
  key: string
  kind: string
  answer: DraftAnswer
  /** `kept`: waits for a connection; `sent`: the server has it; `refused`: it is not wanted any more. */
  state: 'open' | 'kept' | 'sent' | 'refused'
  late: boolean
  /** What the server said that is to be told; null where all is well. */
  words: 'first' | 'undone' | null
}
type All = Record<string, LiveGiven>
const at = (roundId: string, childId: string): string => `${roundId} ${childId}`
const store = (liveId: string): string => `awlbox-live-${liveId}`

function read(liveId: string): All {
  try {
    return JSON.parse(localStorage.getItem(store(liveId)) ?? '{}') as All
  } catch {
    // Storage is closed to us: only the open page holds it.
    return {}
  }
}
/** Milliseconds between tries while something waits. */
const retry = 2_000

async function send(token: string, liveId: string, where: string, g: LiveGiven): Promise<Partial<LiveGiven>> {
  const [roundId = '', childId = ''] = where.split(' ')
  const { answer } = g
  const photo = answer.media?.[0]
  if (photo) {
    const file = await keptMedia(photo.id)
    if (file) {
      const form = new FormData()
      form.set('id', photo.id)
      form.set('photo', file, 'photo.jpg')
      const r = await fetch(`/api/home/${token}/live/${liveId}/photos`, { method: 'POST', body: form }).catch(
        () => null,
      )
      if (!r || r.status >= 500) throw new ProblemError(0, 'No connection', '', {})
      if (!r.ok) throw new ProblemError(r.status, 'Not taken', '', {})
      await forgetMedia(photo.id).catch(noted('a photo stays on this phone'))
    }
  }
  const r = await ask(
    answerLive,
    { token, liveId, roundId },
    {
      childId,
      key: g.key,
      answer: {
        taskId: roundId,
        kind: g.kind as never,
        ...(answer.text === undefined ? {} : { text: answer.text }),
        ...(answer.choice === undefined ? {} : { choice: answer.choice }),
        ...(answer.given === undefined ? {} : { given: answer.given }),
        ...(answer.drawing === undefined ? {} : { drawing: answer.drawing }),
        ...(photo ? { photoId: photo.id } : {}),
      },
    },
  )
  return { state: 'sent', late: r.late, words: r.kept === 'first' ? 'first' : null }
}

/** What this phone's children give, kept on it until the server has it: a dropped line loses nothing. */
export function useLiveAnswers(token: string, liveId: string, now: ServerTime) {
  const [all, setAll] = useState<All>(() => read(liveId))
  const latest = useRef(all)
  const busy = useRef(new Set<string>())
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const change = useCallback(
    (where: string, by: Partial<LiveGiven>) => {
      const was = latest.current[where]
      latest.current = { ...latest.current, [where]: { ...was!, ...by } }
      setAll(latest.current)
      try {
        localStorage.setItem(store(liveId), JSON.stringify(latest.current))
      } catch {
        // As above.
      }
    },
    [liveId],
  )
  const flush = useCallback(() => {
    for (const [where, g] of Object.entries(latest.current)) {
      if (g.state !== 'kept' || busy.current.has(where)) continue
      busy.current.add(where)
      send(token, liveId, where, g)
        .then(
          // What was changed meanwhile is still to be sent.
          (done) => latest.current[where]?.key === g.key && change(where, done),
          (error: unknown) => {
            const p = error instanceof ProblemError ? error : null
            if (p && !isAway(p) && p.status !== 425 && p.status !== 429)
              change(where, { state: 'refused', words: p.status === 409 ? 'undone' : null })
          },
        )
        .finally(() => {
          busy.current.delete(where)
          clearTimeout(timer.current)
          if (Object.values(latest.current).some((x) => x.state === 'kept'))
            timer.current = setTimeout(() => flushed.current(), retry)
        })
        .catch(noted('an answer waits'))
    }
  }, [token, liveId, change])
  const flushed = useRef(flush)
  useEffect(() => {
    flushed.current = flush
    flush()
    window.addEventListener('online', flush)
    return () => {
      window.removeEventListener('online', flush)
      clearTimeout(timer.current)
    }
  }, [flush])
  /** What a child has so far; not sent yet. */
  const compose = useCallback(
    (round: LiveRoundSeen, childId: string, answer: DraftAnswer) =>
      change(at(round.id, childId), {
        key: crypto.randomUUID(),
        kind: round.task?.kind ?? 'tell',
        answer,
        state: 'open',
        late: false,
        words: null,
      }),
    [change],
  )
  /** Sends it as soon as it may be sent. */
  const give = useCallback(
    (round: LiveRoundSeen, childId: string) => {
      const g = latest.current[at(round.id, childId)]
      if (g?.state !== 'open') return
      change(at(round.id, childId), { state: 'kept' })
      const wait = round.opens - now()
      if (wait > 0) timer.current = setTimeout(() => flushed.current(), wait)
      else flush()
    },
    [change, flush, now],
  )
  const of = (roundId: string, childId: string): LiveGiven | undefined => all[at(roundId, childId)]
  return { of, compose, give, waiting: Object.values(all).some((g) => g.state === 'kept') }
}
