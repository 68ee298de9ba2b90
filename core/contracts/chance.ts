import { z } from 'zod'

const parts = z
  .array(z.object({ number: z.number().int().min(0).max(100), share: z.number().positive().max(100) }))
  .min(2)
  .max(12)

/**
 * What the numbers of a game come from. `share` of a spinner's part is its angle against the others'. Drawing twice
 * from a bowl or a pack without putting back never gives the same slip again.
 */
export const Device = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({
    kind: z.literal('dice'),
    faces: z.array(z.number().int().min(0).max(20)).min(2).max(20),
    dice: z.number().int().min(1).max(3),
  }),
  z.object({
    kind: z.literal('cards'),
    numbers: z.array(z.number().int().min(0).max(100)).min(2).max(60),
    draws: z.number().int().min(1).max(3),
    back: z.boolean(),
  }),
  z.object({ kind: z.literal('spinner'), parts, spins: z.number().int().min(1).max(3) }),
  z.object({
    kind: z.literal('bowl'),
    digits: z.array(z.number().int().min(0).max(9)).min(2).max(20),
    draws: z.number().int().min(1).max(2),
    back: z.boolean(),
  }),
])
export type Device = z.infer<typeof Device>
