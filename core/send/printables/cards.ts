import { dicePattern } from '../../script/table/drawing/layout.ts'
import { inside, type Paper } from '../../paper/sizes.ts'
import { type Mark, pen, type Sheet, sheet } from './paper.ts'

/** What a sheet is made from: the lesson's own numbers. */
export interface Numbers {
  /** The largest number met. */
  upTo: number
  /** Parts of a whole, 2 to 6. */
  parts: number
  /** What the reply sheet asks, box by box. */
  prompts?: readonly string[]
  /** A square code of a home's page for the reply sheet: its modules row by row. */
  code?: { size: number; dark: readonly boolean[] }
}
export const clamp = (n: number, least: number, most: number): number =>
  Math.max(least, Math.min(most, Math.round(n)))

export const upTo = ({ upTo: most }: Numbers, cap: number): number[] =>
  Array.from({ length: clamp(most, 1, cap) + 1 }, (_, i) => i)

export interface Box {
  x: number
  y: number
  w: number
  h: number
}
/** Cards of 60 × 80 mm, nine a sheet, with dashed lines to cut along. */
const card = { w: 60, h: 80 } as const
export function cards(
  paper: Paper,
  title: string,
  numbers: readonly number[],
  draw: (box: Box, n: number) => Mark[],
): Sheet[] {
  const at = inside(paper)
  const [across, down] = [Math.floor(at.w / card.w), Math.floor(at.h / card.h)]
  const x0 = at.x + (at.w - across * card.w) / 2
  const sheets: Sheet[] = []
  for (let i = 0; i < numbers.length; i += across * down)
    sheets.push(
      sheet(
        paper,
        title,
        numbers.slice(i, i + across * down).flatMap((n, k): Mark[] => {
          const [x, y] = [x0 + (k % across) * card.w, at.y + Math.floor(k / across) * card.h]
          return [
            { kind: 'box', x, y, w: card.w, h: card.h, width: pen.fine, dashed: true },
            ...draw({ x, y, ...card }, n),
          ]
        }),
      ),
    )
  return sheets
}
/** Dots as on dice to six; more as six and the rest under it. */
export function dots({ x, y, w, h }: Box, n: number): Mark[] {
  const at = (k: number, cy: number, size: number): Mark[] =>
    (dicePattern[k] ?? []).map(([dx, dy]) => ({
      kind: 'circle',
      cx: x + w / 2 + dx * size,
      cy: cy + dy * size,
      r: 4.5,
      width: pen.line,
      filled: true,
    }))
  return n <= 6 ? at(n, y + h / 2, 17) : [...at(6, y + h * 0.28, 14), ...at(n - 6, y + h * 0.74, 14)]
}
