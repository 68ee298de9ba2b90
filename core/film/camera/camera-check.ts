import type { HouseStyle } from '../../contracts/house-style.ts'
import { type Moment } from '../../script/simulate.ts'
import type { Shape } from '../../script/table/drawing/paper.ts'
import { layTable, type TablePicture } from '../../script/table/drawing/table.ts'
import { tableHeight, tableWidth } from '../../script/table/drawing/paper.ts'
import { matName } from '../../script/table/mats.ts'
import type { TableState } from '../../script/table/state.ts'
import { anglesOn, inPicture, legible, patchOf, type Point, type View } from './view.ts'

/** What the camera must show of a segment, in millimetres from the middle of the table, y away from the camera. */
export interface Needs {
  places: { name: string; from: Point; to: Point }[]
  /** Across the smallest thing, and the height of the smallest numeral; null where there is none. */
  thing: { size: number; at: Point } | null
  numeral: { size: number; at: Point } | null
}
/** A numeral is about this share of its font size high (Andika's capital and figure height). */
const figureHeight = 0.7
/** Of the table's drawing on its own sheet when things on it are as large as a bottle top: mm to a unit of the drawing. */
const mmPerUnit = (picture: TablePicture, thing: number): number => {
  const most = Math.max(0, ...picture.things.map((t) => t.r))
  return most > 0 ? thing / 2 / most : 600 / tableWidth
}

