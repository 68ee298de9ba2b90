import { z } from 'zod'
import { Pack } from '../pack.ts'
import { Concern } from '../concern.ts'
import { RenderRecord } from './cut.ts'
import { TaskSet } from '../lesson.ts'
import { HomeLanguage } from '../told.ts'
import { Day, file, Made, Moment, ofLesson, Ok, route, Uuid } from './route.ts'

export const SentHome = z.object({
  householdId: Uuid,
  home: z.string(),
  youngerChild: z.boolean(),
  childId: Uuid,
  child: z.string(),
  replied: Moment.nullable(),
  /** The set of tasks this child was given; null where it chooses. */
  level: TaskSet.nullable(),
  language: HomeLanguage,
  /** Whether letters reach it by mail. */
  email: z.boolean(),
  open: z.boolean(),
  /** Path of the home's page; null for whoever may not send it. */
  link: z.string().nullable(),
})
export type SentHome = z.infer<typeof SentHome>
/** A newer film than homes see, and what would change for them. */
export const Replacement = z.object({ publicationId: Uuid, renderId: Uuid, changes: z.array(z.string()) })
export type Replacement = z.infer<typeof Replacement>
export const SendRecord = z.object({
  pack: Pack,
  sent: z.array(
    z.object({
      id: Uuid,
      lessonId: Uuid,
      sentAt: Moment,
      due: Day.nullable(),
      closes: Day.nullable(),
      lessonRevision: z.number().int(),
      renderId: Uuid.nullable(),
      cutRevision: z.number().int().nullable(),
      seconds: z.number().nullable(),
      replacedAt: Moment.nullable(),
      /** What was not in order when it was sent all the same, in words. */
      knowingly: z.array(z.string()),
    }),
  ),
  latestRender: RenderRecord.nullable(),
  replacement: Replacement.nullable(),
  /** What is not in order, station by station, as it stands now. */
  concerns: z.array(Concern),
  homes: z.array(SentHome),
})
export type SendRecord = z.infer<typeof SendRecord>
const ofHousehold = z.object({ householdId: Uuid })

export const readSend = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/send',
  summary: 'What would be sent, what was, and to whom.',
  params: ofLesson,
  response: SendRecord,
  changesWith: ['lessons', 'publications', 'replies', 'job', 'child_sets'],
})
export const publish = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/publish',
  summary: 'Sends the lesson to the homes of its class.',
  params: ofLesson,
  /** `knowing`: keys of the concerns a person has read; one that came up since refuses the sending. What was not in order is recorded either way. */
  body: z.object({
    withFilm: z.boolean(),
    knowing: z.array(z.string().max(120)).max(80).optional(),
    /** Day it is wanted by, and the last on which it takes replies. */
    due: Day.nullable().optional(),
    closes: Day.nullable().optional(),
    /** When homes see it; at once where nothing is said. */
    release: z.iso.datetime({ offset: true }).nullable().optional(),
    /** Whether homes are written to about it. */
    write: z.boolean().optional(),
  }),
  response: Made,
  records: { act: 'sent', words: 'Sent a lesson to homes', of: 'lessonId' },
})
export const replaceFilm = route({
  method: 'POST',
  path: '/api/publications/:publicationId/film',
  summary: 'Puts a corrected film in the place of the one homes see.',
  params: z.object({ publicationId: Uuid }),
  body: z.object({ renderId: Uuid, changes: z.array(z.string().trim().min(1).max(200)).max(20) }),
  response: Ok,
  records: { act: 'sent', words: 'Put a corrected film in place', of: 'publicationId' },
})
export const renewLink = route({
  method: 'POST',
  path: '/api/households/:householdId/link',
  summary: 'Ends a home’s link and opens a new one.',
  params: ofHousehold,
  response: z.object({ link: z.string() }),
  records: { act: 'changed', words: 'Opened a new link for a home', of: 'householdId' },
})
export const endLink = route({
  method: 'DELETE',
  path: '/api/households/:householdId/link',
  summary: 'Ends a home’s link.',
  params: ofHousehold,
  response: Ok,
  records: { act: 'changed', words: 'Ended a home’s link', of: 'householdId' },
})
export const qr = route({
  method: 'GET',
  path: '/api/qr',
  summary: 'A home’s link, or an invitation, as a QR code.',
  query: z.object({ link: z.string().regex(/^\/(h\/[\w-]{22}|join\/[\w-]{43})$/) }),
  response: file('image/svg+xml'),
})

export const giveSet = route({
  method: 'PUT',
  path: '/api/lessons/:lessonId/sets/:childId',
  summary: 'Gives a child one of the three sets of a lesson’s tasks, or lets it choose.',
  params: ofLesson.extend({ childId: Uuid }),
  body: z.object({ level: TaskSet.nullable() }),
  response: Ok,
})
export const homeLetters = route({
  method: 'GET',
  path: '/api/classes/:classId/letters.pdf',
  summary:
    'A letter for each home of a class, in its language, with its link and QR code: to hand over in person.',
  params: z.object({ classId: Uuid }),
  query: z.object({ paper: z.enum(['A4', 'Letter']).default('A4') }),
  response: file('application/pdf'),
  records: { act: 'exported', words: 'Printed letters with the links of homes', of: 'classId' },
})
/** A word of the page, or a sentence of a lesson, in one language. */
const OwnWord = z.object({
  key: z.string(),
  /** As it is in English. */
  english: z.string(),
  /** As we have it in the language; null for a sentence of the teacher's own. */
  ours: z.string().nullable(),
  /** As the setting has it; null where it left it to us. */
  mine: z.string().nullable(),
})
export type OwnWord = z.infer<typeof OwnWord>
export const homeWords = route({
  method: 'GET',
  path: '/api/home-words/:language',
  summary: 'The words homes read in one language, with the setting’s own wording.',
  params: z.object({ language: HomeLanguage }),
  response: z.object({ items: z.array(OwnWord) }),
})
export const lessonWords = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/words/:language',
  summary: 'The sentences of a lesson that homes read, and how the setting put them into a language.',
  params: ofLesson.extend({ language: HomeLanguage }),
  response: z.object({ items: z.array(OwnWord) }),
})
export const saveHomeWords = route({
  method: 'PUT',
  path: '/api/home-words/:language',
  summary:
    'Puts the setting’s own wording in the place of a word of ours or a sentence of a lesson; null takes it back.',
  params: z.object({ language: HomeLanguage }),
  body: z.object({ key: z.string().min(1).max(700), words: z.string().max(1200).nullable() }),
  response: Ok,
  records: { act: 'changed', words: 'Changed the words homes read' },
})
export const letStreetReply = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/street',
  summary: 'Lets the made-up homes of the demo reply to the newest sending. Only where stand-ins run.',
  params: ofLesson,
  body: z.object({ seed: z.number().int().min(0).max(1_000_000) }),
  response: z.object({ by: z.record(z.string(), z.number().int()), failed: z.number().int() }),
})
