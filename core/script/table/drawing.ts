import { assertNever } from '../../contracts/assert-never.ts'
import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Mat, Region, TableState, Thing } from './state.ts'

/**
 * The one drawing of the table: a list of plain shapes, shown as SVG by every screen, and rasterised for film
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

export const paper = { ink: '#14232B', steel: '#55636B', white: '#FFFFFF', saffron: '#F2B705', saffronEdge: '#C48F00', blue: '#1F5F99', blueEdge: '#174A78', shadow: '#14232B', lid: '#D3D8D2', hair: '#C9CFC9' }

const el = (tag: Shape['tag'], attrs: Shape['attrs'], children?: Shape[] | string): Shape =>
  typeof children === 'string' ? { tag, attrs, text: children } : { tag, attrs, ...(children ? { children } : {}) }
const label = (x: number, y: number, size: number, text: string, more: Shape['attrs'] = {}): Shape =>
  el('text', { x, y, 'font-size': size, 'font-family': 'Andika', fill: paper.ink, 'text-anchor': 'middle', ...more }, text)

/** A counter, radius r: saffron with a ring, or blue with a dot; crossed out by a single stroke. */
export function counter(x: number, y: number, r: number, t: Thing): Shape {
  const blue = t.face === 'blue'
  const parts = [
    el('circle', { cx: x + r * 0.08, cy: y + r * 0.14, r, fill: paper.shadow, opacity: 0.16 }),
    el('circle', { cx: x, cy: y, r: r * 0.96, fill: blue ? paper.blue : paper.saffron, stroke: blue ? paper.blueEdge : paper.saffronEdge, 'stroke-width': r * 0.09 }),
    blue ? el('circle', { cx: x, cy: y, r: r * 0.26, fill: paper.white }) : el('circle', { cx: x, cy: y, r: r * 0.78, fill: 'none', stroke: paper.saffronEdge, 'stroke-width': r * 0.05 }),
  ]
  if (t.crossed) parts.push(el('line', { x1: x - r, y1: y + r, x2: x + r, y2: y - r, stroke: paper.ink, 'stroke-width': r * 0.2, 'stroke-linecap': 'round' }))
  return el('g', {}, parts)
}

interface Drawn {
  w: number
  h: number
  shapes: Shape[]
}

/** Things loose in a box: rows of up to `across`, centred. */
function loose(things: readonly Thing[], x: number, y: number, w: number, h: number, most = 26): Shape[] {
  if (!things.length) return []
  const across = Math.min(things.length, Math.max(1, Math.ceil(Math.sqrt((things.length * w) / h))))
  const down = Math.ceil(things.length / across)
  const r = Math.min(most, w / across / 2.3, h / down / 2.3)
  return things.map((t, i) => {
    const row = Math.floor(i / across)
    const inRow = Math.min(across, things.length - row * across)
    return counter(x + w / 2 + ((i % across) - (inRow - 1) / 2) * r * 2.25, y + h / 2 + (row - (down - 1) / 2) * r * 2.25, r, t)
  })
}

function frameMat(r: Region, fill: HouseStyle['frameFill']): Drawn {
  const frames = (r.slots ?? 10) / 10
  const cell = frames === 1 ? 90 : 62
  const shapes: Shape[] = []
  for (let f = 0; f < frames; f++) {
    const y0 = f * (cell * 2 + 20)
    for (let i = 0; i < 10; i++) {
      const [col, row] = fill === 'across' ? [i % 5, Math.floor(i / 5)] : [Math.floor(i / 2), i % 2]
      shapes.push(el('rect', { x: col * cell, y: y0 + row * cell, width: cell, height: cell, fill: paper.white, stroke: paper.ink, 'stroke-width': 2 }))
      const thing = r.things[f * 10 + i]
      if (thing) shapes.push(counter(col * cell + cell / 2, y0 + row * cell + cell / 2, cell * 0.36, thing))
    }
  }
  return { w: cell * 5, h: frames * cell * 2 + (frames - 1) * 20, shapes }
}

function rowMat(r: Region): Drawn {
  const n = Math.max(5, r.things.length)
  const pitch = Math.min(64, 560 / n)
  return {
    w: n * pitch, h: pitch + 16,
    shapes: [
      el('line', { x1: 0, y1: pitch + 10, x2: n * pitch, y2: pitch + 10, stroke: paper.hair, 'stroke-width': 3, 'stroke-linecap': 'round' }),
      ...r.things.map((t, i) => counter(i * pitch + pitch / 2, pitch / 2, pitch * 0.42, t)),
    ],
  }
}

