import { z } from 'zod'

export const PhotoThing = z.object({
  /** Centre and radius in pixels of the photo as given. */
  x: z.number(),
  y: z.number(),
  r: z.number(),
  colour: z.string(),
  cutOff: z.boolean(),
})
export type PhotoThing = z.infer<typeof PhotoThing>
/** A point of the photo in its pixels. */
const Spot = z.tuple([z.number(), z.number()])
const Outline = z.array(Spot).max(24)
const Group = z.object({ count: z.number().int().min(0), outline: Outline })
/** What the things lie on, where it gives them places. */
export const PhotoStructure = z.discriminatedUnion('kind', [
  /** Ten frames and egg boxes from the first on; `cells`: 0–9 in reading order, a cell as often as things lie in it. */
  z.object({
    kind: z.literal('frames'),
    frames: z
      .array(
        z.object({
          cells: z.array(z.number().int().min(0).max(9)),
          outline: Outline,
          astray: z.number().int(),
        }),
      )
      .max(8),
  }),
  /** Rings joined by lines: a whole and its parts from left to right. */
  z.object({ kind: z.literal('parts'), whole: Group, parts: z.array(Group).max(8) }),
  /** Plates and rings, row by row from the left. */
  z.object({ kind: z.literal('groups'), groups: z.array(Group).max(12) }),
])
export type PhotoStructure = z.infer<typeof PhotoStructure>

const photoWarnings = [
  'blurred',
  'dark',
  'too small',
  'touching',
  'cut off',
  'nothing found',
  'busy ground',
  'pale on pale',
  'something large in view',
  'perhaps a hand',
  'not a photo of things',
] as const
export const PhotoReading = z.object({
  width: z.number().int(),
  height: z.number().int(),
  count: z.number().int().min(0),
  low: z.number().int().min(0),
  high: z.number().int().min(0),
  groups: z.array(z.object({ colour: z.string(), count: z.number().int() })),
  /** Sizes of the heaps things lie in, largest first. */
  places: z.array(z.number().int()),
  things: z.array(PhotoThing).max(400),
  warnings: z.array(z.enum(photoWarnings)),
  structure: PhotoStructure.nullable().default(null),
  /** Things in rows, each row's colours from the left; the first row is the upper. */
  rows: z.array(z.array(z.string())).max(40).default([]),
})
export type PhotoReading = z.infer<typeof PhotoReading>
