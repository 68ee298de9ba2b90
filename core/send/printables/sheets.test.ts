import { describe, expect, test } from 'vitest'
import { margin, papers, type Paper } from '../../paper/sizes.ts'
import { type Mark, rulerLength } from './paper.ts'
import { printableKinds } from '../../contracts/printables.ts'
import { printableSheets } from './sheets.ts'
import { sheetSvg } from './svg.ts'

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
  test('dominoes: each pair once, with its dots in its halves', () => {
    const sheets = printableSheets('dominoes', 'A4', { upTo: 6, parts: 2 })
    const pairs = sheets.flatMap((s) =>
      s.marks.flatMap((b) => {
        if (b.kind !== 'box') return []
        const dots = s.marks.filter(
          (d) => d.kind === 'circle' && d.cx > b.x && d.cx < b.x + b.w && d.cy > b.y && d.cy < b.y + b.h,
        )
        const upper = dots.filter((d) => d.kind === 'circle' && d.cy < b.y + b.h / 2).length
        return [[upper, dots.length - upper].sort((x, y) => x - y).join('|')]
      }),
    )
    expect([pairs.length, new Set(pairs).size]).toEqual([28, 28])
  })
  test('a track has every third number left out, and a run its gaps', () => {
    const numbers = (kind: (typeof printableKinds)[number]) =>
      marks(kind, 20).flatMap((m) => (m.kind === 'text' && /^\d+$/.test(m.text) ? [Number(m.text)] : []))
    expect(numbers('track')).toEqual([1, 2, 4, 5, 7, 8, 10, 11, 13, 14, 16, 17, 19, 20])
    for (const upTo of [5, 7, 20, 100])
      for (const m of marks('runs-sheet', upTo))
        if (m.kind === 'text' && /^-?\d+$/.test(m.text)) {
          expect(Number(m.text)).toBeGreaterThanOrEqual(0)
          expect(Number(m.text)).toBeLessThanOrEqual(upTo)
        }
  })
  test('counters are 25 mm across on both faces; rods are ten squares of 10 mm', () => {
    const faces = marks('counters', 10).filter((m) => m.kind === 'circle' && m.r === 12.5)
    expect(faces.length).toBe(20)
    const squares = marks('rods', 20).filter((m) => m.kind === 'box' && m.w === 10 && m.h === 10)
    expect(squares.length).toBe(2 * 10 + 20)
  })
  test('a reply sheet has a box a task, four corner marks, and its home’s code square by square', () => {
    const dark = [true, false, false, true]
    const [sheet] = printableSheets('reply-sheet', 'A4', {
      upTo: 7,
      parts: 2,
      prompts: [
        'How many?',
        'Which?',
        'Show it with a rather long sentence that has to be broken in two lines.',
      ],
      code: { size: 2, dark },
    })
    const filled = sheet!.marks.filter((m) => m.kind === 'box' && m.filled)
    expect(filled.length).toBe(4 + 2)
    expect(sheet!.marks.filter((m) => m.kind === 'box' && !m.filled).length).toBe(3)
  })
  test('as a picture it has the same size and the same marks', () => {
    for (const kind of printableKinds)
      for (const s of printableSheets(kind, 'A4', { upTo: 10, parts: 3, prompts: ['<a> & b'] })) {
        const svg = sheetSvg(s)
        expect(svg).toContain(`width="${s.width}mm" height="${s.height}mm"`)
        expect(svg.match(/<(line|rect|circle|text)\b/g)!.length).toBe(s.marks.length)
        expect(svg).not.toContain('<a>')
      }
  })
})
