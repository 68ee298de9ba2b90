import type { HouseStyle } from '../../../contracts/house-style.ts'
import type { TableState } from '../../../contracts/table.ts'
import { tableWidth } from './paper.ts'
import { layTable } from './table.ts'
import { heldCircle, writing, writingLine } from './writing.ts'

interface Box {
  x: number
  y: number
  w: number
  h: number
}
/** Andika's letters are about 0.6 of their size wide, and reach a third of it below their line. */
const [wide, below] = [0.6, 0.34]
/** Where anything written lies on a table, in its drawing: the foot, a held number, and mats that are numerals all over. */
export function writtenOn(state: TableState, fill: HouseStyle['frameFill']): Box[] {
  const boxes: Box[] = layTable(state, fill).zones.filter((z) => z.mat === 'line' || z.mat === 'square')
  if (state.held !== null) {
    const { x, y, r } = heldCircle
    boxes.push({ x: x - r, y: y - r, w: 2 * r, h: 2 * r })
  }
  if (state.written.length) {
    const { text, size } = writing(state.written)
    const w = text.length * size * wide
    boxes.push({ x: (tableWidth - w) / 2, y: writingLine - size, w, h: size * (1 + below) })
  }
  return boxes.map(({ x, y, w, h }) => ({ x, y, w, h }))
}
