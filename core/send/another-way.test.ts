import { describe, expect, test } from 'vitest'
import { otherWays } from '../contracts/home-lists.ts'
import { isSmallPart, thingNamed } from '../plan/things.ts'
import { anotherWay } from './another-way.ts'

const kit = [
  { thing: 'dried pasta', count: 7 },
  { thing: 'ten frame', count: 1 },
]
const plain = { ways: [], canPrint: null, kit, has: [], hasSheets: true, hasFilm: true }
const keys = (a: Partial<Parameters<typeof anotherWay>[0]>) =>
  anotherWay({ ...plain, ...a }).map((t) => t.key)

describe('another way', () => {
  test('is offered for what a home said, and for nothing else', () => {
    expect(keys({})).toEqual([])
    expect(keys({ ways: ['seated', 'quiet'] })).toEqual(['route.seated', 'route.quiet'])
    expect(keys({ ways: otherWays }).length).toBe(otherWays.length)
  })
  test('no printer is a way where there are sheets, and only where the home said so', () => {
    expect(keys({ canPrint: false })).toEqual(['route.printer'])
    expect(keys({ canPrint: false, hasSheets: false })).toEqual([])
    expect(keys({ canPrint: true })).toEqual([])
  })
  test('captions are no help where there is no film', () =>
    expect(keys({ ways: ['hearing'], hasFilm: false })).toEqual([]))
  test('instead of food and small things: something large, what the home has first', () => {
    const instead = (way: 'small' | 'food', has: string[]) =>
      String(anotherWay({ ...plain, ways: [way], has })[0]!.values!.thing).slice('thing.'.length)
    for (const way of ['small', 'food'] as const) {
      const thing = thingNamed(instead(way, []))!
      expect(thing.size && isSmallPart(thing.size)).toBeFalsy()
      expect(thing.caution ?? '').not.toMatch(/food/i)
      expect(instead(way, ['spoons'])).toBe('spoons')
    }
  })
  test('a lesson without small things or food asks for none instead', () =>
    expect(keys({ ways: ['small', 'food'], kit: [{ thing: 'folded socks', count: 5 }] })).toEqual([]))
})
