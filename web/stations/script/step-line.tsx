import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical, X } from 'lucide-react'
import { memo, useEffect, useRef, type KeyboardEvent } from 'react'
import type { LessonDocument } from '../../frame/document.ts'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { type Step, type Verb, verbs } from '@awlbox/core/contracts/lesson'
import { changeStep, insertStep, moveStep, removeStep } from '@awlbox/core/script/edit'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
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
  const onKey = (e: KeyboardEvent<HTMLTextAreaElement>) => {
    if (e.key === 'Enter' && !e.shiftKey) {
      e.preventDefault()
      add(...follows[step.verb])
    } else if (e.altKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
      e.preventDefault()
      edit((d) => moveStep(d, step.id, e.key === 'ArrowUp' ? -1 : 1))
      requestAnimationFrame(() => field.current?.focus())
    } else if (e.key === 'Backspace' && step.text === '') {
      e.preventDefault()
      edit((d) => removeStep(d, step.id))
      onStep(before ?? after)
    } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && !e.shiftKey) {
      const next = e.key === 'ArrowUp' ? before : after
      const edge =
        e.key === 'ArrowUp'
          ? field.current?.selectionStart === 0
          : field.current?.selectionEnd === step.text.length
      if (next && edge) {
        e.preventDefault()
        onStep(next)
      }
    }
  }
  const onText = (text: string) => {
    const clean = text.replace(/\n/g, ' ')
    // The first word of a line sets its kind: "ask How many?" or "wait: 5 s".
    const kind = clean.match(new RegExp(`^(${verbs.join('|')})(?::\\s*|\\s+)$`, 'i'))
    edit(
      (d) =>
        changeStep(d, step.id, kind ? { verb: kind[1]!.toLowerCase() as Verb, text: '' } : { text: clean }),
      kind ? undefined : `line ${step.id}`,
    )
  }
  return (
    <li
      ref={setNodeRef}
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
        <select
          aria-label="Kind of line"
          disabled={!mayChange}
          value={step.verb}
          onChange={(e) => edit((d) => changeStep(d, step.id, { verb: e.target.value as Verb }))}
          className="w-[66px] min-h-8 bg-transparent text-sm font-semibold text-steel rounded-md capitalize appearance-none cursor-pointer hover:text-ink"
        >
          {verbs.map((v) => (
            <option key={v} value={v}>
              {v}
            </option>
          ))}
        </select>
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
        {step.task && (
          <span className="text-sm text-blue py-1.5 whitespace-nowrap" title="Homes answer this">
            {step.task.kind === 'number'
              ? `answer ${step.task.answer}`
              : step.task.kind === 'choice'
                ? `choose 1 of ${step.task.choices.length}`
                : `photo of ${step.task.things}`}
          </span>
        )}
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
      {current && mayChange && <QuickAdds step={step} style={style} onAdd={add} />}
    </li>
  )
})

/** Buttons for the two commonest additions; w and p do the same when no line is being typed. */
function QuickAdds({
  step,
  style,
  onAdd,
}: {
  step: Step
  style: HouseStyle
  onAdd: (verb: Verb, text: string) => void
}) {
  const { edit } = useLesson()
  useEffect(() => {
    const onKey = (e: globalThis.KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLTextAreaElement ||
        e.target instanceof HTMLInputElement ||
        e.target instanceof HTMLSelectElement
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
