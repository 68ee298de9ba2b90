import { z } from 'zod'
import { TaskSet } from '../lesson.ts'
import { PackTask } from '../pack.ts'
import { PhotoReading } from '../reading.ts'
import { Answer, Feeling, Help, JudgementInput, Rung } from '../reply.ts'
import { TableState } from '../table.ts'
import { file, Made, Moment, ofLesson, route, Uuid } from './route.ts'

export const JudgementRecord = JudgementInput.extend({
  id: Uuid,
  replyId: Uuid,
  note: z.string(),
  at: Moment,
  by: z.string(),
})
export type JudgementRecord = z.infer<typeof JudgementRecord>
export const PhotoRecord = z.object({
  id: Uuid,
  width: z.number().int(),
  height: z.number().int(),
  /** Null until the server has read it. */
  reading: PhotoReading.nullable(),
  /** Why it could not be read; null while that is not known. */
  unread: z.string().nullable(),
  /** Faces that seem to be in it; null while nobody looked, or where none can be looked for. */
  faces: z.number().int().nullable(),
})
export type PhotoRecord = z.infer<typeof PhotoRecord>
export const ReplyRecord = z.object({
  id: Uuid,
  childId: Uuid,
  child: z.string(),
  answers: z.array(Answer),
  help: Help.nullable(),
  way: Rung.nullable(),
  feeling: Feeling.nullable(),
  couldNot: z.boolean(),
  /** The set the teacher gave, and the one the child took: kept apart. */
  gave: TaskSet.nullable(),
  chose: TaskSet.nullable(),
  why: z.string(),
  words: z.string(),
  receivedAt: Moment,
  updatedAt: Moment,
  publicationId: Uuid,
  tasks: z.array(PackTask.extend({ expected: TableState.nullable() })),
  photos: z.array(PhotoRecord),
  recordings: z.array(z.object({ id: Uuid, kind: z.enum(['sound', 'clip']), seconds: z.number() })),
  judgements: z.array(JudgementRecord),
})
export type ReplyRecord = z.infer<typeof ReplyRecord>

export const replies = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/replies',
  summary: 'Replies to a lesson with their photos as read and how they were judged, a page at a time.',
  params: ofLesson,
  query: z.object({ after: Uuid.optional() }),
  /** `next` is to be asked for as `after`; null at the last page. */
  response: z.object({ items: z.array(ReplyRecord), next: Uuid.nullable() }),
  changesWith: ['replies', 'publications', 'job'],
  records: { act: 'saw', words: 'Saw the replies to a lesson', of: 'lessonId' },
})
export const photo = route({
  method: 'GET',
  path: '/api/photos/:photoId',
  summary: 'A family’s photo.',
  params: z.object({ photoId: Uuid }),
  query: z.object({ size: z.enum(['full', 'small']).default('full') }),
  response: file('image/jpeg'),
  records: { act: 'saw', words: 'Saw a photo from home', of: 'photoId' },
})
export const recording = route({
  method: 'GET',
  path: '/api/recordings/:recordingId',
  summary: 'A voice or a short film that came with an answer.',
  params: z.object({ recordingId: Uuid }),
  response: file('audio/mp4', 'video/mp4'),
  records: { act: 'saw', words: 'Heard or saw a recording from home', of: 'recordingId' },
})
export const judge = route({
  method: 'POST',
  path: '/api/replies/:replyId/judgements',
  summary: 'What a person decided about a reply; the newest supersedes, none is overwritten.',
  params: z.object({ replyId: Uuid }),
  body: JudgementInput,
  response: Made,
  records: { act: 'changed', words: 'Judged a reply', of: 'replyId' },
})
