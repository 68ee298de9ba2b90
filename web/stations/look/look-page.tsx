import { Link, useSearchParams } from 'react-router'
import * as lookApi from '@awlbox/core/contracts/api/look'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import { useAllPages, useAskAgain } from '../../frame/use-asked.ts'
import { useEffect, useMemo, useState } from 'react'
import { Check } from 'lucide-react'
import type { JudgementInput } from '@awlbox/core/contracts/reply'
import { phrasesFor } from '@awlbox/core/judge/phrases'
import { workRates } from '@awlbox/core/next/minutes'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { ask, wordsOf } from '../../api.ts'
import { isTyping } from '../../frame/head.tsx'
import { useIdeas } from '../../frame/ideas.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { Thinking } from '../../frame/thinking.tsx'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { Answers, Said } from './answers.tsx'
import { BackCard } from './back-card.tsx'
import { BulkDialog } from './bulk-dialog.tsx'
import { inOrder, proposalOf, takenChecks } from './checked.ts'
import { PlanAndPhoto } from './plan-and-photo.tsx'
import { type Order, Queue } from './queue.tsx'
import { Tray } from './tray.tsx'

export default function LookPage() {
  const { record, me, doc } = useLesson()
  const ideas = useIdeas()
  const [search] = useSearchParams()
  const { data, mutate } = useAllPages(lookApi.replies, { lessonId: record.id })
  const askAgain = useAskAgain()
  /** What stands on the thread of how many were looked at. */
  const counted = () => askAgain(lessonsApi.readLesson, { lessonId: record.id })
  const all = useMemo(() => data?.items ?? [], [data])
  const readings = useMemo(
    () =>
      new Map(all.flatMap((r) => r.photos).flatMap((p) => (p.reading ? [[p.id, p.reading] as const] : []))),
    [all],
  )
  const proposals = useMemo(() => new Map(all.map((r) => [r.id, proposalOf(r, readings)])), [all, readings])
  const [order, setOrder] = useState<Order>('oldest')
  const replies = useMemo(
    () => inOrder(all, order, { proposals, readings }),
    [all, order, proposals, readings],
  )
  const [chosen, setChosen] = useState<string | null>(search.get('reply'))
  const [problem, setProblem] = useState<string | null>(null)
  const [again, setAgain] = useState(false)
  const [last, setLast] = useState<string | null>(null)
  const [bulk, setBulk] = useState(false)
  const current =
    replies.find((r) => r.id === chosen) ?? replies.find((r) => r.judgements.length === 0) ?? replies[0]
  const i = current ? replies.indexOf(current) : -1
  const looked = replies.filter((r) => r.judgements.length > 0).length
  const go = (id: string | undefined) => {
    if (!id) return
    setChosen(id)
    setAgain(false)
  }
  /** Back to the one judged last, to judge it anew: what was decided before stays in its history. */
  const undo = () => {
    if (!last) return
    setChosen(last)
    setAgain(true)
    setLast(null)
  }
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey) return
      if (e.key === 'ArrowRight') go(replies[i + 1]?.id)
      if (e.key === 'ArrowLeft') go(replies[i - 1]?.id)
      if (e.key === 'u') undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  if (!data) return <p className="p-8 text-steel">Fetching the replies…</p>
  if (!current) return <NoReplies sent={record.facts.sent} />
  const judge = async (j: JudgementInput) => {
    setProblem(null)
    try {
      const { id } = await ask(lookApi.judge, { replyId: current.id }, j)
      const next =
        replies.find((r, k) => k > i && r.judgements.length === 0) ??
        replies.find((r) => r.judgements.length === 0 && r.id !== current.id)
      // Only this one changes: however many there are, none is fetched again.
      const judgement = {
        ...j,
        note: j.note ?? '',
        id,
        replyId: current.id,
        at: new Date().toISOString(),
        by: me.name,
      }
      const judgedNow = (r: typeof current) =>
        r.id === current.id ? { ...r, judgements: [judgement, ...r.judgements] } : r
      await mutate((had) => had && { ...had, items: had.items.map(judgedNow) }, { revalidate: false })
      counted()
      setAgain(false)
      setLast(current.id)
      setChosen(next?.id ?? current.id)
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  const done = current.judgements[0]
  const proposal = proposals.get(current.id) ?? null
  const plain = replies.flatMap((r) => {
    const p = proposals.get(r.id)
    return p?.plain && !r.judgements.length && !r.askings.some((a) => !a.answered)
      ? [{ reply: r, proposal: p }]
      : []
  })
  const left = Math.round((replies.length - looked) * workRates.look)
  const hidden = me.houseStyle.proposals === 'after'
  return (
    <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 h-[calc(100dvh-112px)] max-lg:h-auto grid-rows-[auto_minmax(0,1fr)_auto]">
      <Queue
        replies={replies}
        current={current}
        order={order}
        onOrder={setOrder}
        onPick={go}
        line={`${looked} of ${replies.length} looked at${left > 0 ? ` · about ${left} min left` : ''}`}
      />
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_300px] max-lg:grid-cols-[minmax(0,1fr)] gap-3 min-h-0">
        <PlanAndPhoto
          key={current.id}
          reply={current}
          fill={me.houseStyle.frameFill}
          onCorrected={() => void mutate()}
        />
        <aside className="grid gap-3 content-start overflow-auto min-h-0">
          <Answers reply={current} readings={readings} onAsked={() => void mutate()} />
          <Said reply={current} />
          <Thinking childId={current.childId} child={current.child} />
          {done && (
            <Card as="section" className="p-3">
              <h2 className="text-sm text-steel">Judged</h2>
              {current.judgements.map((j, k) => (
                <p key={j.id} className={k ? 'text-sm text-steel line-through' : 'font-semibold'}>
                  {j.level}, {j.help}, {j.rung}{' '}
                  <span className="font-normal text-steel text-sm">
                    {j.by}, {new Date(j.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
                  </span>
                  {j.note && <span className="block font-normal text-sm">“{j.note}”</span>}
                </p>
              ))}
            </Card>
          )}
          <BackCard key={current.id} reply={current} onChanged={() => void mutate()} />
        </aside>
      </div>
      <div className="grid gap-2">
        {problem && <Notice kind="wrong">{problem}</Notice>}
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1 min-h-9">
          {proposal && (done || !hidden) && (
            <p className="text-sm">
              <span className="text-steel">{done ? 'The checks would have said' : 'Proposed'}:</span>{' '}
              <b>
                {proposal.level}, {proposal.help}
              </b>{' '}
              <span className="text-steel">because {proposal.because}</span>
            </p>
          )}
          <span className="flex-1" />
          <Link to="second" className="text-sm text-steel underline min-h-8 inline-grid items-center">
            Second judge
          </Link>
          <Link to="pairs" className="text-sm text-steel underline min-h-8 inline-grid items-center">
            Compare pairs
          </Link>
          {last && (
            <Button small look="quiet" onClick={undo}>
              Undo (u)
            </Button>
          )}
          {plain.length > 1 && !hidden && (
            <Button small onClick={() => setBulk(true)}>
              {plain.length} where every check agrees…
            </Button>
          )}
        </div>
        {done && !again ? (
          <div className="flex flex-wrap items-center gap-3 rounded-xl border border-hair bg-card p-3">
            <Check size={20} className="text-moss" />
            <span>
              Looked at: <b>{done.level}</b>, {done.help}, {done.rung}.
            </span>
            <span className="flex-1" />
            <Button onClick={() => setAgain(true)}>Judge again</Button>
            {replies[i + 1] && (
              <Button look="act" onClick={() => go(replies[i + 1]!.id)}>
                Next reply
              </Button>
            )}
          </div>
        ) : (
          <Tray
            key={`${current.id}${again}`}
            idea={ideaById(doc.ideaId, ideas)?.name ?? 'The idea'}
            help={current.help}
            way={current.way}
            phrases={phrasesFor({
              child: current.child,
              way: current.way,
              checks: takenChecks(current, readings),
            })}
            disabled={false}
            onJudge={(j) => void judge(j)}
          />
        )}
      </div>
      {bulk && (
        <BulkDialog
          lessonId={record.id}
          replies={plain}
          onClose={() => setBulk(false)}
          onDone={() => {
            void mutate()
            counted()
          }}
        />
      )}
    </div>
  )
}
function NoReplies({ sent }: { sent: boolean }) {
  return (
    <div className="p-5 max-w-xl">
      <Empty
        action={
          <Link to="../send" relative="path" className="font-semibold text-moss underline">
            {sent ? 'See who has it' : 'Send it to homes'}
          </Link>
        }
      >
        {sent
          ? 'No reply yet. Each comes here with its photo beside the expected table, to be judged with one key. Silence is not weakness: some homes watch and send nothing.'
          : 'Nothing has been sent yet, so nothing has come back. Replies stand here then: the photo beside the expected table, answers checked, judged with one key.'}
      </Empty>
    </div>
  )
}
