import { Link } from 'react-router'
import { Card } from '../../kit/card.tsx'
import * as lookApi from '@awlbox/core/contracts/api/look'
import { useAllPages } from '../../frame/use-asked.ts'
import { useEffect, useMemo, useState } from 'react'
import { Check } from 'lucide-react'
import type { JudgementInput } from '@awlbox/core/contracts/reply'
import { photoSentence } from '@awlbox/core/look/answers'
import { workRates } from '@awlbox/core/next/minutes'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { ask, wordsOf } from '../../api.ts'
import { isTyping } from '../../frame/head.tsx'
import { useIdeas } from '../../frame/ideas.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { Button } from '../../kit/button.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { TableDrawing } from '../../table/drawing.tsx'
import { Answers, MorePhotos, Said, tasksTaken } from './answers.tsx'
import { PhotoView, warningText } from './photo-view.tsx'
import { Tray } from './tray.tsx'

export default function LookPage() {
  const { record, me, doc } = useLesson()
  const ideas = useIdeas()
  const { data, mutate } = useAllPages(lookApi.replies, { lessonId: record.id })
  const replies = useMemo(() => data?.items ?? [], [data])
  const readings = useMemo(
    () => new Map(replies.flatMap((r) => r.photos).flatMap((p) => (p.reading ? [[p.id, p.reading]] : []))),
    [replies],
  )
  const [chosen, setChosen] = useState<string | null>(null)
  const [shownPhoto, setShownPhoto] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [again, setAgain] = useState(false)
  const current =
    replies.find((r) => r.id === chosen) ?? replies.find((r) => r.judgements.length === 0) ?? replies[0]
  const i = current ? replies.indexOf(current) : -1
  const looked = replies.filter((r) => r.judgements.length > 0).length
  const go = (to: number) => {
    const r = replies[to]
    if (r) {
      setChosen(r.id)
      setAgain(false)
    }
  }
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isTyping(e.target)) return
      if (e.key === 'ArrowRight') go(i + 1)
      if (e.key === 'ArrowLeft') go(i - 1)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  if (!data) return <p className="p-8 text-steel">Fetching the replies…</p>
  if (!current)
    return (
      <div className="p-5 max-w-xl">
        <Empty
          action={
            <Link to="../send" relative="path" className="font-semibold text-moss underline">
              {record.facts.sent ? 'See who has it' : 'Send it to homes'}
            </Link>
          }
        >
          {record.facts.sent
            ? 'No reply yet. Each comes here with its photo beside the expected table, to be judged with one key. Silence is not weakness: some homes watch and send nothing.'
            : 'Nothing has been sent yet, so nothing has come back. Replies stand here then: the photo beside the expected table, answers checked, judged with one key.'}
        </Empty>
      </div>
    )
  const judge = async (j: JudgementInput) => {
    setProblem(null)
    try {
      await ask(lookApi.judge, { replyId: current.id }, j)
      const next =
        replies.find((r, k) => k > i && r.judgements.length === 0) ??
        replies.find((r) => r.judgements.length === 0 && r.id !== current.id)
      await mutate()
      setAgain(false)
      setChosen(next?.id ?? current.id)
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  const tasks = tasksTaken(current)
  const photoTask = tasks.find((t) => t.spec.kind === 'photo')
  const photo = current.photos.find((p) => p.id === shownPhoto) ?? current.photos[0]
  const reading = photo?.reading ?? null
  const done = current.judgements[0]
  const left = Math.round((replies.length - looked) * workRates.look)
  return (
    <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 h-[calc(100dvh-112px)] max-lg:h-auto grid-rows-[auto_minmax(0,1fr)_auto]">
      <div className="flex items-center gap-2 max-sm:flex-col max-sm:items-stretch">
        <ol className="flex gap-2 overflow-x-auto flex-1 py-1 px-0.5" aria-label="Replies">
          {replies.map((r) => (
            <li key={r.id}>
              <button
                type="button"
                aria-current={r === current || undefined}
                title={r.child}
                onClick={() => go(replies.indexOf(r))}
                className={`relative size-[60px] rounded-lg overflow-hidden border-2 cursor-pointer grid place-items-center ${r === current ? 'border-saffron ring-2 ring-saffron' : 'border-hair'}`}
              >
                {r.photos[0] ? (
                  <img
                    src={`/api/photos/${r.photos[0].id}?size=small`}
                    alt=""
                    className={`w-full h-full object-cover ${r.judgements.length && r !== current ? 'opacity-60' : ''}`}
                  />
                ) : (
                  <span className="text-sm text-steel">words</span>
                )}
                <span className="sr-only">
                  {' '}
                  {r.child}
                  {r.judgements.length ? ', looked at' : ''}
                </span>
                {r.judgements.length > 0 && (
                  <span className="absolute right-0.5 bottom-0.5 rounded-full bg-moss text-on-moss size-5 grid place-items-center">
                    <Check size={13} />
                  </span>
                )}
              </button>
            </li>
          ))}
        </ol>
        <p className="text-steel text-sm text-right whitespace-nowrap">
          <b className="text-ink text-base">{current.child}</b>
          <br />
          {looked} of {replies.length} looked at{left > 0 ? ` · about ${left} min left` : ''}
        </p>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_300px] max-lg:grid-cols-[minmax(0,1fr)] gap-3 min-h-0">
        <Card as="section" aria-label="Planned" className="p-3 flex flex-col min-h-0">
          <h2 className="font-semibold">
            Planned{' '}
            <span className="font-normal text-steel text-sm">
              {photoTask?.spec.kind === 'photo' ? `any way of showing ${photoTask.spec.things}` : ''}
            </span>
          </h2>
          <div className="flex-1 grid place-items-center min-h-0">
            {photoTask?.expected && (
              <TableDrawing
                table={photoTask.expected}
                fill={me.houseStyle.frameFill}
                className="max-h-full"
              />
            )}
          </div>
          {photoTask && <p className="text-steel text-sm">{photoTask.prompt}</p>}
        </Card>
        <Card as="section" aria-label="Photo" className="overflow-hidden flex flex-col min-h-0">
          <h2 className="font-semibold px-3 py-2 flex justify-between gap-2">
            {current.child}’s photo{' '}
            <span className="font-normal text-steel text-sm">
              {reading
                ? `${reading.low === reading.high ? reading.count : `${reading.low} to ${reading.high}`} found`
                : ''}
            </span>
          </h2>
          <div className="flex-1 min-h-[200px] bg-wash">
            {photo ? (
              <PhotoView key={photo.id} {...photo} />
            ) : (
              <p className="h-full grid place-items-center text-steel p-4">No photo with this one.</p>
            )}
          </div>
          {current.photos.length > 1 && (
            <MorePhotos reply={current} shown={photo!.id} onShow={setShownPhoto} />
          )}
          {photo && (photo.faces ?? 0) > 0 && (
            <p className="px-3 py-1 text-brick">
              {photo.faces === 1 ? 'A face seems' : `${photo.faces} faces seem`} to be in it: it is for those
              who teach this class, and not to be shown to anybody else.
            </p>
          )}
          {reading && photoTask?.spec.kind === 'photo' && (
            <p className="px-3 py-2">
              {photoSentence(photoTask.spec.things, reading)}
              {reading.warnings.length > 0 && (
                <span className="text-steel"> Look closer: {warningText(reading)}.</span>
              )}
            </p>
          )}
        </Card>
        <aside className="grid gap-3 content-start overflow-auto min-h-0">
          <Answers reply={current} readings={readings} />
          <Said reply={current} />
          {done && (
            <Card as="section" className="p-3">
              <h2 className="text-sm text-steel">Judged</h2>
              {current.judgements.map((j, k) => (
                <p key={j.id} className={k ? 'text-sm text-steel line-through' : 'font-semibold'}>
                  {j.level}, {j.help}, {j.rung}{' '}
                  <span className="font-normal text-steel text-sm">
                    {j.by}, {new Date(j.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
                  </span>
                </p>
              ))}
            </Card>
          )}
        </aside>
      </div>
      <div className="grid gap-2">
        {problem && <Notice kind="wrong">{problem}</Notice>}
        {done && !again ? (
          <div className="flex flex-wrap items-center gap-3 rounded-xl border border-hair bg-card p-3">
            <Check size={20} className="text-moss" />
            <span>
              Looked at: <b>{done.level}</b>, {done.help}, {done.rung}.
            </span>
            <span className="flex-1" />
            <Button onClick={() => setAgain(true)}>Judge again</Button>
            {i + 1 < replies.length && (
              <Button look="act" onClick={() => go(i + 1)}>
                Next reply
              </Button>
            )}
          </div>
        ) : (
          <Tray
            key={`${current.id}${again}`}
            idea={ideaById(doc.ideaId, ideas)?.name ?? 'The idea'}
            help={current.help}
            disabled={false}
            onJudge={(j) => void judge(j)}
          />
        )}
      </div>
    </div>
  )
}