function jarMat(m: Mat): Drawn {
  const things = m.regions[0]!.things
  const body = 'M30 34 h140 q14 8 14 30 v120 q0 26 -26 26 h-116 q-26 0 -26 -26 v-120 q0 -22 14 -30z'
  const shapes = [
    el('path', { d: body, fill: m.covered ? paper.lid : '#F4F7F5', stroke: paper.ink, 'stroke-width': 2.5 }),
    el('rect', { x: 34, y: 12, width: 132, height: 22, rx: 6, fill: m.covered ? paper.steel : paper.lid, stroke: paper.ink, 'stroke-width': 2 }),
  ]
  // The number under a cover is known but not shown: the drawing must not give it away.
  if (!m.covered) shapes.push(...loose(things, 26, 62, 148, 140, 22))
  return { w: 200, h: 214, shapes }
}

function partsMat(m: Mat): Drawn {
  const n = m.regions.length - 1
  const w = Math.max(360, n * 130)
  const [whole, ...parts] = m.regions
  const pw = 116
  const shapes: Shape[] = []
  const centre = (i: number) => ((i + 0.5) * w) / n
  for (let i = 0; i < n; i++) shapes.push(el('line', { x1: w / 2, y1: 104, x2: centre(i), y2: 150, stroke: paper.ink, 'stroke-width': 2.5 }))
  shapes.push(el('rect', { x: w / 2 - 90, y: 0, width: 180, height: 106, rx: 18, fill: paper.white, stroke: paper.ink, 'stroke-width': 2.5 }), ...loose(whole!.things, w / 2 - 80, 8, 160, 90, 22))
  parts.forEach((p, i) => shapes.push(el('rect', { x: centre(i) - pw / 2, y: 148, width: pw, height: 116, rx: 18, fill: paper.white, stroke: paper.ink, 'stroke-width': 2.5 }), ...loose(p.things, centre(i) - pw / 2 + 8, 156, pw - 16, 100, 20)))
  return { w, h: 266, shapes }
}

function shelvesMat(m: Mat): Drawn {
  return {
    w: 420, h: 220,
    shapes: m.regions.flatMap((r, i) => [
      el('rect', { x: 0, y: i * 112, width: 420, height: 104, rx: 6, fill: paper.white, stroke: paper.ink, 'stroke-width': 2.5 }),
      el('line', { x1: 8, y1: i * 112 + 96, x2: 412, y2: i * 112 + 96, stroke: paper.hair, 'stroke-width': 4 }),
      ...r.things.map((t, j) => counter(28 + j * Math.min(52, 380 / Math.max(1, r.things.length)), i * 112 + 62, Math.min(24, 170 / Math.max(1, r.things.length)), t)),
    ]),
  }
}

function platesMat(m: Mat): Drawn {
  const n = m.regions.length
  const w = Math.min(170, 600 / n)
  return {
    w: n * w, h: w,
    shapes: m.regions.flatMap((r, i) => [
      el('ellipse', { cx: i * w + w / 2, cy: w / 2, rx: w * 0.46, ry: w * 0.42, fill: paper.white, stroke: paper.ink, 'stroke-width': 2.5 }),
      el('ellipse', { cx: i * w + w / 2, cy: w / 2, rx: w * 0.36, ry: w * 0.32, fill: 'none', stroke: paper.hair, 'stroke-width': 1.5 }),
      ...loose(r.things, i * w + w * 0.2, w * 0.22, w * 0.6, w * 0.56, 20),
    ]),
  }
}

function lineMat(line: NonNullable<Mat['line']>): Drawn {
  const w = 560
  const span = Math.max(1, line.to - line.from)
  const x = (n: number) => ((n - line.from) / span) * w
  const every = span <= 20 ? 1 : 10
  const y = 62
  const shapes = [el('line', { x1: -12, y1: y, x2: w + 12, y2: y, stroke: paper.ink, 'stroke-width': 2.5, 'stroke-linecap': 'round' })]
  for (let n = line.from; n <= line.to; n += every) {
    shapes.push(el('line', { x1: x(n), y1: y - 7, x2: x(n), y2: y + 7, stroke: paper.ink, 'stroke-width': 2 }))
    shapes.push(label(x(n), y + 34, span > 12 ? 19 : 24, String(n)))
  }
  line.hops.forEach((h, i) => {
    const [a, b] = [x(h.from), x(h.to)]
    const lift = Math.min(54, 20 + Math.abs(b - a) / 5)
    shapes.push(el('path', { d: `M${a} ${y} Q${(a + b) / 2} ${y - lift * 1.6} ${b} ${y}`, fill: 'none', stroke: i % 2 ? paper.blue : paper.saffronEdge, 'stroke-width': 3.5, ...(i % 2 ? { 'stroke-dasharray': '8 6' } : {}) }))
  })
  if (line.at !== null) shapes.push(el('circle', { cx: x(line.at), cy: y, r: 8, fill: paper.ink }))
  return { w, h: 104, shapes }
}

