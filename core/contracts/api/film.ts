import { z } from 'zod'
import { Correction } from '../correction.ts'
import { Hearing, HeardWord } from '../heard.ts'
import { PrompterMessage } from '../prompter.ts'
import { TakeLooked } from '../render.ts'
import { StandInOrder } from '../stand-in.ts'
import { FirstFrame, Sorting, TakeMark, TakeMarks, TakeSound } from '../take.ts'
import { file, Moment, ofLesson, ofTake, Ok, route, SegmentId, Started, Uuid } from './route.ts'

export const takeSources = ['recorded', 'uploaded', 'stand-in'] as const
export const takeStates = ['preparing', 'ready', 'refused'] as const
export const TakeRecord = z.object({
  id: Uuid,
  /** Null while it waits in the tray. */
  segmentId: SegmentId.nullable(),
  number: z.number().int(),
  source: z.enum(takeSources),
  name: z.string().nullable(),
  /** Which seconds of the original it is; null for all of it. */
  part: z.object({ from: z.number(), to: z.number() }).nullable(),
  sorting: Sorting.nullable(),
  marks: z.array(TakeMark),
  corrections: z.array(Correction),
  sound: TakeSound.nullable(),
  looked: TakeLooked.nullable(),
  firstFrame: FirstFrame.nullable(),
  captioned: z.boolean(),
  seconds: z.number().nullable(),
  hasSound: z.boolean().nullable(),
  status: z.enum(takeStates),
  problem: z.string().nullable(),
  createdAt: Moment,
  hearing: Hearing.nullable(),
  heardAtRevision: z.number().int().nullable(),
})
export type TakeRecord = z.infer<typeof TakeRecord>
const Heard = z.object({ hearing: Hearing.nullable() })

export const takes = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/takes',
  summary: 'All takes of a lesson with what was heard in them.',
  params: ofLesson,
  response: z.object({ items: z.array(TakeRecord) }),
  changesWith: ['takes', 'job'],
})
export const standIn = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/stand-in',
  summary: 'Has the stand-in camera film a segment.',
  params: ofLesson,
  body: StandInOrder.extend({ segmentId: SegmentId }),
  response: Started,
  records: { act: 'changed', words: 'Had the stand-in camera film', of: 'lessonId' },
})
export const takeFilm = route({
  method: 'GET',
  path: '/api/takes/:takeId/film',
  summary: 'A take made playable.',
  params: ofTake,
  response: file('video/mp4'),
})
export const takePeaks = route({
  method: 'GET',
  path: '/api/takes/:takeId/peaks',
  summary: 'Peaks of a take’s sound, a byte each.',
  params: ofTake,
  response: file('application/octet-stream'),
})
export const takeSheet = route({
  method: 'GET',
  path: '/api/takes/:takeId/sheet',
  summary: 'Small pictures of a take in one.',
  params: ofTake,
  response: file('image/jpeg'),
})
export const hearTake = route({
  method: 'POST',
  path: '/api/takes/:takeId/hear',
  summary: 'Prepares and hears a take again.',
  params: ofTake,
  response: Started,
})
export const moveTake = route({
  method: 'PUT',
  path: '/api/takes/:takeId/segment',
  summary: 'Gives a take to a segment.',
  params: ofTake,
  body: z.object({ segmentId: SegmentId }),
  response: Started,
})
export const markTake = route({
  method: 'PUT',
  path: '/api/takes/:takeId/marks',
  summary: 'Replaces what was marked while filming.',
  params: ofTake,
  body: z.object({ marks: TakeMarks }),
  response: Ok,
})
export const correctTake = route({
  method: 'POST',
  path: '/api/takes/:takeId/corrections',
  summary: 'Says what was really said in a stretch of a take, or takes that back.',
  params: ofTake,
  body: z.union([Correction, z.object({ takeBack: z.number().min(0) })]),
  response: Heard,
})
export const captionTake = route({
  method: 'POST',
  path: '/api/takes/:takeId/captions',
  summary: 'Judges a take by captions made elsewhere.',
  params: ofTake,
  body: z.object({ text: z.string().min(1).max(2_000_000) }),
  largest: 4_000_000,
  response: Heard,
})
export const uncaptionTake = route({
  method: 'DELETE',
  path: '/api/takes/:takeId/captions',
  summary: 'Puts captions aside: the take is heard again.',
  params: ofTake,
  response: Ok,
})
export const removeTake = route({
  method: 'DELETE',
  path: '/api/takes/:takeId',
  summary: 'Removes a take.',
  params: ofTake,
  response: Ok,
  records: { act: 'deleted', words: 'Removed a take', of: 'takeId' },
})
export const pronunciations = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/pronunciations',
  summary: 'Ways of saying words that were learnt from corrections.',
  params: ofLesson,
  response: z.object({
    items: z.array(
      z.object({ segmentId: SegmentId, word: z.string(), phones: z.string(), heard: z.string().nullable() }),
    ),
  }),
})
export const unlearn = route({
  method: 'DELETE',
  path: '/api/lessons/:lessonId/pronunciations/:segmentId/:word',
  summary: 'Forgets a way of saying a word.',
  params: ofLesson.extend({ segmentId: SegmentId, word: z.string() }),
  response: Ok,
})
export const prompter = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/prompter',
  summary: 'Passes a message between a prompter and its remote, both the same person’s.',
  params: ofLesson,
  body: PrompterMessage,
  response: Ok,
})
export const micTest = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/mic-test',
  summary: 'Gives a few seconds of the microphone back as words; keeps nothing.',
  params: ofLesson,
  raw: true,
  response: z.object({
    words: z.array(HeardWord),
    speech: z.number().nullable(),
    noise: z.number(),
    advice: z.string(),
    good: z.boolean(),
  }),
})
export const startUpload = route({
  method: 'POST',
  path: '/api/uploads',
  summary: 'Begins a resumable upload of a take (the tus protocol).',
  raw: true,
  response: file('application/offset+octet-stream'),
  records: { act: 'changed', words: 'Sent a take' },
})
export const goOnUpload = route({
  method: 'GET',
  path: '/api/uploads/:uploadId',
  summary: 'The protocol’s own address of one upload: HEAD, PATCH and DELETE.',
  params: z.object({ uploadId: z.string() }),
  response: file('application/offset+octet-stream'),
})
