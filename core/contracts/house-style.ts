import { z } from 'zod'

/** The choices a setting makes about wording and method. Every text, check and form follows them. */
export const HouseStyle = z.object({
  add: z.enum(['add', 'plus', 'and']).default('add'),
  takeAway: z.enum(['take away', 'minus', 'subtract']).default('take away'),
  equals: z.enum(['equals', 'makes', 'is the same as']).default('equals'),
  /** `held`: the number held is said first ("five … six, seven"); `next`: the first number said is the next one. */
  countingOn: z.enum(['held', 'next']).default('held'),
  frameFill: z.enum(['across', 'pairs']).default('across'),
  zeroIsPart: z.boolean().default(true),
  turnRoundsCount: z.boolean().default(true),
  unknownAnywhere: z.boolean().default(true),
  /** Seconds given to a question whose script says no wait. */
  defaultWait: z.number().min(3).max(30).default(5),
  /** Home time of a pause that gives none, in seconds. */
  defaultPause: z.number().min(10).max(600).default(90),
})
export type HouseStyle = z.infer<typeof HouseStyle>
export const defaultHouseStyle: HouseStyle = HouseStyle.parse({})
