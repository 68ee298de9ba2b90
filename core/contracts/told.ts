import { z } from 'zod'
import { homeLanguages, otherWays } from './home-lists.ts'

/** Something to say to a home, by its key among the page's words: it waits for the home's language. */
export const Told = z.object({
  key: z.string(),
  values: z.record(z.string(), z.union([z.string(), z.number()])).optional(),
})
export type Told = z.infer<typeof Told>

export const HomeLanguage = z.enum(homeLanguages)
export const OtherWay = z.enum(otherWays)
