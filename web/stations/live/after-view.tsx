import { useState } from 'react'
import { Link } from 'react-router'
import type { LiveRecord } from '@awlbox/core/contracts/api/live'
import { liveAfter } from '@awlbox/core/contracts/api/live'
import { clockTime } from '@awlbox/core/words'
import { useAsked } from '../../frame/use-asked.ts'
import { useEvents } from '../../frame/events.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Empty, Notice, WorkBar } from '../../kit/notice.tsx'
import { ask, wordsOf } from '../../api.ts'
import { markTake } from '@awlbox/core/contracts/api/film'
import { uploadTake, type UploadState } from '../../frame/upload.ts'

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
  const rounds = data.rounds.filter((r) => !r.undone).length
  const names = new Map(data.attendance.map((a) => [a.childId, a.name]))
  return (
    <main className="max-w-6xl mx-auto p-5 grid gap-4 lg:grid-cols-[minmax(0,1fr)_340px] items-start">
      <div className="grid gap-4">
        <div className="flex flex-wrap items-baseline gap-3">
          <h1 className="text-lg font-bold">
            {record.rehearsal ? 'The rehearsal' : 'The live lesson'} took {clockTime(data.seconds)}
          </h1>
          <span className="text-steel">
            {data.attendance.length} {data.attendance.length === 1 ? 'child' : 'children'} came · {rounds}{' '}
            {rounds === 1 ? 'round' : 'rounds'}
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
          <CallRecording lessonId={record.lessonId} segments={data.segments} />
        )}
      </div>
    </main>
  )
}

interface Span {
  segmentId: string
  title: string
  from: number
  to: number | null
}
/** Brings a recording of the call in as takes, parted by when each segment was on. */
function CallRecording({ lessonId, segments }: { lessonId: string; segments: readonly Span[] }) {
  const [agreed, setAgreed] = useState(false)
  const [began, setBegan] = useState('0:00')
  const [sending, setSending] = useState<UploadState | null>(null)
  const [words, setWords] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const typed = /^(\d{1,3}):([0-5]\d)$/.exec(began.trim())
  const offset = typed ? Number(typed[1]) * 60 + Number(typed[2]) : null
  const [first, last] = [segments[0]!, segments.at(-1)!]
  const bring = async (file: File) => {
    setProblem(null)
    setWords(null)
    try {
      const { takeId, known } = await uploadTake(
        file,
        { lessonId, segmentId: '', source: 'uploaded' },
        setSending,
      )
      if (known) setWords('This recording is here already; nothing was added.')
      else {
        await ask(
          markTake,
          { takeId },
          {
            marks: [
              { kind: 'within', at: first.from + offset!, to: (last.to ?? 24 * 3600) + offset! },
              ...segments.map((x) => ({
                kind: 'segment' as const,
                segmentId: x.segmentId,
                at: x.from + offset!,
              })),
            ],
          },
        )
        setWords('It is here. It is parted into a take for each segment; find them in Film.')
      }
    } catch (e) {
      setProblem(wordsOf(e))
    }
    setSending(null)
  }
  return (
    <Card as="section" className="p-4 grid gap-2 justify-items-start">
      <h2 className="font-bold">A recording of the call?</h2>
      <p className="text-sm">It becomes takes of this lesson, parted by when each segment was on:</p>
      <ul className="text-sm w-full">
        {segments.map((x) => (
          <li key={`${x.segmentId} ${x.from}`} className="flex justify-between gap-3">
            <span className="truncate">{x.title}</span>
            <span className="figures text-steel whitespace-nowrap">
              {clockTime(x.from)} to {x.to === null ? 'the end' : clockTime(x.to)}
            </span>
          </li>
        ))}
      </ul>
      <label className="flex items-center gap-2 text-sm">
        <span>The lesson begins in it at</span>
        <input
          aria-invalid={offset === null}
          value={began}
          onChange={(e) => setBegan(e.target.value)}
          className="w-20 min-h-8 rounded-md border border-hair bg-card px-2 figures"
        />
      </label>
      <label className="flex items-start gap-2 text-sm">
        <input
          type="checkbox"
          className="mt-0.5 size-4"
          checked={agreed}
          onChange={(e) => setAgreed(e.target.checked)}
        />
        <span>
          Other people’s children can be seen and heard in a call. The policy of our setting and every home’s
          consent allow it to be kept, or only my own table and voice are in it.
        </span>
      </label>
      <label
        className={`inline-flex items-center min-h-10 px-3.5 rounded-lg border border-hair bg-card font-semibold has-focus-visible:outline-3 has-focus-visible:outline-blue ${agreed && offset !== null ? 'cursor-pointer hover:bg-wash' : 'opacity-50 pointer-events-none'}`}
      >
        Bring the recording
        <input
          type="file"
          accept="video/*,audio/*"
          className="sr-only"
          disabled={!agreed || offset === null || sending !== null}
          onChange={(e) => {
            const f = e.target.files?.[0]
            e.target.value = ''
            if (f) void bring(f)
          }}
        />
      </label>
      {sending && <WorkBar label={`Sending ${sending.name}`} share={sending.share} onCancel={sending.stop} />}
      {words && (
        <p role="status" className="text-sm">
          {words}{' '}
          <Link to={`/lessons/${lessonId}/film`} className="text-blue underline">
            To Film
          </Link>
        </p>
      )}
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <p className="text-sm text-steel">
        What was said before and after the lesson is in no take. Faces and names are looked for, and covers
        proposed, before anything is sent.
      </p>
    </Card>
  )
}
