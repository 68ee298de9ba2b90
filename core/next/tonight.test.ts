import { describe, expect, test } from 'vitest'
import type { ShelfLesson } from '../contracts/api/shelf.ts'
import { nextAct, sewn } from './minutes.ts'
import { daysBetween, quietOf, tonightOf } from './tonight.ts'

const today = '2026-11-26'
function lesson(id: string, day: string, over: Partial<ShelfLesson['facts']> = {}): ShelfLesson {
  const facts: ShelfLesson['facts'] = {
    filmSeconds: 300,
    segments: 4,
    filmed: 0,
    findings: 0,
    proposedDrops: 0,
    rendered: false,
    sent: false,
    replies: 0,
    looked: 0,
    lastFilmSeconds: null,
    sentAt: null,
    oldestWaiting: null,
    liveAt: null,
    liveGiven: 0,
    ...over,
  }
  return { id, classId: 'c', day, title: id, idea: '', facts, sewn: sewn(facts), act: nextAct(facts) }
}
const dayOf = (moment: string): string => moment.slice(0, 10)
const ids = (lessons: ShelfLesson[]): string[] => tonightOf(lessons, today, dayOf).map((t) => t.lessonId)

describe('tonight', () => {
  test('has what goes out within a week, soonest first; replies that wait come before all', () =>
    expect(
      ids([
        lesson('later', '2026-12-02'),
        lesson('far', '2026-12-04'),
        lesson('soon', '2026-11-27'),
        lesson('waiting', '2026-11-20', {
          sent: true,
          replies: 3,
          looked: 1,
          oldestWaiting: '2026-11-24T19:00:00Z',
        }),
      ]),
    ).toEqual(['waiting', 'soon', 'later']))
  test('leaves out what is sent and looked at', () =>
    expect(ids([lesson('done', '2026-11-25', { sent: true, replies: 2, looked: 2 })])).toEqual([]))
  test('says how long the oldest reply has waited', () =>
    expect(
      tonightOf(
        [
          lesson('w', '2026-11-20', {
            sent: true,
            replies: 1,
            oldestWaiting: '2026-11-24T19:00:00Z',
          }),
        ],
        today,
        dayOf,
      )[0]!.reason,
    ).toMatch(/2 days/))
})

describe('who is quiet', () => {
  const child = (name: string, last: string | null, sent: string | null) => ({
    childId: name,
    name,
    className: 'Wagtails',
    last,
    sent,
  })
  test('five days and more, longest first; never those who were sent nothing', () =>
    expect(
      quietOf(
        [
          child('Leyla', '2026-11-21', '2026-11-20'),
          child('Anouk', null, '2026-11-10'),
          child('Bram', '2026-11-23', '2026-11-20'),
          child('Otis', null, null),
        ],
        today,
      ).map((q) => [q.name, q.days]),
    ).toEqual([
      ['Anouk', 16],
      ['Leyla', 5],
    ]))
  test('days are days of the calendar, over the end of a month and of summer time', () => {
    expect(daysBetween('2026-10-24', '2026-10-26')).toBe(2)
    expect(daysBetween('2026-12-01', '2026-11-30')).toBe(-1)
  })
})
