import { useState } from 'react'
import * as lookApi from '@awlbox/core/contracts/api/look'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import type { Proposal } from '@awlbox/core/judge/proposal'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Notice } from '../../kit/notice.tsx'

/** Replies of which every check agrees, listed before any is judged: each can be left out. */
export function BulkDialog({
  lessonId,
  replies,
  onClose,
  onDone,
}: {
  lessonId: string
  replies: readonly { reply: ReplyRecord; proposal: Proposal }[]
  onClose: () => void
  onDone: () => void
}) {
  const [out, setOut] = useState<ReadonlySet<string>>(new Set())
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const taken = replies.filter((r) => !out.has(r.reply.id))
  const judge = () => {
    setBusy(true)
    ask(
      lookApi.judgeMany,
      { lessonId },
      {
        judgements: taken.map(({ reply, proposal: { level, help, rung } }) => ({
          replyId: reply.id,
          level,
          help,
          rung: rung ?? 'things',
          note: '',
        })),
      },
    )
      .then(({ left }) => {
        if (left.length)
          setProblem(`${left.length} were judged meanwhile by somebody else and stay as they are.`)
        onDone()
        if (!left.length) onClose()
      })
      .catch((e: unknown) => setProblem(`${wordsOf(e)} None of them was judged.`))
      .finally(() => setBusy(false))
  }
  return (
    <Dialog open onClose={onClose} title="Where every check agrees">
      <p className="mb-2">
        Every answer is right by rule, the photo was counted without doubt, and the home said with what help
        and how. Look down the list; take out what you want to see yourself.
      </p>
      <ul className="grid gap-1 max-h-[50dvh] overflow-auto">
        {replies.map(({ reply, proposal }) => (
          <li key={reply.id}>
            <label className="flex gap-2 items-center min-h-10 border-b border-hair">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={!out.has(reply.id)}
                onChange={() =>
                  setOut((o) => {
                    const next = new Set(o)
                    if (!next.delete(reply.id)) next.add(reply.id)
                    return next
                  })
                }
              />
              <b>{reply.child}</b>
              <span className="text-steel text-sm">
                {proposal.level}, {proposal.help}, {proposal.rung} · {proposal.because}
              </span>
            </label>
          </li>
        ))}
      </ul>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <div className="flex gap-2 mt-3">
        <Button look="main" disabled={busy || !taken.length} onClick={judge}>
          Judge these {taken.length}
        </Button>
        <Button look="quiet" onClick={onClose}>
          One by one
        </Button>
      </div>
    </Dialog>
  )
}
