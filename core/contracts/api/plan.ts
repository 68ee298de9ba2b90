import { z } from 'zod'
import { OtherWay } from '../told.ts'
import { Example, KitItem } from '../lesson.ts'
import { ofClass, route, Uuid } from './route.ts'

export const coverage = route({
  method: 'GET',
  path: '/api/classes/:classId/coverage',
  summary: 'Facts of one kind a class has met in its other lessons: near this week, and this term.',
  params: ofClass,
  query: z.object({ structure: z.string().optional(), except: Uuid.optional() }),
  response: z.object({ week: z.array(Example), term: z.array(Example) }),
  changesWith: ['lessons'],
})
const ofThings = z.array(z.object({ thing: z.string(), homes: z.number() }))
export const KitSummary = z.object({
  homes: z.number(),
  answered: z.number(),
  asWritten: z.number(),
  withSwap: z.number(),
  printed: z.number(),
  notYet: z.number(),
  prints: ofThings,
  lacks: ofThings,
  underThree: z.number(),
  ways: z.array(z.object({ way: OtherWay, homes: z.number().int() })),
  sentence: z.string(),
})
export type KitSummary = z.infer<typeof KitSummary>
export const homesAble = route({
  method: 'POST',
  path: '/api/classes/:classId/kit',
  summary: 'How many homes of a class can do a lesson with these things.',
  params: ofClass,
  body: z.object({ kit: z.array(KitItem).max(20) }),
  response: KitSummary,
})
