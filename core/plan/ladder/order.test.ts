import { describe, expect, test } from 'vitest'
import { ladder } from './ladder.ts'
import { placeLadder, walk } from './order.ts'

describe('walking the ladder by keys', () => {
  const { places } = placeLadder(ladder)
  test('from any idea, every arrow leads to another or to none at an edge, and back again along a column', () => {
    for (const from of places) {
      const down = walk(places, from, 'ArrowDown')
      if (down) {
        expect([down.column, down.row > from.row]).toEqual([from.column, true])
        expect(walk(places, down, 'ArrowUp')).toBe(from)
      }
      const right = walk(places, from, 'ArrowRight')
      expect(right?.column ?? from.column + 1).toBe(from.column + 1)
    }
  })
  test('every idea can be reached from the first', () => {
    const seen = new Set([places[0]!])
    for (const p of seen)
      for (const key of ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight']) {
        const to = walk(places, p, key)
        if (to) seen.add(to)
      }
    expect(seen.size).toBe(places.length)
  })
  test('Home goes to the first column, End to the last; other keys do nothing', () => {
    const from = places[Math.floor(places.length / 2)]!
    expect(walk(places, from, 'Home')!.column).toBe(0)
    expect(walk(places, from, 'End')!.column).toBe(Math.max(...places.map((p) => p.column)))
    expect(walk(places, from, 'a')).toBeNull()
  })
})
