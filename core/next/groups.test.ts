import { describe, expect, test } from 'vitest'
import { type ChildStanding, groupsFor, readyFor, rungFor } from './groups.ts'

const child = (
  n: number,
  word: ChildStanding['standing']['word'],
  quietDays: number | null = 1,
): ChildStanding => ({
  childId: `k${n}`,
  name: `Child ${n}`,
  quietDays,
  standing: {
    level: 0.5,
    low: 0.3,
    high: 0.7,
    occasions: 2,
    word,
    judged: false,
    ready: word === 'secure',
    because: '',
    helps: { alone: 2, nudged: 0, together: 0 },
    rungs: { things: 2, picture: 0, track: 0, head: 0 },
  },
})
const many = (from: number, count: number, word: ChildStanding['standing']['word']) =>
  Array.from({ length: count }, (_, i) => child(from + i, word))

describe('groups', () => {
  test('one judged secure on little is to be seen once more before what comes after', () => {
    const early = child(1, 'secure')
    early.standing.ready = false
    expect(
      groupsFor([early, child(2, 'secure')]).map((g) => [g.title, g.children.map((c) => c.set)]),
    ).toEqual([
      ['Secure, to be seen once more', ['middle']],
      ['Ready for what comes after', ['stretch']],
    ])
  })
  test('the rung to try is the next one up for who is secure, the same for who is nearly there, things for who is not', () => {
    const rungs = { things: 0, picture: 3, track: 0, head: 0 }
    expect(
      (['secure', 'nearly', 'not yet'] as const).map((word) =>
        rungFor({ word, ready: word === 'secure', rungs }),
      ),
    ).toEqual(['track', 'picture', 'things'])
  })
  test('a class is ready for an idea when what it comes after is', () => {
    const at = (ready: boolean) => ({ ready, word: 'secure' as const })
    const ladder = [
      { id: 'a', name: 'A', after: [] },
      { id: 'b', name: 'B', after: ['a'] },
      { id: 'c', name: 'C', after: ['a', 'b'] },
    ]
    const kids = [
      new Map([['a', at(true)]]),
      new Map([
        ['a', at(true)],
        ['b', at(true)],
      ]),
      new Map([['a', at(false)]]),
    ]
    expect(readyFor(ladder, kids).map((r) => [r.id, r.ready])).toEqual([
      ['b', 1],
      ['c', 1],
    ])
  })
  test('go by what is needed next, each with its reason', () => {
    const groups = groupsFor([
      child(1, 'secure'),
      child(2, 'not yet'),
      child(3, 'nearly'),
      child(4, 'not seen'),
    ])
    expect(groups.map((g) => g.children.map((c) => c.childId))).toEqual([['k2'], ['k3'], ['k1'], ['k4']])
    for (const g of groups) expect(g.reason.length).toBeGreaterThan(10)
  })
  test('hold at most six; larger ones are parted evenly and say so', () => {
    const groups = groupsFor(many(1, 14, 'nearly'))
    expect(groups.map((g) => g.children.length)).toEqual([5, 5, 4])
    expect(groupsFor(many(1, 7, 'nearly')).map((g) => g.children.length)).toEqual([4, 3])
    expect(groupsFor(many(1, 6, 'nearly')).map((g) => g.children.length)).toEqual([6])
    expect(groups.map((g) => g.title.match(/\((\d of \d)\)/)?.[1])).toEqual(['1 of 3', '2 of 3', '3 of 3'])
  })
  test('a child long silent, or never heard of, is not judged by old work', () => {
    const groups = groupsFor([child(1, 'secure', 8), child(2, 'secure', 7), child(3, 'not yet', null)])
    expect(groups.map((g) => [g.title, g.children.map((c) => c.childId)])).toEqual([
      ['Ready for what comes after', ['k2']],
      ['Not enough seen', ['k1', 'k3']],
    ])
  })
  test('nobody is lost and nobody stands twice', () => {
    const all = [...many(1, 9, 'secure'), ...many(20, 7, 'not yet'), ...many(40, 3, 'not seen')]
    expect(
      groupsFor(all)
        .flatMap((g) => g.children.map((c) => c.childId))
        .sort(),
    ).toEqual(all.map((c) => c.childId).sort())
    expect(groupsFor([])).toEqual([])
  })
})
