import type { InputHTMLAttributes } from 'react'
import { fieldLook } from './field.ts'

/** A line of words with its label over it and a hint under it. */
export function TextField({
  label,
  hint,
  onWords,
  ...input
}: Omit<InputHTMLAttributes<HTMLInputElement>, 'onChange'> & {
  label: string
  hint?: string
  onWords?: (words: string) => void
}) {
  return (
    <label className="grid gap-1">
      <span className="font-semibold">{label}</span>
      <input
        className={`w-full ${fieldLook}`}
        {...input}
        onChange={onWords && ((e) => onWords(e.target.value))}
      />
      {hint && <span className="text-sm text-steel">{hint}</span>}
    </label>
  )
}
