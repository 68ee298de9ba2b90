import type { Shelf, ShelfLesson } from '@awlbox/core/contracts/api/shelf'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { useAsked } from '../../frame/use-asked.ts'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { useEvents } from '../../frame/events.ts'
import { Head } from '../../frame/head.tsx'
import { Away } from '../../frame/away.tsx'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'
import { useMe } from '../../frame/me.ts'
import { SmallThread } from '../../frame/thread.tsx'
import { dayName, minutesText, timeLeft } from '../../frame/time.ts'
import { Empty, Notice, WorkBar } from '../../kit/notice.tsx'

export function ShelfPage() {
  const { data, error } = useAsked(shelfApi.shelf, {})
  const me = useMe()
  useEvents()
  useEffect(() => {
    document.title = 'Shelf · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  if (!data)
    return (
      <>
        <Head />
        <p className="p-8 text-steel">Fetching the shelf…</p>
      </>
    )
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={data.classes} />
      <div className="flex max-lg:flex-col min-h-[calc(100dvh-98px)]">
        <main className="flex-1 min-w-0 p-5 grid gap-5 content-start">
          {data.backupLate !== null && (
            <Notice
              kind="wrong"
              action={
                <Link to="/keeping" className="font-semibold underline underline-offset-2">
                  See why
                </Link>
              }
            >
              No backup for {data.backupLate} days: if this machine breaks, what was made since is lost.
            </Notice>
          )}
          <Working working={data.working} />
          {data.classes.length === 0 && (
            <Empty
              action={
                <Link to="/classes" className="font-semibold text-moss underline">
                  Make a class
                </Link>
              }
            >
              No class is open. Lessons stand here, class by class, with what each needs next.
            </Empty>
          )}
          {data.classes.map((c) => (
            <ClassShelf
              key={c.id}
              name={c.name}
              lessons={nearest(data.lessons.filter((l) => l.classId === c.id))}
            />
          ))}
        </main>
        <Aside shelf={data} />
      </div>
    </>
  )
}

/** What Awlbox is doing by itself, lesson by lesson, with the time left. */
function Working({ working }: { working: Shelf['working'] }) {
  if (!working.length) return null
  return (
    <section aria-label="Under way" className="grid gap-2">
      <h2 className="font-bold">Under way</h2>
      {working.map((w) => (
        <WorkBar
          key={w.lessonId}
          label={`${w.title}${w.step ? `: ${w.step}` : ''} · ${w.done} of ${w.all} done`}
          to={`/lessons/${w.lessonId}/film`}
          share={w.done / w.all}
          left={w.secondsLeft === null ? null : timeLeft(w.secondsLeft)}
        />
      ))}
    </section>
  )
}

/** What comes soonest first, then what has been, latest first. */
function nearest(lessons: readonly ShelfLesson[]): ShelfLesson[] {
  const today = new Date().toLocaleDateString('sv')
  const ahead = lessons.filter((l) => l.day >= today).sort((a, b) => a.day.localeCompare(b.day))
  return [...ahead, ...lessons.filter((l) => l.day < today)]
}

function ClassShelf({ name, lessons }: { name: string; lessons: readonly ShelfLesson[] }) {
  return (
    <section aria-label={name}>
      <h2 className="font-bold mb-2">{name}</h2>
      {lessons.length === 0 && (
        <Empty
          action={
            <Link to="/plan" className="font-semibold text-moss underline">
              Plan a lesson
            </Link>
          }
        >
          Nothing on the shelf yet. A lesson begins with one idea and its numbers.
        </Empty>
      )}
      <ul className="grid gap-2">
        {lessons.map((l) => {
          const done = l.facts.sent && l.facts.replies > 0 && l.facts.replies === l.facts.looked
          return (
            <li
              key={l.id}
              className="grid grid-cols-[64px_minmax(0,1fr)_auto_minmax(206px,auto)] max-md:grid-cols-[52px_minmax(0,1fr)] items-center gap-3 rounded-xl border border-hair bg-card px-3.5 min-h-16 py-2"
            >
              <span className="text-steel text-sm">{dayName(l.day)}</span>
              <Link to={`/lessons/${l.id}/${l.act.station}`} className="min-w-0 rounded-md">
                <span className="block font-semibold truncate">{l.title}</span>
                <span className="block text-sm text-steel truncate">{l.idea}</span>
              </Link>
              <span className="max-md:col-start-2">
                <SmallThread sewn={l.sewn} current={done ? 'next' : l.act.station} />
              </span>
              <span className="justify-self-end max-md:col-start-2 max-md:justify-self-start">
                {done ? (
                  <Link
                    to={`/lessons/${l.id}/next`}
                    className="inline-flex min-h-9 items-center text-sm text-steel hover:underline"
                  >
                    All {l.facts.replies} looked at
                  </Link>
                ) : (
                  <Link
                    to={`/lessons/${l.id}/${l.act.station}`}
                    className="inline-flex min-h-9 items-center rounded-lg border border-moss text-moss font-semibold text-sm px-3 whitespace-nowrap hover:bg-wash"
                  >
                    {l.act.label} · {l.act.minutes} min
                  </Link>
                )}
              </span>
            </li>
          )
        })}
      </ul>
    </section>
  )
}

function Aside({ shelf }: { shelf: Shelf }) {
  const minutes = shelf.tonight.reduce((s, t) => s + t.minutes, 0)
  const eveningMinutes = shelf.evening
  return (
    <aside className="w-[400px] max-xl:w-[340px] max-lg:w-full shrink-0 bg-card border-l border-hair p-5">
      <div className="flex items-baseline justify-between">
        <h2 className="font-bold text-lg">Tonight</h2>
        <span className={`figures ${minutes > eveningMinutes ? 'text-brick font-semibold' : 'text-steel'}`}>
          {minutesText(minutes)} of {minutesText(eveningMinutes)}
        </span>
      </div>
      <div
        className="relative h-2 rounded-full bg-wash my-3"
        role="img"
        aria-label={`${minutes} minutes to do, ${eveningMinutes} minutes you have`}
      >
        <div
          className="h-full rounded-full bg-ink"
          style={{ width: `${Math.min(100, (minutes / Math.max(minutes, eveningMinutes, 1)) * 100)}%` }}
        />
        <span
          className="absolute -top-1 h-4 w-1 bg-saffron"
          style={{ left: `${(eveningMinutes / Math.max(minutes, eveningMinutes, 1)) * 99}%` }}
        />
      </div>
      {shelf.tonight.length === 0 && <p className="text-steel">Nothing is due. Plan a lesson, or sleep.</p>}
      <ul>
        {shelf.tonight.map((t) => (
          <li key={t.lessonId} className="border-b border-hair">
            <Link
              to={`/lessons/${t.lessonId}/${t.station}`}
              className="block py-2.5 rounded-md hover:bg-wash"
            >
              <span className="flex justify-between gap-3">
                <b>{t.label}</b>
                <span className="figures whitespace-nowrap">{t.minutes} min</span>
              </span>
              <span className="block text-sm text-steel">
                {t.title}. {t.reason}.
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {minutes > eveningMinutes && (
        <p className="mt-2 text-sm text-brick">
          More than an evening. The last on the list can wait longest.
        </p>
      )}
      {shelf.quiet.length > 0 && (
        <>
          <h2 className="font-bold text-lg mt-6 mb-1">Not heard from</h2>
          <ul>
            {shelf.quiet.slice(0, 8).map((c) => (
              <li key={c.childId} className="flex justify-between border-b border-hair py-2">
                <span>
                  {c.name} <span className="text-steel text-sm">{c.className}</span>
                </span>
                <span className="figures text-steel">{c.days} days</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </aside>
  )
}
