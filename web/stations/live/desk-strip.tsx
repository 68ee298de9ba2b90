import { useEffect, useRef } from 'react'
import type { Timing } from '@awlbox/core/live/clock'
import { clockTime } from '@awlbox/core/words'
import { timeOfDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import type { Desk, LiveView } from './use-live.ts'

/** The run-of-show: each segment with when it comes, how long it takes, and the lines of the one that is on. */
export function DeskStrip({
  view,
  timing,
  at,
  desk,
}: {
  view: LiveView
  timing: Timing
  at: number
  desk: Desk
}) {
  const { run, news } = view
  const { state } = news
  const current = useRef<HTMLLIElement>(null)
  useEffect(() => {
    current.current?.scrollIntoView({ block: 'nearest' })
  }, [state.line])
  const over = timing.ends - timing.plannedEnd
  const { base, offer } = timing
  return (
    <section aria-label="Run of show" className="min-w-0 p-3 grid gap-2 content-start lg:overflow-auto">
      <ol className="grid gap-1">
        {timing.rows.map((row) => {
          const { segment } = row
          const on = row.state === 'now'
          return (
            <li key={segment.id} ref={on ? current : undefined} className="min-w-0">
              <div
                className={`flex items-center gap-2 rounded-lg px-2 min-h-10 ${on ? 'bg-here font-semibold' : ''} ${row.state === 'done' ? 'text-steel' : ''}`}
              >
                <span className="figures text-sm text-steel w-11 shrink-0">
                  {timeOfDay(base + row.starts * 1000)}
                </span>
                <button
                  type="button"
                  disabled={!desk.leads || row.state === 'left out' || state.phase !== 'on'}
                  title={on ? undefined : 'Go to this segment'}
                  onClick={() => desk.act({ do: 'go', line: segment.from })}
                  className={`min-w-0 flex-1 text-left min-h-10 cursor-pointer disabled:cursor-default hover:not-disabled:underline ${row.state === 'left out' ? 'line-through text-steel' : ''}`}
                >
                  <span className="block truncate">{segment.title || 'Untitled'}</span>
                </button>
                {row.state === 'left out' ? (
                  <Button
                    small
                    look="quiet"
                    disabled={!desk.leads}
                    onClick={() => desk.act({ do: 'bring back', segmentId: segment.id })}
                  >
                    Bring back
                  </Button>
                ) : (
                  <span className="figures text-sm whitespace-nowrap">{clockTime(row.lasts)}</span>
                )}
              </div>
              {on && (
                <ol className="ml-13 my-1 grid gap-0.5 border-l-2 border-hair">
                  {run.lines.slice(segment.from, segment.to).map((l) => (
                    <li key={l.step.id}>
                      <button
                        type="button"
                        disabled={!desk.leads}
                        aria-current={l.index === state.line ? 'step' : undefined}
                        onClick={() => desk.act({ do: 'go', line: l.index })}
                        className={`w-full text-left text-sm pl-2 py-1 min-h-7 rounded-r cursor-pointer disabled:cursor-default ${l.index === state.line ? 'bg-here font-semibold' : l.index < state.line ? 'text-steel' : ''}`}
                      >
                        <span className="line-clamp-2">
                          {l.kind === 'round' && <span className="text-blue font-semibold">Round </span>}
                          {l.kind === 'wait' && <span className="text-steel">Silence </span>}
                          {l.words}
                        </span>
                      </button>
                    </li>
                  ))}
                </ol>
              )}
            </li>
          )
        })}
      </ol>
      {offer && state.phase === 'on' && (
        // However long the lesson is, it is in sight.
        <div
          className="sticky bottom-0 rounded-xl border border-saffron bg-here p-3 grid gap-2 justify-items-start"
          role="status"
        >
          <p>
            {Math.round(over / 60) || 1} min over. Leave out <b>{someOf(offer.titles)}</b> and it ends at{' '}
            {timeOfDay(base + offer.ends * 1000)}
            {offer.ends - timing.plannedEnd > 60 &&
              `, still ${Math.round((offer.ends - timing.plannedEnd) / 60)} min over`}
            .
          </p>
          <Button
            small
            disabled={!desk.leads}
            onClick={() => offer.segmentIds.forEach((segmentId) => desk.act({ do: 'leave out', segmentId }))}
          >
            Leave {offer.titles.length === 1 ? 'it' : `the ${offer.titles.length}`} out
          </Button>
        </div>
      )}
      {over > 45 && !offer && state.phase === 'on' && (
        <p className="text-sm text-steel px-2">
          {Math.round(over / 60) || 1} min over, and nothing of the rest can be left out without breaking what
          follows.
        </p>
      )}
      {state.phase === 'waiting' && (
        <p className="text-sm text-steel px-2">
          {at < base - 1000
            ? `Planned for ${timeOfDay(base)}. Homes can come in five minutes before.`
            : 'Begin when the homes are there.'}
        </p>
      )}
    </section>
  )
}
/** Up to three by name, the rest by how many there are. */
function someOf(titles: readonly string[]): string {
  const named = titles.length > 4 ? titles.slice(0, 3) : titles
  const rest = titles.length - named.length
  return rest ? `${named.join(', ')} and ${rest} more` : named.join(' and ')
}
