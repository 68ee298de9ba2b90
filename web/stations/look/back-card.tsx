import { useEffect, useRef, useState } from 'react'
import * as lookApi from '@awlbox/core/contracts/api/look'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { ask, wordsOf } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Notice } from '../../kit/notice.tsx'

/** Words back to the home: drafted from facts in its language, edited here, never sent unseen. */
export function BackCard({ reply, onChanged }: { reply: ReplyRecord; onChanged: () => void }) {
  const [open, setOpen] = useState(false)
  return (
    <Card as="section" aria-label="Words back" className="p-3 grid gap-2">
      <h2 className="text-sm text-steel">Words back</h2>
      {reply.feedback?.sentAt && (
        <p dir="auto">
          “{reply.feedback.body}”{' '}
          <span className="text-steel text-sm">
            sent{' '}
            {new Date(reply.feedback.sentAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
          </span>
        </p>
      )}
      {open ? (
        <Writing
          reply={reply}
          onDone={() => {
            setOpen(false)
            onChanged()
          }}
        />
      ) : (
        <Button small onClick={() => setOpen(true)}>
          {reply.feedback?.sentAt ? 'Write again' : reply.feedback ? 'Go on writing' : 'Write to the home'}
        </Button>
      )}
    </Card>
  )
}
function Writing({ reply, onDone }: { reply: ReplyRecord; onDone: () => void }) {
  const { data } = useAsked(lookApi.draftFeedback, { replyId: reply.id })
  const [typed, setTyped] = useState<string | null>(
    reply.feedback?.sentAt ? null : (reply.feedback?.body ?? null),
  )
  const [problem, setProblem] = useState<string | null>(null)
  const text = typed ?? data?.body ?? ''
  const field = useRef<HTMLTextAreaElement>(null)
  const there = data !== undefined
  // The column is longer than a laptop's screen: what was opened comes into it, once its draft is there.
  useEffect(() => {
    field.current?.focus({ preventScroll: true })
    field.current?.closest('section')?.scrollIntoView({ block: 'nearest' })
  }, [there])
  const keep = (send: boolean) => {
    setProblem(null)
    ask(lookApi.saveFeedback, { replyId: reply.id }, { body: text, send })
      .then(onDone)
      .catch((e: unknown) => setProblem(`${wordsOf(e)} What you wrote is still here.`))
  }
  return (
    <div className="grid gap-2">
      <label className="grid gap-1">
        <span className="text-sm text-steel">
          Drafted from what was sent{data && data.language !== 'en' ? ', in the home’s language' : ''}. Yours
          to change.
        </span>
        <textarea
          ref={field}
          rows={5}
          dir="auto"
          maxLength={2000}
          value={text}
          onChange={(e) => setTyped(e.target.value)}
          className="rounded-lg border border-hair bg-card p-2"
        />
      </label>
      {data && data.language !== 'en' && <p className="text-sm text-steel">In English: {data.english}</p>}
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <div className="flex flex-wrap gap-2">
        <Button small look="act" disabled={!text.trim()} onClick={() => keep(true)}>
          Send to this home
        </Button>
        <Button small look="quiet" disabled={!text.trim()} onClick={() => keep(false)}>
          Keep for later
        </Button>
      </div>
    </div>
  )
}
