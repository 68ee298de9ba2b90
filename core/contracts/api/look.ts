import { z } from 'zod'
import { TaskSet } from '../lesson.ts'
import { PackTask } from '../pack.ts'
import { PhotoReading, PhotoThing } from '../reading.ts'
import { Answer, Feeling, Help, JudgementInput, Rung } from '../reply.ts'
import { TableState } from '../table.ts'
import { file, Made, Moment, Ok, ofLesson, route, Uuid } from './route.ts'

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
  /** Whether a person put the reading right. */
  corrected: z.boolean(),
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
  /** Given round by round in a live lesson: it is weighed as such. */
  live: z.boolean(),
  receivedAt: Moment,
  updatedAt: Moment,
  publicationId: Uuid,
  tasks: z.array(PackTask.extend({ expected: TableState.nullable() })),
  photos: z.array(PhotoRecord),
  recordings: z.array(z.object({ id: Uuid, kind: z.enum(['sound', 'clip']), seconds: z.number() })),
  judgements: z.array(JudgementRecord),
  /** Questions sent back to the home, by task. */
  askings: z.array(z.object({ taskId: z.string(), words: z.string(), at: Moment, answered: z.boolean() })),
  /** Words back to the home, and when they went; null where none are written. */
  feedback: z.object({ body: z.string(), sentAt: Moment.nullable() }).nullable(),
  /** Whether its grown-ups agree that its work is shown to others. */
  mayShow: z.boolean(),
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
const ofPhoto = z.object({ photoId: Uuid })
const ofReply = z.object({ replyId: Uuid })
export const correctPhoto = route({
  method: 'POST',
  path: '/api/photos/:photoId/correction',
  summary: 'What a person sees in a photo: kept beside the reading, and never read over.',
  params: ofPhoto,
  body: z.object({ things: z.array(PhotoThing).max(400) }),
  response: z.object({ reading: PhotoReading }),
  records: { act: 'changed', words: 'Put the reading of a photo right', of: 'photoId' },
})
export const corrections = route({
  method: 'GET',
  path: '/api/corrections',
  summary: 'How often readings were put right, by kind of photo: where the reading is weak.',
  response: z.object({
    read: z.number().int(),
    corrected: z.number().int(),
    byKind: z.array(z.object({ kind: z.string(), photos: z.number().int(), corrected: z.number().int() })),
  }),
})
export const judgeMany = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/judgements',
  summary:
    'Judges several replies of a lesson at once, those that were listed; one that was judged meanwhile is left as it is.',
  params: ofLesson,
  body: z.object({
    judgements: z
      .array(JudgementInput.extend({ replyId: Uuid }))
      .min(1)
      .max(200),
  }),
  response: z.object({ judged: z.array(Uuid), left: z.array(Uuid) }),
  records: { act: 'changed', words: 'Judged several replies', of: 'lessonId' },
})
export const askAgain = route({
  method: 'POST',
  path: '/api/replies/:replyId/askings',
  summary: 'Sends one question back to a home: it stands on its page until it is answered anew.',
  params: ofReply,
  body: z.object({ taskId: z.string().max(40), words: z.string().trim().max(300).default('') }),
  response: Ok,
  records: { act: 'sent', words: 'Asked a home once more', of: 'replyId' },
})
export const draftFeedback = route({
  method: 'GET',
  path: '/api/replies/:replyId/feedback',
  summary: 'Words back to a home as facts suggest them, in its language and in English.',
  params: ofReply,
  response: z.object({ language: z.string(), body: z.string(), english: z.string() }),
})
export const saveFeedback = route({
  method: 'PUT',
  path: '/api/replies/:replyId/feedback',
  summary:
    'Keeps words back to a home; with `send` they go: to its page, and by letter where letters are sent.',
  params: ofReply,
  body: z.object({ body: z.string().trim().min(1).max(2000), send: z.boolean() }),
  response: Ok,
  changesWith: [],
  records: { act: 'sent', words: 'Wrote back to a home', of: 'replyId' },
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
