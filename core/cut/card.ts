import { paper, type Shape } from '../script/table/drawing/paper.ts'

/** Breaks text into lines of at most `letters`, never inside a word unless the word alone is longer. */
export function wrap(text: string, letters: number): string[] {
  const lines: string[] = []
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= letters) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(...(word.match(new RegExp(`.{1,${letters}}`, 'gu')) ?? []))
  }
  return lines
}

/** A full-screen card of 1280 × 720: what to do while the film stands still. */
export function cardShapes(text: string): Shape[] {
  const lines = wrap(text, 30).slice(0, 6)
  const size = lines.length > 4 ? 52 : 64
  const top = 390 - ((lines.length - 1) * size * 1.3) / 2
  return [
    { tag: 'rect', attrs: { x: 0, y: 0, width: 1280, height: 720, fill: paper.ink } },
    { tag: 'rect', attrs: { x: 604, y: 96, width: 24, height: 92, rx: 8, fill: paper.saffron } },
    { tag: 'rect', attrs: { x: 652, y: 96, width: 24, height: 92, rx: 8, fill: paper.saffron } },
    ...lines.map((line, i): Shape => ({ tag: 'text', attrs: { x: 640, y: top + i * size * 1.3, 'font-size': size, 'font-family': 'Andika', fill: paper.white, 'text-anchor': 'middle' }, text: line })),
  ]
}
