import { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Choice } from './house-choices.ts'

/** The sides a house may take in one choice, with its own marked. */
export function ChoiceButtons({
  choice,
  style,
  onChoose,
}: {
  choice: Choice
  style: HouseStyle
  onChoose: (next: HouseStyle) => void
}) {
  return (
    <div className="flex flex-wrap gap-1.5" role="radiogroup" aria-label={choice.label}>
      {choice.options.map(([value, words]) => {
        const on = style[choice.key] === value
        return (
          <button
            key={String(value)}
            type="button"
            role="radio"
            aria-checked={on}
            onClick={() => !on && onChoose(HouseStyle.parse({ ...style, [choice.key]: value }))}
            className={`min-h-10 rounded-full border px-3 text-sm cursor-pointer disabled:cursor-default ${on ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}
          >
            {words}
          </button>
        )
      })}
    </div>
  )
}
