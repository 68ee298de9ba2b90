import { useCallback, useEffect, useRef, useState } from 'react'
import useSWR from 'swr'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { plainCodes } from '@awlbox/core/contracts/heard'
import { bestTake } from '@awlbox/core/cut/propose'
import { clockTime } from '@awlbox/core/words'
import { send, wordsOf } from '../../api.ts'
import { JobList, useJobs } from '../../frame/jobs.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { Ruler } from '../../frame/ruler.tsx'
import { Split } from '../../frame/split.tsx'
import type { TakeRecord } from '../../frame/types.ts'
import { Button } from '../../kit/button.tsx'
import { Empty, Notice, WorkBar } from '../../kit/notice.tsx'
import { CameraView } from './camera-view.tsx'
import { HeardView } from './heard-view.tsx'
import { forget, keptFile, type KeptRecording, keptRecordings } from './keep-recording.ts'
import { Prompter } from './prompter.tsx'
import { StandInDialog } from './stand-in-dialog.tsx'
import { type UploadState, uploadTake } from './upload.ts'
import { useRecorder } from './use-recorder.ts'

export default function FilmPage() {
  const { doc, record, at, goTo, proofed, me } = useLesson()
  const { data, mutate } = useSWR<{ items: TakeRecord[] }>(`/api/lessons/${record.id}/takes`)
  const jobs = useJobs(record.id)
  const segments = doc.segments.filter((s) => s.audience === 'children')
  const segment = segments.find((s) => s.id === at) ?? segments[0]
  const [upload, setUpload] = useState<UploadState | null>(null)
  const [standIn, setStandIn] = useState(false)
  const [kept, setKept] = useState<KeptRecording[]>([])
  const file = useRef<HTMLInputElement>(null)
  const takes = data?.items ?? []

  const sendFile = useCallback(async (f: File, segmentId: string, source: 'recorded' | 'uploaded') => {
    await uploadTake(f, { lessonId: record.id, segmentId, source }, setUpload)
    void mutate()
  }, [record.id, mutate])
  const sendKept = useCallback(async (k: KeptRecording) => {
    const f = await keptFile(k)
    if (f) await sendFile(f, k.segmentId, 'recorded')
    await forget(k.id)
    setKept(await keptRecordings(record.id))
  }, [record.id, sendFile])
  const recorder = useRecorder(useCallback((k: KeptRecording) => void sendKept(k).catch(() => void keptRecordings(record.id).then(setKept)), [sendKept, record.id]))
  useEffect(() => void keptRecordings(record.id).then(setKept).catch(() => undefined), [record.id])
  const filming = recorder.state.kind === 'filming'
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLInputElement || e.ctrlKey || e.metaKey || !segment) return
      const i = segments.findIndex((s) => s.id === segment.id)
      if (e.key === 'f' && filming) recorder.stop()
      else if (e.key === 'f') recorder.film({ lessonId: record.id, segmentId: segment.id, title: segment.title })
      const to = e.key === 'ArrowDown' ? segments[i + 1] : e.key === 'ArrowUp' ? segments[i - 1] : undefined
      if (to && !filming) {
        e.preventDefault()
        goTo(to.id)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  if (!segment) return <div className="p-5"><Empty>There is nothing to film yet: the script has no segment for children.</Empty></div>
  const mine = takes.filter((t) => t.segmentId === segment.id)
  const name = (s: string) => doc.segments.find((x) => x.id === s)?.title ?? 'a segment'
  return (
    <Split
      left={<div className="flex flex-1 min-h-0"><Ruler time={proofed.time} at={segment.id} />
        <div className="flex-1 min-w-0 overflow-auto py-3 pr-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
          <Prompter segment={segment} filming={filming} />
          {segments.map((s) => <SegmentRow key={s.id} segment={s} on={s.id === segment.id} takes={takes.filter((t) => t.segmentId === s.id)} onGo={() => !filming && goTo(s.id)} />)}
        </div></div>}
      right={<div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
        <CameraView state={recorder.state} onOpen={() => void recorder.open()} table={proofed.moments.find((m) => m.segment.id === segment.id && m.after !== m.before)?.after ?? null} />
        {record.mayChange && <div className="flex flex-wrap items-center gap-2">
          {filming ? <Button look="wrong" onClick={recorder.stop}>Stop filming</Button>
            : recorder.state.kind === 'open' && <Button look="main" onClick={() => recorder.film({ lessonId: record.id, segmentId: segment.id, title: segment.title })}>Film this segment</Button>}
          <Button onClick={() => file.current?.click()} disabled={filming}>Upload a film</Button>
          <input ref={file} type="file" accept="video/*,audio/*" className="hidden" aria-label="Film to upload" onChange={(e) => {
            const f = e.target.files?.[0]
            e.target.value = ''
            if (f) void sendFile(f, segment.id, 'uploaded').catch(() => undefined)
          }} />
          {me.camera && <Button onClick={() => setStandIn(true)} disabled={filming}>Let the stand-in film it</Button>}
        </div>}
        {kept.filter(() => !filming).map((k) => <Notice key={k.id} kind="info" action={<span className="flex gap-2"><Button small look="act" onClick={() => void sendKept(k).catch(() => undefined)}>Keep it as a take</Button><Button small onClick={() => void forget(k.id).then(() => keptRecordings(record.id)).then(setKept)}>Throw it away</Button></span>}>A recording of “{k.title}” from {new Date(k.startedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })} was not sent. It is kept on this device.</Notice>)}
        {upload && (upload.problem ? <Notice kind="wrong" action={<Button small onClick={() => setUpload(null)}>Close</Button>}>{upload.problem}</Notice> : <WorkBar label={`Sending ${upload.name}`} share={upload.share} onCancel={upload.stop} />)}
        <JobList jobs={jobs.filter((j) => j.kind !== 'render')} name={(j) => (j.kind === 'film' ? `The stand-in films “${name(j.subject)}”` : `A take of “${name(j.data.segmentId ?? '')}”`)} />
        <h2 className="font-bold mt-1">Takes of “{segment.title}”</h2>
        {mine.length === 0 && <Empty>No take yet. Film it here, upload a film made elsewhere{me.camera ? ', or let the stand-in film it' : ''}.</Empty>}
        {[...mine].reverse().map((t) => <TakeCard key={t.id} take={t} segment={segment} best={mine.length > 1 && bestOf(mine) === t.id} mayChange={record.mayChange} revision={record.revision} onGone={() => void mutate()} />)}
        {standIn && <StandInDialog lessonId={record.id} segment={segment} onClose={() => setStandIn(false)} onAsked={() => void mutate()} />}
      </div>}
    />
  )
}
const bestOf = (takes: readonly TakeRecord[]): string | undefined => bestTake(takes.filter((t) => t.status === 'ready').map((t) => ({ ...t, seconds: t.seconds ?? 0 })))?.id
const slipsOf = (t: TakeRecord): number => t.hearing?.findings.filter((f) => !plainCodes.has(f.code)).length ?? 0

