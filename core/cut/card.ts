import type { Card } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import { readable } from '../film/camera/frame.ts'
import { paper, round, type Shape, tableHeight, tableWidth } from '../script/table/drawing/paper.ts'
import { drawTable } from '../script/table/drawing/table.ts'
import type { TableState } from '../script/table/state.ts'
import { letter, thingsShapes } from './things-card.ts'

/** Breaks text into lines of at most `letters`, never inside a word unless the word alone is longer. */
export function wrap(text: string, letters: number): string[] {
  const lines: string[] = []
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= letters)
      lines[lines.length - 1] = `${last} ${word}`
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
    {
      tag: 'circle',
      attrs: { cx: 80, cy: 80, r: 58, fill: 'none', stroke: paper.steel, 'stroke-width': 10 },
    },
    ...(share > 0
      ? [
          {
            tag: 'path',
            attrs: {
              d: `M80 22 A58 58 0 ${angle > Math.PI ? 1 : 0} 1 ${round(x)} ${round(y)}`,
              fill: 'none',
              stroke: paper.saffron,
              'stroke-width': 10,
              'stroke-linecap': 'round',
            },
          } as Shape,
        ]
      : []),
  ]
}
/** Where the ring stands: on a held picture in the upper left corner, inside the safe margin; on a stop card at the top. */
export const ringPlace = { hold: { x: 64, y: 44 }, stop: { x: 560, y: 56 } } as const

type CardWords = Pick<Card, 'look' | 'title'> & { lines: readonly string[] }
/** Sizes tried for the title, each for so many lines at most; sizes tried for the lines under it, the largest first. */
const [titleSizes, lineSizes] = [
  [
    [68, 2],
    [56, 4],
    [46, Infinity],
  ],
  [42, 38, 34, 30, 26],
] as const
/** Where words may stand, from top to bottom: under the ring of a stop, above the thread at the foot. */
const room = (look: Card['look']): readonly [number, number] => [look === 'stop' ? 228 : 56, 656]

interface Laid {
  title: { px: number; lines: string[] }
  /** Lines under the title, by columns. */
  columns: { text: string; x: number; row: number }[][]
  px: number
  height: number
  /** Whether every word has its place. */
  whole: boolean
}
/** Lays a card's words out as large as they fit; `narrow` leaves the right half to a table. */
function layCard(card: CardWords, narrow: boolean): Laid {
  const widest = (px: number, width: number): number => Math.floor(width / (px * letter))
  const titles = titleSizes.map(([px, most]) => ({
    px,
    most,
    lines: wrap(card.title, widest(px, narrow ? 660 : card.look === 'things' ? 880 : 1150)),
  }))
  const title = titles.find((t) => t.lines.length <= t.most) ?? titles.at(-1)!
  const [top, foot] = room(card.look)
  const left = foot - top - title.lines.length * title.px * 1.25 - 24
  const things = card.look === 'things'
  // A long list of things stands in two columns before it grows small.
  const ways = things && !narrow ? ([1, 2] as const) : ([1] as const)
  const lay = (px: number, columns: 1 | 2): { columns: Laid['columns']; rows: number } => {
    const width = narrow ? 660 : things ? (columns === 2 ? 530 : 860) : 1000
    // What goes on in a second line stands under the words, not under the dot.
    const entries = card.lines.map((l) =>
      wrap(l, widest(px, width) - (things ? 2 : 0)).map((words, i) => ({
        text: things && i === 0 ? `• ${words}` : words,
        in: things && i > 0 ? round(px * 0.65) : 0,
      })),
    )
    const half = columns === 2 ? Math.ceil(entries.flat().length / 2) : Infinity
    const out: Laid['columns'] = [[]]
    for (const entry of entries) {
      if (out.length < columns && out.at(-1)!.length >= half) out.push([])
      const column = out.at(-1)!
      const x = narrow ? 72 : !things ? 640 : columns === 2 ? (out.length === 1 ? 96 : 676) : 330
      for (const line of entry) column.push({ text: line.text, row: column.length, x: x + line.in })
    }
    return { columns: out, rows: Math.max(...out.map((c) => c.length)) }
  }
  for (const px of lineSizes)
    for (const count of ways) {
      const { columns, rows } = lay(px, count)
      if (rows * px * 1.35 <= left && (count === ways.at(-1) || rows <= 8))
        return {
          title,
          columns,
          px,
          height: title.lines.length * title.px * 1.25 + (rows ? 24 + rows * px * 1.35 : 0),
          whole: true,
        }
    }
  const px = lineSizes.at(-1)!
  const rows = Math.max(0, Math.floor(left / (px * 1.35)))
  const columns = lay(px, ways.at(-1)!).columns.map((c) =>
    c.slice(0, rows).map((l, i) => (i === rows - 1 ? { ...l, text: l.text.replace(/\S+$/, '…') } : l)),
  )
  return {
    title: { ...title, lines: title.lines.slice(0, Math.floor((foot - top) / (title.px * 1.25))) },
    columns,
    px,
    height: foot - top,
    whole: false,
  }
}
/** Things drawn in fields of their own, under a title of one line; null where there is no room for that. */
const thingsTitle = { px: 56, foot: 156 } as const
const fieldsOf = (card: CardWords, narrow: boolean): Shape[] | null =>
  card.look === 'things' && !narrow && [...card.title].length * thingsTitle.px * letter <= 1150
    ? thingsShapes(card.lines, thingsTitle.foot, 648)
    : null
