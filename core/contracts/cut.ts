import { z } from 'zod'

/** Frames a second of every film Awlbox renders. All times of a cut list come out as whole frames. */
export const framesPerSecond = 30

export const CutDrop = z.object({
  id: z.string().max(40),
  /** Seconds into the take. */
  from: z.number().min(0),
  to: z.number().min(0),
  reason: z.enum(['slip', 'false start', 'silence', 'by hand']),
  note: z.string().max(200),
  /** Proposed drops wait for the teacher; only accepted ones are cut. */
  state: z.enum(['proposed', 'accepted', 'declined']),
})
export type CutDrop = z.infer<typeof CutDrop>

export const CutSegment = z.object({
  segmentId: z.string().max(40),
  takeId: z.string().uuid().nullable(),
  /** Seconds into the take at which it begins and ends; null end is the take's own. */
  start: z.number().min(0),
  end: z.number().min(0).nullable(),
  drops: z.array(CutDrop).max(200),
  /** A card after the segment: what it says and how long it stays in the film, in seconds. */
  card: z.object({ text: z.string().min(1).max(160), seconds: z.number().min(1).max(30) }).nullable(),
})
export type CutSegment = z.infer<typeof CutSegment>

export const CutList = z.object({ format: z.literal('awlbox-cut'), version: z.literal(1), segments: z.array(CutSegment).max(60) })
export type CutList = z.infer<typeof CutList>
