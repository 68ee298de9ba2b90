import type { Quiet, ShelfLesson, Tonight } from '../contracts/api/shelf.ts'
import { reasonFor } from './minutes.ts'

/** Days a home may be silent before it is named. */
const quietAfterDays = 5
/** An evening looks a week ahead; what goes out later has its place in the week. */
const daysAhead = 7
const dayLength = 86_400_000

/** Whole days from one calendar day to another (ISO dates), below zero where the second is earlier. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / dayLength)

/** What is due tonight, most urgent first. `today`: ISO date; `dayOf` gives the calendar day of a moment where the teacher is. */
export function tonightOf(
  lessons: readonly ShelfLesson[],
  today: string,
  dayOf: (moment: string) => string,
): Tonight[] {
  return lessons
    .flatMap((l): Tonight[] => {
      const days = daysBetween(today, l.day)
      if ((l.facts.sent && l.facts.replies === l.facts.looked) || days > daysAhead) return []
      const oldest = l.facts.oldestWaiting
      const waited = oldest === null ? null : daysBetween(dayOf(oldest), today)
      const reason = reasonFor(l.act.station, days, waited, l.facts.filmSeconds)
      return [{ lessonId: l.id, title: l.title, ...l.act, reason, due: l.act.station === 'look' ? -1 : days }]
    })
    .sort((a, b) => a.due - b.due)
}

/** Children not heard from for some days, longest first; those whose homes were sent nothing are not among them. */
export function quietOf(
  children: readonly {
    childId: string
    name: string
    className: string
    /** ISO dates: of the last reply, and of the last sending. */
    last: string | null
    sent: string | null
  }[],
  today: string,
): Quiet[] {
  return children
    .flatMap(({ childId, name, className, last, sent }) => {
      const days = sent === null ? 0 : daysBetween(last ?? sent, today)
      return days >= quietAfterDays ? [{ childId, name, className, days }] : []
    })
    .sort((a, b) => b.days - a.days)
}
