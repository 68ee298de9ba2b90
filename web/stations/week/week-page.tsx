import { Card } from '../../kit/card.tsx'
import { DateField } from '../../kit/date-field.tsx'
import type { Week } from '@awlbox/core/contracts/api/week'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import * as weekApi from '@awlbox/core/contracts/api/week'
import { useAsked } from '../../frame/use-asked.ts'
import { addDays, formatISO, parseISO } from 'date-fns'
import { useEffect, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { Rates, Task, WeekLesson } from '@awlbox/core/next/week'
import { ask, wordsOf } from '../../api.ts'
import { useEvents } from '../../frame/events.ts'
import { Head } from '../../frame/head.tsx'
import { Away } from '../../frame/away.tsx'
import { useMe } from '../../frame/me.ts'
import { minutesText } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'

const station = { write: 'script', film: 'film', cut: 'cut', send: 'send', look: 'look' } as const
const verb = { write: 'Write', film: 'Film', cut: 'Cut', send: 'Send', look: 'Look at replies' } as const
const named = (day: string, how: 'long' | 'short' = 'short') =>
  parseISO(day).toLocaleDateString('en-GB', { weekday: how, day: 'numeric', month: 'short' })

/** The week: what is due by when, the minutes it takes this teacher, the minutes there are, and what to leave out first. */
export default function WeekPage() {
  const me = useMe()
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const [search, setSearch] = useSearchParams()
  const from = search.get('from')
  const { data, error, mutate } = useAsked(weekApi.week, from ? { from } : {})
  const [problem, setProblem] = useState<string | null>(null)
  useEvents()
  useEffect(() => {
    document.title = 'Week · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  const change = (what: Promise<unknown>) =>
    void what.then(
      () => {
        setProblem(null)
        return mutate()
      },
      (e: unknown) => setProblem(wordsOf(e)),
    )
  const shift = (n: number) =>
    data && setSearch({ from: formatISO(addDays(parseISO(data.from), n), { representation: 'date' }) })
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={shelf?.classes ?? []} />
      {!data ? (
        <p className="p-8 text-steel">Working out the week…</p>
      ) : (
        <main className="p-5 grid gap-4">
          <div className="flex flex-wrap items-center gap-3">
            <h1 className="font-bold text-lg">Week from {named(data.from)}</h1>
            <Button small onClick={() => shift(-7)}>
              ‹ week
            </Button>
            <Button small onClick={() => shift(7)}>
              week ›
            </Button>
            <span className="flex-1" />
            <b className={`figures ${data.plan.needed > data.plan.free ? 'text-brick' : ''}`}>
              {minutesText(data.plan.needed)} to do, {minutesText(data.plan.free)} free
            </b>
            <a
              href={`/api/week.ics?from=${data.from}`}
              download
              className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash"
            >
              Calendar file
            </a>
          </div>
          {problem && <Notice kind="wrong">{problem}</Notice>}
          <Days week={data} onHours={(minutes) => change(ask(weekApi.saveHours, {}, { minutes }))} />
          {data.plan.late.length > 0 && (
            <section className="rounded-xl border border-brick bg-card p-4">
              <h2 className="font-bold text-brick mb-1">It does not fit</h2>
              <ul className="mb-2">
                {data.plan.late.slice(0, 5).map((l, i) => (
                  <li key={i}>
                    {verb[l.task.what]}: “{l.task.title}” by {named(l.task.by)} is{' '}
                    <b className="figures">{minutesText(l.short)}</b> short.
                  </li>
                ))}
              </ul>
              {data.plan.drop.length > 0 && (
                <>
                  <h3 className="font-semibold">What to leave out first</h3>
                  <ol className="list-decimal pl-5">
                    {data.plan.drop.map((d, i) => (
                      <li key={i}>
                        {d.why} <span className="text-steel">“{d.task.title}”,</span>{' '}
                        <b className="figures">{minutesText(d.saves)}</b> saved.
                      </li>
                    ))}
                  </ol>
                </>
              )}
            </section>
          )}
          <Card as="section" className="p-4">
            <h2 className="font-bold mb-2">Lessons</h2>
            {data.lessons.length === 0 && (
              <Empty
                action={
                  <Link to="/plan" className="font-semibold text-moss underline">
                    Plan a lesson
                  </Link>
                }
              >
                Nothing goes out this week. What you plan stands here with the days by which it is filmed and
                sent, and the minutes it takes against the evenings you have.
              </Empty>
            )}
            <ul className="grid gap-2">
              {data.lessons.map((l) => (
                <LessonDates
                  key={l.id}
                  lesson={l}
                  onChange={(dates) => change(ask(weekApi.saveDates, { lessonId: l.id }, dates))}
                />
              ))}
            </ul>
          </Card>
          <p className="text-sm text-steel">
            A film minute takes {data.rates.writing.toFixed(1)} min to write{own(data, 'writing')},{' '}
            {data.rates.filming.toFixed(1)} to film{own(data, 'filming')} and {data.rates.cutting.toFixed(1)}{' '}
            to cut{own(data, 'cutting')}; a reply {data.rates.look} min to look at.
          </p>
        </main>
      )}
    </>
  )
}
const own = (w: Week, kind: Rates['own'][number]) => (w.rates.own.includes(kind) ? ' (your own)' : '')

function Days({ week, onHours }: { week: Week; onHours: (minutes: number[]) => void }) {
  // What is overdue stands on today, or on the first day of a week to come.
  const first = week.days.includes(week.today) ? week.today : week.days[0]!
  const tasks = (day: string): Task[] =>
    week.plan.tasks.filter((t) => (t.by < first ? day === first : t.by === day))
  const late = new Set(week.plan.late.map((l) => l.task))
  return (
    <div className="grid grid-cols-7 max-md:grid-cols-1 gap-2">
      {week.days.map((day, i) => {
        const due = tasks(day)
        const minutes = due.reduce((s, t) => s + t.minutes, 0)
        return (
          <section
            key={day}
            aria-label={named(day, 'long')}
            className={`rounded-xl border p-3 min-h-36 flex flex-col gap-1.5 min-w-0 ${day === week.today ? 'border-saffron border-2' : 'border-hair'} ${day < week.today ? 'bg-wash' : 'bg-card'}`}
          >
            <h2 className="font-semibold">{named(day)}</h2>
            {due.map((t, k) => (
              <Link
                key={k}
                to={`/lessons/${t.lessonId}/${station[t.what]}`}
                className={`block rounded-lg px-2 py-1 text-sm hover:bg-wash border ${late.has(t) ? 'border-brick' : 'border-hair'}`}
              >
                <b>{verb[t.what]}</b>{' '}
                <span className="figures text-steel">
                  {t.minutes} min{t.by < day ? `, due ${named(t.by)}` : ''}
                </span>
                <span className="block truncate">{t.title}</span>
              </Link>
            ))}
            <span className="flex-1" />
            <label className="flex items-center gap-1.5 text-sm text-steel">
              <input
                aria-label={`Minutes free on ${named(day, 'long')}`}
                type="number"
                min={0}
                max={1440}
                step={15}
                key={week.hours[i]!.minutes}
                defaultValue={week.hours[i]!.minutes}
                onBlur={(e) => {
                  const n = Math.max(0, Math.min(1440, Math.round(Number(e.target.value)) || 0))
                  if (n !== week.hours[i]!.minutes)
                    onHours(week.hours.map((h, k) => (k === i ? n : h.minutes)))
                }}
                className="min-h-8 w-16 rounded-md border border-hair bg-card px-1.5 figures text-ink"
              />
              min free
            </label>
            {minutes > 0 && (
              <span
                className={`text-sm figures ${minutes > week.hours[i]!.minutes ? 'text-brick' : 'text-steel'}`}
              >
                {minutesText(minutes)} due
              </span>
            )}
          </section>
        )
      })}
    </div>
  )
}

function LessonDates({
  lesson,
  onChange,
}: {
  lesson: WeekLesson & { className: string }
  onChange: (d: { day: string; filmBy: string | null; sendBy: string | null }) => void
}) {
  const dates = { day: lesson.day, filmBy: lesson.filmBy, sendBy: lesson.sendBy }
  const field = (label: string, value: string | null, set: (v: string | null) => void) => (
    <span className="grid gap-0.5 text-sm text-steel">
      {label}
      <DateField
        label={label}
        value={value ?? ''}
        required={label === 'Goes out'}
        onChange={(v) => set(v || null)}
        className="w-40 text-ink"
      />
    </span>
  )
  return (
    <li className="flex flex-wrap items-end gap-x-4 gap-y-1 border-b border-hair pb-2">
      <span className="min-w-0 flex-1 basis-60">
        <Link to={`/lessons/${lesson.id}/script`} className="font-semibold hover:underline">
          {lesson.title}
        </Link>
        <span className="block text-sm text-steel figures">
          {lesson.className} · film {lesson.filmMinutes.toFixed(1)} min ·{' '}
          {lesson.sent
            ? 'sent'
            : lesson.cut
              ? 'cut'
              : lesson.filmed >= 1
                ? 'filmed'
                : lesson.filmed > 0
                  ? 'part filmed'
                  : lesson.written
                    ? 'written'
                    : 'not finished writing'}
        </span>
      </span>
      {field('Film by', lesson.filmBy, (v) => onChange({ ...dates, filmBy: v }))}
      {field('Send by', lesson.sendBy, (v) => onChange({ ...dates, sendBy: v }))}
      {field('Goes out', lesson.day, (v) => v && onChange({ ...dates, day: v }))}
    </li>
  )
}
