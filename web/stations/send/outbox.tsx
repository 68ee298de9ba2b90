import { useState } from 'react'
import * as postApi from '@awlbox/core/contracts/api/post'
import type { OutLetter } from '@awlbox/core/contracts/api/post'
import type { LetterKind, LetterState } from '@awlbox/core/contracts/post'
import { ask, wordsOf } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'

const kindWords: Record<LetterKind, string> = {
  new: 'new lesson',
  nudge: 'reminder',
  thanks: 'thanks',
  feedback: 'feedback',
}
const day = (moment: string): string =>
  new Date(moment).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' })
const stateWords: Record<LetterState, (l: OutLetter) => string> = {
  waiting: (l) => (l.tries ? `again ${day(l.after)}` : `goes ${day(l.after)}`),
  sent: (l) => `sent ${l.goneAt ? day(l.goneAt) : ''}`,
  failed: () => 'not taken',
  refused: () => 'address refused',
  'to copy': () => 'to copy',
  copied: () => 'copied',
  'not needed': () => 'not needed: a reply came',
}

/** What was written to homes, and how far each letter is; what has to be passed on by hand is copied here. */
export function Outbox({
  lessonId,
  sent,
  mayChange,
}: {
  lessonId: string
  sent: boolean
  mayChange: boolean
}) {
  const { data, mutate } = useAsked(postApi.outbox, mayChange ? { lessonId } : null)
  const [problem, setProblem] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  if (!mayChange || !sent)
    return (
      <Empty>
        {mayChange
          ? 'Once the lesson is sent, each home is written to here in its language: by mail, or as a text you copy.'
          : 'Who may send the lesson writes to its homes here.'}
      </Empty>
    )
  if (!data) return <p className="text-steel">Opening…</p>
  const act = async (work: Promise<unknown>) => {
    setProblem(null)
    await work.catch((e: unknown) => setProblem(wordsOf(e)))
    await mutate()
  }
  const write = (kind: 'new' | 'nudge') =>
    act(
      ask(postApi.writeLetters, { lessonId }, { kind }).then((r) =>
        setSaid(r.written ? `${r.written} written.` : 'Nobody to write to: each home has had this letter.'),
      ),
    )
  const copy = async (l: OutLetter) => {
    await navigator.clipboard?.writeText(`${l.subject}\n\n${l.body}`)
    await act(ask(postApi.markCopied, { letterId: l.id }, { copied: true }))
  }
  const open = data.items.filter((l) => l.state === 'to copy').length
  return (
    <Card as="section" aria-label="Letters" className="overflow-hidden">
      <div className="flex flex-wrap items-center gap-2 px-3 pt-2.5 pb-2">
        <h2 className="font-bold flex-1">
          Letters{' '}
          <span className="font-normal text-steel text-sm">
            {data.items.length === 0
              ? data.byMail
                ? 'nobody was written to'
                : 'no mail server: texts to copy'
              : open
                ? `${open} to copy`
                : ''}
          </span>
        </h2>
        <Button small onClick={() => void write('new')}>
          Tell homes
        </Button>
        <Button small onClick={() => void write('nudge')}>
          Remind who sent nothing
        </Button>
      </div>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {said && (
        <p role="status" className="px-3 pb-2 text-sm text-steel">
          {said}
        </p>
      )}
      <ul>
        {data.items.map((l) => (
          <li key={l.id} className="border-t border-hair px-3 py-1 flex flex-wrap items-center gap-2">
            <details className="flex-1 min-w-48">
              <summary className="min-h-9 flex items-center gap-2 cursor-pointer flex-wrap">
                <b>{l.home}</b>
                <span className="text-sm text-steel">{kindWords[l.kind]}</span>
                <span
                  className={`text-sm ${l.state === 'refused' || l.state === 'failed' ? 'text-brick' : 'text-steel'}`}
                >
                  {stateWords[l.state](l)}
                </span>
              </summary>
              <div
                lang={l.language}
                dir="auto"
                className="whitespace-pre-wrap text-sm bg-wash rounded-lg p-3 my-1"
              >
                <b>{l.subject}</b>
                {'\n\n'}
                {l.body}
              </div>
              {l.problem && <p className="text-sm text-brick">{l.problem}</p>}
            </details>
            {(l.state === 'to copy' ||
              l.state === 'copied' ||
              l.state === 'refused' ||
              l.state === 'failed') && (
              <Button small onClick={() => void copy(l)}>
                {l.state === 'copied' ? 'Copy again' : 'Copy'}
              </Button>
            )}
            {(l.state === 'failed' || l.state === 'refused') && data.byMail && (
              <Button small onClick={() => void act(ask(postApi.tryAgain, { letterId: l.id }))}>
                Try again
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Card>
  )
}
