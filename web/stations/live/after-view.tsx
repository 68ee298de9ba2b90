import { useState } from 'react'
import { Link } from 'react-router'
import type { LiveRecord } from '@awlbox/core/contracts/api/live'
import { liveAfter } from '@awlbox/core/contracts/api/live'
import { clockTime } from '@awlbox/core/words'
import { useAsked } from '../../frame/use-asked.ts'
import { useEvents } from '../../frame/events.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { wordsOf } from '../../api.ts'

/** What is left of a live lesson: who came, what was given round by round, moments, and a note to those who missed it. */
export function AfterView({ liveId, record }: { liveId: string; record: LiveRecord }) {
  useEvents()
  const { data, error } = useAsked(liveAfter, { liveId })
  const [copied, setCopied] = useState(false)
  if (error && !data)
    return (
      <div className="p-6">
        <Notice kind="wrong">{wordsOf(error)}</Notice>
      </div>
    )
  if (!data) return <p className="p-8 text-steel">Adding it up…</p>
  const names = new Map(data.attendance.map((a) => [a.childId, a.name]))
  return (
    <main className="max-w-6xl mx-auto p-5 grid gap-4 lg:grid-cols-[minmax(0,1fr)_340px] items-start">
      <div className="grid gap-4">
        <div className="flex flex-wrap items-baseline gap-3">
          <h1 className="text-lg font-bold">
            {record.rehearsal ? 'The rehearsal' : 'The live lesson'} took {clockTime(data.seconds)}
          </h1>
          <span className="text-steel">
            {data.attendance.length} {data.attendance.length === 1 ? 'child' : 'children'} came ·{' '}
            {data.rounds.filter((r) => !r.undone).length} rounds
          </span>
          <span className="flex-1" />
          {data.publicationId && (
            <Link
              to={`/lessons/${record.lessonId}/look`}
              className="inline-flex items-center min-h-10 px-3.5 rounded-lg border border-moss bg-moss text-on-moss font-semibold"
            >
              Look at what was given
            </Link>
          )}
          <Link
            to={`/lessons/${record.lessonId}/live`}
            className="inline-flex items-center min-h-10 px-3.5 rounded-lg border border-hair bg-card font-semibold"
          >
            Back to the lesson
          </Link>
        </div>
        {record.rehearsal && (
          <Notice kind="info">
            A rehearsal: nothing of it is kept of any child, and it goes by itself within a day.
          </Notice>
        )}
        {!data.rounds.length && <Empty>No round was asked.</Empty>}
        {data.rounds.map((r) => (
          <Card key={r.id} as="section" className={`p-4 ${r.undone ? 'opacity-60' : ''}`}>
            <div className="flex gap-3 items-baseline">
              <span className="figures text-sm text-steel">{clockTime(r.at)}</span>
              <h2 className="font-child text-[17px]">{r.prompt}</h2>
              {r.undone && (
                <span className="text-sm text-steel whitespace-nowrap">taken back, does not count</span>
              )}
            </div>
            {r.tally && (
              <ul className="mt-2 grid gap-1">
                {r.tally.rows.map((row) => (
                  <li
                    key={`${row.verdict} ${row.shown}`}
                    className="grid grid-cols-[4rem_minmax(0,1fr)] gap-2"
                  >
                    <b className="font-child truncate">{row.shown}</b>
                    <span>
                      {row.verdict === 'right' && <b className="text-moss">right </b>}
                      {row.verdict === 'look' && <span className="text-steel">for your eye </span>}
                      {row.children.map((c) => names.get(c) ?? '').join(', ')}
                      {row.perhaps && <span className="text-steel"> · perhaps {row.perhaps}</span>}
                    </span>
                  </li>
                ))}
                {!r.tally.rows.length && <li className="text-steel">Nothing came.</li>}
              </ul>
            )}
          </Card>
        ))}
      </div>
      <div className="grid gap-4">
        <Card as="section" className="p-4">
          <h2 className="font-bold mb-2">Who came</h2>
          {!data.attendance.length && <p className="text-steel">Nobody came in.</p>}
          <ul className="grid gap-1">
            {data.attendance.map((a) => (
              <li key={a.childId} className="flex justify-between gap-3">
                <span className="truncate">{a.name}</span>
                <span className="text-sm text-steel figures whitespace-nowrap">
                  {clockTime(a.seconds)} · {a.rounds} {a.rounds === 1 ? 'round' : 'rounds'}
                  {a.late ? `, ${a.late} late` : ''}
                </span>
              </li>
            ))}
          </ul>
        </Card>
        {data.notes.length > 0 && (
          <Card as="section" className="p-4">
            <h2 className="font-bold mb-2">Moments</h2>
            <ul className="grid gap-1">
              {data.notes.map((n) => (
                <li key={`${n.at} ${n.text}`} className="flex gap-3">
                  <span className="figures text-sm text-steel">{clockTime(n.at)}</span>
                  <span>{n.text || 'a moment'}</span>
                </li>
              ))}
            </ul>
          </Card>
        )}
        {!record.rehearsal && (
          <Card as="section" className="p-4 grid gap-2 justify-items-start">
            <h2 className="font-bold">For homes that missed it</h2>
            <p className="text-steel text-sm">
              {data.missed.length ? data.missed.map((m) => m.name).join(', ') : 'Nobody missed it.'}
            </p>
            <p>{data.note}</p>
            <p className="text-sm text-steel">
              It stands on their page above the tasks, with those kept for home.
            </p>
            <Button
              small
              onClick={() => {
                navigator.clipboard.writeText(data.note).then(
                  () => setCopied(true),
                  () => setCopied(false),
                )
              }}
            >
              {copied ? 'Copied' : 'Copy the note'}
            </Button>
          </Card>
        )}
        {!record.rehearsal && data.segments.length > 0 && (
          <Card as="section" className="p-4 grid gap-2 justify-items-start">
            <h2 className="font-bold">A recording of the call?</h2>
            <p className="text-sm">
              Bring it in as clips: it is parted by when each segment was on, below. Other people’s children
              can be seen and heard in it: use only what your setting’s policy and every home’s consent allow,
              and cut the rest.
            </p>
            <ul className="text-sm w-full">
              {data.segments.map((x) => (
                <li key={`${x.segmentId} ${x.from}`} className="flex justify-between gap-3">
                  <span className="truncate">{x.title}</span>
                  <span className="figures text-steel whitespace-nowrap">
                    {clockTime(x.from)} to {x.to === null ? 'the end' : clockTime(x.to)}
                  </span>
                </li>
              ))}
            </ul>
            <Link to={`/lessons/${record.lessonId}/film?live=${record.id}`} className="text-blue underline">
              Bring the recording to Film
            </Link>
          </Card>
        )}
      </div>
    </main>
  )
}
