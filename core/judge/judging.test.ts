import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Level } from '../contracts/reply.ts'
import { readLine } from '../look/line.ts'
import { agreementOf, sampleOf, type Twice } from './agreement.ts'
import { fairness } from './fairness.ts'
import { enough, nextPair, scaleOf } from './pairs.ts'
import { practiceReplies } from './practice.ts'
import { propose } from './proposal.ts'

const twice = (pairs: [Level, Level, number][]): Twice[] =>
  pairs.flatMap(([first, second, n], k) =>
    Array.from({ length: n }, (_, i) => ({ id: `${k}-${i}`, first, second })),
  )

describe('two judges', () => {
  test('agreement beyond chance is what a worked table gives', () => {
    // 20 alike at each end, 5 one step apart each way: seen 0.95, by chance 0.5 (weights 1, 0.75, 0).
    const a = agreementOf(
      twice([
        ['secure', 'secure', 20],
        ['not yet', 'not yet', 20],
        ['secure', 'nearly', 5],
        ['nearly', 'secure', 5],
      ]),
    )
    const [ps, pn, py] = [0.5, 0.1, 0.4]
    const chance = ps * ps + pn * pn + py * py + 0.75 * 2 * (ps * pn + pn * py)
    expect(a.kappa).toBeCloseTo((0.8 + 0.2 * 0.75 - chance) / (1 - chance), 6)
    expect([a.agreed, a.pairs, a.differ.length]).toEqual([0.8, 50, 10])
    expect(a.low! < a.kappa! && a.kappa! < a.high!).toBe(true)
  })
  test('judging alike is 1, too few say nothing, all of one level says nothing', () => {
    expect(
      agreementOf(
        twice([
          ['secure', 'secure', 6],
          ['nearly', 'nearly', 6],
        ]),
      ).kappa,
    ).toBeCloseTo(1)
    expect(agreementOf(twice([['secure', 'secure', 3]])).kappa).toBeNull()
    expect(agreementOf(twice([['secure', 'secure', 9]])).words).toMatch(/cannot be told/)
  })
  test('“can’t tell” is no step of the scale, and differs where the other could tell', () => {
    const a = agreementOf([
      ...twice([
        ['secure', 'secure', 4],
        ['nearly', 'nearly', 4],
      ]),
      { id: 'x', first: "can't tell", second: 'secure' },
    ])
    expect([a.pairs, a.differ]).toEqual([8, ['x']])
  })
  test('a sample holds every level, nothing twice, and no order that tells', () => {
    const replies = Array.from({ length: 30 }, (_, i) => ({
      id: String(i),
      level: (['secure', 'nearly', 'not yet'] as const)[Math.min(2, Math.floor(i / 14))]!,
    }))
    const got = sampleOf(replies, 9, (n) => Math.floor(n / 2))
    expect([got.length, new Set(got).size]).toEqual([9, 9])
    expect(new Set(got.map((id) => replies[Number(id)]!.level)).size).toBe(3)
  })
})

describe('comparing pairs', () => {
  const order = ['a', 'b', 'c', 'd', 'e', 'f']
  const all = order.flatMap((x, i) => order.slice(i + 1).map((y) => ({ better: x, other: y, same: false })))
  test('the scale has the order that was found', () =>
    expect(scaleOf(order, all).map((s) => s.id)).toEqual(order))
  test('draws stand level', () => {
    const [x, y] = scaleOf(['a', 'b'], [{ better: 'a', other: 'b', same: true }])
    expect(x!.place).toBeCloseTo(y!.place)
  })
  test('more comparisons make it sharper; nobody compared is not known', () => {
    const few = scaleOf(order, all.slice(0, 5)).find((s) => s.id === 'a')!
    expect(scaleOf(order, all).find((s) => s.id === 'b')!.error).toBeLessThan(
      scaleOf(order, all.slice(0, 5)).find((s) => s.id === 'b')!.error,
    )
    expect(few.compared).toBe(5)
    expect(scaleOf(order, []).every((s) => s.error === Infinity)).toBe(true)
  })
  test('pairs come until the scale stands, never the same twice, and it finds the order', () => {
    const compared: { better: string; other: string; same: boolean }[] = []
    const seen = new Set<string>()
    for (let pair = nextPair(order, compared); pair; pair = nextPair(order, compared)) {
      const key = [...pair].sort().join()
      expect(seen.has(key)).toBe(false)
      seen.add(key)
      const [better, other] = [...pair].sort()
      compared.push({ better: better!, other: other!, same: false })
    }
    expect(compared.length).toBeLessThanOrEqual(15)
    expect(scaleOf(order, compared).every((s) => s.compared >= Math.min(enough.each, 5) - 1)).toBe(true)
    expect(scaleOf(order, compared)[0]!.id).toBe('a')
  })
  test('one reply alone has no pair', () => expect(nextPair(['a'], [])).toBeNull())
})

