import type { Ground, Rgb } from './grounds.ts'
import type { Kind } from './things.ts'

export const structures = [
  'frame',
  'frames',
  'eggbox',
  'plates',
  'partwhole',
  'rings',
  'line',
  'cards',
  'towers',
] as const
export const clutters = ['hand', 'cup', 'pencil', 'spoon', 'book'] as const
/** What a picture is made of; each may be crossed with each. */
export interface Factors {
  kind: Kind
  ground: Ground
  arrangement: 'apart' | 'touching' | 'overlapping'
  structure: (typeof structures)[number] | null
  clutter: (typeof clutters)[number] | null
  light: 'even' | 'lamp' | 'dim' | 'hard'
  number: number
}
/** What each pixel of the label picture means: its red channel is this times 30. */
export const classes = { ground: 0, thing: 1, clutter: 2, plate: 3, ink: 4, sheet: 5 } as const

export interface Placed {
  x: number
  z: number
  reach: number
  y: number
}

export interface Hands {
  add: (text: string, texture: string, klass: number) => void
  set: (x: number, z: number, y: number, scale?: number) => { reach: number; height: number }
  flat: (c: Rgb) => string
  wide: number
  size: number
  surface: number
  blocked: Placed[]
}
export type Spot = readonly [x: number, z: number]
/** Whether something of a reach can lie at a spot with a gap to all that lie there. */
export const clear = (blocked: readonly Placed[], [x, z]: Spot, reach: number, gap: number) =>
  blocked.every((b) => Math.hypot(b.x - x, b.z - z) > b.reach + reach + gap)
