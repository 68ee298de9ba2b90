import { z } from 'zod'
import { Day, Made, Moment, ofClass, ofLesson, Ok, route, Uuid } from './route.ts'

export const Cover = z.object({ id: Uuid, personId: Uuid, person: z.string(), from: Day, until: Day })
export type Cover = z.infer<typeof Cover>
export const ClassOfSetting = z.object({
  id: Uuid,
  name: z.string(),
  age: z.number().int(),
  teacherId: Uuid,
  teacher: z.string(),
  closedAt: Moment.nullable(),
  children: z.array(z.object({ id: Uuid, name: z.string() })),
  lessons: z.number().int(),
  covers: z.array(Cover),
})
export type ClassOfSetting = z.infer<typeof ClassOfSetting>

/** What a new school year did, so that it can be undone. */
export const YearTurned = z.object({
  moves: z.array(z.object({ childId: Uuid, from: Uuid, to: Uuid.nullable() })),
})
export type YearTurned = z.infer<typeof YearTurned>
export const Year = z.object({
  id: Uuid,
  at: Moment,
  by: z.string(),
  moved: z.number().int(),
  left: z.number().int(),
  /** Until when it can be undone; null once it was, or it is too late. */
  undoUntil: Moment.nullable(),
})
export type Year = z.infer<typeof Year>
/** Days for which a new school year can be undone. */
export const yearUndoDays = 30

export const ClassList = z.object({
  classes: z.array(ClassOfSetting),
  people: z.array(z.object({ id: Uuid, name: z.string() })),
  /** Children who left and of whom something is kept still. */
  left: z.array(z.object({ id: Uuid, name: z.string(), className: z.string(), leftAt: Moment })),
  year: Year.nullable(),
  /** Days for which what a child leaves behind is kept; null without end. */
  keptAfterLeaving: z.number().int().nullable(),
  mayChange: z.boolean(),
})
export type ClassList = z.infer<typeof ClassList>
export const classes = route({
  method: 'GET',
  path: '/api/classes',
  summary: 'Every class of the setting, closed ones too, with its children, its teacher and who covers it.',
  response: ClassList,
})
const ClassName = z.string().trim().min(1).max(40)
const Age = z.number().int().min(3).max(7)
export const makeClass = route({
  method: 'POST',
  path: '/api/classes',
  summary: 'Makes a class. Owners only.',
  body: z.object({ name: ClassName, age: Age, teacherId: Uuid }),
  response: Made,
  records: { act: 'changed', words: 'Made a class' },
})
export const saveClass = route({
  method: 'PUT',
  path: '/api/classes/:classId',
  summary: 'Renames a class, sets its age or teacher, closes it or opens it again. Owners only.',
  params: ofClass,
  body: z.object({ name: ClassName, age: Age, teacherId: Uuid, closed: z.boolean() }).partial(),
  response: Ok,
  records: { act: 'changed', words: 'Changed a class', of: 'classId' },
})
export const addCover = route({
  method: 'POST',
  path: '/api/classes/:classId/covers',
  summary: 'Gives a colleague a class for some days. Owners only.',
  params: ofClass,
  body: z.object({ personId: Uuid, from: Day, until: Day }),
  response: Made,
  records: { act: 'changed', words: 'Gave a colleague a class for some days', of: 'classId' },
})
export const endCover = route({
  method: 'DELETE',
  path: '/api/covers/:coverId',
  summary: 'Takes a cover back. Owners only.',
  params: z.object({ coverId: Uuid }),
  response: Ok,
  records: { act: 'changed', words: 'Took a cover back' },
})
export const turnYear = route({
  method: 'POST',
  path: '/api/year',
  summary:
    'A new school year: moves every child that was said to move, and lets those leave who do. Owners only.',
  /** What is done, as it was shown: children who are no longer where they were make it stale. */
  body: YearTurned,
  largest: 1_000_000,
  response: Made,
  records: { act: 'changed', words: 'Began a new school year' },
})
export const undoYear = route({
  method: 'POST',
  path: '/api/year/:yearId/undo',
  summary: 'Takes a new school year back: every child that is still where it put them. Owners only.',
  params: z.object({ yearId: Uuid }),
  response: z.object({ back: z.number().int(), elsewhere: z.number().int() }),
  records: { act: 'changed', words: 'Took a new school year back' },
})
export const carryLesson = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/carry',
  summary: 'Copies a lesson’s script for another class, on a day.',
  params: ofLesson,
  body: z.object({ classId: Uuid, day: Day }),
  response: Made,
  records: { act: 'changed', words: 'Carried a lesson to another class', of: 'lessonId' },
})