/** Whether a card's words all stand on it, and large enough for a phone. */
export function cardFits(card: CardWords, narrow = false): 'well' | 'small' | 'not wholly' {
  if (fieldsOf(card, narrow)) return 'well'
  const laid = layCard(card, narrow)
  return !laid.whole
    ? 'not wholly'
    : laid.columns.some((c) => c.length) && laid.px < readable
      ? 'small'
      : 'well'
}

/** A full-screen card of 1280 × 720. On a `stop` card the ring comes over the room left at the top; what stands `beside` it is drawn at its right. */
export function cardShapes(
  card: CardWords,
  beside: { table: TableState; fill: HouseStyle['frameFill'] } | null = null,
): Shape[] {
  const narrow = beside !== null
  const fields = fieldsOf(card, narrow)
  const { title, columns, px, height } = layCard(card, narrow)
  const [first, last] = room(card.look)
  const top = Math.max(first, Math.min((card.look === 'stop' ? 440 : 360) - height / 2, last - height))
  const centred = card.look !== 'things' && !narrow
  const text = (
    x: number,
    y: number,
    size: number,
    words: string,
    colour: string,
    middle: boolean,
  ): Shape => ({
    tag: 'text',
    attrs: {
      x,
      y: round(y),
      'font-size': size,
      'font-family': 'Andika',
      fill: colour,
      'text-anchor': middle ? 'middle' : 'start',
    },
    text: words,
  })
  const under = top + title.lines.length * title.px * 1.25 + 24
  const titleX = narrow ? 72 : centred ? 640 : columns.length > 1 ? 96 : 330
  const wordsOnly = (): Shape[] => [
    ...title.lines.map((l, i) =>
      text(titleX, top + (i + 0.8) * title.px * 1.25, title.px, l, paper.white, centred),
    ),
    ...columns
      .flat()
      .map((l) => text(l.x, under + (l.row + 0.8) * px * 1.35, px, l.text, paper.linen, centred)),
  ]
  return [
    { tag: 'rect', attrs: { x: 0, y: 0, width: 1280, height: 720, fill: paper.ink } },
    // The thread, sewn along the foot of every card.
    ...Array.from({ length: 16 }, (_, i): Shape => ({
      tag: 'rect',
      attrs: {
        x: 40 + i * 76,
        y: 672,
        width: 48,
        height: 6,
        rx: 3,
        fill: card.look === 'guard' ? paper.saffron : paper.steel,
      },
    })),
    ...(fields ? [text(64, 118, thingsTitle.px, card.title, paper.white, false), ...fields] : wordsOnly()),
    ...(beside ? onCard(beside.table, beside.fill) : []),
  ]
}
/** Where the table is drawn on a card, at its own proportions. */
const cardTable = { x: 740, y: 232, w: 484 } as const
function onCard(table: TableState, fill: HouseStyle['frameFill']): Shape[] {
  const k = cardTable.w / tableWidth
  return [
    {
      tag: 'rect',
      attrs: {
        x: cardTable.x - 12,
        y: cardTable.y - 12,
        width: cardTable.w + 24,
        height: round(tableHeight * k + 24),
        rx: 14,
        fill: paper.linen,
      },
    },
    {
      tag: 'g',
      attrs: { transform: `translate(${cardTable.x} ${cardTable.y}) scale(${round(k)})` },
      children: drawTable({ ...table, held: null, written: [] }, fill),
    },
  ]
}
