import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { standInsJoin } from '@awlbox/core/contracts/api/live'
import type { ShowWay } from '@awlbox/core/contracts/live'
import { timingOf } from '@awlbox/core/live/clock'
import { backAct, type NextAct, nextAct } from '@awlbox/core/live/next-act'
import { roundNow } from '@awlbox/core/live/state'
import { ask, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { Head, isTyping } from '../../frame/head.tsx'
import { timeOfDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Notice } from '../../kit/notice.tsx'
import { AfterView } from './after-view.tsx'
import { DeskRound } from './desk-round.tsx'
import { DeskStrip } from './desk-strip.tsx'
import { DeskTable } from './desk-table.tsx'
import { type Desk, type LiveView, useDesk, useLiveView, useServerTime } from './use-live.ts'

const keys = [
  ['Space', 'go on: the next line, ask, three-two-one'],
  ['←', 'a line back'],
  ['w', 'wait five seconds longer'],
  ['s', 'say it again'],
  ['m', 'note this moment'],
  ['u', 'take the round back'],
  ['o', 'open what homes see in its own window'],
] as const

/** A live lesson's desk: the run-of-show, the table as it is shared, the round. */
export default function DeskPage() {
  const { liveId = '' } = useParams()
  const { view, error } = useLiveView(liveId)
  if (error) return <Away error={error} />
  if (!view)
    return (
      <>
        <Head />
        <p className="p-8 text-steel">Opening the live lesson…</p>
      </>
    )
  return view.news.state.phase === 'over' ? (
    <Over liveId={liveId} view={view} />
  ) : (
    <OnAir liveId={liveId} view={view} />
  )
}

function Over({ liveId, view }: { liveId: string; view: LiveView }) {
  return (
    <>
      <Head where={view.record.className} title={<b className="text-lg">{view.record.title}, live</b>} />
      <AfterView liveId={liveId} record={view.record} />
    </>
  )
}
/** Keys that a button or the table has a use for itself. */
const ofButtons = new Set([' ', 'ArrowLeft'])
/** The desk's keys, while it leads and nobody types. */
function useDeskKeys(on: boolean, does: Record<string, () => unknown>): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const what = does[e.key]
      if (!on || !what || isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey) return
      // A button that has the keyboard does what it says.
      const onButton = e.target instanceof HTMLElement && e.target.closest('button, a, [role=application]')
      if (onButton && ofButtons.has(e.key)) return
      e.preventDefault()
      what()
    }
    // What was clicked gives the keyboard back: Space goes on, it does not press it again.
    const onClick = (e: MouseEvent) => {
      const clicked = e.detail > 0 && e.target instanceof Element ? e.target : null
      const box = clicked?.closest('label')?.control ?? clicked
      const control = clicked?.closest('button') ?? (box?.matches('[type=checkbox]') ? box : null)
      // A box is given the keyboard after the click on its words.
      if (control instanceof HTMLElement)
        setTimeout(() => control === document.activeElement && control.blur())
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('click', onClick)
    return () => {
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('click', onClick)
    }
  })
}
function OnAir({ liveId, view }: { liveId: string; view: LiveView }) {
  const { record, news, run, now } = view
  const { state } = news
  const desk = useDesk(liveId, view)
  const at = useServerTime(now)
  const [show, setShow] = useState<ShowWay>('card')
  const [noting, setNoting] = useState(false)
  const [ending, setEnding] = useState(false)
  const here = news.children.filter((c) => c.here)
  const homes = new Set(news.children.map((c) => c.householdId)).size
  const homesHere = new Set(here.map((c) => c.householdId)).size
  const timing = timingOf(record.doc, run, state, {
    at,
    startsAt: Date.parse(record.startsAt),
    room: record.minutes * 60,
  })
  const { base } = timing
  const next = nextAct(run, state, at, show)
  const round = roundNow(state)
  const back = backAct(run, state)
  const { act } = desk
  const openWindow = () =>
    void window.open(`/live/${liveId}/window`, `awlbox-shared-${liveId}`, 'popup,width=1280,height=720')
  useDeskKeys(desk.leads, {
    ' ': () => !desk.busy && next.act && next.from === null && act(next.act),
    ArrowLeft: () => !desk.busy && back && act(back),
    w: () => act({ do: 'longer', seconds: 5 }),
    s: () => act({ do: 'again' }),
    m: () => setNoting(true),
    u: () => round && act({ do: 'undo' }),
    o: openWindow,
  })
  return (
    <>
      <Head
        where={record.className}
        title={
          <span className="flex items-baseline gap-3 min-w-0">
            <b className="text-lg truncate">
              {record.title}, {record.rehearsal ? 'rehearsed' : 'live'}
            </b>
            <span className={`font-semibold whitespace-nowrap ${homesHere ? 'text-moss' : 'text-steel'}`}>
              {homesHere} of {homes} {homes === 1 ? 'home' : 'homes'} here
            </span>
          </span>
        }
        shortcuts={keys}
      >
        <span className="text-steel figures whitespace-nowrap max-md:hidden">
          {timeOfDay(at)} · ends {timeOfDay(base + timing.ends * 1000)}, planned{' '}
          {timeOfDay(base + timing.plannedEnd * 1000)}
        </span>
        <Button onClick={() => setEnding(true)} disabled={!desk.leads || state.phase !== 'on'}>
          End
        </Button>
      </Head>
      <Dialog open={ending} onClose={() => setEnding(false)} title="End the lesson for everybody?">
        <p className="mb-3">
          Homes are thanked and their pages close. What was given goes to be looked at
          {record.rehearsal ? '; of a rehearsal nothing is kept' : ', and what is late still counts'}.
        </p>
        <div className="flex gap-2">
          <Button look="main" onClick={() => act({ do: 'end' })}>
            End it
          </Button>
          <Button onClick={() => setEnding(false)}>Not yet</Button>
        </div>
      </Dialog>
      <Notices view={view} desk={desk} />
      <div className="grid grid-cols-[286px_minmax(0,1fr)_330px] max-lg:grid-cols-1 lg:h-[calc(100dvh-52px)]">
        <DeskStrip view={view} timing={timing} at={at} desk={desk} />
        <main className="min-w-0 p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start lg:overflow-auto border-x border-hair">
          <DeskTable view={view} desk={desk} at={at} onOpen={openWindow} onBack={back && (() => act(back))} />
          <Acts view={view} desk={desk} next={next} at={at} onNote={() => setNoting(true)} />
          {noting && (
            <NoteField
              onNote={(text) => {
                setNoting(false)
                if (text !== null) act({ do: 'note', text })
              }}
            />
          )}
        </main>
        <DeskRound view={view} desk={desk} at={at} show={show} onShow={setShow}>
          {record.rehearsal && record.standIns && <Rehearsing liveId={liveId} />}
        </DeskRound>
      </div>
    </>
  )
}

