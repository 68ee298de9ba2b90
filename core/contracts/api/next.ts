import { z } from 'zod'
import { Help, Level, Rung } from '../reply.ts'
import { Day, Made, ofClass, route, Uuid } from './route.ts'

export const ofChild = z.object({ childId: Uuid })
const ofChildIdea = z.object({ childId: Uuid, ideaId: z.string().max(40) })
const Counts = <T extends z.ZodEnum>(of: T) => z.record(of, z.number().int())

export const StandingCell = z.object({
  level: z.number(),
  low: z.number(),
  high: z.number(),
  occasions: z.number(),
  word: z.enum(['not seen', 'not yet', 'nearly', 'secure']),
  judged: z.boolean(),
  /** Whether the child may go on to what comes after. */
  ready: z.boolean(),
  because: z.string(),
  /** Answers with each help, and on each rung. */
  helps: Counts(Help),
  rungs: Counts(Rung),
})
export type StandingCell = z.infer<typeof StandingCell>
export const Trail = z.array(
  z.object({
    id: z.string(),
    /** Milliseconds since 1970. */
    at: z.number(),
    words: z.string(),
    kind: z.enum(['judgement', 'answer', 'override']),
    right: z.boolean().nullable(),
    title: z.string(),
    /** The lesson and reply to open it in; null of what was said of the child. */
    lessonId: Uuid.nullable(),
    replyId: Uuid.nullable(),
  }),
)
export type Trail = z.infer<typeof Trail>
export const Group = z.object({
  title: z.string(),
  reason: z.string(),
  children: z.array(z.object({ childId: Uuid, name: z.string(), numbers: z.string(), rung: Rung })),
})
const IdeaName = z.object({ id: z.string(), name: z.string() })
export const ClassStanding = z.object({
  class: z.object({ id: Uuid, name: z.string() }),
  ideas: z.array(IdeaName),
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
  /** What most of the class are ready for: an idea none of whose needs is missing. */
  readyFor: z.array(IdeaName.extend({ ready: z.number().int(), of: z.number().int() })),
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

export const evidence = route({
  method: 'GET',
  path: '/api/children/:childId/ideas/:ideaId/evidence',
  summary: 'What a child’s standing on an idea rests on, newest first.',
  params: ofChildIdea,
  response: z.object({ standing: StandingCell, trail: Trail }),
  changesWith: ['replies', 'job'],
  records: { act: 'saw', words: 'Saw what a standing rests on', of: 'childId' },
})
export const override = route({
  method: 'POST',
  path: '/api/children/:childId/ideas/:ideaId/override',
  summary:
    'What a teacher says of a child and an idea, whatever was sent; the newest holds, none is overwritten.',
  params: ofChildIdea,
  body: z.object({ level: Level, note: z.string().trim().max(500).default('') }),
  response: Made,
  records: { act: 'changed', words: 'Said where a child stands', of: 'childId' },
})

export const draftNext = route({
  method: 'POST',
  path: '/api/classes/:classId/next-lesson',
  summary:
    'Drafts the next lesson on an idea: its numbers in three sets, and what it carries over from the lessons before.',
  params: ofClass,
  body: z.object({ ideaId: z.string().max(40), day: Day }),
  response: Made,
  records: { act: 'changed', words: 'Drafted a lesson', of: 'classId' },
})

const Spoken = z.object({
  id: z.string(),
  words: z.string(),
  lessonId: Uuid.nullable(),
  replyId: Uuid.nullable(),
})
export const Suspected = z.object({
  id: z.string(),
  words: z.string(),
  /** 0–1 among all ways of thinking that were weighed. */
  p: z.number(),
  for: z.array(Spoken),
  against: z.array(Spoken),
  next: z.string(),
  /** Steps that show it, made from a strategy for one of the child's own numbers. */
  tryNext: z.object({ name: z.string(), lines: z.array(z.string()) }).nullable(),
})
export type Suspected = z.infer<typeof Suspected>
export const thinking = route({
  method: 'GET',
  path: '/api/children/:childId/thinking',
  summary:
    'How a child may be thinking, over all its answers: ways of thinking ranked, with what speaks for and against.',
  params: ofChild,
  response: z.object({
    weighed: z.number().int(),
    given: z.number().int(),
    words: z.string(),
    named: z.array(Suspected),
    considered: z.array(Suspected),
  }),
  changesWith: ['replies', 'job'],
  records: { act: 'saw', words: 'Saw how a child may be thinking', of: 'childId' },
})
