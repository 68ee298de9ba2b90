import { z } from 'zod'
import { HouseStyle } from '../house-style.ts'
import { Lesson } from '../lesson.ts'
import { LiveAct, LiveState, livePhases, ShowWay } from '../live.ts'
import { Answer } from '../reply.ts'
import { HomeTask } from './home.ts'
import { file, Made, Moment, ofLesson, Ok, route, Uuid } from './route.ts'

const ofLive = z.object({ liveId: Uuid })
const ofHomeLive = z.object({ token: z.string(), liveId: Uuid })
const count = z.number().int().min(0)
const At = z.number().int().min(0)

export const LiveRoundSeen = z.object({
  id: z.string(),
  prompt: z.string(),
  /** Null: nothing to answer, one says that one is ready. */
  task: HomeTask.nullable(),
  show: ShowWay,
  /** By the server's clock, to be held against `now`. */
  opens: At,
  shows: At.nullable(),
})
export type LiveRoundSeen = z.infer<typeof LiveRoundSeen>
/** What all homes of a live lesson are told. Times are the server's, `now` with them: a device's own clock does not matter. */
export const LiveSeen = z.object({
  seq: count,
  now: At,
  phase: z.enum(livePhases),
  /** Words being said; null while hands or homes are at work. */
  words: z.string().nullable(),
  silence: z.object({ from: At, until: At }).nullable(),
  /** Grows when something is said again. */
  again: count,
  /** Names the picture of the table as it is now; null while it is bare. */
  table: z.string().nullable(),
  round: LiveRoundSeen.nullable(),
})
export type LiveSeen = z.infer<typeof LiveSeen>

/** A live lesson in a list. */
export const LiveEntry = z.object({
  id: Uuid,
  startsAt: Moment,
  minutes: z.number().int(),
  rehearsal: z.boolean(),
  calledOff: z.boolean(),
  phase: z.enum(livePhases),
  by: z.string(),
  /** Once it is over: what came, and what may be looked at. */
  came: count,
  rounds: count,
  publicationId: Uuid.nullable(),
})
export type LiveEntry = z.infer<typeof LiveEntry>

export const livesOfLesson = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/live',
  summary: 'Live lessons of a lesson: to come, on, and over; newest first.',
  params: ofLesson,
  response: z.object({
    items: z.array(LiveEntry),
    homes: count,
    /** Homes whose link is ended: they cannot join. */
    without: z.array(z.string()),
    standIns: z.boolean(),
  }),
  changesWith: ['live'],
})
export const makeLive = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/live',
  summary: 'Makes a live lesson of a script as it stands: at a time, or now for a rehearsal.',
  params: ofLesson,
  body: z.object({
    startsAt: Moment,
    minutes: z.number().int().min(5).max(120),
    rehearsal: z.boolean().default(false),
    /** Lines whose task is kept for home, and questions that are only said; as the lesson has it where nothing is told. */
    later: z.array(z.string().max(40)).max(200).optional(),
    said: z.array(z.string().max(40)).max(400).optional(),
  }),
  response: Made,
  records: { act: 'changed', words: 'Made a live lesson', of: 'lessonId' },
})
export const changeLive = route({
  method: 'PUT',
  path: '/api/live/:liveId',
  summary:
    'Moves a live lesson that has not begun to another time, takes the script as it is now, or calls it off.',
  params: ofLive,
  body: z.object({
    startsAt: Moment.optional(),
    minutes: z.number().int().min(5).max(120).optional(),
    calledOff: z.boolean().optional(),
    /** Takes the lesson's newest revision. */
    renew: z.boolean().optional(),
  }),
  response: Ok,
  records: { act: 'changed', words: 'Changed a live lesson', of: 'liveId' },
})

