import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { useState } from 'react'
import { useMe } from '../../frame/me.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { unreachable } from '@awlbox/core/plan/chance/plan'
import { ownExampleHint, readOwnExample } from '@awlbox/core/plan/own-example'
import { type SearchResult, varietyWords } from '@awlbox/core/plan/examples'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import {
  rectSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { Lock, LockOpen, RefreshCw } from 'lucide-react'
import type { Aim, Example } from '@awlbox/core/contracts/lesson'
import { exampleTable } from '@awlbox/core/plan/example-table'
import type { ExampleSet } from '@awlbox/core/plan/examples'
import { exampleSentence, factKey, familyOf, tagsOf } from '@awlbox/core/plan/numbers/facts'
import { TableDrawing } from '../../table/drawing.tsx'

export interface RowActions {
  locked: (e: Example) => boolean
  onLock: (e: Example) => void
  onAnother: (e: Example) => void
  /** Takes a fact written by hand into the set; a sentence when it cannot be. */
  onOwn?: (own: Example) => string | null
  /** Puts the example at one place into another's. */
  onMove?: (from: number, to: number) => void
}
/** A row of drawn examples with what each is, and what it is to the ones before it. */
export function ExampleRow({
  examples,
  aim,
  actions,
}: {
  examples: readonly Example[]
  aim: Aim
  actions?: RowActions | undefined
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  if (!examples.length) return <p className="text-steel">No examples yet: find a set.</p>
  const list = (
    <ol className="grid gap-2 grid-cols-[repeat(auto-fill,minmax(146px,1fr))]">
      {examples.map((e, i) => (
        <ExampleCard key={factKey(e)} example={e} before={examples.slice(0, i)} aim={aim} actions={actions} />
      ))}
    </ol>
  )
  const own = actions?.onOwn && <OwnExample aim={aim} onOwn={actions.onOwn} />
  if (!actions?.onMove)
    return (
      <>
        {list}
        {own}
      </>
    )
  const move = actions.onMove
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        const at = (id: unknown) => examples.findIndex((e) => factKey(e) === id)
        if (over && active.id !== over.id) move(at(active.id), at(over.id))
      }}
    >
      <SortableContext items={examples.map(factKey)} strategy={rectSortingStrategy}>
        {list}
      </SortableContext>
      {own}
    </DndContext>
  )
}

/** A fact of one's own, typed as one would write it. What a device cannot give is said, and taken all the same. */
function OwnExample({ aim, onOwn }: { aim: Aim; onOwn: (own: Example) => string | null }) {
  const [text, setText] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  const put = () => {
    const read = readOwnExample(text, aim)
    if (!read.ok) return setSaid(read.why)
    const refused = onOwn(read.example)
    if (refused) return setSaid(refused)
    setText('')
    setSaid(
      unreachable(aim.device, [read.example], aim.structure).length
        ? `${exampleSentence(read.example)} is in, but the device never gives it.`
        : null,
    )
  }
  return (
    <form
      className="flex flex-wrap items-center gap-2 mt-2"
      onSubmit={(e) => {
        e.preventDefault()
        put()
      }}
    >
      <label className="flex items-center gap-2 text-sm text-steel">
        One of your own
        <input
          className={`${fieldLook} font-child figures w-36 text-ink`}
          value={text}
          maxLength={40}
          placeholder={ownExampleHint[aim.structure]}
          onChange={(e) => {
            setText(e.target.value)
            setSaid(null)
          }}
        />
      </label>
      <Button small type="submit" disabled={!text.trim()}>
        Put it in
      </Button>
      {said && (
        <span role="status" className="text-sm text-blue">
          {said}
        </span>
      )}
    </form>
  )
}

