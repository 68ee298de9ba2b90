import { type PrintableKind, printableKinds } from '../../contracts/printables.ts'
import { numberName } from '../../plan/numbers/names.ts'
import { dicePattern } from '../../script/table/drawing/layout.ts'
import { cards, clamp, dots, type Numbers, upTo } from './cards.ts'
import { moreMakers } from './more-sheets.ts'
import { inside, type Paper } from '../../paper/sizes.ts'
import { type Mark, pen, type Sheet, sheet } from './paper.ts'

export const isPrintable = (kind: string): kind is PrintableKind =>
  (printableKinds as readonly string[]).includes(kind)
/** What each is called on the page and in lists. */
export const printableWords: Record<PrintableKind, string> = {
  'ten-frame': 'Ten frame',
  'part-whole': 'Parts and whole',
  'number-line': 'Number line',
  'hundred-square': 'Hundred square',
  'number-cards': 'Number cards',
  'word-cards': 'Word cards',
  'dot-cards': 'Dot cards',
  'dice-net': 'A die to fold',
  spinner: 'Spinner',
  plates: 'Plates',
  'ways-sheet': 'Sheet for ways',
  'sums-sheet': 'Sheet for sums',
  track: 'Track with gaps',
  'picture-cards': 'Picture cards',
  dominoes: 'Dominoes',
  counters: 'Two-sided counters',
  'dot-mats': 'Two-square mat',
  hive: 'Hive',
  'egg-box-labels': 'Labels for an egg box',
  rods: 'Rods and ones',
  'rounds-sheet': 'Sheet for rounds',
  'runs-sheet': 'Sheet for runs',
  'reply-sheet': 'Reply sheet',
}
/** The sheets of a kind on a paper. @throws RangeError for numbers no sheet can hold */
export function printableSheets(kind: PrintableKind, paper: Paper, numbers: Numbers): Sheet[] {
  if (!Number.isFinite(numbers.upTo) || numbers.upTo < 1 || numbers.upTo > 1000)
    throw new RangeError('Numbers from 1 to 1000.')
  return makers[kind](paper, numbers)
}

const makers: Record<PrintableKind, (paper: Paper, n: Numbers) => Sheet[]> = {
  'ten-frame': tenFrames,
  'part-whole': partWhole,
  'number-line': numberLine,
  'hundred-square': hundredSquare,
  'number-cards': (paper, n) =>
    cards(paper, 'Number cards', upTo(n, 20), ({ x, y, w, h }, k) => [
      { kind: 'text', x: x + w / 2, y: y + h / 2 + 14, size: 28, text: String(k), middle: true, bold: true },
    ]),
  'word-cards': (paper, n) =>
    cards(paper, 'Word cards', upTo(n, 20), ({ x, y, w, h }, k) => [
      {
        kind: 'text',
        x: x + w / 2,
        y: y + h / 2 + 3,
        size: 6.5,
        text: numberName(k),
        middle: true,
        bold: true,
      },
    ]),
  'dot-cards': (paper, n) => cards(paper, 'Dot cards', upTo(n, 10), dots),
  'dice-net': diceNet,
  spinner,
  plates,
  'ways-sheet': waysSheet,
  'sums-sheet': sumsSheet,
  ...moreMakers,
}
/** Cells are 32 mm: a bottle top lies in one. Over ten there is a second frame. */
function tenFrames(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const cell = 32
  const at = inside(paper)
  const frame = (top: number): Mark[] => {
    const x0 = at.x + (at.w - cell * 5) / 2
    const boxes = Array.from({ length: 10 }, (_, i): Mark => ({
      kind: 'box',
      x: x0 + (i % 5) * cell,
      y: top + Math.floor(i / 5) * cell,
      w: cell,
      h: cell,
      width: pen.line,
    }))
    return [...boxes, { kind: 'box', x: x0, y: top, w: cell * 5, h: cell * 2, width: pen.bold }]
  }
  const marks = [...frame(at.y + 20), ...(most > 10 ? frame(at.y + 20 + cell * 2 + 24) : [])]
  return [sheet(paper, most > 10 ? 'Two ten frames' : 'Ten frame', marks)]
}

/** A ring for the whole above, one for each part below, joined by lines. */
function partWhole(paper: Paper, { parts }: Numbers): Sheet[] {
  const n = clamp(parts, 2, 6)
  const at = inside(paper)
  const middle = at.x + at.w / 2
  const r = Math.min(30, at.w / n / 2 - 3)
  const [top, low] = [at.y + 50, at.y + 165]
  const marks: Mark[] = [{ kind: 'circle', cx: middle, cy: top, r: 38, width: pen.bold }]
  for (let i = 0; i < n; i++) {
    const cx = at.x + (at.w / n) * (i + 0.5)
    const [dx, dy] = [cx - middle, low - top]
    const far = Math.hypot(dx, dy)
    marks.push(
      { kind: 'circle', cx, cy: low, r, width: pen.bold },
      {
        kind: 'line',
        x1: middle + (dx / far) * 38,
        y1: top + (dy / far) * 38,
        x2: cx - (dx / far) * r,
        y2: low - (dy / far) * r,
        width: pen.line,
      },
    )
  }
  return [sheet(paper, `A whole and ${n} parts`, marks)]
}

