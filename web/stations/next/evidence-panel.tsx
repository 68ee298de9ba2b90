import { useState } from 'react'
import { Link } from 'react-router'
import * as nextApi from '@awlbox/core/contracts/api/next'
import type { StandingCell } from '@awlbox/core/contracts/api/next'
import { type Level, levels } from '@awlbox/core/contracts/reply'
import { capital } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

const counted = (of: Readonly<Record<string, number>>): string =>
  Object.entries(of)
    .filter(([, n]) => n > 0)
    .map(([what, n]) => `${n} ${what}`)
    .join(', ')

/** What one standing rests on: fetched when it is opened. */
export function EvidencePanel({
  child,
  idea,
  cell,
  onSaid,
}: {
  child: { id: string; name: string }
  idea: { id: string; name: string }
  cell: StandingCell
  onSaid: () => void
}) {
  const { data, error, mutate } = useAsked(nextApi.evidence, { childId: child.id, ideaId: idea.id })
  const now = data?.standing ?? cell
  return (
    <section aria-label="Evidence" className="grid gap-2">
      <h2 className="font-bold text-lg">
        <Link to={`/children/${child.id}/progress`} className="underline decoration-hair underline-offset-4">
          {child.name}
        </Link>{' '}
        · {idea.name}
      </h2>
      <p>
        <b>{now.word === 'not seen' ? 'Not seen yet' : capital(now.word)}</b>
        {now.word !== 'not seen' && (
          <span className="text-steel figures">
            {' '}
            · level {Math.round(now.level * 100)} of 100, between {Math.round(now.low * 100)} and{' '}
            {Math.round(now.high * 100)}
          </span>
        )}
      </p>
      {now.word === 'secure' && (
        <p>
          {now.ready
            ? 'Ready for what comes after.'
            : 'To be seen once more before what comes after: that takes three signs of it, alone, on two days.'}
        </p>
      )}
      <p className="text-steel">{now.because}</p>
      {counted(now.helps) && (
        <p className="text-sm text-steel">
          Help: {counted(now.helps)} · With: {counted(now.rungs)}
        </p>
      )}
      {error && !data ? <Notice kind="wrong">{wordsOf(error)}</Notice> : null}
      {!data && !error && <p className="text-steel">Fetching what it rests on…</p>}
      <ul className="grid gap-0">
        {data?.trail.map((t) => (
          <li key={t.id} className="border-t border-hair py-1.5 text-sm">
            <span className={t.kind !== 'answer' ? 'font-semibold' : t.right ? '' : 'text-brick'}>
              {t.kind === 'answer' ? (t.right ? 'Right: ' : 'Not right: ') : ''}
              {t.words}
            </span>
            <span className="text-steel block">
              {new Date(t.at).toLocaleDateString('en-GB', {
                weekday: 'short',
                day: 'numeric',
                month: 'short',
              })}
              {t.title ? ' · ' : ''}
              {t.lessonId && t.replyId ? (
                <Link to={`/lessons/${t.lessonId}/look?reply=${t.replyId}`} className="underline">
                  {t.title || 'open the reply'}
                </Link>
              ) : (
                t.title
              )}
            </span>
          </li>
        ))}
      </ul>
      <SayOfChild
        childId={child.id}
        ideaId={idea.id}
        onSaid={() => {
          void mutate()
          onSaid()
        }}
      />
    </section>
  )
}
/** What the teacher knows from elsewhere outranks what was sent. */
function SayOfChild({ childId, ideaId, onSaid }: { childId: string; ideaId: string; onSaid: () => void }) {
  const [open, setOpen] = useState(false)
  const [level, setLevel] = useState<Level>('nearly')
  const [note, setNote] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  if (!open)
    return (
      <Button small look="quiet" onClick={() => setOpen(true)}>
        I know better…
      </Button>
    )
  const say = () =>
    ask(nextApi.override, { childId, ideaId }, { level, note })
      .then(() => {
        setOpen(false)
        setNote('')
        onSaid()
      })
      .catch((e: unknown) => setProblem(wordsOf(e)))
  return (
    <form
      className="grid gap-2 rounded-xl border border-hair p-3"
      onSubmit={(e) => {
        e.preventDefault()
        void say()
      }}
    >
      <p className="text-sm text-steel">
        What you say of the child stands above what was sent, with your name. Nothing before it is lost.
      </p>
      <label className="grid gap-1">
        <span className="font-semibold">Where the child stands</span>
        <Select
          value={level}
          choices={levels.map((l) => ({ value: l, words: capital(l) }))}
          onChange={setLevel}
        />
      </label>
      <label className="grid gap-1">
        <span className="font-semibold">How you know</span>
        <input className={fieldLook} value={note} maxLength={500} onChange={(e) => setNote(e.target.value)} />
      </label>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <div className="flex gap-2">
        <Button small type="submit" look="act">
          Say so
        </Button>
        <Button small look="quiet" onClick={() => setOpen(false)}>
          Leave it
        </Button>
      </div>
    </form>
  )
}
