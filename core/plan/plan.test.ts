import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Ladder } from '../contracts/idea.ts'
import { structures } from '../contracts/lesson.ts'
import { aimOf } from './aim.ts'
import { coverage } from './coverage.ts'
import { anotherLike, findExamples } from './examples.ts'
import { exampleLines, exampleTable } from './example-table.ts'
import { canDo, summarise } from './kit.ts'
import { ladderHeader, ladderRows, readLadder } from './ladder/csv.ts'
import { ladder } from './ladder/ladder.ts'
import { allBefore, placeLadder, rungs } from './ladder/order.ts'
import { countWays, factKey, familyOf, tagsOf, ways } from './numbers/facts.ts'
import { numbersIn, parseNumber, tokens, variants } from './numbers/names.ts'
import { spokenRun } from './numbers/runs.ts'

describe('numbers', () => {
  test.each([1, 2, 5, 10, 100])('counted in steps of %i, numbers to 1000 stay apart, up and down', (step) => {
    const way = (n: number): number => variants(n).length
    for (let n = 0; n + step <= 1000; n += step)
      for (let v = 0; v < Math.max(way(n), way(n + step)); v++) {
        const spoken = (m: number): string => {
          const all = variants(m).filter((x) => !/double|two \w+s$|twenties|none|nothing/.test(x))
          return all[v % all.length]!
        }
        for (const two of [
          [n, n + step],
          [n + step, n],
        ]) {
          // "One hundred ninety" may be 190: what comes after it tells (see the hearing of counts).
          if (two[0] === 100 && n < 100) continue
          expect(
            numbersIn(tokens(two.map(spoken).join(' '))).map((x) => x.value),
            two.map(spoken).join(' | '),
          ).toEqual(two)
        }
      }
  })
  test('every way of saying a number from 0 to 1000 reads back', () => {
    for (let n = 0; n <= 1000; n++) for (const v of variants(n)) expect([v, parseNumber(v)]).toEqual([v, n])
  })
  test('ten in parts, by all four conventions', () => {
    expect(countWays(10, 2, { ordered: true, zero: true })).toBe(11)
    expect(
      [
        [true, true],
        [true, false],
        [false, true],
        [false, false],
      ].map(([ordered, zero]) => countWays(10, 3, { ordered: ordered!, zero: zero! })),
    ).toEqual([66, 36, 14, 8])
  })
  test('a family has four sentences, a double two', () => {
    expect(familyOf({ a: 4, b: 3, total: 7, op: '+' })).toEqual([
      '4 + 3 = 7',
      '3 + 4 = 7',
      '7 − 3 = 4',
      '7 − 4 = 3',
    ])
    expect(familyOf({ a: 8, b: 4, total: 4, op: '-' })).toEqual(['4 + 4 = 8', '8 − 4 = 4'])
    expect(familyOf({ a: 9, b: 4, total: 2, op: '÷' })).toEqual([])
  })
  test('counting ways agrees with listing them', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 18 }),
        fc.integer({ min: 1, max: 5 }),
        fc.boolean(),
        fc.boolean(),
        (n, k, ordered, zero) => {
          const list = ways(n, k, { ordered, zero })
          expect(list.length).toBe(countWays(n, k, { ordered, zero }))
          expect(new Set(list.map((w) => (ordered ? w : [...w].sort()).join())).size).toBe(list.length)
          for (const w of list) expect(w.reduce((a, b) => a + b, 0)).toBe(n)
        },
      ),
    ))
  test('runs are said by the house’s rule', () => {
    expect(spokenRun(5, 7, 1, { countingOn: 'held' }, true)).toBe('five … six, seven')
    expect(spokenRun(5, 7, 1, { countingOn: 'next' }, true)).toBe('six, seven')
    expect(spokenRun(11, 7, 1, { countingOn: 'held' }, true)).toBe('ten, nine, eight, seven')
    expect(spokenRun(10, 40, 10, { countingOn: 'held' })).toBe('ten, twenty, thirty, forty')
  })
  test('tags hold a fact against those before it', () => {
    expect(tagsOf({ a: 2, b: 5, total: 7, op: '+' }, [{ a: 5, b: 2, total: 7, op: '+' }])).toEqual([
      'turn-round of 1',
    ])
    expect(tagsOf({ a: 5, b: 3, total: 8, op: '+' }, [{ a: 5, b: 2, total: 7, op: '+' }])).toEqual([
      'same first number as 1',
    ])
    expect(tagsOf({ a: 8, b: 5, total: 13, op: '+' })).toEqual(['crosses ten', 'teen'])
    expect(tagsOf({ a: 9, b: 4, total: 2, op: '÷' })).toEqual(['left over'])
    expect(tagsOf({ a: 62, b: 19, total: 43, op: '-' })).toContain('nearly a ten')
  })
})

