import { z } from 'zod'
import { Day, file, Moment, Ok, route, Uuid } from './route.ts'

/** What a grown-up is asked for, each by itself. */
export const consentKinds = ['photos', 'sound', 'showing', 'naming'] as const
export type ConsentKind = (typeof consentKinds)[number]
export const Consent = z.object({ given: z.boolean(), giver: z.string(), day: Day })
export type Consent = z.infer<typeof Consent>

/** Most children of one list that is taken over. */
export const mostRows = 5000
const Name = z.string().trim().min(1).max(40)
const HomeName = z.string().trim().min(1).max(60)
/** True, false, or null where nobody said. */
const Said = z.boolean().nullable()

/** Everything of a child and its home that is typed into the table. */
export const ChildFields = z.object({
  given: Name,
  home: HomeName,
  /** Empty where there is none. */
  second: z.string().trim().max(60),
  languages: z.array(z.string().trim().min(1).max(30)).max(6),
  youngerChild: z.boolean(),
  phone: Said,
  printer: Said,
  metered: Said,
  /** Where letters to the home go; empty where it gave none. */
  email: z.union([z.literal(''), z.email().max(200)]),
  note: z.string().trim().max(500),
})
export type ChildFields = z.infer<typeof ChildFields>

export const ChildRow = ChildFields.extend({
  id: Uuid,
  revision: z.number().int(),
  /** As it is shown everywhere: with what tells two of one name apart. */
  name: z.string(),
  classId: Uuid,
  householdId: Uuid,
  consents: z.object({
    photos: Consent.nullable(),
    sound: Consent.nullable(),
    showing: Consent.nullable(),
    naming: Consent.nullable(),
  }),
  /** The home's private link, for who may change; null while none is open. */
  link: z.string().nullable(),
  mayChange: z.boolean(),
})
export type ChildRow = z.infer<typeof ChildRow>

const ofChild = z.object({ childId: Uuid })
export const homes = route({
  method: 'GET',
  path: '/api/homes',
  summary: 'The children of the setting with their homes, by class and name, two hundred at a time.',
  query: z.object({ after: z.string().max(200).optional() }),
  response: z.object({ items: z.array(ChildRow), next: z.string().nullable() }),
  records: { act: 'saw', words: 'Looked through children and homes' },
})
export const saveChild = route({
  method: 'PUT',
  path: '/api/children/:childId',
  summary: 'Changes a child or its home. A change of an older state is refused with the newer one.',
  params: ofChild,
  body: z.object({ revision: z.number().int(), change: ChildFields.partial() }),
  response: ChildRow,
  records: { act: 'changed', words: 'Changed a child or its home', of: 'childId' },
})
export const addChildren = route({
  method: 'POST',
  path: '/api/classes/:classId/children',
  summary:
    'Adds children to a class, all of a list or none. One that is in it already, of the same home, is left alone.',
  params: z.object({ classId: Uuid }),
  body: z.object({
    children: z
      .array(ChildFields.partial().required({ given: true, home: true }))
      .min(1)
      .max(mostRows),
  }),
  largest: 4_000_000,
  response: z.object({ added: z.array(Uuid), known: z.number().int() }),
  records: { act: 'changed', words: 'Added children', of: 'classId' },
})
export const moveChild = route({
  method: 'POST',
  path: '/api/children/:childId/move',
  summary: 'Moves a child to another class with everything of it, or lets it leave (null).',
  params: ofChild,
  body: z.object({ classId: Uuid.nullable() }),
  response: Ok,
  records: { act: 'changed', words: 'Moved a child', of: 'childId' },
})
export const saveConsent = route({
  method: 'POST',
  path: '/api/children/:childId/consents',
  summary: 'Notes what a grown-up agreed to, or no longer does.',
  params: ofChild,
  body: z.object({
    kind: z.enum(consentKinds),
    given: z.boolean(),
    giver: z.string().trim().min(1).max(40),
    day: Day,
  }),
  response: Ok,
  records: { act: 'changed', words: 'Noted a consent', of: 'childId' },
})
export const consentHistory = route({
  method: 'GET',
  path: '/api/children/:childId/consents',
  summary: 'Every consent of a child that was noted, newest first.',
  params: ofChild,
  response: z.object({
    items: z.array(Consent.extend({ kind: z.enum(consentKinds), at: Moment, by: z.string().nullable() })),
  }),
})
export const homesCsv = route({
  method: 'GET',
  path: '/api/homes.csv',
  summary: 'Children and homes as a table, without links and without notes.',
  response: file('text/csv'),
  records: { act: 'exported', words: 'Exported children and homes as a table' },
})

/** What is kept about one child, a line a kind. */
export const KeptOfChild = z.object({
  name: z.string(),
  /** The name of its class, or of the one it left. */
  className: z.string(),
  leftAt: Moment.nullable(),
  kept: z.array(
    z.object({
      what: z.enum(['replies', 'photos', 'recordings', 'judgements', 'consents', 'note']),
      count: z.number().int(),
      oldest: Moment.nullable(),
      /** When the oldest of it goes by itself; null where nobody said how long it is kept. */
      until: Moment.nullable(),
    }),
  ),
  mayDelete: z.boolean(),
})
export type KeptOfChild = z.infer<typeof KeptOfChild>
export const keptOfChild = route({
  method: 'GET',
  path: '/api/children/:childId/kept',
  summary: 'What is kept about a child, since when and until when.',
  params: ofChild,
  response: KeptOfChild,
  records: { act: 'saw', words: 'Looked at what is kept about a child', of: 'childId' },
})
export const exportChild = route({
  method: 'GET',
  path: '/api/children/:childId/export',
  summary: 'Everything kept about a child in one archive: JSON, tables and pictures.',
  params: ofChild,
  response: file('application/zip'),
  records: { act: 'exported', words: 'Exported everything about a child', of: 'childId' },
})
export const Receipt = z.object({
  replies: z.number().int(),
  photos: z.number().int(),
  recordings: z.number().int(),
  judgements: z.number().int(),
  files: z.number().int(),
  /** Rows and files that should be gone and are not: 0. */
  left: z.number().int(),
})
export type Receipt = z.infer<typeof Receipt>
export const deleteChild = route({
  method: 'DELETE',
  path: '/api/children/:childId',
  summary: 'Deletes a child with every reply, photo, file and judgement, and proves that nothing is left.',
  params: ofChild,
  response: Receipt,
})
export const deleteHome = route({
  method: 'DELETE',
  path: '/api/households/:householdId',
  summary: 'Deletes a home with its children, and everything of theirs.',
  params: z.object({ householdId: Uuid }),
  response: Receipt,
})
