import { z } from 'zod'
import { acts, Day, file, Moment, route, Uuid } from './route.ts'

export const RecordLine = z.object({
  id: z.number().int(),
  at: Moment,
  /** A person's name, a home's, or null: somebody refused, or Awlbox itself. */
  who: z.string().nullable(),
  act: z.enum(acts),
  words: z.string(),
  subject: z.string().nullable(),
})
export type RecordLine = z.infer<typeof RecordLine>
/** Which lines: of a person, of a kind, of some days; each left out is all. */
const Wanted = z.object({
  person: Uuid.optional(),
  act: z.enum(acts).optional(),
  from: Day.optional(),
  until: Day.optional(),
})
export type Wanted = z.infer<typeof Wanted>
export const readRecord = route({
  method: 'GET',
  path: '/api/record',
  summary: 'Who saw, changed, exported, sent or deleted what, newest first. Owners only.',
  query: Wanted.extend({
    after: z
      .string()
      .regex(/^\d{1,15}$/)
      .optional(),
  }),
  response: z.object({
    items: z.array(RecordLine),
    next: z.string().nullable(),
    people: z.array(z.object({ id: Uuid, name: z.string() })),
  }),
})
export const recordCsv = route({
  method: 'GET',
  path: '/api/record.csv',
  summary: 'The same as a table.',
  query: Wanted,
  response: file('text/csv'),
  records: { act: 'exported', words: 'Exported the record of use' },
})