describe('example sets', () => {
  test('three, from gentle to stretch, of every structure', () => {
    for (const structure of structures) {
      const found = findExamples(
        aimOf({
          structure,
          upTo: structure === 'parts' ? 9 : ['tens', 'round-back', 'order'].includes(structure) ? 90 : 20,
          count: 3,
        }),
        { zero: true, seed: 1 },
      )
      if (!found.ok) throw new Error(`${structure}: ${found.conflict}`)
      expect(found.sets.length).toBeGreaterThan(1)
      expect(found.sets[0]!.level).toBe('gentle')
      expect(found.sets.at(-1)!.level).toBe('stretch')
      for (const s of found.sets)
        for (const e of s.examples) expect(() => exampleTable(e, structure)).not.toThrow()
    }
  })
  test('kept examples stay in every set', () => {
    const keep = [{ a: 6, b: 3, total: 9, op: '+' as const }]
    const found = findExamples(aimOf({ structure: 'add', upTo: 10 }), { zero: true, seed: 2, keep })
    if (!found.ok) throw new Error(found.conflict)
    for (const s of found.sets) expect(s.examples.map(factKey)).toContain('6+3')
  })
  test('another like it is near in kind and not in the set', () => {
    const aim = aimOf({ structure: 'add', upTo: 20 })
    const set = [
      { a: 8, b: 5, total: 13, op: '+' as const },
      { a: 4, b: 4, total: 8, op: '+' as const },
    ]
    const one = anotherLike(set[0]!, set, aim, { zero: true, seed: 1 })!
    expect(tagsOf(one)).toContain('crosses ten')
    expect(set.map(factKey)).not.toContain(factKey(one))
    expect(
      anotherLike(
        { a: 2, b: 0, total: 2, op: '+' },
        [
          { a: 2, b: 0, total: 2, op: '+' },
          { a: 1, b: 1, total: 2, op: '+' },
          { a: 0, b: 2, total: 2, op: '+' },
        ],
        aimOf({ structure: 'parts', upTo: 2 }),
        { zero: true, seed: 1 },
      ),
    ).toBeNull()
  })
  test('the most things a home can put out is kept', () => {
    const found = findExamples(aimOf({ structure: 'add', upTo: 20, mostThings: 8 }), { zero: true, seed: 1 })
    if (!found.ok) throw new Error(found.conflict)
    for (const s of found.sets) for (const e of s.examples) expect(e.total).toBeLessThanOrEqual(8)
  })
  test('a device that cannot give a double says so', () => {
    const found = findExamples(
      aimOf({
        structure: 'add',
        upTo: 10,
        mustHave: ['double'],
        device: { kind: 'cards', numbers: [1, 2, 3, 4], draws: 2, back: false },
      }),
      { zero: true, seed: 1 },
    )
    expect(found.ok ? '' : found.conflict).toMatch(/never gives a double/)
  })
  test('every example has a table the machine accepts', () => {
    expect(exampleLines({ a: 25, b: 18, total: 7, op: '-' }, 'take-away')).toContain('Hop back 18 from 25')
    expect(exampleTable({ a: 0, b: 0, total: 0, op: '~' }, 'compare').mats).toHaveLength(1)
  })
})

describe('coverage', () => {
  test('a fact met in the lesson counts as that, not as the week', () => {
    const e = { a: 3, b: 4, total: 7, op: '+' as const }
    const c = coverage(
      aimOf({ structure: 'parts', upTo: 7 }),
      true,
      [e],
      [e, { a: 5, b: 2, total: 7, op: '+' }],
      [{ a: 1, b: 6, total: 7, op: '+' }],
    )
    expect(c.met).toEqual({ lesson: 1, week: 1, term: 1, never: 5 })
    expect(c.cells.find((x) => factKey(x.example) === '3+4')!.times).toBe(2)
  })
})