function SegmentRow({ segment, on, takes, onGo }: { segment: Segment; on: boolean; takes: readonly TakeRecord[]; onGo: () => void }) {
  const ready = takes.filter((t) => t.status === 'ready')
  return (
    <button type="button" aria-current={on || undefined} onClick={onGo} className={`flex items-center gap-2 w-full text-left rounded-xl border px-3 min-h-11 cursor-pointer ${on ? 'border-saffron border-2 bg-here' : 'border-hair bg-card hover:bg-wash'}`}>
      <span className="font-semibold truncate">{segment.title}</span><span className="flex-1" />
      <span className={`text-sm whitespace-nowrap ${ready.length ? 'text-moss font-semibold' : 'text-steel'}`}>{ready.length ? `${ready.length} ${ready.length === 1 ? 'take' : 'takes'}` : takes.length ? 'being prepared' : 'not filmed'}</span>
    </button>
  )
}

function TakeCard({ take, segment, best, mayChange, revision, onGone }: { take: TakeRecord; segment: Segment; best: boolean; mayChange: boolean; revision: number; onGone: () => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const seek = (s: number) => {
    if (!video.current) return
    video.current.currentTime = s
    void video.current.play()
  }
  const slips = slipsOf(take)
  const old = take.heardAtRevision !== null && take.heardAtRevision < revision && take.hearing !== null
  return (
    <article className="rounded-xl border border-hair bg-card p-3 grid gap-3" aria-label={`Take ${take.number}`}>
      <header className="flex items-center gap-3 flex-wrap"><b>Take {take.number}</b>
        <span className="text-steel text-sm figures">{take.source === 'stand-in' ? 'stand-in' : take.source}{take.seconds ? ` · ${clockTime(take.seconds)}` : ''}</span>
        {take.hearing && <span className={`text-sm font-semibold ${slips ? 'text-brick' : 'text-moss'}`}>{slips ? `${slips} ${slips === 1 ? 'slip' : 'slips'}` : 'no slip'}</span>}
        {best && <span className="text-sm font-semibold">best</span>}
        <span className="flex-1" />
        {mayChange && take.status === 'ready' && old && <Button small onClick={() => void send('POST', `/api/takes/${take.id}/hear`).catch((e: unknown) => setProblem(wordsOf(e)))} title="The script changed since this was heard">Hear again</Button>}
        {mayChange && <Button small look="quiet" onClick={() => void send('DELETE', `/api/takes/${take.id}`).then(onGone).catch((e: unknown) => setProblem(wordsOf(e)))}>Throw away</Button>}
      </header>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {take.problem && <Notice kind="wrong">{take.problem}</Notice>}
      <div className="grid grid-cols-[minmax(0,300px)_minmax(0,1fr)] max-xl:grid-cols-1 gap-3 items-start">
      {take.status === 'ready' && <video ref={video} controls preload="metadata" src={`/api/takes/${take.id}/film`} className="w-full rounded-lg bg-black aspect-video" />}
      {take.status === 'ready' && take.hasSound === false && <Notice kind="info">This film has no sound, so there is nothing to hear it by. It can be cut by hand.</Notice>}
      {take.hearing && <HeardView segment={segment} hearing={take.hearing} onSeek={seek} />}
      {take.status === 'ready' && take.hasSound && !take.hearing && <p className="text-steel">Not heard yet.</p>}
      </div>
    </article>
  )
}