/** A child at a live lesson: `here` while its home's page is open. */
export const LiveChild = z.object({
  id: Uuid,
  name: z.string(),
  home: z.string(),
  householdId: Uuid,
  here: z.boolean(),
  came: z.boolean(),
  /** Whether photos of it may be kept, and whether its home said its name may stand where others see it. */
  photos: z.boolean(),
  named: z.boolean(),
})
export type LiveChild = z.infer<typeof LiveChild>
const TallyRow = z.object({
  shown: z.string(),
  verdict: z.enum(['right', 'wrong', 'open', 'look']),
  children: z.array(Uuid),
  perhaps: z.string().nullable(),
})
/** What came in a round. Until "all at once" only who has sent: what they gave stays shut. */
export const LiveTally = z.object({
  roundId: z.string(),
  shown: z.boolean(),
  sent: z.array(Uuid),
  late: z.array(Uuid),
  silent: z.array(Uuid),
  rows: z.array(TallyRow),
  right: count,
  wrong: count,
  photos: z.array(z.object({ childId: Uuid, photoId: Uuid })),
  /** Milliseconds from when it could be answered to each answer in time. */
  took: z.array(z.number().int().min(0)),
  /** Of an earlier lesson: the same question, or the same kind. */
  before: z.object({ same: z.boolean(), at: At, right: count, of: count }).nullable(),
})
export type LiveTally = z.infer<typeof LiveTally>
/** What desks and the shared window are told whenever something happened. */
export const LiveDesk = z.object({
  now: At,
  state: LiveState,
  children: z.array(LiveChild),
  /** The round under way, and the one before it that was shown. */
  tally: LiveTally.nullable(),
  last: LiveTally.nullable(),
})
export type LiveDesk = z.infer<typeof LiveDesk>
export const LiveRecord = LiveDesk.extend({
  id: Uuid,
  lessonId: Uuid,
  className: z.string(),
  title: z.string(),
  startsAt: Moment,
  minutes: z.number().int(),
  rehearsal: z.boolean(),
  calledOff: z.boolean(),
  /** The script as it was when the lesson was made live, with the house style and pace of then; and the revision it has now. */
  doc: Lesson,
  style: HouseStyle,
  pace: z.number().nullable(),
  revision: z.number().int(),
  newest: z.number().int(),
  publicationId: Uuid.nullable(),
  mayLead: z.boolean(),
  standIns: z.boolean(),
})
export type LiveRecord = z.infer<typeof LiveRecord>

export const readLive = route({
  method: 'GET',
  path: '/api/live/:liveId',
  summary: 'A live lesson with all its desk needs.',
  params: ofLive,
  response: LiveRecord,
})
export const liveAct = route({
  method: 'POST',
  path: '/api/live/:liveId/acts',
  summary: 'Does one thing at the desk. Names the act it saw last; 409 where another desk was quicker.',
  params: ofLive,
  body: z.object({ seq: count, desk: z.string().max(40), act: LiveAct }),
  response: z.object({ seq: count }),
})
export const throwLive = route({
  method: 'POST',
  path: '/api/live/:liveId/throw',
  summary: 'Throws, draws or says the next in the game that is on, and asks it.',
  params: ofLive,
  body: z.object({
    seq: count,
    desk: z.string().max(40),
    show: ShowWay,
    think: z.number().int().min(0).max(120),
  }),
  response: z.object({ seq: count, thrown: z.array(z.number().int()) }),
})
export const followLive = route({
  method: 'GET',
  path: '/api/live/:liveId/follow',
  summary: 'Tells desks and the shared window, as server-sent events, how the lesson stands.',
  params: ofLive,
  response: file('text/event-stream'),
})
export const liveCalendar = route({
  method: 'GET',
  path: '/api/live/:liveId/calendar.ics',
  summary: 'The live lesson as a calendar entry for the teacher.',
  params: ofLive,
  response: file('text/calendar'),
})
/** Milliseconds since the lesson began. */
export const liveAfter = route({
  method: 'GET',
  path: '/api/live/:liveId/after',
  summary:
    'What is left of a live lesson: who came, each round with what came, moments, and a note to who missed it.',
  params: ofLive,
  response: z.object({
    seconds: z.number(),
    attendance: z.array(
      z.object({ childId: Uuid, name: z.string(), seconds: z.number(), rounds: count, late: count }),
    ),
    rounds: z.array(
      z.object({
        id: z.string(),
        prompt: z.string(),
        at: z.number(),
        undone: z.boolean(),
        tally: LiveTally.nullable(),
      }),
    ),
    notes: z.array(z.object({ at: z.number(), text: z.string() })),
    segments: z.array(
      z.object({ segmentId: z.string(), title: z.string(), from: z.number(), to: z.number().nullable() }),
    ),
    missed: z.array(z.object({ childId: Uuid, name: z.string() })),
    note: z.string(),
    publicationId: Uuid.nullable(),
  }),
  changesWith: ['live', 'replies'],
})
export const livePhoto = route({
  method: 'GET',
  path: '/api/live/:liveId/photos/:photoId',
  summary: 'A photo of a round, small, for the desk.',
  params: ofLive.extend({ photoId: Uuid }),
  response: file('image/jpeg'),
})
export const standInsJoin = route({
  method: 'POST',
  path: '/api/live/:liveId/street',
  summary: 'Lets the made-up homes join a rehearsal.',
  params: ofLive,
  body: z.object({ seed: z.number().int().min(0).max(1_000_000).default(1) }),
  response: z.object({ homes: count }),
})

