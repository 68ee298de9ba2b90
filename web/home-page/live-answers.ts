import { useState, useSyncExternalStore } from 'react'
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
        (error: unknown) => {
          noted('a photo waits')(error)
          return null
        },
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

interface LiveAnswers {
  of: (roundId: string, childId: string) => LiveGiven | undefined
  /** What a child has so far; not sent yet. */
  compose: (round: LiveRoundSeen, childId: string, answer: DraftAnswer) => void
  /** Sends it as soon as it may be sent. */
  give: (round: LiveRoundSeen, childId: string) => void
  waiting: () => boolean
  all: () => All
  subscribe: (tell: () => void) => () => void
}
/** Keeps what this phone's children give until the server has it. */
export function liveAnswers(token: string, liveId: string, now: ServerTime): LiveAnswers {
  let all = read(liveId)
  let timer: ReturnType<typeof setTimeout> | undefined
  const busy = new Set<string>()
  const tellers = new Set<() => void>()
  const change = (where: string, by: Partial<LiveGiven>): void => {
    all = { ...all, [where]: { ...all[where]!, ...by } }
    try {
      localStorage.setItem(store(liveId), JSON.stringify(all))
    } catch {
      // Storage is closed to us: only the open page holds it.
    }
    tellers.forEach((tell) => tell())
  }
  const waiting = (): boolean => Object.values(all).some((g) => g.state === 'kept')
  const refused = (where: string, error: unknown): void => {
    const p = error instanceof ProblemError ? error : null
    // Too early, too quick, no connection: it is tried again.
    if (p && !isAway(p) && p.status !== 425 && p.status !== 429)
      change(where, { state: 'refused', words: p.status === 409 ? 'undone' : null })
  }
  const sendOne = async (where: string, g: LiveGiven): Promise<void> => {
    busy.add(where)
    try {
      const done = await send(token, liveId, where, g)
      // What was changed meanwhile is still to be sent.
      if (all[where]?.key === g.key) change(where, done)
    } catch (error) {
      refused(where, error)
    }
    busy.delete(where)
    if (waiting()) later(retry)
  }
  const flush = (): void => {
    for (const [where, g] of Object.entries(all))
      if (g.state === 'kept' && !busy.has(where)) void sendOne(where, g)
  }
  const later = (ms: number): void => {
    clearTimeout(timer)
    timer = setTimeout(flush, ms)
  }
  return {
    of: (roundId, childId) => all[at(roundId, childId)],
    compose: (round, childId, answer) =>
      change(at(round.id, childId), {
        key: crypto.randomUUID(),
        kind: round.task?.kind ?? 'tell',
        answer,
        state: 'open',
        late: false,
        words: null,
      }),
    give(round, childId) {
      const where = at(round.id, childId)
      if (all[where]?.state !== 'open') return
      change(where, { state: 'kept' })
      const wait = round.opens - now()
      if (wait > 0) later(wait)
      else flush()
    },
    waiting,
    all: () => all,
    subscribe(tell) {
      tellers.add(tell)
      window.addEventListener('online', flush)
      flush()
      return () => {
        tellers.delete(tell)
        window.removeEventListener('online', flush)
        clearTimeout(timer)
      }
    },
  }
}
/** The same as a page holds it: it is told anew whenever something of it changes. */
export function useLiveAnswers(token: string, liveId: string, now: ServerTime): LiveAnswers {
  const [answers] = useState(() => liveAnswers(token, liveId, now))
  useSyncExternalStore(answers.subscribe, answers.all)
  return answers
}
