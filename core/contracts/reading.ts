import { z } from 'zod'

export const PhotoThing = z.object({
  /** Centre and radius in pixels of the photo as given. */
  x: z.number(),
  y: z.number(),
  r: z.number(),
  colour: z.string(),
  cutOff: z.boolean(),
  /** Whether a stroke runs through it. */
  crossed: z.boolean().optional(),
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
  /** Plates, rings and cards, row by row from the left. */
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
  /** Heights of towers from the left, where things stand on one another as seen from the front; empty where none do. */
  towers: z.array(z.number().int().min(1)).max(40).default([]),
  /** Things along one line by its sides, left and right of the widest gap; null where they lie on no line. */
  sides: z
    .tuple([z.number().int().min(0), z.number().int().min(0)])
    .nullable()
    .default(null),
  /** Strokes of a tally; null where what the pen left is something else. */
  tally: z
    .object({ count: z.number().int().min(0), low: z.number().int().min(0), high: z.number().int().min(0) })
    .nullable()
    .default(null),
  /** A drawn line with things on it: its ends, and where each lies along it, 0–1 from its left or upper end. */
  line: z
    .object({ from: Spot, to: Spot, at: z.array(z.number().min(0).max(1)).max(60) })
    .nullable()
    .default(null),
  /** Dots on the faces of dice, from the left, with whether all were clear. */
  dice: z
    .array(z.object({ pips: z.number().int().min(0).max(6), sure: z.boolean() }))
    .max(12)
    .default([]),
  /** The boxes of a printed reply sheet, the first task's first: what lies or is drawn in each, and whether a pen was there. */
  sheet: z
    .array(
      z.object({
        count: z.number().int(),
        low: z.number().int(),
        high: z.number().int(),
        inked: z.boolean(),
        outline: Outline,
      }),
    )
    .max(6)
    .nullable()
    .default(null),
})
export type PhotoReading = z.infer<typeof PhotoReading>

/** What is read of a photo in which nothing was seen yet, in its pixels: what a person rings starts from it. */
export const emptyReading = ({ width, height }: { width: number; height: number }): PhotoReading =>
  PhotoReading.parse({
    width,
    height,
    count: 0,
    low: 0,
    high: 0,
    groups: [],
    places: [],
    things: [],
    warnings: [],
  })
