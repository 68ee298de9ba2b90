import { z } from 'zod'
import { CutList } from '../cut.ts'
import { FilmCheck, renderFileKinds } from '../render.ts'
import { file, Moment, ofLesson, ofRender, route, Started, Uuid } from './route.ts'

const Revisioned = z.object({ revision: z.number().int() })
export const readCut = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/cut',
  summary: 'The cut list of a lesson; revision 0 is a proposal nobody has saved.',
  params: ofLesson,
  response: Revisioned.extend({ doc: CutList }),
  changesWith: ['lessons', 'takes', 'job'],
})
export const saveCut = route({
  method: 'PUT',
  path: '/api/lessons/:lessonId/cut',
  summary:
    'Saves a cut list over the revision it was made from; 409 with the other version where that is stale.',
  params: ofLesson,
  body: z.object({ revision: z.number().int().min(0), doc: CutList }),
  largest: 4_000_000,
  response: Revisioned,
  records: { act: 'changed', words: 'Changed a cut', of: 'lessonId' },
})
export const cutFormats = ['json', 'otio', 'edl', 'mlt', 'zip'] as const
export const exportCut = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/cut/export/:format',
  summary: 'The cut list for another program.',
  params: ofLesson.extend({ format: z.enum(cutFormats) }),
  response: file('application/json', 'text/plain', 'application/xml', 'application/zip'),
  records: { act: 'exported', words: 'Exported a cut list', of: 'lessonId' },
})
export const readCutFile = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/cut/read',
  summary: 'Reads a list from another program; nothing is saved.',
  params: ofLesson,
  body: z.object({ name: z.string().max(200), text: z.string().min(1).max(8_000_000) }),
  largest: 8_200_000,
  response: z.object({ doc: CutList }),
})
export const render = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/render',
  summary: 'Renders the film of the newest cut.',
  params: ofLesson,
  response: Started,
  records: { act: 'changed', words: 'Had a film rendered', of: 'lessonId' },
})
export const RenderRecord = z.object({
  id: Uuid,
  cutRevision: z.number().int(),
  seconds: z.number(),
  bytes: z.number(),
  checks: z.array(FilmCheck).nullable(),
  createdAt: Moment,
  files: z.array(z.object({ kind: z.enum(renderFileKinds), bytes: z.number() })),
})
export type RenderRecord = z.infer<typeof RenderRecord>
export const renders = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/renders',
  summary: 'Films made of a lesson, newest first, and how long this machine takes for one.',
  params: ofLesson,
  response: z.object({
    items: z.array(RenderRecord),
    /** Seconds of work for a second of film on this machine; null before anything was rendered on it. */
    rate: z.number().nullable(),
  }),
  changesWith: ['job'],
})
export const renderFile = route({
  method: 'GET',
  path: '/api/renders/:renderId/files/:kind',
  summary: 'Another version of a film, or something that goes with it.',
  params: ofRender.extend({ kind: z.enum(renderFileKinds) }),
  response: file('video/mp4', 'audio/mp4', 'text/vtt', 'application/x-subrip'),
})
export const renderFilm = route({
  method: 'GET',
  path: '/api/renders/:renderId/film',
  summary: 'A finished film.',
  params: ofRender,
  response: file('video/mp4'),
})
export const renderCaptions = route({
  method: 'GET',
  path: '/api/renders/:renderId/captions',
  summary: 'Captions of a film.',
  params: ofRender,
  response: file('text/vtt'),
})
export const renderPoster = route({
  method: 'GET',
  path: '/api/renders/:renderId/poster',
  summary: 'A picture that stands for a film.',
  params: ofRender,
  response: file('image/jpeg'),
})
