import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { follow, type Following, promptLines, type PromptLine, startFollowing } from '@awlbox/core/film/prompter'
import { send } from '../../api.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { prompterEvent } from '../../frame/events.ts'

export interface Prompting {
  lines: PromptLine[]
  /** The line one is at; `lines.length` once the segment is through. */
  at: number
  /** Seconds a wait has run. */
  gone: number
  go(by: number): void
  to(line: number): void
  /** Time passed, with a voice or without. */
  tick(dt: number, speaking: boolean): void
}

/** Where the prompter is in a segment: moved by hand, and, while filming, by the voice and by waits that run out. */
export function usePrompter(segment: Segment | undefined, filming: boolean, byVoice: boolean): Prompting {
  const { doc, me } = useLesson()
  const lines = useMemo(() => (segment ? promptLines(segment, doc.age, me.houseStyle, me.pace) : []), [segment, doc.age, me.houseStyle, me.pace])
  const [state, setState] = useState<Following>(startFollowing())
  useEffect(() => setState(startFollowing()), [segment?.id, filming])
  const to = useCallback((line: number) => setState(startFollowing(Math.max(0, Math.min(lines.length, line)))), [lines.length])
  const go = useCallback((by: number) => setState((s) => startFollowing(Math.max(0, Math.min(lines.length, s.line + by)))), [lines.length])
  const tick = useCallback((dt: number, speaking: boolean) => {
    if (!filming) return
    setState((s) => {
      // Waits run by themselves; the rest only when the voice leads.
      if (!byVoice && lines[s.line]?.kind !== 'wait') return s
      return follow(s, lines, dt, speaking)
    })
  }, [filming, byVoice, lines])
  return { lines, at: state.line, gone: state.gone, go, to, tick }
}

export type RemoteAct = 'next' | 'back' | 'film' | 'stop' | 'pause' | 'slip' | 'where'
/** Tells a remote in the teacher's hand where the prompter is, and does what it asks. */
export function useRemote(lessonId: string, segment: Segment | undefined, p: Prompting, state: 'ready' | 'filming' | 'paused' | 'closed', act: (a: RemoteAct) => void): void {
  const doing = useRef(act)
  doing.current = act
  const line = p.lines[p.at]
  const where = useMemo(() => segment && { to: 'remote' as const, segmentId: segment.id, line: p.at, lines: p.lines.length, text: line?.step.text.slice(0, 600) ?? '', verb: line?.step.verb ?? 'end', next: p.lines[p.at + 1]?.step.text.slice(0, 600) ?? '', state }, [segment, p.at, p.lines, line, state])
  const [listened, setListened] = useState(false)
  const tell = useCallback(() => where && void send('POST', `/api/lessons/${lessonId}/prompter`, where).catch(() => undefined), [lessonId, where])
  useEffect(() => {
    const hear = (e: Event) => {
      const { lesson, message } = (e as CustomEvent<{ lesson: string; message: { to: string; act: RemoteAct } }>).detail
      if (lesson !== lessonId || message.to !== 'prompter') return
      setListened(true)
      if (message.act === 'where') tell()
      else doing.current(message.act)
    }
    window.addEventListener(prompterEvent, hear)
    return () => window.removeEventListener(prompterEvent, hear)
  }, [lessonId, tell])
  // Nobody is told until a remote has asked: most films are made with none.
  useEffect(() => {
    if (listened) tell()
  }, [listened, tell])
}
