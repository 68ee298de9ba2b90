import { type ReactNode, useState } from 'react'
import type { LiveChild, LiveTally } from '@awlbox/core/contracts/api/live'
import { livePhoto } from '@awlbox/core/contracts/api/live'
import { type LiveRound, type LiveState, type ShowWay, showWays } from '@awlbox/core/contracts/live'
import { roundNow } from '@awlbox/core/live/state'
import { fileAt } from '../../api.ts'
import { kindWords } from '../../frame/task-kinds.ts'
import { Button } from '../../kit/button.tsx'
import { Select } from '../../kit/select.tsx'
import { GamesPanel } from './games-panel.tsx'
import { type Desk, givesBack, type LiveView } from './use-live.ts'

const showWords: Record<ShowWay, string> = {
  card: 'a number card',
  fingers: 'fingers, to ten',
  dots: 'dots, to twenty',
  frame: 'a frame they fill, to twenty',
}
type Standing = 'sent' | 'late' | 'thinking' | 'silent' | 'away' | 'here'

/** How one child stands in the round, as its eyelet shows. Told by form and word, not by colour. */
function standingOf(
  child: LiveChild,
  tally: LiveTally | null,
  round: LiveRound | null,
  at: number,
): Standing {
  if (tally && round) {
    if (tally.late.includes(child.id)) return 'late'
    if (tally.sent.includes(child.id)) return 'sent'
    if (!child.here) return 'away'
    return at < round.opens ? 'thinking' : 'silent'
  }
  return child.here ? 'here' : 'away'
}
const standingWords: Record<Standing, string> = {
  sent: 'ready',
  late: 'late',
  thinking: 'thinking',
  silent: 'nothing yet',
  away: 'away',
  here: 'here',
}
function Eyelet({ name, standing }: { name: string; standing: Standing }) {
  const full = standing === 'sent' || standing === 'late'
  return (
    <li className="grid justify-items-center gap-0.5 min-w-0">
      <svg width="32" height="32" viewBox="-16 -16 32 32" aria-hidden>
        <circle
          r="13"
          fill={full ? 'var(--moss)' : 'var(--card)'}
          fillOpacity={full ? 0.5 : 1}
          stroke={standing === 'away' ? 'var(--hair)' : 'var(--ink)'}
          strokeWidth={standing === 'silent' || standing === 'thinking' || full ? 3 : 2}
          strokeDasharray={standing === 'silent' ? '3 4' : standing === 'late' ? '8 3' : ''}
        />
        {standing === 'thinking' && <circle r="3" fill="var(--ink)" />}
      </svg>
      <span className={`text-[12.5px] max-w-full truncate ${standing === 'away' ? 'text-steel' : ''}`}>
        {name}
        <span className="sr-only">, {standingWords[standing]}</span>
      </span>
    </li>
  )
}

