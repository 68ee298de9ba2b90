import { Select } from '../../kit/select.tsx'
import { told } from '@awlbox/core/findings/say'
import { refusalCode } from '@awlbox/core/script/proof/count-rules'
import { memo, useMemo, useState } from 'react'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Moment } from '@awlbox/core/script/simulate'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { cautionsFor, swapsFor, thingNamed } from '@awlbox/core/plan/things'
import { changeStep, insertStep } from '@awlbox/core/script/edit'
import { type Gesture, gestureText, layWords, readyLines, mergedWith } from '@awlbox/core/script/gesture'
import { inHand } from '@awlbox/core/script/table/description'
import { emptyTable, type MatKind } from '@awlbox/core/script/table/state'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'
import { type Hand, TableBoard } from '../../table/board.tsx'
import { TableDrawing } from '../../table/drawing.tsx'
import { HowRead } from './how-read.tsx'

const hands: readonly { hand: Hand; words: string }[] = [
  { hand: 'saffron', words: 'Put saffron' },
  { hand: 'blue', words: 'Put blue' },
  { hand: 'turn', words: 'Turn over' },
  { hand: 'cross', words: 'Cross out' },
  { hand: 'take', words: 'Take' },
]
const layable: readonly (readonly [MatKind, number, string])[] = [
  ['frame', 1, 'ten frame'],
  ['frame', 2, 'two ten frames'],
  ['frame', 3, 'three ten frames'],
  ['row', 1, 'row'],
  ['table', 1, 'open table'],
  ['parts', 2, 'part-whole'],
  ['parts', 3, 'part-whole, 3 parts'],
  ['parts', 5, 'part-whole, 5 parts'],
  ['bar', 2, 'bar'],
  ['shelves', 2, 'two shelves'],
  ['plates', 2, '2 plates'],
  ['plates', 3, '3 plates'],
  ['plates', 4, '4 plates'],
  ['jar', 1, 'jar'],
  ['line', 1, 'number line'],
  ['square', 1, 'hundred square'],
  ['dots', 1, 'dot card'],
  ['pairs', 1, 'pair plate'],
  ['rail', 1, 'rail of pegs'],
  ['tower', 1, 'tower'],
  ['hands', 1, 'hands'],
  ['coins', 1, 'coins'],
  ['skittles', 10, 'skittles'],
  ['dice', 1, 'a die'],
  ['dice', 2, 'two dice'],
  ['spinner', 1, 'spinner'],
  ['bowl', 1, 'bowl with digits'],
  ['scene', 1, 'picture'],
]

