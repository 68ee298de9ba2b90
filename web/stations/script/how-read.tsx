import { useMemo } from 'react'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { sayActions } from '@awlbox/core/script/language/say'
import type { Moment } from '@awlbox/core/script/simulate'
import { act } from '@awlbox/core/script/table/machine'
import { TableDrawing } from '../../table/drawing.tsx'

/**
 * How the line one is on was understood: in one sentence, or, where it was understood only in part, the readings it may
 * have, each with the table it would give. The one that is chosen becomes the line.
 */
export function HowRead({
  moment,
  fill,
  onChoose,
}: {
  moment: Moment
  fill: HouseStyle['frameFill']
  /** null where the line may not be changed. */
  onChoose: ((text: string) => void) | null
}) {
  const { reading, before } = moment
  const said = useMemo(() => (reading?.whole ? sayActions(reading.actions, before) : ''), [reading, before])
  const offers = useMemo(() => {
    const lines = (reading?.offers ?? []).map((actions) => ({
      text: sayActions(actions, before),
      table: actions.reduce(act, before),
    }))
    return lines.filter((o, i) => o.text && lines.findIndex((x) => x.text === o.text) === i)
  }, [reading, before])
  if (!reading) return null
  if (reading.whole)
    return said ? (
      <p className="text-steel" aria-live="polite">
        Read as: <span className="text-ink">{said}</span>
      </p>
    ) : null
  if (!offers.length) return null
  return (
    <div role="group" aria-label="Readings to choose from" className="grid gap-2">
      <p>Nothing is drawn, for some of it was not understood. Is one of these meant?</p>
      <ul className="flex flex-wrap gap-2">
        {offers.map((o) => (
          <li key={o.text}>
            <button
              type="button"
              disabled={!onChoose}
              onClick={() => onChoose?.(o.text)}
              className="w-44 rounded-lg border border-hair bg-card p-1.5 text-left text-sm cursor-pointer hover:border-ink"
            >
              <TableDrawing table={o.table} fill={fill} className="pointer-events-none" />
              {o.text}
            </button>
          </li>
        ))}
      </ul>
    </div>
  )
}
