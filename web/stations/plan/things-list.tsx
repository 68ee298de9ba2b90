import type { KitItem } from '@awlbox/core/contracts/lesson'
import { cautionsFor, swapsFor } from '@awlbox/core/plan/things'
import { SmallPartCheck } from './small-part-check.tsx'

/** Things each home needs, counted from the table, with what can stand in for them. */
export function ThingsList({ kit }: { kit: readonly KitItem[] }) {
  const cautions = cautionsFor(kit)
  return (
    <div>
      <ul className="grid gap-1.5">
        {kit.map((k) => {
          const swaps = swapsFor(k.thing)
            .slice(0, 2)
            .map((s) => s.name)
          return (
            <li key={k.thing} className="flex gap-2 flex-wrap">
              <b className="figures">
                {k.count} {k.thing}
              </b>
              {swaps.length > 0 && <span className="text-steel">or {swaps.join(', ')}</span>}
            </li>
          )
        })}
      </ul>
      <SmallPartCheck />
      {cautions.map((c) => (
        <p key={c} className="mt-2 text-sm text-brick">
          {c}
        </p>
      ))}
      {cautions.length > 0 && (
        <p className="mt-1 text-sm text-steel">
          Guidance only: your setting’s policies and local rules come first.
        </p>
      )}
    </div>
  )
}
