import { isInFilm } from '@awlbox/core/contracts/lesson'
import type { Frames, Seconds } from '@awlbox/core/contracts/units'
import { createContext, useCallback, useContext, useLayoutEffect, useMemo, useRef, useState } from 'react'
import * as cutApi from '@awlbox/core/contracts/api/cut'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { type CutList, type CutSegment, framesPerSecond, plainList } from '@awlbox/core/contracts/cut'
import { toFilmAgain } from '@awlbox/core/film/desk/take-sheet'
import { unfilmed } from '@awlbox/core/cut/checks'
import { programOf, shotAt } from '@awlbox/core/cut/program'
import { filmFrames, proposalsOf, tableAfter } from '@awlbox/core/cut/propose'
import { layOut, plays, shownAt, toSeconds, wordBeside } from '@awlbox/core/cut/timeline'
import { ask, wordsOf } from '../../api.ts'
import { useJobs } from '../../frame/jobs.tsx'
import { beforeRendering } from '@awlbox/core/send/before-sending'
import { useLesson } from '../../frame/lesson-context.ts'
import { useAsked } from '../../frame/use-asked.ts'
import type { Picked } from './panels/repair-panel.tsx'
import type { RowActs, Selection } from './selection.ts'
import { useChecks, useFilmed } from './use-checks.ts'
import { useCut } from './use-cut.ts'
import { useCutActs } from './use-cut-acts.ts'
import { useCutKeys } from './use-cut-keys.ts'
import { usePlayer } from './use-player.ts'
import { useAllPeaks } from './waveform.tsx'

export const panels = {
  chosen: 'Chosen',
  over: 'Over the picture',
  mend: 'Picture and sound',
  captions: 'Captions',
  checks: 'Checks',
  film: 'Film',
} as const
export type PanelName = keyof typeof panels

/** What is in the picture: which item of which row, the frame of its take, and the frame along the row. */
export interface Shown {
  segmentId: string
  itemId: string
  takeId: string | null
  frame: Frames
  along: number
}

