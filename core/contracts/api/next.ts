import { z } from 'zod'
import { ofClass, route, Uuid } from './route.ts'

export const StandingCell = z.object({
  level: z.number(),
  low: z.number(),
  high: z.number(),
  occasions: z.number(),
  word: z.enum(['not seen', 'not yet', 'nearly', 'secure']),
  judged: z.boolean(),
  because: z.string(),
  evidence: z.array(z.string()),
  trail: z.array(
    z.object({
      id: z.string(),
      /** Milliseconds since 1970. */
      at: z.number(),
      words: z.string(),
      kind: z.enum(['judgement', 'answer']),
      right: z.boolean().nullable(),
      title: z.string(),
    }),
  ),
})
export type StandingCell = z.infer<typeof StandingCell>
export const Group = z.object({
  title: z.string(),
  reason: z.string(),
  children: z.array(z.object({ childId: Uuid, name: z.string() })),
})
export const ClassStanding = z.object({
  class: z.object({ id: Uuid, name: z.string() }),
  ideas: z.array(z.object({ id: z.string(), name: z.string() })),
  rows: z.array(
    z.object({
      childId: Uuid,
      name: z.string(),
      ideas: z.record(z.string(), StandingCell),
      /** When the child last replied, in milliseconds since 1970. */
      last: z.number().nullable(),
    }),
  ),
  /** The idea the groups are for; empty where there is none. */
  idea: z.string(),
  groups: z.array(Group),
})
export type ClassStanding = z.infer<typeof ClassStanding>

export const classStanding = route({
  method: 'GET',
  path: '/api/classes/:classId/standing',
  summary: 'Where every child of a class stands, and groups for one idea.',
  params: ofClass,
  query: z.object({ idea: z.string().optional() }),
  response: ClassStanding,
  changesWith: ['replies', 'publications', 'job'],
  records: { act: 'saw', words: 'Saw where the children of a class stand', of: 'classId' },
})
