import { z } from 'zod'
import { arcs } from './lesson.ts'

/** The choices a setting makes about wording and method. Every text, check and form follows them. */
export const HouseStyle = z.object({
  add: z.enum(['add', 'plus', 'and']).default('add'),
  takeAway: z.enum(['take away', 'minus', 'subtract']).default('take away'),
  equals: z.enum(['equals', 'makes', 'is the same as']).default('equals'),
  /** What two numbers that make a total are called together. */
  pairsName: z.enum(['number bonds', 'partners', 'part-part-whole']).default('number bonds'),
  /** `strict`: "fewer" for things that are counted; `either`: "less" is allowed too. */
  fewer: z.enum(['strict', 'either']).default('strict'),
  /** `held`: the number held is said first ("five … six, seven"); `next`: the first number said is the next one. */
  countingOn: z.enum(['held', 'next']).default('held'),
  frameFill: z.enum(['across', 'pairs']).default('across'),
  zeroIsPart: z.boolean().default(true),
  turnRoundsCount: z.boolean().default(true),
  unknownAnywhere: z.boolean().default(true),
  arc: z.enum(arcs).default('show-together-alone'),
  /** `things-first`: things, picture, line or square, in the head; `learner`: the child chooses. */
  strategyOrder: z.enum(['things-first', 'learner']).default('things-first'),
  /** Fingers are never marked down; `welcome` says so in the lesson. */
  fingers: z.enum(['welcome', 'unmentioned']).default('welcome'),
  /** When + − = are shown. */
  symbols: z.enum(['secure', 'start', 'never']).default('secure'),
  /** Where answers to home tasks stand. */
  answers: z.enum(['spoiler', 'adults', 'never']).default('spoiler'),
  judging: z.enum(['scale', 'pairs']).default('scale'),
  /** Whether what the checks propose is seen before a reply is judged, or only after. */
  proposals: z.enum(['before', 'after']).default('before'),
  /** Where a hundred square begins. */
  squareFrom: z.union([z.literal(0), z.literal(1)]).default(1),
  /** Whether lessons may speak of speed and of winning. */
  rivalry: z.boolean().default(false),
  /** What the helper at home is called. */
  helper: z.string().trim().min(2).max(40).default('the grown-up with you'),
  /** Seconds given to a question whose script says no wait. */
  defaultWait: z.number().min(3).max(30).default(5),
  /** Home time of a pause that gives none, in seconds. */
  defaultPause: z.number().min(10).max(600).default(90),
  /** Megabytes that ten minutes of a film's small version may have, for homes that pay for what they load. */
  smallMegabytes: z.number().min(8).max(100).default(25),
})
export type HouseStyle = z.infer<typeof HouseStyle>
export const defaultHouseStyle: HouseStyle = HouseStyle.parse({})
