import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical, X } from 'lucide-react'
import { memo, useEffect, useRef, useState, type KeyboardEvent } from 'react'
import type { LessonDocument } from '../../frame/document.ts'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { type Step, type Verb, verbs } from '@awlbox/core/contracts/lesson'
import { changeStep, insertStep, moveStep, removeStep } from '@awlbox/core/script/edit'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { kindOffer } from '@awlbox/core/script/kind-offer'
import { Button } from '../../kit/button.tsx'
import { Select } from '../../kit/select.tsx'
import { TaskChip, TaskEditor } from './task-editor.tsx'
import { FindingLine } from './finding-line.tsx'

/** The kind of line that usually follows. */
const follows: Record<Verb, [Verb, string]> = {
  say: ['say', ''],
  ask: ['wait', '5 s'],
  wait: ['reveal', ''],
  do: ['say', ''],
  count: ['ask', ''],
  write: ['say', ''],
  reveal: ['write', ''],
  pause: ['say', ''],
  sound: ['say', ''],
}
/** Lines that homes can answer: what is asked, done, or done while the film stands still. */
const comesBack: ReadonlySet<Verb> = new Set(['ask', 'do', 'pause'])
const kinds = verbs.map((value) => ({ value, words: value }))
const hints: Record<Verb, string> = {
  say: 'What you say',
  ask: 'A question',
  wait: '5 s',
  do: 'Put 7 on the frame',
  count: '1 to 7, touching each',
  write: '4 + 3 = 7',
  reveal: 'The answer',
  pause: 'What to do with the film stopped (90 s)',
  sound: 'Clap 4 times',
}

/** One line of the script. Typing in one costs the others nothing: what each is given stays the same while nothing in it changes. */
export const StepLine = memo(function StepLine({
  step,
  index,
  segmentId,
  before,
  after,
  seconds,
  current,
  onStep,
  findings,
  style,
  edit,
  mayChange,
}: {
  step: Step
  index: number
  segmentId: string
  /** The lines before and after it, where there are any. */
  before: string | null
  after: string | null
  seconds: number
  current: boolean
  onStep: (id: string | null) => void
  findings: readonly Finding[]
  style: HouseStyle
  edit: LessonDocument['edit']
  mayChange: boolean
}) {
  const field = useRef<HTMLTextAreaElement>(null)
  const [choosing, setChoosing] = useState(false)
  const [asking, setAsking] = useState(false)
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: step.id,
    disabled: !mayChange,
  })
  useEffect(() => {
    // Hands on the table keep the keyboard there: the line is written, not typed.
    const atTable = document.activeElement?.getAttribute('role') === 'application'
    if (current && !atTable && document.activeElement !== field.current) field.current?.focus()
  }, [current])
  const add = (verb: Verb, text: string) => {
    const id = newId()
    edit((d) => insertStep(d, segmentId, index + 1, { id, verb, text }))
    onStep(id)
  }
  const offer = current && mayChange ? kindOffer(step) : null
  const takeOffer = () => {
    if (offer) edit((d) => changeStep(d, step.id, offer))
  }
  const move = (by: -1 | 1) => {
    edit((d) => moveStep(d, step.id, by))
    requestAnimationFrame(() => field.current?.focus())
  }
  const takeOut = () => {
    edit((d) => removeStep(d, step.id))
    onStep(before ?? after)
  }
  const onKey = (e: KeyboardEvent<HTMLTextAreaElement>) => {
    const { selectionStart, selectionEnd } = e.currentTarget
    const plain = !e.shiftKey
    const acts: Record<string, (() => void) | false> = {
      'Alt k': () => setChoosing(true),
      'Alt Enter': takeOffer,
      'Alt t': comesBack.has(step.verb) && mayChange && (() => setAsking(!asking)),
      'Alt ArrowUp': () => move(-1),
      'Alt ArrowDown': () => move(1),
      Enter: plain && (() => add(...follows[step.verb])),
      Backspace: step.text === '' && takeOut,
      ArrowUp: plain && before !== null && selectionStart === 0 && (() => onStep(before)),
      ArrowDown: plain && after !== null && selectionEnd === step.text.length && (() => onStep(after)),
    }
    const act = acts[`${e.altKey ? 'Alt ' : ''}${e.key.length === 1 ? e.key.toLowerCase() : e.key}`]
    if (!act) return
    e.preventDefault()
    act()
  }
  const onText = (text: string) => {
    edit((d) => changeStep(d, step.id, { text: text.replace(/\n/g, ' ') }), `line ${step.id}`)
  }
  return (
    <li
      ref={setNodeRef}
      data-step={step.id}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={isDragging ? 'opacity-70 relative z-10' : ''}
    >
      {/* eslint-disable-next-line jsx-a11y-x/click-events-have-key-events, jsx-a11y-x/no-static-element-interactions -- keys reach the line through its field */}
      <div
        className={`group flex items-start gap-1 rounded-lg pl-0.5 border-l-[3px] ${current ? 'bg-here border-saffron' : 'border-transparent hover:bg-wash'}`}
        onClick={() => onStep(step.id)}
      >
        <button
          type="button"
          aria-label={`Move line ${index + 1}`}
          {...attributes}
          {...listeners}
          disabled={!mayChange}
          className="w-4 h-8 grid place-items-center text-steel opacity-0 group-hover:opacity-100 focus:opacity-100 cursor-grab touch-none"
        >
          <GripVertical size={14} />
        </button>
        <Select
          label="Kind of line"
          look="bare"
          className="w-[66px] font-semibold capitalize"
          disabled={!mayChange}
          value={step.verb}
          choices={kinds}
          onChange={(verb) => edit((d) => changeStep(d, step.id, { verb }))}
          open={choosing}
          onOpen={setChoosing}
          onClosed={() => field.current?.focus()}
        />
        <textarea
          ref={field}
          rows={1}
          aria-label={`${step.verb}, line ${index + 1}`}
          disabled={!mayChange}
          value={step.text}
          placeholder={hints[step.verb]}
          maxLength={600}
          onChange={(e) => onText(e.target.value)}
          onFocus={() => !current && onStep(step.id)}
          onKeyDown={onKey}
          className={`flex-1 min-w-0 resize-none bg-transparent py-1 leading-6 [field-sizing:content] outline-none placeholder:text-steel/70 ${step.verb === 'write' ? 'font-child font-bold' : ''}`}
        />
        {step.deliberate && <span className="text-sm text-blue py-1.5 whitespace-nowrap">on purpose</span>}
        <span className="figures text-sm text-steel py-1.5 w-10 text-right shrink-0">
          {seconds >= 0.5 ? `${Math.round(seconds)} s` : ''}
        </span>
        {mayChange && (
          <button
            type="button"
            aria-label={`Take out line ${index + 1}`}
            onClick={(e) => {
              e.stopPropagation()
              edit((d) => removeStep(d, step.id))
            }}
            className="size-8 grid place-items-center text-steel opacity-0 group-hover:opacity-100 focus:opacity-100 hover:text-brick cursor-pointer"
          >
            <X size={15} />
          </button>
        )}
      </div>
      {findings.length > 0 && (
        <div className="pl-[88px] pr-2">
          {findings.map((f, i) => (
            <FindingLine key={f.code + i} finding={f} />
          ))}
        </div>
      )}
      {step.task && (
        <div className="pl-[94px] pb-1">
          <TaskChip step={step} open={asking} onOpen={() => setAsking(!asking)} />
        </div>
      )}
      {asking && mayChange && (
        <TaskEditor
          step={step}
          onClose={() => {
            setAsking(false)
            field.current?.focus()
          }}
        />
      )}
      {offer && (
        <p className="flex flex-wrap items-center gap-2 pl-[92px] pr-2 pb-1 text-sm text-steel">
          Meant as a line of its own kind?
          <Button small look="act" title="Alt Enter" onClick={takeOffer}>
            Make it {offer.verb}: {offer.text.length > 24 ? `${offer.text.slice(0, 22)}…` : offer.text}
          </Button>
        </p>
      )}
      {current && mayChange && (
        <QuickAdds
          step={step}
          style={style}
          onAdd={add}
          onAsk={comesBack.has(step.verb) && !step.task && !asking ? () => setAsking(true) : null}
        />
      )}
    </li>
  )
})

