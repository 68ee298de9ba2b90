import { z } from 'zod'
import { Lesson, LessonToKeep, Segment } from '../lesson.ts'
import { printableKinds } from '../printables.ts'
import { Day, file, Made, Moment, ofClass, ofLesson, Ok, route, Uuid } from './route.ts'

export const stations = ['plan', 'script', 'film', 'cut', 'send', 'look', 'next'] as const
export const Station = z.enum(stations)
export type Station = z.infer<typeof Station>
/** Where one can be in a lesson: a station, or Live, which stands where Film and Cut stand for a recorded lesson. */
export const Place = z.enum([...stations, 'live'])
export type Place = z.infer<typeof Place>

const count = z.number().int().min(0)
/** What the thread and the shelf say of a lesson, computed from its records. Seconds; dates as ISO strings. */
export const Facts = z.object({
  filmSeconds: z.number(),
  segments: count,
  filmed: count,
  findings: count,
  proposedDrops: count,
  rendered: z.boolean(),
  sent: z.boolean(),
  replies: count,
  looked: count,
  lastFilmSeconds: z.number().nullable(),
  sentAt: Moment.nullable(),
  oldestWaiting: Moment.nullable(),
  /** The next time it is given live, or when the one that is on began; and how often it was. */
  liveAt: Moment.nullable(),
  liveGiven: count,
})
export type Facts = z.infer<typeof Facts>
/** How far each station is: 0 empty, 0.5 part sewn, 1 sewn. */
export const Sewn = z.record(Station, z.union([z.literal(0), z.literal(0.5), z.literal(1)]))
export type Sewn = z.infer<typeof Sewn>
export const NextAct = z.object({ station: Place, label: z.string(), minutes: z.number() })
export type NextAct = z.infer<typeof NextAct>

export const LessonRecord = z.object({
  id: Uuid,
  classId: Uuid,
  className: z.string(),
  day: Day,
  filmBy: Day.nullable(),
  sendBy: Day.nullable(),
  revision: z.number().int(),
  updatedAt: Moment,
  doc: Lesson,
  facts: Facts,
  sewn: Sewn,
  act: NextAct,
  mayChange: z.boolean(),
})
export type LessonRecord = z.infer<typeof LessonRecord>
const Revisioned = z.object({ revision: z.number().int() })

export const makeLesson = route({
  method: 'POST',
  path: '/api/classes/:classId/lessons',
  summary: 'Makes a lesson for a class.',
  params: ofClass,
  body: z.object({ day: Day, doc: LessonToKeep }),
  largest: 3_000_000,
  response: Made,
  records: { act: 'changed', words: 'Made a lesson', of: 'classId' },
})
export const readLesson = route({
  method: 'GET',
  path: '/api/lessons/:lessonId',
  summary: 'A lesson: its newest document, what is known of it, and what comes next.',
  params: ofLesson,
  response: LessonRecord,
  changesWith: ['lessons', 'takes', 'job', 'publications', 'replies', 'live'],
})
export const saveLesson = route({
  method: 'PUT',
  path: '/api/lessons/:lessonId/doc',
  summary: 'Saves a document over the revision it was made from; 409 with both versions where that is stale.',
  params: ofLesson,
  body: z.object({ revision: z.number().int().min(1), doc: LessonToKeep }),
  largest: 3_000_000,
  response: Revisioned,
  records: { act: 'changed', words: 'Changed a lesson', of: 'lessonId' },
})

export const Revision = z.object({
  revision: z.number().int(),
  at: Moment,
  by: z.string().nullable(),
  name: z.string().nullable(),
})
export type Revision = z.infer<typeof Revision>
export const RevisionPage = z.object({
  items: z.array(Revision),
  /** To be asked for as `before`; null at the first revision. */
  next: z.number().int().nullable(),
})
export type RevisionPage = z.infer<typeof RevisionPage>
export const revisions = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/revisions',
  summary: 'Revisions of a lesson, newest first, fifty at a time.',
  params: ofLesson,
  query: z.object({ before: z.coerce.number<string | number>().int().optional() }),
  response: RevisionPage,
  changesWith: ['lessons'],
})
const ofRevision = ofLesson.extend({ revision: z.coerce.number<string | number>().int() })
export const nameRevision = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/revisions/:revision/name',
  summary: 'Gives a revision a name.',
  params: ofRevision,
  body: z.object({ name: z.string().trim().min(1).max(60) }),
  response: z.object({ revision: z.number().int(), name: z.string() }),
})
export const readRevision = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/revisions/:revision',
  summary: 'The document as it was at a revision.',
  params: ofRevision,
  response: z.object({ doc: Lesson }),
})

export const lessonFormats = ['lesson.json', 'md', 'fountain', 'cue-cards.pdf', 'plan.pdf'] as const
export const exportLesson = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/export/:format',
  summary: 'A lesson as a file.',
  params: ofLesson.extend({ format: z.enum(lessonFormats) }),
  response: file('application/json', 'text/markdown', 'text/plain', 'application/pdf'),
  records: { act: 'exported', words: 'Exported a lesson', of: 'lessonId' },
})
export const printSheet = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/print/:kind',
  summary: 'A sheet in true size from the lesson’s own numbers.',
  params: ofLesson.extend({ kind: z.enum(printableKinds) }),
  query: z.object({
    paper: z.enum(['A4', 'Letter']).default('A4'),
    /** One for each home, with the code of its own page: for reply sheets, and for who may send the lesson. */
    each: z.enum(['home']).optional(),
  }),
  response: file('application/pdf'),
  records: { act: 'exported', words: 'Printed a sheet of a lesson', of: 'lessonId' },
})
export const lessonSchema = route({
  method: 'GET',
  path: '/api/formats/lesson.schema.json',
  who: 'anyone',
  summary: 'The JSON Schema of a lesson’s document.',
  response: z.record(z.string(), z.unknown()),
})

export const LibrarySegment = z.object({
  id: Uuid,
  segment: Segment,
  seconds: z.number(),
  by: z.string().nullable(),
  at: Moment,
})
export type LibrarySegment = z.infer<typeof LibrarySegment>
export const library = route({
  method: 'GET',
  path: '/api/library',
  summary: 'Segments kept for anybody in the setting to use again.',
  response: z.object({ items: z.array(LibrarySegment) }),
})
export const addToLibrary = route({
  method: 'POST',
  path: '/api/library',
  summary: 'Keeps a segment in the library.',
  body: z.object({ segment: Segment, age: Lesson.shape.age }),
  response: Made,
  records: { act: 'changed', words: 'Kept a segment in the library' },
})
export const takeFromLibrary = route({
  method: 'DELETE',
  path: '/api/library/:segmentRowId',
  summary: 'Takes a segment out of the library.',
  params: z.object({ segmentRowId: Uuid }),
  response: Ok,
  records: { act: 'deleted', words: 'Took a segment out of the library' },
})
