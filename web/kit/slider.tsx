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
  const stands = <b className={`figures text-ink text-right ${over ? '' : 'min-w-16'}`}>{words}</b>
  const slider = (
    <input
      type="range"
      aria-label={label}
      aria-valuetext={words}
      min={from}
      max={to}
      step={step}
      value={value}
      disabled={disabled}
      onChange={(e) => onChange(Number(e.target.value))}
      className={`accent-ink ${over ? 'w-full' : 'flex-1 min-w-24'}`}
    />
  )
  return over ? (
    <label className="grid gap-0.5 text-sm">
      <span className="flex justify-between">
        {name}
        {stands}
      </span>
      {slider}
    </label>
  ) : (
    <label className="flex items-center gap-2">
      {name}
      {slider}
      {stands}
    </label>
  )
}
