import { z } from 'zod'
import { renderFileKinds } from '../render.ts'
import { Answer, Feeling, Help, ReplyInput, Rung } from '../reply.ts'
import { choiceLooks, TaskSet, taskKinds } from '../lesson.ts'
import { printableKinds } from '../printables.ts'
import { consentKinds } from './homes.ts'
import { HomeLanguage, OtherWay } from '../told.ts'
import { Day, file, Moment, ofPack, Ok, route, Uuid } from './route.ts'

const ofHome = z.object({ token: z.string() })
export const HomeLesson = z.object({ id: Uuid, title: z.string(), className: z.string(), sentAt: Moment })
export type HomeLesson = z.infer<typeof HomeLesson>
/** A task as a home sees it: never its answer. */
export const HomeTask = z.object({
  id: z.string(),
  prompt: z.string(),
  kind: z.enum(taskKinds),
  /** What is chosen from, laid or put in order, mixed. */
  choices: z.array(z.string()),
  /** What stands there already: a run with empty places, what is matched to. */
  slots: z.array(z.string()),
  /** How many: of parts, plates and things, sentences. */
  numbers: z.array(z.number().int()),
  /** How choices are drawn. */
  look: z.enum(choiceLooks).nullable(),
  /** The sets it belongs to; empty: it is every child's. */
  sets: z.array(TaskSet),
})
export type HomeTask = z.infer<typeof HomeTask>
export const HomePack = z.object({
  id: Uuid,
  className: z.string(),
  sentAt: Moment,
  /** Day it is wanted by, and whether it takes no more replies. */
  due: Day.nullable(),
  closed: z.boolean(),
  film: z
    .object({
      seconds: z.number(),
      bytes: z.number(),
      versions: z.array(z.object({ kind: z.enum(renderFileKinds), bytes: z.number() })),
      replaced: z.object({ at: Moment, changes: z.array(z.string()) }).nullable(),
      /** Its parts in order; at a stop it waits until the child has had a go. Seconds. */
      chapters: z.array(
        z.object({ start: z.number(), end: z.number(), title: z.string(), stop: z.boolean() }),
      ),
    })
    .nullable(),
  /** In the home's language, but for what the teacher wrote. */
  pack: z.object({
    title: z.string(),
    aim: z.string(),
    /** What is needed here, for all children of this home, with what the home has in its place. */
    needs: z.array(z.object({ line: z.string(), swap: z.string().nullable() })),
    cautions: z.array(z.string()),
    /** Another way, for what this home said of itself. */
    ways: z.array(z.string()),
    adult: z.object({
      why: z.string().nullable(),
      see: z.array(z.object({ see: z.string(), say: z.string() })),
      ways: z.array(z.string()),
      not: z.string().nullable(),
      /** The teacher's own words to adults. */
      note: z.array(z.string()),
      /** Where the house gives answers to grown-ups alone. */
      answers: z.array(z.object({ prompt: z.string(), answer: z.string() })),
    }),
    /** Sheets to print, for who can. */
    sheets: z.array(z.object({ kind: z.enum(printableKinds), name: z.string() })),
    /** Where the house lets them be looked at after trying. */
    answers: z.array(z.object({ prompt: z.string(), answer: z.string() })),
    tasks: z.array(HomeTask),
  }),
  /** What a grown-up lets be kept of each; `level`: the set the teacher gave this child, null where it chooses. */
  children: z.array(
    z.object({
      id: Uuid,
      name: z.string(),
      photos: z.boolean(),
      sound: z.boolean(),
      level: TaskSet.nullable(),
    }),
  ),
  replies: z.array(
    z.object({
      childId: Uuid,
      answers: z.array(Answer),
      help: Help.nullable(),
      way: Rung.nullable(),
      feeling: Feeling.nullable(),
      couldNot: z.boolean(),
      chose: TaskSet.nullable(),
      why: z.string(),
      words: z.string(),
      updatedAt: Moment,
      looked: z.boolean(),
      /** Words of the teacher to this child's home, once sent. */
      feedback: z.string().nullable(),
      /** Tasks that are asked for once more. */
      asked: z.array(z.object({ taskId: z.string(), words: z.string() })),
    }),
  ),
})
export type HomePack = z.infer<typeof HomePack>

