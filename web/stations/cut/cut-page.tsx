import { useCallback, useEffect, useMemo, useState } from 'react'
import useSWR from 'swr'
import { cardLooks, cutReasons, framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardNames } from '@awlbox/core/cut/cards'
import { proposalsOf } from '@awlbox/core/cut/propose'
import { layOut, plays, shownAt, wordBeside } from '@awlbox/core/cut/timeline'
import { clockTime } from '@awlbox/core/words'
import { send, wordsOf } from '../../api.ts'
import { isTyping } from '../../frame/head.tsx'
import { JobList, useJobs } from '../../frame/jobs.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { Split } from '../../frame/split.tsx'
import { megabytes } from '../../frame/time.ts'
import type { TakeRecord } from '../../frame/types.ts'
import { Button } from '../../kit/button.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { captionAt } from './words-shown.ts'
import { Preview } from './preview.tsx'
import { programOf, shotAt } from '@awlbox/core/cut/program'
import type { Selection } from './selection.ts'
import { type RowActs, SegmentRow } from './segment-row.tsx'
import { SelectionPanel } from './selection-panel.tsx'
import { useCut } from './use-cut.ts'
import { useCutActs } from './use-cut-acts.ts'
import { usePlayer } from './use-player.ts'

interface Render { id: string; cutRevision: number; seconds: number; bytes: number; createdAt: string }
const kindWords: Record<(typeof cutReasons)[number], readonly [one: string, many: string]> = {
  'slip': ['slip', 'slips'], 'false start': ['false start', 'false starts'], 'filler': ['filler', 'fillers'], 'silence': ['silence', 'silences'], 'ends': ['end', 'ends'],
  'wait': ['wait to hold', 'waits to hold'], 'other take': ['line from another take', 'lines from other takes'], 'card': ['card', 'cards'], 'overlay': ['overlay', 'overlays'], 'face': ['cover', 'covers'], 'by hand': ['', ''],
}
const scales = [8, 12, 17, 26, 40, 60] as const
const empty = { segments: [] }

