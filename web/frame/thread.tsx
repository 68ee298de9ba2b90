import { memo } from 'react'
import { NavLink } from 'react-router'
import { type Station, stations } from '@awlbox/core/contracts/api/lessons'

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
  at,
}: {
  lessonId: string
  current: Station
  sewn: Sewn
  facts: Partial<Record<Station, { text: string; wrong?: boolean }>>
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

/** The same thread, small, in a list of lessons. */
export function SmallThread({ sewn, current }: { sewn: Sewn; current: Station }) {
  const done = stations.filter((s) => sewn[s] === 1).length
  return (
    <span
      className="flex items-center"
      role="img"
      aria-label={`${done} of 7 stations done; now ${stationNames[current]}`}
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