/** A live lesson as a home knows it: when it is, and whether it may come in. */
export const HomeLive = z.object({
  id: Uuid,
  title: z.string(),
  className: z.string(),
  startsAt: Moment,
  minutes: z.number().int(),
  open: z.boolean(),
  /** Milliseconds until it opens, by the server's clock. */
  opensIn: z.number().int(),
  phase: z.enum(livePhases),
})
export type HomeLive = z.infer<typeof HomeLive>
export const homeLives = route({
  method: 'GET',
  path: '/api/home/:token/live',
  who: 'home',
  summary: 'Live lessons of a home that are on or to come.',
  params: z.object({ token: z.string() }),
  response: z.object({ items: z.array(HomeLive) }),
})
export const homeLive = route({
  method: 'GET',
  path: '/api/home/:token/live/:liveId',
  who: 'home',
  summary: 'A live lesson as it stands for one home: what all are told, and what its own children sent.',
  params: ofHomeLive,
  response: z.object({
    live: HomeLive,
    seen: LiveSeen,
    children: z.array(z.object({ id: Uuid, name: z.string(), photos: z.boolean() })),
    /** Of the round that is under way. */
    mine: z.array(z.object({ childId: Uuid, roundId: z.string(), answer: Answer, late: z.boolean() })),
  }),
})
export const followHomeLive = route({
  method: 'GET',
  path: '/api/home/:token/live/:liveId/follow',
  who: 'home',
  summary: 'Tells a home, as server-sent events, how the lesson stands.',
  params: ofHomeLive,
  query: z.object({ device: z.string().max(40).default('') }),
  response: file('text/event-stream'),
})
export const homeLiveTable = route({
  method: 'GET',
  path: '/api/home/:token/live/:liveId/table.svg',
  who: 'home',
  summary: 'The shared table as it lies now, drawn.',
  params: ofHomeLive,
  response: file('image/svg+xml'),
})
export const answerLive = route({
  method: 'PUT',
  path: '/api/home/:token/live/:liveId/rounds/:roundId',
  who: 'home',
  summary: 'What one child gives in a round; sent again with the same key it is the same.',
  params: ofHomeLive.extend({ roundId: z.string().max(5) }),
  body: z.object({ childId: Uuid, key: Uuid, answer: Answer }),
  largest: 60_000,
  response: z.object({
    late: z.boolean(),
    /** `first`: something of this child was there already when all was shown, and stays. */
    kept: z.enum(['this', 'first']),
  }),
})
export const homeLivePhoto = route({
  method: 'POST',
  path: '/api/home/:token/live/:liveId/photos',
  who: 'home',
  summary: 'Takes in a photo of a round, without anything hidden in its file.',
  params: ofHomeLive,
  raw: true,
  response: z.object({ id: Uuid }),
})
export const homeLiveCalendar = route({
  method: 'GET',
  path: '/api/home/:token/live/:liveId/calendar.ics',
  who: 'home',
  summary: 'The live lesson as a calendar entry, with the home’s own link in it.',
  params: ofHomeLive,
  response: file('text/calendar'),
})
