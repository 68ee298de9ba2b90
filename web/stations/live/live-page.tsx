import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import * as api from '@awlbox/core/contracts/api/live'
import type { LiveEntry } from '@awlbox/core/contracts/api/live'
import { laterOf, type LiveLine, runOf, saidOf } from '@awlbox/core/live/run'
import { clockTime } from '@awlbox/core/words'
import { ask, fileAt, wordsOf } from '../../api.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { Split } from '../../frame/split.tsx'
import { kindWords } from '../../frame/task-kinds.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { DateField } from '../../kit/date-field.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'

/** The lesson as a run-of-show, when it is given, and what was given before. */
export default function LivePage() {
  const { doc, me, goTo, at } = useLesson()
  /** What is chosen here goes with the next live lesson that is made. */
  const [chosen, setChosen] = useState<{ later: string[]; said: string[] } | null>(null)
  const later = useMemo(() => chosen?.later ?? laterOf(doc), [chosen, doc])
  const said = useMemo(() => chosen?.said ?? saidOf(doc), [chosen, doc])
  const run = useMemo(
    () => runOf(doc, me.houseStyle, me.pace, { thrown: [], later, said }),
    [doc, me.houseStyle, me.pace, later, said],
  )
  const toggled = (list: readonly string[], id: string): string[] =>
    list.includes(id) ? list.filter((x) => x !== id) : [...list, id]
  const toggle = (l: LiveLine) =>
    setChosen(
      l.step.task ? { later: toggled(later, l.step.id), said } : { later, said: toggled(said, l.step.id) },
    )
  const rounds = run.lines.filter((l) => l.kind === 'round')
  const kept = later.length + run.athome.length
  return (
    <Split
      left={
        <div className="flex-1 overflow-auto p-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
          {!run.lines.length && (
            <Empty>Its script has no lines for children yet. Write some in Script first.</Empty>
          )}
          {run.segments.map((s, i) => {
            const own = run.lines.slice(s.from, s.to)
            const starts = run.segments.slice(0, i).reduce((sum, x) => sum + x.seconds, 0)
            return (
              <Card
                key={s.id}
                as="section"
                className={`px-3 py-2 ${s.id === at ? '!border-saffron !border-2 bg-here' : ''}`}
              >
                <button
                  type="button"
                  className="w-full flex gap-3 items-baseline text-left cursor-pointer min-h-8"
                  onClick={() => goTo(s.id)}
                >
                  <span className="figures text-sm text-steel w-10">{clockTime(starts)}</span>
                  <b className="flex-1 min-w-0 truncate">{s.title || 'Untitled'}</b>
                  <span className="figures text-sm">{clockTime(s.seconds)}</span>
                </button>
                <ul className="ml-13">
                  {own
                    .filter((l) => l.kind === 'round' || l.kind === 'wait')
                    .map((l) => (
                      <li key={l.step.id} className="text-sm flex gap-2">
                        <span
                          className={`w-14 shrink-0 font-semibold ${l.kind === 'round' ? 'text-blue' : 'text-steel'}`}
                        >
                          {l.kind === 'round' ? 'Round' : 'Silence'}
                        </span>
                        <span className="min-w-0 flex-1 truncate">{l.words}</span>
                        <span className="text-steel whitespace-nowrap">
                          {l.kind === 'round' ? (l.task ? kindWords[l.task.kind] : 'ready when done') : ''}
                        </span>
                        {mayBeRound(l) && (
                          <button
                            type="button"
                            onClick={() => toggle(l)}
                            className="underline text-steel hover:text-ink cursor-pointer whitespace-nowrap min-h-7"
                          >
                            {l.kind === 'round'
                              ? l.step.task
                                ? 'keep for home'
                                : 'only say it'
                              : 'ask it live'}
                          </button>
                        )}
                      </li>
                    ))}
                </ul>
              </Card>
            )
          })}
        </div>
      }
      right={
        <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-4 content-start">
          <p>
            Stops and questions become <b>{rounds.length}</b> {rounds.length === 1 ? 'round' : 'rounds'} that
            homes answer on their own device, waits become silence.{' '}
            {kept > 0 && `${kept} ${kept === 1 ? 'task stays' : 'tasks stay'} for home. `}
            It runs about <b>{clockTime(run.seconds)}</b>. The call itself is whatever your setting uses.
          </p>
          <Lives seconds={run.seconds} empty={!run.lines.length} later={later} said={said} />
        </div>
      }
    />
  )
}

