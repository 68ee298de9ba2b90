import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Device } from '../../contracts/chance.ts'
import {
  cannotCome,
  chanceAbove,
  distribution,
  gameSeconds,
  luckySeed,
  outcomes,
  read,
  rollsFor,
  rollsFrom,
  roundsToMeetAll,
  unreachable,
  usualReading,
} from './plan.ts'
import { addPlayed, playGames } from './simulate.ts'

const die: Device = { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 1 }
const twoDice: Device = { ...die, dice: 2 }
const digits = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9]
const bowl = (back: boolean): Device => ({ kind: 'bowl', digits, draws: 2, back })
const anyDevice: fc.Arbitrary<Device> = fc.oneof(
  fc.record({
    kind: fc.constant('dice' as const),
    faces: fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 2, maxLength: 8 }),
    dice: fc.integer({ min: 1, max: 3 }),
  }),
  fc.record({
    kind: fc.constant('cards' as const),
    numbers: fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 3, maxLength: 10 }),
    draws: fc.integer({ min: 1, max: 3 }),
    back: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('spinner' as const),
    parts: fc.array(
      fc.record({ number: fc.integer({ min: 0, max: 9 }), share: fc.integer({ min: 1, max: 6 }) }),
      { minLength: 2, maxLength: 6 },
    ),
    spins: fc.integer({ min: 1, max: 2 }),
  }),
)

describe('exact chances', () => {
  test('of any device sum to one', () =>
    fc.assert(
      fc.property(anyDevice, (d) => {
        expect(outcomes(d).reduce((s, o) => s + o.chance, 0)).toBeCloseTo(1, 9)
        for (const rule of ['total', 'difference', 'first'] as const)
          expect(distribution(d, rule).reduce((s, b) => s + b.chance, 0)).toBeCloseTo(1, 9)
      }),
    ))
  test('of two dice: seven six times in thirty-six', () => {
    const bars = distribution(twoDice, 'total')
    expect(bars.map((b) => Math.round(b.chance * 36))).toEqual([1, 2, 3, 4, 5, 6, 5, 4, 3, 2, 1])
  })
  test('of unequal parts follow their shares', () =>
    expect(
      distribution(
        {
          kind: 'spinner',
          parts: [
            { number: 1, share: 3 },
            { number: 2, share: 1 },
          ],
          spins: 1,
        },
        'total',
      ).map((b) => b.chance),
    ).toEqual([0.75, 0.25]))
})

describe('what can never come', () => {
  test('two digits from one bowl give no 44, and with putting back they do', () => {
    expect(cannotCome(bowl(false)).numbers).toContain(44)
    expect(cannotCome(bowl(false)).doubles).toBe(true)
    expect(cannotCome(bowl(false)).why.join(' ')).toMatch(/no digit comes twice/)
    expect(cannotCome(bowl(true)).numbers).toEqual([])
  })
  test('one die never gives nought, nor seven to ten as the first part of ten', () => {
    const facts = Array.from({ length: 11 }, (_, a) => ({ a, b: 10 - a, total: 10, op: '+' as const }))
    expect(unreachable(die, facts, 'parts').map((e) => e.a)).toEqual([0, 7, 8, 9, 10])
    expect(cannotCome(die).why.join()).toMatch(/Zero never comes/)
  })
  test('0 and 7 is 7', () => expect(read([0, 7], usualReading(bowl(false)))).toBe(7))
})

describe('how long a game takes', () => {
  test('a fair die shows every face after 14.7 rolls on average', () =>
    expect(roundsToMeetAll(distribution(die, 'total'))).toBeCloseTo(14.7, 2))
  test('and so it is for a hundred numbers of equal chance, and for unequal ones by inclusion and exclusion', () => {
    const equal = Array.from({ length: 90 }, (_, number) => ({ number, chance: 1 / 90 }))
    expect(roundsToMeetAll(equal) / (90 * equal.reduce((s, _, i) => s + 1 / (i + 1), 0))).toBeCloseTo(1, 3)
    const p = [0.5, 0.3, 0.2]
    const exact = p.reduce((s, x) => s + 1 / x, 0) - (1 / 0.8 + 1 / 0.7 + 1 / 0.5) + 1
    expect(roundsToMeetAll(p.map((chance, number) => ({ number, chance })))).toBeCloseTo(exact, 3)
  })
  test('chance of asking for more things than there are', () =>
    expect(chanceAbove(distribution(twoDice, 'total'), 10)).toBeCloseTo(3 / 36, 9))
  test('seconds grow with rounds and with things put out', () => {
    const bars = distribution(die, 'total')
    expect(gameSeconds(bars, 1, 10, true)).toBeCloseTo(2 * gameSeconds(bars, 1, 5, true), 6)
    expect(gameSeconds(bars, 1, 5, true)).toBeGreaterThan(gameSeconds(bars, 1, 5, false))
  })
})

