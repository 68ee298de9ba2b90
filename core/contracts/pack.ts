import { z } from 'zod'
import { KitItem, TaskSpec } from './lesson.ts'

export const PackTask = z.object({ id: z.string(), prompt: z.string(), spec: TaskSpec })
export type PackTask = z.infer<typeof PackTask>

/** What a home receives, fixed at the moment of sending: made from one revision of the lesson and nothing else. */
export const Pack = z.object({
  title: z.string(),
  aim: z.string(),
  ideaId: z.string(),
  needs: z.array(KitItem.extend({ swap: z.string().nullable() })),
  cautions: z.array(z.string()),
  tasks: z.array(PackTask),
  adultNote: z.array(z.string()),
})
export type Pack = z.infer<typeof Pack>