/** Whether a line may be asked on devices or not. */
const mayBeRound = (l: LiveLine): boolean => l.step.task !== undefined || l.offered

/** The next full quarter of an hour from tomorrow's morning on: a time to change, not to guess. */
function tomorrow(): { day: string; time: string } {
  const d = new Date()
  d.setDate(d.getDate() + 1)
  return { day: d.toLocaleDateString('sv'), time: '09:30' }
}
function Lives({
  seconds,
  empty,
  later,
  said,
}: {
  seconds: number
  empty: boolean
  later: string[]
  said: string[]
}) {
  const { record } = useLesson()
  const { data, error, mutate } = useAsked(api.livesOfLesson, { lessonId: record.id })
  const go = useNavigate()
  const [when, setWhen] = useState(tomorrow)
  const [minutes, setMinutes] = useState(Math.max(10, Math.ceil(seconds / 300) * 5))
  const [problem, setProblem] = useState<string | null>(null)
  const make = (startsAt: Date, rehearsal: boolean) =>
    ask(
      api.makeLive,
      { lessonId: record.id },
      { startsAt: startsAt.toISOString(), minutes, rehearsal, later, said },
    )
  const failed = (e: unknown) => setProblem(wordsOf(e))
  if (error && !data) return <Notice kind="wrong">{wordsOf(error)}</Notice>
  if (!data) return <p className="text-steel">…</p>
  const at = new Date(`${when.day}T${when.time}`)
  const good = !Number.isNaN(+at)
  return (
    <>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {data.homes === 0 && (
        <Notice kind="info">
          No homes are in this class yet. You can rehearse alone; add homes to teach them live.
        </Notice>
      )}
      {data.without.length > 0 && (
        <Notice
          kind="info"
          action={
            <Link to="/homes" className="underline">
              Homes
            </Link>
          }
        >
          {data.without.join(', ')}: the link was ended, so they cannot come in.
        </Notice>
      )}
      {record.mayChange && (
        <Card as="section" className="p-4 grid gap-3">
          <h2 className="font-bold">Give it live</h2>
          <div className="flex flex-wrap gap-3 items-end">
            <div className="grid gap-1">
              <span aria-hidden className="text-sm font-semibold">
                Day
              </span>
              <DateField
                label="Day"
                value={when.day}
                required
                onChange={(day) => setWhen((w) => ({ ...w, day }))}
                className="w-40"
              />
            </div>
            <label className="grid gap-1">
              <span className="text-sm font-semibold">Begins at</span>
              <input
                type="time"
                value={when.time}
                onChange={(e) => setWhen((w) => ({ ...w, time: e.target.value }))}
                className="min-h-10 rounded-lg border border-hair bg-card px-2.5 figures"
              />
            </label>
            <label className="grid gap-1">
              <span className="text-sm font-semibold">Minutes</span>
              <input
                type="number"
                min={5}
                max={120}
                value={minutes}
                onChange={(e) => setMinutes(Math.round(Number(e.target.value)))}
                className="w-20 min-h-10 rounded-lg border border-hair bg-card px-2.5 figures"
              />
            </label>
            <Button
              look="main"
              disabled={empty || !good || minutes < 5 || minutes > 120}
              onClick={() => {
                setProblem(null)
                make(at, false).then(() => mutate(), failed)
              }}
            >
              Set this time
            </Button>
          </div>
          <p className="text-sm text-steel">
            Each home comes by its usual link; it opens five minutes before.{' '}
            {minutes * 60 < seconds - 60 &&
              `By the script it takes ${Math.ceil(seconds / 60)} minutes: the desk will offer what to leave out. `}
            A long time before a screen tires small children: your setting’s own limits come first.
          </p>
          <div className="flex flex-wrap gap-2 border-t border-hair pt-3 items-center">
            <Button
              disabled={empty}
              onClick={() => {
                setProblem(null)
                make(new Date(), true).then(({ id }) => go(`/live/${id}`), failed)
              }}
            >
              Rehearse it now
            </Button>
            <span className="text-sm text-steel">
              Alone{data.standIns ? ', or with made-up homes' : ''}. Families do not see it.
            </span>
          </div>
        </Card>
      )}
      {data.items.length === 0 ? (
        <Empty>It has not been given live yet.</Empty>
      ) : (
        <ul className="grid gap-2">
          {data.items.map((l) => (
            <One key={l.id} live={l} onChanged={() => void mutate()} onProblem={setProblem} />
          ))}
        </ul>
      )}
    </>
  )
}
const whenWords = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    hour: '2-digit',
    minute: '2-digit',
  })

