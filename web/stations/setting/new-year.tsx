import { useState } from 'react'
import type { ClassOfSetting } from '@awlbox/core/contracts/api/classes'
import { usualYear, yearPlan } from '@awlbox/core/setting/year'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Select } from '../../kit/select.tsx'

const leaves = 'leave'
const toValue = (to: string | null): string => to ?? leaves
const fromValue = (value: string): string | null => (value === leaves ? null : value)

/** Both years side by side before anything moves: each class says where its children go, each child may differ. */
export function NewYear({
  classes,
  keptAfterLeaving,
  onClose,
  onTurn,
}: {
  classes: readonly ClassOfSetting[]
  keptAfterLeaving: number | null
  onClose: () => void
  onTurn: (moves: { childId: string; from: string; to: string | null }[]) => Promise<void>
}) {
  const [goes, setGoes] = useState(() => usualYear(classes))
  const [one, setOne] = useState<ReadonlyMap<string, string | null>>(new Map())
  const [busy, setBusy] = useState(false)
  const plan = yearPlan(classes, goes, one)
  const choices = [...classes.map((c) => ({ value: c.id, words: c.name })), { value: leaves, words: 'Leave' }]
  const moved = plan.moves.filter((m) => m.to !== null).length
  const went = new Map(plan.moves.map((m) => [m.childId, m.to]))
  return (
    <div className="grid gap-4 md:grid-cols-2">
      <Card as="section" aria-label="This year" className="p-4 grid gap-4 content-start">
        <h2 className="font-bold">This year</h2>
        {classes.map((c) => (
          <div key={c.id} className="grid gap-2">
            <div className="flex flex-wrap items-center gap-2">
              <b>{c.name}</b>
              <span className="text-steel figures">{c.children.length}</span>
              <span aria-hidden>→</span>
              <Select
                label={`Where ${c.name} go`}
                look="small"
                value={toValue(goes.get(c.id) ?? null)}
                choices={choices.map((x) => (x.value === c.id ? { ...x, words: `Stay in ${c.name}` } : x))}
                onChange={(v) => {
                  setGoes((g) => new Map(g).set(c.id, fromValue(v)))
                  // A whole class was decided anew: single choices of its children are gone.
                  setOne((o) => new Map([...o].filter(([id]) => !c.children.some((k) => k.id === id))))
                }}
              />
            </div>
            <ul className="grid gap-0.5">
              {c.children.map((k) => (
                <li key={k.id} className="flex items-center gap-2 pl-3">
                  <span className="flex-1">{k.name}</span>
                  <Select
                    label={`Where ${k.name} goes`}
                    look="plain"
                    value={toValue(went.has(k.id) ? went.get(k.id)! : c.id)}
                    choices={choices.map((x) => (x.value === c.id ? { ...x, words: 'stays' } : x))}
                    onChange={(v) => setOne((o) => new Map(o).set(k.id, fromValue(v)))}
                  />
                </li>
              ))}
            </ul>
          </div>
        ))}
      </Card>
      <Card
        as="section"
        aria-label="Next year"
        className="p-4 grid gap-4 content-start md:sticky md:top-4 md:self-start"
      >
        <h2 className="font-bold">Next year</h2>
        {plan.after.map((c) => (
          <div key={c.id} className="grid gap-1">
            <p>
              <b>{c.name}</b> <span className="text-steel figures">{c.children.length}</span>
            </p>
            <p className="text-steel">
              {c.children.length ? c.children.map((k) => k.name).join(', ') : 'Nobody yet: the new ones.'}
            </p>
          </div>
        ))}
        <div className="grid gap-1">
          <p>
            <b>Leave</b> <span className="text-steel figures">{plan.leaving.length}</span>
          </p>
          <p className="text-steel">
            {plan.leaving.length ? plan.leaving.map((k) => k.name).join(', ') : 'Nobody.'}
          </p>
        </div>
        <div className="border-t border-hair pt-3 grid gap-1 text-sm">
          <p>
            <b>Kept:</b> everything. Replies, photos, judgements and standings go along with each child;
            lessons stay with their class.
          </p>
          <p>
            <b>Deleted now:</b> nothing. Of those who leave, everything goes{' '}
            {keptAfterLeaving === null
              ? 'when somebody deletes it.'
              : `by itself after ${keptAfterLeaving} days; before that they can come back.`}
          </p>
          <p>
            <b>Links:</b> homes keep theirs. Those who leave see nothing more.
          </p>
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Button
            look="main"
            disabled={busy || plan.moves.length === 0}
            onClick={() => {
              setBusy(true)
              void onTurn(plan.moves).finally(() => setBusy(false))
            }}
          >
            {busy ? 'Moving…' : `Move ${moved} up, let ${plan.leaving.length} leave`}
          </Button>
          <Button onClick={onClose}>Not yet</Button>
          <span className="text-steel">It can be taken back for 30 days.</span>
        </div>
      </Card>
    </div>
  )
}
