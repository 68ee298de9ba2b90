import type { HouseStyle } from '../../../contracts/house-style.ts'
import type { Mat, Thing } from '../state.ts'
import type { Form } from './things.ts'
import type { Shape } from './paper.ts'

/** A thing's place in its mat's own space. */
export interface Placed {
  thing: Thing
  form: Form
  x: number
  y: number
  r: number
}
/** A part of a mat where things can be set: a frame, a plate, the whole of a part-whole. */
export interface Zone {
  region: number
  x: number
  y: number
  w: number
  h: number
}
/** One mat laid out in its own space: what lies under the things, the things, what lies over them. */
export interface Laid {
  w: number
  h: number
  under: Shape[]
  things: Placed[]
  over: Shape[]
  zones: Zone[]
}
export interface Look {
  fill: HouseStyle['frameFill']
}
export type Layout = (mat: Mat, look: Look) => Laid
export const laid = (w: number, h: number, part: Partial<Laid>): Laid => ({
  w,
  h,
  under: [],
  things: [],
  over: [],
  zones: [],
  ...part,
})

export interface Box {
  x: number
  y: number
  w: number
  h: number
}
const rowsIn = (n: number, b: Box): [number, number][] => {
  const across = Math.min(n, Math.max(1, Math.ceil(Math.sqrt((n * b.w) / b.h))))
  const down = Math.ceil(n / across)
  return Array.from({ length: n }, (_, i) => {
    const row = Math.floor(i / across)
    const inRow = Math.min(across, n - row * across)
    return [(i % across) - (inRow - 1) / 2, row - (down - 1) / 2]
  })
}
/** Where dots lie in the patterns everyone knows from dice, 1–6, as (−1 … 1) pairs. */
export const dicePattern: readonly (readonly (readonly [number, number])[])[] = [
  [],
  [[0, 0]],
  [
    [-1, -1],
    [1, 1],
  ],
  [
    [-1, -1],
    [0, 0],
    [1, 1],
  ],
  [
    [-1, -1],
    [1, -1],
    [-1, 1],
    [1, 1],
  ],
  [
    [-1, -1],
    [1, -1],
    [0, 0],
    [-1, 1],
    [1, 1],
  ],
  [
    [-1, -1],
    [1, -1],
    [-1, 0],
    [1, 0],
    [-1, 1],
    [1, 1],
  ],
]
/** n points in a pattern: rows, a ring, two by two, or scattered, as `look` counts up. Units are about one thing wide. */
function pattern(n: number, look: number, b: Box): [number, number][] {
  const kind = n < 3 ? 0 : look % 4
  if (kind === 1)
    return Array.from({ length: n }, (_, i) => [
      Math.sin((i / n) * 2 * Math.PI) * Math.max(0.8, n / 5.6),
      -Math.cos((i / n) * 2 * Math.PI) * Math.max(0.8, n / 5.6),
    ])
  if (kind === 2)
    return Array.from({ length: n }, (_, i) => [
      (i % 2) * 1.2 - 0.6,
      Math.floor(i / 2) - (Math.ceil(n / 2) - 1) / 2,
    ])
  const rows = rowsIn(n, b)
  // Scattered: rows pushed a little off, always the same way for the same place in the row.
  return kind === 3
    ? rows.map(([x, y], i) => [x * 1.15 + ((i * 37) % 7) / 14 - 0.25, y * 1.2 + ((i * 53) % 5) / 10 - 0.2])
    : rows
}

/** Four strokes beside one another, the fifth across their middle. */
const tallyAt = (i: number): [number, number] => (i === 4 ? [0, 0] : [(i - 1.5) * 0.45, 0])

/** Things lying loose in a box, as large as fit, at most radius `most`. */
export function loose(
  things: readonly Thing[],
  b: Box,
  look = 0,
  most = 26,
  form: Form = 'counter',
): Placed[] {
  const tally = things.length > 0 && things.length <= 5 && things.every((t) => /tally/.test(t.kind))
  const points = tally ? things.map((_, i) => tallyAt(i)) : pattern(things.length, look, b)
  const wide = Math.max(0.5, ...points.map(([x]) => Math.abs(x) + 0.5)) * 2
  const tall = Math.max(0.5, ...points.map(([, y]) => Math.abs(y) + 0.5)) * 2
  const r = Math.min(most, b.w / wide / 2.25, b.h / tall / 2.25)
  return things.map((thing, i) => ({
    thing,
    form: /tally/.test(thing.kind)
      ? tally && i === 4
        ? 'strike'
        : 'stroke'
      : /^half /.test(thing.kind)
        ? 'half'
        : form,
    r,
    x: b.x + b.w / 2 + points[i]![0] * r * 2.25,
    y: b.y + b.h / 2 + points[i]![1] * r * 2.25,
  }))
}
export const zoneOf = (region: number, b: Box): Zone => ({ region, ...b })
