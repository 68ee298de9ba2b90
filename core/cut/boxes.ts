import type { FilmBox } from '../contracts/cut.ts'

/** Whether two boxes share any part of the picture. */
export const meet = (a: FilmBox, b: FilmBox): boolean =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h
export const middleOf = (b: FilmBox): { x: number; y: number } => ({ x: b.x + b.w / 2, y: b.y + b.h / 2 })
/** The box around all of them; there is at least one. */
export function boxAround(boxes: readonly FilmBox[]): FilmBox {
  const [x, y] = [Math.min(...boxes.map((b) => b.x)), Math.min(...boxes.map((b) => b.y))]
  return {
    x,
    y,
    w: Math.max(...boxes.map((b) => b.x + b.w)) - x,
    h: Math.max(...boxes.map((b) => b.y + b.h)) - y,
  }
}
