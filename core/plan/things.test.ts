import { describe, expect, test } from 'vitest'
import { cautionsFor, isSmallPart, swapsFor } from './things.ts'

describe('small parts', () => {
  test('what fits the test cylinder in any orientation is one', () => {
    expect(isSmallPart([20, 20, 4], 'disc')).toBe(true)
    expect(isSmallPart([4, 20, 20])).toBe(true)
    expect(isSmallPart([30, 30, 14], 'disc')).toBe(true)
    expect(isSmallPart([120, 90, 60])).toBe(false)
    expect(isSmallPart([10, 10, 80])).toBe(false)
  })
  test('balls count up to 44.5 mm', () => {
    expect(isSmallPart([44, 44, 44], 'ball')).toBe(true)
    expect(isSmallPart([45, 45, 45], 'ball')).toBe(false)
  })
})
test('a swap has the property that matters, and is another thing', () => {
  for (const s of swapsFor('two-faced counters', ['counted', 'two faces'])) {
    expect(s.properties).toEqual(expect.arrayContaining(['counted', 'two faces']))
    expect(s.name).not.toBe('two-faced counters')
  }
  expect(swapsFor('two-faced counters').length).toBeGreaterThan(2)
  expect(swapsFor('a thing nobody knows')).toEqual([])
  // What a kitchen drawer has comes before what only a shop for schools has.
  const forTops = swapsFor('bottle tops').map((s) => s.name)
  expect([forTops[0], forTops.at(-1)]).toEqual([
    expect.not.stringContaining('counters'),
    'two-faced counters',
  ])
})
test('counters carry the small-parts caution, socks none', () => {
  expect(cautionsFor([{ thing: 'two-faced counters', count: 7 }]).join()).toMatch(/Small parts/)
  expect(cautionsFor([{ thing: 'folded socks', count: 7 }])).toEqual([])
  expect(cautionsFor([{ thing: 'jar', count: 1 }]).join()).toMatch(/plastic/)
})
