import { z } from 'zod'
import { KeptFor, keptKinds } from '../kept-for.ts'
import { Moment, Ok, route } from './route.ts'

/** The nightly backup, and what is kept. */
export const Keeping = z.object({
  on: z.boolean(),
  /** Folder on the machine Awlbox runs on; empty where none was chosen. */
  folder: z.string(),
  lastGood: Moment.nullable(),
  lastBytes: z.number().nullable(),
  /** Why the last try did not go well; null where it did. */
  problem: z.string().nullable(),
  /** One was asked for, or is being made. */
  waiting: z.boolean(),
  mayChange: z.boolean(),
  kept: z.array(
    z.object({ what: z.enum(['films', 'photos', 'files']), count: z.number(), bytes: z.number() }),
  ),
})
export type Keeping = z.infer<typeof Keeping>
export const keeping = route({
  method: 'GET',
  path: '/api/keeping',
  summary: 'The nightly backup, and how much is kept.',
  response: Keeping,
})
export const saveKeeping = route({
  method: 'PUT',
  path: '/api/keeping',
  summary: 'Switches the nightly backup on or off, and says where it goes. Owners only.',
  body: z.object({ on: z.boolean(), folder: z.string().trim().max(400) }),
  response: Keeping,
  records: { act: 'changed', words: 'Changed the nightly backup' },
})
export const backUpNow = route({
  method: 'POST',
  path: '/api/keeping/backup',
  summary: 'Has a backup made now, into the folder that was chosen. Owners only.',
  response: Ok,
  records: { act: 'changed', words: 'Had a backup made' },
})

export const KeptTimes = z.object({
  keptFor: KeptFor,
  kinds: z.array(
    z.object({
      kind: z.enum(keptKinds),
      count: z.number().int(),
      oldest: Moment.nullable(),
      /** How many are due within a month. */
      soon: z.number().int(),
    }),
  ),
  mayChange: z.boolean(),
})
export type KeptTimes = z.infer<typeof KeptTimes>
export const keptTimes = route({
  method: 'GET',
  path: '/api/keeping/times',
  summary: 'How long each kind is kept, how much of it there is, and how old the oldest is.',
  response: KeptTimes,
})
export const saveKeptTimes = route({
  method: 'PUT',
  path: '/api/keeping/times',
  summary: 'Says how long each kind is kept. Owners only.',
  body: KeptFor.partial(),
  response: Ok,
  records: { act: 'changed', words: 'Changed how long things are kept' },
})