/** One sitting at the cut of a lesson: the list, what is chosen and shown, what is wrong, and all that can be done. */
export function useCutSession() {
  const { doc, record, at, goTo, proofed, me } = useLesson()
  const {
    doc: list,
    edit,
    undo,
    redo,
    flush,
    canUndo,
    canRedo,
    revision,
    problem: cutProblem,
  } = useCut(record.id)
  const { data: takesData } = useAsked(filmApi.takes, { lessonId: record.id })
  const { data: renders } = useAsked(cutApi.renders, { lessonId: record.id })
  const jobs = useJobs(record.id)
  const [selection, setSelection] = useState<Selection | null>(null)
  const [zoom, setZoom] = useState(2)
  const [problem, setProblem] = useState<string | null>(null)
  const [panel, setPanel] = useState<PanelName>('chosen')
  const [overlay, setOverlay] = useState<string | null>(null)
  const [pick, setPick] = useState<Picked>(null)
  const takes = useMemo(() => (takesData?.items ?? []).filter((t) => t.status === 'ready'), [takesData])
  const hearings = useMemo(
    () => new Map(takes.flatMap((t) => (t.hearing ? [[t.id, t.hearing] as const] : []))),
    [takes],
  )
  const rows = useMemo(() => list?.segments ?? [], [list])
  // What is said to the adults alone is a film of its own.
  const main = useMemo(
    () => rows.filter((r) => doc.segments.some((s) => s.id === r.segmentId && isInFilm(s))),
    [rows, doc.segments],
  )
  const adults = useMemo(() => rows.filter((r) => !main.includes(r)), [rows, main])
  const current = rows.find((r) => r.segmentId === at) ?? main[0]
  const inAdults = current !== undefined && adults.includes(current)
  const program = useMemo(() => programOf({ segments: inAdults ? adults : main }), [adults, main, inAdults])
  const player = usePlayer(program)
  // What is in the picture: which item of which row, and the frame of its take.
  const shot = program.shots[shotAt(program, player.frame)]
  const shownRow = rows.find((r) => r.segmentId === shot?.segmentId)
  const inRow = player.frame - (program.starts.get(shot?.segmentId ?? '') ?? 0)
  const picture = useMemo(() => (shownRow ? shownAt(shownRow, inRow) : null), [shownRow, inRow])
  const shown = useMemo(() => shownOf(shownRow?.segmentId, picture), [shownRow?.segmentId, picture])
  const shownTake = useMemo(() => (shown?.takeId ? { ...shown, takeId: shown.takeId } : null), [shown])
  const acts = useCutActs({
    list,
    lesson: doc,
    style: me.houseStyle,
    takes,
    edit,
    selection,
    shown,
    onSelect: setSelection,
  })
  const filmed = useFilmed(doc, list, takes)
  const tables = useCallback((stepId: string) => tableAfter(filmed, stepId), [filmed])
  const peaks = useAllPeaks(useMemo(() => takes.flatMap((t) => (t.hasSound ? [t.id] : [])), [takes]))
  const { cues, checks, behind } = useChecks({
    peaks,
    list: list ?? plainList,
    rows: inAdults ? adults : main,
    filmed,
    hearings,
    style: me.houseStyle,
    lesson: doc,
    time: proofed.time,
  })
  const startOf = useCallback((segmentId: string): number => program.starts.get(segmentId) ?? 0, [program])
  const frameOf = useCallback(
    (s: Selection): number | null => {
      const row = list?.segments.find((r) => r.segmentId === s.segmentId)
      const here = row && layOut(row).find((p) => p.item.id === s.itemId)
      return here
        ? startOf(s.segmentId) +
            here.at +
            (s.part && here.item.kind === 'clip' ? Math.max(0, s.part.from - here.item.from) : 0)
        : null
    },
    [list, startOf],
  )
  const now = useRef({ at, goTo, frameOf, player, acts })
  useLayoutEffect(() => {
    now.current = { at, goTo, frameOf, player, acts }
  })
  const rowActs = useMemo((): RowActs => {
    const go = (segmentId: string): void => {
      if (now.current.at !== segmentId) now.current.goTo(segmentId)
    }
    return {
      onSelect: (s) => {
        setSelection(s)
        setPanel('chosen')
        go(s.segmentId)
        const frame = now.current.frameOf(s)
        if (frame !== null && !now.current.player.playing) now.current.player.seek(frame)
      },
      onTake: (segmentId, takeId) => now.current.acts.chooseTake(segmentId, takeId),
      onGo: go,
      onEdge: (segmentId, itemId, edge, frame) => now.current.acts.edge(segmentId, itemId, edge, frame),
      onOverlay: (segmentId, id) => {
        setPanel('over')
        setOverlay(id)
        go(segmentId)
      },
    }
  }, [])
  const chosenRow = rows.find((r) => r.segmentId === selection?.segmentId)
  const chosen = chosenRow?.items.find((i) => i.id === selection?.itemId) ?? null
  useCutKeys({
    mayChange: record.mayChange,
    current,
    row: chosenRow,
    chosen,
    selection,
    acts,
    rowActs,
    player,
    undo,
    redo,
  })

  const open = useMemo(() => proposalsOf(list ?? plainList).filter((w) => w.state === 'open'), [list])
  const length = useMemo(() => toSeconds(filmFrames({ segments: main })), [main])
  const held = useMemo(
    () =>
      toSeconds(
        rows.reduce(
          (n, r) => n + r.items.reduce((m, i) => m + (i.kind === 'hold' && plays(i) ? i.frames : 0), 0),
          0,
        ),
      ),
    [rows],
  )
  const takesShown = useMemo(
    () => rows.reduce((n, r) => n + (takes.find((t) => t.id === r.takeId)?.seconds ?? 0), 0),
    [rows, takes],
  )
  const toFilm = useMemo(() => unfilmed(main, proofed.time), [main, proofed])
  const concerns = useMemo(
    () =>
      beforeRendering({
        lesson: doc,
        findings: proofed.findings,
        notFilmed: doc.segments.filter((s) => main.some((r) => r.segmentId === s.id && !r.takeId)),
        notUnderstood: doc.segments.flatMap((s) => {
          const takeId = main.find((r) => r.segmentId === s.id)?.takeId
          const how = (takeId && hearings.get(takeId)?.understood?.how) || 'understood'
          return how === 'understood' ? [] : [{ id: s.id, title: s.title, how }]
        }),
        filmAgain: doc.segments.flatMap((s) => {
          const takeId = main.find((r) => r.segmentId === s.id)?.takeId
          const slips = toFilmAgain((takeId && hearings.get(takeId)) || null).length
          const better = takes.find(
            (t) => t.segmentId === s.id && t.hearing && toFilmAgain(t.hearing).length === 0,
          )
          return slips ? [{ id: s.id, title: s.title, slips, better: better?.number ?? null }] : []
        }),
        checks,
        cut: list,
      }),
    [doc, proofed, main, checks, list, hearings, takes],
  )
  const trying = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null)
    await work().catch((error: unknown) => setProblem(wordsOf(error)))
  }
  const second = player.frame / framesPerSecond
  return {
    record,
    doc,
    me,
    limit: proofed.time.filmLimit,
    list,
    rows,
    main,
    adults,
    takes,
    hearings,
    current,
    chosenRow,
    chosen,
    selection,
    zoom,
    setZoom,
    panel,
    setPanel,
    overlay,
    setOverlay,
    pick,
    setPick,
    acts,
    rowActs,
    player,
    program,
    shot,
    shown,
    shownTake,
    tables,
    cues,
    checks,
    behind,
    wrong: checks.filter((c) => c.severity === 'wrong').length,
    open,
    length,
    held,
    takesShown,
    missing: main.filter((r) => !r.takeId).length,
    /** Seconds that what is not filmed yet is planned to take. */
    toFilm,
    renderRate: renders?.rate ?? null,
    jobs,
    rendering: jobs.some((j) => j.kind === 'render' && (j.status === 'queued' || j.status === 'running')),
    latest: renders?.items[0] ?? null,
    revision,
    problem,
    cutProblem,
    undo,
    redo,
    canUndo,
    canRedo,
    startOf,
    frameOf,
    trying,
    /** Seconds into the film. */
    second,
    /** The caption over the picture now; none on a card. */
    cue:
      picture?.item.kind === 'card'
        ? null
        : (cues.find((c) => c.source && second >= c.start && second < c.end) ?? null),
    /** What is not in order before a film is made of it. */
    concerns,
    render: () =>
      trying(async () => {
        await flush()
        await ask(cutApi.render, { lessonId: record.id })
        setPanel('film')
      }),
    goToMoment: (segmentId: string | null, seconds: Seconds | null): void => {
      if (!segmentId) return
      if (at !== segmentId) goTo(segmentId)
      player.seek(startOf(segmentId) + Math.round((seconds ?? 0) * framesPerSecond))
    },
    /** Goes to the word before or after what is shown. */
    goByWord: (step: -1 | 1): void => {
      const to = shownRow ? wordBeside(shownRow, hearings, inRow, step) : null
      if (to !== null && shot) player.seek(startOf(shot.segmentId) + to)
    },
  }
}
function shownOf(segmentId: string | undefined, picture: ReturnType<typeof shownAt> | null): Shown | null {
  if (segmentId === undefined || !picture) return null
  const { item, frame } = picture
  return {
    segmentId,
    itemId: item.id,
    takeId: item.kind === 'clip' ? item.takeId : null,
    frame: item.kind === 'clip' && item.still ? item.from : frame,
    along: frame,
  }
}

type CutSession = ReturnType<typeof useCutSession>
/** A sitting whose list is there and which stands at a row: what the panes are drawn from. */
type OpenCut = CutSession & { list: CutList; current: CutSegment }
const Session = createContext<OpenCut | null>(null)
export const CutSessionProvider = Session.Provider
export function useOpenCut(): OpenCut {
  const session = useContext(Session)
  if (!session) throw new Error('There is no cut here.')
  return session
}
