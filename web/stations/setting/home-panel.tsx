import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import type { ChildFields, ChildRow } from '@awlbox/core/contracts/api/homes'
import * as homesApi from '@awlbox/core/contracts/api/homes'
import * as sendApi from '@awlbox/core/contracts/api/send'
import { ask, wordsOf } from '../../api.ts'
import { isTyping } from '../../frame/head.tsx'
import { LinkBox } from '../../frame/link-box.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Notice } from '../../kit/notice.tsx'
import { consentWords } from './consent-mark.tsx'

/** One child and its home: the link, the teacher's private note, what was agreed to and when, and how it leaves. */
export function HomePanel({
  row,
  siblings,
  onClose,
  onChange,
  onLeave,
  onChanged,
}: {
  row: ChildRow
  siblings: readonly ChildRow[]
  onClose: () => void
  onChange: (to: Partial<ChildFields>) => void
  onLeave: () => void
  onChanged: () => void
}) {
  const { data: history } = useAsked(homesApi.consentHistory, { childId: row.id })
  const [problem, setProblem] = useState<string | null>(null)
  const [sure, setSure] = useState(false)
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape' && !isTyping(e.target)) onClose()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [onClose])
  const act = (work: Promise<unknown>) =>
    work.then(
      () => {
        setProblem(null)
        onChanged()
      },
      (e: unknown) => setProblem(wordsOf(e)),
    )
  return (
    <Card
      as="section"
      aria-label={row.name}
      className="fixed z-30 right-0 bottom-0 top-[98px] w-[min(100vw,350px)] overflow-y-auto rounded-none border-y-0 border-r-0 shadow-xl p-4 grid gap-4 content-start"
    >
      <div className="flex items-start justify-between gap-2">
        <div>
          <h2 className="font-bold text-lg">{row.name}</h2>
          <p className="text-steel">
            {row.home}
            {row.second && ` and ${row.second}`}
            {siblings.length > 0 && ` · with ${siblings.map((s) => s.given).join(', ')}`}
          </p>
        </div>
        <Button small look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {row.mayChange && (
        <div className="grid gap-2">
          <h3 className="font-semibold">Link of {row.home}</h3>
          {row.link ? (
            <LinkBox link={row.link} label={`Link of ${row.home}`} />
          ) : (
            <p className="text-steel">It is closed: nothing opens.</p>
          )}
          <div className="flex flex-wrap gap-2">
            <Button small onClick={() => void act(ask(sendApi.renewLink, { householdId: row.householdId }))}>
              {row.link ? 'New link' : 'Open a new one'}
            </Button>
            {row.link && (
              <Button small onClick={() => void act(ask(sendApi.endLink, { householdId: row.householdId }))}>
                Close it
              </Button>
            )}
          </div>
          <p className="text-sm text-steel">Whoever has it sees this home’s lessons: pass it on in person.</p>
        </div>
      )}
      {row.mayChange && (
        <label className="grid gap-1">
          <span className="font-semibold">E-mail of {row.home}</span>
          <input
            key={row.email}
            type="email"
            defaultValue={row.email}
            maxLength={200}
            placeholder="none: letters are copied by hand"
            onBlur={(e) => {
              const email = e.target.value.trim()
              if (email !== row.email && e.target.validity.valid) onChange({ email })
            }}
            className="min-h-10 rounded-lg border border-hair bg-card px-2"
          />
        </label>
      )}
      {row.mayChange && (
        <label className="grid gap-1">
          <span className="font-semibold">Private note</span>
          <textarea
            key={row.note}
            defaultValue={row.note}
            rows={3}
            maxLength={500}
            placeholder="Allergies, access needs"
            onBlur={(e) => e.target.value.trim() !== row.note && onChange({ note: e.target.value.trim() })}
            className="rounded-lg border border-hair bg-card p-2"
          />
          <span className="text-sm text-steel">
            For those who teach this class. It guides what is offered; it is no medical record.
          </span>
        </label>
      )}
      {history && history.items.length > 0 && (
        <div className="grid gap-1">
          <h3 className="font-semibold">What was agreed to</h3>
          <ul className="grid gap-1 text-sm">
            {history.items.map((c) => (
              <li key={c.at + c.kind}>
                <span className="figures">{c.day}</span> {c.given ? 'yes' : 'no'} to {consentWords[c.kind]}:{' '}
                {c.giver}
                {c.by && <span className="text-steel">, noted by {c.by}</span>}
              </li>
            ))}
          </ul>
        </div>
      )}
      {row.mayChange && (
        <div className="flex flex-wrap gap-2 items-center border-t border-hair pt-3">
          <Link
            to={`/children/${row.id}`}
            className="font-semibold underline underline-offset-4 min-h-10 inline-flex items-center"
          >
            What we keep about {row.given}
          </Link>
          {sure ? (
            <>
              <span className="text-sm basis-full">
                {row.given} leaves the class. Everything is kept for the setting’s time and can be brought
                back from Classes.
              </span>
              <Button small look="wrong" onClick={onLeave}>
                {row.given} leaves
              </Button>
              <Button small onClick={() => setSure(false)}>
                Stays
              </Button>
            </>
          ) : (
            <Button small onClick={() => setSure(true)}>
              Leaves…
            </Button>
          )}
        </div>
      )}
    </Card>
  )
}
