import { z } from 'zod'

/**
 * Faces of a two-faced counter, and a third colour for what is drawn, shaded or of another sort. The blue face carries a
 * dot and the green a square, so that they stay apart without colour.
 */
export const Face = z.enum(['saffron', 'blue', 'green'])
export type Face = z.infer<typeof Face>
export const Thing = z.object({
  /** Which thing it is: kept while it is moved or turned, so that a drawing can show it travel. */
  key: z.number(),
  kind: z.string(),
  face: Face,
  crossed: z.boolean(),
  /** Under a hand or a cloth: there, but not to be seen. */
  hidden: z.boolean(),
  /** What it counts for: 1, or 10 for a ten, or a coin's worth. */
  worth: z.number(),
  /** Things of one heap lie together, a gap away from the others in their place; 0 for all that were never parted. */
  heap: z.number(),
})
export type Thing = z.infer<typeof Thing>

export const matKinds = [
  'table',
  'row',
  'frame',
  'parts',
  'bar',
  'shelves',
  'plates',
  'jar',
  'line',
  'square',
  'dots',
  'pairs',
  'rail',
  'cards',
  'hands',
  'tower',
  'coins',
  'skittles',
  'scene',
  'sound',
  'dice',
  'spinner',
  'bowl',
] as const
export const MatKind = z.enum(matKinds)
export type MatKind = z.infer<typeof MatKind>

export const Region = z.object({
  name: z.string(),
  /** Places in it; null for as many as fit. */
  slots: z.number().nullable(),
  things: z.array(Thing).readonly(),
  /** A numeral or word written in it. */
  label: z.string().nullable(),
})
export type Region = z.infer<typeof Region>
export const Hop = z.object({ from: z.number(), to: z.number() })
export type Hop = z.infer<typeof Hop>
export const Line = z.object({
  from: z.number(),
  to: z.number(),
  /** Distance between numbered ticks; 0 for an empty line with its ends only. */
  every: z.number(),
  hops: z.array(Hop).readonly(),
  at: z.number().nullable(),
  /** Numbers placed or shaded. */
  marks: z.array(z.number()).readonly(),
  /** The colour of those that were marked in one. */
  pens: z.array(z.object({ number: z.number(), face: Face })).readonly(),
})
export type Line = z.infer<typeof Line>
/** A card, a face of a die, a slip in a bowl, a part of a spinner. */
export const Card = z.object({ text: z.string(), up: z.boolean() })
export type Card = z.infer<typeof Card>
export const Mat = z.object({
  kind: MatKind,
  regions: z.array(Region).readonly(),
  covered: z.boolean(),
  line: Line.nullable(),
  /** A divider or the slid pegs: how many things stand before it. */
  divider: z.number().nullable(),
  /** Groups ringed, as ranges over the mat's things: from (inclusive) to (exclusive). */
  rings: z.array(Hop).readonly(),
  cards: z.array(Card).readonly(),
  /** Which pattern the things lie in; 0 is the first. Rearranging changes it and nothing else. */
  look: z.number(),
})
export type Mat = z.infer<typeof Mat>
/** One place of a mat, by its index among the mat's places. */
export const Spot = z.object({ mat: MatKind, region: z.number() })
export type Spot = z.infer<typeof Spot>
export const TableState = z.object({
  mats: z.array(Mat).readonly(),
  /** Mats put away or cleared off, bare and in the form they had: named again, they come back as they were. */
  aside: z.array(Mat).readonly(),
  written: z.array(z.string()).readonly(),
  held: z.number().nullable(),
  /** Largest number of things out since the table was last cleared: the "start" of a take-away. */
  start: z.number(),
  /** How many were taken off since the table was last cleared. */
  taken: z.number(),
  /** Key of the next thing put out. */
  nextKey: z.number(),
  /** The things a hand last put or moved, and where they came from: what "them" and "back" mean. */
  last: z.object({ keys: z.array(z.number()).readonly(), from: Spot.nullable() }).nullable(),
})
export type TableState = z.infer<typeof TableState>
