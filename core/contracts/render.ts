import { Params } from './finding.ts'
import { z } from 'zod'
import { FilmBox } from './cut.ts'

/** What is made of a film beside the film itself, its captions and its poster. */
export const renderFileKinds = [
  'small',
  'sound',
  'srt',
  'captions-slow',
  'descriptions',
  'chapters',
  'adults',
  'adults-captions',
] as const
export type RenderFileKind = (typeof renderFileKinds)[number]
export const renderFileMimes: Record<RenderFileKind, string> = {
  small: 'video/mp4',
  sound: 'audio/mp4',
  srt: 'application/x-subrip',
  'captions-slow': 'text/vtt',
  descriptions: 'text/vtt',
  chapters: 'text/vtt',
  adults: 'video/mp4',
  'adults-captions': 'text/vtt',
}

/** What was found in a finished film. Seconds into it. */
export const FilmCheck = z.object({
  code: z.enum(['flash', 'black', 'frozen', 'loud', 'sync', 'size']),
  severity: z.enum(['wrong', 'risky']),
  params: Params,
  start: z.number().nullable(),
})
export type FilmCheck = z.infer<typeof FilmCheck>
export type FilmCode = FilmCheck['code']

/** Writing that tells who or where. */
export const privateKinds = ['child', 'place', 'address', 'telephone'] as const
export type PrivateKind = (typeof privateKinds)[number]

/** What was found in one picture of a take; boxes in its 1280 × 720. */
export const AreasSeen = z.object({ frame: z.number(), boxes: z.array(FilmBox) })
export type AreasSeen = z.infer<typeof AreasSeen>

/** Everything found in a take that may have to be covered. */
export const TakeSeen = z.object({
  /** Frames between the pictures in which faces were looked for, and where they were found. */
  every: z.number(),
  faces: z.array(AreasSeen).readonly(),
  /** The same for writing that tells who or where; null where nothing could be read. */
  written: z
    .object({ every: z.number(), seen: z.array(AreasSeen.extend({ what: z.enum(privateKinds) })).readonly() })
    .nullable()
    .optional(),
})
export type TakeSeen = z.infer<typeof TakeSeen>

/** Mean colour of a picture, each 0–255. */
export const MeanColour = z.object({ r: z.number(), g: z.number(), b: z.number() })
export type MeanColour = z.infer<typeof MeanColour>

/** A stretch of a take in which only its room is heard, in seconds. */
export const RoomTone = z.object({ from: z.number(), to: z.number() })
export type RoomTone = z.infer<typeof RoomTone>

/** What was measured in a take once. */
export const TakeLooked = TakeSeen.extend({
  /** Mean colour of its pictures; null where it has none. */
  mean: MeanColour.nullable(),
  /** Small pictures in the sheet: how many, how many in a row, frames from one to the next, size in pixels. */
  sheet: z
    .object({
      count: z.number(),
      across: z.number(),
      every: z.number(),
      width: z.number(),
      height: z.number(),
    })
    .nullable(),
  /** Only the room, seconds into the take. */
  tone: RoomTone.nullable(),
  /** Mains hum heard in it, and the level of its noise in decibels under full scale. */
  hum: z.union([z.literal(0), z.literal(50), z.literal(60)]),
  noise: z.number().nullable(),
})
export type TakeLooked = z.infer<typeof TakeLooked>