/** What is not as it should be, and what can be done. */
function Notices({ view, desk }: { view: LiveView; desk: Desk }) {
  const { record, on } = view
  if (on && desk.leads && !desk.problem && !record.calledOff) return null
  return (
    <div className="px-4 pt-3 grid gap-2">
      {record.calledOff && (
        <Notice kind="wrong">This live lesson was called off: homes cannot come in.</Notice>
      )}
      {!on && (
        <Notice kind="wrong">
          The line to Awlbox dropped. Homes keep what they had; this page comes back by itself.
        </Notice>
      )}
      {!desk.leads && (
        <Notice
          kind="info"
          action={
            record.mayLead && (
              <Button small onClick={() => desk.act({ do: 'lead' })}>
                Take over
              </Button>
            )
          }
        >
          {desk.leader ?? 'Nobody'} leads from another desk. You are watching.
        </Notice>
      )}
      {desk.problem && <Notice kind="wrong">{desk.problem}</Notice>}
    </div>
  )
}

/** The one large button, and the few things that are done in the middle of it. */
function Acts({
  view,
  desk,
  next,
  at,
  onNote,
}: {
  view: LiveView
  desk: Desk
  next: NextAct
  at: number
  onNote: () => void
}) {
  const free = desk.leads && view.news.state.phase === 'on'
  return (
    <div className="flex flex-wrap gap-2">
      <Button
        look="main"
        className="min-h-14 text-lg px-4 min-w-48 flex-1"
        disabled={!desk.leads || !next.act || next.from !== null}
        onClick={() => next.act && !desk.busy && desk.act(next.act)}
      >
        {next.words}
        {next.from !== null && (
          <span className="figures">{Math.max(1, Math.ceil((next.from - at) / 1000))}</span>
        )}
      </Button>
      <Button className="min-h-14" disabled={!free} onClick={() => desk.act({ do: 'longer', seconds: 5 })}>
        Wait longer
      </Button>
      <Button className="min-h-14" disabled={!free} onClick={() => desk.act({ do: 'again' })}>
        Say it again
      </Button>
      <Button className="min-h-14" disabled={!view.record.mayLead} onClick={onNote}>
        Note this moment
      </Button>
    </div>
  )
}

/** A moment, with a word or none: it is kept with its time. */
function NoteField({ onNote }: { onNote: (text: string | null) => void }) {
  const [text, setText] = useState('')
  return (
    <form
      className="flex gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        onNote(text)
      }}
    >
      <input
        // eslint-disable-next-line jsx-a11y-x/no-autofocus -- it was just asked for, in the middle of teaching
        autoFocus
        aria-label="What happened"
        placeholder="What happened? Enter keeps the moment, with words or without"
        maxLength={300}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && onNote(null)}
        className="flex-1 min-h-10 rounded-lg border border-hair bg-card px-3"
      />
      <Button type="submit">Keep it</Button>
    </form>
  )
}

/** In a rehearsal: the made-up street comes. */
function Rehearsing({ liveId }: { liveId: string }) {
  const [words, setWords] = useState<string | null>(null)
  return (
    <div className="grid gap-1.5 justify-items-start">
      <Button
        small
        onClick={() => {
          setWords('They are on their way…')
          ask(standInsJoin, { liveId }, { seed: 7 }).then(
            (r) => setWords(`${r.homes} made-up homes come. Some answer late, some drop, some stay away.`),
            (e: unknown) => setWords(wordsOf(e)),
          )
        }}
      >
        Let made-up homes come
      </Button>
      <span role="status" className="text-sm text-steel">
        {words ?? 'A rehearsal: homes do not see it, and nothing of it is kept of any child.'}
      </span>
      <Link to={`/live/${liveId}/window`} target="_blank" className="sr-only">
        What homes see
      </Link>
    </div>
  )
}