describe('numbers on a line', () => {
  const on = (at: (n: number) => number, numbers = [3, 12, 30, 55, 80]) =>
    readLine(
      numbers.map((number) => ({ number, at: at(number) })),
      0,
      100,
    )
  test.each<[string, (n: number) => number, string]>([
    ['where they belong', (n) => n + 2, 'good spacing'],
    ['small ones far apart', (n) => (100 * Math.log1p(n)) / Math.log(101), 'bunched at the top'],
    ['the wrong way round', (n) => 100 - n, 'out of order'],
  ])('%s', (_n, at, statement) => expect(on(at).statement).toBe(statement))
  test('even steps whatever the numbers', () =>
    expect(
      readLine(
        [2, 4, 50, 90].map((number, i) => ({ number, at: 10 + i * 25 })),
        0,
        100,
      ).statement,
    ).toBe('even steps regardless'))
  test('the mean error is a share of the scale', () => {
    expect(on((n) => n + 5).mean).toBeCloseTo(0.05)
    expect(readLine([{ number: 50, at: 75 }], 0, 100)).toMatchObject({
      mean: 0.25,
      linear: null,
      statement: 'too few to tell',
    })
    expect(() => readLine([], 5, 5)).toThrow(RangeError)
  })
  test('never out of order where the order is kept', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 3, maxLength: 8 }), (ns) => {
        expect(
          readLine(
            [...new Set(ns)].map((number) => ({ number, at: number / 2 + 20 })),
            0,
            100,
          ).orderErrors,
        ).toBe(0)
      }),
    ))
})

describe('what the checks propose', () => {
  const c = (verdict: 'right' | 'wrong' | 'look' | 'open') => ({ verdict, shown: '', why: '' })
  test('all right alone is secure, together nearly; one wrong among several is no “not yet”', () => {
    expect(propose([c('right'), c('right')], 'alone', 'things')).toMatchObject({
      level: 'secure',
      plain: true,
    })
    expect(propose([c('right')], 'together', 'things')?.level).toBe('nearly')
    expect(propose([c('right'), c('right'), c('wrong')], 'alone', 'things')).toMatchObject({
      level: 'nearly',
      plain: false,
    })
    expect(propose([c('wrong')], 'alone', 'things')?.level).toBe('nearly')
    expect(propose([c('wrong'), c('wrong')], 'alone', 'things')?.level).toBe('not yet')
  })
  test('what a person must see is never plain, and nothing checked is nothing proposed', () => {
    expect(propose([c('right'), c('look')], 'alone', 'things')?.plain).toBe(false)
    expect(propose([c('right')], null, 'things')?.plain).toBe(false)
    expect(propose([c('open'), c('look')], 'alone', 'things')).toBeNull()
  })
})

test('fairness counts, and speaks up only where chance would seldom do it', () => {
  const many = (n: number, help: 'alone' | 'together', printer: boolean) =>
    Array.from({ length: n }, () => ({ help, printer, late: false, otherLanguage: false }))
  const uneven = fairness([
    ...many(18, 'alone', true),
    ...many(2, 'together', true),
    ...many(4, 'alone', false),
    ...many(16, 'together', false),
  ])
  expect(uneven[0]).toMatchObject({
    what: 'Printer',
    one: { replies: 20, alone: 18 },
    other: { replies: 20, alone: 4 },
    differs: true,
  })
  expect(fairness([...many(3, 'alone', true), ...many(3, 'together', false)])[0]!.differs).toBe(false)
})

test('practice replies are the same for their seed, of every level, and their marks true', () => {
  expect(practiceReplies(4, 24)).toEqual(practiceReplies(4, 24))
  const all = practiceReplies(4, 60)
  expect(new Set(all.map((r) => r.truth)).size).toBe(3)
  const share = (t: string) => {
    const a = all.filter((r) => r.truth === t).flatMap((r) => r.answers)
    return a.filter((x) => x.right).length / a.length
  }
  expect(share('secure')).toBeGreaterThan(share('nearly'))
  expect(share('nearly')).toBeGreaterThan(share('not yet'))
})
