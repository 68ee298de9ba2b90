import { z } from 'zod'
import { Facts, NextAct, Place, Sewn } from './lessons.ts'
import { Day, route, Uuid } from './route.ts'

export const ShelfClass = z.object({
  id: Uuid,
  name: z.string(),
  age: z.number(),
  teacherId: Uuid,
  teacher: z.string(),
})
export type ShelfClass = z.infer<typeof ShelfClass>
export const ShelfLesson = z.object({
  id: Uuid,
  classId: Uuid,
  day: Day,
  title: z.string(),
  idea: z.string(),
  facts: Facts,
  sewn: Sewn,
  act: NextAct,
})
export type ShelfLesson = z.infer<typeof ShelfLesson>
export const Tonight = z.object({
  lessonId: Uuid,
  title: z.string(),
  label: z.string(),
  station: Place,
  minutes: z.number(),
  reason: z.string(),
  /** Days from today to the day it goes out; −1 where replies wait. */
  due: z.number(),
})
export type Tonight = z.infer<typeof Tonight>
export const Quiet = z.object({ childId: Uuid, name: z.string(), className: z.string(), days: z.number() })
export type Quiet = z.infer<typeof Quiet>
/** Work under way by itself for a lesson: filming by a stand-in, hearing, rendering, reading photos. */
export const Working = z.object({
  lessonId: Uuid,
  title: z.string(),
  /** Pieces of it, done and all. */
  done: z.number().int(),
  all: z.number().int(),
  step: z.string(),
  secondsLeft: z.number().nullable(),
})
export type Working = z.infer<typeof Working>
export const Shelf = z.object({
  classes: z.array(ShelfClass),
  lessons: z.array(ShelfLesson),
  tonight: z.array(Tonight),
  quiet: z.array(Quiet),
  working: z.array(Working),
  /** Minutes this person has of this evening. */
  evening: z.number(),
  /** Days since the last good backup, where one is wanted and that is too long. */
  backupLate: z.number().int().nullable(),
})
export type Shelf = z.infer<typeof Shelf>

export const shelf = route({
  method: 'GET',
  path: '/api/shelf',
  summary: 'The classes and lessons of the setting, what is due tonight, and who has not been heard from.',
  response: Shelf,
  changesWith: ['lessons', 'takes', 'job', 'publications', 'replies'],
})
