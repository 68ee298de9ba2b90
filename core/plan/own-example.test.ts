import { describe, expect, test } from 'vitest'
import { structures } from '../contracts/lesson.ts'
import { aimOf } from './aim.ts'
import { ownExampleHint, readOwnExample } from './own-example.ts'

describe('an example of one’s own', () => {
  test.each([
    ['add', '8 + 1', { a: 8, b: 1, total: 9, op: '+' }],
    ['add', 'eight and one', { a: 8, b: 1, total: 9, op: '+' }],
    ['add', '8+1=10', { a: 8, b: 1, total: 9, op: '+' }],
    ['take-away', 'nine take away two', { a: 9, b: 2, total: 7, op: '-' }],
    ['take-away', '9-2', { a: 9, b: 2, total: 7, op: '-' }],
    ['take-away', '9 – 2', { a: 9, b: 2, total: 7, op: '-' }],
    ['tens', '34 − 20', { a: 34, b: 20, total: 14, op: '-' }],
    ['halves', 'half of 12', { a: 12, b: 2, total: 6, op: '÷' }],
    ['halves', '12', { a: 12, b: 2, total: 6, op: '÷' }],
    ['compare', '6 and 4', { a: 6, b: 4, total: 2, op: '~' }],
    ['order', '37', { a: 37, b: 40, total: 37, op: '@' }],
    ['numbers', 'six', { a: 6, b: 0, total: 6, op: '#' }],
    ['parts', '4 + 3', { a: 4, b: 3, total: 7, op: '+' }],
  ] as const)('of %s: %s', (structure, text, example) =>
    expect(readOwnExample(text, aimOf({ structure, upTo: 7 }))).toEqual({ ok: true, example }),
  )
  test.each([
    ['add', '', /Write it like 4 \+ 3/],
    ['add', '8', /Write it like/],
    ['add', '8 + 1 + 2', /Write it like/],
    ['add', '900 + 1', /200/],
    ['take-away', '3 − 5', /More would go/],
    ['take-away', '5 + 3', /takes away/],
    ['count-on', '9 − 2', /adds/],
    ['parts', '5 + 3', /must make 7/],
    ['doubles', '5 + 4', /same number twice/],
    ['teens', '11 + 4', /ten/],
    ['numbers', '3 + 4', /One number/],
  ] as const)('no fact of %s: “%s”', (structure, text, why) => {
    const read = readOwnExample(text, aimOf({ structure, upTo: 7 }))
    expect(read.ok ? '' : read.why).toMatch(why)
  })
  test('what each structure shows as a pattern is one it takes', () => {
    for (const structure of structures)
      expect(readOwnExample(ownExampleHint[structure], aimOf({ structure, upTo: 7 })).ok, structure).toBe(
        true,
      )
  })
})