export default function CutPage() {
  const { doc, record, at, goTo, proofed } = useLesson()
  const { doc: list, edit, undo, redo, flush, canUndo, canRedo, problem: cutProblem } = useCut(record.id)
  const { data: takesData } = useSWR<{ items: TakeRecord[] }>(`/api/lessons/${record.id}/takes`)
  const { data: renders } = useSWR<{ items: Render[] }>(`/api/lessons/${record.id}/renders`)
  const jobs = useJobs(record.id)
  const [selection, setSelection] = useState<Selection | null>(null)
  const [zoom, setZoom] = useState(2)
  const [problem, setProblem] = useState<string | null>(null)
  const takes = useMemo(() => (takesData?.items ?? []).filter((t) => t.status === 'ready'), [takesData])
  const program = useMemo(() => programOf(list ?? empty), [list])
  const player = usePlayer(program)
  const rows = list?.segments ?? []
  const current = rows.find((r) => r.segmentId === at) ?? rows[0]
  // What is in the picture: which item of which row, and the frame of its take.
  const shot = program.shots[shotAt(program, player.frame)]
  const shownRow = rows.find((r) => r.segmentId === shot?.segmentId)
  const inRow = player.frame - (program.starts.get(shot?.segmentId ?? '') ?? 0)
  const picture = useMemo(() => (shownRow ? shownAt(shownRow, inRow) : null), [shownRow, inRow])
  const shown = useMemo(() => (shownRow && picture ? { segmentId: shownRow.segmentId, itemId: picture.item.id, frame: picture.frame } : null), [shownRow, picture])
  const acts = useCutActs({ lesson: doc, takes, edit, selection, shown, onSelect: setSelection })
  const frameOf = useCallback((s: Selection): number | null => {
    const row = list?.segments.find((r) => r.segmentId === s.segmentId)
    const here = row && layOut(row).find((p) => p.item.id === s.itemId)
    return here ? (program.starts.get(s.segmentId) ?? 0) + here.at + (s.part && here.item.kind === 'clip' ? Math.max(0, s.part.from - here.item.from) : 0) : null
  }, [list, program])
  const { seek, playing } = player
  const rowActs = useMemo((): RowActs => ({
    onSelect: (s) => {
      setSelection(s)
      if (at !== s.segmentId) goTo(s.segmentId)
      const frame = frameOf(s)
      if (frame !== null && !playing) seek(frame)
    },
    onTake: (segmentId, takeId) => acts.chooseTake(segmentId, takeId),
    onGo: (segmentId) => at !== segmentId && goTo(segmentId),
    onEdge: (segmentId, itemId, edge, frame) => acts.edge(segmentId, itemId, edge, frame),
  }), [acts, at, goTo, frameOf, seek, playing])
  const chosenRow = rows.find((r) => r.segmentId === selection?.segmentId)
  const chosen = chosenRow?.items.find((i) => i.id === selection?.itemId) ?? null

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const key = e.key.toLowerCase()
      // On a slider letters are keys as anywhere; arrows are its own.
      const slider = e.target instanceof HTMLInputElement && e.target.type === 'range'
      if (slider ? key.startsWith('arrow') : isTyping(e.target)) return
      if (e.ctrlKey || e.metaKey) {
        if (key !== 'z' && key !== 'y') return
        // Here undo is the cut's, not the script's.
        e.preventDefault()
        e.stopImmediatePropagation()
        if (key === 'y' || e.shiftKey) redo()
        else undo()
        return
      }
      if (key === ' ' && !(e.target instanceof HTMLButtonElement)) {
        e.preventDefault()
        if (player.playing) player.stop()
        else player.play()
      }
      if (!current) return
      if ((key === 'arrowleft' || key === 'arrowright') && selection && chosenRow) {
        e.preventDefault()
        const by = key === 'arrowright' ? 1 : -1
        if (e.altKey) return record.mayChange ? acts.move(chosenRow.segmentId, selection.itemId, by) : undefined
        const next = chosenRow.items[chosenRow.items.findIndex((i) => i.id === selection.itemId) + by]
        if (next) rowActs.onSelect({ segmentId: chosenRow.segmentId, itemId: next.id, part: null })
        return
      }
      if (!record.mayChange || e.altKey) return
      if (key === 'p') acts.addCard(current.segmentId, 'stop', chosenRow === current ? selection!.itemId : null)
      if (!selection || !chosenRow || !chosen) return
      if (key === 'd') {
        if (selection.part) acts.dropPart()
        else acts.drop(selection.segmentId, selection.itemId)
      }
      if (key === 'b') acts.bringBack(selection.segmentId, selection.itemId)
      if (key === 's') acts.splitHere()
      if (key === 'w' && chosen.kind === 'clip') acts.addHold(selection.segmentId, selection.itemId)
      if (key === 'a' && chosen.why?.state === 'open') acts.decide(selection.segmentId, chosen.why.id, 'accepted')
      if (key === 'k' && chosen.why?.state === 'open') acts.decide(selection.segmentId, chosen.why.id, 'declined')
    }
    window.addEventListener('keydown', onKey, { capture: true })
    return () => window.removeEventListener('keydown', onKey, { capture: true })
  })
  if (!list) return <p className="p-8 text-steel">Opening the cut…</p>
  const segment = doc.segments.find((s) => s.id === current?.segmentId)
  if (!current || !segment || !takes.length) return <div className="p-5 max-w-xl"><Empty>Nothing is filmed yet. Film the segments first; a first cut is proposed from what was heard.</Empty></div>
  const open = proposalsOf(list).filter((w) => w.state === 'open')
  const length = program.frames / framesPerSecond
  const filmed = rows.reduce((n, r) => n + (takes.find((t) => t.id === r.takeId)?.seconds ?? 0), 0)
  const held = rows.reduce((n, r) => n + r.items.reduce((m, i) => m + (i.kind === 'hold' && plays(i) ? i.frames : 0), 0), 0) / framesPerSecond
  const missing = rows.filter((r) => !r.takeId).length
  const rendering = jobs.some((j) => j.kind === 'render' && (j.status === 'queued' || j.status === 'running'))
  const render = async () => {
    setProblem(null)
    try {
      await flush()
      await send('POST', `/api/lessons/${record.id}/render`)
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  const latest = renders?.items[0]
  return (
    <Split
      left={<>
        <div className="flex-1 min-h-0 overflow-auto p-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
          <div className="rounded-xl border border-hair bg-card px-3 py-2 flex flex-wrap items-center gap-2">
            {open.length ? <><b className="whitespace-nowrap">{open.length} proposed</b>
              {record.mayChange && cutReasons.map((kind) => {
                const n = open.filter((w) => w.kind === kind).length
                return n > 0 && <Button key={kind} small onClick={() => acts.decideAll(kind, 'accepted')}>Accept {n} {kindWords[kind][n === 1 ? 0 : 1]}</Button>
              })}
              {record.mayChange && <Button small look="act" onClick={() => acts.decideAll(null, 'accepted')}>Accept all</Button>}</>
              : <span className="text-steel">Nothing left to decide.</span>}
            <span className="flex-1" />
            {held > 0 && <span className="text-steel text-sm figures whitespace-nowrap">think-time added: {held.toFixed(0)} s</span>}
            {record.mayChange && <><Button small disabled={!canUndo} onClick={undo} title="Ctrl Z">Undo the cut</Button><Button small disabled={!canRedo} onClick={redo} title="Ctrl Shift Z">Redo</Button></>}
            <span className="flex items-center gap-1"><Button small look="quiet" aria-label="Narrower" disabled={zoom === 0} onClick={() => setZoom(zoom - 1)}>−</Button><Button small look="quiet" aria-label="Wider" disabled={zoom === scales.length - 1} onClick={() => setZoom(zoom + 1)}>+</Button></span>
          </div>
          {cutProblem && <Notice kind="wrong">{cutProblem}</Notice>}
          {rows.map((r) => <SegmentRow key={r.segmentId} segment={doc.segments.find((s) => s.id === r.segmentId)!} cut={r} takes={takes} on={r === current} selection={selection?.segmentId === r.segmentId ? selection : null} scale={scales[zoom]!} now={shown?.segmentId === r.segmentId ? shown : null} acts={rowActs} />)}
        </div>
        <div className="bg-card border-t border-hair px-4 py-2 min-h-[56px] flex flex-wrap items-center gap-x-4 gap-y-1 figures">
          <span>Cut <b>{clockTime(length)}</b> of {clockTime(proofed.time.filmLimit)}</span><span className="text-steel">filmed {clockTime(filmed)}</span>
          {missing > 0 && <span className="text-brick">{missing} not filmed</span>}
          <span className="flex-1" />
          {record.mayChange && <Button look="main" onClick={() => void render()} disabled={rendering || length < 0.1}>Render · about {length < 170 ? `${Math.max(10, Math.round((length * 0.35) / 10) * 10)} s` : `${Math.round((length * 0.35) / 60)} min`}</Button>}
        </div>
      </>}
      right={<div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
        <Preview program={program} player={player} caption={captionAt(doc, picture, takes)} onWord={(step) => {
          const to = shownRow ? wordBeside(shownRow, new Map(takes.flatMap((t) => (t.hearing ? [[t.id, t.hearing] as const] : []))), inRow, step) : null
          if (to !== null && shot) player.seek((program.starts.get(shot.segmentId) ?? 0) + to)
        }} />
        <SelectionPanel cut={chosenRow ?? current} item={chosen} part={selection?.part ?? null} takes={takes} mayChange={record.mayChange} acts={acts} onPlay={() => {
          const frame = selection && frameOf(selection)
          if (frame !== null) player.play(frame)
        }} />
        {record.mayChange && <div className="flex flex-wrap gap-2 items-center text-sm text-steel">Put in a card:{cardLooks.map((look) => <Button key={look} small onClick={() => acts.addCard(current.segmentId, look, chosenRow === current ? selection!.itemId : null)}>{cardNames[look]}</Button>)}</div>}
        {problem && <Notice kind="wrong">{problem}</Notice>}
        <JobList jobs={jobs.filter((j) => j.kind === 'render')} />
        {latest && <section aria-label="The rendered film" className="grid gap-2">
          <h2 className="font-bold">The film <span className="font-normal text-steel text-sm figures">{clockTime(latest.seconds)} · {megabytes(latest.bytes)} · {new Date(latest.createdAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}</span></h2>
          <video key={latest.id} controls preload="metadata" className="w-full rounded-xl bg-black aspect-video" poster={`/api/renders/${latest.id}/poster`} src={`/api/renders/${latest.id}/film`}><track kind="captions" srcLang="en" label="Captions" default src={`/api/renders/${latest.id}/captions`} /></video>
        </section>}
      </div>}
    />
  )
}
