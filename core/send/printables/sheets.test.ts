import { describe, expect, test } from 'vitest'
import { type Mark, margin, papers, type Paper, rulerLength } from './paper.ts'
import { printableKinds } from '../../contracts/printables.ts'
import { printableSheets } from './sheets.ts'

const kinds = printableKinds.flatMap((kind) =>
  (['A4', 'Letter'] as Paper[]).flatMap((paper) =>
    [
      { upTo: 1, parts: 2 },
      { upTo: 7, parts: 2 },
      { upTo: 20, parts: 6 },
      { upTo: 100, parts: 3 },
      { upTo: 1000, parts: 99 },
    ].map((numbers) => [kind, paper, numbers] as const),
  ),
)
const edges = (m: Mark): [number, number, number, number] => {
  switch (m.kind) {
    case 'line':
      return [Math.min(m.x1, m.x2), Math.min(m.y1, m.y2), Math.max(m.x1, m.x2), Math.max(m.y1, m.y2)]
    case 'box':
      return [m.x, m.y, m.x + m.w, m.y + m.h]
    case 'circle':
      return [m.cx - m.r, m.cy - m.r, m.cx + m.r, m.cy + m.r]
    case 'text': {
      // Letters of this face are at most about so wide for their height.
      const wide = m.text.length * m.size * 0.85
      const left = m.middle ? m.x - wide / 2 : m.x
      return [left, m.y - m.size, left + wide, m.y]
    }
  }
}
test.each(kinds)(
  '%s on %s with %j: all of it within what printers print, and its ruler is true',
  (kind, paper, numbers) => {
    const sheets = printableSheets(kind, paper, numbers)
    expect(sheets.length).toBeGreaterThan(0)
    for (const s of sheets) {
      const { width, height } = papers[paper]
      expect([s.width, s.height].sort((a, b) => a - b)).toEqual([width, height].sort((a, b) => a - b))
      for (const m of s.marks) {
        const [l, t, r, b] = edges(m)
        expect(l, JSON.stringify(m)).toBeGreaterThanOrEqual(margin - 6)
        expect(t, JSON.stringify(m)).toBeGreaterThanOrEqual(margin - 6)
        expect(r, JSON.stringify(m)).toBeLessThanOrEqual(s.width - margin + 6)
        expect(b, JSON.stringify(m)).toBeLessThanOrEqual(s.height - margin + 6)
      }
      const rulers = s.marks.filter(
        (m) =>
          m.kind === 'line' &&
          m.y1 === m.y2 &&
          Math.abs(m.x2 - m.x1 - rulerLength) < 1e-9 &&
          m.y1 > s.height - margin - 1,
      )
      expect(rulers).toHaveLength(1)
    }
  },
)

describe('in their sizes', () => {
  const marks = (kind: (typeof printableKinds)[number], upTo: number, parts = 2) =>
    printableSheets(kind, 'A4', { upTo, parts }).flatMap((s) => s.marks)
  test('cells of a ten frame are 32 mm, ten of them, twenty where numbers go beyond ten', () => {
    const cells = (upTo: number) =>
      marks('ten-frame', upTo).filter((m) => m.kind === 'box' && m.w === 32 && m.h === 32)
    expect([cells(7).length, cells(10).length, cells(14).length]).toEqual([10, 10, 20])
  })
  test('a die has seven on opposite sides', () => {
    const boxes = marks('dice-net', 6).filter((m) => m.kind === 'box')
    const dots = marks('dice-net', 6).filter((m) => m.kind === 'circle')
    const on = boxes.map(
      (b) =>
        dots.filter(
          (d) =>
            b.kind === 'box' &&
            d.kind === 'circle' &&
            d.cx > b.x &&
            d.cx < b.x + b.w &&
            d.cy > b.y &&
            d.cy < b.y + b.h,
        ).length,
    )
    // Up and down of the cross; first and third, second and fourth of its row.
    expect([on[0]! + on[5]!, on[1]! + on[3]!, on[2]! + on[4]!]).toEqual([7, 7, 7])
  })
  test('dot cards show as many dots as they should, to ten', () => {
    const sheets = printableSheets('dot-cards', 'A4', { upTo: 10, parts: 2 })
    const counts = sheets.flatMap((s) =>
      s.marks
        .filter((m) => m.kind === 'box')
        .map(
          (b) =>
            s.marks.filter(
              (d) =>
                d.kind === 'circle' &&
                b.kind === 'box' &&
                d.cx > b.x &&
                d.cx < b.x + b.w &&
                d.cy > b.y &&
                d.cy < b.y + b.h,
            ).length,
        ),
    )
    expect(counts).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10])
  })
  test('both halves of a long line are as long, and their joining marks lie on one another', () => {
    const [left, right] = printableSheets('number-line', 'A4', { upTo: 100, parts: 2 })
    const long = (s: typeof left) => s!.marks.filter((m) => m.kind === 'line' && m.x2 - m.x1 === 240)
    expect([long(left).length, long(right).length]).toEqual([1, 1])
    const cross = (s: typeof left) =>
      s!.marks.find((m) => m.kind === 'line' && m.x1 === m.x2 && m.y2 - m.y1 === 8)
    const [a, b] = [cross(left), cross(right)]
    expect(a?.kind === 'line' && b?.kind === 'line' && a.x1 - b.x1).toBe(240)
  })
  test('numbers no sheet can hold are refused', () =>
    expect(() => printableSheets('ten-frame', 'A4', { upTo: NaN, parts: 2 })).toThrow(RangeError))
})
