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
  warnings: z.array(
    z.enum(['blurred', 'dark', 'too small', 'touching', 'cut off', 'nothing found', 'busy ground']),
  ),
})
export type PhotoReading = z.infer<typeof PhotoReading>
