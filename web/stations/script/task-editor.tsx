import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { choiceLooks, type Step, type TaskSet, type TaskSpec, taskSets } from '@awlbox/core/contracts/lesson'
import { changeTask } from '@awlbox/core/script/edit'
import { keyOf, type Source, withKey, type WorkedOut, workedOut } from '@awlbox/core/script/worked-out'
import { freshTask } from '@awlbox/core/script/fresh-task'
import { laidOf } from '@awlbox/core/look/laid'
import { readTask, taskWords } from '@awlbox/core/script/formats/task-mark'
import { useLesson } from '../../frame/lesson-context.ts'
import { kindWords } from '../../frame/task-kinds.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Select } from '../../kit/select.tsx'

const sources: Record<Source, string> = {
  sentence: 'from the number sentence',
  story: 'from the words of the line',
  table: 'from what lies on the table',
}
const kinds = Object.keys(kindWords) as TaskSpec['kind'][]
/** Kinds whose answer is one number: it is worked out, and follows. */
type Counted = Extract<TaskSpec, { kind: 'number' | 'photo' }>
const isCounted = (t: TaskSpec): t is Counted => t.kind === 'number' || t.kind === 'photo'
/** What a line's answer comes to now. */
function useWorkedOut(step: Step, kind: TaskSpec['kind'] | undefined): WorkedOut | null {
  const { proofed } = useLesson()
  const m = proofed.moments.find((x) => x.step.id === step.id)
  if (!m || !kind) return null
  // As it would be if this came back.
  const task =
    step.task?.kind === kind
      ? step.task
      : freshTask(kind, { text: step.text, worked: null, example: undefined })
  return workedOut({ ...m, step: { ...step, task } })
}

/** What comes back from a line, closed: a quiet word that opens its editor. */
export function TaskChip({ step, open, onOpen }: { step: Step; open: boolean; onOpen: () => void }) {
  const worked = useWorkedOut(step, step.task?.kind)
  const { task } = step
  if (!task) return null
  const key = keyOf(task)
  const right = task.kind === 'choice' ? [task.answer, ...(task.also ?? [])].length : 0
  const what = isCounted(task)
    ? `${task.kind} · ${key}`
    : task.kind === 'choice'
      ? `choice · ${right} of ${task.choices.length} right`
      : kindWords[task.kind]
  const how = !isCounted(task) ? '' : worked?.value === key && !task.mine ? ' worked out' : ' set by you'
  return (
    <button
      type="button"
      aria-expanded={open}
      title="What comes back from homes (Alt T)"
      onClick={(e) => {
        e.stopPropagation()
        onOpen()
      }}
      className="px-2 min-h-8 text-sm text-blue whitespace-nowrap rounded-md border border-hair hover:bg-wash cursor-pointer"
    >
      {task.unchecked ? `${task.kind} · not checked` : `${what}${how}`}
    </button>
  )
}

