import { createElement, type ReactNode } from 'react'
import type { Shape } from '@awlbox/core/script/table/drawing/paper'

const names: Record<string, string> = {
  'stroke-width': 'strokeWidth',
  'stroke-linecap': 'strokeLinecap',
  'stroke-dasharray': 'strokeDasharray',
  'font-size': 'fontSize',
  'font-family': 'fontFamily',
  'text-anchor': 'textAnchor',
}
export function node(s: Shape, key: number): ReactNode {
  const attrs = Object.fromEntries(Object.entries(s.attrs).map(([k, v]) => [names[k] ?? k, v]))
  return createElement(s.tag, { key, ...attrs }, s.text ?? s.children?.map(node))
}