/** The table at the step one is on, the states before and after it, and what is out. Hands on it write the script. */
export function TablePane({
  segment,
  stepId,
  onStep,
}: {
  segment: Segment | null
  stepId: string | null
  onStep: (id: string) => void
}) {
  const { proofed, me, doc, edit, record } = useLesson()
  const [hand, setHand] = useState<Hand>('saffron')
  const moments = useMemo(
    () => proofed.moments.filter((m) => m.segment.id === segment?.id),
    [proofed, segment],
  )
  const found = moments.findIndex((m) => m.step.id === stepId)
  const i = found >= 0 ? found : Math.max(0, lastChange(moments))
  const here = moments[i]
  const states = useMemo(() => moments.filter((m, k) => k === 0 || m.after !== m.before), [moments])
  const step = (by: number) => {
    const next = moments[i + by]
    if (next) onStep(next.step.id)
  }
  const table = here?.after ?? emptyTable
  const counted = proofed.needs
    .filter((n) => thingNamed(n.thing)?.properties.includes('counted'))
    .sort((a, b) => b.count - a.count)[0]
  const most = counted?.count ?? 0
  const swaps = swapsFor(counted?.thing ?? '', counted?.uses).slice(0, 3)
  /** A gesture grows the line one is on when it says the same, and otherwise writes the next one. */
  const onGesture = (g: Gesture) => {
    if (!segment) return
    const merged = here?.step.verb === 'do' ? mergedWith(here.step.text, g) : null
    if (here && merged) {
      edit((d) => changeStep(d, here.step.id, { text: merged }))
      return
    }
    const blank = here?.step.verb === 'do' && here.step.text.trim() === ''
    if (here && blank) {
      edit((d) => changeStep(d, here.step.id, { text: gestureText(g) }))
      return
    }
    const id = newId()
    edit((d) =>
      insertStep(d, segment.id, here ? here.stepIndex + 1 : 0, { id, verb: 'do', text: gestureText(g) }),
    )
    onStep(id)
  }
  const mayHand = record.mayChange && segment !== null
  return (
    <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
      <div className="flex items-center gap-3">
        <h2 className="font-bold truncate">
          {here ? `The table at “${short(here.step.text) || here.step.verb}”` : 'The table'}
        </h2>
        <span className="text-steel text-sm whitespace-nowrap">
          {here ? `line ${i + 1} of ${moments.length}` : ''}
        </span>
        <span className="flex-1" />
        <Button small onClick={() => step(-1)} disabled={i <= 0} aria-label="Line before">
          ‹ line
        </Button>
        <Button small onClick={() => step(1)} disabled={i >= moments.length - 1} aria-label="Line after">
          line ›
        </Button>
      </div>
      <Filmstrip states={states} at={here?.step.id ?? null} fill={me.houseStyle.frameFill} onStep={onStep} />
      {mayHand && (
        <div
          className="flex flex-wrap items-center gap-1.5"
          role="group"
          aria-label="What your hand does on the table"
        >
          {hands.map((h) => (
            <button
              key={h.hand}
              type="button"
              aria-pressed={hand === h.hand}
              onClick={() => setHand(h.hand)}
              className={`min-h-9 rounded-lg border px-2.5 text-sm cursor-pointer ${hand === h.hand ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}
            >
              {h.words}
            </button>
          ))}
          <Select
            label="Lay out a mat"
            value=""
            hint="Lay out…"
            className="text-sm"
            choices={[
              ...layable.flatMap(([mat, , words], k) => (layWords[mat] ? [{ value: String(k), words }] : [])),
              ...readyLines.map(([words, line]) => ({ value: line, words })),
            ]}
            onChange={(k) => {
              const mat = layable[Number(k)]
              onGesture(mat ? { type: 'lay', mat: mat[0], parts: mat[1] } : { type: 'ready', line: k })
            }}
          />
        </div>
      )}
      {here && (
        <HowRead
          moment={here}
          fill={me.houseStyle.frameFill}
          onChoose={mayHand ? (text) => edit((d) => changeStep(d, here.step.id, { text })) : null}
        />
      )}
      <div className="relative rounded-xl border border-hair bg-card p-2">
        {table.mats.length === 0 && (
          <p className="absolute inset-0 grid place-items-center text-[#4c5a62] pointer-events-none">
            {mayHand
              ? 'Nothing is on the table yet. Lay a mat out, or begin a line with Do.'
              : 'Nothing is on the table yet.'}
          </p>
        )}
        <TableBoard
          table={table}
          fill={me.houseStyle.frameFill}
          hand={hand}
          onGesture={onGesture}
          disabled={!mayHand}
          className="max-h-[calc(100dvh-450px)] min-h-[200px]"
        />
      </div>
      {here?.error && (
        <p role="alert" className="text-brick">
          {told('script', { code: refusalCode(here.error), params: here.error.params })} The table stays as it
          was.
        </p>
      )}
      <p className="flex gap-x-5 gap-y-1 flex-wrap">
        <span>
          <span className="text-steel">On the table</span> <b className="figures">{inHand(table)}</b>
        </span>
        {most > 0 && (
          <span className="text-steel">
            Most at once in this lesson:{' '}
            <b className="text-ink figures">
              {most} {counted?.thing}
            </b>
          </span>
        )}
      </p>
      {most > 0 && (
        <p className="flex gap-2 flex-wrap items-center">
          <span className="text-steel">At home, a swap:</span>
          {swaps.map((s) => (
            <span
              key={s.name}
              className="rounded-lg border border-hair bg-card px-2.5 py-1 text-sm font-semibold"
            >
              {s.name}
            </span>
          ))}
          {cautionsFor(doc.kit).some((c) => c.startsWith('Small parts')) && (
            <span className="text-brick text-sm">small parts: keep from under-threes</span>
          )}
        </p>
      )}
    </div>
  )
}
const short = (t: string): string => (t.length > 34 ? `${t.slice(0, 32)}…` : t)
const lastChange = (ms: readonly { before: unknown; after: unknown }[]): number =>
  ms.findIndex((m) => m.after !== m.before)

/** How the table changes along the segment: a small drawing for each line that changes it. */
const Filmstrip = memo(function Filmstrip({
  states,
  at,
  fill,
  onStep,
}: {
  states: readonly Moment[]
  at: string | null
  fill: HouseStyle['frameFill']
  onStep: (id: string) => void
}) {
  return (
    <div
      className="flex gap-2 overflow-x-auto pb-1 min-h-[104px]"
      role="group"
      aria-label="How the table changes"
    >
      {states.map((m) => {
        const on = m.step.id === at
        return (
          <button
            key={m.step.id}
            type="button"
            aria-pressed={on}
            onClick={() => onStep(m.step.id)}
            className={`shrink-0 w-[112px] rounded-lg border p-1 text-left cursor-pointer ${on ? 'border-saffron border-2 bg-here' : 'border-hair bg-card'}`}
          >
            <TableDrawing table={m.after} fill={fill} className="pointer-events-none" />
            <span className="block text-[12px] text-steel truncate">{short(m.step.text) || m.step.verb}</span>
          </button>
        )
      })}
    </div>
  )
})
