import type { Frames, Seconds } from './units.ts'
import { z } from 'zod'

/** Frames a second of every film Awlbox renders. All times of a cut list are whole frames. */
export const framesPerSecond = 30

/** Why something is proposed or was done. `ends`: the walk to and from the camera. `other take`: said better in another take. */
export const cutReasons = [
  'slip',
  'false start',
  'filler',
  'silence',
  'ends',
  'wait',
  'other take',
  'card',
  'overlay',
  'face',
  'name',
  'by hand',
] as const
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
const frames = (least: number, most: number): z.ZodType<Frames> => z.number().int().min(least).max(most)
const Frame = frames(0, mostFrames)
const Second: z.ZodType<Seconds> = z.number().min(0).max(10_800)

const TakeId = z.string().uuid()
/**
 * A stretch of a take, in frames into it: [from, to). `still` shows its first picture all the while; `voice` is another
 * take heard in place of its own sound, from that frame on.
 */
export const Clip = z
  .object({
    kind: z.literal('clip'),
    id: Id,
    takeId: TakeId,
    from: Frame,
    to: Frame,
    why: Why.nullable(),
    still: z.boolean().optional(),
    voice: z.object({ takeId: TakeId, from: Frame }).optional(),
  })
  .refine((c) => c.to > c.from, 'A span has at least one frame.')
export type Clip = z.infer<typeof Clip>

/** The last picture before it stands still while a ring fills: time to think. */
export const Hold = z.object({
  kind: z.literal('hold'),
  id: Id,
  frames: frames(1, framesPerSecond * 120),
  stepId: z.string().max(40).nullable(),
  why: Why.nullable(),
})
export type Hold = z.infer<typeof Hold>

/** Lines under a card's title at most: as many as a lesson can need things. */
export const cardLines = 20
export const cardLooks = ['aim', 'things', 'stop', 'sentence', 'guard', 'thanks'] as const
export const CardLook = z.enum(cardLooks)
export type CardLook = z.infer<typeof CardLook>
/** A full-screen card. `lines` stand under its title; a `stop` card counts down while it stays. */
export const Card = z.object({
  kind: z.literal('card'),
  id: Id,
  look: CardLook,
  title: z.string().min(1).max(160),
  lines: z.array(z.string().max(120)).max(cardLines),
  /** The step after which the table is drawn on it; absent where nothing is drawn. */
  table: z.string().max(40).optional(),
  frames: frames(framesPerSecond / 2, framesPerSecond * 120),
  stepId: z.string().max(40).nullable(),
  why: Why.nullable(),
})
export type Card = z.infer<typeof Card>

export const CutItem = z.discriminatedUnion('kind', [Clip, Hold, Card])
export type CutItem = z.infer<typeof CutItem>

/** A box in the film's picture of 1280 × 720. */
export const FilmBox = z.object({
  x: z.number().min(0).max(1280),
  y: z.number().min(0).max(720),
  w: z.number().min(1).max(1280),
  h: z.number().min(1).max(720),
})
export type FilmBox = z.infer<typeof FilmBox>

export const overlayLooks = ['sentence', 'table', 'hops', 'ring', 'arrow', 'magnify'] as const
export const OverlayLook = z.enum(overlayLooks)
export type OverlayLook = z.infer<typeof OverlayLook>
/**
 * Something over the picture while a stretch of a take is shown: it goes where that stretch goes. `place` is where it
 * stands; `at` what a ring, an arrow or a magnifier is about, as the viewer sees it. A table or its hops are drawn as
 * they are after `stepId`.
 */
export const Overlay = z
  .object({
    id: Id,
    look: OverlayLook,
    takeId: TakeId,
    from: Frame,
    to: Frame,
    text: z.string().max(80),
    stepId: z.string().max(40).nullable(),
    place: FilmBox,
    at: FilmBox.nullable(),
    why: Why.nullable(),
  })
  .refine((o) => o.to > o.from, 'An overlay is shown for at least one frame.')
export type Overlay = z.infer<typeof Overlay>

export const CutSegment = z.object({
  segmentId: z.string().max(40),
  /** The take it was first cut from; spans may come from others. */
  takeId: TakeId.nullable(),
  items: z.array(CutItem).max(1200),
  overlays: z.array(Overlay).max(300),
  /** Something was cut by hand: what is heard later changes nothing here. */
  byHand: z.boolean(),
})
export type CutSegment = z.infer<typeof CutSegment>

const Point = z.object({ x: z.number().min(-640).max(1920), y: z.number().min(-360).max(1080) })
/** An area covered over, in the take's own picture; it moves in straight lines from key to key and is there from the first frame to the last. */
export const Hidden = z.object({
  id: Id,
  what: z.enum(['face', 'name', 'number', 'other']),
  from: Frame,
  to: Frame,
  keys: z
    .array(z.object({ frame: Frame, box: FilmBox }))
    .min(1)
    .max(400),
  why: Why.nullable(),
})
export type Hidden = z.infer<typeof Hidden>
/** What is mended in a take's picture and sound, wherever it is shown. Done in this order: hidden, turned, mirrored, straightened, brought closer, lit. */
export const Repair = z.object({
  takeId: TakeId,
  /** Degrees clockwise. */
  turn: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  mirror: z.boolean(),
  /** The table's corners in the picture, clockwise from the upper left; they become the corners of the frame. */
  corners: z.tuple([Point, Point, Point, Point]).nullable(),
  /** Enlarged `by` times around a point; over `frames` frames from frame `from` of the take on, at once where 0. */
  closer: z
    .object({
      x: z.number().min(0).max(1280),
      y: z.number().min(0).max(720),
      by: z.number().min(1).max(4),
      from: Frame,
      frames: frames(0, framesPerSecond * 60),
    })
    .nullable(),
  /** Stops of light added; and warmth, −1 bluer to 1 yellower. */
  light: z.number().min(-2).max(2),
  warmth: z.number().min(-1).max(1),
  steady: z.boolean(),
  hidden: z.array(Hidden).max(60),
  /** Decibels added before the whole film is levelled. */
  louder: z.number().min(-24).max(24),
  /** The mains hum (50 or 60 Hz) taken out; none where 0. */
  hum: z.union([z.literal(0), z.literal(50), z.literal(60)]),
  hiss: z.boolean(),
})
export type Repair = z.infer<typeof Repair>

/** A caption changed by hand: its words, or its times in seconds of its take. An empty text takes it away. */
export const CaptionEdit = z.object({
  id: z.string().min(1).max(90),
  text: z.string().max(200).nullable(),
  start: Second.nullable(),
  end: Second.nullable(),
})
export type CaptionEdit = z.infer<typeof CaptionEdit>

export const CutList = z.object({
  format: z.literal('awlbox-cut'),
  version: z.literal(3),
  segments: z.array(CutSegment).max(60),
  repairs: z.array(Repair).max(400),
  captions: z.object({ burnt: z.boolean(), edits: z.array(CaptionEdit).max(2000) }),
})
export type CutList = z.infer<typeof CutList>
/** What holds for the whole film beside its segments. */
export const plainList = {
  format: 'awlbox-cut',
  version: 3,
  segments: [],
  repairs: [],
  captions: { burnt: false, edits: [] },
} satisfies CutList
