import { z } from 'zod'
import { KitItem, TaskSpec } from './lesson.ts'
import { printableKinds } from './printables.ts'
import { Told } from './told.ts'

export const PackTask = z.object({ id: z.string(), prompt: z.string(), spec: TaskSpec })
export type PackTask = z.infer<typeof PackTask>

/** What the grown-up reads before: all of it waits for the home's language. */
export const PackNotes = z.object({
  aim: Told.nullable(),
  why: Told.nullable(),
  see: z.array(z.object({ see: Told, say: Told })),
  ways: z.array(Told),
  /** What is better not told. */
  not: Told.nullable(),
})
export type PackNotes = z.infer<typeof PackNotes>

/** What a home receives, fixed at the moment of sending: made from one revision of the lesson and nothing else. */
export const Pack = z.object({
  title: z.string(),
  aim: z.string(),
  ideaId: z.string(),
  needs: z.array(KitItem.extend({ swap: z.string().nullable(), each: z.boolean().optional() })),
  cautions: z.array(z.string()),
  tasks: z.array(PackTask),
  adultNote: z.array(z.string()),
  notes: PackNotes.optional(),
  /** Where the answers stand, as the house has it. */
  answers: z.enum(['spoiler', 'adults', 'never']).optional(),
  sheets: z.array(z.enum(printableKinds)).optional(),
  /** The numbers its sheets are made with. */
  sheetNumbers: z.object({ upTo: z.number(), parts: z.number() }).optional(),
})
export type Pack = z.infer<typeof Pack>
