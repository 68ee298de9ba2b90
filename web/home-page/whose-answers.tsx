import { press } from './looks.ts'
import { useWords } from './words.ts'

/** Whose answers are given, where several children of a home are in one class. */
export function WhoseAnswers({
  among,
  chosen,
  onChoose,
}: {
  among: readonly { id: string; name: string }[]
  chosen: string | undefined
  onChoose: (childId: string) => void
}) {
  const { say } = useWords()
  if (among.length < 2) return null
  return (
    <div role="radiogroup" aria-label={say('child.whose')} className="flex gap-2 flex-wrap">
      {among.map((c) => (
        <button
          key={c.id}
          type="button"
          role="radio"
          aria-checked={c.id === chosen}
          onClick={() => onChoose(c.id)}
          className={`${press(c.id === chosen)} flex-1 px-2`}
        >
          {c.name}
        </button>
      ))}
    </div>
  )
}
