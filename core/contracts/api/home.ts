import { z } from 'zod'
import { renderFileKinds } from '../render.ts'
import { Answer, Feeling, Help, ReplyInput, Rung } from '../reply.ts'
import { taskKinds } from '../lesson.ts'
import { Pack } from '../pack.ts'
import { file, Moment, ofPack, Ok, route, Uuid } from './route.ts'

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
})
export type HomeTask = z.infer<typeof HomeTask>
export const HomePack = z.object({
  id: Uuid,
  className: z.string(),
  sentAt: Moment,
  film: z
    .object({
      seconds: z.number(),
      bytes: z.number(),
      versions: z.array(z.object({ kind: z.enum(renderFileKinds), bytes: z.number() })),
      replaced: z.object({ at: Moment, changes: z.array(z.string()) }).nullable(),
    })
    .nullable(),
  pack: Pack.omit({ tasks: true, ideaId: true }).extend({ tasks: z.array(HomeTask) }),
  youngerChild: z.boolean(),
  /** `photos`: whether their grown-up lets photos of their work be kept. */
  children: z.array(z.object({ id: Uuid, name: z.string(), photos: z.boolean() })),
  replies: z.array(
    z.object({
      childId: Uuid,
      answers: z.array(Answer),
      help: Help.nullable(),
      way: Rung.nullable(),
      feeling: Feeling.nullable(),
      couldNot: z.boolean(),
      words: z.string(),
      updatedAt: Moment,
      looked: z.boolean(),
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
