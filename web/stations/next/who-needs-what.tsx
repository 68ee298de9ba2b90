import { addDays, formatISO } from 'date-fns'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import * as nextApi from '@awlbox/core/contracts/api/next'
import type { ClassStanding } from '@awlbox/core/contracts/api/next'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

/** Groups for one idea, each with its reason, and the next lesson drafted from what is known. */
export function WhoNeedsWhat({ data, onIdea }: { data: ClassStanding; onIdea: (id: string) => void }) {
  const [ideaId, setIdeaId] = useState<string | null>(null)
  const choices = [
    ...data.readyFor.map((r) => ({ value: r.id, words: `${r.name} · ${r.ready} of ${r.of} are ready` })),
    ...data.ideas
      .filter((i) => !data.readyFor.some((r) => r.id === i.id))
      .map((i) => ({ value: i.id, words: `${i.name} · once more` })),
  ]
  return (
    <section aria-label="Who needs what" className="grid gap-2">
      <h2 className="font-bold text-lg">Who needs what</h2>
      {data.ideas.length > 1 && (
        <Select
          label="Idea"
          value={data.idea}
          choices={data.ideas.map((i) => ({ value: i.id, words: i.name }))}
          onChange={onIdea}
        />
      )}
      {data.groups.map((g) => (
        <article key={g.title} className="rounded-xl border border-hair p-3">
          <h3 className="font-semibold">
            {g.title}{' '}
            <span className="font-normal text-steel text-sm">
              {g.children.length} {g.children.length === 1 ? 'child' : 'children'}
            </span>
          </h3>
          <p className="text-sm text-steel">{g.reason}</p>
          <Members of={g.children} />
        </article>
      ))}
      {choices.length > 0 && (
        <Draft
          classId={data.class.id}
          choices={choices}
          value={ideaId ?? choices[0]!.value}
          onChange={setIdeaId}
        />
      )}
    </section>
  )
}
const withRung = (rung: string): string =>
  rung === 'head' ? 'in the head' : rung === 'things' ? 'with things' : `on a ${rung}`
/** The children of a group, each with its rung; the numbers once where all have the same. */
function Members({ of }: { of: ClassStanding['groups'][number]['children'] }) {
  const same = of.every((c) => c.numbers === of[0]!.numbers)
  return (
    <>
      {same && <p className="text-sm">Numbers, {of[0]!.numbers}</p>}
      <ul className="mt-1 flex flex-wrap gap-x-4">
        {of.map((c) => (
          <li key={c.childId} className="min-h-8">
            <Link
              to={`/children/${c.childId}/progress`}
              className="font-semibold underline decoration-hair underline-offset-4"
            >
              {c.name}
            </Link>{' '}
            <span className="text-sm text-steel">
              {!same && `${c.numbers} · `}
              {withRung(c.rung)}
            </span>
          </li>
        ))}
      </ul>
    </>
  )
}
function Draft({
  classId,
  choices,
  value,
  onChange,
}: {
  classId: string
  choices: { value: string; words: string }[]
  value: string
  onChange: (id: string) => void
}) {
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const navigate = useNavigate()
  const draft = () => {
    setBusy(true)
    setProblem(null)
    ask(
      nextApi.draftNext,
      { classId },
      { ideaId: value, day: formatISO(addDays(new Date(), 2), { representation: 'date' }) },
    )
      .then(({ id }) => navigate(`/lessons/${id}/plan`))
      .catch((e: unknown) => {
        setProblem(wordsOf(e))
        setBusy(false)
      })
  }
  return (
    <article className="rounded-xl border border-hair p-3 grid gap-2">
      <h3 className="font-semibold">The next lesson</h3>
      <Select label="On which idea" value={value} choices={choices} onChange={onChange} />
      <Button look="act" disabled={busy} onClick={draft}>
        {busy ? 'Drafting…' : 'Draft the next lesson'}
      </Button>
      <p className="text-sm text-steel">
        With three number sets, and what the last lessons leave: promises to keep, ways of thinking to meet,
        questions few answered. You change it all in Plan.
      </p>
      {problem && <Notice kind="wrong">{problem}</Notice>}
    </article>
  )
}
