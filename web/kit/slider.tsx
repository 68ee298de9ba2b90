import { Slider as Radix } from 'radix-ui'

/** A slider with its name and, in words, what it stands at. */
export function Slider({
  label,
  shown = true,
  over = false,
  value,
  from,
  to,
  step,
  words,
  disabled = false,
  onChange,
}: {
  label: string
  /** The name in sight; false where only those who hear the page are told it, other words where those in sight are shorter. */
  shown?: boolean | string
  /** Name and value above the slider, instead of on either side. */
  over?: boolean
  value: number
  from: number
  to: number
  step: number
  words: string
  disabled?: boolean
  onChange: (value: number) => void
}) {
  const name = shown !== false && (
    <span className={over ? '' : 'min-w-20'}>{shown === true ? label : shown}</span>
  )
  const says = <b className={`figures text-ink text-right ${over ? '' : 'min-w-16'}`}>{words}</b>
  const slider = (
    <Radix.Root
      min={from}
      max={to}
      step={step}
      value={[value]}
      disabled={disabled}
      onValueChange={([v]) => v !== undefined && onChange(v)}
      className={`relative flex items-center h-6 touch-none select-none data-disabled:opacity-50 ${over ? 'w-full' : 'flex-1 min-w-24'}`}
    >
      <Radix.Track className="relative h-1 flex-1 rounded-full bg-hair">
        <Radix.Range className="absolute h-full rounded-full bg-ink" />
      </Radix.Track>
      <Radix.Thumb
        aria-label={label}
        aria-valuetext={words}
        className="block size-[18px] rounded-full bg-ink border-2 border-card shadow-sm cursor-grab active:cursor-grabbing"
      />
    </Radix.Root>
  )
  return over ? (
    <div className="grid gap-0.5 text-sm">
      <span className="flex justify-between">
        {name}
        {says}
      </span>
      {slider}
    </div>
  ) : (
    <div className="flex items-center gap-2">
      {name}
      {slider}
      {says}
    </div>
  )
}
