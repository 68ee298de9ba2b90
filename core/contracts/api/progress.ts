import { z } from 'zod'
import { TaskSet } from '../lesson.ts'
import { Feeling, Help, Level, Rung } from '../reply.ts'
import { ofChild, StandingCell } from './next.ts'
import { file, Moment, ofClass, route, Uuid } from './route.ts'

const Idea = z.object({ id: z.string(), name: z.string() })
/** A child through the ideas and through time. */
export const Progress = z.object({
  child: z.object({ id: Uuid, name: z.string(), classId: Uuid.nullable(), className: z.string() }),
  ideas: z.array(Idea.extend({ standing: StandingCell })),
  replies: z.array(
    z.object({
      id: Uuid,
      lessonId: Uuid,
      title: z.string(),
      at: Moment,
      photoId: Uuid.nullable(),
      help: Help.nullable(),
      way: Rung.nullable(),
      feeling: Feeling.nullable(),
      couldNot: z.boolean(),
      gave: TaskSet.nullable(),
      chose: TaskSet.nullable(),
      right: z.number().int(),
      said: z.number().int(),
      words: z.string(),
      judged: z.object({ level: Level, help: Help, rung: Rung, note: z.string() }).nullable(),
      feedback: z.string().nullable(),
    }),
  ),
  /** Whether there are older replies than those shown. */
  older: z.boolean(),
  /** Estimates on number lines, oldest first: the mean error as a share of the scale, and how they lie. */
  lines: z.array(z.object({ at: Moment, title: z.string(), mean: z.number(), statement: z.string() })),
})
export type Progress = z.infer<typeof Progress>

export const progress = route({
  method: 'GET',
  path: '/api/children/:childId/progress',
  summary: 'A child through the ideas, its replies in time, rungs, help and line estimates.',
  params: ofChild,
  /** `all`: every reply ever, not only the newest. */
  query: z.object({ all: z.literal('1').optional() }),
  response: Progress,
  changesWith: ['replies', 'job'],
  records: { act: 'saw', words: 'Saw a child’s progress', of: 'childId' },
})
export const report = route({
  method: 'GET',
  path: '/api/children/:childId/report',
  summary:
    'A child’s learning for a meeting with its grown-ups, as a PDF: what it can do, how, and what comes next.',
  params: ofChild,
  response: file('application/pdf'),
  records: { act: 'exported', words: 'Took a child’s report along', of: 'childId' },
})
export const fairnessOf = route({
  method: 'GET',
  path: '/api/classes/:classId/fairness',
  summary: 'Whether “alone” is said less often without a printer, late, or in another language: counts.',
  params: ofClass,
  response: z.object({
    items: z.array(
      z.object({
        what: z.string(),
        one: z.object({ words: z.string(), replies: z.number().int(), alone: z.number().int() }),
        other: z.object({ words: z.string(), replies: z.number().int(), alone: z.number().int() }),
        differs: z.boolean(),
      }),
    ),
  }),
})
export const judgementsCsv = route({
  method: 'GET',
  path: '/api/classes/:classId/judgements.csv',
  summary: 'Every judgement of a class as a table.',
  params: ofClass,
  response: file('text/csv'),
  records: { act: 'exported', words: 'Exported judgements as a table', of: 'classId' },
})
export const standingsCsv = route({
  method: 'GET',
  path: '/api/classes/:classId/standings.csv',
  summary: 'Where every child of a class stands on every idea it met, as a table.',
  params: ofClass,
  response: file('text/csv'),
  records: { act: 'exported', words: 'Exported standings as a table', of: 'classId' },
})
export const statements = route({
  method: 'GET',
  path: '/api/classes/:classId/statements.jsonl',
  summary:
    'What the children of a class answered and how it was judged, as xAPI statements, a line each; children by a made-up account name.',
  params: ofClass,
  response: file('application/x-ndjson'),
  records: { act: 'exported', words: 'Exported learning statements', of: 'classId' },
})
