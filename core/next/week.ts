import { median } from '../median.ts'
import { workRates } from './minutes.ts'

/** A teacher's own minutes for work done before: film minutes and the minutes it took. */
export interface Worked {
  kind: 'writing' | 'filming' | 'cutting'
  filmMinutes: number
  minutes: number
}
export interface Rates {
  writing: number
  filming: number
  cutting: number
  sending: number
  look: number
  /** Which of them come from this teacher's own history. */
  own: readonly Worked['kind'][]
}
/** At least this many pieces of work before a teacher's own rate replaces the usual one. */
const historyNeeded = 3
/** Minutes per film minute from a teacher's own history, by median; the usual rates where there is too little of it. */
export function ratesOf(history: readonly Worked[]): Rates {
  const own: Worked['kind'][] = []
  const rate = (kind: Worked['kind']): number => {
    const mine = history
      .filter((h) => h.kind === kind && h.filmMinutes > 0.2)
      .map((h) => h.minutes / h.filmMinutes)
    if (mine.length < historyNeeded) return workRates[kind]
    own.push(kind)
    return median(mine)
  }
  return {
    writing: rate('writing'),
    filming: rate('filming'),
    cutting: rate('cutting'),
    sending: workRates.sending,
    look: workRates.look,
    own,
  }
}

export interface WeekLesson {
  id: string
  title: string
  /** Days as ISO dates; film-by and send-by may be missing. */
  day: string
  filmBy: string | null
  sendBy: string | null
  filmMinutes: number
  written: boolean
  /** Share of segments filmed, 0–1. */
  filmed: number
  cut: boolean
  sent: boolean
  repliesWaiting: number
  repliesExpected: number
}
/** Minutes of an evening when nobody has said how many there are, Monday first: weekdays one hour and a half, none at the weekend. */
export const usualHours: readonly number[] = [90, 90, 90, 90, 90, 0, 0]

/** Whether a lesson makes work in a week (ISO dates): its first work falls before the end, and past ones only while replies wait. */
export function inWeek(
  l: Pick<WeekLesson, 'day' | 'filmBy' | 'sendBy' | 'repliesWaiting'>,
  first: string,
  last: string,
): boolean {
  const begins = [l.filmBy, l.sendBy, l.day].filter((d) => d !== null).sort()[0]!
  return begins <= last && (l.day >= first || l.repliesWaiting > 0)
}

export interface Task {
  lessonId: string
  title: string
  what: 'write' | 'film' | 'cut' | 'send' | 'look'
  minutes: number
  by: string
}
/** What is still to be done for one lesson, with minutes and the day it is due by. */
export function tasksOf(l: WeekLesson, r: Rates): Task[] {
  const filmBy = l.filmBy ?? l.day
  const sendBy = l.sendBy ?? l.day
  const task = (what: Task['what'], minutes: number, by: string): Task => ({
    lessonId: l.id,
    title: l.title,
    what,
    minutes: Math.max(1, Math.round(minutes)),
    by,
  })
  const out: Task[] = []
  if (!l.written) out.push(task('write', l.filmMinutes * r.writing, filmBy))
  if (l.filmed < 1 && !l.sent) out.push(task('film', l.filmMinutes * r.filming * (1 - l.filmed), filmBy))
  if (!l.cut && !l.sent) out.push(task('cut', l.filmMinutes * r.cutting, sendBy))
  if (!l.sent) out.push(task('send', r.sending, sendBy))
  if (l.repliesWaiting > 0) out.push(task('look', l.repliesWaiting * r.look, sendBy))
  else if (!l.sent && l.repliesExpected > 0) out.push(task('look', l.repliesExpected * r.look, sendBy))
  return out
}

export interface Hours {
  /** ISO dates of the week with the minutes free on each. */
  day: string
  minutes: number
}
export interface WeekPlan {
  tasks: Task[]
  needed: number
  free: number
  /** Tasks that would not be done by their day, doing the earliest due first. */
  late: { task: Task; short: number }[]
  /** What could be left out, least loss first, until the rest fits. `whole`: all work of that lesson, else a share of the task. */
  drop: { task: Task; saves: number; why: string; whole: boolean }[]
}

/**
 * Sets the work of a week against the hours there are. Work is done earliest due first; what does not fit by its
 * day is late. What to drop first: looking at replies that can wait, then cutting kept to the first proposal, then
 * the lesson that goes out last.
 */
export function planWeek(lessons: readonly WeekLesson[], hours: readonly Hours[], rates: Rates): WeekPlan {
  const order = ['write', 'film', 'cut', 'send', 'look']
  const tasks = lessons
    .flatMap((l) => tasksOf(l, rates))
    .sort((a, b) => a.by.localeCompare(b.by) || order.indexOf(a.what) - order.indexOf(b.what))
  const needed = tasks.reduce((s, t) => s + t.minutes, 0)
  const free = hours.reduce((s, h) => s + h.minutes, 0)
  const late = lateIn(tasks, hours)
  const drop: WeekPlan['drop'] = []
  let left = [...tasks]
  const options = [
    ...tasks
      .filter((t) => t.what === 'look')
      .map((task) => ({
        task,
        saves: Math.round(task.minutes / 2),
        whole: false,
        why: 'Look at half of the replies and the rest next week: those not heard from longest come first.',
      })),
    ...tasks
      .filter((t) => t.what === 'cut')
      .map((task) => ({
        task,
        saves: Math.round(task.minutes / 2),
        whole: false,
        why: 'Accept the first cut as proposed, with no hand work.',
      })),
    ...[...lessons]
      .filter((l) => !l.sent)
      .sort((a, b) => b.day.localeCompare(a.day))
      .flatMap((l) => {
        const mine = tasks.filter((t) => t.lessonId === l.id)
        return mine.length
          ? [
              {
                task: mine[0]!,
                saves: mine.reduce((s, t) => s + t.minutes, 0),
                whole: true,
                why: `Leave “${l.title}” for the week after: it goes out last.`,
              },
            ]
          : []
      }),
  ]
  for (const o of options) {
    if (!lateIn(left, hours).length) break
    drop.push(o)
    left = o.whole
      ? left.filter((t) => t.lessonId !== o.task.lessonId)
      : left.map((t) => (t === o.task ? { ...t, minutes: t.minutes - o.saves } : t))
  }
  return { tasks, needed, free, late, drop: late.length ? drop : [] }
}
function lateIn(tasks: readonly Task[], hours: readonly Hours[]): WeekPlan['late'] {
  let used = 0
  return tasks.flatMap((task) => {
    used += task.minutes
    // What was due before these days is due on the first of them.
    const by = hours[0] && task.by < hours[0].day ? hours[0].day : task.by
    const have = hours.filter((h) => h.day <= by).reduce((s, h) => s + h.minutes, 0)
    return used > have ? [{ task, short: used - have }] : []
  })
}
