import { expect, test } from 'vitest'
import { classLevels, type StandingRow } from './class-level.ts'

const row = (
  name: string,
  level: number,
  word: 'not seen' | 'not yet' | 'nearly' | 'secure',
  idea = 'parts-7',
): StandingRow => ({ name, ideas: { [idea]: { level, word } } })

test('only children something was seen of count in the mean, and the secure are not on the way', () => {
  const level = classLevels([
    row('Suri', 0.9, 'secure'),
    row('Pia', 0.5, 'nearly'),
    row('Joss', 0.1, 'not yet'),
    row('Ada', 0.25, 'not seen'),
  ]).get('parts-7')!
  expect(level).toMatchObject({ children: 4, seen: 3, secure: 1, onTheWay: ['Pia', 'Joss'] })
  expect(level.mean).toBeCloseTo(0.5, 9)
})
test('a class nobody was seen of has no level but its children', () =>
  expect(classLevels([row('Suri', 0.25, 'not seen')]).get('parts-7')).toEqual({
    children: 1,
    seen: 0,
    secure: 0,
    mean: 0,
    onTheWay: [],
  }))
test('ideas are kept apart, and one a child never met does not count it', () => {
  const levels = classLevels([
    row('Suri', 0.9, 'secure'),
    { name: 'Pia', ideas: { 'parts-7': undefined, 'add-10': { level: 0.4, word: 'not yet' } } },
  ])
  expect(levels.get('parts-7')!.children).toBe(1)
  expect(levels.get('add-10')).toMatchObject({ children: 1, seen: 1, onTheWay: ['Pia'] })
  expect(classLevels([]).size).toBe(0)
})
