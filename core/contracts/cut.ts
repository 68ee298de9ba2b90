import { z } from 'zod'

/** Frames a second of every film Awlbox renders. All times of a cut list are whole frames. */
export const framesPerSecond = 30

/** Why something is proposed or was done. `ends`: the walk to and from the camera. `other take`: said better in another take. */
export const cutReasons = ['slip', 'false start', 'filler', 'silence', 'ends', 'wait', 'other take', 'card', 'by hand'] as const
export const CutReason = z.enum(cutReasons)
export type CutReason = z.infer<typeof CutReason>

/** A decision, open until a person takes it. `drop` takes its item out of the film, `add` puts it in; both only when accepted. */
export const Why = z.object({
  /** The same each time the same take is heard, so that what was decided stays; items decided together share it. */
  id: z.string().min(1).max(60),
  act: z.enum(['drop', 'add']),
  kind: CutReason,
  note: z.string().max(240),
  /** False where hearing may be at fault: let the ear decide. */
  sure: z.boolean(),
  state: z.enum(['open', 'accepted', 'declined']),
})
export type Why = z.infer<typeof Why>

const Id = z.string().min(1).max(60)
/** Three hours. */
const mostFrames = framesPerSecond * 3600 * 3
const Frame = z.number().int().min(0).max(mostFrames)

/** A stretch of a take, in frames into it: [from, to). */
export const Clip = z.object({ kind: z.literal('clip'), id: Id, takeId: z.string().uuid(), from: Frame, to: Frame, why: Why.nullable() }).refine((c) => c.to > c.from, 'A span has at least one frame.')
export type Clip = z.infer<typeof Clip>

/** The last picture before it stands still while a ring fills: time to think. */
export const Hold = z.object({ kind: z.literal('hold'), id: Id, frames: z.number().int().min(1).max(framesPerSecond * 120), stepId: z.string().max(40).nullable(), why: Why.nullable() })
export type Hold = z.infer<typeof Hold>

export const cardLooks = ['aim', 'things', 'stop', 'sentence', 'guard', 'thanks'] as const
export const CardLook = z.enum(cardLooks)
export type CardLook = z.infer<typeof CardLook>
/** A full-screen card. `lines` stand under its title; a `stop` card counts down while it stays. */
export const Card = z.object({
  kind: z.literal('card'), id: Id, look: CardLook, title: z.string().min(1).max(160), lines: z.array(z.string().max(120)).max(8),
  frames: z.number().int().min(framesPerSecond / 2).max(framesPerSecond * 120), stepId: z.string().max(40).nullable(), why: Why.nullable(),
})
export type Card = z.infer<typeof Card>

export const CutItem = z.discriminatedUnion('kind', [Clip, Hold, Card])
export type CutItem = z.infer<typeof CutItem>

export const CutSegment = z.object({
  segmentId: z.string().max(40),
  /** The take it was first cut from; spans may come from others. */
  takeId: z.string().uuid().nullable(),
  items: z.array(CutItem).max(1200),
  /** Something was cut by hand: what is heard later changes nothing here. */
  byHand: z.boolean(),
})
export type CutSegment = z.infer<typeof CutSegment>

export const CutList = z.object({ format: z.literal('awlbox-cut'), version: z.literal(2), segments: z.array(CutSegment).max(60) })
export type CutList = z.infer<typeof CutList>
