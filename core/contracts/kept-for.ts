import { z } from 'zod'

/** What is kept of lessons and children, each for its own time. */
export const keptKinds = ['photos', 'sound', 'films', 'replies', 'standings', 'record'] as const
export type KeptKind = (typeof keptKinds)[number]

/** Days a kind is kept; null as long as nobody deletes it. Never under a month: what was done by mistake can be taken back so long. */
export const leastKept = 30
const Days = z.number().int().min(leastKept).max(3650).nullable()
export const KeptFor = z.object({
  photos: Days,
  sound: Days,
  films: Days,
  replies: Days,
  standings: Days,
  record: Days,
})
export type KeptFor = z.infer<typeof KeptFor>

/**
 * Days from when it came; standings from when the child left. A school year and the summer after it for what children
 * sent, so that the next teacher can look back once; half of that for pictures and voices, which identify. Films are the teacher's own work, used again. No law
 * names one number: a setting's own policy and local law come first.
 */
export const usuallyKept: KeptFor = {
  photos: 180,
  sound: 180,
  films: null,
  replies: 400,
  standings: 400,
  record: 730,
}
export const keptForOf = (own: Partial<KeptFor>): KeptFor => ({ ...usuallyKept, ...own })
