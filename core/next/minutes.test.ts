import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type LessonFacts, nextAct, reasonFor, sewn } from './minutes.ts'
import { stations } from '../contracts/api/lessons.ts'

const facts = (over: Partial<LessonFacts> = {}): LessonFacts => ({
  filmSeconds: 600,
  segments: 8,
  filmed: 0,
  findings: 0,
  proposedDrops: 0,
  rendered: false,
  sent: false,
  replies: 0,
  looked: 0,
  ...over,
})
const filmed = { filmed: 8 }

describe('the one next act', () => {
  test.each<[string, Partial<LessonFacts>, string, string, number]>([
    ['nothing written', { segments: 0 }, 'plan', 'Choose examples', 8],
    ['a finding', { findings: 1 }, 'script', 'Mend 1 finding', 2],
    ['nothing filmed', {}, 'film', 'Film 8 segments', 30],
    ['one segment left', { filmed: 7 }, 'film', 'Film 1 segment', 4],
    ['findings once filming began', { findings: 3, filmed: 4 }, 'film', 'Film 4 segments', 15],
    ['drops proposed', { ...filmed, proposedDrops: 1 }, 'cut', 'Accept 1 drop', 40],
    ['no drops', filmed, 'cut', 'Cut and render', 40],
    ['rendered', { ...filmed, rendered: true }, 'send', 'Send', 2],
    ['sent, nobody answered', { ...filmed, rendered: true, sent: true }, 'send', 'Wait for replies', 1],
    [
      'replies wait',
      { ...filmed, rendered: true, sent: true, replies: 5, looked: 1 },
      'look',
      'Look at 4 replies',
      6,
    ],
    [
      'all looked at',
      { ...filmed, rendered: true, sent: true, replies: 5, looked: 5 },
      'next',
      'See who needs what',
      5,
    ],
  ])('with %s', (_, over, station, label, minutes) =>
    expect(nextAct(facts(over))).toEqual({ station, label, minutes }),
  )
  test('takes a minute at least, whatever the lesson', () => {
    const some = fc.integer({ min: 0, max: 40 })
    fc.assert(
      fc.property(
        fc.record({
          filmSeconds: fc.integer({ min: 0, max: 2000 }),
          segments: some,
          filmed: some,
          findings: some,
          proposedDrops: some,
          rendered: fc.boolean(),
          sent: fc.boolean(),
          replies: some,
          looked: some,
        }),
        (f) => {
          const act = nextAct({
            ...f,
            filmed: Math.min(f.filmed, f.segments),
            looked: Math.min(f.looked, f.replies),
          })
          expect(act.minutes).toBeGreaterThanOrEqual(1)
          expect(stations).toContain(act.station)
        },
      ),
    )
  })
})

describe('the thread', () => {
  test('is bare for a lesson nothing was done for', () =>
    expect(Object.values(sewn(facts({ segments: 0 })))).toEqual([0, 0, 0, 0, 0, 0, 0]))
  test('is sewn to its end once every reply was looked at', () =>
    expect(
      Object.values(sewn(facts({ ...filmed, rendered: true, sent: true, replies: 3, looked: 3 }))),
    ).toEqual([1, 1, 1, 1, 1, 1, 1]))
  test.each<[string, Partial<LessonFacts>, Partial<ReturnType<typeof sewn>>]>([
    ['findings leave the script half sewn', { findings: 2 }, { script: 0.5, film: 0 }],
    ['some takes half the film', { filmed: 3 }, { script: 1, film: 0.5, cut: 0 }],
    ['all takes leave the cut to do', filmed, { film: 1, cut: 0.5 }],
    [
      'replies waiting',
      { ...filmed, rendered: true, sent: true, replies: 3, looked: 1 },
      { look: 0.5, next: 0 },
    ],
  ])('%s', (_, over, is) => expect(sewn(facts(over))).toMatchObject(is))
})

describe('why tonight', () => {
  test.each([
    ['look' as const, 2, 3, 'The oldest has waited 3 days'],
    ['look' as const, 2, 1, 'The oldest has waited 1 day'],
    ['look' as const, 2, 0, 'Sent today'],
    ['send' as const, 0, null, 'It goes out today'],
    ['script' as const, 1, null, 'It goes out tomorrow'],
    ['script' as const, 6, null, 'It goes out in 6 days'],
    ['cut' as const, -1, null, 'It was for 1 day ago'],
    ['cut' as const, -4, 2, 'It was for 4 days ago'],
  ])('%s, %d days to go, oldest reply %s: %s', (station, days, waited, words) =>
    expect(reasonFor(station, days, waited, 600)).toBe(words),
  )
  test('filming says what comes after it, by the usual rate of cutting', () =>
    expect(reasonFor('film', 2, null, 630)).toBe('It goes out in 2 days; cutting takes about 42 min after'))
})
