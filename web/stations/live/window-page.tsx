import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import type { LiveRound } from '@awlbox/core/contracts/live'
import { roundNow } from '@awlbox/core/live/state'
import { momentOf, type RoundMoment, thoughtOf } from '@awlbox/core/live/round'
import { silenceNow } from '@awlbox/core/live/run'
import { wordsOf } from '../../api.ts'
import { noted } from '../../noted.ts'
import { TableDrawing } from '../../table/drawing.tsx'
import { type LiveView, useLiveView, useServerTime } from './use-live.ts'

/** What the teacher shares in the call: the table and nothing of the desk. Letterboxed in any window; f fills the screen. */
export default function WindowPage() {
  const { liveId = '' } = useParams()
  const { view, error } = useLiveView(liveId)
  const [lettered, setLettered] = useState(false)
  useEffect(() => {
    // What children read is in its own letters from the first moment: a window that is shared is not seen to change them.
    const lettersAt = Promise.all([
      document.fonts.load('40px Andika', '1?'),
      document.fonts.load('700 40px Andika', '1?'),
    ])
    lettersAt.then(
      () => setLettered(true),
      () => setLettered(true),
    )
  }, [])
  useEffect(() => {
    document.title = 'Awlbox'
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== 'f') return
      if (document.fullscreenElement) void document.exitFullscreen()
      else void document.documentElement.requestFullscreen().catch(noted('the screen was not filled'))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  if (!view || !lettered)
    return (
      <main className="h-dvh grid place-items-center bg-white text-[#14232b]">
        <p className="text-lg">{error ? wordsOf(error) : '…'}</p>
      </main>
    )
  return <Shared view={view} />
}

/** How far the round is, or the line where none is asked. */
type Moment = 'before' | 'over' | 'line' | 'silence' | RoundMoment
interface Now {
  moment: Moment
  /** Share of the thinking or the silence that is gone. */
  share: number
  round: LiveRound | null
}
function nowIn({ news, run, record }: LiveView, at: number): Now {
  const { state } = news
  if (state.phase !== 'on')
    return { moment: state.phase === 'waiting' ? 'before' : 'over', share: 0, round: null }
  const round = roundNow(state)
  if (round) return { moment: momentOf(round, at), share: thoughtOf(round, at), round }
  const silence = silenceNow(run, state, record.style)
  return silence && at < silence.until
    ? { moment: 'silence', share: (at - silence.from) / (silence.until - silence.from), round: null }
    : { moment: 'line', share: 1, round: null }
}

function Shared({ view }: { view: LiveView }) {
  const { news, table, record, now } = view
  const at = useServerTime(now, 100)
  const m = nowIn(view, at)
  const on = news.state.phase === 'on'
  return (
    <main
      aria-label="What homes see"
      className="h-dvh w-dvw overflow-hidden bg-white text-[#14232b] grid grid-rows-[minmax(0,1fr)_auto] p-[2vmin] gap-[1.5vmin]"
    >
      <div className="min-h-0 grid place-items-center relative">
        {!on && (
          <p className="font-child font-bold text-[7vmin] text-center">
            {m.moment === 'before' ? record.title : 'Goodbye'}
          </p>
        )}
        {on && (
          <div className="absolute inset-0">
            <TableDrawing table={table} fill={record.style.frameFill} moving className="h-full" />
          </div>
        )}
        {m.moment === 'counting' && (
          <div className="absolute inset-0 grid place-items-center bg-white/85">
            <span className="font-child font-bold text-[60vmin] leading-none" role="status">
              {Math.max(1, Math.ceil((m.round!.shows! - at) / 1000))}
            </span>
          </div>
        )}
      </div>
      <div className="min-h-[14vmin] grid grid-cols-[minmax(0,1fr)_auto] gap-[3vmin] items-center">
        <div className="min-w-0">
          <Words view={view} m={m} />
        </div>
        <div className="text-right">
          {(m.moment === 'thinking' || m.moment === 'silence') && <Ring share={m.share} />}
          {m.moment === 'open' && (
            <p className="text-[3.4vmin] whitespace-nowrap">
              {news.tally?.roundId === m.round!.id ? news.tally.sent.length : 0} of{' '}
              {news.children.filter((c) => c.here).length} ready
            </p>
          )}
        </div>
      </div>
    </main>
  )
}
/** Under the table: the question, what is said where that is wanted, and once all have shown the sentence and how many gave what. */
function Words({ view, m }: { view: LiveView; m: Now }) {
  const { news, run } = view
  const { state } = news
  const tally = m.round && news.tally?.roundId === m.round.id ? news.tally : null
  if (m.moment === 'shown')
    return (
      <>
        {state.sentence && <p className="font-child text-[9vmin] leading-tight">{state.sentence}</p>}
        {state.window.tally && tally && (
          <ul className="flex flex-wrap gap-x-[4vmin] font-child text-[5.2vmin]">
            {tally.rows.map((r) => (
              <li key={`${r.verdict} ${r.shown}`}>
                <b>{r.shown}</b> <span className="text-[3.6vmin]">× {r.children.length}</span>
              </li>
            ))}
          </ul>
        )}
      </>
    )
  const line = run.lines[state.line]
  const said =
    state.window.words && line?.kind === 'say' && m.moment === 'line' && !state.game ? line.words : ''
  const words = m.round?.prompt ?? said
  const named =
    tally && state.window.names ? news.children.filter((c) => c.named && tally.sent.includes(c.id)) : []
  return (
    <>
      {words && <p className="font-child text-[5.2vmin] leading-tight">{words}</p>}
      {named.length > 0 && <p className="text-[2.6vmin]">Ready: {named.map((c) => c.name).join(', ')}</p>}
    </>
  )
}
function Ring({ share }: { share: number }) {
  const round = 2 * Math.PI * 40
  return (
    <svg viewBox="-50 -50 100 100" className="w-[13vmin] -rotate-90" role="img" aria-label="Time to think">
      <circle r="40" fill="none" stroke="#cfd5cf" strokeWidth="10" />
      <circle
        r="40"
        fill="none"
        stroke="#f2b705"
        strokeWidth="10"
        strokeDasharray={`${Math.max(0, Math.min(1, share)) * round} ${round}`}
      />
    </svg>
  )
}
