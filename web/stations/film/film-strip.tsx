import type { Segment } from '@awlbox/core/contracts/lesson'
import { Ruler } from '../../frame/ruler.tsx'
import { useFilm } from './film-session.ts'
import { Prompter } from './prompter.tsx'

/** The strip while filming: the prompter, and below it the segments with what each has. */
export function FilmStrip() {
  const f = useFilm()
  return (
    <div className="flex flex-1 min-h-0">
      <Ruler time={f.proofed.time} at={f.segment.id} />
      <div className="flex-1 min-w-0 overflow-auto py-3 pr-3 grid grid-cols-[minmax(0,1fr)] auto-rows-max gap-2 content-start">
        <Prompter
          segment={f.segment}
          p={f.prompter}
          filming={f.running}
          levels={f.levels}
          settings={f.settings}
          onSettings={f.setSettings}
          onRoll={f.onRoll}
          rolled={f.rolled}
          large={f.large}
          onLarge={f.setLarge}
          after={f.straight || !f.filming ? f.after : null}
        />
        {f.segments.map((s) => (
          <SegmentRow key={s.id} segment={s} />
        ))}
      </div>
    </div>
  )
}

function SegmentRow({ segment }: { segment: Segment }) {
  const { segment: current, takes, sheet, filming, goTo } = useFilm()
  const on = segment.id === current.id
  const mine = takes.filter((t) => t.segmentId === segment.id)
  const ready = mine.filter((t) => t.status === 'ready')
  const again = sheet.again.some((a) => a.segmentId === segment.id && a.why === 'slips')
  return (
    <button
      type="button"
      aria-current={on || undefined}
      onClick={() => !filming && goTo(segment.id)}
      className={`flex items-center gap-2 w-full text-left rounded-xl border px-3 min-h-11 cursor-pointer ${on ? 'border-saffron border-2 bg-here' : 'border-hair bg-card hover:bg-wash'}`}
    >
      <span className="font-semibold truncate">{segment.title}</span>
      {segment.audience === 'adults' && (
        <span className="text-sm text-blue whitespace-nowrap">for adults</span>
      )}
      <span className="flex-1" />
      {again && <span className="text-sm text-brick whitespace-nowrap">film again</span>}
      <span
        className={`text-sm whitespace-nowrap ${ready.length ? 'text-moss font-semibold' : 'text-steel'}`}
      >
        {ready.length
          ? `${ready.length} ${ready.length === 1 ? 'take' : 'takes'}`
          : mine.length
            ? 'being prepared'
            : 'not filmed'}
      </span>
    </button>
  )
}