/** To 20 with every number on one sheet lying down; beyond, empty but for its ends, over two with joining marks. */
function numberLine(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const at = inside(paper, true)
  const y = at.y + at.h / 2
  if (most <= 20) {
    const n = Math.max(5, most)
    const step = Math.floor((at.w - 10) / n)
    const x0 = at.x + (at.w - step * n) / 2
    const marks: Mark[] = [{ kind: 'line', x1: x0, y1: y, x2: x0 + step * n, y2: y, width: pen.bold }]
    for (let i = 0; i <= n; i++) {
      const x = x0 + i * step
      marks.push(
        { kind: 'line', x1: x, y1: y - 4, x2: x, y2: y + 4, width: pen.line },
        { kind: 'text', x, y: y + 13, size: 5, text: String(i), middle: true, bold: true },
      )
    }
    return [sheet(paper, `Number line from 0 to ${n}`, marks, true)]
  }
  const half = 240
  const x0 = at.x + (at.w - half) / 2
  const end = most <= 100 ? 100 : most
  const part = (first: boolean): Sheet => {
    const x = first ? x0 : x0 + half
    const joint = first ? x0 + half : x0
    return sheet(
      paper,
      `Empty line from 0 to ${end}, ${first ? 'left' : 'right'} half: lay the crosses on one another`,
      [
        { kind: 'line', x1: x0, y1: y, x2: x0 + half, y2: y, width: pen.bold },
        { kind: 'line', x1: x, y1: y - 6, x2: x, y2: y + 6, width: pen.bold },
        { kind: 'text', x, y: y + 16, size: 6, text: first ? '0' : String(end), middle: true, bold: true },
        { kind: 'line', x1: joint - 4, y1: y - 20, x2: joint + 4, y2: y - 20, width: pen.fine },
        { kind: 'line', x1: joint, y1: y - 24, x2: joint, y2: y - 16, width: pen.fine },
      ],
      true,
    )
  }
  return [part(true), part(false)]
}

function hundredSquare(paper: Paper): Sheet[] {
  const cell = 18
  const at = inside(paper)
  const x0 = at.x + (at.w - cell * 10) / 2
  const marks: Mark[] = []
  for (let i = 0; i < 100; i++) {
    const [x, y] = [x0 + (i % 10) * cell, at.y + 10 + Math.floor(i / 10) * cell]
    marks.push(
      { kind: 'box', x, y, w: cell, h: cell, width: pen.fine },
      { kind: 'text', x: x + cell / 2, y: y + cell / 2 + 2.5, size: 5, text: String(i + 1), middle: true },
    )
  }
  marks.push({ kind: 'box', x: x0, y: at.y + 10, w: cell * 10, h: cell * 10, width: pen.bold })
  return [sheet(paper, 'Hundred square', marks)]
}

/** Six squares of 40 mm in a cross, with flaps to glue. */
function diceNet(paper: Paper): Sheet[] {
  const side = 40
  const at = inside(paper)
  const [x0, y0] = [at.x + (at.w - side * 4) / 2, at.y + 30]
  const places = [
    [1, 0, 2],
    [0, 1, 1],
    [1, 1, 3],
    [2, 1, 6],
    [3, 1, 4],
    [1, 2, 5],
  ] as const
  const marks = places.flatMap(([cx, cy, n]): Mark[] => {
    const [x, y] = [x0 + cx * side, y0 + cy * side]
    return [
      { kind: 'box', x, y, w: side, h: side, width: pen.line },
      ...(dicePattern[n] ?? []).map(([dx, dy]): Mark => ({
        kind: 'circle',
        cx: x + side / 2 + dx * 11,
        cy: y + side / 2 + dy * 11,
        r: 3.4,
        width: pen.line,
        filled: true,
      })),
    ]
  })
  type Point = readonly [number, number]
  const flap = ([x1, y1]: Point, [x2, y2]: Point, out: Point): Mark[] => {
    const [ax, ay] = [x1 + (x2 - x1) * 0.15 + out[0] * 8, y1 + (y2 - y1) * 0.15 + out[1] * 8]
    const [bx, by] = [x1 + (x2 - x1) * 0.85 + out[0] * 8, y1 + (y2 - y1) * 0.85 + out[1] * 8]
    const line = (p: number, q: number, r: number, s: number): Mark => ({
      kind: 'line',
      x1: p,
      y1: q,
      x2: r,
      y2: s,
      width: pen.fine,
      dashed: true,
    })
    return [line(x1, y1, ax, ay), line(ax, ay, bx, by), line(bx, by, x2, y2)]
  }
  const [left, right, mid] = [x0, x0 + side * 4, y0 + side]
  marks.push(
    ...flap([x0 + side, y0], [x0 + side * 2, y0], [0, -1]),
    ...flap([left, mid], [x0 + side, mid], [0, -1]),
    ...flap([x0 + side * 2, mid], [x0 + side * 3, mid], [0, -1]),
    ...flap([x0 + side * 3, mid], [right, mid], [0, -1]),
    ...flap([right, mid], [right, mid + side], [1, 0]),
    ...flap([left, mid + side], [x0 + side, mid + side], [0, 1]),
    ...flap([x0 + side * 2, mid + side], [x0 + side * 3, mid + side], [0, 1]),
  )
  return [sheet(paper, 'A die to cut out, fold and glue', marks)]
}

