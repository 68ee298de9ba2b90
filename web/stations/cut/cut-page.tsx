import { useEffect, useRef, useState } from 'react'
import useSWR from 'swr'
import { type CutSegment, framesPerSecond } from '@awlbox/core/contracts/cut'
import { forTake } from '@awlbox/core/cut/propose'
import { segmentFrames } from '@awlbox/core/cut/spans'
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
import { Preview, type PreviewHandle } from './preview.tsx'
import { SegmentRow, type Selection } from './segment-row.tsx'
import { cardFor, drop, SelectionPanel } from './selection-panel.tsx'
import { useCut } from './use-cut.ts'

interface Render { id: string; cutRevision: number; seconds: number; bytes: number; createdAt: string }
const kinds = [['slip', 'slips', 'slip'], ['false start', 'false starts', 'false start'], ['silence', 'silences', 'silence']] as const

export default function CutPage() {
  const { doc, record, at, goTo, proofed } = useLesson()
  const cut = useCut(record.id)
  const { data: takesData } = useSWR<{ items: TakeRecord[] }>(`/api/lessons/${record.id}/takes`)
  const { data: renders } = useSWR<{ items: Render[] }>(`/api/lessons/${record.id}/renders`)
  const jobs = useJobs(record.id)
  const [selection, setSelection] = useState<Selection | null>(null)
  const [now, setNow] = useState<number | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const preview = useRef<PreviewHandle>(null)
  const takes = (takesData?.items ?? []).filter((t) => t.status === 'ready')
  const rows = cut.doc?.segments ?? []
  const current = rows.find((r) => r.segmentId === at) ?? rows[0]
  const segment = doc.segments.find((s) => s.id === current?.segmentId)
  const secondsOf = (r: CutSegment) => takes.find((t) => t.id === r.takeId)?.seconds ?? null
  const change = (next: CutSegment) => {
    cut.edit((c) => ({ ...c, segments: c.segments.map((s) => (s.segmentId === next.segmentId ? next : s)) }))
    setSelection(null)
  }
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || !current || !segment) return
      if (e.key === ' ' && !(e.target instanceof HTMLButtonElement)) {
        e.preventDefault()
        preview.current?.toggle()
      }
      if (!record.mayChange) return
      if (e.key === 'p') change({ ...current, card: current.card ? null : cardFor(segment) })
      if (e.key === 'd' && selection) drop(selection, rows.find((r) => r.segmentId === selection.segmentId)!, change)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  if (!cut.doc) return <p className="p-8 text-steel">Opening the cut…</p>
  if (!current || !segment || !takes.length) return <div className="p-5 max-w-xl"><Empty>Nothing is filmed yet. Film the segments first; a first cut is proposed from what was heard.</Empty></div>
  const proposed = rows.flatMap((r) => r.drops.filter((d) => d.state === 'proposed'))
  const accept = (reason: string | null) => cut.edit((c) => ({ ...c, segments: c.segments.map((s) => ({ ...s, drops: s.drops.map((d) => (d.state === 'proposed' && (reason === null || d.reason === reason) ? { ...d, state: 'accepted' as const } : d)) })) }))
  const length = rows.reduce((n, r) => n + segmentFrames(r, secondsOf(r)), 0) / framesPerSecond
  const filmed = rows.reduce((n, r) => n + (secondsOf(r) ?? 0), 0)
  const missing = rows.filter((r) => !r.takeId).length
  const rendering = jobs.some((j) => j.kind === 'render' && (j.status === 'queued' || j.status === 'running'))
  const render = async () => {
    setProblem(null)
    try {
      await cut.flush()
      await send('POST', `/api/lessons/${record.id}/render`)
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  const latest = renders?.items[0]
  const takeOf = (r: CutSegment) => takes.find((t) => t.id === r.takeId) ?? null
  return (
    <Split
      left={<>
        <div className="flex-1 min-h-0 overflow-auto p-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
          <div className="rounded-xl border border-hair bg-card px-3 py-2 flex flex-wrap items-center gap-2">
            {proposed.length ? <><b className="whitespace-nowrap">{proposed.length} {proposed.length === 1 ? 'drop' : 'drops'} proposed</b>
              {record.mayChange && kinds.map(([reason, many, one]) => {
                const n = proposed.filter((d) => d.reason === reason).length
                return n > 0 && <Button key={reason} small onClick={() => accept(reason)}>Accept {n} {n === 1 ? one : many}</Button>
              })}
              {record.mayChange && <Button small look="act" onClick={() => accept(null)}>Accept all</Button>}</>
              : <span className="text-steel">Nothing left to decide.</span>}
            <span className="flex-1" />
            {record.mayChange && <Button small disabled={!cut.canUndo} onClick={cut.undo}>Undo the cut</Button>}
          </div>
          {cut.problem && <Notice kind="wrong">{cut.problem}</Notice>}
          {rows.map((r) => <SegmentRow key={r.segmentId} segment={doc.segments.find((s) => s.id === r.segmentId)!} cut={r} takes={takes.filter((t) => t.segmentId === r.segmentId)} on={r === current} selection={selection} now={r === current ? now : null}
            onGo={() => at !== r.segmentId && goTo(r.segmentId)} onSelect={(s) => (setSelection(s), at !== r.segmentId && goTo(r.segmentId))}
            onTake={(id) => {
              const t = takes.find((x) => x.id === id)
              if (t) change(forTake(r.segmentId, { ...t, segmentId: r.segmentId, seconds: t.seconds ?? 0 }, r.card))
            }} />)}
        </div>
        <div className="bg-card border-t border-hair px-4 py-2 min-h-[56px] flex flex-wrap items-center gap-x-4 gap-y-1 figures">
          <span>Cut <b>{clockTime(length)}</b> of {clockTime(proofed.time.filmLimit)}</span><span className="text-steel">filmed {clockTime(filmed)}</span>
          {missing > 0 && <span className="text-brick">{missing} not filmed</span>}
          <span className="flex-1" />
          {record.mayChange && <Button look="main" onClick={() => void render()} disabled={rendering || length < 0.1}>Render · about {length < 170 ? `${Math.max(10, Math.round((length * 0.35) / 10) * 10)} s` : `${Math.round((length * 0.35) / 60)} min`}</Button>}
        </div>
      </>}
      right={<div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
        <h2 className="font-bold truncate">{segment.title}</h2>
        <Preview key={current.takeId} ref={preview} take={takeOf(current)} cut={current} onTime={setNow} />
        <SelectionPanel selection={selection?.segmentId === current.segmentId ? selection : null} cut={current} seconds={secondsOf(current)} segment={segment} mayChange={record.mayChange} onChange={change} onPlay={(s) => preview.current?.playFrom(s)} />
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
