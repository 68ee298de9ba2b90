import { z } from 'zod'
import { TaskSet, taskKinds } from './lesson.ts'

export const helps = ['alone', 'nudged', 'together'] as const
export const Help = z.enum(helps)
export type Help = z.infer<typeof Help>
export const rungs = ['things', 'picture', 'track', 'head'] as const
export const Rung = z.enum(rungs)
export type Rung = z.infer<typeof Rung>
/** How it felt, as a child points at one of three faces. */
export const feelings = ['easy', 'just right', 'hard'] as const
export const Feeling = z.enum(feelings)
export type Feeling = z.infer<typeof Feeling>
export const levels = ['secure', 'nearly', 'not yet', "can't tell"] as const
export const Level = z.enum(levels)
export type Level = z.infer<typeof Level>

/** One more photo of the same task, with its words. */
const MorePhoto = z.object({ photoId: z.string().uuid(), text: z.string().max(200).default('') })
/** A drawing's lines: moves and lines in a field of 1000 × 700. */
const Drawing = z
  .string()
  .max(20_000)
  .regex(/^(?:[ML]\d{1,4} \d{1,4})*$/)
/** What a home typed or chose for one task, as it was given; reading it is the core's work. Null: left open. */
export const Answer = z.object({
  taskId: z.string().max(40),
  kind: z.enum(taskKinds),
  text: z.string().max(500).nullable().optional(),
  choice: z.number().int().min(0).max(5).nullable().optional(),
  photoId: z.string().uuid().nullable().optional(),
  more: z.array(MorePhoto).max(3).nullable().optional(),
  /** A voice of a minute at most, or a short film of hands and table. */
  recordingId: z.string().uuid().nullable().optional(),
  drawing: Drawing.nullable().optional(),
  /** What was laid, ticked, listed or shared, piece by piece; empty where nothing fitted. */
  given: z.array(z.string().max(80)).max(40).nullable().optional(),
})
export type Answer = z.infer<typeof Answer>

export const ReplyInput = z.object({
  childId: z.string().uuid(),
  /** Made once by the page: a reply sent twice with it is one reply. */
  key: z.string().uuid(),
  /** As many as a lesson given live can have rounds, and what was kept for home. */
  answers: z.array(Answer).max(300),
  help: Help.nullable(),
  /** Which way they did it; null where nobody said. */
  way: Rung.nullable().default(null),
  feeling: Feeling.nullable().default(null),
  /** It could not be done today: a reply too, and nothing is wrong with it. */
  couldNot: z.boolean().default(false),
  /** Which set of tasks the child took; null where there was none to take, or it was given. */
  chose: TaskSet.nullable().default(null),
  /** Why the child thinks so, in its words. */
  why: z.string().max(500).default(''),
  words: z.string().max(1000),
})
export type ReplyInput = z.infer<typeof ReplyInput>

export const JudgementInput = z.object({
  level: Level,
  help: Help,
  rung: Rung,
  note: z.string().max(500).default(''),
})
export type JudgementInput = z.infer<typeof JudgementInput>
