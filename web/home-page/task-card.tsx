import { readTypedNumber } from '@awlbox/core/look/typed-number'
import type { HomeTask } from '@awlbox/core/contracts/api/home'
import { ChoiceAnswer } from './choice-answer.tsx'
import type { DraftAnswer } from './drafts.ts'
import { DrawingPad } from './drawing.tsx'
import { PhotoAnswers, SoundAnswer } from './media-answers.tsx'
import { Pieces } from './pieces.tsx'
import type { Reply } from './reply.ts'
import { useWords, written } from './words.ts'

/** Whether nothing was answered yet; nothing ticked where nothing fits is an answer. */
export function isOpen(task: HomeTask, a: DraftAnswer | undefined): boolean {
  if (!a) return true
  switch (task.kind) {
    case 'number':
      return !a.text?.trim()
    case 'choice':
      return a.choice === undefined
    case 'photo':
    case 'tell':
    case 'draw':
      return !a.media?.length && !a.text?.trim() && !a.drawing
    case 'several':
    case 'cross':
      return a.given === undefined
    default:
      return !a.given?.some((g) => g.trim())
  }
}

export function TaskCard({
  task,
  n,
  of,
  value,
  locked,
  photos,
  sound,
  reply,
  onChange,
}: {
  task: HomeTask
  n: number
  of: number
  value: DraftAnswer
  locked: boolean
  /** Whether photos of this child's work may be kept, and its voice. */
  photos: boolean
  sound: boolean
  reply: Pick<Reply, 'add' | 'remove' | 'describe'>
  onChange: (v: DraftAnswer) => void
}) {
  const { say } = useWords()
  const media = {
    media: value.media ?? [],
    locked,
    onAdd: (kind: Parameters<Reply['add']>[1], file: Blob) => reply.add(task.id, kind, file),
    onRemove: (id: string) => reply.remove(task.id, id),
    onDescribe: (id: string, text: string) => reply.describe(task.id, id, text),
  }
  const text = (v: string) => onChange({ ...value, text: v })
  return (
    <section
      aria-label={say('task.label', { n, total: of })}
      className="rounded-xl border-2 border-hair bg-card p-4 grid gap-3"
    >
      <p className="text-steel text-sm">{say('task.of', { n, total: of })}</p>
      <p {...written} className="font-child text-[20px] leading-snug">
        {task.prompt}
      </p>
      {task.kind === 'number' && (
        <NumberAnswer
          value={value.text ?? ''}
          unit={task.slots[0] ?? null}
          locked={locked}
          onChange={text}
          label={task.prompt}
        />
      )}
      {task.kind === 'choice' && (
        <ChoiceAnswer
          task={task}
          chosen={value.choice}
          locked={locked}
          onChoose={(choice) => onChange({ ...value, choice })}
        />
      )}
      <Pieces
        task={task}
        given={value.given}
        locked={locked}
        onGive={(given) => onChange({ ...value, given })}
      />
      {task.kind === 'draw' && (
        <DrawingPad
          value={value.drawing ?? ''}
          locked={locked}
          onChange={(drawing) => onChange({ ...value, drawing })}
        />
      )}
      {task.kind === 'tell' && sound && <SoundAnswer {...media} />}
      {task.kind === 'tell' && (
        <Words
          label={say(sound ? 'sound.instead' : 'sound.refused')}
          name={task.prompt}
          value={value.text}
          locked={locked}
          onChange={text}
        />
      )}
      {(task.kind === 'photo' || task.kind === 'draw') && photos && (
        <PhotoAnswers {...media} clips={task.kind === 'photo'} />
      )}
      {(task.kind === 'photo' || task.kind === 'draw') && (
        <Words
          label={say(photos ? 'photo.instead' : 'photo.refused')}
          value={value.text}
          locked={locked}
          onChange={text}
        />
      )}
    </section>
  )
}
function Words({
  label,
  name,
  value,
  locked,
  onChange,
}: {
  label: string
  /** What it answers, for who hears the page. */
  name?: string
  value: string | undefined
  locked: boolean
  onChange: (text: string) => void
}) {
  return (
    <label className="grid gap-1">
      <span>{label}</span>
      <textarea
        rows={2}
        maxLength={500}
        dir="auto"
        aria-label={name}
        disabled={locked}
        value={value ?? ''}
        onChange={(e) => onChange(e.target.value)}
        className="rounded-lg border border-hair bg-card p-2 text-[17px]"
      />
    </label>
  )
}

function NumberAnswer({
  value,
  unit,
  locked,
  onChange,
  label,
}: {
  value: string
  unit: string | null
  locked: boolean
  onChange: (t: string) => void
  label: string
}) {
  const { say } = useWords()
  const read = value.trim() ? readTypedNumber(value) : null
  const odd = value.trim() !== '' && read === null
  return (
    <div className="flex items-center gap-3 flex-wrap">
      <input
        aria-label={label}
        aria-invalid={odd}
        inputMode="numeric"
        autoComplete="off"
        maxLength={40}
        disabled={locked}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        className="w-28 min-h-16 rounded-lg border-2 border-ink bg-card text-center font-child text-[34px] font-bold"
      />
      {unit && (
        <span {...written} className="font-child text-[22px]">
          {unit}
        </span>
      )}
      {odd && (
        <p role="status" className="text-brick flex-1 min-w-40">
          {say('number.unread')}
        </p>
      )}
      {read !== null && String(read) !== value.trim() && (
        <p role="status" className="text-steel">
          {say('number.read', { n: read })}
        </p>
      )}
    </div>
  )
}
