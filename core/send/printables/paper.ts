import { margin, type Paper, papers } from '../../paper/sizes.ts'

/** Everything on a printed page, in millimetres from its upper left corner. */
export type Mark =
  | { kind: 'line'; x1: number; y1: number; x2: number; y2: number; width: number; dashed?: boolean }
  | {
      kind: 'box'
      x: number
      y: number
      w: number
      h: number
      width: number
      dashed?: boolean
      filled?: boolean
    }
  | { kind: 'circle'; cx: number; cy: number; r: number; width: number; filled?: boolean }
  /** `size`: height of its capitals; `y`: the line it stands on; `child`: in letters children read. */
  | { kind: 'text'; x: number; y: number; size: number; text: string; middle?: boolean; bold?: boolean }
export interface Sheet {
  width: number
  height: number
  marks: Mark[]
}
/** Ink-saving lines: thin for cutting, thick for what children look at. */
export const pen = { fine: 0.3, line: 0.6, bold: 1 } as const

/** Length of the check ruler. */
export const rulerLength = 100
/** A sheet with its check ruler and what it is, at the foot. */
export function sheet(paper: Paper, title: string, marks: readonly Mark[], turned = false): Sheet {
  const { width, height } = turned
    ? { width: papers[paper].height, height: papers[paper].width }
    : papers[paper]
  const y = height - margin
  const ticks = Array.from({ length: rulerLength / 10 + 1 }, (_, i): Mark => {
    const x = margin + i * 10
    return { kind: 'line', x1: x, y1: y - (i % 5 ? 2 : 3.5), x2: x, y2: y, width: pen.fine }
  })
  return {
    width,
    height,
    marks: [
      ...marks,
      { kind: 'line', x1: margin, y1: y, x2: margin + rulerLength, y2: y, width: pen.fine },
      ...ticks,
      {
        kind: 'text',
        x: margin,
        y: y - 5,
        size: 2,
        text: `This line is ${rulerLength} mm long. If yours is not, print at 100 %.`,
      },
      { kind: 'text', x: margin, y: y - 9.5, size: 2.2, text: title },
    ],
  }
}
