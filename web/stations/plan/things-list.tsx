import { X } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { KitItem, Lesson } from '@awlbox/core/contracts/lesson'
import { cautionsFor, swapsFor } from '@awlbox/core/plan/things'
import type { Needed } from '@awlbox/core/script/stock'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { SmallPartCheck } from './small-part-check.tsx'

/** How the list is changed by hand, and why each thing is on it. */
export interface ThingsEditing {
  lesson: Lesson
  needs: readonly Needed[]
  onChange: (kit: KitItem[]) => void
}

/** Things each home needs, counted from the table, with what can stand in for them. */
export function ThingsList({
  kit,
  needs = [],
  editing,
}: {
  kit: readonly KitItem[]
  needs?: readonly Needed[]
  editing?: ThingsEditing | undefined
}) {
  const cautions = cautionsFor(kit)
  const known = editing?.needs ?? needs
  return (
    <div>
      <ul className="grid gap-1.5">
        {kit.map((k, i) => {
          const swaps = swapsFor(k.thing, known.find((n) => n.thing === k.thing)?.uses)
            .slice(0, 2)
            .map((s) => s.name)
          return editing ? (
            <ThingRow key={i} item={k} at={i} kit={kit} swaps={swaps} editing={editing} />
          ) : (
            <li key={k.thing} className="flex gap-2 flex-wrap">
              <b className="figures">
                {k.count} {k.thing}
              </b>
              {swaps.length > 0 && <span className="text-steel">or {swaps.join(', ')}</span>}
            </li>
          )
        })}
      </ul>
      {editing && <AddThing kit={kit} onChange={editing.onChange} />}
      {editing && <LeftOut kit={kit} editing={editing} />}
      <SmallPartCheck />
      {cautions.map((c) => (
        <p key={c} className="mt-2 text-sm text-brick">
          {c}
        </p>
      ))}
      {cautions.length > 0 && (
        <p className="mt-1 text-sm text-steel">
          Guidance only: your setting’s policies and local rules come first.
        </p>
      )}
    </div>
  )
}

function ThingRow({
  item,
  at,
  kit,
  swaps,
  editing,
}: {
  item: KitItem
  at: number
  kit: readonly KitItem[]
  swaps: readonly string[]
  editing: ThingsEditing
}) {
  const set = (change: Partial<KitItem>) =>
    editing.onChange(kit.map((k, i) => (i === at ? { ...k, ...change } : k)))
  return (
    <li className="grid gap-0.5 border-b border-hair pb-1.5">
      <span className="flex items-center gap-2">
        <input
          aria-label={`How many ${item.thing}`}
          type="number"
          min={1}
          max={200}
          className={`${fieldLook} w-16 figures font-semibold`}
          value={item.count}
          onChange={(e) =>
            set({ count: Math.max(1, Math.min(200, Math.round(Number(e.target.value)) || 1)) })
          }
        />
        <ThingName
          key={item.thing}
          name={item.thing}
          taken={(name) => kit.some((k, i) => i !== at && k.thing === name)}
          onRename={(thing) => set({ thing })}
        />
        <button
          type="button"
          aria-label={`Leave out ${item.thing}`}
          title="Leave it out"
          onClick={() => editing.onChange(kit.filter((_, i) => i !== at))}
          className="size-9 shrink-0 grid place-items-center rounded-md text-steel hover:text-ink hover:bg-wash cursor-pointer"
        >
          <X size={15} />
        </button>
      </span>
      <span className="text-sm text-steel">
        <Why item={item} editing={editing} />
        {swaps.length > 0 && ` Or ${swaps.join(', ')}.`}
      </span>
    </li>
  )
}

function ThingName({
  name,
  taken,
  onRename,
}: {
  name: string
  taken: (name: string) => boolean
  onRename: (name: string) => void
}) {
  const [text, setText] = useState(name)
  const done = () => {
    const next = text.trim()
    if (next && next !== name && !taken(next)) onRename(next)
    else setText(name)
  }
  return (
    <input
      aria-label={`Name of ${name}`}
      className={`${fieldLook} flex-1 min-w-0`}
      value={text}
      maxLength={60}
      onChange={(e) => setText(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === 'Enter' && done()}
    />
  )
}

/** Where most of a thing are out at once; or that it is the teacher's own. */
function Why({ item, editing }: { item: KitItem; editing: ThingsEditing }) {
  const need = editing.needs.find((n) => n.thing === item.thing)
  const segment = need && editing.lesson.segments.find((s) => s.steps.some((x) => x.id === need.stepId))
  if (!need || !segment) return <>Put on the list by hand.</>
  const line = segment.steps.findIndex((x) => x.id === need.stepId) + 1
  return (
    <>
      {need.count === item.count ? 'Counted: ' : `Set by hand; ${need.count} are counted: `}
      <Link className="underline underline-offset-2 hover:text-ink" to={`../script?at=${segment.id}`}>
        “{segment.title}”, line {line}
      </Link>
      .
    </>
  )
}

function AddThing({ kit, onChange }: { kit: readonly KitItem[]; onChange: (kit: KitItem[]) => void }) {
  const [text, setText] = useState('')
  const thing = text.trim()
  const there = kit.some((k) => k.thing.toLowerCase() === thing.toLowerCase())
  return (
    <form
      className="flex items-center gap-2 mt-2 flex-wrap"
      onSubmit={(e) => {
        e.preventDefault()
        if (!thing || there) return
        onChange([...kit, { thing, count: 1 }])
        setText('')
      }}
    >
      <input
        aria-label="Another thing"
        placeholder="Another thing"
        className={`${fieldLook} flex-1 min-w-0`}
        value={text}
        maxLength={60}
        onChange={(e) => setText(e.target.value)}
      />
      <Button small type="submit" disabled={!thing || there}>
        Add
      </Button>
      {there && thing && <span className="text-sm text-steel">It is on the list.</span>}
    </form>
  )
}

/** What was taken off the list by hand and the script still uses, each with the way back. */
function LeftOut({ kit, editing }: { kit: readonly KitItem[]; editing: ThingsEditing }) {
  const out = editing.needs.filter((n) => editing.lesson.leftOut?.includes(n.thing))
  if (!out.length) return null
  return (
    <p className="mt-2 text-sm text-steel flex flex-wrap items-center gap-x-2 gap-y-1">
      Left out by hand:
      {out.map((n) => (
        <Button
          key={n.thing}
          small
          onClick={() => editing.onChange([...kit, { thing: n.thing, count: n.count }])}
        >
          Put back {n.thing}
        </Button>
      ))}
    </p>
  )
}
