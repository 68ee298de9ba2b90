import { describe, expect, test } from 'vitest'
import { instead as insteadOf } from './patches.ts'

const [width, height] = [220, 160]
interface Round {
  x: number
  y: number
  r: number
}
/** A map of kinds in which discs lie; squashed downwards where it is seen aslant. */
function map(all: readonly Round[], squash = 1): { what: Uint8Array; all: Round[] } {
  const what = new Uint8Array(width * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (all.some((d) => (x + 0.5 - d.x) ** 2 + ((y + 0.5 - d.y * squash) / squash) ** 2 <= d.r ** 2))
        what[y * width + x] = 1
  return { what, all: all.map((d) => ({ ...d, y: d.y * squash })) }
}
const size = { width, height }
/** All doubtful, unless told otherwise. */
const instead = (of: typeof size, what: Uint8Array, spots: readonly Round[], doubtful = true) =>
  insteadOf(
    of,
    what,
    spots.map((s) => ({ ...s, doubtful })),
  )
const alone = (r: number): Round[] => [20, 55, 90, 125].map((x) => ({ x, y: 25, r }))
const mean = (p: Round, q: Round): Round => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, r: p.r })
const isNear = (p: Round, q: Round, by: number) => Math.hypot(p.x - q.x, p.y - q.y) <= by

describe('round things that lie half on one another', () => {
  test.each([
    [7, 0.9, 0],
    [7, 1.3, 0.7],
    [11, 0.75, 1.2],
    [11, 1.1, 2.4],
    [5, 1.2, 0.4],
  ])('two of radius %d, %d radii apart, seen as one are two', (r, apart, turn) => {
    const one = { x: 110, y: 90, r }
    const other = { x: 110 + apart * r * Math.cos(turn), y: 90 + apart * r * Math.sin(turn), r }
    const { what } = map([...alone(r), one, other])
    const more = instead(size, what, [...alone(r), mean(one, other)])
    expect(more).toHaveLength(1)
    expect(more[0]!.seen).toEqual([4])
    const [p, q] = [...more[0]!.spots].sort((a, b) => a.x - b.x)
    const [left, right] = [one, other].sort((a, b) => a.x - b.x)
    expect(isNear(p!, left!, 0.3 * r) && isNear(q!, right!, 0.3 * r)).toBe(true)
  })
  test('seen aslant they are two as well', () => {
    const [one, other] = [
      { x: 110, y: 120, r: 10 },
      { x: 119, y: 126, r: 10 },
    ]
    const { what, all } = map([...alone(10), one, other], 0.75)
    expect(instead(size, what, [...all.slice(0, 4), mean(all[4]!, all[5]!)])).toHaveLength(1)
  })
  test('three in a chain of which two were seen are three', () => {
    const chain = [80, 90, 105].map((x) => ({ x, y: 90, r: 9 }))
    const { what } = map([...alone(9), ...chain])
    const more = instead(size, what, [...alone(9), mean(chain[0]!, chain[1]!), chain[2]!])
    expect(more.map((m) => m.spots.length)).toEqual([3])
  })
})
describe('faces of one thing', () => {
  /** A cube as three of its faces are seen: a hexagon of discs, filled. */
  const cube = (x: number, y: number): Round[] =>
    [
      [0, 0],
      [5, 3],
      [-5, 3],
      [0, 6],
      [3, -2],
      [-3, -2],
      [0, 3],
    ].map(([dx, dy]) => ({ x: x + dx!, y: y + dy!, r: 5 }))
  const at = [25, 65, 105, 145, 185].map((x) => ({ x, y: 50, r: 9 }))
  test('are one where one was seen in each of the others', () => {
    const { what } = map(at.flatMap((c) => cube(c.x, c.y)))
    const two = [
      { x: 100, y: 47, r: 6 },
      { x: 109, y: 56, r: 6 },
    ]
    const got = instead(size, what, [at[0]!, at[1]!, ...two, at[3]!, at[4]!])
    expect(got.map((g) => g.seen)).toEqual([[2, 3]])
    expect(isNear({ ...got[0]!.spots[0]! }, { x: 105, y: 52, r: 9 }, 3)).toBe(true)
    expect(got[0]!.spots).toHaveLength(1)
    expect(instead(size, what, [at[0]!, at[1]!, ...two, at[3]!, at[4]!], false)).toEqual([])
  })
  test('are one too where one of them is a small patch of its own', () => {
    const { what } = map([...at.flatMap((c) => cube(c.x, c.y)), { x: 60, y: 120, r: 4 }])
    expect(instead(size, what, [...at, { x: 60, y: 120, r: 4 }])).toEqual([{ seen: [5], spots: [] }])
    expect(instead(size, what, [...at, { x: 60, y: 120, r: 4 }], false)).toEqual([])
  })
  test('two that stand close are two: their patch is larger', () => {
    const { what } = map([...at.slice(0, 4).flatMap((c) => cube(c.x, c.y)), ...cube(150, 58)])
    expect(instead(size, what, [...at.slice(0, 4), { x: 150, y: 58, r: 9 }])).toEqual([])
  })
  test('two of which fewer than three others tell stay two', () => {
    const { what } = map(at.slice(0, 3).flatMap((c) => cube(c.x, c.y)))
    expect(instead(size, what, [at[0]!, at[1]!, { x: 100, y: 47, r: 6 }, { x: 109, y: 56, r: 6 }])).toEqual(
      [],
    )
  })
})
describe('nothing is added', () => {
  const none = (all: readonly Round[], seen: readonly Round[] = all) =>
    expect(instead(size, map(all).what, seen)).toEqual([])
  test('where all are seen, touching or overlapping', () =>
    none([...alone(9), { x: 100, y: 90, r: 9 }, { x: 110, y: 92, r: 9 }, { x: 128, y: 92, r: 9 }]))
  test.each([1.15, 1.3, 1.45, 1.6])('to one that is %d times as wide as the others', (k) =>
    none([...alone(9), { x: 110, y: 90, r: 9 * k }]),
  )
  test('where fewer than two lie alone', () =>
    none(
      [...alone(9).slice(0, 1), { x: 100, y: 90, r: 9 }, { x: 109, y: 90, r: 9 }],
      [...alone(9).slice(0, 1), { x: 104.5, y: 90, r: 9 }],
    ))
  test('to things that are not round, or not alike', () => {
    const bars = Array.from({ length: 5 }, (_, i) =>
      [0, 1, 2, 3].map((k) => ({ x: 20 + 40 * i + 5 * k, y: 30 + (i % 2) * 40 + k * (i - 2), r: 5 })),
    )
    none(
      bars.flat(),
      bars.map((b) => mean(b[0]!, b[3]!)),
    )
    none([6, 9, 13, 7, 12].map((r, i) => ({ x: 20 + 40 * i, y: 40, r })))
  })
  test('to what a single blot of another shape is', () => {
    const blot = Array.from({ length: 9 }, (_, i) => ({ x: 80 + 6 * i, y: 100 + (i % 3) * 5, r: 4 }))
    none([...alone(9), ...blot], [...alone(9), blot[4]!])
  })
  test('where nothing is', () => expect(instead(size, new Uint8Array(width * height), [])).toEqual([]))
})
