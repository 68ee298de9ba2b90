import type { Aim, Example } from '@awlbox/core/contracts/lesson'
import { exampleTable } from '@awlbox/core/plan/example-table'
import type { ExampleSet } from '@awlbox/core/plan/examples'
import { exampleSentence, tagsOf } from '@awlbox/core/plan/numbers/facts'
import { TableDrawing } from '../../table/drawing.tsx'

/** A row of drawn examples with what each is, and what it is to the ones before it. */
export function ExampleRow({ examples, aim }: { examples: readonly Example[]; aim: Aim }) {
  return (
    <ol className="grid gap-2 grid-cols-[repeat(auto-fill,minmax(126px,1fr))]">
      {examples.map((e, i) => (
        <li key={`${e.a}${e.op}${e.b}`} className="rounded-lg border border-hair bg-card p-2 min-w-0">
          <TableDrawing table={exampleTable(e, aim.structure)} />
          <p className="font-child text-lg mt-1 figures">{exampleSentence(e)}</p>
          <p className="text-sm text-steel leading-tight min-h-4">{tagsOf(e, examples.slice(0, i)).join(' · ')}</p>
        </li>
      ))}
    </ol>
  )
}

export function SetChooser({ sets, chosen, onChoose, aim }: { sets: readonly ExampleSet[]; chosen: number; onChoose: (i: number) => void; aim: Aim }) {
  return (
    <div role="radiogroup" aria-label="Example sets" className="grid gap-3">
      {sets.map((s, i) => (
        <div key={i} role="radio" aria-checked={i === chosen} tabIndex={0} onClick={() => onChoose(i)} onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), onChoose(i))}
          className={`rounded-xl border p-3 cursor-pointer ${i === chosen ? 'border-ink border-2 bg-wash' : 'border-hair bg-card'}`}>
          <p className="flex justify-between mb-2"><b>Set {i + 1}{i === chosen ? ' · chosen' : ''}</b><span className="text-sm text-steel figures" title="40 for different kinds of fact, 30 for different first numbers, 20 for different gaps between the parts, 10 for rising step by step">variety {s.score} of 100</span></p>
          <ExampleRow examples={s.examples} aim={aim} />
        </div>
      ))}
    </div>
  )
}
