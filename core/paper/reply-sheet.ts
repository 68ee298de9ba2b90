import { inside, type Paper } from './sizes.ts'

/** Millimetres from the sheet's upper left corner: x, y, width, height. */
export type Box = readonly [x: number, y: number, w: number, h: number]
/** Millimetres of the corner marks: by them a photo of the sheet is set straight. */
const cornerMark = 8
/** Room for the home's code, and its side. */
const codeRoom = 30
export const codeSide = 28
export const mostBoxes = 6

/** Where everything of a reply sheet is printed, and where its reader looks: one place for both. */
export function replyLayout(
  paper: Paper,
  tasks: number,
  withCode: boolean,
): {
  corners: [Box, Box, Box, Box]
  boxes: Box[]
  words: { x: number; y: number }[]
  code: { x: number; y: number }
} {
  const at = inside(paper)
  const m = cornerMark
  const top = at.y + m + 4
  const code = withCode ? codeRoom : 0
  const high = (at.h - 2 * m - 12 - code) / tasks
  const rows = Array.from({ length: tasks }, (_, i) => top + code + i * high)
  return {
    // In order round the sheet from its upper left.
    corners: [
      [at.x, at.y, m, m],
      [at.x + at.w - m, at.y, m, m],
      [at.x + at.w - m, at.y + at.h - m, m, m],
      [at.x, at.y + at.h - m, m, m],
    ],
    boxes: rows.map((y) => [at.x + 4, y + 18, at.w - 8, high - 22]),
    words: rows.map((y) => ({ x: at.x + 4, y: y + 5 })),
    code: { x: at.x + at.w / 2 - codeSide / 2, y: top },
  }
}
