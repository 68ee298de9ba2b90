import { memo } from 'react'
import { NavLink } from 'react-router'
import { type Place, type Station, stations } from '@awlbox/core/contracts/api/lessons'

const stationNames: Record<Station, string> = {
  plan: 'Plan',
  script: 'Script',
  film: 'Film',
  cut: 'Cut',
  send: 'Send',
  look: 'Look',
  next: 'Next',
}
type Sewn = Record<Station, 0 | 0.5 | 1>

function Hole({ sewn, here }: { sewn: 0 | 0.5 | 1; here: boolean }) {
  return (
    <svg width="26" height="26" viewBox="-13 -13 26 26" aria-hidden className="shrink-0">
      {here && <circle r="12" fill="#f2b705" />}
      <circle
        r="8"
        fill={sewn === 1 && !here ? 'var(--ink)' : 'var(--card)'}
        stroke={sewn || here ? 'var(--ink)' : 'var(--steel)'}
        strokeWidth="2"
        strokeDasharray={sewn === 0 && !here ? '' : ''}
      />
      {sewn === 1 && <circle r="2.6" fill={here ? 'var(--ink)' : 'var(--card)'} />}
      {sewn === 0.5 && <path d="M0 -8 A8 8 0 0 0 0 8 Z" fill="var(--ink)" />}
    </svg>
  )
}
const state = { 0: 'not begun', 0.5: 'part done', 1: 'done' } as const

/** The thread under a lesson's title: seven holes, where the lesson is, and the only way between stations. */
export const Thread = memo(function Thread({
  lessonId,
  current,
  sewn,
  facts,
  live,
  at,
}: {
  lessonId: string
  current: Place
  sewn: Sewn
  facts: Partial<Record<Station, { text: string; wrong?: boolean }>>
  /** What there is of it live; it stands beside Film and Cut, in their place or with them. */
  live: { text: string; sewn: 0 | 0.5 | 1 }
  at: string | null
}) {
  return (
    <nav
      aria-label="Stations of this lesson"
      className="h-[60px] bg-card border-b border-hair px-5 flex items-center overflow-x-auto"
    >
      <ol className="flex w-full min-w-[760px]">
        {stations.map((s, i) => (
          <li key={s} className="flex-1 last:flex-none last:w-[104px] relative">
            {s === 'send' && <LiveStrand lessonId={lessonId} at={at} live={live} here={current === 'live'} />}
            <NavLink
              to={`/lessons/${lessonId}/${s}${at ? `?at=${at}` : ''}`}
              aria-current={s === current ? 'step' : undefined}
              className="block rounded-lg py-0.5 group"
            >
              <span className="flex items-center h-[26px]">
                <Hole sewn={sewn[s]} here={s === current} />
                {i < stations.length - 1 && (
                  <span
                    aria-hidden
                    className={`flex-1 mx-1 border-t-[3px] ${sewn[s] === 1 ? 'border-dashed border-ink' : 'border-solid border-hair !border-t'}`}
                  />
                )}
              </span>
              <span className="flex gap-1.5 items-baseline text-sm whitespace-nowrap">
                <b className="group-hover:underline">{stationNames[s]}</b>
                <span
                  className={`truncate max-w-[110px] ${facts[s]?.wrong ? 'text-brick font-semibold' : 'text-steel'}`}
                >
                  {facts[s]?.text}
                </span>
                <span className="sr-only">, {state[sewn[s]]}</span>
              </span>
            </NavLink>
          </li>
        ))}
      </ol>
    </nav>
  )
})

/** Live: a strand of its own beside Film and Cut, from Script to Send. */
function LiveStrand({
  lessonId,
  at,
  live,
  here,
}: {
  lessonId: string
  at: string | null
  live: { text: string; sewn: 0 | 0.5 | 1 }
  here: boolean
}) {
  return (
    <NavLink
      to={`/lessons/${lessonId}/live${at ? `?at=${at}` : ''}`}
      aria-current={here ? 'step' : undefined}
      className="absolute right-full top-0 mr-1 z-10 flex items-center gap-1 bg-card pl-1.5 rounded-lg h-[26px] text-sm whitespace-nowrap group"
    >
      <Hole sewn={live.sewn} here={here} />
      <b className="group-hover:underline">Live</b>
      {live.text && <span className="text-steel max-w-[90px] truncate">{live.text}</span>}
      <span className="sr-only">, {state[live.sewn]}</span>
    </NavLink>
  )
}

/** The same thread, small, in a list of lessons. */
export function SmallThread({ sewn, current }: { sewn: Sewn; current: Place }) {
  const done = stations.filter((s) => sewn[s] === 1).length
  return (
    <span
      className="flex items-center"
      role="img"
      aria-label={`${done} of 7 stations done; now ${current === 'live' ? 'Live' : stationNames[current]}`}
    >
      {stations.map((s, i) => (
        <span key={s} className="flex items-center">
          <svg width="16" height="16" viewBox="-8 -8 16 16" aria-hidden>
            {s === current && <circle r="7.6" fill="#f2b705" />}
            <circle
              r="4.8"
              fill={sewn[s] === 1 && s !== current ? 'var(--ink)' : 'var(--card)'}
              stroke={sewn[s] || s === current ? 'var(--ink)' : 'var(--steel)'}
              strokeWidth="1.6"
            />
            {sewn[s] === 0.5 && <path d="M0 -4.8 A4.8 4.8 0 0 0 0 4.8 Z" fill="var(--ink)" />}
          </svg>
          {i < 6 && (
            <span
              aria-hidden
              className={`w-3.5 border-t-2 ${sewn[s] === 1 ? 'border-dashed border-ink' : 'border-hair'}`}
            />
          )}
        </span>
      ))}
    </span>
  )
}