/** Buttons for the two commonest additions; w and p do the same when no line is being typed. */
function QuickAdds({
  step,
  style,
  onAdd,
  onAsk,
}: {
  step: Step
  style: HouseStyle
  onAdd: (verb: Verb, text: string) => void
  /** Makes the line one that comes back; null where it does already, or cannot. */
  onAsk: (() => void) | null
}) {
  const { edit } = useLesson()
  useEffect(() => {
    const onKey = (e: globalThis.KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLTextAreaElement ||
        e.target instanceof HTMLInputElement ||
        (e.target instanceof Element && e.target.closest('[role=combobox], [role=listbox]') !== null)
      if (typing || e.ctrlKey || e.metaKey || e.altKey) return
      if (e.key === 'w') onAdd('wait', `${style.defaultWait} s`)
      if (e.key === 'p') onAdd('pause', `Your turn (${style.defaultPause} s)`)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [onAdd, style])
  const quiet = 'text-sm text-steel rounded-md px-2 min-h-8 hover:bg-wash hover:text-ink cursor-pointer'
  return (
    <div className="flex flex-wrap gap-1 pl-[84px]">
      <button type="button" className={quiet} onClick={() => onAdd('wait', `${style.defaultWait} s`)}>
        + wait
      </button>
      <button
        type="button"
        className={quiet}
        onClick={() => onAdd('pause', `Your turn (${style.defaultPause} s)`)}
      >
        + pause
      </button>
      <button type="button" className={quiet} onClick={() => onAdd('do', '')}>
        + do
      </button>
      {onAsk && (
        <button type="button" className={quiet} title="Alt T" onClick={onAsk}>
          homes answer this
        </button>
      )}
      <button type="button" className={quiet} onClick={() => onAdd(step.verb, step.text)}>
        copy
      </button>
      <button
        type="button"
        className={quiet}
        aria-pressed={step.deliberate ?? false}
        onClick={() =>
          edit((d) => changeStep(d, step.id, { deliberate: step.deliberate ? undefined : true }))
        }
      >
        {step.deliberate ? 'not on purpose' : 'a mistake on purpose'}
      </button>
    </div>
  )
}
