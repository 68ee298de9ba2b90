import type { Card } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import { paper, round, type Shape, tableHeight, tableWidth } from '../script/table/drawing/paper.ts'
import { drawTable } from '../script/table/drawing/table.ts'
import type { TableState } from '../script/table/state.ts'

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

/** A ring that fills clockwise, `share` 0–1, in a square of 160: the time that is left to think, and nothing that hurries. */
export function ringShapes(share: number): Shape[] {
  const angle = Math.min(0.9999, Math.max(0, share)) * 2 * Math.PI
  const [x, y] = [80 + 58 * Math.sin(angle), 80 - 58 * Math.cos(angle)]
  return [
    { tag: 'circle', attrs: { cx: 80, cy: 80, r: 74, fill: paper.ink, 'fill-opacity': 0.82 } },
    { tag: 'circle', attrs: { cx: 80, cy: 80, r: 58, fill: 'none', stroke: paper.steel, 'stroke-width': 10 } },
    ...(share > 0 ? [{ tag: 'path', attrs: { d: `M80 22 A58 58 0 ${angle > Math.PI ? 1 : 0} 1 ${round(x)} ${round(y)}`, fill: 'none', stroke: paper.saffron, 'stroke-width': 10, 'stroke-linecap': 'round' } } as Shape] : []),
  ]
}
/** Where the ring stands: on a held picture in the upper left corner, inside the safe margin; on a stop card at the top. */
export const ringPlace = { hold: { x: 64, y: 44 }, stop: { x: 560, y: 56 } } as const

/** A full-screen card of 1280 × 720. On a `stop` card the ring comes over the room left at the top; a `table` is drawn at its right. */
export function cardShapes(card: Pick<Card, 'look' | 'title'> & { lines: readonly string[] }, table: TableState | null = null, fill: HouseStyle['frameFill'] = 'across'): Shape[] {
  const narrow = table !== null
  const title = wrap(card.title, narrow ? 20 : 30).slice(0, 4)
  const lines = card.lines.flatMap((l) => wrap(l, narrow ? 26 : card.look === 'things' ? 34 : 40)).slice(0, 8 - title.length)
  const size = title.length > 2 ? 56 : 68
  const small = lines.length > 5 ? 36 : 42
  const height = title.length * size * 1.25 + (lines.length ? 24 + lines.length * small * 1.35 : 0)
  const top = (card.look === 'stop' ? 440 : 360) - height / 2
  const centred = card.look !== 'things' && !narrow
  const x = narrow ? 72 : centred ? 640 : 360
  const text = (y: number, px: number, words: string, colour: string): Shape => ({ tag: 'text', attrs: { x, y: round(y), 'font-size': px, 'font-family': 'Andika', fill: colour, 'text-anchor': centred ? 'middle' : 'start' }, text: words })
  const under = top + title.length * size * 1.25 + 24
  return [
    { tag: 'rect', attrs: { x: 0, y: 0, width: 1280, height: 720, fill: paper.ink } },
    // The thread, sewn along the foot of every card.
    ...Array.from({ length: 16 }, (_, i): Shape => ({ tag: 'rect', attrs: { x: 40 + i * 76, y: 672, width: 48, height: 6, rx: 3, fill: card.look === 'guard' ? paper.saffron : paper.steel } })),
    ...title.map((l, i) => text(top + (i + 0.8) * size * 1.25, size, l, paper.white)),
    ...lines.map((l, i) => text(under + (i + 0.8) * small * 1.35, small, card.look === 'things' && card.lines.includes(l) ? `•  ${l}` : l, paper.linen)),
    ...(table ? onCard(table, fill) : []),
  ]
}
/** Where the table is drawn on a card, at its own proportions. */
const cardTable = { x: 740, y: 232, w: 484 } as const
function onCard(table: TableState, fill: HouseStyle['frameFill']): Shape[] {
  const k = cardTable.w / tableWidth
  return [
    { tag: 'rect', attrs: { x: cardTable.x - 12, y: cardTable.y - 12, width: cardTable.w + 24, height: round(tableHeight * k + 24), rx: 14, fill: paper.linen } },
    { tag: 'g', attrs: { transform: `translate(${cardTable.x} ${cardTable.y}) scale(${round(k)})` }, children: drawTable({ ...table, held: null, written: [] }, fill) },
  ]
}
