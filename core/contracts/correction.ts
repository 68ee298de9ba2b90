import { z } from 'zod'

/** What a person typed for a stretch of a take that was recognised wrong. Seconds; `said` is empty where nothing was said. */
export const Correction = z.object({
  from: z.number().min(0),
  to: z.number().min(0),
  heard: z.string().max(400),
  said: z.string().max(400),
})
export type Correction = z.infer<typeof Correction>
