import { z } from 'zod'
import { letterKinds, letterStates, PostRules } from '../post.ts'
import { HomeLanguage } from '../told.ts'
import { Moment, ofLesson, Ok, route, Uuid } from './route.ts'

export const OutLetter = z.object({
  id: Uuid,
  householdId: Uuid,
  home: z.string(),
  kind: z.enum(letterKinds),
  subject: z.string(),
  body: z.string(),
  language: HomeLanguage,
  state: z.enum(letterStates),
  after: Moment,
  tries: z.number().int(),
  problem: z.string().nullable(),
  goneAt: Moment.nullable(),
})
export type OutLetter = z.infer<typeof OutLetter>
const ofLetter = z.object({ letterId: Uuid })

export const outbox = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/letters',
  summary: 'What was written to the homes of a lesson, and how far each letter is.',
  params: ofLesson,
  response: z.object({ items: z.array(OutLetter), byMail: z.boolean() }),
  changesWith: ['letters', 'publications'],
})
export const writeLetters = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/letters',
  summary: 'Writes to the homes of the lesson’s newest sending: once of each kind.',
  params: ofLesson,
  body: z.object({
    kind: z.enum(['new', 'nudge', 'thanks']),
    only: z.array(Uuid).max(1000).optional(),
  }),
  response: z.object({ written: z.number().int() }),
  records: { act: 'sent', words: 'Wrote to homes about a lesson', of: 'lessonId' },
})
export const markCopied = route({
  method: 'PUT',
  path: '/api/letters/:letterId/copied',
  summary: 'Notes that a letter was passed on by hand, or was not.',
  params: ofLetter,
  body: z.object({ copied: z.boolean() }),
  response: Ok,
})
export const tryAgain = route({
  method: 'POST',
  path: '/api/letters/:letterId/again',
  summary: 'Tries once more to post a letter that was not taken.',
  params: ofLetter,
  response: Ok,
})
export const postRules = route({
  method: 'GET',
  path: '/api/post-rules',
  summary: 'When homes are written to.',
  response: PostRules.extend({ byMail: z.boolean() }),
})
export const savePostRules = route({
  method: 'PUT',
  path: '/api/post-rules',
  summary: 'Changes when homes are written to.',
  body: PostRules,
  response: Ok,
  records: { act: 'changed', words: 'Changed when homes are written to' },
})
