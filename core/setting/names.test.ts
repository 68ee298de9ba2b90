import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { looksFull, shownNames } from './names.ts'

const child = (id: string, given: string, home: string) => ({ id, given, home })
describe('how children of a class are shown', () => {
  test('by their given names alone, as long as nobody shares one', () =>
    expect([
      ...shownNames([child('a', 'Suri', 'Weir Lane'), child('b', 'Otis', 'Mill Bank')]).values(),
    ]).toEqual(['Suri', 'Otis']))
  test('two of one name with their homes, twins of one with a number', () =>
    expect(
      Object.fromEntries(
        shownNames([
          child('a', 'Suri', 'Weir Lane'),
          child('b', 'suri ', 'Mill Bank'),
          child('c', 'Kofi', 'Weir Lane'),
          child('d', 'Kofi', 'Weir Lane'),
        ]),
      ),
    ).toEqual({
      a: 'Suri · Weir Lane',
      b: 'suri  · Mill Bank',
      c: 'Kofi · Weir Lane',
      d: 'Kofi · Weir Lane 2',
    }))
  test('never two alike, whatever they are called', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            given: fc.constantFrom('Ana', 'ANA', 'Ana · Mill', 'Ana 2', 'Bo'),
            home: fc.constantFrom('Mill', 'Weir', 'Mill 2'),
          }),
          { maxLength: 12 },
        ),
        (list) => {
          const shown = shownNames(list.map((c, i) => ({ ...c, id: String(i) })))
          expect(shown.size).toBe(list.length)
          expect(new Set([...shown.values()].map((n) => n.toLowerCase())).size).toBe(list.length)
        },
      ),
    ))
})
test.each([
  ['Suri', false],
  ['Mary-Ann', false],
  ['Ana B', false],
  ['Ana B.', false],
  ['Suri Weir', true],
  ['Jean van Dam', true],
])('whether “%s” looks like a full name: %s', (name, full) => expect(looksFull(name)).toBe(full))
