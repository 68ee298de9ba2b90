import type { TakeSeen } from '../cut/covers.ts'
import type { MeanColour } from '../cut/repairs.ts'
import type { RoomTone } from '../cut/room-tone.ts'

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
export interface FilmCheck {
  kind: 'flash' | 'black' | 'frozen' | 'loud' | 'sync' | 'size'
  severity: 'wrong' | 'look'
  at: number | null
  message: string
}

/** What was measured in a take once. */
export interface TakeLooked extends TakeSeen {
  /** Mean colour of its pictures; null where it has none. */
  mean: MeanColour | null
  /** Small pictures in the sheet: how many, how many in a row, frames from one to the next, size in pixels. */
  sheet: { count: number; across: number; every: number; width: number; height: number } | null
  /** Only the room, seconds into the take. */
  tone: RoomTone | null
  /** Mains hum heard in it, and the level of its noise in decibels under full scale. */
  hum: 0 | 50 | 60
  noise: number | null
}
