import type { HouseStyle } from '../../../contracts/house-style.ts'
import { type Mat, type MatKind, type TableState, thingsIn } from '../state.ts'
import * as counting from './counting-mats.ts'
import type { Laid, Layout, Look, Placed } from './layout.ts'
import * as numbers from './number-mats.ts'
import { box, el, label, paper, round, type Shape, tableHeight, tableWidth } from './paper.ts'
import * as parting from './parting-mats.ts'
import { drawThing, type Form } from './things.ts'
import { footHeight, heldCircle, writing, writingLine } from './writing.ts'
import type { Thing } from '../state.ts'

const layouts: Record<MatKind, Layout> = {
  table: counting.openTable,
  row: counting.row,
  frame: counting.frame,
  jar: counting.jar,
  rail: counting.rail,
  tower: counting.tower,
  pairs: counting.pairPlate,
  coins: counting.coins,
  skittles: counting.skittles,
  scene: counting.scene,
  sound: counting.sound,
  parts: parting.partWhole,
  bar: parting.bar,
  shelves: parting.shelves,
  plates: parting.plates,
  dots: parting.dotCard,
  hands: parting.hands,
  line: numbers.numberLine,
  square: numbers.hundredSquare,
  cards: numbers.cards,
  dice: numbers.dice,
  spinner: numbers.spinner,
  bowl: numbers.bowl,
}

function layOut(m: Mat, look: Look): Laid {
  const drawn = layouts[m.kind](m, look)
  const over = [...drawn.over, ...ringsOver(m, drawn.things)]
  // A jar shows its own lid; anything else is covered by a cloth that hides the number.
  if (!m.covered || m.kind === 'jar' || m.kind === 'sound') return { ...drawn, over }
  return {
    ...drawn,
    things: [],
    over: [box(-6, -6, drawn.w + 12, drawn.h + 12, 10, { fill: paper.lid, 'stroke-width': 2 })],
  }
}

function ringsOver(m: Mat, placed: readonly Placed[]): Shape[] {
  const things = thingsIn(m)
  return m.rings.flatMap((ring) => {
    const keys = new Set(things.slice(ring.from, ring.to).map((t) => t.key))
    const inside = placed.filter((p) => keys.has(p.thing.key))
    if (!inside.length) return []
    const [l, t] = [
      Math.min(...inside.map((p) => p.x - p.r)) - 6,
      Math.min(...inside.map((p) => p.y - p.r)) - 6,
    ]
    const [r, b] = [
      Math.max(...inside.map((p) => p.x + p.r)) + 6,
      Math.max(...inside.map((p) => p.y + p.r)) + 6,
    ]
    return [
      el('rect', {
        x: l,
        y: t,
        width: r - l,
        height: b - t,
        rx: 22,
        fill: 'none',
        stroke: paper.ink,
        'stroke-width': 3.5,
        'stroke-dasharray': '10 6',
      }),
    ]
  })
}

/** A thing in the space of the whole table. */
export interface TableThing {
  key: number
  mat: MatKind
  region: number
  form: Form
  thing: Thing
  x: number
  y: number
  r: number
}
export interface TableZone {
  mat: MatKind
  /** As a script names it: −1 is the whole of a part-whole or bar, 0 the first part. */
  region: number
  x: number
  y: number
  w: number
  h: number
  /** For lines and squares: where a number lies. */
  numberAt: ((x: number, y: number) => number | null) | null
}
export interface TablePicture {
  under: Shape[]
  things: TableThing[]
  over: Shape[]
  zones: TableZone[]
}

/**
 * The whole table laid out: mats stand side by side, number lines under them, what is written at the foot. Things
 * are apart from the mats so that a screen can let them travel from place to place.
 */
