import { Calendar } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useId, useState } from 'react'
import { DayPicker } from 'react-day-picker'
import { enGB } from 'react-day-picker/locale'
import 'react-day-picker/style.css'
import { readDay, writeDay } from '@awlbox/core/dates'

interface Props {
  label: string
  /** ISO date; empty for none. */
  value: string
  /** ISO date; empty where it was taken out and may be. */
  onChange: (iso: string) => void
  required?: boolean
  disabled?: boolean
  className?: string
}
/** A day, typed as it is said here (day, month, year) or taken from a calendar. What is no day is said and not kept. */
export const DateField = (p: Props) => <Field key={p.value} {...p} />

function Field({ label, value, onChange, required = false, disabled = false, className = '' }: Props) {
  const [text, setText] = useState(value && writeDay(value))
  const [open, setOpen] = useState(false)
  const help = useId()
  const day = text.trim() === '' ? '' : readDay(text)
  const wrong = day === null || (required && day === '')
  const done = () => {
    if (!wrong && day !== null && day !== value) onChange(day)
    else if (!wrong) setText(value && writeDay(value))
  }
  return (
    <span className={`relative inline-flex items-center ${className}`}>
      <input
        aria-label={label}
        aria-invalid={wrong}
        aria-describedby={wrong ? help : undefined}
        inputMode="numeric"
        autoComplete="off"
        placeholder="day/month/year"
        value={text}
        disabled={disabled}
        onChange={(e) => setText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return
          e.preventDefault()
          done()
        }}
        className={`min-h-10 w-full rounded-lg border bg-card pl-2.5 pr-10 figures ${wrong ? 'border-brick' : 'border-hair'}`}
      />
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          type="button"
          disabled={disabled}
          aria-label="Open the calendar"
          className="absolute right-1 size-8 grid place-items-center rounded-md text-steel hover:bg-wash cursor-pointer disabled:opacity-40"
        >
          <Calendar size={16} />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            className="z-50 rounded-xl border border-hair bg-card text-ink p-3 shadow-lg calendar"
          >
            <DayPicker
              mode="single"
              locale={enGB}
              weekStartsOn={1}
              // eslint-disable-next-line jsx-a11y-x/no-autofocus -- a calendar that was just opened is walked by keys
              autoFocus
              {...(value
                ? { selected: new Date(`${value}T12:00:00`), defaultMonth: new Date(`${value}T12:00:00`) }
                : {})}
              onSelect={(picked) => {
                setOpen(false)
                if (picked) onChange(picked.toLocaleDateString('sv'))
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {wrong && (
        <span
          id={help}
          role="alert"
          className="absolute top-full left-0 mt-0.5 z-10 rounded bg-card text-sm text-brick whitespace-nowrap px-1"
        >
          {text.trim() === '' ? 'A day is needed.' : 'Not a day: write day/month/year.'}
        </span>
      )}
    </span>
  )
}
