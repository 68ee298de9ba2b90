import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { groupsFor } from '../next/groups.ts'
import { type LessonFacts, nextAct, sewn } from '../next/minutes.ts'
import { type Evidence, type Judged, maySecure, standing, startFrom, tracing, update } from './standing.ts'

const day = 86_400_000
const now = 100 * day
const e = (over: Partial<Evidence> = {}): Evidence => ({
  id: Math.random().toString(36),
  at: now - day,
  kind: 'number',
  right: true,
  help: 'alone',
  rung: 'things',
  ...over,
})
const j = (over: Partial<Judged> = {}): Judged => ({
  id: 'j',
  at: now - day,
  level: 'secure',
  help: 'alone',
  rung: 'head',
  by: 'Marnie',
  ...over,
})

describe('standing', () => {
  test('right answers raise it, wrong ones lower it, help softens both', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        fc.constantFrom('number' as const, 'photo' as const),
        (p, kind) => {
          expect(update(p, e({ kind }))).toBeGreaterThan(p)
          expect(update(p, e({ kind, right: false }))).toBeLessThan(p + tracing.learn)
          expect(update(p, e({ kind }))).toBeGreaterThan(update(p, e({ kind, help: 'together' })))
        },
      ),
    )
  })
  test('a lucky choice counts less than a typed number', () =>
    expect(update(0.3, e({ kind: 'choice', choices: 2 }))).toBeLessThan(update(0.3, e({ kind: 'number' }))))
  test('never secure on fewer than three answers alone, on two days, in two ways', () => {
    const good = [e({ at: now - 3 * day }), e({ at: now - 2 * day, rung: 'head' }), e({ at: now - day })]
    expect(maySecure(good)).toBe(true)
    expect(standing(good, [], now).word).toBe('secure')
    expect(standing(good.slice(0, 2), [], now).word).not.toBe('secure')
    expect(
      standing(
        good.map((x) => ({ ...x, at: now - day })),
        [],
        now,
      ).word,
    ).not.toBe('secure')
    expect(
      standing(
        good.map((x) => ({ ...x, rung: 'things' as const })),
        [],
        now,
      ).word,
    ).not.toBe('secure')
    expect(
      standing(
        good.map((x) => ({ ...x, help: 'nudged' as const })),
        [],
        now,
      ).word,
    ).not.toBe('secure')
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), (n) => {
        expect(
          standing(
            Array.from({ length: n }, () => e({ at: now - day })),
            [],
            now,
          ).word,
        ).not.toBe('secure')
      }),
    )
  })
  test('a teacher’s judgement outranks every answer; the newest holds; can’t tell says nothing', () => {
    const wrong = Array.from({ length: 5 }, () => e({ right: false, at: now - 5 * day }))
    expect(standing(wrong, [j()], now)).toMatchObject({ word: 'secure', judged: true })
    expect(standing(wrong, [j({ at: now - 4 * day }), j({ id: 'k', level: 'not yet' })], now).word).toBe(
      'not yet',
    )
    expect(standing([], [j({ level: "can't tell" })], now).word).toBe('not seen')
  })
  test('is forgotten by half of its gain in sixty days', () => {
    const fresh = standing([], [j({ at: now })], now).level
    const later = standing([], [j({ at: now - 60 * day })], now).level
    expect(later - tracing.start).toBeCloseTo((fresh - tracing.start) / 2, 5)
  })
  test('more evidence narrows the interval', () => {
    const few = standing([e({ id: 'a', at: now - 9 * day })], [], now)
    const many = standing(
      [
        e({ id: 'a', at: now - 9 * day }),
        ...Array.from({ length: 8 }, (_, i) => e({ id: `b${i}`, at: now - (8 - i) * day })),
      ],
      [],
      now,
    )
    expect(many.high - many.low).toBeLessThan(few.high - few.low)
    expect(standing([], [], now)).toMatchObject({ word: 'not seen', occasions: 0 })
  })
})

