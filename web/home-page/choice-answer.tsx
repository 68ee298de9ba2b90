import type { HomeTask } from '@awlbox/core/contracts/api/home'
import { Choice } from './choice.tsx'

/** One of a few, as words or drawn. */
export function ChoiceAnswer({
  task,
  chosen,
  locked,
  onChoose,
}: {
  task: HomeTask
  chosen: number | undefined
  locked: boolean
  onChoose: (choice: number) => void
}) {
  return (
    <div role="radiogroup" aria-label={task.prompt} className="grid gap-2">
      {task.choices.map((c, i) => (
        <button
          key={c}
          type="button"
          role="radio"
          aria-checked={chosen === i}
          disabled={locked}
          onClick={() => onChoose(i)}
          className={`min-h-13 rounded-lg border-2 px-4 py-1.5 text-start font-child text-[20px] ${chosen === i ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`}
        >
          <Choice words={c} look={task.look} />
        </button>
      ))}
    </div>
  )
}