/** What a segment's tables need, from every moment of it. `thing` is the size of a counter as it will be used, mm. */
export function needsOf(moments: readonly Moment[], thing: number, fill: HouseStyle['frameFill']): Needs {
  const needs: Needs = { places: [], thing: null, numeral: null }
  const seen = new Set<TableState>()
  for (const state of moments.flatMap((m) => [m.before, m.after])) {
    if (seen.has(state)) continue
    seen.add(state)
    const picture = layTable(state, fill)
    // One scale for the segment's largest table: what is drawn smaller because more is on it is no smaller in the hand.
    const mm = mmPerUnit(picture, thing)
    const at = (x: number, y: number): Point => ({
      x: (x - tableWidth / 2) * mm,
      y: (tableHeight / 2 - y) * mm,
    })
    for (const z of picture.zones) grow(needs, zoneName(state, z), at(z.x, z.y + z.h), at(z.x + z.w, z.y))
    for (const t of picture.things)
      if (!needs.thing || t.r * 2 * mm < needs.thing.size)
        needs.thing = { size: t.r * 2 * mm, at: at(t.x, t.y) }
    for (const n of figuresIn([...picture.under, ...picture.over]))
      if (!needs.numeral || n.size * mm < needs.numeral.size)
        needs.numeral = { size: n.size * mm, at: at(n.x, n.y) }
  }
  return needs
}
function zoneName(state: TableState, z: TablePicture['zones'][number]): string {
  const mat = state.mats.find((m) => m.kind === z.mat)
  const region = mat?.regions.length && mat.regions.length > 1 ? mat.regions[z.region] : undefined
  return `the ${region?.label || region?.name || ''} ${region ? 'of the ' : ''}${matName(z.mat)}`.replace(
    /\s+/g,
    ' ',
  )
}
function grow(needs: Needs, name: string, from: Point, to: Point): void {
  const known = needs.places.find((p) => p.name === name)
  if (!known) needs.places.push({ name, from, to })
  else {
    known.from = { x: Math.min(known.from.x, from.x), y: Math.min(known.from.y, from.y) }
    known.to = { x: Math.max(known.to.x, to.x), y: Math.max(known.to.y, to.y) }
  }
}
/** Numerals of a drawing with their height and place, in its own units. */
function figuresIn(
  shapes: readonly Shape[],
  x = 0,
  y = 0,
  scale = 1,
): { size: number; x: number; y: number }[] {
  return shapes.flatMap((s) => {
    const t = String(s.attrs.transform ?? '')
    const move = t.match(/translate\(([-\d.]+)[ ,]([-\d.]+)\)/)
    const by = Number(t.match(/scale\(([-\d.]+)/)?.[1] ?? 1)
    const [px, py] = [x + Number(move?.[1] ?? 0) * scale, y + Number(move?.[2] ?? 0) * scale]
    const own =
      s.tag === 'text' && /\d/.test(s.text ?? '')
        ? [
            {
              size: Number(s.attrs['font-size'] ?? 0) * figureHeight * scale * by,
              x: px + Number(s.attrs.x ?? 0) * scale * by,
              y: py + Number(s.attrs.y ?? 0) * scale * by,
            },
          ]
        : []
    return [...own, ...figuresIn(s.children ?? [], px, py, scale * by)]
  })
}

export interface Advice {
  kind: 'horizon' | 'out' | 'numeral' | 'thing' | 'loose' | 'fine'
  message: string
}
const cm = (mm: number): string => `${Math.max(1, Math.round(mm / 10))} cm`

/**
 * What to raise, lower, enlarge or move so that families see what is planned. `height` of the camera in mm, or null
 * where the view was measured from a sheet and only proportions are known.
 */
export function checkView(view: View, needs: Needs, height: number | null): Advice[] {
  if (!patchOf(view))
    return [{ kind: 'horizon', message: 'The picture reaches past the table. Tilt the camera further down.' }]
  const out: Advice[] = []
  const reach = (p: Point): number => {
    const q = view.toPicture(p)
    return q ? Math.max(Math.abs(q.u), Math.abs(q.v)) : Infinity
  }
  const corners = (p: Needs['places'][number]): Point[] => [
    p.from,
    { x: p.to.x, y: p.from.y },
    p.to,
    { x: p.from.x, y: p.to.y },
  ]
  const gone = needs.places.filter((p) => corners(p).some((c) => !inPicture(view, c)))
  if (gone.length) {
    const most = Math.max(...gone.flatMap((p) => corners(p).map(reach)))
    const raise =
      height === null || !Number.isFinite(most)
        ? ''
        : `Raise the camera by ${cm(height * (most / 0.95 - 1))}, or move them closer together.`
    const [names, rest] = [gone.slice(0, 3).map((p) => p.name), gone.length - 3]
    const them = `${names.join(', ')}${rest > 0 ? ` and ${rest} more` : ''}`
    out.push({
      kind: 'out',
      message:
        `${them.charAt(0).toUpperCase()}${them.slice(1)} ${gone.length > 1 ? 'are' : 'is'} not wholly in the picture. ${raise || `Everything must come ${(most / 0.95).toFixed(1)} × closer to the middle, or the camera further up.`}`.trim(),
    })
  }
  for (const kind of ['numeral', 'thing'] as const) {
    const n = needs[kind]
    const angle = n && anglesOn(view, n.at, n.size)
    if (n === null || angle === null || angle >= legible[kind]) continue
    const factor = legible[kind] / angle
    out.push({
      kind,
      message: `${kind === 'numeral' ? 'The smallest numeral is' : 'The smallest thing is'} ${Math.round(angle)}′ ${kind === 'numeral' ? 'high' : 'across'} on a phone; ${legible[kind]}′ can be read. Make it ${factor.toFixed(1)} × larger${height === null ? ', or bring the camera nearer' : `, or the camera ${cm(height * (1 - 1 / factor))} lower`}.`,
    })
  }
  const widest = Math.max(0, ...needs.places.flatMap((p) => corners(p).map(reach)))
  if (!out.length && needs.places.length && widest < 0.5)
    out.push({
      kind: 'loose',
      message: `The table fills only ${Math.round(widest * 100)} % of the picture.${height === null ? ' Bring the camera nearer' : ` Lower the camera by ${cm(height * (1 - widest / 0.8))}`} and everything shows larger.`,
    })
  if (!out.length)
    out.push({
      kind: 'fine',
      message: 'Everything planned is in the picture and large enough to read on a phone.',
    })
  return out
}
