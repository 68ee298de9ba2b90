import { isInFilm } from '@awlbox/core/contracts/lesson'
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react'
import * as filmApi from '@awlbox/core/contracts/api/film'
import type { PromptLine } from '@awlbox/core/film/desk/prompter'
import { facesOf, withRoll } from '@awlbox/core/film/desk/rolls'
import { useJobs } from '../../frame/jobs.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { usePrompterSettings } from './prompter.tsx'
import { useSheet } from './take-sheet.tsx'
import { useClips } from './use-clips.ts'
import { useFilmKeys } from './use-film-keys.ts'
import { useKeptRecordings } from './use-kept-recordings.ts'
import { useLevels } from './use-levels.ts'
import { usePrompter, useRemote } from './use-prompter.ts'
import { type Recorded, useRecorder } from './use-recorder.ts'

/** Milliseconds a word about what was just done stays. */
const toldFor = 2500

/** What came up when real dice were thrown: noted in the recording, and carried into the script where it is wanted. */
function useRolls(tell: (words: string) => void) {
  const { doc, edit } = useLesson()
  const [rolled, setRolled] = useState<ReadonlyMap<string, readonly number[]>>(new Map())
  const carry = (stepId: string, faces: number[]) => {
    const of = doc.segments.find((s) => s.steps.some((x) => x.id === stepId))
    const came = of && withRoll(doc, of, stepId, faces)
    if (!of || !came) return
    edit((d) => ({ ...d, segments: d.segments.map((s) => (s.id === of.id ? came.segment : s)) }))
    tell(
      `${came.changed.length} ${came.changed.length === 1 ? 'line follows' : 'lines follow'} what came up. Ctrl Z takes it back.`,
    )
  }
  return { rolled, setRolled, carry }
}

