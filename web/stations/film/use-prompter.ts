import { noted } from '../../noted.ts'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import type { PrompterPlace, PrompterState, RemoteAct } from '@awlbox/core/contracts/prompter'
import {
  follow,
  type Following,
  promptLines,
  type PromptLine,
  startFollowing,
} from '@awlbox/core/film/desk/prompter'
import { ask } from '../../api.ts'
import { useLatest } from '../../kit/use-latest.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { prompterEvent, type Told } from '../../frame/events.ts'

export interface Prompting {
  lines: PromptLine[]
  /** The line one is at; `lines.length` once the segment is through. */
  at: number
  go: (by: number) => void
  /** Time passed, with a voice or without. */
  tick: (dt: number, speaking: boolean) => void
}

/** Where the prompter is in a segment: moved by hand, and, while filming, by the voice and by waits that run out. */
export function usePrompter(segment: Segment | undefined, filming: boolean, byVoice: boolean): Prompting {
  const { doc, me } = useLesson()
  const lines = useMemo(
    () => (segment ? promptLines(segment, doc.age, me.houseStyle, me.pace) : []),
    [segment, doc.age, me.houseStyle, me.pace],
  )
  // What was heard at a line changes ten times a second; the page only cares which line it is.
  // Another segment, or filming begun or ended, starts at its first line.
  const key = `${segment?.id ?? ''} ${String(filming)}`
  const state = useRef<{ key: string; now: Following }>({ key, now: startFollowing() })
  const [held, setHeld] = useState({ key, line: 0 })
  const at = held.key === key ? held.line : 0
  const following = useCallback(
    (): Following => (state.current.key === key ? state.current.now : startFollowing()),
    [key],
  )
  const be = useCallback(
    (next: Following) => {
      state.current = { key, now: next }
      setHeld((h) => (h.key === key && h.line === next.line ? h : { key, line: next.line }))
    },
    [key],
  )
  const go = useCallback(
    (by: number) => {
      const now = following()
      be(startFollowing(Math.max(0, Math.min(lines.length, now.line + by)), now.rate))
    },
    [lines.length, be, following],
  )
  const tick = useCallback(
    (dt: number, speaking: boolean) => {
      if (!filming) return
      // Waits run by themselves; the rest only when the voice leads.
      const now = following()
      if (byVoice || lines[now.line]?.kind === 'wait') be(follow(now, lines, dt, speaking))
    },
    [filming, byVoice, lines, be, following],
  )
  return { lines, at, go, tick }
}

/** Tells a remote in the teacher's hand where the prompter is, and does what it asks. */
export function useRemote(
  lessonId: string,
  segment: Segment | undefined,
  p: Prompting,
  state: PrompterState,
  act: (a: RemoteAct) => void,
): void {
  const doing = useLatest(act)
  const line = p.lines[p.at]
  const where = useMemo(
    (): PrompterPlace | undefined =>
      segment && {
        to: 'remote',
        segmentId: segment.id,
        line: p.at,
        lines: p.lines.length,
        text: line?.step.text.slice(0, 600) ?? '',
        verb: line?.step.verb ?? 'end',
        next: p.lines[p.at + 1]?.step.text.slice(0, 600) ?? '',
        state,
      },
    [segment, p.at, p.lines, line, state],
  )
  const [listened, setListened] = useState(false)
  const tell = useCallback(
    () =>
      where &&
      void ask(filmApi.prompter, { lessonId }, where).catch(
        noted('the remote was not told where the prompter is'),
      ),
    [lessonId, where],
  )
  useEffect(() => {
    const hear = (e: Event) => {
      const { lesson, message } = (e as CustomEvent<Told>).detail
      if (lesson !== lessonId || message.to !== 'prompter') return
      setListened(true)
      if (message.act === 'where') tell()
      else doing.current(message.act)
    }
    window.addEventListener(prompterEvent, hear)
    return () => window.removeEventListener(prompterEvent, hear)
  }, [lessonId, tell, doing])
  // Nobody is told until a remote has asked: most films are made with none.
  useEffect(() => {
    if (listened) tell()
  }, [listened, tell])
}
