import { z } from 'zod'

export const verbs = ['say', 'ask', 'wait', 'do', 'count', 'write', 'reveal', 'pause', 'sound'] as const
export const Verb = z.enum(verbs)
export type Verb = z.infer<typeof Verb>

export const segmentKinds = [
  'hook', 'aim', 'things needed', 'warm-up', 'show', 'together', 'alone',
  'story', 'game', 'challenge', 'home task', 'close', 'note to adults',
] as const
export const SegmentKind = z.enum(segmentKinds)
export type SegmentKind = z.infer<typeof SegmentKind>

/** What a home answers: made from a question or a pause of the script. */
export const TaskSpec = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('number'), answer: z.number().int().min(0).max(1000) }),
  z.object({
    kind: z.literal('choice'),
    choices: z.array(z.string().min(1).max(80)).min(2).max(6),
    answer: z.number().int().min(0).max(5),
  }),
  z.object({ kind: z.literal('photo'), things: z.number().int().min(0).max(40) }),
])
export type TaskSpec = z.infer<typeof TaskSpec>

const Id = z.string().regex(/^[a-z0-9-]{1,40}$/)

/**
 * One line of a script: a verb and the words after it. `do`, `count`, `wait` and `pause` lines are read by
 * core/script/reading, so what the teacher types is the document; nothing is kept twice.
 */
export const Step = z.object({
  id: Id,
  verb: Verb,
  text: z.string().max(600),
  /** A mistake made on purpose for children to correct: neither proof-reader nor first cut removes it. */
  deliberate: z.boolean().optional(),
  task: TaskSpec.optional(),
})
export type Step = z.infer<typeof Step>

export const Audience = z.enum(['children', 'adults'])
export type Audience = z.infer<typeof Audience>

export const Segment = z.object({
  id: Id,
  title: z.string().max(120),
  kind: SegmentKind,
  audience: Audience,
  steps: z.array(Step).max(200),
})
export type Segment = z.infer<typeof Segment>

export const Example = z.object({
  a: z.number().int().min(0).max(100),
  b: z.number().int().min(0).max(100),
  total: z.number().int().min(0).max(200),
  op: z.enum(['+', '-']),
})
export type Example = z.infer<typeof Example>

export const structures = ['parts', 'add', 'take-away', 'count-on'] as const
export const Structure = z.enum(structures)
export type Structure = z.infer<typeof Structure>

/** What the lesson is for: the idea, its numbers and what the example set has to hold. */
export const Aim = z.object({
  structure: Structure,
  /** The whole (parts) or the largest number met (the others). */
  upTo: z.number().int().min(2).max(20),
  count: z.number().int().min(2).max(8),
  mustHave: z.array(z.enum(['double', 'turn-round', 'zero', 'crosses ten'])),
  noRepeatedTotal: z.boolean(),
})
export type Aim = z.infer<typeof Aim>

export const KitItem = z.object({ thing: z.string().min(1).max(60), count: z.number().int().min(1).max(200) })
export type KitItem = z.infer<typeof KitItem>

export const Lesson = z.object({
  format: z.literal('awlbox-lesson'),
  version: z.literal(1),
  title: z.string().trim().min(1).max(120),
  ideaId: z.string().max(40),
  age: z.number().int().min(3).max(7),
  aim: Aim,
  examples: z.array(Example).max(12),
  kit: z.array(KitItem).max(20),
  segments: z.array(Segment).max(60),
})
export type Lesson = z.infer<typeof Lesson>
