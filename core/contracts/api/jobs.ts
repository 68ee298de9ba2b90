import { z } from 'zod'
import { file, Moment, ofLesson, Ok, route, Uuid } from './route.ts'

export const jobKinds = ['film', 'take', 'render', 'photo'] as const
export const jobStates = ['queued', 'running', 'done', 'failed', 'cancelled'] as const
export const JobRecord = z.object({
  id: Uuid,
  kind: z.enum(jobKinds),
  /** What it is about: a segment's id, or the id of a take, lesson or photo. */
  subject: z.string(),
  data: z.record(z.string(), z.unknown()),
  status: z.enum(jobStates),
  step: z.string(),
  /** Share done, 0–1. */
  share: z.number(),
  problem: z.string().nullable(),
  startedAt: Moment.nullable(),
  createdAt: Moment,
})
export type JobRecord = z.infer<typeof JobRecord>

export const jobs = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/jobs',
  summary: 'Work under way for a lesson, and what ended within a day; newest first.',
  params: ofLesson,
  response: z.object({ items: z.array(JobRecord) }),
  changesWith: ['job'],
})
export const cancelJob = route({
  method: 'POST',
  path: '/api/jobs/:jobId/cancel',
  summary: 'Stops work that waits or is under way.',
  params: z.object({ jobId: Uuid }),
  response: Ok,
})
/** Server-sent events: `{ kind, lesson }`, and for a prompter and its remote `message`. */
export const events = route({
  method: 'GET',
  path: '/api/events',
  summary: 'Tells, as server-sent events, what changes in the setting.',
  response: file('text/event-stream'),
})
export const health = route({
  method: 'GET',
  path: '/api/health',
  who: 'anyone',
  summary: 'Whether the web process and its database answer.',
  response: Ok,
})
