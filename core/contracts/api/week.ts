import { z } from 'zod'
import { Day, file, ofLesson, route, Uuid } from './route.ts'

const Task = z.object({
  lessonId: Uuid,
  title: z.string(),
  what: z.enum(['write', 'film', 'cut', 'send', 'look']),
  minutes: z.number(),
  by: Day,
})
const WeekLesson = z.object({
  id: Uuid,
  title: z.string(),
  className: z.string(),
  day: Day,
  filmBy: Day.nullable(),
  sendBy: Day.nullable(),
  filmMinutes: z.number(),
  written: z.boolean(),
  /** Share of its segments, 0–1. */
  filmed: z.number(),
  cut: z.boolean(),
  sent: z.boolean(),
  repliesWaiting: z.number(),
  repliesExpected: z.number(),
})
export const Week = z.object({
  from: Day,
  today: Day,
  days: z.array(Day),
  hours: z.array(z.object({ day: Day, minutes: z.number() })),
  lessons: z.array(WeekLesson),
  rates: z.object({
    writing: z.number(),
    filming: z.number(),
    cutting: z.number(),
    sending: z.number(),
    look: z.number(),
    own: z.array(z.enum(['writing', 'filming', 'cutting'])).readonly(),
  }),
  plan: z.object({
    tasks: z.array(Task),
    needed: z.number(),
    free: z.number(),
    late: z.array(z.object({ task: Task, short: z.number() })),
    drop: z.array(z.object({ task: Task, saves: z.number(), why: z.string(), whole: z.boolean() })),
  }),
})
export type Week = z.infer<typeof Week>
const from = z.object({ from: z.string().optional() })

export const week = route({
  method: 'GET',
  path: '/api/week',
  summary: 'What is due in a week, the minutes it takes and the minutes there are.',
  query: from,
  response: Week,
  changesWith: ['lessons', 'takes', 'job', 'publications', 'replies'],
})
export const weekCalendar = route({
  method: 'GET',
  path: '/api/week.ics',
  summary: 'The week as a calendar file.',
  query: from,
  response: file('text/calendar'),
  records: { act: 'exported', words: 'Exported a week as a calendar' },
})
const Minutes = z.object({ minutes: z.array(z.number().int().min(0).max(1440)).length(7) })
export const saveHours = route({
  method: 'PUT',
  path: '/api/me/hours',
  summary: 'Minutes of work this person has each day, Monday first.',
  body: Minutes,
  response: Minutes,
})
const Dates = z.object({ day: Day, filmBy: Day.nullable(), sendBy: Day.nullable() })
export const saveDates = route({
  method: 'PUT',
  path: '/api/lessons/:lessonId/dates',
  summary: 'The day a lesson goes out, and by when it is filmed and sent.',
  params: ofLesson,
  body: Dates,
  response: Dates,
  records: { act: 'changed', words: 'Changed the days of a lesson', of: 'lessonId' },
})
