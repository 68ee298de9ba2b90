import { Check, ChevronDown } from 'lucide-react'
import { Select as Radix } from 'radix-ui'
import { useState } from 'react'

/** What may be chosen: its value, and the words it is chosen by. */
export interface Choice<V extends string> {
  value: V
  words: string
}
const looks = {
  /** A field of a form. */
  field: 'min-h-10 rounded-lg border border-hair bg-card px-2.5',
  /** A small one among other small things. */
  small: 'min-h-8 rounded-md border border-hair bg-card px-1.5 text-sm',
  /** Words in a line that can be changed. */
  plain: 'min-h-8 rounded-md px-1 text-sm text-steel hover:text-ink',
  /** The same where many stand under one another: without a sign that it opens. */
  bare: 'min-h-8 rounded-md px-1 text-sm text-steel hover:text-ink hover:underline decoration-dotted underline-offset-4',
} as const

/**
 * One of several, chosen from a list that opens. `hint` stands where nothing is chosen yet; with `act` the choice is an
 * act and the field goes back to its hint.
 */
export function Select<V extends string>({
  label,
  value,
  choices,
  onChange,
  hint = '',
  look = 'field',
  disabled = false,
  className = '',
  open: opened,
  onOpen,
  onClosed,
}: {
  /** Its name, where no label stands around it. */
  label?: string
  value: V | ''
  choices: readonly Choice<V>[]
  onChange: (value: V) => void
  hint?: string
  look?: keyof typeof looks
  disabled?: boolean
  className?: string
  /** Whether its list is open, where something else opens it too. */
  open?: boolean
  onOpen?: (open: boolean) => void
  /** Where the keyboard goes once something was chosen or not; else it stays with the field. */
  onClosed?: () => void
}) {
  const [own, setOwn] = useState(false)
  const open = opened ?? own
  const chosen = choices.find((c) => c.value === value)
  return (
    <Radix.Root
      value={value}
      onValueChange={(v) => onChange(v as V)}
      disabled={disabled}
      open={open}
      onOpenChange={onOpen ?? setOwn}
    >
      <Radix.Trigger
        aria-label={label && (chosen ? `${label}: ${chosen.words}` : label)}
        className={`inline-flex items-center justify-between gap-1 min-w-0 max-w-full text-left cursor-pointer disabled:cursor-default disabled:opacity-60 data-placeholder:text-steel ${looks[look]} ${className}`}
      >
        <span className="truncate">{chosen?.words ?? hint}</span>
        {look !== 'bare' && (
          <Radix.Icon asChild>
            <ChevronDown size={15} aria-hidden className="shrink-0 text-steel" />
          </Radix.Icon>
        )}
      </Radix.Trigger>
      {/* A list that is closed is not there: a page has many, and is drawn anew at every key. */}
      {open && (
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={4}
            collisionPadding={8}
            onCloseAutoFocus={
              onClosed &&
              ((e) => {
                e.preventDefault()
                onClosed()
              })
            }
            className="z-50 max-h-[min(22rem,var(--radix-select-content-available-height))] min-w-(--radix-select-trigger-width) max-w-[calc(100vw-16px)] overflow-hidden rounded-lg border border-hair bg-card shadow-lg"
          >
            <Radix.Viewport className="p-1">
              {choices.map((c) => (
                <Radix.Item
                  key={c.value}
                  value={c.value}
                  className="flex items-center gap-2 min-h-9 rounded-md pl-1.5 pr-3 cursor-pointer select-none outline-none data-highlighted:bg-wash data-[state=checked]:font-semibold"
                >
                  <span className="w-4 shrink-0">
                    <Radix.ItemIndicator>
                      <Check size={15} aria-hidden />
                    </Radix.ItemIndicator>
                  </span>
                  <Radix.ItemText>{c.words}</Radix.ItemText>
                </Radix.Item>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      )}
    </Radix.Root>
  )
}
/** Choices that are called what they are. */
export const named = <V extends string>(values: readonly V[]): Choice<V>[] =>
  values.map((value) => ({ value, words: value }))
