import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import type { RevisionPage } from '@awlbox/core/contracts/api/lessons'
import { useAsked } from './use-asked.ts'
import { useState } from 'react'
import { compareLessons, type Comparison } from '@awlbox/core/script/compare'
import { ask } from '../api.ts'
import { Button } from '../kit/button.tsx'
import { Dialog } from '../kit/dialog.tsx'
import { useLesson } from './lesson-context.ts'

/** Every revision of the lesson: name one, compare any two, bring one back (itself a change that can be undone). */
export function HistoryDialog({ onClose }: { onClose: () => void }) {
  const { record, edit } = useLesson()
  const { data, mutate } = useAsked(lessonsApi.revisions, { lessonId: record.id })
  const [more, setMore] = useState<RevisionPage | null>(null)
  const [picked, setPicked] = useState<number[]>([])
  const [compared, setCompared] = useState<{ from: number; to: number; what: Comparison } | null>(null)
  const [naming, setNaming] = useState<number | null>(null)
  const docOf = async (revision: number) =>
    (await ask(lessonsApi.readRevision, { lessonId: record.id, revision })).doc
  const bring = async (revision: number) => {
    const doc = await docOf(revision)
    edit(() => doc)
    onClose()
  }
  const compare = async (one: number, two: number) => {
    const [from, to] = [Math.min(one, two), Math.max(one, two)]
    const [a, b] = await Promise.all([docOf(from), docOf(to)])
    setCompared({ from, to, what: compareLessons(a, b) })
  }
  const pick = (revision: number) => {
    const next = picked.includes(revision)
      ? picked.filter((r) => r !== revision)
      : [...picked, revision].slice(-2)
    setPicked(next)
    setCompared(null)
    if (next.length === 2) void compare(next[0]!, next[1]!)
  }
  const items = [...(data?.items ?? []), ...(more?.items ?? [])]
  const older = more ? more.next : (data?.next ?? null)
  return (
    <Dialog open onClose={onClose} title="History" wide>
      <p className="text-steel mb-2">Tick two revisions to see what changed between them.</p>
      <ul className="max-h-64 overflow-auto border-y border-hair">
        {items.map((r, i) => (
          <li key={r.revision} className="flex items-center gap-3 border-b border-hair last:border-0 py-1">
            <label className="flex items-center gap-2 figures min-h-9 w-32">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={picked.includes(r.revision)}
                onChange={() => pick(r.revision)}
              />
              Revision {r.revision}
            </label>
            {naming === r.revision ? (
              <form
                className="flex-1 flex gap-2"
                onSubmit={(e) => {
                  e.preventDefault()
                  const typed = new FormData(e.currentTarget).get('name')
                  const name = typeof typed === 'string' ? typed.trim() : ''
                  setNaming(null)
                  if (name)
                    void ask(
                      lessonsApi.nameRevision,
                      { lessonId: record.id, revision: r.revision },
                      { name },
                    ).then(() => mutate())
                }}
              >
                <input
                  name="name"
                  // eslint-disable-next-line jsx-a11y-x/no-autofocus -- the field has just been asked for
                  autoFocus
                  aria-label={`Name of revision ${r.revision}`}
                  maxLength={60}
                  defaultValue={r.name ?? ''}
                  className="min-h-9 flex-1 min-w-0 rounded-lg border border-hair bg-card px-2"
                />
                <Button small type="submit">
                  Name it
                </Button>
              </form>
            ) : (
              <>
                <b className="truncate max-w-44">{r.name ?? ''}</b>
                <span className="text-steel text-sm flex-1 truncate">
                  {new Date(r.at).toLocaleString('en-GB', {
                    day: 'numeric',
                    month: 'short',
                    hour: '2-digit',
                    minute: '2-digit',
                  })}
                  {r.by ? ` · ${r.by}` : ''}
                </span>
                {record.mayChange && (
                  <Button small look="quiet" onClick={() => setNaming(r.revision)}>
                    {r.name ? 'Rename' : 'Name'}
                  </Button>
                )}
                {i === 0 ? (
                  <span className="text-steel w-24 text-center">now</span>
                ) : (
                  <Button
                    small
                    disabled={!record.mayChange}
                    onClick={() => void bring(r.revision)}
                    className="w-24"
                  >
                    Bring back
                  </Button>
                )}
              </>
            )}
          </li>
        ))}
      </ul>
      {older !== null && (
        <Button
          small
          look="quiet"
          onClick={() =>
            void ask(lessonsApi.revisions, { lessonId: record.id, before: older }).then((p) =>
              setMore({ items: [...(more?.items ?? []), ...p.items], next: p.next }),
            )
          }
        >
          Older ones
        </Button>
      )}
      {compared && <Changes {...compared} />}
    </Dialog>
  )
}

const kindWords = { added: 'added', 'taken out': 'taken out', moved: 'moved', changed: 'changed' } as const
function Changes({ from, to, what }: { from: number; to: number; what: Comparison }) {
  return (
    <section className="mt-4" aria-label="What changed">
      <h3 className="font-bold mb-1">
        From revision {from} to {to}
      </h3>
      {what.same && <p className="text-steel">Nothing differs.</p>}
      {what.rest.map((r) => (
        <p key={r}>{r}</p>
      ))}
      {what.segments.map((s) => (
        <details key={s.id} open={s.kind === 'changed'} className="border-b border-hair py-1">
          <summary className="cursor-pointer min-h-8">
            <b>{s.title}</b>{' '}
            <span className={s.kind === 'taken out' ? 'text-brick' : 'text-steel'}>{kindWords[s.kind]}</span>
            {s.steps.some((x) => x.numbers) && <span className="text-blue"> · numbers changed</span>}
          </summary>
          <ul className="pl-4 text-sm">
            {s.steps.slice(0, 30).map((x, i) => (
              <li key={i} className="py-0.5">
                <span className="text-steel capitalize">{x.verb}</span>{' '}
                {x.before !== null && x.before !== x.after && (
                  <del className="text-brick">{x.before || '(empty)'}</del>
                )}{' '}
                {x.after !== null && x.before !== x.after && (
                  <ins className="no-underline font-semibold">{x.after || '(empty)'}</ins>
                )}
                {x.kind === 'moved' && (
                  <span>
                    {x.after} <span className="text-steel">(moved)</span>
                  </span>
                )}
              </li>
            ))}
          </ul>
        </details>
      ))}
    </section>
  )
}
