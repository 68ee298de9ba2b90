import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Device } from '../contracts/chance.ts'
import { Aim, type Example, structures, wishes } from '../contracts/lesson.ts'
import { aimOf } from './aim.ts'
import { anotherLike, findExamples, varietyWords } from './examples.ts'
import { crossesTen, factKey, largestIn } from './numbers/facts.ts'

const aim = (over: Partial<Aim>): Aim => aimOf({ structure: 'add', upTo: 10, ...over })

describe('example sets', () => {
  test('every set found keeps every constraint, for any aim that has one', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...structures),
        fc.integer({ min: 3, max: 40 }),
        fc.integer({ min: 1, max: 6 }),
        fc.subarray([...wishes]),
        fc.boolean(),
        fc.integer({ min: 1, max: 50 }),
        (structure, upTo, count, mustHave, noRepeatedTotal, seed) => {
          const wanted = aim({ structure, upTo, count, mustHave: [...mustHave], noRepeatedTotal })
          const found = findExamples(wanted, { zero: true, seed })
          if (!found.ok) {
            expect(found.conflict.length).toBeGreaterThan(15)
            return
          }
          for (const { examples } of found.sets) {
            expect(examples).toHaveLength(count)
            expect(new Set(examples.map((e) => `${e.a}${e.op}${e.b}`)).size).toBe(count)
            for (const e of examples) {
              expect(
                {
                  '+': e.a + e.b,
                  '-': e.a - e.b,
                  '÷': Math.floor(e.a / e.b),
                  '~': Math.abs(e.a - e.b),
                  '@': e.a,
                  '#': e.a,
                }[e.op],
              ).toBe(e.total)
              expect(largestIn(e)).toBeLessThanOrEqual(upTo)
              expect(e.total).toBeGreaterThanOrEqual(0)
            }
            if (mustHave.includes('zero')) expect(examples.some((e) => !e.a || !e.b || !e.total)).toBe(true)
            if (mustHave.includes('crosses ten')) expect(examples.some(crossesTen)).toBe(true)
            if (noRepeatedTotal) expect(new Set(examples.map((e) => e.total)).size).toBe(count)
          }
        },
      ),
      { numRuns: 60 },
    )
  })
  test('the same seed finds the same sets', () =>
    expect(findExamples(aim({}), { zero: true, seed: 4 })).toEqual(
      findExamples(aim({}), { zero: true, seed: 4 }),
    ))
  test.each([
    [aim({ structure: 'parts', upTo: 7, mustHave: ['double'] }), true, /odd/],
    [aim({ mustHave: ['crosses ten'] }), true, /crosses ten/],
    [aim({ mustHave: ['zero'] }), false, /zero/i],
    [aim({ structure: 'take-away', mustHave: ['turn-round'] }), true, /turn-rounds/],
    [aim({ mustHave: ['turn-round'], noRepeatedTotal: true }), true, /same total/],
    [aim({ structure: 'parts', upTo: 3, count: 6 }), true, /Only 4/],
  ])('a conflict is said in words %#', (a, zero, words) => {
    const found = findExamples(a, { zero, seed: 1 })
    expect(found.ok).toBe(false)
    expect(found.ok ? '' : found.conflict).toMatch(words)
  })
  test('zero stays out unless it is asked for', () => {
    const found = findExamples(aim({ structure: 'parts', upTo: 7, mustHave: ['turn-round'] }), {
      zero: true,
      seed: 1,
    })
    expect(found.ok && found.sets[0]!.examples.every((e) => e.a && e.b)).toBe(true)
  })
})

describe('three sets of one idea', () => {
  const facts = (structure: Parameters<typeof aimOf>[0]['structure'], upTo: number, count: number) =>
    findExamples(aimOf({ structure, upTo, count }), { zero: true, seed: 5 })
  const keys = (set: { examples: readonly Example[] }): string[] => set.examples.map(factKey)
  test.each([
    ['parts', 12, 3],
    ['add', 10, 5],
    ['take-away', 10, 5],
    ['teens', 20, 3],
    ['compare', 10, 5],
  ] as const)('of %s up to %i share no fact where there are enough', (structure, upTo, count) => {
    const r = facts(structure, upTo, count)
    if (!r.ok) throw new Error(r.conflict)
    const all = r.sets.flatMap(keys)
    expect(new Set(all).size).toBe(all.length)
    expect(r.shared).toBe(0)
  })
  test('of an idea with few facts share as few as can be, and say so', () => {
    const r = facts('parts', 5, 4)
    if (!r.ok) throw new Error(r.conflict)
    const all = r.sets.flatMap(keys)
    expect(r.shared).toBeGreaterThan(0)
    expect(r.shared).toBe(new Set(all.filter((k, i) => all.indexOf(k) !== i)).size)
    expect(r.facts).toBeLessThan(all.length)
  })
  test('variety is told in words that can be counted', () => {
    const r = facts('add', 10, 4)
    if (!r.ok) throw new Error(r.conflict)
    for (const s of r.sets)
      expect(varietyWords(s.examples)).toContain(`${new Set(s.examples.map((e) => e.a)).size} first number`)
  })
})

describe('a device limits what is offered', () => {
  const dice: Device = { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 2 }
  const made = (over: Partial<Aim>) => findExamples(aim({ count: 4, ...over }), { zero: true, seed: 2 })
  test('two dice give no first or second part above six', () => {
    for (const upTo of [8, 10, 12]) {
      const r = made({ upTo, device: dice })
      if (!r.ok) throw new Error(r.conflict)
      for (const e of r.sets.flatMap((s) => s.examples)) {
        expect(Math.max(e.a, e.b)).toBeLessThanOrEqual(6)
        expect(Math.min(e.a, e.b)).toBeGreaterThan(0)
      }
    }
  })
  test('another fact is one that can come too', () => {
    const wanted = aim({ device: dice })
    const e: Example = { a: 5, b: 3, total: 8, op: '+' }
    const next = anotherLike(e, [e], wanted, { zero: true, seed: 1 })
    expect(Math.max(next!.a, next!.b)).toBeLessThanOrEqual(6)
  })
  test.each<[Partial<Aim>, RegExp]>([
    [{ structure: 'teens', upTo: 19, device: dice }, /none of the facts/],
    [{ structure: 'parts', upTo: 10, device: dice }, /Only 3 of the 11 facts/],
    [{ mustHave: ['zero'], device: dice }, /zero/],
  ])('where it gives too little, that is said: %o', (over, says) => {
    const r = made(over)
    expect(r.ok ? '' : r.conflict).toMatch(says)
  })
})