export function layTable(state: TableState, fill: HouseStyle['frameFill']): TablePicture {
  const look: Look = { fill }
  const side = state.mats.filter((m) => m.kind !== 'line').map((m) => ({ m, d: layOut(m, look) }))
  const lines = state.mats.filter((m) => m.kind === 'line').map((m) => ({ m, d: layOut(m, look) }))
  const foot = footHeight(state.written, state.held !== null)
  const linesHeight = lines.length * 116
  const room = tableHeight - 32 - foot - linesHeight
  const gap = 36
  // Many mats fold into two rows rather than shrink until nothing can be read.
  const rows =
    side.length > 2 && side.reduce((s, x) => s + x.d.w, 0) > 900
      ? [side.slice(0, Math.ceil(side.length / 2)), side.slice(Math.ceil(side.length / 2))]
      : [side]
  const natural = Math.max(
    1,
    ...rows.map((r) => r.reduce((s, x) => s + x.d.w, 0) + gap * Math.max(0, r.length - 1)),
  )
  const heights = rows.map((r) => Math.max(1, ...r.map((x) => x.d.h)))
  const tall = heights.reduce((a, b) => a + b, 0) + gap * (rows.length - 1)
  const scale = Math.min(1.3, (tableWidth - 60) / natural, room / tall)
  const picture: TablePicture = { under: [], things: [], over: [], zones: [] }
  let top = 24 + Math.max(0, (room - tall * scale) / 2)
  rows.forEach((r, i) => {
    const width = r.reduce((s, x) => s + x.d.w, 0) + gap * Math.max(0, r.length - 1)
    let x = (tableWidth - width * scale) / 2
    for (const { m, d } of r) {
      place(picture, m, d, x, top + ((heights[i]! - d.h) * scale) / 2, scale)
      x += (d.w + gap) * scale
    }
    top += (heights[i]! + gap) * scale
  })
  lines.forEach(({ m, d }, i) =>
    place(
      picture,
      m,
      d,
      (tableWidth - d.w) / 2,
      side.length
        ? tableHeight - foot - linesHeight + i * 116
        : (tableHeight - foot - linesHeight) / 2 + i * 116,
      1,
    ),
  )
  if (state.held !== null)
    picture.over.push(
      label(heldCircle.x, writingLine, 34, String(state.held), { stroke: paper.ink, 'stroke-width': 0.4 }),
      el('circle', {
        cx: heldCircle.x,
        cy: heldCircle.y,
        r: heldCircle.r,
        fill: 'none',
        stroke: paper.ink,
        'stroke-width': 2,
        'stroke-dasharray': '5 5',
      }),
    )
  for (const { text, size, x, y } of writing(state.written)) picture.over.push(label(x, y, size, text))
  return picture
}

function place(picture: TablePicture, m: Mat, d: Laid, x: number, y: number, scale: number): void {
  const transform = `translate(${round(x)} ${round(y)}) scale(${round(scale)})`
  picture.under.push(el('g', { transform }, d.under))
  if (d.over.length) picture.over.push(el('g', { transform }, d.over))
  const regionOf = new Map(m.regions.flatMap((r, i) => r.things.map((t) => [t.key, i] as const)))
  for (const p of d.things)
    picture.things.push({
      key: p.thing.key,
      mat: m.kind,
      region: regionOf.get(p.thing.key) ?? 0,
      form: p.form,
      thing: p.thing,
      x: round(x + p.x * scale),
      y: round(y + p.y * scale),
      r: round(p.r * scale),
    })
  const l = m.line
  for (const z of d.zones)
    picture.zones.push({
      mat: m.kind,
      region: m.kind === 'parts' || m.kind === 'bar' ? z.region - 1 : z.region,
      x: x + z.x * scale,
      y: y + z.y * scale,
      w: z.w * scale,
      h: z.h * scale,
      numberAt:
        l &&
        ((px, py) => {
          if (m.kind === 'square') {
            const n = l.from + Math.floor((py - y) / scale / 40) * 10 + Math.floor((px - x) / scale / 40)
            return n >= l.from && n <= l.to ? n : null
          }
          const n = Math.round(l.from + ((px - x) / scale / 560) * (l.to - l.from))
          return Math.min(l.to, Math.max(l.from, n))
        }),
    })
}

/** The whole table as shapes, in the order they are painted. */
export function drawTable(state: TableState, fill: HouseStyle['frameFill']): Shape[] {
  const p = layTable(state, fill)
  return [...p.under, ...p.things.map(drawPlaced), ...p.over]
}
const drawPlaced = (t: TableThing): Shape =>
  el('g', { transform: `translate(${t.x} ${t.y})` }, drawThing(t.form, t.r, t.thing))

/** Shapes as SVG text, for files and for drawing outside a browser. */
export function toSvg(shapes: readonly Shape[], width = tableWidth, height = tableHeight): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${shapes.map(shapeText).join('')}</svg>`
}
export function shapeText(s: Shape): string {
  const attrs = Object.entries(s.attrs)
    .map(([k, v]) => ` ${k}="${escapeXml(String(v))}"`)
    .join('')
  return `<${s.tag}${attrs}>${s.text === undefined ? (s.children ?? []).map(shapeText).join('') : escapeXml(s.text)}</${s.tag}>`
}
export const escapeXml = (t: string): string =>
  t.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
