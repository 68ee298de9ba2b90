import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { usualError } from '@awlbox/core/look/line'
import * as progressApi from '@awlbox/core/contracts/api/progress'
import type { Progress } from '@awlbox/core/contracts/api/progress'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { rungs } from '@awlbox/core/contracts/reply'
import { fileAt, wordsOf } from '../../api.ts'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'
import { useEvents } from '../../frame/events.ts'
import { Head } from '../../frame/head.tsx'
import { useMe } from '../../frame/me.ts'
import { Thinking } from '../../frame/thinking.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { Eyelet } from './eyelet.tsx'

const day = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })

/** One child: its thread through the ideas, replies in time, rungs, help, line estimates, and what was written back. */
export default function ChildProgressPage() {
  const { childId = '' } = useParams()
  const me = useMe()
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const [all, setAll] = useState(false)
  const { data, error } = useAsked(progressApi.progress, { childId, ...(all ? { all: '1' as const } : {}) })
  useEvents()
  useEffect(() => {
    document.title = `${data?.child.name ?? 'Child'} · Awlbox`
  }, [data])
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={shelf?.classes ?? []} />
      <main className="p-5 grid gap-4 content-start grid-cols-[minmax(0,1fr)]">
        {error && !data ? <Notice kind="wrong">{wordsOf(error)}</Notice> : null}
        {!data && !error && <p className="text-steel">Fetching what is known…</p>}
        {data && <Child data={data} onAll={() => setAll(true)} />}
      </main>
    </>
  )
}
function Child({ data, onAll }: { data: Progress; onAll: () => void }) {
  const { child, ideas, replies, lines } = data
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="font-bold text-xl">{child.name}</h1>
        {child.classId ? (
          <Link to={`/classes/${child.classId}`} className="text-moss font-semibold underline">
            {child.className}
          </Link>
        ) : (
          <span className="text-steel">has left</span>
        )}
        <span className="flex-1" />
        <a
          href={fileAt(progressApi.report, { childId: child.id })}
          className="min-h-10 inline-grid items-center rounded-lg border border-moss px-3.5 font-semibold text-moss"
        >
          For a meeting (PDF)
        </a>
        <Link to={`/children/${child.id}`} className="min-h-10 inline-grid items-center text-steel underline">
          What we keep
        </Link>
      </div>
      {!replies.length && !ideas.length ? (
        <Empty>
          Nothing has been seen of {child.name} yet. That is silence, and says nothing about what they can do:
          a task that needs no film, or a word with the home, may be the way in.
        </Empty>
      ) : (
        <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] max-lg:grid-cols-[minmax(0,1fr)] gap-4">
          <div className="grid gap-4 content-start">
            <Thread ideas={ideas} name={child.name} />
            <Replies replies={replies} />
            {data.older && <Button onClick={onAll}>Show what came before, too</Button>}
          </div>
          <div className="grid gap-4 content-start">
            <Thinking childId={child.id} child={child.name} />
            <InTime replies={replies} />
            {lines.length > 0 && <OnLines lines={lines} />}
          </div>
        </div>
      )}
    </>
  )
}
function Thread({ ideas, name }: { ideas: Progress['ideas']; name: string }) {
  return (
    <Card as="section" aria-label="Ideas" className="p-4">
      <h2 className="font-semibold mb-2">Through the ideas</h2>
      <ol className="grid gap-1">
        {ideas.map((i) => (
          <li key={i.id} className="grid grid-cols-[44px_minmax(0,1fr)] gap-3 items-center">
            <Eyelet cell={i.standing} name={name} idea={i.name} />
            <div>
              <p>
                <b>{i.name}</b>{' '}
                <span className="text-steel">
                  {i.standing.word === 'not seen' ? 'not seen yet' : i.standing.word}
                  {i.standing.ready ? ', ready for what comes after' : ''}
                </span>
              </p>
              <p className="text-sm text-steel">{i.standing.because}</p>
            </div>
          </li>
        ))}
      </ol>
    </Card>
  )
}
function Replies({ replies }: { replies: Progress['replies'] }) {
  return (
    <Card as="section" aria-label="Replies" className="p-4">
      <h2 className="font-semibold mb-2">What came, newest first</h2>
      <ul className="grid gap-2">
        {replies.map((r) => (
          <li key={r.id} className="border-t border-hair pt-2 grid grid-cols-[64px_minmax(0,1fr)] gap-3">
            {r.photoId ? (
              <img
                src={`/api/photos/${r.photoId}?size=small`}
                alt=""
                loading="lazy"
                className="size-16 rounded-lg object-cover"
              />
            ) : (
              <span className="size-16 rounded-lg bg-wash grid place-items-center text-sm text-steel">
                words
              </span>
            )}
            <div>
              <p>
                <Link
                  to={`/lessons/${r.lessonId}/look?reply=${r.id}`}
                  className="font-semibold underline decoration-hair underline-offset-4"
                >
                  {r.title}
                </Link>{' '}
                <span className="text-sm text-steel">{day(r.at)}</span>
              </p>
              <p className="text-sm">
                {r.couldNot
                  ? 'could not be done that day'
                  : `${r.said ? `${r.right} of ${r.said} right` : 'for the eye'}${r.help ? `, ${r.help}` : ''}${r.way ? `, ${r.way}` : ''}`}
                {r.gave && `, given ${r.gave}`}
                {r.chose && `, chose ${r.chose}`}
                {r.judged && (
                  <>
                    {' · '}
                    <b>{r.judged.level}</b>
                    {r.judged.note && ` “${r.judged.note}”`}
                  </>
                )}
              </p>
              {r.words && (
                <p dir="auto" className="text-sm text-steel">
                  “{r.words}”
                </p>
              )}
              {r.feedback && (
                <p dir="auto" className="text-sm">
                  <span className="text-steel">Written back:</span> {r.feedback}
                </p>
              )}
            </div>
          </li>
        ))}
      </ul>
    </Card>
  )
}
const rungAt = { things: 3, picture: 2, track: 1, head: 0 } as const
const helpMark = { alone: 5, nudged: 3.6, together: 2.4 } as const
/** Rungs over time: a mark a reply, larger the less help there was. */
function InTime({ replies }: { replies: Progress['replies'] }) {
  const seen = [...replies].reverse().flatMap((r) => {
    const rung = r.judged?.rung ?? r.way
    return rung && !r.couldNot
      ? [{ id: r.id, at: r.at, rung, help: r.judged?.help ?? r.help ?? 'nudged' }]
      : []
  })
  if (seen.length < 2) return null
  const x = (i: number) => 84 + (i / (seen.length - 1)) * 200
  return (
    <Card as="section" aria-label="Rungs in time" className="p-4">
      <h2 className="font-semibold">Rungs in time</h2>
      <svg
        viewBox="0 0 300 120"
        className="w-full"
        role="img"
        aria-label={`From ${seen[0]!.rung} to ${seen.at(-1)!.rung} in ${seen.length} replies`}
      >
        {rungs.map((r) => (
          <g key={r}>
            <line x1="78" x2="290" y1={18 + rungAt[r] * 24} y2={18 + rungAt[r] * 24} stroke="var(--hair)" />
            <text x="0" y={22 + rungAt[r] * 24} fontSize="11" fill="var(--steel)">
              {r === 'head' ? 'in the head' : r}
            </text>
          </g>
        ))}
        <polyline
          points={seen.map((s, i) => `${x(i)},${18 + rungAt[s.rung] * 24}`).join(' ')}
          fill="none"
          stroke="var(--ink)"
          strokeDasharray="3 3"
        />
        {seen.map((s, i) => (
          <circle
            key={s.id}
            cx={x(i)}
            cy={18 + rungAt[s.rung] * 24}
            r={helpMark[s.help]}
            fill="var(--moss)"
            stroke="var(--ink)"
          >
            <title>{`${day(s.at)}: ${s.rung}, ${s.help}`}</title>
          </circle>
        ))}
        <text x="78" y="116" fontSize="11" fill="var(--steel)">
          {day(seen[0]!.at)}
        </text>
        <text x="290" y="116" fontSize="11" textAnchor="end" fill="var(--steel)">
          {day(seen.at(-1)!.at)}
        </text>
      </svg>
      <p className="text-sm text-steel">The larger the mark, the less help there was.</p>
    </Card>
  )
}
function OnLines({ lines }: { lines: Progress['lines'] }) {
  return (
    <Card as="section" aria-label="On number lines" className="p-4">
      <h2 className="font-semibold">On number lines</h2>
      <ul>
        {lines.map((l, i) => (
          <li key={i} className="text-sm">
            {day(l.at)}, {l.title}: {Math.round(l.mean * 100)} % off in the middle, {l.statement}
          </li>
        ))}
      </ul>
      <p className="text-sm text-steel">
        For orientation, in the middle on a line to 100:{' '}
        {Object.entries(usualError)
          .map(([age, share]) => `about ${Math.round(share * 100)} % at ${age}`)
          .join(', ')}
        .
      </p>
    </Card>
  )
}
