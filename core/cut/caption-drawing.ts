import type { FilmBox } from '../contracts/cut.ts'
import { el, paper, round, type Shape } from '../script/table/drawing/paper.ts'
import { film } from '../film/camera/frame.ts'

/** Letters of captions, pixels of the film (1/18 of its height), and their lines as multiples of them. */
export const captionLetters = { size: 40, line: 1.3 } as const
const { size, line } = captionLetters

/** Where a caption stands in the film: at the foot, inside the safe margin, or with its upper edge at `top`. */
export function captionBox(text: string, top: number | null = null): FilmBox {
  const lines = text.split('\n')
  // Andika's letters are about 0.56 of their size wide on average; room for wider ones.
  const w = Math.min(
    film.width - 40,
    Math.ceil(Math.max(...lines.map((l) => [...l].length)) * size * 0.58) + 48,
  )
  const h = Math.round(lines.length * size * line + 20)
  return { x: round((film.width - w) / 2), y: top ?? film.height - h - 28, w, h }
}
/** A caption as it is drawn into the picture: white letters on a dark ground. Shapes are in the box's own space. */
export function captionShapes(text: string, top: number | null = null): { shapes: Shape[]; box: FilmBox } {
  const lines = text.split('\n')
  const box = captionBox(text, top)
  const { w, h } = box
  return {
    box,
    shapes: [
      el('rect', { x: 0, y: 0, width: w, height: h, rx: 12, fill: paper.ink, 'fill-opacity': 0.85 }),
      ...lines.map((l, i) =>
        el(
          'text',
          {
            x: w / 2,
            y: round(10 + (i + 0.78) * size * line),
            'font-size': size,
            'font-family': 'Andika',
            fill: paper.white,
            'text-anchor': 'middle',
          },
          l,
        ),
      ),
    ],
  }
}