/** One sitting at the camera: what is filmed now, the prompter, the takes there are, and all that can be done. */
export function useFilmSession() {
  const { doc, record, at, goTo, proofed, me } = useLesson()
  const { data, mutate } = useAsked(filmApi.takes, { lessonId: record.id })
  const jobs = useJobs(record.id)
  const children = useMemo(() => doc.segments.filter(isInFilm), [doc.segments])
  // What adults are told alone may be filmed too: it becomes a film of its own.
  const segments = useMemo(
    () => [...children, ...doc.segments.filter((s) => s.audience === 'adults')],
    [children, doc.segments],
  )
  const segment = segments.find((s) => s.id === at) ?? segments[0]
  const next = segment ? segments[segments.indexOf(segment) + 1] : undefined
  const after = next?.audience === segment?.audience ? (next ?? null) : null
  const takes = useMemo(() => data?.items ?? [], [data])
  const refresh = useCallback(() => void mutate(), [mutate])
  const clips = useClips(record.id, refresh)
  const kept = useKeptRecordings(record.id, refresh)
  const { deliver } = kept
  const [settings, setSettings] = usePrompterSettings()
  const [dialog, setDialog] = useState<'check' | 'stand-in' | 'remote' | null>(null)
  const [large, setLarge] = useState(false)
  const [straight, setStraight] = useState(false)
  const [watch, setWatch] = useState<string | null>(null)
  const [told, tell] = useState<string | null>(null)
  const { rolled, setRolled, carry } = useRolls(tell)
  const video = useRef<HTMLVideoElement>(null)

  const recorder = useRecorder(
    useCallback(
      (r: Recorded) => {
        setWatch((old) => {
          if (old) URL.revokeObjectURL(old)
          return r.watch
        })
        void deliver(r.kept, r.upload)
      },
      [deliver],
    ),
  )
  const { state } = recorder
  const filming = state.kind === 'filming'
  const running = filming && !state.paused
  const p = usePrompter(segment, running, settings.byVoice)
  const slip = useCallback(
    (by: 'key' | 'clap') => {
      recorder.mark({ kind: 'slip', at: recorder.at(), by })
      tell('Slip marked.')
    },
    [recorder],
  )
  const stream = state.kind === 'open' || state.kind === 'filming' ? state.stream : null
  const levels = useLevels(stream, p.tick, running ? () => slip('clap') : undefined)

  const film = useCallback(() => {
    if (!segment || state.kind !== 'open') return
    setWatch(null)
    tell(null)
    setRolled(new Map())
    recorder.film({
      lessonId: record.id,
      segmentId: straight ? '' : segment.id,
      title: straight ? doc.title : segment.title,
    })
    if (straight) recorder.mark({ kind: 'segment', at: 0, segmentId: segment.id })
  }, [segment, state.kind, recorder, record.id, straight, doc.title, setRolled])
  const go = useCallback(
    (by: number) => {
      if (by > 0 && p.at >= p.lines.length && after && (straight || !filming)) {
        if (filming) recorder.mark({ kind: 'segment', at: recorder.at(), segmentId: after.id })
        goTo(after.id)
      } else p.go(by)
    },
    [p, after, straight, filming, recorder, goTo],
  )
  const prompting = useMemo(() => ({ ...p, go }), [p, go])
  useRemote(
    record.id,
    segment,
    p,
    filming ? (state.paused ? 'paused' : 'filming') : state.kind === 'open' ? 'ready' : 'closed',
    (act) => {
      if (act === 'next') go(1)
      else if (act === 'back') go(-1)
      else if (act === 'film') film()
      else if (act === 'stop') recorder.stop()
      else if (act === 'pause') recorder.pause()
      else if (act === 'slip' && filming) slip('key')
    },
  )
  useFilmKeys({
    segments,
    segment,
    filming,
    go,
    goTo,
    film,
    stop: recorder.stop,
    pause: recorder.pause,
    slip: () => filming && slip('key'),
    large,
    setLarge,
  })
  useEffect(() => {
    if (!told) return
    const t = setTimeout(() => tell(null), toldFor)
    return () => clearTimeout(t)
  }, [told])
  const sheet = useSheet(children, takes)
  const onRoll = (line: PromptLine, faces: number[]) => {
    setRolled((m) => new Map(m).set(line.step.id, faces))
    if (filming) recorder.mark({ kind: 'roll', at: recorder.at(), stepId: line.step.id, faces })
    else carry(line.step.id, faces)
  }
  return {
    doc,
    record,
    me,
    goTo,
    proofed,
    jobs,
    children,
    segments,
    segment,
    after,
    takes,
    sheet,
    refresh,
    clips,
    kept,
    settings,
    setSettings,
    dialog,
    setDialog,
    large,
    setLarge,
    straight,
    setStraight,
    watch,
    setWatch,
    told,
    rolled,
    onRoll,
    carry,
    video,
    recorder,
    state,
    filming,
    running,
    stream,
    levels,
    prompter: prompting,
    slip,
    film,
    moments: proofed.moments.filter((m) => m.segment.id === segment?.id),
  }
}
type Sitting = ReturnType<typeof useFilmSession>
/** The sitting once there is something to film. */
export type FilmSession = Sitting & { segment: NonNullable<Sitting['segment']> }

const Session = createContext<FilmSession | null>(null)
export const FilmSessionProvider = Session.Provider
export function useFilm(): FilmSession {
  const session = useContext(Session)
  if (!session) throw new Error('Used outside the Film page')
  return session
}
/** Steps with dice that fell otherwise in a take than the script says. */
export function rollsPending({ doc, takes }: Pick<FilmSession, 'doc' | 'takes'>): Set<string> {
  const steps = doc.segments.flatMap((s) => s.steps)
  return new Set(
    takes
      .flatMap((t) => t.marks)
      .flatMap((m) => {
        const step = m.kind === 'roll' ? steps.find((x) => x.id === m.stepId) : undefined
        return m.kind === 'roll' && step && facesOf(step.text)?.join() !== m.faces.join() ? [m.stepId] : []
      }),
  )
}
