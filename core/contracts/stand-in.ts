import { z } from 'zod'

/** Slips the stand-in camera can be asked for, in the words of its dialog. */
export const slips = [
  'leave out a number',
  'say a number twice',
  'swap two numbers',
  'stop a count early',
  'count one too far',
  'wrong total',
  'wrong sentence',
  'change a number',
  'skip a line',
  'false start',
  'start a count again',
  'say oops',
  'dead air',
  'answer too soon',
  'cut a wait short',
  'wrong die',
  'wrong claps',
] as const
export type Slip = (typeof slips)[number]

/** What good teachers do that must not be taken for a slip. */
export const habits = ['last number again', 'count twice', 'repeat an answer'] as const
export type Habit = (typeof habits)[number]

export const standInVoices = ['slt', 'rms', 'awb', 'kal16'] as const
export type StandInVoice = (typeof standInVoices)[number]

export const standInRooms = ['studio', 'quiet kitchen', 'far from the microphone', 'fridge humming'] as const
export type StandInRoom = (typeof standInRooms)[number]

/** What the stand-in camera is asked to film of a segment. The same seed chooses the same lines to slip in. */
export const StandInOrder = z.object({
  slips: z.array(z.enum(slips)).max(12).default([]),
  habits: z.array(z.enum(habits)).max(habits.length).default([]),
  voice: z.enum(standInVoices).default('slt'),
  room: z.enum(standInRooms).default('studio'),
  seed: z.number().int().min(0).max(1e9).default(1),
})
export type StandInOrder = z.infer<typeof StandInOrder>

/** A street of made-up homes that replies to a sending; their links without the address, in the order they stand. */
export const StreetOrder = z.object({
  address: z.url(),
  tokens: z.array(z.string().min(1)).min(1).max(1000),
  packId: z.uuid(),
  seed: z.number().int().min(0).max(1_000_000),
})
export type StreetOrder = z.infer<typeof StreetOrder>

/** The same street at a rehearsal of a live lesson. */
export const LiveStreetOrder = z.object({
  address: z.url(),
  tokens: z.array(z.string().min(1)).min(1).max(1000),
  liveId: z.uuid(),
  seed: z.number().int().min(0).max(1_000_000),
})
export type LiveStreetOrder = z.infer<typeof LiveStreetOrder>
