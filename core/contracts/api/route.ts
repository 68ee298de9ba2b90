import { z } from 'zod'

export const roles = ['owner', 'teacher'] as const
export const Role = z.enum(roles)
export type Role = z.infer<typeof Role>

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'
/** Whom a route answers: anyone, a signed-in person of the setting, or whoever holds a home's link (`:token` in the path). */
export type Who = 'anyone' | 'person' | 'home'
/** What the server tells of while a page is open; a route says which of them change its answer. */
export type ToldKind =
  'job' | 'takes' | 'replies' | 'publications' | 'lessons' | 'letters' | 'child_sets' | 'live'

/** An answer that is no JSON: a film, a picture, a calendar. Its type depends on what is asked for where several are named. */
export interface FileAnswer {
  readonly file: readonly string[]
}
export const file = (...mimes: string[]): FileAnswer => ({ file: mimes })
export const isFile = (answer: z.ZodType | FileAnswer): answer is FileAnswer => 'file' in answer

/** What the record of use tells of: see `record`. */
export const acts = [
  'signed in',
  'refused',
  'saw',
  'changed',
  'sent',
  'exported',
  'deleted',
  'tidied',
] as const
export type Act = (typeof acts)[number]
/** A line of the record of use, written when a call went well. */
export interface Records {
  readonly act: Act
  /** What was done, with no name in it. */
  readonly words: string
  /** The parameter of the path that says what it concerns. */
  readonly of?: string
}

export interface Route<
  M extends Method = Method,
  A extends string = string,
  P extends z.ZodObject = z.ZodObject,
  Q extends z.ZodObject = z.ZodObject,
  B extends z.ZodType = z.ZodType,
  R extends z.ZodType | FileAnswer = z.ZodType | FileAnswer,
> {
  readonly method: M
  /** As Express writes it: `/api/lessons/:lessonId`. */
  readonly path: A
  readonly who: Who
  /** One sentence: what it does. */
  readonly summary: string
  readonly params: P
  readonly query: Q
  /** What is sent as JSON. */
  readonly body: B
  /** Whether bytes or a form are sent instead. */
  readonly raw: boolean
  /** Bytes of JSON that are read; more is refused. */
  readonly largest: number
  readonly response: R
  /** What, told of by the server, changes the answer: of the same lesson where the path names one, else of any. */
  readonly changesWith: readonly ToldKind[]
  /** The line it leaves in the record of use; null for none. */
  readonly records: Records | null
}
type Nothing = z.ZodObject<Record<never, never>>
/** Whatever is sent where nothing is asked for is not looked at. */
export const noBody = z.unknown().transform(() => undefined)

/** Declares one route. What is left out is empty: no parameters, no query, no body, changed by nothing. */
export function route<
  M extends Method,
  const A extends string,
  R extends z.ZodType | FileAnswer,
  P extends z.ZodObject = Nothing,
  Q extends z.ZodObject = Nothing,
  B extends z.ZodType = z.ZodUndefined,
>(r: {
  method: M
  path: A
  who?: Who
  summary: string
  params?: P
  query?: Q
  body?: B
  raw?: boolean
  largest?: number
  response: R
  changesWith?: readonly ToldKind[]
  records?: Records | null
}): Route<M, A, P, Q, B, R> {
  return {
    who: 'person',
    raw: false,
    largest: 128 * 1024,
    changesWith: [],
    records: null,
    ...r,
    params: r.params ?? (z.object({}) as unknown as P),
    query: r.query ?? (z.object({}) as unknown as Q),
    body: r.body ?? (noBody as unknown as B),
  }
}

/** What a caller gives for the path and the query. */
type Fields<O extends z.ZodObject> = keyof O['shape'] extends never ? object : z.input<O>
export type Asked<T extends Route> = Fields<T['params']> & Fields<T['query']>
export type Body<T extends Route> = z.input<T['body']>
/** What a caller gets: JSON as it arrives, dates as ISO strings; nothing for a file. */
export type Answer<T extends Route> = T['response'] extends z.ZodType ? z.output<T['response']> : undefined

/** Parts that many routes have. */
export const Uuid = z.uuid()
export const Moment = z.iso.datetime({ offset: true })
export const Day = z.iso.date()
export const Ok = z.object({ ok: z.literal(true) })
export const ok: z.infer<typeof Ok> = { ok: true }
export const Made = z.object({ id: Uuid })
export const Started = z.object({ job: Uuid })
export const ofLesson = z.object({ lessonId: Uuid })
export const ofTake = z.object({ takeId: Uuid })
export const ofClass = z.object({ classId: Uuid })
export const ofRender = z.object({ renderId: Uuid })
export const ofPack = z.object({ token: z.string(), packId: Uuid })
/** A part of a lesson's or reply's document: made by a page, short, no uuid. */
export const SegmentId = z.string().max(40)
