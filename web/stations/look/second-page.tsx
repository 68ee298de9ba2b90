import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import * as agreementApi from '@awlbox/core/contracts/api/agreement'
import type { Round } from '@awlbox/core/contracts/api/agreement'
import { levels } from '@awlbox/core/contracts/reply'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { capital } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { useIdeas } from '../../frame/ideas.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'
import { Answers, Said } from './answers.tsx'
import { PlanAndPhoto } from './plan-and-photo.tsx'
import { Tray } from './tray.tsx'

/** Judging twice: a sample drawn for a colleague, judged without seeing the first, then talked through. */
export default function SecondPage() {
  const { record } = useLesson()
  const { data, error, mutate } = useAsked(agreementApi.rounds, { lessonId: record.id })
  if (error && !data) return <Notice kind="wrong">{wordsOf(error)}</Notice>
  if (!data) return <p className="p-8 text-steel">Fetching second judgements…</p>
  const waiting = data.items.find((r) => r.mine && r.replyIds.length > 0)
  return (
    <main className="p-4 grid gap-4 content-start grid-cols-[minmax(0,1fr)]">
      <p>
        <Link to=".." relative="path" className="text-moss font-semibold underline">
          Back to the replies
        </Link>
      </p>
      {waiting ? (
        <Blind round={waiting} onJudged={() => void mutate()} />
      ) : (
        <>
          <DrawRound colleagues={data.colleagues} onDrawn={() => void mutate()} />
          {data.items.map((r) => (
            <Drawn key={r.id} round={r} onSettled={() => void mutate()} />
          ))}
        </>
      )}
    </main>
  )
}
function DrawRound({
  colleagues,
  onDrawn,
}: {
  colleagues: { id: string; name: string }[]
  onDrawn: () => void
}) {
  const { record } = useLesson()
  const [who, setWho] = useState(colleagues[0]?.id ?? '')
  const [many, setMany] = useState('8')
  const [problem, setProblem] = useState<string | null>(null)
  if (!colleagues.length)
    return (
      <p className="text-steel">
        A second judge is a colleague with a sign-in of their own. The owner invites people under Setting.
      </p>
    )
  const draw = () =>
    ask(
      agreementApi.drawRound,
      { lessonId: record.id },
      { secondId: who, many: Math.max(2, Math.min(60, Number(many) || 2)) },
    )
      .then(onDrawn)
      .catch((e: unknown) => setProblem(wordsOf(e)))
  return (
    <Card as="section" className="p-4 grid gap-3 max-w-xl">
      <h1 className="font-bold text-lg">How far do two of you agree?</h1>
      <p className="text-steel">
        Replies you have judged are drawn, some of each level. A colleague judges them without seeing yours;
        then you see both, and talk the differences through.
      </p>
      <div className="flex flex-wrap gap-3 items-end">
        <label className="grid gap-1">
          <span className="font-semibold">Judged again by</span>
          <Select
            value={who}
            choices={colleagues.map((c) => ({ value: c.id, words: c.name }))}
            onChange={setWho}
          />
        </label>
        <label className="grid gap-1">
          <span className="font-semibold">Replies</span>
          <input
            type="number"
            min={2}
            max={60}
            className={`${fieldLook} w-24`}
            value={many}
            onChange={(e) => setMany(e.target.value)}
          />
        </label>
        <Button look="act" onClick={() => void draw()}>
          Draw them
        </Button>
      </div>
      {problem && <Notice kind="wrong">{problem}</Notice>}
    </Card>
  )
}
/** One reply of a round, with nothing of the first judgement, of what is proposed or of the child's standing. */
function Blind({ round, onJudged }: { round: Round; onJudged: () => void }) {
  const { me, doc } = useLesson()
  const ideas = useIdeas()
  const { data, error, mutate } = useAsked(agreementApi.blindReply, { roundId: round.id })
  const [problem, setProblem] = useState<string | null>(null)
  const reply = data?.reply
  const readings = useMemo(
    () => new Map((reply?.photos ?? []).flatMap((p) => (p.reading ? [[p.id, p.reading] as const] : []))),
    [reply],
  )
  if (error && !data) return <Notice kind="wrong">{wordsOf(error)}</Notice>
  if (!data) return <p className="text-steel">Fetching the reply…</p>
  if (!reply) return <p className="text-steel">What is left of this sample was taken back by its homes.</p>
  return (
    <>
      <p>
        <b>{round.done + 1}</b> of {round.done + round.replyIds.length}, drawn by {round.first}. What{' '}
        {round.first} decided is shown when all are judged.
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_300px] max-lg:grid-cols-[minmax(0,1fr)] gap-3 min-h-[420px]">
        <PlanAndPhoto
          key={reply.id}
          reply={reply}
          fill={me.houseStyle.frameFill}
          onCorrected={() => undefined}
        />
        <aside className="grid gap-3 content-start">
          <Answers reply={reply} readings={readings} />
          <Said reply={reply} />
        </aside>
      </div>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <Tray
        key={`tray ${reply.id}`}
        idea={ideaById(doc.ideaId, ideas)?.name ?? 'The idea'}
        help={reply.help}
        way={reply.way}
        phrases={[]}
        disabled={false}
        onJudge={({ level, help, rung }) =>
          void ask(agreementApi.judgeSecond, { roundId: round.id }, { replyId: reply.id, level, help, rung })
            .then(async () => {
              await mutate()
              onJudged()
            })
            .catch((e: unknown) => setProblem(wordsOf(e)))
        }
      />
    </>
  )
}
function Drawn({ round, onSettled }: { round: Round; onSettled: () => void }) {
  return (
    <Card as="section" className="p-4 grid gap-2 max-w-3xl">
      <h2 className="font-semibold">
        {round.first} and {round.second},{' '}
        {new Date(round.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}
      </h2>
      {!round.result ? (
        <p className="text-steel">
          {round.done} of {round.done + round.replyIds.length} judged by {round.second}. The result stands
          here when all are.
        </p>
      ) : (
        <>
          <p>{round.result.words}</p>
          {round.result.differ.length === 0 && <p>You judged every one alike.</p>}
          <ul>
            {round.result.differ.map((d) => (
              <Difference key={d.replyId} round={round} d={d} onSettled={onSettled} />
            ))}
          </ul>
        </>
      )}
    </Card>
  )
}
type Differing = NonNullable<Round['result']>['differ'][number]
function Difference({ round, d, onSettled }: { round: Round; d: Differing; onSettled: () => void }) {
  const { record } = useLesson()
  const [words, setWords] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <li className="border-t border-hair py-2 grid gap-2">
      <p>
        <Link
          to={`/lessons/${record.id}/look?reply=${d.replyId}`}
          className="font-semibold underline decoration-hair underline-offset-4"
        >
          {d.child}
        </Link>
        : {round.first} said {d.first}, {round.second} said {d.second}.
        {d.settled && (
          <>
            {' '}
            Settled: <b>{d.settled}</b>
            {d.words ? `, “${d.words}”` : ''}.
          </>
        )}
      </p>
      {!d.settled && (
        <div className="flex flex-wrap gap-2 items-center">
          <input
            aria-label={`Why, for ${d.child}`}
            placeholder="What you settled on, and why"
            className={`${fieldLook} flex-1 min-w-[200px]`}
            maxLength={500}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          {levels.map((level) => (
            <Button
              key={level}
              small
              onClick={() =>
                void ask(agreementApi.settle, { roundId: round.id }, { replyId: d.replyId, level, words })
                  .then(onSettled)
                  .catch((e: unknown) => setProblem(wordsOf(e)))
              }
            >
              {capital(level)}
            </Button>
          ))}
        </div>
      )}
      {problem && <Notice kind="wrong">{problem}</Notice>}
    </li>
  )
}
