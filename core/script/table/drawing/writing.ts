import { tableHeight, tableWidth } from './paper.ts'

/** The lowest line at the table's foot on which is written. */
export const writingLine = tableHeight - 26
/** Andika's letters are about 0.6 of their size wide. */
export const letterWidth = 0.6
/** As many sentences as stand under one another before a second column is begun. */
const rowsMost = 4
/** One sentence where it stands: centred on x, its letters on the line y. */
export interface Written {
  text: string
  size: number
  x: number
  y: number
}
/** Size of letters by how many rows there are, in the table's units. */
const sizes = [36, 36, 28, 23, 19] as const

/** What is written at the foot, all of it: sentences stand under one another, in columns where there are many. */
export function writing(written: readonly string[]): Written[] {
  const columns = Math.ceil(written.length / rowsMost)
  const rows = Math.ceil(written.length / Math.max(1, columns))
  const wide = (tableWidth - 120) / Math.max(1, columns)
  const longest = Math.max(1, ...written.map((t) => t.length))
  const size = Math.round(Math.max(11, Math.min(sizes[rows] ?? 19, wide / (longest * letterWidth))))
  const pitch = size * 1.28
  return written.map((text, i) => ({
    text,
    size,
    x: tableWidth / 2 + (Math.floor(i / rows) - (columns - 1) / 2) * wide,
    y: writingLine - (rows - 1 - (i % rows)) * pitch,
  }))
}
/** Height of the foot that is kept free for writing and for a held number. */
export function footHeight(written: readonly string[], held: boolean): number {
  const lines = writing(written)
  if (!lines.length) return held ? 70 : 16
  return Math.max(70, tableHeight - Math.min(...lines.map((l) => l.y - l.size)) + 6)
}
/** Circle round a number that is held in the head, at the foot's left. */
export const heldCircle = { x: 74, y: tableHeight - 38, r: 27 } as const
