import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { postRulesOf } from '../contracts/post.ts'
import { isQuiet, mayGoAt, waitForTry, wallClock } from './post.ts'

const rules = postRulesOf({})
const london = 'Europe/London'
const none: ReadonlySet<string> = new Set()

describe('when a home is written to', () => {
  test('in the evening it waits until the morning', () => {
    expect(mayGoAt(new Date('2026-11-28T21:30:00Z'), rules, london, none).toISOString()).toBe(
      '2026-11-29T07:00:00.000Z',
    )
  })
  test('by day it goes at once', () => {
    const now = new Date('2026-11-28T10:03:00Z')
    expect(mayGoAt(now, rules, london, none)).toEqual(now)
  })
  test('once a day: what comes second waits for the next', () => {
    const at = mayGoAt(new Date('2026-11-28T10:03:00Z'), rules, london, new Set(['2026-11-28']))
    expect(at.toISOString()).toBe('2026-11-29T07:00:00.000Z')
  })
  test('the setting’s clock counts, also on the day it is put back', () => {
    // 25 October 2026: two o'clock comes twice.
    const at = mayGoAt(new Date('2026-10-24T20:00:00Z'), rules, london, none)
    expect(wallClock(at, london)).toEqual({ hour: 7, minute: 0, day: '2026-10-25' })
  })
  test('never in quiet hours and never twice on a day, whatever hours, zone and moment', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 23 }),
        fc.integer({ min: 0, max: 23 }),
        fc.date({ min: new Date('2026-01-01'), max: new Date('2027-12-31'), noInvalidDate: true }),
        fc.constantFrom(london, 'Asia/Kathmandu', 'America/St_Johns', 'Pacific/Auckland'),
        (quietFrom, quietTo, from, zone) => {
          const mine = postRulesOf({ quietFrom, quietTo })
          const first = mayGoAt(from, mine, zone, none)
          const day = wallClock(first, zone).day
          const second = mayGoAt(first, mine, zone, new Set([day]))
          expect(first.getTime()).toBeGreaterThanOrEqual(from.getTime())
          expect(isQuiet(wallClock(first, zone).hour, mine)).toBe(false)
          expect(isQuiet(wallClock(second, zone).hour, mine)).toBe(false)
          expect(wallClock(second, zone).day > day).toBe(true)
        },
      ),
      { numRuns: 60 },
    )
  })
  test('tries get rarer and end', () => {
    const waits = [1, 2, 3, 4].map((n) => waitForTry(n)!)
    expect([...waits].sort((a, b) => a - b)).toEqual(waits)
    expect(waitForTry(5)).toBeNull()
  })
})
