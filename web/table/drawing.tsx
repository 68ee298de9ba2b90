import { memo, useMemo } from 'react'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { describeTable } from '@awlbox/core/script/table/description'
import { tableHeight, tableWidth } from '@awlbox/core/script/table/drawing/paper'
import { layTable, type TablePicture } from '@awlbox/core/script/table/drawing/table'
import { drawThing } from '@awlbox/core/script/table/drawing/things'
import type { TableState } from '@awlbox/core/script/table/state'
import { node } from './shapes.tsx'

/** What lies on the table, each thing under its own key, so that it travels when its place changes. */
export const Painted = memo(function Painted({
  picture,
  moving,
}: {
  picture: TablePicture
  moving: boolean
}) {
  const things = useMemo(() => [...picture.things].sort((a, b) => a.key - b.key), [picture])
  return (
    <>
      {picture.under.map(node)}
      <g>
        {things.map((t) => (
          <g
            key={t.key}
            className={moving ? 'table-thing' : undefined}
            style={{ transform: `translate(${t.x}px, ${t.y}px)` }}
          >
            {drawThing(t.form, t.r, t.thing).map(node)}
          </g>
        ))}
      </g>
      {picture.over.map(node)}
    </>
  )
})

/** The table as viewers see it: the same drawing on every screen. It stays paper-white in a dark room. */
export const TableDrawing = memo(function TableDrawing({
  table,
  fill,
  className = '',
  moving = false,
}: {
  table: TableState
  fill: HouseStyle['frameFill']
  className?: string
  moving?: boolean
}) {
  const picture = useMemo(() => layTable(table, fill), [table, fill])
  return (
    <svg
      viewBox={`0 0 ${tableWidth} ${tableHeight}`}
      role="img"
      aria-label={describeTable(table)}
      className={`block w-full bg-white rounded-lg ${className}`}
    >
      <Painted picture={picture} moving={moving} />
    </svg>
  )
})
