import type { Response } from 'express'
import ical, { ICalEventStatus } from 'ical-generator'
import type { LiveRow } from './store.ts'

/** Sends a live lesson as an entry of a calendar: one that was called off is told as such, so that calendars take it out. */
export function calendarOf(
  res: Response,
  row: LiveRow,
  { url, words }: { url: string; words: string },
): void {
  const calendar = ical({ name: row.doc.title, prodId: { company: 'awlbox', product: 'live' } })
  calendar.createEvent({
    id: `${row.id}@awlbox`,
    sequence: row.state.seq,
    start: row.startsAt,
    end: new Date(+row.startsAt + row.minutes * 60_000),
    summary: row.doc.title,
    description: words,
    url,
    ...(row.calledOffAt ? { status: ICalEventStatus.CANCELLED } : {}),
  })
  res.type('text/calendar; charset=utf-8').set('Cache-Control', 'no-store').send(calendar.toString())
}
