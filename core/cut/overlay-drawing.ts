import type { Overlay } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import { el, paper, round, type Shape, tableHeight, tableWidth } from '../script/table/drawing/paper.ts'
import { drawTable } from '../script/table/drawing/table.ts'
import type { TableState } from '../script/table/state.ts'
import { sentenceSize } from './overlays.ts'

/** A drawing put into a box, on paper of its own; `of` is what it is drawn in. */
function framed(
  shapes: readonly Shape[],
  of: { x: number; y: number; w: number; h: number },
  w: number,
  h: number,
): Shape[] {
  const k = Math.min((w - 20) / of.w, (h - 20) / of.h)
  const [x, y] = [(w - of.w * k) / 2 - of.x * k, (h - of.h * k) / 2 - of.y * k]
  return [
    el('rect', {
      x: 2,
      y: 2,
      width: w - 4,
      height: h - 4,
      rx: 14,
      fill: paper.linen,
      stroke: paper.ink,
      'stroke-width': 2,
      'fill-opacity': 0.96,
    }),
    el('g', { transform: `translate(${round(x)} ${round(y)}) scale(${round(k)})` }, [...shapes]),
  ]
}
/** A number line alone lies in the middle of the table's space, this high. */
const lineBand = { x: 20, y: 150, w: tableWidth - 40, h: 136 } as const

/**
 * An overlay's drawing in the space of its own box (`place`), or null for a magnifier, which shows the film itself.
 * `table` is the table after its step. An arrow points down at the middle of what it is about.
 */
export function overlayShapes(
  o: Pick<Overlay, 'look' | 'text' | 'place'>,
  table: TableState | null,
  fill: HouseStyle['frameFill'],
): Shape[] | null {
  const { w, h } = o.place
  switch (o.look) {
    case 'sentence': {
      const px = sentenceSize(o)
      return [
        el('rect', { x: 0, y: 0, width: w, height: h, rx: 16, fill: paper.ink, 'fill-opacity': 0.9 }),
        el(
          'text',
          {
            x: w / 2,
            y: round(h / 2 + px * 0.35),
            'font-size': round(px),
            'font-family': 'Andika',
            fill: paper.white,
            'text-anchor': 'middle',
          },
          o.text,
        ),
      ]
    }
    case 'table':
      return framed(
        table ? drawTable({ ...table, written: [], held: null }, fill) : [],
        { x: 0, y: 0, w: tableWidth, h: tableHeight },
        w,
        h,
      )
    case 'hops':
      return framed(
        table
          ? drawTable(
              {
                ...table,
                mats: table.mats.filter((m) => m.kind === 'line').slice(0, 1),
                written: [],
                held: null,
              },
              fill,
            )
          : [],
        lineBand,
        w,
        h,
      )
    // White under saffron: seen on a light table and a dark one, and without colours.
    case 'ring':
      return [
        [paper.white, 12],
        [paper.saffron, 7],
      ].map(([stroke, width]) =>
        el('ellipse', {
          cx: w / 2,
          cy: h / 2,
          rx: w / 2 - 8,
          ry: h / 2 - 8,
          fill: 'none',
          stroke: stroke!,
          'stroke-width': width!,
        }),
      )
    case 'arrow': {
      const d = `M${round(w / 2)} 10 V${round(h - 16)} M${round(w / 2 - 22)} ${round(h - 44)} L${round(w / 2)} ${round(h - 14)} L${round(w / 2 + 22)} ${round(h - 44)}`
      return [
        [paper.white, 16],
        [paper.ink, 9],
      ].map(([stroke, width]) =>
        el('path', {
          d,
          fill: 'none',
          stroke: stroke!,
          'stroke-width': width!,
          'stroke-linecap': 'round',
          'stroke-linejoin': 'round',
        }),
      )
    }
    case 'magnify':
      return null
  }
}
/** The line from a magnifier to what it shows, and the frames of both, over the whole picture. */
export function magnifierShapes(o: Pick<Overlay, 'place' | 'at'>): Shape[] {
  if (!o.at) return []
  const [a, b] = [o.at, o.place]
  const box = (q: typeof a, width: number): Shape =>
    el('rect', {
      x: q.x,
      y: q.y,
      width: q.w,
      height: q.h,
      rx: 10,
      fill: 'none',
      stroke: paper.white,
      'stroke-width': width,
    })
  return [
    el('line', {
      x1: a.x + a.w / 2,
      y1: a.y + a.h / 2,
      x2: b.x + b.w / 2,
      y2: b.y + b.h / 2,
      stroke: paper.white,
      'stroke-width': 3,
      'stroke-dasharray': '8 6',
    }),
    box(a, 3),
    box(b, 6),
  ]
}
