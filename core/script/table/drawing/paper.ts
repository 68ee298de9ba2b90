/**
 * The one drawing of the table is a list of plain shapes, shown as SVG by every screen, and rasterised for film
 * cards and stand-ins. Space: 660 × 430 units, x right, y down, as the viewer sees it.
 */
export interface Shape {
  tag: 'g' | 'rect' | 'circle' | 'ellipse' | 'line' | 'path' | 'text'
  attrs: Record<string, string | number>
  text?: string
  children?: Shape[]
}
export const tableWidth = 660
export const tableHeight = 430
export const paper = {
  ink: '#14232B',
  steel: '#55636B',
  white: '#FFFFFF',
  saffron: '#F2B705',
  saffronEdge: '#C48F00',
  blue: '#1F5F99',
  blueEdge: '#174A78',
  green: '#2F7A5A',
  greenEdge: '#235F45',
  shadow: '#14232B',
  lid: '#D3D8D2',
  hair: '#C9CFC9',
  linen: '#F4F7F5',
}

export const el = (tag: Shape['tag'], attrs: Shape['attrs'], children?: Shape[] | string): Shape =>
  typeof children === 'string'
    ? { tag, attrs, text: children }
    : { tag, attrs, ...(children ? { children } : {}) }
export const label = (x: number, y: number, size: number, text: string, more: Shape['attrs'] = {}): Shape =>
  el(
    'text',
    { x, y, 'font-size': size, 'font-family': 'Andika', fill: paper.ink, 'text-anchor': 'middle', ...more },
    text,
  )
export const line = (
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  width = 2.5,
  stroke: string = paper.ink,
  more: Shape['attrs'] = {},
): Shape => el('line', { x1, y1, x2, y2, stroke, 'stroke-width': width, 'stroke-linecap': 'round', ...more })
export const box = (
  x: number,
  y: number,
  width: number,
  height: number,
  rx = 8,
  more: Shape['attrs'] = {},
): Shape =>
  el('rect', { x, y, width, height, rx, fill: paper.white, stroke: paper.ink, 'stroke-width': 2.5, ...more })
export const path = (d: string, more: Shape['attrs'] = {}): Shape =>
  el('path', { d, fill: 'none', stroke: paper.ink, 'stroke-width': 2.5, ...more })
export const round = (n: number): number => Math.round(n * 1000) / 1000