/** Turned with a pencil in a paper clip at its middle. */
function spinner(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const n = clamp(most, 2, 10)
  const at = inside(paper)
  const [cx, cy, r] = [at.x + at.w / 2, at.y + 105, 80]
  const marks: Mark[] = [
    { kind: 'circle', cx, cy, r, width: pen.bold },
    { kind: 'circle', cx, cy, r: 1, width: pen.line, filled: true },
  ]
  for (let i = 0; i < n; i++) {
    const turn = (k: number): [number, number] => [
      Math.sin((k * 2 * Math.PI) / n),
      -Math.cos((k * 2 * Math.PI) / n),
    ]
    const [ex, ey] = turn(i)
    const [tx, ty] = turn(i + 0.5)
    marks.push(
      { kind: 'line', x1: cx, y1: cy, x2: cx + ex * r, y2: cy + ey * r, width: pen.line },
      {
        kind: 'text',
        x: cx + tx * r * 0.68,
        y: cy + ty * r * 0.68 + 4,
        size: 9,
        text: String(i + 1),
        middle: true,
        bold: true,
      },
    )
  }
  return [sheet(paper, 'Spinner: a pencil in a paper clip turns it', marks)]
}

function plates(paper: Paper, { parts }: Numbers): Sheet[] {
  const n = clamp(parts, 2, 6)
  const at = inside(paper)
  const r = n <= 4 ? 42 : 38
  const marks = Array.from({ length: n }, (_, i): Mark[] => {
    const [cx, cy] = [at.x + at.w * (i % 2 ? 0.75 : 0.25), at.y + r + 4 + Math.floor(i / 2) * (2 * r + 6)]
    return [
      { kind: 'circle', cx, cy, r, width: pen.bold },
      { kind: 'circle', cx, cy, r: r - 8, width: pen.fine },
    ]
  }).flat()
  return [sheet(paper, `${n} plates`, marks)]
}

/** So many lines "__ + __ = n": as many as there are ways in order, and two to spare for those that are not. */
function waysSheet(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const n = clamp(most, 1, 20)
  const at = inside(paper)
  const rows = Math.min(14, n + 3)
  const gap = Math.min(20, (at.h - 20) / rows)
  const marks: Mark[] = [
    { kind: 'text', x: at.x, y: at.y + 8, size: 5, text: `Ways to make ${n}`, bold: true },
  ]
  for (let i = 0; i < rows; i++) {
    const y = at.y + 22 + i * gap
    marks.push(
      { kind: 'box', x: at.x + 20, y: y - 11, w: 16, h: 14, width: pen.line },
      { kind: 'text', x: at.x + 44, y, size: 6, text: '+', middle: true },
      { kind: 'box', x: at.x + 52, y: y - 11, w: 16, h: 14, width: pen.line },
      { kind: 'text', x: at.x + 78, y, size: 6, text: `= ${n}`, middle: true },
    )
  }
  return [sheet(paper, `Sheet for the ways to make ${n}`, marks)]
}

/** Sums with a row of circles under each number, to draw in and cross off. */
function sumsSheet(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const at = inside(paper)
  const marks: Mark[] = []
  const circles = clamp(most, 3, 10)
  for (let i = 0; i < 5; i++) {
    const y = at.y + 18 + i * 48
    for (const [k, x] of [at.x + 8, at.x + 72, at.x + 136].entries()) {
      marks.push({ kind: 'box', x, y: y - 13, w: 18, h: 17, width: pen.line })
      if (k < 2)
        for (let c = 0; c < circles; c++)
          marks.push({
            kind: 'circle',
            cx: x + 3.5 + (c % 5) * 9,
            cy: y + 12 + Math.floor(c / 5) * 9,
            r: 3.5,
            width: pen.fine,
          })
    }
    marks.push(
      { kind: 'text', x: at.x + 49, y, size: 7, text: '+', middle: true },
      { kind: 'text', x: at.x + 113, y, size: 7, text: '=', middle: true },
    )
  }
  return [sheet(paper, 'Five sums of your own', marks)]
}
