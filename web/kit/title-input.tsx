import { useState } from 'react'

interface Props {
  label: string
  value: string
  disabled: boolean
  onDone: (value: string) => void
  className: string
}
/** A title changed where it stands: kept on Enter or on leaving it; an empty one is not taken. */
export const TitleInput = (p: Props) => <Field key={p.value} {...p} />

function Field({ label, value, disabled, onDone, className }: Props) {
  const [text, setText] = useState(value)
  const done = () => {
    const title = text.trim()
    if (title && title !== value) onDone(title)
    else setText(value)
  }
  return (
    <input
      aria-label={label}
      disabled={disabled}
      value={text}
      maxLength={120}
      onChange={(e) => setText(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      className={className}
    />
  )
}
