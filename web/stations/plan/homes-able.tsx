import * as planApi from '@awlbox/core/contracts/api/plan'
import { useEffect, useState } from 'react'
import type { KitItem } from '@awlbox/core/contracts/lesson'
import type { KitSummary } from '@awlbox/core/plan/kit'
import { ask } from '../../api.ts'

const wayWords: Record<KitSummary['ways'][number]['way'], string> = {
  seated: 'sitting down',
  quiet: 'quietly',
  small: 'no small things',
  food: 'no food to count with',
  device: 'no screen meanwhile',
  colour: 'without telling colours apart',
  hearing: 'without hearing',
}
/** How many homes can do the lesson with these things, from what each said it has. */
export function HomesAble({ classId, kit }: { classId: string; kit: readonly KitItem[] }) {
  const [sum, setSum] = useState<KitSummary | null>(null)
  const key = JSON.stringify(kit)
  useEffect(() => {
    if (!classId) return
    let here = true
    ask(planApi.homesAble, { classId }, { kit: JSON.parse(key) as KitItem[] }).then(
      (r) => here && setSum(r),
      () => here && setSum(null),
    )
    return () => {
      here = false
    }
  }, [classId, key])
  if (!sum) return null
  const parts: [number, string, string][] = [
    [sum.asWritten, 'bg-ink', 'as written'],
    [sum.withSwap, 'bg-steel', 'with a swap'],
    [sum.printed, 'bg-blue', 'with a printed sheet'],
    [sum.notYet, 'bg-brick', 'not yet'],
  ]
  return (
    <div className="mt-3">
      {sum.answered > 0 && (
        <div
          className="flex h-3 rounded-full overflow-hidden bg-wash gap-px"
          role="img"
          aria-label={parts.map(([n, , w]) => `${n} ${w}`).join(', ')}
        >
          {parts.map(
            ([n, look, w]) =>
              n > 0 && <span key={w} title={`${n} ${w}`} className={look} style={{ flex: n }} />,
          )}
          {sum.homes > sum.answered && <span style={{ flex: sum.homes - sum.answered }} />}
        </div>
      )}
      <p className="mt-1.5">{sum.sentence}</p>
      {sum.ways.length > 0 && (
        <p className="text-sm">
          Another way helps in some: {sum.ways.map((w) => `${wayWords[w.way]} (${w.homes})`).join(', ')}.
          Their pages say how; say it in the script where it matters.
        </p>
      )}
      {sum.underThree > 0 && (
        <p className="text-sm text-brick">
          {sum.underThree} {sum.underThree === 1 ? 'home has' : 'homes have'} a child under three: offer
          things too big to swallow.
        </p>
      )}
    </div>
  )
}