/** What comes back from a line, and what of it is right: edited where it stands. */
export function TaskEditor({ step, onClose }: { step: Step; onClose: () => void }) {
  const { edit, doc } = useLesson()
  const { task } = step
  const set = (next: TaskSpec | undefined, typing?: string) =>
    edit((d) => changeTask(d, step.id, () => next), typing && `task ${step.id} ${typing}`)
  return (
    // Escape closes from wherever one is in it.
    // eslint-disable-next-line jsx-a11y-x/no-noninteractive-element-interactions
    <section
      aria-label="What comes back"
      onKeyDown={(e) => {
        if (e.key !== 'Escape') return
        e.stopPropagation()
        onClose()
      }}
      className="ml-[94px] mr-2 mb-2 grid gap-2.5 rounded-lg border border-hair bg-wash p-3"
    >
      <div role="group" aria-label="Homes send back" className="flex flex-wrap gap-1.5">
        <Kind step={step} kind={null} words="nothing" onPick={() => set(undefined)} />
        {kinds.map((kind) => (
          <Kind
            key={kind}
            step={step}
            kind={kind}
            words={kindWords[kind]}
            onPick={(worked) =>
              set(freshTask(kind, { text: step.text, worked, example: doc.examples.at(-1) }))
            }
          />
        ))}
        <span className="flex-1" />
        <Button small look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      {task && !task.unchecked && isCounted(task) && (
        <NumberFields key={task.kind} step={step} task={task} onChange={set} />
      )}
      {task?.kind === 'photo' && !task.unchecked && <LaidField step={step} task={task} onChange={set} />}
      {task && !isCounted(task) && task.kind !== 'choice' && task.kind !== 'tell' && task.kind !== 'draw' && (
        <WrittenFields key={task.kind} task={task} onChange={set} />
      )}
      {task?.kind === 'choice' && <ChoiceFields task={task} onChange={set} />}
      {task && <SetFields task={task} onChange={set} />}
      {task && !looksOnly(task) && (
        <label className="flex items-center gap-2 min-h-8">
          <input
            type="checkbox"
            className="size-4 accent-ink"
            checked={task.unchecked ?? false}
            onChange={(e) => set({ ...task, unchecked: e.target.checked || undefined })}
          />
          not checked: there is no one right answer, I look at it myself
        </label>
      )}
    </section>
  )
}
function Kind({
  step,
  kind,
  words,
  onPick,
}: {
  step: Step
  kind: TaskSpec['kind'] | null
  words: string
  onPick: (worked: WorkedOut | null) => void
}) {
  const worked = useWorkedOut(step, kind ?? undefined)
  const on = (step.task?.kind ?? null) === kind
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={() => !on && onPick(worked)}
      className={`min-h-9 rounded-lg border px-2.5 text-sm cursor-pointer ${on ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}
    >
      {words}
    </button>
  )
}

type Written = Exclude<TaskSpec, { kind: 'number' | 'photo' | 'choice' | 'tell' | 'draw' }>
const looksOnly = (t: TaskSpec): boolean => t.kind === 'tell' || t.kind === 'draw'
/** How each kind is written, by an example and what its signs mean; the first word names the kind and stays. */
const written: Record<Written['kind'], { first: string; hint: string }> = {
  several: {
    first: 'tick',
    hint: 'Choices with | between them, a * after each right one; none right is an answer too.',
  },
  sentence: {
    first: 'sentence',
    hint: 'The sentence in signs. Any true one with the same numbers is right; tiles of other numbers are added.',
  },
  ways: {
    first: 'ways',
    hint: 'of 7 · add “, 3 parts”, “, no nought”, “, turned count” (2 + 5 and 5 + 2 are two ways) as your script says it.',
  },
  order: { first: 'order', hint: 'In the right order, | between them. Homes get them mixed.' },
  gaps: { first: 'run', hint: 'The whole run; what is left out stands in brackets: 10, 20, (30), 40.' },
  share: { first: 'share', hint: 'How many on how many plates: 10 on 3. The rest is left over.' },
  match: { first: 'match', hint: 'Pairs with = inside and | between: 3 = three | 4 = four.' },
  own: { first: 'own', hint: '“5 doubles”, “3 that make 10” or “3 sums”.' },
  line: { first: 'line', hint: 'The ends, then the numbers to be placed: 0 to 100: 30, 50.' },
  circles: { first: 'circles', hint: 'The numerals, a comma between: 3, 5.' },
  cross: { first: 'cross', hint: 'How many go, of how many: 4 of 7.' },
  record: {
    first: 'record',
    hint: 'How many rounds; “, take from 10” or “, add to 6” where each begins with the same number.',
  },
}
/** A task in pieces, written as in notes and read at every key: what cannot be read is said, and what was there stays. */
function WrittenFields({
  task,
  onChange,
}: {
  task: Written
  onChange: (next: TaskSpec, typing?: string) => void
}) {
  const { first, hint } = written[task.kind]
  const body = (t: TaskSpec): string =>
    taskWords({ ...t, mine: undefined, unchecked: undefined, sets: undefined }).slice(first.length + 1)
  const [text, setText] = useState(body(task))
  const [known, setKnown] = useState(task)
  // Undone or changed elsewhere: the field follows.
  if (known !== task && body(known) !== body(task)) {
    setKnown(task)
    setText(body(task))
  }
  const read = (words: string): TaskSpec | null => {
    const t = readTask(`${first} ${words.trim()}`)
    return t?.kind === task.kind ? t : null
  }
  const wrong = read(text) === null
  return (
    <label className="grid gap-1">
      <span className="text-sm text-steel">{hint}</span>
      <input
        value={text}
        maxLength={500}
        spellCheck={false}
        aria-label={`What is right: ${kindWords[task.kind]}`}
        aria-invalid={wrong}
        onChange={(e) => {
          setText(e.target.value)
          const next = read(e.target.value)
          if (!next) return
          const set = {
            ...next,
            ...(task.unchecked ? { unchecked: true } : {}),
            ...(task.sets ? { sets: task.sets } : {}),
          }
          setKnown(set as Written)
          onChange(set, 'written')
        }}
        className={`${fieldLook} w-full font-child ${wrong ? '!border-brick' : ''}`}
      />
      {wrong && (
        <span role="status" className="text-sm text-brick">
          Not read yet; what homes get is still “{body(task)}”.
        </span>
      )}
    </label>
  )
}

const laidChoices = [
  { value: '', words: 'any way of showing it, or as the line says' },
  { value: 'in a frame', words: 'in a ten frame, from its first place on' },
  { value: 'in 2 parts', words: 'in two parts, any split' },
  { value: 'in 3 parts', words: 'in three parts, any split' },
  { value: 'shared on 2', words: 'as many on each of two plates' },
  { value: 'shared on 3', words: 'as many on each of three plates' },
  { value: 'in a row', words: 'in one row' },
  { value: 'as a tally', words: 'a tally on paper' },
]
/** What a photo is looked at for, beside how many there are. */
function LaidField({
  step,
  task,
  onChange,
}: {
  step: Step
  task: Extract<TaskSpec, { kind: 'photo' }>
  onChange: (next: TaskSpec) => void
}) {
  const words = task.laid
    ? taskWords({ kind: 'photo', things: 1, laid: task.laid }).replace(/^photo of 1, /, '')
    : ''
  const read = laidOf({ prompt: step.text, spec: { ...task, laid: undefined } })
  const own = laidChoices.some((c) => c.value === words) ? [] : [{ value: words, words }]
  return (
    <label className="grid gap-0.5 text-sm text-steel">
      Looked for in it
      <Select
        value={words}
        choices={[...laidChoices, ...own]}
        onChange={(v) => {
          const next = readTask(v ? `photo of 1, ${v}` : 'photo of 1')
          onChange({ ...task, laid: next?.kind === 'photo' ? next.laid : undefined })
        }}
      />
      {!task.laid && read && (
        <span>
          The line says: {taskWords({ kind: 'photo', things: 1, laid: read }).replace(/^photo of 1, /, '')}.
        </span>
      )}
    </label>
  )
}

const setWords: Record<TaskSet, string> = { gentle: 'gentle', middle: 'middle', stretch: 'stretch' }
/** For whom it is: all, or one or two of the three sets. */
function SetFields({ task, onChange }: { task: TaskSpec; onChange: (next: TaskSpec) => void }) {
  const on = task.sets ?? []
  const toggle = (set: TaskSet): void => {
    const next = taskSets.filter((x) => (x === set ? !on.includes(x) : on.includes(x)))
    onChange({ ...task, sets: next.length && next.length < taskSets.length ? next : undefined })
  }
  return (
    <div role="group" aria-label="For which set" className="flex flex-wrap items-center gap-1.5 text-sm">
      <span className="text-steel">for</span>
      <button
        type="button"
        aria-pressed={!on.length}
        onClick={() => onChange({ ...task, sets: undefined })}
        className={chip(!on.length)}
      >
        everybody
      </button>
      {taskSets.map((set) => (
        <button
          key={set}
          type="button"
          aria-pressed={on.includes(set)}
          onClick={() => toggle(set)}
          className={chip(on.includes(set))}
        >
          {setWords[set]}
        </button>
      ))}
    </div>
  )
}
const chip = (on: boolean): string =>
  `min-h-8 rounded-lg border px-2.5 cursor-pointer ${on ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`

/** How many: as it is worked out, or as one says. */
function NumberFields({
  step,
  task,
  onChange,
}: {
  step: Step
  task: Counted
  onChange: (next: TaskSpec, typing?: string) => void
}) {
  const worked = useWorkedOut(step, task.kind)
  const key = keyOf(task)!
  const [also, setAlso] = useState(task.kind === 'number' ? (task.also ?? []).join(', ') : '')
  const against = worked !== null && worked.value !== key
  const most = task.kind === 'number' ? 1000 : 40
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
      <label className="grid gap-0.5 text-sm text-steel">
        {task.kind === 'number' ? 'Right answer' : 'Things in the photo'}
        <input
          type="number"
          min={0}
          max={most}
          value={key}
          onChange={(e) => {
            const n = Math.max(0, Math.min(most, Math.round(Number(e.target.value))))
            onChange({ ...withKey(task, n), mine: n === worked?.value ? undefined : true }, 'answer')
          }}
          className={`${fieldLook} w-24 figures text-ink ${against ? '!border-brick' : ''}`}
        />
      </label>
      {task.kind === 'number' && (
        <label className="grid gap-0.5 text-sm text-steel">
          Of what
          <input
            value={task.unit ?? ''}
            placeholder="no word"
            maxLength={30}
            onChange={(e) => onChange({ ...task, unit: e.target.value.trimStart() || undefined }, 'unit')}
            className={`${fieldLook} w-28 text-ink`}
          />
        </label>
      )}
      {task.kind === 'number' && (
        <label className="grid gap-0.5 text-sm text-steel">
          Also right
          <input
            value={also}
            placeholder="none"
            onChange={(e) => {
              setAlso(e.target.value)
              const more = [...e.target.value.matchAll(/\d+/g)]
                .map((m) => Number(m[0]))
                .filter((n) => n <= 1000)
              onChange({ ...task, also: more.length ? more.slice(0, 8) : undefined }, 'also')
            }}
            className={`${fieldLook} w-32 figures text-ink`}
          />
        </label>
      )}
      <p className="text-sm min-h-10 flex items-center gap-2 flex-wrap">
        {worked === null ? (
          <span className="text-steel">Nothing here says what it comes to: it stands as you set it.</span>
        ) : against ? (
          <>
            <span className="text-brick">
              Comes to {worked.value} {sources[worked.from]}.
            </span>
            <Button small onClick={() => onChange({ ...withKey(task, worked.value), mine: undefined })}>
              Take {worked.value}
            </Button>
          </>
        ) : (
          <span className="text-moss">
            {worked.value}, worked out {sources[worked.from]}
            {task.mine ? '' : '; it follows when the numbers change'}.
          </span>
        )}
      </p>
    </div>
  )
}

const lookWords: Record<(typeof choiceLooks)[number], string> = {
  words: 'words',
  dots: 'dots of the number',
  shapes: 'the shape it names',
  things: 'so many things',
}
/** The choices, with the right ones marked: one or several. */
function ChoiceFields({
  task,
  onChange,
}: {
  task: Extract<TaskSpec, { kind: 'choice' }>
  onChange: (next: TaskSpec, typing?: string) => void
}) {
  const right = [task.answer, ...(task.also ?? [])]
  const put = (choices: string[], marked: number[], typing?: string) => {
    const [answer = 0, ...also] = marked.filter((i) => i < choices.length).sort((a, b) => a - b)
    const { also: _, ...rest } = task
    onChange({ ...rest, choices, answer, ...(also.length ? { also } : {}) }, typing)
  }
  return (
    <ol className="grid gap-1.5" aria-label="Choices">
      {task.choices.map((c, i) => (
        <li key={i} className="flex items-center gap-2">
          <label className="flex items-center gap-1.5 text-sm whitespace-nowrap">
            <input
              type="checkbox"
              className="size-4 accent-ink"
              checked={!task.unchecked && right.includes(i)}
              disabled={task.unchecked || (right.length === 1 && right.includes(i))}
              onChange={(e) =>
                put(task.choices, e.target.checked ? [...right, i] : right.filter((x) => x !== i))
              }
            />
            right
          </label>
          <input
            aria-label={`Choice ${i + 1}`}
            value={c}
            maxLength={80}
            onChange={(e) =>
              e.target.value && put(task.choices.with(i, e.target.value), right, `choice ${i}`)
            }
            className={`${fieldLook} flex-1 min-w-0 font-child`}
          />
          <button
            type="button"
            aria-label={`Take out choice ${i + 1}`}
            disabled={task.choices.length <= 2}
            onClick={() =>
              put(
                task.choices.filter((_, k) => k !== i),
                right.filter((x) => x !== i).map((x) => (x > i ? x - 1 : x)),
              )
            }
            className="size-8 grid place-items-center text-steel hover:text-brick disabled:opacity-30 cursor-pointer"
          >
            <X size={15} />
          </button>
        </li>
      ))}
      {task.choices.length < 6 && (
        <li>
          <Button
            small
            look="quiet"
            onClick={() => put([...task.choices, `Choice ${task.choices.length + 1}`], right)}
          >
            <Plus size={14} aria-hidden /> another choice
          </Button>
        </li>
      )}
      <li>
        <Select
          label="Shown to the child as"
          look="small"
          value={task.look ?? 'words'}
          choices={choiceLooks.map((value) => ({ value, words: lookWords[value] }))}
          onChange={(look) => onChange({ ...task, look: look === 'words' ? undefined : look })}
        />
      </li>
    </ol>
  )
}
