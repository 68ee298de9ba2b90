import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import { useAsked } from './use-asked.ts'
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { Outlet, useLocation, useParams, useSearchParams } from 'react-router'
import { proofread } from '@awlbox/core/script/proof/proof'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../kit/button.tsx'
import { Dialog } from '../kit/dialog.tsx'
import { TitleInput } from '../kit/title-input.tsx'
import { useLessonDocument } from './document.ts'
import { useEvents } from './events.ts'
import { Away } from './away.tsx'
import { Head, isTyping } from './head.tsx'
import { FilesMenu } from './files-menu.tsx'
import { HistoryDialog } from './history.tsx'
import { type LessonContext, LessonProvider, useLesson } from './lesson-context.ts'
import { useMe } from './me.ts'
import { Thread } from './thread.tsx'
import type { LessonRecord } from '@awlbox/core/contracts/api/lessons'
import type { Me } from '@awlbox/core/contracts/api/people'
import { type Place, stations } from '@awlbox/core/contracts/api/lessons'

export function LessonFrame() {
  const { lessonId = '' } = useParams()
  const { data, error } = useAsked(lessonsApi.readLesson, { lessonId })
  const me = useMe()
  useEvents()
  if (error && !data) return <Away error={error} />
  if (!data || !me)
    return (
      <>
        <Head />
        <p className="p-8 text-steel">Opening the lesson…</p>
      </>
    )
  return <Opened key={data.id} record={data} me={me} />
}

function Opened({ record, me }: { record: LessonRecord; me: Me }) {
  const document_ = useLessonDocument(record)
  const { doc, undo, redo } = document_
  const proofed = useMemo(() => proofread(doc, me.houseStyle, me.pace), [doc, me.houseStyle, me.pace])
  const location = useLocation()
  const station = (location.pathname.split('/')[3] ?? 'script') as Place
  const [search, setSearch] = useSearchParams()
  const search_ = useRef(setSearch)
  useEffect(() => {
    search_.current = setSearch
  }, [setSearch])
  const goTo = useCallback((segmentId: string) => search_.current({ at: segmentId }, { replace: true }), [])
  const at = search.get('at') ?? doc.segments[0]?.id ?? null
  useEffect(() => {
    document.title = `${doc.title} · ${station[0]!.toUpperCase()}${station.slice(1)} · Awlbox`
  }, [doc.title, station])
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || (e.key.toLowerCase() !== 'z' && e.key.toLowerCase() !== 'y')) return
      // Inside a line the browser's own undo works on the letters.
      if (isTyping(e.target)) return
      e.preventDefault()
      if (e.key.toLowerCase() === 'y' || e.shiftKey) redo()
      else undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [undo, redo])
  const value: LessonContext = { ...document_, me, record, proofed, at, goTo }
  const n = proofed.findings.length
  const examples = doc.examples.length
  const thread = useMemo(
    () => ({
      facts: factsOf(record.facts, examples, n),
      live: liveOf(record.facts),
      sewn: { ...record.sewn, script: doc.segments.length ? (n ? 0.5 : 1) : 0 } as const,
    }),
    [record.facts, record.sewn, examples, n, doc.segments.length],
  )
  if (station !== 'live' && !stations.includes(station))
    return <Away error={new Error('There is no such station.')} />
  return (
    <LessonProvider value={value}>
      <Head where={record.className} title={<TitleField />} shortcuts={keysOf[station]}>
        <SaveMark />
        <Button onClick={undo} disabled={!document_.canUndo || !record.mayChange} title="Ctrl Z">
          Undo
        </Button>
        <Button
          onClick={redo}
          disabled={!document_.canRedo || !record.mayChange}
          title="Ctrl Shift Z"
          className="max-lg:hidden"
        >
          Redo
        </Button>
        <HistoryButton />
        <FilesMenu />
      </Head>
      <Thread
        lessonId={record.id}
        current={station}
        sewn={thread.sewn}
        facts={thread.facts}
        live={thread.live}
        at={at}
      />
      <Outlet />
      <ConflictDialog />
    </LessonProvider>
  )
}

/** When it is given live, or how often it was. */
function liveOf(f: LessonRecord['facts']): { text: string; sewn: 0 | 0.5 | 1 } {
  if (f.liveAt)
    return {
      text: new Date(f.liveAt).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric' }),
      sewn: f.liveGiven ? 1 : 0.5,
    }
  return f.liveGiven
    ? { text: f.liveGiven === 1 ? 'given' : `given ${f.liveGiven} times`, sewn: 1 }
    : { text: '', sewn: 0 }
}

/** What stands beside each hole of the thread. */
function factsOf(f: LessonRecord['facts'], examples: number, findings: number) {
  return {
    plan: { text: examples ? `${examples} examples` : 'no examples' },
    script: {
      text: findings ? `${findings} ${findings === 1 ? 'finding' : 'findings'}` : 'clean',
      wrong: findings > 0,
    },
    film: { text: `${f.filmed} of ${f.segments}` },
    cut: {
      text: f.lastFilmSeconds
        ? clockTime(f.lastFilmSeconds)
        : f.proposedDrops
          ? `${f.proposedDrops} ${f.proposedDrops === 1 ? 'drop' : 'drops'}`
          : '',
    },
    send: {
      text: f.sentAt ? `sent ${new Date(f.sentAt).toLocaleDateString('en-GB', { weekday: 'short' })}` : '',
    },
    look: { text: f.replies ? `${f.looked} of ${f.replies}` : '' },
    next: { text: '' },
  }
}

