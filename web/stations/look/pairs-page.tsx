import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import * as agreementApi from '@awlbox/core/contracts/api/agreement'
import * as lookApi from '@awlbox/core/contracts/api/look'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { ask, wordsOf } from '../../api.ts'
import { isTyping } from '../../frame/head.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { useAllPages, useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Notice } from '../../kit/notice.tsx'
import { takenChecks } from './checked.ts'

/** Two replies beside each other: which shows more? From many such answers comes a scale. */
export default function PairsPage() {
  const { record } = useLesson()
  const { data, mutate } = useAsked(agreementApi.pairing, { lessonId: record.id })
  const { data: all } = useAllPages(lookApi.replies, { lessonId: record.id })
  const [problem, setProblem] = useState<string | null>(null)
  const by = useMemo(() => new Map((all?.items ?? []).map((r) => [r.id, r])), [all])
  const readings = useMemo(
    () =>
      new Map(
        (all?.items ?? [])
          .flatMap((r) => r.photos)
          .flatMap((p) => (p.reading ? [[p.id, p.reading] as const] : [])),
      ),
    [all],
  )
  const pair = data?.pair ?? null
  const say = (betterId: string, otherId: string, same = false) => {
    setProblem(null)
    ask(agreementApi.comparePair, { lessonId: record.id }, { betterId, otherId, same })
      .then(() => mutate())
      .catch((e: unknown) => setProblem(wordsOf(e)))
  }
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!pair || isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey) return
      if (e.key === 'l') say(pair[0], pair[1])
      if (e.key === 'r') say(pair[1], pair[0])
      if (e.key === 's') say(pair[0], pair[1], true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  if (!data || !all) return <p className="p-8 text-steel">Fetching the replies…</p>
  const [left, right] = pair ? [by.get(pair[0]), by.get(pair[1])] : []
  const span = Math.max(0.5, ...data.scale.map((s) => Math.abs(s.place)))
  return (
    <main className="p-4 grid gap-3 content-start">
      <p className="flex flex-wrap gap-3 items-baseline">
        <Link to=".." relative="path" className="text-moss font-semibold underline">
          Back to the replies
        </Link>
        <span>{data.words}</span>
      </p>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {left && right && pair && (
        <>
          <div className="grid grid-cols-2 max-md:grid-cols-1 gap-3">
            <One reply={left} readings={readings} name="On the left" />
            <One reply={right} readings={readings} name="On the right" />
          </div>
          <div className="flex flex-wrap gap-2 justify-center">
            <Button look="act" onClick={() => say(pair[0], pair[1])}>
              The left one shows more (l)
            </Button>
            <Button onClick={() => say(pair[0], pair[1], true)}>The same (s)</Button>
            <Button look="act" onClick={() => say(pair[1], pair[0])}>
              The right one shows more (r)
            </Button>
          </div>
        </>
      )}
      {data.compared > 0 && (
        <Card as="section" aria-label="The scale so far" className="p-3">
          <h2 className="font-semibold">The scale so far</h2>
          <p className="text-sm text-steel">
            From what shows least to what shows most; the line at each is how sure its place is. Places, not
            marks: it says which replies show more, not who is good.
          </p>
          <ol className="mt-2 grid gap-1">
            {data.scale
              .filter((x) => x.compared > 0)
              .map((x) => (
                <li key={x.replyId} className="grid grid-cols-[120px_minmax(0,1fr)] gap-2 items-center">
                  <Link
                    to={`/lessons/${record.id}/look?reply=${x.replyId}`}
                    className="truncate underline decoration-hair underline-offset-4"
                  >
                    {by.get(x.replyId)?.child ?? '…'}
                  </Link>
                  <svg
                    viewBox="0 0 200 12"
                    className="w-full h-4"
                    role="img"
                    aria-label={`${x.place.toFixed(1)}, compared ${x.compared} times`}
                    preserveAspectRatio="none"
                  >
                    <line
                      x1={Math.max(0, 100 + ((x.place - (x.error ?? span)) / span) * 80)}
                      x2={Math.min(200, 100 + ((x.place + (x.error ?? span)) / span) * 80)}
                      y1="6"
                      y2="6"
                      stroke="var(--steel)"
                      strokeWidth="1.5"
                    />
                    <circle cx={100 + (x.place / span) * 80} cy="6" r="4" fill="var(--ink)" />
                  </svg>
                </li>
              ))}
          </ol>
        </Card>
      )}
    </main>
  )
}
function One({
  reply,
  readings,
  name,
}: {
  reply: ReplyRecord
  readings: ReadonlyMap<string, PhotoReading>
  name: string
}) {
  return (
    <Card as="section" aria-label={name} className="p-3 grid gap-2 content-start">
      {reply.photos[0] && (
        <img
          src={`/api/photos/${reply.photos[0].id}`}
          alt="What was sent"
          className="w-full max-h-[42dvh] object-contain bg-wash rounded-lg"
        />
      )}
      <ul className="grid gap-1">
        {takenChecks(reply, readings).map((c, i) => (
          <li key={i}>
            <span className="text-sm text-steel">{c.task.prompt}</span>{' '}
            <b className="font-child">{c.check.shown}</b>
          </li>
        ))}
      </ul>
      {reply.words && <p dir="auto">“{reply.words}”</p>}
    </Card>
  )
}