function ExampleCard({
  example: e,
  before,
  aim,
  actions,
}: {
  example: Example
  before: readonly Example[]
  aim: Aim
  actions?: RowActions | undefined
}) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({
    id: factKey(e),
    disabled: !actions?.onMove,
  })
  const fill = (useMe()?.houseStyle ?? defaultHouseStyle).frameFill
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`rounded-lg border bg-card p-2 min-w-0 ${actions?.locked(e) ? 'border-ink border-2' : 'border-hair'}`}
    >
      <div
        {...(actions?.onMove
          ? {
              ...attributes,
              ...listeners,
              'aria-label': `Move ${exampleSentence(e)}`,
              className: 'cursor-grab touch-none rounded-md',
            }
          : {})}
      >
        <TableDrawing table={exampleTable(e, aim.structure)} fill={fill} />
      </div>
      <p className="font-child text-lg mt-1 figures leading-tight" title={familyOf(e).join('   ')}>
        {exampleSentence(e)}
      </p>
      <p className="text-sm text-steel leading-tight min-h-4">
        {tagsOf(e, before)
          .filter((t) => aim.structure !== 'parts' || (!t.startsWith('same total') && t !== 'makes ten'))
          .join(' · ')}
      </p>
      {actions && (
        <p className="flex gap-0.5 mt-1 -mx-1">
          <button
            type="button"
            aria-pressed={actions.locked(e)}
            onClick={() => actions.onLock(e)}
            className={`min-h-8 rounded-md px-1.5 text-sm flex items-center gap-1 cursor-pointer hover:bg-wash ${actions.locked(e) ? 'font-semibold' : 'text-steel'}`}
          >
            {actions.locked(e) ? <Lock size={13} /> : <LockOpen size={13} />}
            {actions.locked(e) ? 'Kept' : 'Keep'}
          </button>
          <button
            type="button"
            title="Another like it"
            aria-label={`Another like ${exampleSentence(e)}`}
            disabled={actions.locked(e)}
            onClick={() => actions.onAnother(e)}
            className="min-h-8 rounded-md px-1.5 text-sm text-steel flex items-center gap-1 cursor-pointer hover:bg-wash disabled:opacity-40"
          >
            <RefreshCw size={13} />
            Another
          </button>
        </p>
      )}
    </li>
  )
}

/** Where one writes a fact of one's own is where one has chosen. */
const withoutOwn = ({ locked, onLock, onAnother }: RowActions): RowActions => ({ locked, onLock, onAnother })

export function SetChooser({
  sets,
  chosen,
  onChoose,
  aim,
  actions,
}: {
  sets: readonly ExampleSet[]
  chosen: number
  onChoose: (i: number) => void
  aim: Aim
  actions: (set: number) => RowActions
}) {
  return (
    <div role="radiogroup" aria-label="Example sets" className="grid gap-3">
      {sets.map((s, i) => (
        <div
          key={i}
          role="group"
          aria-label={`${s.level} set`}
          className={`rounded-xl border p-3 ${i === chosen ? 'border-ink border-2 bg-wash' : 'border-hair bg-card'}`}
        >
          <label className="flex items-center gap-2 mb-2 min-h-8 cursor-pointer">
            <input
              type="radio"
              name="example-set"
              checked={i === chosen}
              onChange={() => onChoose(i)}
              className="size-4 accent-ink"
            />
            <b>
              <span className="capitalize">{s.level}</span>
              {i === chosen ? ' · chosen' : ''}
            </b>
            <span className="flex-1" />
            <span className="text-sm text-steel figures">{varietyWords(s.examples)}</span>
          </label>
          <ExampleRow
            examples={s.examples}
            aim={aim}
            actions={i === chosen ? actions(i) : withoutOwn(actions(i))}
          />
        </div>
      ))}
    </div>
  )
}

/** Where an idea has too few facts for three sets of their own, it is said. */
export function SharedFacts({ result }: { result: SearchResult }) {
  if (!result.ok || result.shared === 0) return null
  return (
    <p className="text-sm text-steel">
      There are {result.facts} facts for this aim, so {result.shared} of them stand in more than one set. Ask
      for fewer examples or larger numbers to have sets that differ.
    </p>
  )
}