const keysOf: Record<Place, readonly (readonly [string, string])[]> = {
  plan: [['Ctrl Z', 'undo']],
  script: [
    ['Enter', 'next line, of the kind that makes sense'],
    ['Alt ↑ ↓', 'move the line'],
    ['Alt K', 'choose the kind of the line'],
    ['Alt T', 'what comes back from homes'],
    ['Alt Enter', 'take the kind that is offered beside it'],
    ['Backspace', 'in an empty line, take it out'],
    ['w', 'add a wait after this line'],
    ['p', 'add a pause after this line'],
    ['+ −', 'on the table: put one, take one'],
    ['t x', 'on the table: turn over, cross out'],
    ['Ctrl Z', 'undo'],
  ],
  film: [
    ['f', 'film, and stop filming'],
    ['↑ ↓', 'segment before, after'],
  ],
  cut: [
    ['Space', 'play, stop'],
    ['← →', 'span before, after'],
    ['Alt ← →', 'move it earlier, later'],
    ['d', 'drop what is chosen'],
    ['b', 'bring it back'],
    ['a k', 'accept, keep as filmed'],
    ['s', 'split at the picture'],
    ['w', 'wait after it'],
    ['p', 'pause card after it'],
    ['Ctrl Z, Ctrl Shift Z', 'undo and redo in the cut'],
  ],
  send: [],
  live: [],
  look: [
    ['1 2 3 4', 'Secure, Nearly, Not yet, Can’t tell'],
    ['a n t', 'alone, nudged, together'],
    ['7 8 9 0', 'things, picture, track, head'],
    ['Backspace', 'take the last choice back'],
    ['← →', 'reply before, after'],
  ],
  next: [],
}

function TitleField() {
  const { doc, edit, record } = useLesson()
  return (
    <TitleInput
      label="Title of the lesson"
      value={doc.title}
      disabled={!record.mayChange}
      onDone={(title) => edit((d) => ({ ...d, title }))}
      className="w-full bg-transparent font-bold text-lg rounded-md px-1 -mx-1 truncate hover:bg-wash focus:bg-wash"
    />
  )
}

/** On a phone the words wrap: a line of them would push the page wider than it is. */
const oneLine = 'whitespace-nowrap max-sm:whitespace-normal max-sm:text-sm max-sm:leading-tight'
function SaveMark(): ReactNode {
  const { state, record } = useLesson()
  if (!record.mayChange) return <span className={`text-steel ${oneLine}`}>You can look, not change</span>
  switch (state.kind) {
    case 'saved':
      return (
        <span className={`text-steel figures ${oneLine}`} role="status">
          Saved · revision {state.revision}
        </span>
      )
    case 'saving':
      return (
        <span className={`text-steel ${oneLine}`} role="status">
          Saving…
        </span>
      )
    case 'kept':
      return (
        <span className={`text-brick font-semibold ${oneLine}`} role="status" title={state.why}>
          Kept here; saved when the server is back
        </span>
      )
    case 'conflict':
      return (
        <span className={`text-brick font-semibold ${oneLine}`} role="status">
          Changed elsewhere
        </span>
      )
    case 'refused':
      return (
        <span className="text-brick font-semibold truncate" role="alert" title={state.why}>
          Not saved: {state.why}
        </span>
      )
  }
}

function ConflictDialog() {
  const { state, resolve } = useLesson()
  const [picked, setPicked] = useState<Record<string, 'mine' | 'theirs'>>({})
  if (state.kind !== 'conflict') return null
  const text = (doc: Lesson, id: string) =>
    doc.segments
      .find((s) => s.id === id)
      ?.steps.map((x) => `${x.verb}: ${x.text}`)
      .join('\n') ?? '(taken out)'
  const done = () =>
    resolve({
      ...state.mine,
      segments: state.mine.segments.flatMap((s) => {
        if (picked[s.id] !== 'theirs') return [s]
        const theirs = state.theirs.segments.find((t) => t.id === s.id)
        return theirs ? [theirs] : []
      }),
    })
  return (
    <Dialog open onClose={done} title="Two windows changed the same segment" wide>
      <p className="text-steel mb-3">
        Everything else was merged. Choose for each; where you take theirs, undo brings yours back.
      </p>
      {state.conflicts.map((s) => (
        <div key={s.segmentId} className="mb-4">
          <h3 className="font-semibold mb-1">{s.title}</h3>
          <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
            {(['mine', 'theirs'] as const).map((side) => (
              <button
                key={side}
                type="button"
                aria-pressed={(picked[s.segmentId] ?? 'mine') === side}
                onClick={() => setPicked((p) => ({ ...p, [s.segmentId]: side }))}
                className={`text-left rounded-lg border p-3 cursor-pointer ${(picked[s.segmentId] ?? 'mine') === side ? 'border-ink border-2' : 'border-hair'}`}
              >
                <b>{side === 'mine' ? 'This window' : 'The other'}</b>
                <pre className="whitespace-pre-wrap font-sans text-sm mt-1 max-h-48 overflow-auto">
                  {text(side === 'mine' ? state.mine : state.theirs, s.segmentId)}
                </pre>
              </button>
            ))}
          </div>
        </div>
      ))}
      <Button look="main" onClick={done}>
        Keep these
      </Button>
    </Dialog>
  )
}
function HistoryButton() {
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button onClick={() => setOpen(true)} className="max-md:hidden">
        History
      </Button>
      {open && <HistoryDialog onClose={() => setOpen(false)} />}
    </>
  )
}
