import { useRef, useState } from 'react'
import { readTypedNumber } from '@awlbox/core/look/typed-number'
import { wordsOf, isAway } from '../api.ts'
import type { HomeTask } from '@awlbox/core/contracts/api/home'
import type { Draft } from './drafts.ts'
import { Pieces } from './pieces.tsx'

type Value = Draft['answers'][string]

/** Whether nothing was answered yet; nothing ticked where nothing fits is an answer. */
export function isOpen(task: HomeTask, a: Value | undefined): boolean {
  if (!a) return true
  switch (task.kind) {
    case 'number':
    case 'tell':
      return !a.text?.trim()
    case 'choice':
      return a.choice === undefined
    case 'photo':
      return !a.photoId && !a.photoName && !a.text?.trim()
    case 'several':
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
  onChange,
  onPhoto,
}: {
  task: HomeTask
  n: number
  of: number
  value: Value
  locked: boolean
  /** Whether photos of this child's work may be kept. */
  photos: boolean
  onChange: (v: Value) => void
  onPhoto: (file: File) => Promise<{ photoId?: string; photoName: string }>
}) {
  return (
    <section
      aria-label={`Task ${n} of ${of}`}
      className="rounded-xl border-2 border-hair bg-card p-4 grid gap-3"
    >
      <p className="text-steel text-sm">
        {n} of {of}
      </p>
      <p className="font-child text-[20px] leading-snug">{task.prompt}</p>
      {task.kind === 'number' && (
        <NumberAnswer
          value={value.text ?? ''}
          locked={locked}
          onChange={(text) => onChange({ text })}
          label={task.prompt}
        />
      )}
      {task.kind === 'choice' && (
        <div role="radiogroup" aria-label={task.prompt} className="grid gap-2">
          {task.choices.map((c, i) => (
            <button
              key={c}
              type="button"
              role="radio"
              aria-checked={value.choice === i}
              disabled={locked}
              onClick={() => onChange({ choice: i })}
              className={`min-h-13 rounded-lg border-2 px-4 text-left font-child text-[20px] ${value.choice === i ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`}
            >
              {c}
            </button>
          ))}
        </div>
      )}
      {task.kind === 'tell' && (
        <textarea
          aria-label={task.prompt}
          rows={3}
          maxLength={500}
          disabled={locked}
          value={value.text ?? ''}
          onChange={(e) => onChange({ text: e.target.value })}
          className="rounded-lg border-2 border-ink bg-card p-2 text-[17px]"
        />
      )}
      <Pieces task={task} given={value.given} locked={locked} onGive={(given) => onChange({ given })} />
      {task.kind === 'photo' && photos && (
        <PhotoAnswer
          value={value}
          locked={locked}
          onPhoto={onPhoto}
          onChange={(v) => onChange({ ...value, ...v })}
        />
      )}
      {task.kind === 'photo' && (
        <label className="grid gap-1">
          <span>
            {photos
              ? 'No photo? Say what lies there.'
              : 'You asked us to keep no photos: say what lies there instead.'}
          </span>
          <textarea
            rows={2}
            maxLength={500}
            disabled={locked}
            value={value.text ?? ''}
            onChange={(e) => onChange({ ...value, text: e.target.value })}
            className="rounded-lg border border-hair bg-card p-2 text-[17px]"
          />
        </label>
      )}
    </section>
  )
}

function NumberAnswer({
  value,
  locked,
  onChange,
  label,
}: {
  value: string
  locked: boolean
  onChange: (t: string) => void
  label: string
}) {
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
      {odd && (
        <p role="status" className="text-brick flex-1 min-w-40">
          We can’t read this as a number. Write it like this: 7
        </p>
      )}
      {read !== null && String(read) !== value.trim() && (
        <p role="status" className="text-steel">
          read as {read}
        </p>
      )}
    </div>
  )
}

function PhotoAnswer({
  value,
  locked,
  onPhoto,
  onChange,
}: {
  value: Value
  locked: boolean
  onPhoto: (f: File) => Promise<{ photoId?: string; photoName: string }>
  onChange: (v: Value) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const [shown, setShown] = useState<string | null>(null)
  const choose = async (file: File) => {
    setBusy(true)
    setProblem(null)
    try {
      onChange(await onPhoto(file))
      setShown(URL.createObjectURL(file))
    } catch (error) {
      setProblem(isAway(error) ? 'No connection just now. The photo waits on this phone.' : wordsOf(error))
    } finally {
      setBusy(false)
    }
  }
  const have = value.photoId ?? value.photoName
  return (
    <div className="grid gap-2">
      {shown && (
        <img
          src={shown}
          alt="What you chose to send"
          className="rounded-lg max-h-64 object-contain bg-wash w-full"
        />
      )}
      <button
        type="button"
        disabled={locked || busy}
        onClick={() => input.current?.click()}
        className="min-h-13 rounded-lg border-2 border-ink bg-card font-semibold text-[17px]"
      >
        {busy ? 'Sending the photo…' : have ? 'Take another photo' : 'Take a photo'}
      </button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        className="hidden"
        aria-label="Photo"
        onChange={(e) => {
          const f = e.target.files?.[0]
          e.target.value = ''
          if (f) void choose(f)
        }}
      />
      {have && !busy && (
        <p role="status" className="text-moss font-semibold">
          {value.photoId ? 'The photo is here.' : 'The photo waits on this phone.'}
        </p>
      )}
      {problem && (
        <p role="alert" className="text-brick">
          {problem}
        </p>
      )}
      <p className="text-sm text-steel">
        Only the table, please: no faces, no names, no letters with your address. Place and time are taken out
        of the photo. Only your setting’s teachers see it.
      </p>
    </div>
  )
}
