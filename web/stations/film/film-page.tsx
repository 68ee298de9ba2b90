import * as filmApi from '@awlbox/core/contracts/api/film'
import { useAsked } from '../../frame/use-asked.ts'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Tabs } from 'radix-ui'
import type { Segment } from '@awlbox/core/contracts/lesson'
import type { PromptLine } from '@awlbox/core/film/desk/prompter'
import { facesOf, withRoll } from '@awlbox/core/film/desk/rolls'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { JobList, useJobs } from '../../frame/jobs.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { Ruler } from '../../frame/ruler.tsx'
import { Split } from '../../frame/split.tsx'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../kit/button.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { CameraCheck } from './camera-check.tsx'
import { CameraView } from './camera-view.tsx'
import { ClipDrop, ClipList, Tray } from './clips.tsx'
import { Prompter, usePrompterSettings } from './prompter.tsx'
import { RemoteDialog } from './remote-dialog.tsx'
import { StandInDialog } from './stand-in-dialog.tsx'
import { TakeCard } from './take-card.tsx'
import { FilmAgain, TakeSheet, useSheet } from './take-sheet.tsx'
import { useClips } from './use-clips.ts'
import { useFilmKeys } from './use-film-keys.ts'
import { useKeptRecordings } from './use-kept-recordings.ts'
import { useLevels } from './use-levels.ts'
import { usePrompter, useRemote } from './use-prompter.ts'
import { type Recorded, useRecorder } from './use-recorder.ts'

