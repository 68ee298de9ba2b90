import { z } from 'zod'

/** Something that is not in order before a lesson goes out, at the station where it is mended. */
export const Concern = z.object({
  /** The same concern keeps its key: what was sent knowingly is recorded by these. */
  key: z.string().max(120),
  station: z.enum(['script', 'film', 'cut']),
  what: z.string(),
  segmentId: z.string().nullable(),
  stepId: z.string().nullable(),
})
export type Concern = z.infer<typeof Concern>