/** The round: who is ready, who thinks, who is away; after "all at once" what came, by answer, and why. */
export function DeskRound({
  view,
  desk,
  at,
  show,
  onShow,
  children: more,
}: {
  view: LiveView
  desk: Desk
  at: number
  show: ShowWay
  onShow: (w: ShowWay) => void
  children?: ReactNode
}) {
  const { news, record } = view
  const { state, tally, last } = news
  const round = roundNow(state)
  const current = round && tally?.roundId === round.id ? tally : null
  // Between rounds, and while the next is thought about, the one that was shown last stays to be looked at.
  const shown = current?.shown ? current : round ? last : tally
  const shownRound = shown?.shown ? state.rounds.find((r) => r.id === shown.roundId) : undefined
  return (
    <section aria-label="The round" className="min-w-0 p-4 grid gap-3 content-start lg:overflow-auto bg-card">
      <RoundHead state={state} desk={desk} />
      <WhoIsHere view={view} tally={current} round={round} at={at} />
      {!round && <ShowWith view={view} show={show} onShow={onShow} />}
      {shown && shownRound?.spec && <ShownTally view={view} tally={shown} round={shownRound} />}
      {current?.before && !current.shown && <Before before={current.before} />}
      {!round && <AskNow desk={desk} show={show} on={state.phase === 'on'} />}
      <GamesPanel view={view} desk={desk} at={at} show={show} />
      <WindowChoices view={view} desk={desk} />
      {more}
      {record.newest !== record.revision && (
        <p className="text-sm text-steel">
          The script has changed since (revision {record.newest}). This lesson goes on with revision{' '}
          {record.revision}.
        </p>
      )}
    </section>
  )
}
function RoundHead({ state, desk }: { state: LiveState; desk: Desk }) {
  const round = roundNow(state)
  const n = state.rounds.filter((r) => !r.undone).length
  const what = !round
    ? ''
    : !round.spec
      ? 'ready when done'
      : round.spec.kind === 'number'
        ? showWords[round.show]
        : kindWords[round.spec.kind]
  return (
    <div className="flex items-baseline gap-2 flex-wrap">
      <h2 className="font-bold">{round ? `Round ${n}` : n ? `After round ${n}` : 'No round yet'}</h2>
      <span className="text-steel text-sm">{what}</span>
      <span className="flex-1" />
      {round && (
        <Button small look="quiet" disabled={!desk.leads} onClick={() => desk.act({ do: 'undo' })}>
          Take it back
        </Button>
      )}
    </div>
  )
}
function WhoIsHere({
  view,
  tally,
  round,
  at,
}: {
  view: LiveView
  tally: LiveTally | null
  round: LiveRound | null
  at: number
}) {
  const { children } = view.news
  const standings = children.map((c) => ({ c, s: standingOf(c, tally, round, at) }))
  const count = (s: Standing): number => standings.filter((x) => x.s === s).length
  if (!children.length)
    return (
      <p className="text-steel">No children are in this class yet. You can rehearse alone all the same.</p>
    )
  const named = round
    ? (['sent', 'thinking', 'silent', 'late', 'away'] as const)
    : (['here', 'away'] as const)
  return (
    <>
      <ul className={`grid gap-2 ${children.length > 24 ? 'grid-cols-6' : 'grid-cols-4'}`}>
        {standings.map(({ c, s }) => (
          <Eyelet key={c.id} name={c.name} standing={s} />
        ))}
      </ul>
      <p className="text-sm text-steel" role="status">
        {named
          .filter((s) => count(s))
          .map((s) => `${standingWords[s]} ${count(s)}`)
          .join(' · ')}
      </p>
    </>
  )
}
/** How homes show a number, where the next question asks for one. */
function ShowWith({ view, show, onShow }: { view: LiveView; show: ShowWay; onShow: (w: ShowWay) => void }) {
  const { state } = view.news
  const line = view.run.lines[state.line]
  if (!state.game && !(line?.kind === 'round' && line.task?.kind === 'number')) return null
  return (
    <div className="flex items-center gap-2">
      <span className="text-sm">They show it with</span>
      <Select
        look="small"
        label="They show it with"
        value={show}
        choices={showWays.map((value) => ({ value, words: showWords[value] }))}
        onChange={onShow}
        onClosed={givesBack}
      />
    </div>
  )
}
const windowWords = [
  ['words', 'the words being said'],
  ['tally', 'how many gave which answer, without names'],
  ['names', 'first names of who is ready'],
] as const
function WindowChoices({ view, desk }: { view: LiveView; desk: Desk }) {
  const { state, children } = view.news
  return (
    <fieldset className="border-t border-hair pt-3 grid gap-1.5">
      <legend className="sr-only">The shared window shows</legend>
      <p className="text-sm font-semibold">The shared window shows</p>
      {windowWords.map(([what, words]) => (
        <label key={what} className="flex items-start gap-2 text-sm">
          <input
            type="checkbox"
            className="mt-0.5 size-4"
            checked={state.window[what]}
            disabled={!desk.leads}
            onChange={(e) => desk.act({ do: 'window', [what]: e.target.checked })}
          />
          <span>
            {words}
            {what === 'names' && (
              <span className="block text-steel">
                only of {children.filter((c) => c.named).length} whose home agreed; follow your setting’s
                safeguarding lead
              </span>
            )}
          </span>
        </label>
      ))}
    </fieldset>
  )
}

function Before({ before }: { before: NonNullable<LiveTally['before']> }) {
  const day = new Date(before.at).toLocaleDateString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
  })
  return (
    <p className="text-sm text-steel">
      Before ({day}){before.same ? '' : ', something like it'}: {before.right} of {before.of} right.
    </p>
  )
}