export const homeLessons = route({
  method: 'GET',
  path: '/api/home/:token',
  who: 'home',
  summary: 'The lessons sent to a home, newest first.',
  params: ofHome,
  response: z.object({ packs: z.array(HomeLesson) }),
})
export const homePack = route({
  method: 'GET',
  path: '/api/home/:token/packs/:packId',
  who: 'home',
  summary: 'One lesson as a home sees it, with what it has answered.',
  params: ofPack,
  response: HomePack,
})
const HomeKit = z.object({
  has: z.array(z.string().max(60)).max(60),
  countable: z.number().int().min(0).max(200),
  canPrint: z.boolean(),
  /** Another way that helps here. */
  ways: z.array(OtherWay).max(7).default([]),
})
export const homeKit = route({
  method: 'GET',
  path: '/api/home/:token/kit',
  who: 'home',
  summary: 'Things a home is asked about, and what it said it has.',
  params: ofHome,
  response: z.object({ things: z.array(z.string()), kit: HomeKit.nullable() }),
})
export const saveHomeKit = route({
  method: 'PUT',
  path: '/api/home/:token/kit',
  who: 'home',
  summary: 'What a home has.',
  params: ofHome,
  body: HomeKit,
  response: Ok,
})
export const homeFilm = route({
  method: 'GET',
  path: '/api/home/:token/packs/:packId/film',
  who: 'home',
  summary: 'The film of a lesson.',
  params: ofPack,
  response: file('video/mp4'),
})
export const homeCaptions = route({
  method: 'GET',
  path: '/api/home/:token/packs/:packId/captions',
  who: 'home',
  summary: 'Its captions.',
  params: ofPack,
  response: file('text/vtt'),
})
export const homePoster = route({
  method: 'GET',
  path: '/api/home/:token/packs/:packId/poster',
  who: 'home',
  summary: 'A picture that stands for it.',
  params: ofPack,
  response: file('image/jpeg'),
})
export const homeFile = route({
  method: 'GET',
  path: '/api/home/:token/packs/:packId/files/:kind',
  who: 'home',
  summary: 'Another version of the film.',
  params: ofPack.extend({ kind: z.enum(renderFileKinds) }),
  response: file('video/mp4', 'audio/mp4', 'text/vtt', 'application/x-subrip'),
})
export const sendPhoto = route({
  method: 'POST',
  path: '/api/home/:token/packs/:packId/photos',
  who: 'home',
  summary: 'Takes a photo in, without anything hidden in its file.',
  params: ofPack,
  raw: true,
  response: z.object({ id: Uuid, width: z.number().int(), height: z.number().int() }),
})
export const sendReply = route({
  method: 'PUT',
  path: '/api/home/:token/packs/:packId/reply',
  who: 'home',
  summary: 'A child’s reply; sent again with the same key it is the same reply.',
  params: ofPack,
  body: ReplyInput,
  largest: 400_000,
  response: z.object({ receivedAt: Moment, again: z.boolean() }),
})

export const saveHomeLanguage = route({
  method: 'PUT',
  path: '/api/home/:token/language',
  who: 'home',
  summary: 'The language a home reads, on its page and in its post.',
  params: ofHome,
  body: z.object({ language: HomeLanguage }),
  response: Ok,
})
/** What a home agreed to for one child, as it stands. */
const HomeConsent = z.object({
  kind: z.enum(consentKinds),
  given: z.boolean().nullable(),
  giver: z.string().nullable(),
  day: Day.nullable(),
})
export const homeConsents = route({
  method: 'GET',
  path: '/api/home/:token/consents',
  who: 'home',
  summary: 'What is kept of a home’s children, how long, and what was agreed to.',
  params: ofHome,
  response: z.object({
    children: z.array(z.object({ id: Uuid, name: z.string(), consents: z.array(HomeConsent) })),
    /** Days each kind is kept; null: until it is asked for. */
    kept: z.object({
      photos: z.number().int().nullable(),
      sound: z.number().int().nullable(),
      replies: z.number().int().nullable(),
    }),
  }),
})
export const saveHomeConsent = route({
  method: 'POST',
  path: '/api/home/:token/children/:childId/consents',
  who: 'home',
  summary: 'A grown-up agrees to one thing for one child, or no longer does; it counts at once.',
  params: z.object({ token: z.string(), childId: Uuid }),
  body: z.object({
    kind: z.enum(consentKinds),
    given: z.boolean(),
    giver: z.string().trim().min(1).max(40),
  }),
  response: Ok,
})
export const takeBackReply = route({
  method: 'DELETE',
  path: '/api/home/:token/packs/:packId/children/:childId/reply',
  who: 'home',
  summary: 'Takes a reply back while nobody has looked at it: it and what came with it are gone.',
  params: ofPack.extend({ childId: Uuid }),
  response: Ok,
})
export const startHomeUpload = route({
  method: 'POST',
  path: '/api/home/:token/uploads',
  who: 'home',
  summary: 'Begins a resumable upload of a photo, a voice or a short film (the tus protocol).',
  params: ofHome,
  raw: true,
  response: file('application/offset+octet-stream'),
})
export const goOnHomeUpload = route({
  method: 'GET',
  path: '/api/home/:token/uploads/:uploadId',
  who: 'home',
  summary: 'The protocol’s own address of one such upload: HEAD, PATCH and DELETE.',
  params: ofHome.extend({ uploadId: z.string() }),
  response: file('application/offset+octet-stream'),
})
/** A way in from another device: eight letters and figures that are not taken for one another, good for minutes, once. */
export const homeCode = route({
  method: 'POST',
  path: '/api/home/:token/code',
  who: 'home',
  summary: 'A code that opens this home’s page on another device, once, within ten minutes.',
  params: ofHome,
  response: z.object({ code: z.string(), until: Moment }),
})
export const homeCalendar = route({
  method: 'GET',
  path: '/api/home/:token/lessons.ics',
  who: 'home',
  summary:
    'The lessons of a home as a calendar to subscribe to: when each was sent, and by when it is wanted.',
  params: ofHome,
  response: file('text/calendar'),
})
export const homeSheet = route({
  method: 'GET',
  path: '/api/home/:token/packs/:packId/print/:kind',
  who: 'home',
  summary: 'A sheet of a lesson in true size, to print at home.',
  params: ofPack.extend({ kind: z.enum(printableKinds) }),
  query: z.object({ paper: z.enum(['A4', 'Letter']).default('A4') }),
  response: file('application/pdf'),
})