describe('the ladder', () => {
  test('has about sixty ideas, all reachable, none before itself', () => {
    expect(ladder.length).toBeGreaterThanOrEqual(58)
    expect(Ladder.safeParse(ladder).success).toBe(true)
    expect(allBefore('take-19', ladder).has('count-3')).toBe(true)
    const depth = rungs(ladder)
    for (const i of ladder)
      for (const before of i.after) expect(depth.get(before)!).toBeLessThan(depth.get(i.id)!)
  })
  test('no two ideas stand in one place', () => {
    const { places } = placeLadder(ladder)
    expect(new Set(places.map((p) => `${p.column}/${p.row}`)).size).toBe(ladder.length)
  })
  test('reads back from the table it writes', () => {
    const read = readLadder([[...ladderHeader], ...ladderRows(ladder)])
    expect(read.ok && read.ladder).toEqual(ladder)
  })
  test.each([
    ['a header without names', [['id', 'word']], 1, /lacks/],
    [
      'an age in words',
      [[...ladderHeader], ['x', 'X', '', '0', '5', 'three', '4', '', '', '', '']],
      2,
      /whole number/,
    ],
    [
      'an unknown structure',
      [[...ladderHeader], ['x', 'X', 'sums', '0', '5', '3', '4', '', '', '', '']],
      2,
      /no structure/,
    ],
    [
      'an idea after one that is not there',
      [[...ladderHeader], ['x', 'X', '', '0', '5', '3', '4', 'y', '', '', '']],
      2,
      /not on the ladder/,
    ],
    [
      'a circle',
      [
        [...ladderHeader],
        ['x', 'X', '', '0', '5', '3', '4', 'y', '', '', ''],
        ['y', 'Y', '', '0', '5', '3', '4', 'x', '', '', ''],
      ],
      1,
      /circle/,
    ],
    [
      'the same id twice',
      [
        [...ladderHeader],
        ['x', 'X', '', '0', '5', '3', '4', '', '', '', ''],
        ['x', 'Y', '', '0', '5', '3', '4', '', '', '', ''],
      ],
      3,
      /twice/,
    ],
  ])('%s is refused with its row', (_, table, row, words) => {
    const read = readLadder(table)
    expect(read.ok).toBe(false)
    expect(read.ok ? null : read.errors[0]).toMatchObject({
      row,
      what: expect.stringMatching(words) as string,
    })
  })
})

describe('what homes have', () => {
  const kit = [
    { thing: 'two-faced counters', count: 10 },
    { thing: 'ten frame', count: 1 },
    { thing: 'jar', count: 1 },
  ]
  const home = (over: Partial<Parameters<typeof canDo>[1]>) => ({
    homeId: 'h',
    has: ['two-faced counters', 'egg box', 'ten frame', 'jar'],
    countable: 20,
    underThree: false,
    canPrint: false,
    ...over,
  })
  test.each([
    ['everything', {}, 'as written'],
    ['buttons and a pan', { has: ['buttons', 'ten frame', 'saucepan with a lid'] }, 'with a swap'],
    ['no frame at all', { has: ['two-faced counters', 'jar'] }, 'with a printed sheet'],
    ['too few small things', { countable: 6 }, 'not yet'],
    ['nothing that hides', { has: ['buttons', 'ten frame'] }, 'not yet'],
  ])('%s: %s', (_, over, able) => expect(canDo(kit, home(over)).able).toBe(able))
  test('the sentence counts them', () => {
    const s = summarise(
      kit,
      [
        home({}),
        home({}),
        home({ has: ['buttons', 'ten frame', 'jar'] }),
        home({ has: ['two-faced counters', 'jar'], underThree: true }),
      ],
      6,
    )
    expect(s.sentence).toBe(
      '2 of 4 homes can do this as written; 1 with a swap; 1 needs the printed ten frame. 2 have not said yet.',
    )
    expect(s.underThree).toBe(1)
  })
  test('nobody asked yet is said so', () =>
    expect(summarise(kit, [], 6).sentence).toMatch(/No home has said/))
})
