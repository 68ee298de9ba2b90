import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { usualYear, yearPlan } from './year.ts'

const cls = (id: string, age: number, ...children: string[]) => ({
  id,
  name: id,
  age,
  children: children.map((name) => ({ id: `${id}-${name}`, name })),
})
const school = [cls('goldcrests', 3, 'Pia', 'Idris'), cls('wagtails', 4, 'Suri'), cls('siskins', 5, 'Otis')]

describe('a new school year', () => {
  test('as usual: each class moves up an age, the oldest leave', () => {
    const plan = yearPlan(school, usualYear(school))
    expect(plan.after.map((c) => c.children.map((k) => k.name))).toEqual([[], ['Pia', 'Idris'], ['Suri']])
    expect(plan.leaving.map((k) => k.name)).toEqual(['Otis'])
    expect(plan.moves).toHaveLength(4)
  })
  test('one child stays, one leaves early, one skips', () => {
    const plan = yearPlan(
      school,
      usualYear(school),
      new Map<string, string | null>([
        ['goldcrests-Pia', 'goldcrests'],
        ['goldcrests-Idris', null],
        ['wagtails-Suri', 'goldcrests'],
      ]),
    )
    expect(plan.after.map((c) => c.children.map((k) => k.name))).toEqual([['Pia', 'Suri'], [], []])
    expect(plan.leaving.map((k) => k.name)).toEqual(['Idris', 'Otis'])
    expect(plan.moves.map((m) => m.childId)).not.toContain('goldcrests-Pia')
  })
  test('a gap in ages is stepped over; two classes of the oldest age leave both', () => {
    const odd = [cls('a', 3, 'x'), cls('b', 6, 'y'), cls('c', 6, 'z')]
    expect([...usualYear(odd)]).toEqual([
      ['a', 'b'],
      ['b', null],
      ['c', null],
    ])
  })
  test('whatever is chosen, every child is somewhere, once', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom<string | null>('goldcrests', 'wagtails', 'siskins', 'gone', null), {
          minLength: 7,
          maxLength: 7,
        }),
        (to) => {
          const goes = new Map(school.map((c, i) => [c.id, to[i]!]))
          const kids = school.flatMap((c) => c.children)
          const plan = yearPlan(school, goes, new Map(kids.slice(0, 3).map((k, i) => [k.id, to[3 + i]!])))
          const all = [...plan.after.flatMap((c) => c.children), ...plan.leaving].map((k) => k.id).sort()
          expect(all).toEqual(kids.map((k) => k.id).sort())
          for (const m of plan.moves) expect(m.to).not.toBe(m.from)
        },
      ),
    ))
})