const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`
/** How a live lesson stands, in a few words. */
function stateWords(live: LiveEntry): string {
  const how = live.calledOff
    ? 'called off'
    : live.phase === 'over'
      ? `${plural(live.came, 'home')} came · ${plural(live.rounds, 'round')}`
      : live.phase === 'on'
        ? 'on now'
        : `${live.minutes} minutes · by ${live.by}`
  return live.rehearsal ? `rehearsal · ${how}` : how
}
/** Words for homes, to be sent by whatever way the setting writes to them. */
function Invitation({ live }: { live: LiveEntry }) {
  const [copied, setCopied] = useState(false)
  const words = `We meet live on ${whenWords(live.startsAt)}, for about ${live.minutes} minutes. Open your usual link on a second device: it opens there five minutes before. Join the call as usual.`
  return (
    <Button
      small
      look="quiet"
      title={words}
      onClick={() => {
        navigator.clipboard.writeText(words).then(
          () => setCopied(true),
          () => setCopied(false),
        )
      }}
    >
      {copied ? 'Copied' : 'Copy the invitation'}
    </Button>
  )
}
function One({
  live,
  onChanged,
  onProblem,
}: {
  live: LiveEntry
  onChanged: () => void
  onProblem: (words: string | null) => void
}) {
  const { record } = useLesson()
  const toCome = live.phase === 'waiting'
  const change = (body: Parameters<typeof ask<typeof api.changeLive>>[2]) => {
    onProblem(null)
    ask(api.changeLive, { liveId: live.id }, body).then(onChanged, (e: unknown) => onProblem(wordsOf(e)))
  }
  return (
    <Card as="li" className="p-3 flex flex-wrap items-center gap-x-3 gap-y-1">
      <div className="min-w-64 flex-1">
        <p className={`font-semibold ${live.calledOff ? 'line-through text-steel' : ''}`}>
          {whenWords(live.startsAt)}
        </p>
        <p className="text-sm text-steel">{stateWords(live)}</p>
      </div>
      {toCome && !live.rehearsal && !live.calledOff && (
        <a
          href={fileAt(api.liveCalendar, { liveId: live.id })}
          className="text-sm underline min-h-8 inline-flex items-center"
        >
          Calendar entry
        </a>
      )}
      {toCome && !live.rehearsal && !live.calledOff && <Invitation live={live} />}
      {toCome && !live.rehearsal && record.mayChange && (
        <>
          {!live.calledOff && (
            <Button small onClick={() => change({ renew: true })} title="Takes the script as it is now">
              Take the newest script
            </Button>
          )}
          <Button small look="quiet" onClick={() => change({ calledOff: !live.calledOff })}>
            {live.calledOff ? 'It takes place after all' : 'Call it off'}
          </Button>
        </>
      )}
      {!live.calledOff && (
        <Link
          to={`/live/${live.id}`}
          className="inline-flex items-center min-h-10 px-3.5 rounded-lg border border-moss text-moss bg-card font-semibold whitespace-nowrap"
        >
          {live.phase === 'over' ? 'What came of it' : 'To the desk'}
        </Link>
      )}
    </Card>
  )
}