describe('games played', () => {
  test('come near the exact chances, whatever the device', () =>
    fc.assert(
      fc.property(anyDevice, fc.integer({ min: 1, max: 1e6 }), (device, seed) => {
        const rule = usualReading(device)
        const played = playGames({ device, rule, rounds: 1, longest: 1 }, 40_000, seed)
        for (const bar of distribution(device, rule))
          expect(Math.abs((played.tally.get(bar.number) ?? 0) / 40_000 - bar.chance)).toBeLessThan(0.015)
      }),
      { numRuns: 25 },
    ))
  test('until every face has come take 14.7 rolls on average', () => {
    const { rounds, games } = playGames({ device: die, rule: 'total', rounds: 0, longest: 400 }, 50_000, 7)
    expect([...rounds].reduce((s, [n, k]) => s + n * k, 0) / games).toBeCloseTo(14.7, 0)
  })
  test('add up over batches, and one seed plays one way', () => {
    const game = { device: die, rule: 'total' as const, rounds: 3, longest: 3 }
    expect(playGames(game, 100, 5)).toEqual(playGames(game, 100, 5))
    expect(
      [...addPlayed(playGames(game, 100, 5), playGames(game, 50, 6)).tally.values()].reduce((a, b) => a + b),
    ).toBe(450)
  })
})

describe('a lucky run', () => {
  test('gives the wanted rolls in order', () => {
    const wanted = [
      [3, 2],
      [4, 4],
      [2, 5],
    ]
    const seed = luckySeed(twoDice, wanted)!
    const roll = rollsFrom(twoDice, seed)
    expect(wanted.map(() => roll())).toEqual(wanted)
  })
  test('of four pairs is found too, though only one seed in a million and more gives it', () => {
    const wanted = [
      [6, 6],
      [1, 1],
      [5, 6],
      [2, 6],
    ]
    const roll = rollsFrom(twoDice, luckySeed(twoDice, wanted)!)
    expect(wanted.map(() => roll())).toEqual(wanted)
  })
  test('whatever the device, is what a game with that seed gives', () =>
    fc.assert(
      fc.property(anyDevice, fc.integer({ min: 1, max: 2000 }), (device, seed) => {
        const roll = rollsFrom(device, seed)
        const wanted = [roll(), roll()]
        const found = luckySeed(device, wanted, 2000)!
        expect(found).toBeLessThanOrEqual(seed)
        const again = rollsFrom(device, found)
        expect([again(), again()]).toEqual(wanted)
      }),
      { numRuns: 60 },
    ))
  test('does not exist for what can never come', () =>
    expect(luckySeed(bowl(false), [[4, 4]], 10)).toBeNull())
  test('an example the device cannot show has no roll', () =>
    expect(
      rollsFor(
        die,
        [
          { a: 7, b: 3, total: 10, op: '+' },
          { a: 6, b: 4, total: 10, op: '+' },
        ],
        'parts',
      ),
    ).toEqual([null, [6]]))
  test.each([
    // Counting on, the die says how far; of a teen its ones; in tens how many of them.
    ['count-on', { a: 14, b: 3, total: 17, op: '+' }, [3]],
    ['teens', { a: 10, b: 5, total: 15, op: '+' }, [5]],
    ['tens', { a: 34, b: 20, total: 54, op: '+' }, [2]],
    ['tens', { a: 20, b: 70, total: 90, op: '+' }, null],
    ['take-away', { a: 9, b: 8, total: 1, op: '-' }, null],
  ] as const)('%s: %o of one die is %o', (structure, fact, roll) =>
    expect(rollsFor(die, [fact], structure)).toEqual([roll]),
  )
  test('two digits from a bowl are the number a fact begins with', () =>
    expect(
      rollsFor(
        bowl(false),
        [
          { a: 35, b: 20, total: 55, op: '+' },
          { a: 44, b: 10, total: 54, op: '+' },
        ],
        'tens',
      ),
    ).toEqual([[3, 5], null]))
})