function drawMat(m: Mat, fill: HouseStyle['frameFill']): Drawn {
  switch (m.kind) {
    case 'frame': return m.covered ? coveredBox(frameMat({ ...m.regions[0]!, things: [] }, fill)) : frameMat(m.regions[0]!, fill)
    case 'row': return m.covered ? coveredBox(rowMat(m.regions[0]!)) : rowMat(m.regions[0]!)
    case 'table': return { w: 560, h: 220, shapes: loose(m.regions[0]!.things, 0, 0, 560, 220, 30) }
    case 'jar': return jarMat(m)
    case 'parts': return partsMat(m)
    case 'shelves': return shelvesMat(m)
    case 'plates': return platesMat(m)
    case 'line': return lineMat(m.line!)
    default: return assertNever(m.kind)
  }
}
const coveredBox = (d: Drawn): Drawn => ({ ...d, shapes: [...d.shapes, el('rect', { x: -6, y: -6, width: d.w + 12, height: d.h + 12, rx: 10, fill: paper.lid, stroke: paper.ink, 'stroke-width': 2 })] })

/** The whole table as shapes. Mats stand side by side, number lines under them, what is written at the foot. */
export function drawTable(state: TableState, fill: HouseStyle['frameFill'] = 'across'): Shape[] {
  const side = state.mats.filter((m) => m.kind !== 'line').map((m) => drawMat(m, fill))
  const lines = state.mats.filter((m) => m.line).map((m) => drawMat(m, fill))
  const foot = state.written.length || state.held !== null ? 70 : 16
  const linesHeight = lines.length * 116
  const room = tableHeight - 32 - foot - linesHeight
  const gap = 36
  const natural = side.reduce((s, d) => s + d.w, 0) + gap * Math.max(0, side.length - 1)
  const tallest = Math.max(1, ...side.map((d) => d.h))
  const scale = Math.min(1.3, (tableWidth - 60) / Math.max(1, natural), room / tallest)
  const shapes: Shape[] = []
  let x = (tableWidth - natural * scale) / 2
  for (const d of side) {
    shapes.push(el('g', { transform: `translate(${round(x)} ${round(24 + (room - d.h * scale) / 2)}) scale(${round(scale)})` }, d.shapes))
    x += (d.w + gap) * scale
  }
  lines.forEach((d, i) => shapes.push(el('g', { transform: `translate(${(tableWidth - d.w) / 2} ${round(side.length ? tableHeight - foot - linesHeight + i * 116 : (tableHeight - foot - linesHeight) / 2 + i * 116)})` }, d.shapes)))
  if (state.held !== null) shapes.push(label(74, tableHeight - 26, 34, String(state.held), { stroke: paper.ink, 'stroke-width': 0.4 }), el('circle', { cx: 74, cy: tableHeight - 38, r: 27, fill: 'none', stroke: paper.ink, 'stroke-width': 2, 'stroke-dasharray': '5 5' }))
  if (state.written.length) shapes.push(label(tableWidth / 2, tableHeight - 26, state.written.join('').length > 26 ? 24 : 36, state.written.slice(-2).join('     ')))
  return shapes
}
const round = (n: number): number => Math.round(n * 1000) / 1000

/** Shapes as SVG text, for files and for drawing outside a browser. */
export function toSvg(shapes: readonly Shape[], width = tableWidth, height = tableHeight): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${shapes.map(shapeText).join('')}</svg>`
}
export function shapeText(s: Shape): string {
  const attrs = Object.entries(s.attrs).map(([k, v]) => ` ${k}="${escapeXml(String(v))}"`).join('')
  return `<${s.tag}${attrs}>${s.text === undefined ? (s.children ?? []).map(shapeText).join('') : escapeXml(s.text)}</${s.tag}>`
}
export const escapeXml = (t: string): string => t.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
