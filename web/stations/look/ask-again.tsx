import { useState } from 'react'
import * as lookApi from '@awlbox/core/contracts/api/look'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'

/** Sends one question back: it stands on the home's page until it is answered anew. */
export function AskAgain({
  reply,
  taskId,
  onAsked,
}: {
  reply: ReplyRecord
  taskId: string
  onAsked: () => void
}) {
  const [open, setOpen] = useState(false)
  const [words, setWords] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const asked = reply.askings.find((a) => a.taskId === taskId)
  if (asked && !open)
    return (
      <p className="text-sm text-steel">
        {asked.answered ? 'Asked again, and answered anew.' : 'Asked again: it stands on the home’s page.'}
      </p>
    )
  if (!open)
    return (
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="block ml-auto text-sm text-steel underline decoration-hair underline-offset-4 min-h-8 cursor-pointer"
      >
        ask again
      </button>
    )
  const send = () =>
    ask(lookApi.askAgain, { replyId: reply.id }, { taskId, words })
      .then(() => {
        setOpen(false)
        onAsked()
      })
      .catch((e: unknown) => setProblem(wordsOf(e)))
  return (
    <form
      className="grid gap-1"
      onSubmit={(e) => {
        e.preventDefault()
        void send()
      }}
    >
      <input
        aria-label="What to say with it"
        placeholder="Perhaps a second photo, from above?"
        className={fieldLook}
        maxLength={300}
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      {problem && <p className="text-brick text-sm">{problem}</p>}
      <span className="flex gap-2">
        <Button small type="submit" look="act">
          Ask this home
        </Button>
        <Button small look="quiet" onClick={() => setOpen(false)}>
          Leave it
        </Button>
      </span>
    </form>
  )
}
