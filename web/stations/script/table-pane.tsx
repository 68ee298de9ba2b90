import { useMemo } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { cautionsFor, swapsFor } from '@awlbox/core/plan/things'
import { inHand } from '@awlbox/core/script/table/description'
import { emptyTable } from '@awlbox/core/script/table/state'
import { useLesson } from '../../frame/lesson-context.ts'
import { Button } from '../../kit/button.tsx'
import { TableDrawing } from '../../table/drawing.tsx'

/** The table at the step one is on, the states before and after it, and what is out. */
export function TablePane({ segment, stepId, onStep }: { segment: Segment | null; stepId: string | null; onStep: (id: string) => void }) {
  const { proofed, me, doc } = useLesson()
  const moments = useMemo(() => proofed.moments.filter((m) => m.segment.id === segment?.id), [proofed, segment])
  const found = moments.findIndex((m) => m.step.id === stepId)
  const i = found >= 0 ? found : Math.max(0, lastChange(moments))
  const here = moments[i]
  const states = useMemo(() => moments.filter((m, k) => k === 0 || m.after !== m.before), [moments])
  const step = (by: number) => {
    const next = moments[i + by]
    if (next) onStep(next.step.id)
  }
  const table = here?.after ?? emptyTable
  const most = proofed.needs.find((n) => n.thing === 'two-faced counters')?.count ?? 0
  const swaps = swapsFor('two-faced counters').slice(0, 3)
  return (
    <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
      <div className="flex items-center gap-3">
        <h2 className="font-bold truncate">{here ? `The table at “${short(here.step.text) || here.step.verb}”` : 'The table'}</h2>
        <span className="text-steel text-sm whitespace-nowrap">{here ? `line ${i + 1} of ${moments.length} · as viewers see it` : ''}</span>
        <span className="flex-1" />
        <Button small onClick={() => step(-1)} disabled={i <= 0} aria-label="Line before">‹ line</Button>
        <Button small onClick={() => step(1)} disabled={i >= moments.length - 1} aria-label="Line after">line ›</Button>
      </div>
      <div className="flex gap-2 overflow-x-auto pb-1 min-h-[104px]" role="group" aria-label="How the table changes">
        {states.map((m) => {
          const on = m.step.id === here?.step.id
          return (
            <button key={m.step.id} type="button" aria-pressed={on} onClick={() => onStep(m.step.id)} className={`shrink-0 w-[112px] rounded-lg border p-1 text-left cursor-pointer ${on ? 'border-saffron border-2 bg-here' : 'border-hair bg-card'}`}>
              <TableDrawing table={m.after} fill={me.houseStyle.frameFill} className="pointer-events-none" /><span className="block text-[12px] text-steel truncate">{short(m.step.text) || m.step.verb}</span>
            </button>
          )
        })}
      </div>
      <div className="relative rounded-xl border border-hair bg-card p-2">{table.mats.length === 0 && <p className="absolute inset-0 grid place-items-center text-[#4c5a62]">Nothing is on the table yet. A line that begins with Do puts things out.</p>}<TableDrawing table={table} fill={me.houseStyle.frameFill} className="max-h-[calc(100dvh-410px)] min-h-[200px]" /></div>
      {here?.error && <p role="alert" className="text-brick">{here.error.message} The table stays as it was.</p>}
      <p className="flex gap-x-5 gap-y-1 flex-wrap"><span><span className="text-steel">On the table</span> <b className="figures">{inHand(table)}</b></span>{most > 0 && <span className="text-steel">Most at once in this lesson: <b className="text-ink figures">{most}</b></span>}</p>
      {most > 0 && <p className="flex gap-2 flex-wrap items-center"><span className="text-steel">At home, a swap:</span>{swaps.map((s) => <span key={s.name} className="rounded-lg border border-hair bg-card px-2.5 py-1 text-sm font-semibold">{s.name}</span>)}{cautionsFor(doc.kit).some((c) => c.startsWith('Small parts')) && <span className="text-brick text-sm">small parts: keep from under-threes</span>}</p>}
    </div>
  )
}
const short = (t: string): string => (t.length > 34 ? `${t.slice(0, 32)}…` : t)
const lastChange = (ms: readonly { before: unknown; after: unknown }[]): number => ms.findIndex((m) => m.after !== m.before)