export default function FilmPage() {
  const { doc, record, at, goTo, proofed, me, edit } = useLesson()
  const { data, mutate } = useAsked(filmApi.takes, { lessonId: record.id })
  const jobs = useJobs(record.id)
  const children = useMemo(() => doc.segments.filter((s) => s.audience === 'children'), [doc.segments])
  // What adults are told alone may be filmed too: it becomes a film of its own.
  const segments = useMemo(
    () => [...children, ...doc.segments.filter((s) => s.audience === 'adults')],
    [children, doc.segments],
  )
  const segment = segments.find((s) => s.id === at) ?? segments[0]
  const next = segment ? segments[segments.indexOf(segment) + 1] : undefined
  const after = next?.audience === segment?.audience ? (next ?? null) : null
  const takes = useMemo(() => data?.items ?? [], [data])
  const tray = takes.filter((t) => t.segmentId === null)
  const refresh = useCallback(() => void mutate(), [mutate])
  const clips = useClips(record.id, refresh)
  const kept = useKeptRecordings(record.id, refresh)
  const { deliver } = kept
  const [settings, setSettings] = usePrompterSettings()
  const [open, setOpen] = useState<'check' | 'stand-in' | 'remote' | null>(null)
  const [large, setLarge] = useState(false)
  // Another segment opens on its own takes.
  const [tabOf, setTabOf] = useState({ segmentId: segment?.id, tab: 'takes' })
  const tab = tabOf.segmentId === segment?.id ? tabOf.tab : 'takes'
  const setTab = (next: string) => setTabOf({ segmentId: segment?.id, tab: next })
  const [straight, setStraight] = useState(false)
  const [watch, setWatch] = useState<string | null>(null)
  const [rolled, setRolled] = useState<ReadonlyMap<string, readonly number[]>>(new Map())
  const [told, setTold] = useState<string | null>(null)
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
      setTold('Slip marked.')
    },
    [recorder],
  )
  const stream = state.kind === 'open' || state.kind === 'filming' ? state.stream : null
  const levels = useLevels(stream, p.tick, running ? () => slip('clap') : undefined)

  const film = useCallback(() => {
    if (!segment || state.kind !== 'open') return
    setWatch(null)
    setTold(null)
    setRolled(new Map())
    recorder.film({
      lessonId: record.id,
      segmentId: straight ? '' : segment.id,
      title: straight ? doc.title : segment.title,
    })
    if (straight) recorder.mark({ kind: 'segment', at: 0, segmentId: segment.id })
  }, [segment, state.kind, recorder, record.id, straight, doc.title])
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
    const t = setTimeout(() => setTold(null), 2500)
    return () => clearTimeout(t)
  }, [told])
  const sheet = useSheet(children, takes)
  if (!segment)
    return (
      <div className="p-5">
        <Empty>There is nothing to film yet: the script has no segment for children.</Empty>
      </div>
    )

  const onRoll = (line: PromptLine, faces: number[]) => {
    setRolled((m) => new Map(m).set(line.step.id, faces))
    if (filming) recorder.mark({ kind: 'roll', at: recorder.at(), stepId: line.step.id, faces })
    else carry(line.step.id, faces)
  }
  const carry = (stepId: string, faces: number[]) => {
    const of = doc.segments.find((s) => s.steps.some((x) => x.id === stepId))
    const came = of && withRoll(doc, of, stepId, faces)
    if (!of || !came) return
    edit((d) => ({ ...d, segments: d.segments.map((s) => (s.id === of.id ? came.segment : s)) }))
    setTold(
      `${came.changed.length} ${came.changed.length === 1 ? 'line follows' : 'lines follow'} what came up. Ctrl Z takes it back.`,
    )
  }
  const pendingRolls = new Set(
    takes
      .flatMap((t) => t.marks)
      .flatMap((m) => {
        const step =
          m.kind === 'roll' ? doc.segments.flatMap((s) => s.steps).find((x) => x.id === m.stepId) : undefined
        return m.kind === 'roll' && step && facesOf(step.text)?.join() !== m.faces.join() ? [m.stepId] : []
      }),
  )
  const mine = takes.filter((t) => t.segmentId === segment.id)
  const rows = sheet.rows.get(segment.id) ?? []
  const name = (s: string) => doc.segments.find((x) => x.id === s)?.title ?? 'a clip'
  const firstLine = spokenLines(segment, me.houseStyle)[0]?.text ?? doc.title
  const moments = proofed.moments.filter((m) => m.segment.id === segment.id)
  return (
    <Split
      left={
        <div className="flex flex-1 min-h-0">
          <Ruler time={proofed.time} at={segment.id} />
          <div className="flex-1 min-w-0 overflow-auto py-3 pr-3 grid grid-cols-[minmax(0,1fr)] auto-rows-max gap-2 content-start">
            <Prompter
              segment={segment}
              p={prompting}
              filming={running}
              levels={levels}
              settings={settings}
              onSettings={setSettings}
              onRoll={onRoll}
              rolled={rolled}
              large={large}
              onLarge={setLarge}
              after={straight || !filming ? after : null}
            />
            {segments.map((s) => (
              <SegmentRow
                key={s.id}
                segment={s}
                on={s.id === segment.id}
                takes={takes.filter((t) => t.segmentId === s.id)}
                again={sheet.again.some((a) => a.segmentId === s.id && a.why === 'slips')}
                onGo={() => !filming && goTo(s.id)}
              />
            ))}
          </div>
        </div>
      }
      right={
        <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
          <CameraView
            state={state}
            devices={recorder.devices}
            video={video}
            onOpen={(want) => void recorder.open(want)}
            table={p.lines[p.at]?.table ?? moments.at(-1)?.after ?? null}
            levels={levels}
            at={recorder.at}
          />
          {record.mayChange && (
            <div className="flex flex-wrap items-center gap-2">
              {filming ? (
                <>
                  <Button look="wrong" onClick={recorder.stop}>
                    Stop filming
                  </Button>
                  <Button onClick={recorder.pause}>{state.paused ? 'Go on' : 'Pause'}</Button>
                  <Button onClick={() => slip('key')}>Mark a slip</Button>
                  <span className="text-sm text-steel">or clap twice</span>
                </>
              ) : (
                state.kind === 'open' && (
                  <>
                    <Button look="main" onClick={film}>
                      {straight ? 'Film straight through' : 'Film this segment'}
                    </Button>
                    <label className="flex items-center gap-1.5 text-sm">
                      <input
                        type="checkbox"
                        checked={straight}
                        onChange={(e) => setStraight(e.target.checked)}
                        className="size-4 accent-ink"
                      />
                      in one go from here
                    </label>
                    <Button onClick={() => setOpen('check')}>Camera check</Button>
                  </>
                )
              )}
              {!filming && (
                <Button look="quiet" onClick={() => setOpen('remote')}>
                  Phone as remote
                </Button>
              )}
              {me.camera && !filming && (
                <Button look="quiet" onClick={() => setOpen('stand-in')}>
                  Let the stand-in film it
                </Button>
              )}
              {told && (
                <span role="status" className="text-sm font-semibold">
                  {told}
                </span>
              )}
            </div>
          )}
          {watch && !filming && (
            <figure className="grid gap-1">
              <figcaption className="flex justify-between items-center text-sm">
                <b>What was just filmed</b>
                <Button small look="quiet" onClick={() => setWatch(null)}>
                  Close
                </Button>
              </figcaption>
              <video src={watch} controls autoPlay className="w-full rounded-xl bg-black max-h-64" />
            </figure>
          )}
          {record.mayChange && !filming && (
            <ClipDrop disabled={filming} onFiles={(files) => clips.add(files)} />
          )}
          <ClipList clips={clips.clips} onDismiss={clips.dismiss} />
          {kept.sending && (
            <p role="status" className="text-sm text-steel">
              Sending the end of the recording…
            </p>
          )}
          {kept.problem && <Notice kind="wrong">{kept.problem}</Notice>}
          {!filming &&
            kept.kept.map((k) => (
              <Notice
                key={k.id}
                kind="info"
                action={
                  <span className="flex gap-2">
                    <Button small look="act" onClick={() => void kept.sendAgain(k)}>
                      Keep it as a take
                    </Button>
                    <Button small onClick={() => kept.drop(k)}>
                      Throw it away
                    </Button>
                  </span>
                }
              >
                A recording of “{k.title}” from{' '}
                {new Date(k.startedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}{' '}
                was not wholly sent. It is kept on this device.
              </Notice>
            ))}
          <JobList
            jobs={jobs.filter((j) => j.kind === 'film' || j.kind === 'take')}
            name={(j) =>
              j.kind === 'film'
                ? `The stand-in films “${name(j.subject)}”`
                : typeof j.data.segmentId === 'string'
                  ? `A take of “${name(j.data.segmentId)}”`
                  : 'A clip'
            }
          />
          <Tabs.Root value={tab === 'tray' && !tray.length ? 'takes' : tab} onValueChange={setTab}>
            <Tabs.List aria-label="Takes" className="flex flex-wrap gap-1 border-b border-hair mb-3">
              {(
                [
                  ['takes', `This segment · ${mine.length}`],
                  ['sheet', 'All takes'],
                  ['again', `Film again · ${sheet.again.length}`],
                  ...(tray.length ? [['tray', `Tray · ${tray.length}`] as const] : []),
                ] as const
              ).map(([value, label]) => (
                <Tabs.Trigger
                  key={value}
                  value={value}
                  className="min-h-10 px-3 -mb-px border-b-3 border-transparent text-steel cursor-pointer data-[state=active]:border-ink data-[state=active]:text-ink data-[state=active]:font-semibold"
                >
                  {label}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            <Tabs.Content value="takes" className="grid grid-cols-[minmax(0,1fr)] gap-3">
              {mine.length === 0 && (
                <Empty>
                  No take of “{segment.title}” yet. Film it here, bring clips from a phone
                  {me.camera ? ', or let the stand-in film it' : ''}.
                </Empty>
              )}
              {[...mine].reverse().map((t, i) => (
                <TakeCard
                  key={t.id}
                  take={t}
                  row={rows.find((r) => r.id === t.id) ?? null}
                  segment={segment}
                  open={i === 0 || rows.find((r) => r.id === t.id)?.best === true}
                  mayChange={record.mayChange}
                  revision={record.revision}
                  onChanged={refresh}
                  onCarry={carry}
                  pendingRolls={pendingRolls}
                />
              ))}
            </Tabs.Content>
            <Tabs.Content value="sheet" className="overflow-x-auto">
              <TakeSheet segments={children} sheet={sheet} onGo={goTo} />
            </Tabs.Content>
            <Tabs.Content value="again">
              <FilmAgain segments={children} again={sheet.again} onGo={goTo} />
            </Tabs.Content>
            {tray.length > 0 && (
              <Tabs.Content value="tray">
                <Tray takes={tray} segments={segments} mayChange={record.mayChange} onChanged={refresh} />
              </Tabs.Content>
            )}
          </Tabs.Root>
          {open === 'stand-in' && (
            <StandInDialog
              lessonId={record.id}
              segment={segment}
              onClose={() => setOpen(null)}
              onAsked={refresh}
            />
          )}
          {open === 'check' && stream && (
            <CameraCheck
              stream={stream}
              moments={moments}
              firstLine={firstLine}
              lessonId={record.id}
              onClose={() => setOpen(null)}
            />
          )}
          {open === 'remote' && <RemoteDialog lessonId={record.id} onClose={() => setOpen(null)} />}
        </div>
      }
    />
  )
}

function SegmentRow({
  segment,
  on,
  takes,
  again,
  onGo,
}: {
  segment: Segment
  on: boolean
  takes: readonly TakeRecord[]
  again: boolean
  onGo: () => void
}) {
  const ready = takes.filter((t) => t.status === 'ready')
  return (
    <button
      type="button"
      aria-current={on || undefined}
      onClick={onGo}
      className={`flex items-center gap-2 w-full text-left rounded-xl border px-3 min-h-11 cursor-pointer ${on ? 'border-saffron border-2 bg-here' : 'border-hair bg-card hover:bg-wash'}`}
    >
      <span className="font-semibold truncate">{segment.title}</span>
      {segment.audience === 'adults' && (
        <span className="text-sm text-blue whitespace-nowrap">for adults</span>
      )}
      <span className="flex-1" />
      {again && <span className="text-sm text-brick whitespace-nowrap">film again</span>}
      <span
        className={`text-sm whitespace-nowrap ${ready.length ? 'text-moss font-semibold' : 'text-steel'}`}
      >
        {ready.length
          ? `${ready.length} ${ready.length === 1 ? 'take' : 'takes'}`
          : takes.length
            ? 'being prepared'
            : 'not filmed'}
      </span>
    </button>
  )
}