/** Bars by answer; each wrong one with what it may come from. */
function ShownTally({ view, tally, round }: { view: LiveView; tally: LiveTally; round: LiveRound }) {
  const [open, setOpen] = useState<string | null>(null)
  const { news, record } = view
  const names = (ids: readonly string[]): string =>
    news.children
      .filter((c) => ids.includes(c.id))
      .map((c) => c.name)
      .join(', ')
  // Who is away is not silent.
  const silent = tally.silent.filter((id) => news.children.some((c) => c.id === id && c.here))
  const most = Math.max(1, ...tally.rows.map((r) => r.children.length))
  return (
    <div className="border-t border-hair pt-3 grid gap-2">
      <h3 className="font-bold text-sm">
        {roundNow(news.state)?.id === round.id ? 'All at once' : 'The round before'}: {round.prompt}
      </h3>
      {!tally.rows.length && <p className="text-steel text-sm">Nothing came.</p>}
      {tally.rows.map((r) => (
        <div key={`${r.verdict} ${r.shown}`}>
          <button
            type="button"
            aria-expanded={open === r.shown}
            onClick={() => setOpen(open === r.shown ? null : r.shown)}
            className="w-full grid grid-cols-[auto_minmax(0,1fr)] gap-x-2 items-center text-left cursor-pointer rounded hover:bg-wash"
          >
            <span className={`font-child min-w-8 ${r.shown.length > 4 ? 'text-sm' : 'text-xl'}`}>
              {r.shown}
            </span>
            <span className="flex items-center gap-2 min-w-0">
              <span
                aria-hidden
                className="h-5 rounded"
                style={{
                  width: `${(r.children.length / most) * 55}%`,
                  background:
                    r.verdict === 'right'
                      ? 'color-mix(in srgb, var(--moss) 50%, transparent)'
                      : 'var(--hair)',
                }}
              />
              <b className="figures">{r.children.length}</b>
              <span className={`text-sm ${r.verdict === 'right' ? 'text-moss font-semibold' : 'text-steel'}`}>
                {r.verdict === 'right' ? 'right' : r.verdict === 'wrong' || !round.spec ? '' : 'for your eye'}
              </span>
            </span>
          </button>
          {r.perhaps && <p className="text-sm text-steel ml-10">perhaps {r.perhaps}</p>}
          {open === r.shown && <p className="text-sm ml-10">{names(r.children)}</p>}
        </div>
      ))}
      {tally.photos.length > 0 && (
        <ul className="flex flex-wrap gap-1.5">
          {tally.photos.map((p) => (
            <li key={p.photoId}>
              <img
                src={fileAt(livePhoto, { liveId: record.id, photoId: p.photoId })}
                alt={`What ${names([p.childId])} made`}
                className="h-16 rounded border border-hair"
              />
            </li>
          ))}
        </ul>
      )}
      {silent.length > 0 && (
        <p className="text-sm text-steel">
          Nothing yet from {names(silent)}. Silence says nothing of what they can.
        </p>
      )}
      {tally.late.length > 0 && <p className="text-sm text-steel">Late, and counted: {names(tally.late)}.</p>}
      {tally.before && <Before before={tally.before} />}
    </div>
  )
}

/** A question that stands in no script. */
function AskNow({ desk, show, on }: { desk: Desk; show: ShowWay; on: boolean }) {
  const [open, setOpen] = useState(false)
  const [prompt, setPrompt] = useState('')
  const [answer, setAnswer] = useState('')
  if (!open)
    return (
      <Button
        small
        disabled={!desk.leads || !on}
        onClick={() => setOpen(true)}
        className="justify-self-start"
      >
        Ask something else
      </Button>
    )
  const n = answer.trim() === '' ? null : Number(answer)
  const good = prompt.trim() !== '' && (n === null || (Number.isInteger(n) && n >= 0 && n <= 1000))
  return (
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        if (!good) return
        desk.act({ do: 'ask', prompt: prompt.trim(), answer: n, show, think: 3 })
        setOpen(false)
        setPrompt('')
        setAnswer('')
      }}
    >
      <input
        // eslint-disable-next-line jsx-a11y-x/no-autofocus -- just opened, in the middle of teaching
        autoFocus
        aria-label="What is asked"
        placeholder="Show me one more than six."
        value={prompt}
        maxLength={300}
        onChange={(e) => setPrompt(e.target.value)}
        className="min-h-10 rounded-lg border border-hair bg-card px-2.5"
      />
      <span className="flex gap-2 items-center">
        <input
          aria-label="Its answer, a number"
          inputMode="numeric"
          placeholder="answer"
          value={answer}
          onChange={(e) => setAnswer(e.target.value)}
          className="w-24 min-h-10 rounded-lg border border-hair bg-card px-2.5"
        />
        <Button type="submit" disabled={!good}>
          Ask it
        </Button>
        <Button look="quiet" onClick={() => setOpen(false)}>
          Not now
        </Button>
      </span>
      <span className="text-sm text-steel">With no answer it is not checked: only you look.</span>
    </form>
  )
}
