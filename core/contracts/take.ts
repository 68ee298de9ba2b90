import { z } from 'zod'

/** What was marked while filming, in seconds into the recording. */
export const TakeMark = z.discriminatedUnion('kind', [
  /** A slip the teacher noticed: by key, or by clapping twice. */
  z.object({ kind: z.literal('slip'), at: z.number().min(0), by: z.enum(['key', 'clap']).default('key') }),
  /** The prompter went on to a segment: where a recording straight through is parted. */
  z.object({ kind: z.literal('segment'), at: z.number().min(0), segmentId: z.string().max(40) }),
  /** What of a longer recording is the lesson: what was said before and after it is in no take. */
  z.object({ kind: z.literal('within'), at: z.number().min(0), to: z.number().min(0) }),
  /** What a die, spinner or draw really gave, for a step written otherwise. */
  z.object({
    kind: z.literal('roll'),
    at: z.number().min(0),
    stepId: z.string().max(40),
    faces: z.array(z.number().int().min(0).max(100)).min(1).max(4),
  }),
])
export type TakeMark = z.infer<typeof TakeMark>
export const TakeMarks = z.array(TakeMark).max(400)

/** What is wrong, or worth knowing, about a take's sound. */
export const TakeSound = z.object({
  channels: z.number(),
  /** Samples a second of the original. */
  rate: z.number(),
  /** Which channel is used: both, or the only one with sound in it. */
  used: z.enum(['both', 'left', 'right']),
  notes: z.array(z.string()),
})
export type TakeSound = z.infer<typeof TakeSound>

/** Why a clip was given to a segment, or waits in the tray. */
export const Sorting = z.object({
  reason: z.string(),
  matches: z.array(z.object({ segmentId: z.string(), score: z.number(), phrases: z.array(z.string()) })),
  /** Whether a person has put it where it is. */
  byHand: z.boolean(),
})
export type Sorting = z.infer<typeof Sorting>

/** A clip's first picture held against the planned table. */
export const FirstFrame = z.object({
  planned: z.number(),
  /** Things counted in the picture, and every count the picture allows. */
  seen: z.number(),
  low: z.number(),
  high: z.number(),
  /** Whether they agree; null where the picture tells nothing, or nothing was to be seen. */
  agrees: z.boolean().nullable(),
  message: z.string(),
})
export type FirstFrame = z.infer<typeof FirstFrame>