test('groups hold at most six, miss nobody, and silence is not weakness', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          word: fc.constantFrom(
            'not seen' as const,
            'not yet' as const,
            'nearly' as const,
            'secure' as const,
          ),
          quiet: fc.option(fc.integer({ min: 0, max: 30 })),
        }),
        { maxLength: 30 },
      ),
      (kids) => {
        const groups = groupsFor(
          kids.map((k, i) => ({
            childId: String(i),
            name: `c${i}`,
            quietDays: k.quiet,
            standing: { ...standing([], [], now), word: k.word },
          })),
        )
        expect(groups.flatMap((g) => g.children)).toHaveLength(kids.length)
        for (const g of groups) {
          expect(g.children.length).toBeLessThanOrEqual(6)
          expect(g.reason.length).toBeGreaterThan(10)
        }
        kids.forEach((k, i) => {
          if (k.word === 'not seen' || (k.quiet ?? 99) > 7)
            expect(groups.find((g) => g.children.some((c) => c.childId === String(i)))!.title).toMatch(
              /Not enough seen/,
            )
        })
      },
    ),
  )
})

describe('the next act of a lesson', () => {
  const facts: LessonFacts = {
    filmSeconds: 300,
    segments: 4,
    filmed: 0,
    findings: 0,
    proposedDrops: 0,
    rendered: false,
    sent: false,
    replies: 0,
    looked: 0,
  }
  test.each<[Partial<LessonFacts>, string, string]>([
    [{ segments: 0 }, 'plan', 'Choose examples'],
    [{ findings: 1 }, 'script', 'Mend 1 finding'],
    [{}, 'film', 'Film 4 segments'],
    [{ filmed: 3 }, 'film', 'Film 1 segment'],
    [{ filmed: 4, proposedDrops: 2 }, 'cut', 'Accept 2 drops'],
    [{ filmed: 4, rendered: true }, 'send', 'Send'],
    [{ filmed: 4, rendered: true, sent: true, replies: 3, looked: 1 }, 'look', 'Look at 2 replies'],
  ])('%o: %s', (over, station, label) =>
    expect(nextAct({ ...facts, ...over })).toMatchObject({ station, label }),
  )
  test('every act takes at least a minute', () =>
    expect(nextAct({ ...facts, filmSeconds: 1 }).minutes).toBeGreaterThanOrEqual(1))
  test('holes are sewn by what is done', () =>
    expect(sewn({ ...facts, filmed: 2, findings: 1 })).toMatchObject({
      plan: 1,
      script: 0.5,
      film: 0.5,
      cut: 0,
      next: 0,
    }))
})

test('one reply judged secure a day later is one day: not ready for what comes after; three signs on two days are', () => {
  const came = now - 3 * day
  const reply = [e({ id: 'a', at: came }), e({ id: 'b', at: came })]
  const judged = {
    id: 'j',
    at: came + day,
    cameAt: came,
    level: 'secure' as const,
    help: 'alone' as const,
    rung: 'things' as const,
    by: 'Marnie',
  }
  expect(standing(reply, [judged], now)).toMatchObject({ word: 'secure', ready: false })
  expect(standing([...reply, e({ id: 'c', at: now - 1 })], [judged], now).ready).toBe(true)
  expect(standing(reply, [{ ...judged, override: true }], now).ready).toBe(true)
})
test('what is seen live weighs half, and what comes before tells where a child starts', () => {
  const home = standing([e({ id: 'a', at: now })], [], now).level
  expect(standing([e({ id: 'a', at: now, live: true })], [], now).level).toBeLessThan(home)
  const at = (level: number) => ({ level, word: 'nearly' as const })
  expect(startFrom([at(0.9), at(0.8)])).toBeGreaterThan(startFrom([at(0.2)]))
  expect(startFrom([])).toBe(tracing.start)
})
