import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { crossesTen, tagsOf, ways } from './facts.ts'
import { numberName, numbersIn, parseNumber, run, tokens } from './names.ts'

const add = (a: number, b: number) => ({ a, b, total: a + b, op: '+' as const })

describe('number names', () => {
  test('every name from 0 to 1000 reads back as its number', () => {
    for (let n = 0; n <= 1000; n++) expect(parseNumber(numberName(n))).toBe(n)
  })
  test.each([
    ['nought', 0],
    ['none', 0],
    ['twenty one', 21],
    ['twenty-one', 21],
    ['a hundred and five', 105],
    ['double four', 8],
    ['17', 17],
    ['one hundred', 100],
  ])('%s is %i', (text, n) => expect(parseNumber(text)).toBe(n))
  test.each(['-3', '1e9', 'seven eight', 'parcels', '', '🙂'])('%s is no counting number', (text) =>
    expect(parseNumber(text)).toBeNull(),
  )
  test('outside 0 to 1000 there is no name', () => {
    expect(() => numberName(1001)).toThrow(RangeError)
    expect(() => numberName(2.5)).toThrow(RangeError)
  })
  test('finds each number in a sentence once', () => {
    expect(numbersIn(tokens('Put twenty-one on, then 3 more')).map((n) => n.value)).toEqual([21, 3])
  })
  test('runs end on their end when the step meets it', () => {
    expect(run(1, 5)).toEqual([1, 2, 3, 4, 5])
    expect(run(10, 0, 5)).toEqual([10, 5, 0])
    expect(run(2, 9, 2)).toEqual([2, 4, 6, 8])
    expect(() => run(1, 3, 0)).toThrow(RangeError)
  })
})

describe('ways to split ten', () => {
  test.each([
    [2, { ordered: true, zero: true }, 11],
    [3, { ordered: true, zero: true }, 66],
    [3, { ordered: true, zero: false }, 36],
    [3, { ordered: false, zero: true }, 14],
    [3, { ordered: false, zero: false }, 8],
  ])('%i parts, %o: %i ways', (k, rule, n) => expect(ways(10, k, rule)).toHaveLength(n))
  test('every way keeps the total, and none stands twice', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 14 }),
        fc.integer({ min: 1, max: 4 }),
        fc.boolean(),
        fc.boolean(),
        (n, k, ordered, zero) => {
          const all = ways(n, k, { ordered, zero })
          for (const w of all) expect(w.reduce((a, b) => a + b, 0)).toBe(n)
          const keys = all.map((w) => (ordered ? w : [...w].sort((a, b) => b - a)).join())
          expect(new Set(keys).size).toBe(all.length)
        },
      ),
    )
  })
})

describe('tags', () => {
  test('a turn-round names the fact it turns', () =>
    expect(tagsOf(add(3, 4), [add(1, 6), add(4, 3)])).toContain('turn-round of 2'))
  test('a double is no turn-round of itself', () =>
    expect(tagsOf(add(4, 4), [add(4, 4)])).toEqual(expect.arrayContaining(['double'])))
  test('crossing ten is passing it, not touching it', () => {
    expect(crossesTen(add(8, 5))).toBe(true)
    expect(crossesTen(add(10, 3))).toBe(false)
    expect(crossesTen(add(7, 3))).toBe(false)
    expect(crossesTen({ a: 13, b: 6, total: 7, op: '-' })).toBe(true)
  })
})
