import type { HouseStyle } from '../../../contracts/house-style.ts'
import type { TableState } from '../../../contracts/table.ts'
import { layTable } from './table.ts'
import { heldCircle, letterWidth, writing } from './writing.ts'

interface Box {
  x: number
  y: number
  w: number
  h: number
}
/** Letters reach a third of their size below their line. */
const below = 0.34
/** Where anything written lies on a table, in its drawing: the foot, a held number, and mats that are numerals all over. */
export function writtenOn(state: TableState, fill: HouseStyle['frameFill']): Box[] {
  const boxes: Box[] = layTable(state, fill).zones.filter((z) => z.mat === 'line' || z.mat === 'square')
  if (state.held !== null) {
    const { x, y, r } = heldCircle
    boxes.push({ x: x - r, y: y - r, w: 2 * r, h: 2 * r })
  }
  for (const { text, size, x, y } of writing(state.written)) {
    const w = text.length * size * letterWidth
    boxes.push({ x: x - w / 2, y: y - size, w, h: size * (1 + below) })
  }
  return boxes.map(({ x, y, w, h }) => ({ x, y, w, h }))
}
