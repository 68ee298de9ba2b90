import { useEffect } from 'react'
import { useParams } from 'react-router'
import { roundNow } from '@awlbox/core/live/state'
import { silenceOf } from '@awlbox/core/live/run'
import { wordsOf } from '../../api.ts'
import { TableDrawing } from '../../table/drawing.tsx'
import { type LiveView, useLiveView, useServerTime } from './use-live.ts'

/** What the teacher shares in the call: the table and nothing of the desk. Letterboxed in any window; f fills the screen. */
export default function WindowPage() {
  const { liveId = '' } = useParams()
  const { view, error } = useLiveView(liveId)
  useEffect(() => {
    document.title = 'Awlbox'
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== 'f') return
      if (document.fullscreenElement) void document.exitFullscreen()
      else void document.documentElement.requestFullscreen().catch(() => undefined)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  if (!view)
    return (
      <main className="h-dvh grid place-items-center bg-white text-[#14232b]">
        <p className="text-lg">{error ? wordsOf(error) : '…'}</p>
      </main>
    )
  return <Shared view={view} />
}

function Shared({ view }: { view: LiveView }) {
  const { news, run, table, record, now } = view
  const { state, tally } = news
  const at = useServerTime(now, 100)
  const round = state.phase === 'on' ? roundNow(state) : null
  const line = run.lines[state.line]
  const counting = round?.shows != null && at < round.shows
  const shown = round?.shows != null && at >= round.shows
  const silence =
    line && !round && state.phase === 'on' && !state.game
      ? silenceOf(line, record.style) * 1000 + state.longer
      : 0
  const thinking = round && at < round.opens
  const words = round
    ? round.prompt
    : state.window.words && line?.kind === 'say' && state.phase === 'on' && !state.game
      ? line.words
      : ''
  const ready = tally && round && tally.roundId === round.id ? tally.sent.length : 0
  const named =
    tally && round && state.window.names
      ? news.children.filter((c) => c.named && tally.sent.includes(c.id)).map((c) => c.name)
      : []
  return (
    <main
      aria-label="What homes see"
      className="h-dvh w-dvw overflow-hidden bg-white text-[#14232b] grid grid-rows-[minmax(0,1fr)_auto] p-[2vmin] gap-[1.5vmin]"
    >
      <div className="min-h-0 grid place-items-center relative">
        {state.phase === 'waiting' && (
          <p className="font-child font-bold text-[7vmin] text-center">{record.title}</p>
        )}
        {state.phase === 'over' && <p className="font-child font-bold text-[7vmin]">Goodbye</p>}
        {state.phase === 'on' && (
          <div className="absolute inset-0">
            <TableDrawing table={table} fill={record.style.frameFill} moving className="h-full" />
          </div>
        )}
        {counting && (
          <div className="absolute inset-0 grid place-items-center bg-white/85">
            <span className="font-child font-bold text-[60vmin] leading-none" role="status">
              {Math.max(1, Math.ceil((round.shows! - at) / 1000))}
            </span>
          </div>
        )}
      </div>
      <div className="min-h-[14vmin] grid grid-cols-[minmax(0,1fr)_auto] gap-[3vmin] items-center">
        <div className="min-w-0">
          {shown && state.sentence && (
            <p className="font-child text-[9vmin] leading-tight">{state.sentence}</p>
          )}
          {!shown && words && <p className="font-child text-[5.2vmin] leading-tight">{words}</p>}
          {shown && state.window.tally && tally && tally.roundId === round.id && (
            <ul className="flex flex-wrap gap-x-[4vmin] font-child text-[5.2vmin]">
              {tally.rows.map((r) => (
                <li key={r.shown}>
                  <b>{r.shown}</b> <span className="text-[3.6vmin]">× {r.children.length}</span>
                </li>
              ))}
            </ul>
          )}
          {named.length > 0 && !shown && <p className="text-[2.6vmin]">Ready: {named.join(', ')}</p>}
        </div>
        <div className="text-right">
          {thinking && <Ring share={1 - (round.opens - at) / Math.max(1, round.opens - round.began)} />}
          {!round && silence > 0 && at < state.since + silence && (
            <Ring share={(at - state.since) / silence} />
          )}
          {round && !thinking && !shown && !counting && (
            <p className="text-[3.4vmin] whitespace-nowrap">
              {ready} of {news.children.filter((c) => c.here).length} ready
            </p>
          )}
        </div>
      </div>
    </main>
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
