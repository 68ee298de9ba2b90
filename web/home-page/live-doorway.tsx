import { type ComponentType, useEffect, useState } from 'react'
import type { HomeLive } from '@awlbox/core/contracts/api/live'
import { fileAt } from '../api.ts'
import { homeLiveCalendar } from './calls.ts'
import { useLink } from './link.ts'
import { useOnPhone } from './remembered.ts'
import { useWords, written } from './words.ts'

type View = ComponentType<{ liveId: string; onLeave: () => void }>
/** What the live lesson is made of is fetched when somebody comes in. */
const liveView = () => import('./live-view.tsx').then((m) => m.LiveView)

/** Live lessons of this home: when they are, and the way in once they are open. `inside`: the one that is on this screen. */
export function LiveDoorway({
  lives,
  inside,
  onEnter,
}: {
  lives: readonly HomeLive[]
  inside: string | null
  onEnter: (liveId: string | null) => void
}) {
  const [View, setView] = useState<View | null>(null)
  const [away, setAway] = useState(false)
  const { say } = useWords()
  useEffect(() => {
    if (inside === null || View) return
    liveView().then(
      (view) => setView(() => view),
      () => setAway(true),
    )
  }, [inside, View])
  if (inside !== null)
    return View ? (
      <View liveId={inside} onLeave={() => onEnter(null)} />
    ) : (
      <p role={away ? 'alert' : 'status'} className={away ? 'text-brick' : 'text-steel'}>
        {say(away ? 'problem.away' : 'page.opening')}
      </p>
    )
  return lives.map((l) => <Announced key={l.id} live={l} onEnter={() => onEnter(l.id)} />)
}

function Announced({ live, onEnter }: { live: HomeLive; onEnter: () => void }) {
  const { say, locale } = useWords()
  const token = useLink()
  const onPhone = useOnPhone()
  const [open, setOpen] = useState(live.open)
  useEffect(() => {
    if (open) return
    // Longer than a timer can be told is a lesson of another day.
    const t = setTimeout(() => setOpen(true), Math.min(2 ** 31 - 1, live.opensIn))
    return () => clearTimeout(t)
  }, [open, live.opensIn])
  const at = new Date(live.startsAt)
  return (
    <section
      aria-label={say('live.title', { title: live.title })}
      className={`rounded-xl border-2 bg-card p-4 grid gap-2 ${open ? 'border-ink' : 'border-hair'}`}
    >
      <h2 {...written} className="font-child font-bold text-[20px] leading-tight">
        {say('live.title', { title: live.title })}
      </h2>
      <p className="text-[17px]">
        {open
          ? say('live.open')
          : onPhone &&
            say('live.at', {
              day: at.toLocaleDateString(locale, { weekday: 'long', day: 'numeric', month: 'long' }),
              time: at.toLocaleTimeString(locale, { hour: '2-digit', minute: '2-digit' }),
            })}
      </p>
      {open ? (
        <button
          type="button"
          onClick={onEnter}
          className="min-h-14 rounded-lg bg-moss text-on-moss font-bold text-[19px]"
        >
          {say('live.come')}
        </button>
      ) : (
        <a
          className="underline min-h-9 inline-flex items-center"
          href={fileAt(homeLiveCalendar, { token, liveId: live.id })}
        >
          {say('live.calendar')}
        </a>
      )}
    </section>
  )
}
