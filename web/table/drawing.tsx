import { createElement, memo, useMemo, type ReactNode } from 'react'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { describeTable } from '@awlbox/core/script/table/description'
import { type Shape, tableHeight, tableWidth } from '@awlbox/core/script/table/drawing/paper'
import { drawTable } from '@awlbox/core/script/table/drawing/table'
import type { TableState } from '@awlbox/core/script/table/state'

const names: Record<string, string> = { 'stroke-width': 'strokeWidth', 'stroke-linecap': 'strokeLinecap', 'stroke-dasharray': 'strokeDasharray', 'font-size': 'fontSize', 'font-family': 'fontFamily', 'text-anchor': 'textAnchor' }
function node(s: Shape, key: number): ReactNode {
  const attrs = Object.fromEntries(Object.entries(s.attrs).map(([k, v]) => [names[k] ?? k, v]))
  return createElement(s.tag, { key, ...attrs }, s.text ?? s.children?.map(node))
}

/** The table as viewers see it: the same drawing on every screen. It stays paper-white in a dark room. */
export const TableDrawing = memo(function TableDrawing({ table, fill = 'across', className = '' }: { table: TableState; fill?: HouseStyle['frameFill']; className?: string }) {
  const shapes = useMemo(() => drawTable(table, fill), [table, fill])
  return <svg viewBox={`0 0 ${tableWidth} ${tableHeight}`} role="img" aria-label={describeTable(table)} className={`block w-full bg-white rounded-lg ${className}`}>{shapes.map(node)}</svg>
})
