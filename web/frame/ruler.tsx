import { clock, type LessonTime } from '@awlbox/core/script/time'

/** The time ruler in the strip's gutter: a block a segment, as tall as its share, and the limit drawn on it. */
export function Ruler({ time, at }: { time: LessonTime; at: string | null }) {
  const most = Math.max(time.film, time.filmLimit) * 1.04
  const minutes = Math.ceil(most / 60)
  const every = minutes > 24 ? 5 : minutes > 12 ? 2 : 1
  const y = (s: number) => `${(s / most) * 100}%`
  return (
    <div
      aria-hidden
      className="relative w-[58px] shrink-0 text-[12px] text-steel figures select-none"
      data-ruler
    >
      <div className="absolute inset-y-3 left-0 right-0">
        <span className="absolute left-[42px] top-0 bottom-0 border-l-2 border-steel" />
        {Array.from({ length: Math.floor(most / 60 / every) + 1 }, (_, i) => i * every).map((m) => (
          <span
            key={m}
            className={`absolute left-0 w-[42px] flex items-center justify-end gap-1 -translate-y-1/2 ${Math.abs(m * 60 - time.filmLimit) < most * 0.02 ? 'text-brick' : ''}`}
            style={{ top: y(m * 60) }}
          >
            {m}
            <span className="w-2 border-t-2 border-steel" />
          </span>
        ))}
        {time.segments.map(
          (s) =>
            s.film > 0 && (
              <span
                key={s.id}
                className={`absolute left-[46px] w-[6px] rounded-full ${s.film > clock.segmentLimit ? 'bg-brick' : s.id === at ? 'bg-saffron' : 'bg-ink'}`}
                style={{ top: `calc(${y(s.start)} + 1px)`, height: `max(3px, calc(${y(s.film)} - 2px))` }}
              />
            ),
        )}
        <span
          className="absolute left-[36px] right-0 border-t-2 border-dashed border-brick"
          style={{ top: y(time.filmLimit) }}
        />
        <span
          className="absolute left-0 w-[40px] text-right text-brick leading-none"
          style={{ top: `calc(${y(time.filmLimit)} + 9px)` }}
        >
          limit
        </span>
      </div>
    </div>
  )
}
