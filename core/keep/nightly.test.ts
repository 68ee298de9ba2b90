import { describe, expect, test } from 'vitest'
import { hourIn, isDue, lateBy, type Nightly } from './nightly.ts'

const now = new Date('2026-03-10T02:30:00Z')
const ago = (hours: number): string => new Date(now.getTime() - hours * 3_600_000).toISOString()
const n = (more: Partial<Nightly> = {}): Nightly => ({
  on: true,
  since: ago(500),
  lastGood: ago(20),
  lastTried: ago(20),
  asked: false,
  ...more,
})

describe('a nightly backup', () => {
  test.each([
    ['at night, once a day', n(), 2, true],
    ['not twice in a night', n({ lastGood: ago(3), lastTried: ago(3) }), 4, false],
    ['not in the day while last night’s is there', n({ lastGood: ago(12), lastTried: ago(12) }), 14, false],
    ['in the day where the machine slept', n({ lastGood: ago(40), lastTried: ago(40) }), 14, true],
    ['at once where there never was one', n({ lastGood: null, lastTried: null }), 14, true],
    ['not again at once after one that failed', n({ lastGood: ago(60), lastTried: ago(0.5) }), 2, false],
    ['again an hour later', n({ lastGood: ago(60), lastTried: ago(1.5) }), 2, true],
    ['never while it is off', n({ on: false, lastGood: null }), 2, false],
    ['whenever somebody asks', n({ on: false, asked: true }), 14, true],
  ])('is made %s', (_, state, hour, due) => expect(isDue(state, now, hour)).toBe(due))
  test('goes by the setting’s own clock', () => {
    expect([hourIn('UTC', now), hourIn('Europe/Berlin', now), hourIn('America/New_York', now)]).toEqual([
      2, 3, 22,
    ])
  })
  test('is told of when it is older than three days, or did not come for three days', () => {
    expect(lateBy(n({ lastGood: ago(71) }), now)).toBeNull()
    expect(lateBy(n({ lastGood: ago(97) }), now)).toBe(4)
    expect(lateBy(n({ lastGood: null, since: ago(80) }), now)).toBe(3)
    expect(lateBy(n({ lastGood: null, since: ago(5) }), now)).toBeNull()
    expect(lateBy(n({ on: false, lastGood: null, since: null }), now)).toBeNull()
  })
})
