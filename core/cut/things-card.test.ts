import { describe, expect, test } from 'vitest'
import type { Shape } from '../script/table/drawing/paper.ts'
import { cardFits, cardShapes } from './card.ts'
import { fetchLine, fetchPicture, readFetchLine, thingsShapes } from './things-card.ts'

const texts = (shapes: readonly Shape[]): string[] =>
  shapes.flatMap((s) => [...(s.text ? [s.text] : []), ...texts(s.children ?? [])])
const count = (shapes: readonly Shape[], tag: Shape['tag']): number =>
  shapes.reduce((n, s) => n + (s.tag === tag ? 1 : 0) + count(s.children ?? [], tag), 0)
const lines = (n: number): string[] => Array.from({ length: n }, (_, i) => `${i + 1} socks · or spoons`)

describe('a line of things to fetch', () => {
  test.each([
    { count: 10, thing: 'bottle tops', swap: 'dried pasta' },
    { count: 1, thing: 'egg box', swap: null },
    { count: 20, thing: 'two-faced counters', swap: 'saucepan with a lid' },
  ])('$count $thing is read as it was written', (t) => expect(readFetchLine(fetchLine(t))).toEqual(t))
  test.each(['a few bottle tops', 'Ask a grown-up first.', '', '10'])('“%s” is words', (t) =>
    expect(readFetchLine(t)).toBeNull(),
  )
})

describe('the card', () => {
  test('shows each thing with how many and what will do instead', () => {
    const card = {
      look: 'things' as const,
      title: 'You need',
      lines: ['10 bottle tops · or dried pasta', '1 die'],
    }
    expect(texts(cardShapes(card))).toEqual(['You need', '10 bottle tops', 'or dried pasta', '1 die'])
    expect(cardFits(card)).toBe('well')
  })
  test('draws as many loose things as are needed, and one of what is used as one', () => {
    const circles = (n: number): number => count(fetchPicture({ thing: 'bottle tops', count: n }), 'circle')
    expect(circles(7) / circles(1)).toBe(7)
    expect(circles(60)).toBe(circles(20))
    expect(count(fetchPicture({ thing: 'egg box', count: 3 }), 'rect')).toBe(10)
  })
  test('is words where a line is no thing, there are more than eight, or a name is too long for its field', () => {
    expect(thingsShapes(['3 socks', 'a few more'], 156, 648)).toBeNull()
    expect(thingsShapes(lines(8), 156, 648)).not.toBeNull()
    expect(thingsShapes(lines(9), 156, 648)).toBeNull()
    expect(thingsShapes([`2 ${'very long names '.repeat(6)}`], 156, 648)).toBeNull()
    // Nothing is lost by that.
    const long = { look: 'things' as const, title: 'You need', lines: lines(12) }
    expect(texts(cardShapes(long)).filter((t) => /socks/.test(t))).toHaveLength(12)
  })
  test('keeps every word inside the picture and above the thread', () => {
    for (let n = 1; n <= 8; n++)
      for (const s of thingsShapes(lines(n), 156, 648)!)
        if (s.tag === 'text') {
          const [x, y, px] = [Number(s.attrs.x), Number(s.attrs.y), Number(s.attrs['font-size'])]
          expect(x + [...s.text!].length * px * 0.56).toBeLessThanOrEqual(1216)
          expect(y).toBeLessThanOrEqual(640)
        }
  })
})
